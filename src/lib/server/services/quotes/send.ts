// A quote goes out: frozen as a version, drawn, with a number of its own series; by mail, by link, or on paper.
import { must } from '../../actor';
import { and, desc, eq } from 'drizzle-orm';
import { formatNumber } from '../../../core/documents/numbers';
import type { Frozen } from '../../../core/documents/types';
import type { Message } from '../../../core/documents/wording';
import { frozenQuote } from '../../../core/quotes/frozen';
import { quoteMessage } from '../../../core/quotes/wording';
import type { Sheet } from '../../../core/sheet/types';
import { missingToSend, readQuote, type QuoteReading } from '../../../core/quotes/read';
import { NOTHING_PICKED } from '../../../core/quotes/chosen';
import { quoteView } from '../../../core/quotes/view';
import { ConflictError, NotFoundError, RefusedError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { numberSeries, quotes, quoteVersions } from '../../db/schema';
import type { World } from '../../world';
import { sha256 } from '../business/keys';
import { linkToday } from '../business/links';
import { mustNotRest } from '../business/resting';
import { loadSeries } from '../business/series';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { sheetContext } from '../invoices/context';
import { freezeQuote, NotReadyError } from '../invoices/freeze';
import { again, oneAtATime, RaceLostError } from '../invoices/issuing';
import { readAddresses, readMessage } from '../invoices/send';
import { drawDocument } from '../letterheads/dress';
import { queueMail } from '../messages/outbox';
import { greetedOf, voiceFor } from '../wordings/voice';
import { loadQuote, noteQuote, type QuoteRow } from './quotes';

export type QuoteVersion = typeof quoteVersions.$inferSelect;

/** The version that counts; undefined before one went out. */
export const newestVersion = (db: Reader, quoteId: number): QuoteVersion | undefined =>
	db
		.select()
		.from(quoteVersions)
		.where(eq(quoteVersions.quoteId, quoteId))
		.orderBy(desc(quoteVersions.n))
		.get();

/** @throws NotFoundError */
export function versionOf(db: Reader, quoteId: number, n: number): QuoteVersion {
	const row = db
		.select()
		.from(quoteVersions)
		.where(and(eq(quoteVersions.quoteId, quoteId), eq(quoteVersions.n, n)))
		.get();
	if (!row) throw new NotFoundError('This version');
	return row;
}

export const quoteLink = (db: Reader, world: World, { token }: Pick<QuoteRow, 'token'>): string =>
	`${world.origin}/q/${linkToday(db, token)}`;

const comingNumber = (db: Reader, today: string): string => {
	const series = loadSeries(db, 'quote');
	return formatNumber(series.pattern, series.next, today.slice(0, 4));
};

/** Whether what is written now is what went out last. */
export function isAsSent(db: Reader, row: QuoteRow): boolean {
	const last = newestVersion(db, row.id);
	return last !== undefined && JSON.stringify(last.frozen.sheet) === JSON.stringify(row.sheet);
}

/** What keeps it from going out. */
export const stopsOf = (sheet: Sheet, reading: QuoteReading) =>
	[...reading.problems, ...missingToSend(sheet, reading)].filter(({ level }) => level === 'stop');

/** What the send form begins with, and what stands in the way. */
export function prepareQuote(world: World, id: number) {
	const { db, clock } = world;
	const row = loadQuote(db, id);
	const context = sheetContext(db, row.sheet, clock.today());
	const reading = readQuote(row.sheet, context);
	const problems = stopsOf(row.sheet, reading);
	const frozen = freezeQuote(row.sheet, context);
	const number = row.number ?? comingNumber(db, clock.today());
	const message: Message =
		frozen && reading.quote
			? quoteMessage(
					frozen,
					{ number, validUntil: reading.validUntil, quote: reading.quote },
					voiceFor(db, greetedOf(frozen))
				)
			: { subject: '', text: '' };
	return {
		...message,
		number,
		to: row.customerId === null ? '' : (mailAddresses(db, row.customerId, row.sheet)[0] ?? ''),
		problems
	};
}

/** As the customer would see it; null where nothing is on it. */
export function quotePreview(world: World, id: number) {
	const row = loadQuote(world.db, id);
	const context = sheetContext(world.db, row.sheet, world.clock.today());
	const reading = readQuote(row.sheet, context);
	const frozen = freezeQuote(row.sheet, context);
	if (!frozen || !reading.quote) return null;
	return {
		frozen,
		view: quoteView(frozen, {
			number: '',
			version: row.sent + 1,
			validUntil: reading.validUntil,
			draft: true
		})
	};
}

export interface QuoteSending {
	key: string;
	/** Nothing is mailed: the owner gives the link or the paper. */
	byHand?: boolean;
	to?: string;
	subject?: string;
	text?: string;
}

/**
 * Sends it: as a new version where it was written on since the last one went out. The same key again changes nothing.
 * @returns its number and version
 * @throws FieldError, NotReadyError; ConflictError where another tab was first; RefusedError once it is answered
 */
export function sendQuote(
	world: World,
	id: number,
	version: number,
	form: QuoteSending
): Promise<{ number: string; n: number }> {
	must('bill');
	const to = form.byHand ? '' : readAddresses(form.to ?? '');
	const message = form.byHand
		? null
		: readMessage({ subject: form.subject ?? '', text: form.text ?? '' });
	return oneAtATime(() => again(() => sendOnce(world, id, version, form.key, to, message)));
}

async function sendOnce(
	world: World,
	id: number,
	version: number,
	key: string,
	to: string,
	message: Message | null
): Promise<{ number: string; n: number }> {
	const { db, clock } = world;
	mustNotRest(db);
	const row = loadQuote(db, id);
	mustBeOpen(row);
	if (row.version !== version)
		throw new ConflictError('This quote was changed in another tab. Look at it again.');
	if (isAsSent(db, row)) {
		writeAtOnce(db, (tx) => goOut(tx, world, loadQuote(tx, id), key, to, message, false));
		return { number: row.number!, n: row.sent };
	}
	const today = clock.today();
	const context = sheetContext(db, row.sheet, today);
	const reading = readQuote(row.sheet, context);
	const stops = stopsOf(row.sheet, reading);
	const frozen = freezeQuote(row.sheet, context);
	if (stops.length || !frozen || !reading.quote) throw new NotReadyError(stops);
	const series = loadSeries(db, 'quote');
	const number = row.number ?? comingNumber(db, today);
	const n = row.sent + 1;
	const { validUntil } = reading;
	const pdf = await drawDocument(
		world,
		quoteView(frozen, { number, version: n, validUntil }),
		quoteLink(db, world, row)
	);
	return writeAtOnce(db, (tx) => {
		const now = loadQuote(tx, id);
		mustBeOpen(now);
		if (now.version !== version || now.sent !== row.sent) throw new RaceLostError();
		if (now.number === null) {
			if (loadSeries(tx, 'quote').next !== series.next) throw new RaceLostError();
			tx.update(numberSeries)
				.set({ next: series.next + 1 })
				.where(eq(numberSeries.kind, 'quote'))
				.run();
		}
		const at = clock.now();
		tx.insert(quoteVersions)
			.values({
				quoteId: id,
				n,
				frozen,
				validUntil,
				total: Number(reading.quote!.figures.total),
				name: `${number.replace(/[^\w.-]+/g, '-')}${n > 1 ? `-v${n}` : ''}.pdf`,
				sha256: sha256(pdf),
				content: pdf,
				sentAt: at
			})
			.run();
		tx.update(quotes)
			.set({
				number,
				running: now.running ?? series.next,
				state: 'sent',
				sent: n,
				sentAt: at,
				validUntil,
				openedAt: null,
				updatedAt: at
			})
			.where(eq(quotes.id, id))
			.run();
		goOut(tx, world, loadQuote(tx, id), key, to, message, true);
		return { number, n };
	});
}

function mustBeOpen({ state }: QuoteRow): void {
	if (state !== 'draft' && state !== 'sent')
		throw new RefusedError(
			state === 'discarded' ? 'It was thrown away.' : 'It has been answered already.'
		);
}

/** Queues its mail, or notes that the owner gives it. */
function goOut(
	tx: Transaction,
	world: World,
	row: QuoteRow,
	key: string,
	to: string,
	message: Message | null,
	fresh: boolean
): void {
	const at = world.clock.now();
	if (!message) {
		if (fresh) noteQuote(tx, row.id, at, 'handedOver', row.number ?? '');
		return;
	}
	const owner = loadBusiness(tx);
	const queued = queueMail(tx, world, {
		key: `quote:${row.id}:${key}`,
		kind: 'quote',
		quoteId: row.id,
		to,
		bcc: owner.copyToSelf ? owner.email : '',
		...message,
		link: quoteLink(tx, world, row),
		attachPdf: true
	});
	if (queued) noteQuote(tx, row.id, at, fresh ? 'sent' : 'sentAgain', to);
}

/** What a version comes to as it was sent, nothing chosen. */
export const asSent = (frozen: Frozen) => frozenQuote(frozen, NOTHING_PICKED).quote;
