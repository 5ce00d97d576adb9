// What the unguessable link of a quote shows, and what a customer does there.
import { must } from '../../actor';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { PlainDate } from '../../../core/calendar/types';
import type { Frozen } from '../../../core/documents/types';
import { differs } from '../../../core/quotes/differs';
import { publicQuote, type PublicQuote } from '../../../core/quotes/public';
import type { Picked } from '../../../core/quotes/chosen';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { depositRequests, quoteQuestions, quotes } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, required } from '../business/fields';
import { isToken } from '../business/keys';
import { mailAddresses } from '../customers/parts';
import { loadFile } from '../files/files';
import { queueMail } from '../messages/outbox';
import { acceptanceOf, tellOwner } from './accept';
import { chosenOn } from './agree';
import { cancelLimit, mayCancel } from './cancel';
import { loadQuote, noteQuote, type QuoteRow } from './quotes';
import { declineByCustomer } from './answers';
import { trialByToken, TRIAL_NUMBER, type QuoteTrial } from './trial';
import { newestVersion, quoteLink, versionOf, type QuoteVersion } from './send';

export interface QuotePage {
	id: number;
	/** The owner's own test: it shows everything, and nothing on it counts. */
	trial: boolean;
	state: 'open' | 'expired' | 'accepted' | 'declined' | 'withdrawn' | 'cancelled';
	number: string;
	version: number;
	/** What is new since the version before. */
	differs: string[];
	validUntil: PlainDate;
	quote: PublicQuote;
	questions: { at: number; question: string; answer: string; answeredAt: number | null }[];
	accepted: {
		name: string;
		on: PlainDate;
		total: number;
		picked: Picked;
		hasRecord: boolean;
		/** A day; `open` until the materials came; empty: it cannot be cancelled. */
		cancelUntil: PlainDate | 'open' | '';
		mayCancel: boolean;
		cancelledOn: PlainDate | null;
		beginsEarly: boolean;
	} | null;
	deposit: {
		amount: number;
		/** What a contractor keeps back of it. */
		deduction: number;
		state: 'asked' | 'paid' | 'invoiced' | 'withdrawn';
	} | null;
}

/** @throws NotFoundError for every link that is not exactly right; RefusedError where it is the owner’s own test */
export function quoteByToken(db: Reader, token: string): { row: QuoteRow; version: QuoteVersion } {
	if (!isToken(token)) throw new NotFoundError('This page');
	if (trialByToken(db, token))
		throw new RefusedError(
			'This is a test: nothing on it counts. With the real one, it would be done.'
		);
	const row = db.select().from(quotes).where(eq(quotes.token, token)).get();
	const version = row && newestVersion(db, row.id);
	if (!row || !version) throw new NotFoundError('This page');
	return { row, version };
}

export function quotePage(world: World, token: string): QuotePage {
	const { db, clock } = world;
	const trial = isToken(token) ? trialByToken(db, token) : undefined;
	if (trial) return trialPage(trial);
	const { row, version } = quoteByToken(db, token);
	const today = clock.today();
	const acceptance = acceptanceOf(db, row.id);
	const limit = acceptance ? cancelLimit(db, acceptance) : null;
	const before: Frozen | null = version.n > 1 ? versionOf(db, row.id, version.n - 1).frozen : null;
	const deposit = db
		.select({
			amount: depositRequests.amount,
			deduction: depositRequests.deduction,
			state: depositRequests.state
		})
		.from(depositRequests)
		.where(eq(depositRequests.quoteId, row.id))
		.get();
	return {
		id: row.id,
		trial: false,
		state: stateOf(row, today),
		number: row.number!,
		version: version.n,
		differs: before ? differs(before, version.frozen) : [],
		validUntil: row.validUntil!,
		quote: publicQuote(version.frozen),
		questions: db
			.select()
			.from(quoteQuestions)
			.where(eq(quoteQuestions.quoteId, row.id))
			.orderBy(asc(quoteQuestions.id))
			.all()
			.map(({ at, question, answer, answeredAt }) => ({ at, question, answer, answeredAt })),
		accepted: acceptance
			? {
					name: acceptance.name,
					on: acceptance.agreedOn,
					total: acceptance.total,
					picked: acceptance.picked,
					hasRecord: acceptance.record !== null,
					cancelUntil: limit ? (limit.until ?? 'open') : '',
					mayCancel: mayCancel(db, acceptance, today),
					cancelledOn: acceptance.cancelledOn,
					beginsEarly: acceptance.law.begin
				}
			: null,
		deposit: deposit ?? null
	};
}

const trialPage = ({ quoteId, frozen, validUntil }: QuoteTrial): QuotePage => ({
	id: quoteId,
	trial: true,
	state: 'open',
	number: TRIAL_NUMBER,
	version: 1,
	differs: [],
	validUntil,
	quote: publicQuote(frozen),
	questions: [],
	accepted: null,
	deposit: null
});

function stateOf(row: QuoteRow, today: PlainDate): QuotePage['state'] {
	if (row.state === 'sent') return row.validUntil! < today ? 'expired' : 'open';
	if (row.state === 'draft' || row.state === 'discarded') throw new NotFoundError('This page');
	return row.state;
}

/** The first time somebody who is not signed in opens what was sent. */
export function noteQuoteOpened(world: World, token: string): void {
	writeAtOnce(world.db, (tx) => {
		const { row } = quoteByToken(tx, token);
		const at = world.clock.now();
		const { changes } = tx
			.update(quotes)
			.set({ openedAt: at })
			.where(and(eq(quotes.id, row.id), isNull(quotes.openedAt)))
			.run();
		if (changes) noteQuote(tx, row.id, at, 'opened', '', null);
	});
}

/** What a choice comes to, worked out here: for what the browser does not know. @throws FieldError */
export function quoteFigures(world: World, token: string, picked: Picked) {
	const shown = trialByToken(world.db, token) ?? quoteByToken(world.db, token).version;
	return chosenOn(shown, picked).quote;
}

const questionForm = z.object({
	key: z.string().min(1).max(100),
	question: required(2000, 'What would you like to know?')
});

/** So many questions may wait for an answer. */
const MOST_WAITING = 10;

/** A question of the customer reaches the owner, and nothing is chased until it is answered. @throws FieldError, RefusedError */
export function askQuestion(world: World, token: string, typed: unknown): void {
	const { key, question } = parseForm(questionForm, typed);
	writeAtOnce(world.db, (tx) => {
		const { row, version } = quoteByToken(tx, token);
		if (row.state === 'withdrawn') throw new RefusedError('This has been withdrawn.');
		const { n } = tx.get<{ n: number }>(
			sql`select count(*) as n from quote_questions where quote_id = ${row.id} and answered_at is null`
		);
		if (n >= MOST_WAITING)
			throw new FieldError({ question: 'Several questions wait for an answer already.' });
		const at = world.clock.now();
		const { changes } = tx
			.insert(quoteQuestions)
			.values({ key: `${row.id}:${key}`, quoteId: row.id, at, question })
			.onConflictDoNothing()
			.run();
		if (!changes) return;
		noteQuote(tx, row.id, at, 'asked', question, null);
		tellOwner(tx, world, row, {
			key: `question:${row.id}:${key}`,
			subject: `A question about ${row.number}: ${row.title}`,
			text: `${version.frozen.customer.name} asks:\n\n${question.replaceAll('{link}', '(link)')}\n\nAnswer it here: {link}`
		});
	});
}

const answerForm = z.object({
	question: z.coerce.number().int().positive(),
	answer: required(4000, 'Write an answer.')
});

/** The owner's answer: on the page, and by mail. @throws FieldError, NotFoundError */
export function answerQuestion(world: World, quoteId: number, typed: unknown): void {
	must('bill');
	const { question: id, answer } = parseForm(answerForm, typed);
	writeAtOnce(world.db, (tx) => {
		const row = loadQuote(tx, quoteId);
		const asked = tx
			.select()
			.from(quoteQuestions)
			.where(and(eq(quoteQuestions.id, id), eq(quoteQuestions.quoteId, quoteId)))
			.get();
		if (!asked) throw new NotFoundError('This question');
		const at = world.clock.now();
		tx.update(quoteQuestions)
			.set({ answer, answeredAt: at })
			.where(eq(quoteQuestions.id, id))
			.run();
		noteQuote(tx, quoteId, at, 'answered', answer);
		const to =
			row.customerId === null ? undefined : mailAddresses(tx, row.customerId, row.sheet)[0];
		if (to)
			queueMail(tx, world, {
				key: `answer:${id}:${at}`,
				kind: 'quote',
				quoteId,
				to,
				subject: `Your question about ${row.number}: ${row.title}`,
				text: `You asked:\n\n${asked.question.replaceAll('{link}', '(link)')}\n\n${answer.replaceAll('{link}', '(link)')}\n\nIt is all here: {link}`,
				link: quoteLink(tx, world, row)
			});
	});
}

/** The customer says no. @throws RefusedError */
export function declineQuote(world: World, token: string, reason: string): void {
	const { row } = quoteByToken(world.db, token);
	declineByCustomer(world, row.id, reason);
	writeAtOnce(world.db, (tx) =>
		tellOwner(tx, world, row, {
			key: `declined:${row.id}:${row.sent}`,
			subject: `Declined: ${row.number}, ${row.title}`,
			text: `${row.customerName} declined ${row.number}.${reason.trim() ? `\n\n${reason.trim().slice(0, 1000).replaceAll('{link}', '(link)')}` : ''}\n\nSee it here: {link}`
		})
	);
}

/** What counts of a quote as a PDF: the record of what was accepted, or the version that is out. @throws NotFoundError */
export function quoteFile(db: Reader, token: string): { name: string; content: Buffer } {
	const trial = trialByToken(db, token);
	if (trial) return { name: 'Test.pdf', content: trial.pdf };
	const { row, version } = quoteByToken(db, token);
	const record = acceptanceOf(db, row.id)?.record;
	return record
		? { name: `${row.number}-accepted.pdf`, content: record }
		: { name: version.name, content: version.content };
}

/** A file that goes out with it. @throws NotFoundError */
export function fileWithQuote(world: World, token: string, fileId: number, small: boolean) {
	const id = trialByToken(world.db, token)?.quoteId ?? quoteByToken(world.db, token).row.id;
	const file = loadFile(world, fileId, small, { to: 'quote', id });
	if (!file.goesOut) throw new NotFoundError('This file');
	return file;
}
