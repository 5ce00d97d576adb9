// A trial of a quote: the same mail, page and PDF, to oneself. No number, no version, nothing is bound by it.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { quoteMessage } from '../../../core/quotes/wording';
import { readQuote } from '../../../core/quotes/read';
import { quoteView, TEST_BANNER } from '../../../core/quotes/view';
import { FieldError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { quoteTrials } from '../../db/schema';
import type { World } from '../../world';
import { newToken } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { sheetContext } from '../invoices/context';
import { freezeQuote, NotReadyError } from '../invoices/freeze';
import { drawDocument } from '../letterheads/dress';
import { queueMail } from '../messages/outbox';
import { greetedOf, voiceFor } from '../wordings/voice';
import { loadQuote, noteQuote } from './quotes';
import { stopsOf } from './send';

export type QuoteTrial = typeof quoteTrials.$inferSelect;

/** The number on a trial: it takes none of the series. */
export const TRIAL_NUMBER = 'to come';

export const trialByToken = (db: Reader, token: string): QuoteTrial | undefined =>
	db.select().from(quoteTrials).where(eq(quoteTrials.token, token)).get();

/** @throws NotReadyError, or FieldError where the owner has no e-mail address of its own. */
export async function tryQuote(
	world: World,
	id: number,
	key: string
): Promise<{ link: string; to: string }> {
	must('bill');
	const { db, clock } = world;
	const to = loadBusiness(db).email;
	if (!to)
		throw new FieldError({
			tryOut: 'Give your own e-mail address in the settings first: the test goes there.'
		});
	const row = loadQuote(db, id);
	const context = sheetContext(db, row.sheet, clock.today());
	const reading = readQuote(row.sheet, context);
	const stops = stopsOf(row.sheet, reading);
	const frozen = freezeQuote(row.sheet, context);
	const { quote, validUntil } = reading;
	if (stops.length || !frozen || !quote) throw new NotReadyError(stops);
	const token = newToken();
	const link = `${world.origin}/q/${token}`;
	const pdf = await drawDocument(
		world,
		quoteView(frozen, { number: TRIAL_NUMBER, version: 0, validUntil, trial: true }),
		link
	);
	writeAtOnce(db, (tx) => {
		const at = clock.now();
		const trial = tx
			.insert(quoteTrials)
			.values({ quoteId: id, token, frozen, validUntil, pdf, createdAt: at })
			.returning({ id: quoteTrials.id })
			.get();
		const message = quoteMessage(
			frozen,
			{ number: TRIAL_NUMBER, validUntil, quote },
			voiceFor(tx, greetedOf(frozen))
		);
		queueMail(tx, world, {
			key: `tryQuote:${key}`,
			kind: 'trial',
			quoteTrialId: trial.id,
			to,
			subject: `Test · ${message.subject}`,
			text: message.text,
			link,
			banner: TEST_BANNER,
			attachPdf: true
		});
		noteQuote(tx, id, at, 'tried', to);
	});
	return { link, to };
}
