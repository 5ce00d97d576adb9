// What the sheet needs to begin: the draft, both parties, and the number that comes next.
import { isNotNull } from 'drizzle-orm';
import { documentMessage, type Message } from '../../../core/documents/wording';
import type { PlainDate } from '../../../core/calendar/types';
import { formatNumber } from '../../../core/documents/numbers';
import type { Reader } from '../../db/connection';
import { documents } from '../../db/schema';
import { greetedOf, voiceFor } from '../wordings/voice';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { loadSeries } from '../business/series';
import { mailAddresses } from '../customers/parts';
import { filesOf } from '../files/files';
import { correctedBy } from './corrections';
import { loadDraft } from './drafts';
import { sheetContext } from './context';
import { previewDraft, type FrozenDraft } from './freeze';

export function loadSheetPage(world: World, id: number) {
	const { db, clock } = world;
	const draft = loadDraft(db, id);
	const series = loadSeries(db, 'invoice');
	const today = clock.today();
	const { sheet } = draft;
	const context = sheetContext(db, sheet, today);
	const { customer } = context;
	return {
		...context,
		corrects: correctedBy(db, sheet),
		files: filesOf(db, { to: 'document', id }),
		draft: { id, version: draft.version, sheet, savedAt: draft.updatedAt },
		mailTo: customer ? (mailAddresses(db, customer.id, sheet)[0] ?? '') : '',
		ownAddress: loadBusiness(db).email,
		nextNumber: comingNumber(series, today),
		/** Until a number has been taken, where the series begins can be said beside it. */
		series: numberTaken(db)
			? null
			: { invoicePattern: series.pattern, invoiceNext: String(series.next) }
	};
}

const comingNumber = (series: { pattern: string; next: number }, today: PlainDate): string =>
	formatNumber(series.pattern, series.next, today.slice(0, 4));

const numberTaken = (db: Reader) =>
	db.select({ id: documents.id }).from(documents).where(isNotNull(documents.number)).get() !==
	undefined;

/** A draft as the customer would see it; null where nothing is on it yet. */
export function draftPreview(world: World, id: number): FrozenDraft | null {
	const draft = loadDraft(world.db, id);
	return previewDraft(draft.sheet, sheetContext(world.db, draft.sheet, world.clock.today()));
}

/** The message a draft would go out with, were it issued now; null where it is not ready. */
export function draftMessage(world: World, id: number): (Message & { number: string }) | null {
	const drafted = draftPreview(world, id);
	if (!drafted) return null;
	const number = comingNumber(loadSeries(world.db, 'invoice'), world.clock.today());
	const { frozen, figures } = drafted;
	const { payable } = figures;
	const voice = voiceFor(world.db, greetedOf(frozen));
	return { ...documentMessage(frozen, number, payable, payable, voice), number };
}
