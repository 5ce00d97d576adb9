// A trial: the same mail, page, PDF and card payment, to oneself. No number, no journal, no trace in figures.
import { must } from '../../actor';
import { documentMessage } from '../../../core/documents/wording';
import { viewDocument } from '../../../core/documents/view';
import { writeAtOnce } from '../../db/connection';
import { trials } from '../../db/schema';
import { greetedOf, voiceFor } from '../wordings/voice';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { loadDraft } from './drafts';
import { sheetContext } from './context';
import { FieldError } from '../../../core/refusals';
import { freezeDraft } from './freeze';
import { newToken } from '../business/keys';
import { drawDocument } from '../letterheads/dress';
import { queueMail } from '../messages/outbox';
import { note } from '../trail/documents';

export const TRIAL_BANNER = 'Test: nothing here counts, and nothing is owed';

/** @throws NotReadyError, or FieldError where the owner has no e-mail address of its own. */
export async function tryOut(
	world: World,
	documentId: number,
	key: string
): Promise<{ link: string; to: string }> {
	must('bill');
	const to = loadBusiness(world.db).email;
	if (!to)
		throw new FieldError({
			tryOut: 'Give your own e-mail address in the settings first: the test goes there.'
		});
	const draft = loadDraft(world.db, documentId);
	const { frozen, figures } = freezeDraft(
		draft.sheet,
		sheetContext(world.db, draft.sheet, world.clock.today())
	);
	const token = newToken();
	const link = `${world.origin}/p/${token}`;
	const pdf = await drawDocument(world, viewDocument(frozen, figures, '', 'trial'), link);
	writeAtOnce(world.db, (tx) => {
		const { id } = tx
			.insert(trials)
			.values({ documentId, token, frozen, pdf, createdAt: world.clock.now() })
			.returning({ id: trials.id })
			.get();
		const message = documentMessage(
			frozen,
			'to come',
			figures.payable,
			figures.payable,
			voiceFor(tx, greetedOf(frozen))
		);
		queueMail(tx, world, {
			key: `tryOut:${key}`,
			kind: 'trial',
			trialId: id,
			to,
			subject: `Test · ${message.subject}`,
			text: message.text,
			link,
			banner: TRIAL_BANNER,
			attachPdf: true
		});
		note(tx, { documentId, at: world.clock.now(), who: 'you', what: 'tried' });
	});
	return { link, to };
}
