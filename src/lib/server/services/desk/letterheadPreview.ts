// A letterhead as it would look: any document of the owner's on it, drawn as it would be printed.
import { and, desc, eq, inArray, like, or } from 'drizzle-orm';
import { frozenFigures } from '../../../core/documents/frozen';
import type { Frozen } from '../../../core/documents/types';
import { viewDocument } from '../../../core/documents/view';
import type { Look } from '../../../core/letterheads/look';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { blankSheet } from '../../../core/sheet/blank';
import type { Sheet, SheetLine } from '../../../core/sheet/types';
import { documents } from '../../db/schema';
import type { Reader } from '../../db/connection';
import type { World } from '../../world';
import { sheetContext } from '../invoices/context';
import { previewDraft } from '../invoices/freeze';
import { drawDocument } from '../letterheads/dress';
import type { Something } from './wordingPreview';

const FOUND = 12;

/** The newest documents, or those whose number or customer holds what is typed. */
export function documentsToShow(db: Reader, typed: string): Something[] {
	const named = `%${typed.trim()}%`;
	return (
		db
			.select({
				id: documents.id,
				number: documents.number,
				customer: documents.customerName,
				kind: documents.kind
			})
			.from(documents)
			.where(
				and(
					inArray(documents.state, ['draft', 'issued']),
					typed.trim() === ''
						? undefined
						: or(like(documents.number, named), like(documents.customerName, named))
				)
			)
			// What is issued is looked at before what is half written.
			.orderBy(desc(documents.state), desc(documents.id))
			.limit(FOUND)
			.all()
			.map(({ id, number, customer, kind }) => ({
				id,
				title: number ?? 'Draft',
				detail: [customer, kind === 'creditNote' ? 'credit note' : ''].filter(Boolean).join(', ')
			}))
	);
}

/**
 * Draws a document on this look: an issued one as if it were issued today, a draft as it stands.
 * @param id null: an example @throws NotFoundError, RefusedError
 */
export async function drawOn(world: World, look: Look, id: number | null): Promise<Buffer> {
	const row =
		id === null ? undefined : world.db.select().from(documents).where(eq(documents.id, id)).get();
	if (id !== null && (!row || row.state === 'discarded')) throw new NotFoundError('This document');
	if (row?.frozen && row.number) {
		const frozen: Frozen = { ...row.frozen, look };
		const view = viewDocument(frozen, frozenFigures(frozen), row.number, 'issued');
		const pays = row.kind === 'invoice' && !frozen.sheet.selfBilled;
		// No link that works: whoever looks over the shoulder gets none.
		return drawDocument(world, view, pays ? `${world.origin}/p/${'x'.repeat(22)}` : null);
	}
	const sheet = row?.sheet ?? example();
	const context = sheetContext(world.db, sheet, world.clock.today());
	const preview = previewDraft(sheet, { ...context, dress: { ...context.dress, look } });
	if (!preview) throw new RefusedError('There is nothing on this draft yet.');
	return drawDocument(world, viewDocument(preview.frozen, preview.figures, '', 'draft'), null);
}

/** For whoever has no document yet. */
function example(): Sheet {
	const line = (id: string, more: Partial<SheetLine>): SheetLine => ({
		id,
		type: 'line',
		kind: 'labour',
		description: '',
		quantity: '1',
		unit: '',
		unitPrice: '0',
		vat: 'standard',
		vatReason: '',
		discount: '',
		cost: '',
		...more
	});
	return {
		...blankSheet(),
		rows: [
			{ id: 'h', type: 'heading', text: 'Hall and stairs' },
			line('a', {
				description: 'Make good the plaster, two coats',
				quantity: '7.5',
				unit: 'h',
				unitPrice: '42'
			}),
			line('b', {
				kind: 'materials',
				description: 'Lime putty plaster, hair',
				quantity: '3',
				unit: 'bag',
				unitPrice: '28.50'
			}),
			line('c', { kind: 'other', description: 'Waste taken away', unitPrice: '65' })
		]
	};
}
