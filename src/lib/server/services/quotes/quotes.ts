// Quotes: begun, saved as typed, copied, thrown away, taken back, prolonged.
import { must, actor } from '../../actor';
import { and, desc, eq, gt, inArray } from 'drizzle-orm';
import { blankQuote, blankTerms } from '../../../core/quotes/terms';
import { readQuote } from '../../../core/quotes/read';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { pricesIncludeVatFor } from '../../../core/sheet/blank';
import { sheetForm } from '../../../core/sheet/form';
import type { QuoteTerms, Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { quotes, quoteTrail } from '../../db/schema';
import type { World } from '../../world';
import { newToken } from '../business/keys';
import { isRegistered } from '../business/settings';
import { customerRecord } from '../customers/parts';
import { customerFor, enquiryTitle, loadEnquiry, moveEnquiry } from '../enquiries/enquiries';
import { copyFiles } from '../files/files';
import { sheetContext } from '../invoices/context';
import { loadJob } from '../jobs/jobs';

export type QuoteRow = typeof quotes.$inferSelect;

export type QuoteEvent =
	| 'begun'
	| 'sent'
	| 'sentAgain'
	| 'handedOver'
	| 'opened'
	| 'asked'
	| 'answered'
	| 'accepted'
	| 'declined'
	| 'withdrawn'
	| 'prolonged'
	| 'reminded'
	| 'reopened'
	| 'cancelled'
	| 'confirmed'
	| 'depositAsked'
	| 'depositPaid'
	| 'tried';

/** @param by null: the customer, or the house itself */
export function noteQuote(
	tx: Reader,
	quoteId: number,
	at: number,
	what: QuoteEvent,
	detail = '',
	by: number | null = actor()?.id ?? null
): void {
	tx.insert(quoteTrail).values({ quoteId, at, what, detail, personId: by }).run();
}

export interface QuoteStart {
	customerId?: number | null;
	siteId?: number | null;
	title?: string;
	/** Extra or lesser work on this job. */
	forJobId?: number | null;
	workKindId?: number | null;
	note?: string;
	enquiryId?: number | null;
}

/** Begins a quote; its terms are those of the last one that went out. The same key again gives that one back. */
export function beginQuote(world: World, key: string, start: QuoteStart = {}): number {
	must('bill');
	return writeAtOnce(world.db, (tx) => quoteOnce(tx, world, key, start));
}

/** As `beginQuote`, in the caller's transaction. */
export function quoteOnce(tx: Transaction, world: World, key: string, start: QuoteStart): number {
	const same = tx.select({ id: quotes.id }).from(quotes).where(eq(quotes.key, key)).get();
	if (same) return same.id;
	const job = start.forJobId ? loadJob(tx, start.forJobId) : null;
	const customerId = job?.customerId ?? start.customerId ?? null;
	const customer = customerRecord(tx, customerId);
	const sheet: Sheet = {
		...blankQuote(),
		customerId,
		siteId: job?.siteId ?? start.siteId ?? null,
		...((job?.workKindId ?? start.workKindId)
			? { workKindId: (job?.workKindId ?? start.workKindId)! }
			: {}),
		contract: job?.contract ?? null,
		note: start.note ?? '',
		pricesIncludeVat: job
			? job.pricesIncludeVat
			: customer !== null && isRegistered(world) && pricesIncludeVatFor(customer.kind),
		quote: { ...lastTerms(tx), title: start.title ?? (job ? `Extra work: ${job.title}` : '') }
	};
	return insertQuote(tx, world, key, sheet, job?.id ?? null, start.enquiryId ?? null);
}

/**
 * A quote of an enquiry, with its customer, its words and its photos. The same enquiry again gives the same quote.
 * @throws RefusedError once it is closed
 */
export function quoteOfEnquiry(world: World, enquiryId: number): number {
	must('bill');
	return writeAtOnce(world.db, (tx) => {
		const enquiry = loadEnquiry(tx, enquiryId);
		if (enquiry.state === 'closed') throw new RefusedError('It is closed. Open it again first.');
		const id = quoteOnce(tx, world, `enquiry:${enquiryId}`, {
			customerId: customerFor(tx, world, enquiry),
			title: enquiryTitle(enquiry),
			workKindId: enquiry.workKindId,
			enquiryId
		});
		copyFiles(tx, { to: 'enquiry', id: enquiryId }, { to: 'quote', id }, world.clock.now());
		if (enquiry.jobId !== null)
			copyFiles(tx, { to: 'job', id: enquiry.jobId }, { to: 'quote', id }, world.clock.now());
		moveEnquiry(tx, world, enquiryId, { state: 'quoted' });
		return id;
	});
}

function insertQuote(
	tx: Transaction,
	world: World,
	key: string,
	sheet: Sheet,
	forJobId: number | null,
	enquiryId: number | null = null
): number {
	const now = world.clock.now();
	const { id } = tx
		.insert(quotes)
		.values({
			key,
			state: 'draft',
			sheet,
			token: newToken(),
			forJobId,
			enquiryId,
			createdAt: now,
			updatedAt: now
		})
		.returning({ id: quotes.id })
		.get();
	noteQuote(tx, id, now, 'begun');
	computeRow(tx, world, id, sheet);
	return id;
}

/** What the owner says on every quote: as on the one that went out last. */
function lastTerms(db: Reader): QuoteTerms {
	const last = db
		.select({ sheet: quotes.sheet })
		.from(quotes)
		.where(gt(quotes.sent, 0))
		.orderBy(desc(quotes.sentAt))
		.get()?.sheet.quote;
	if (!last) return blankTerms();
	const { binding, detail, validDays, guarantee, terms, deposit, place } = last;
	return { ...blankTerms(), binding, detail, validDays, guarantee, terms, deposit, place };
}

/** Works out what a quote comes to. In the caller's transaction. */
function computeRow(tx: Transaction, world: World, id: number, sheet: Sheet): void {
	const { quote, customer } = readQuote(sheet, sheetContext(tx, sheet, world.clock.today()));
	const pence = (amount: bigint | null | undefined) =>
		amount === null || amount === undefined || !Number.isSafeInteger(Number(amount))
			? null
			: Number(amount);
	tx.update(quotes)
		.set({
			customerId: customer?.id ?? null,
			customerName: customer?.name ?? '',
			title: sheet.quote!.title.trim().slice(0, 200),
			workKindId: sheet.workKindId ?? null,
			total: pence(quote?.figures.total) ?? 0,
			lowest: pence(quote?.lowest),
			highest: pence(quote?.highest)
		})
		.where(eq(quotes.id, id))
		.run();
}

/** @throws NotFoundError */
export function loadQuote(db: Reader, id: number): QuoteRow {
	const row = db.select().from(quotes).where(eq(quotes.id, id)).get();
	if (!row) throw new NotFoundError('This quote');
	return row;
}

/** As long as nobody said yes or no it can be written on; what went out stays as it was. */
const OPEN: readonly QuoteRow['state'][] = ['draft', 'sent'];

/**
 * Saves a quote as typed. One that went out is changed for its next version.
 * @throws FieldError, NotFoundError; ConflictError where another tab was first; RefusedError once it is answered
 */
export function saveQuote(
	world: World,
	id: number,
	version: number,
	input: unknown
): { version: number; savedAt: number } {
	must('bill');
	const parsed = sheetForm.safeParse(input);
	if (!parsed.success || !parsed.data.quote)
		throw new FieldError({
			[parsed.error?.issues[0]!.path.join('.') ?? 'quote']: 'This could not be read.'
		});
	const sheet = parsed.data;
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const row = loadQuote(tx, id);
		if (!OPEN.includes(row.state))
			throw new RefusedError('It has been answered in the meantime and does not change any more.');
		if (row.version !== version) throw new ConflictError('This quote was changed in another tab.');
		tx.update(quotes)
			.set({ sheet, version: version + 1, updatedAt: now })
			.where(eq(quotes.id, id))
			.run();
		computeRow(tx, world, id, sheet);
		return { version: version + 1, savedAt: now };
	});
}

/** Throws a quote away that never went out, or brings it back. @throws RefusedError */
export function discardQuote(world: World, id: number, discarded: boolean): void {
	must('bill');
	writeAtOnce(world.db, (tx) => {
		const row = loadQuote(tx, id);
		if (row.sent > 0)
			throw new RefusedError('It has gone out, so it cannot be thrown away. Withdraw it instead.');
		tx.update(quotes)
			.set({ state: discarded ? 'discarded' : 'draft', updatedAt: world.clock.now() })
			.where(and(eq(quotes.id, id), inArray(quotes.state, ['draft', 'discarded'])))
			.run();
	});
}

/** A new draft with everything of another but its answers. The same key again gives that one back. */
export function copyQuote(world: World, id: number, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) => {
		const same = tx.select({ id: quotes.id }).from(quotes).where(eq(quotes.key, key)).get();
		if (same) return same.id;
		const { sheet } = loadQuote(tx, id);
		const { own: _own, ...kept } = sheet;
		return insertQuote(tx, world, key, { ...kept, issueDate: '', orderNumber: '' }, null);
	});
}
