// Occurrences of repeats: each made exactly once, with its own date, whatever happens.
import { must } from '../../actor';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { nextOccurrences, occurrences, type Occurrence } from '../../../core/calendar/recurrence';
import type { PlainDate } from '../../../core/calendar/types';
import type { Sheet } from '../../../core/sheet/types';
import { sheetOn } from '../../../core/sheet/occasion';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { repeatOccurrences, repeats } from '../../db/schema';
import type { World } from '../../world';
import { draftOnce, loadDraft } from '../invoices/drafts';
import { ConflictError, NotFoundError, RefusedError } from '../../../core/refusals';
import { issueInvoice } from '../invoices/issue';
import { chargeDue } from './charges';
import { cardOf } from './keptCards';
import { note } from '../trail/documents';
import { load, sheetFor } from './repeats';
import { queueIssued } from '../invoices/send';
import { turn } from '../../turn';

interface Due extends Occurrence {
	row: typeof repeats.$inferSelect;
}

/** What should have been made by today and was not, the oldest first, one by one: there may be thousands. */
function* dueOneByOne(
	db: Reader,
	row: typeof repeats.$inferSelect,
	today: PlainDate
): Generator<Due> {
	const made = new Set(
		db
			.select({ nominal: repeatOccurrences.nominal })
			.from(repeatOccurrences)
			.where(eq(repeatOccurrences.repeatId, row.id))
			.all()
			.map((one) => one.nominal)
	);
	// A day moved to before a weekend may lie before the day from which is made.
	const skipped = new Set(row.skipped);
	for (const one of occurrences(row.rule, addDays(row.madeFrom, -14), today))
		if (one.nominal >= row.madeFrom && !made.has(one.nominal) && !skipped.has(one.nominal))
			yield { ...one, row };
}

/** The first of them, at most so many. */
function firstDue(
	db: Reader,
	row: typeof repeats.$inferSelect,
	today: PlainDate,
	most: number
): Due[] {
	const found: Due[] = [];
	for (const one of dueOneByOne(db, row, today)) if (found.push(one) === most) break;
	return found;
}

/** A pile, to be looked at before any of it is made: how many there are, and the days of the first and the last. */
export interface Pile {
	count: number;
	from: PlainDate;
	to: PlainDate;
	/** Whether all of them may be made at once. */
	all: boolean;
}

export async function pileOf(
	db: Reader,
	row: typeof repeats.$inferSelect,
	today: PlainDate
): Promise<Pile | null> {
	let first: Due | undefined;
	let last: Due | undefined;
	let count = 0;
	for (const one of dueOneByOne(db, row, today)) {
		first ??= one;
		last = one;
		// Daily since 1950 they are close to thirty thousand.
		if (++count % COUNTED_AT_ONCE === 0) await turn();
	}
	return first && last
		? { count, from: first.date, to: last.date, all: count <= MOST_AT_ONCE }
		: null;
}

/** So many waiting at once mean that the machine was off: the owner is asked before they go out. */
const PILE = 2;
/** Drafts leave the house by nobody’s hand but the owner’s: more of them come together before anyone is asked. */
const PILE_OF_DRAFTS = 13;
/** A first day far back may mean thousands: nobody means them. */
const MOST_AT_ONCE = 400;
const COUNTED_AT_ONCE = 2000;
/** One that should have gone out longer ago than this is asked about too. */
const LATE_DAYS = 3;

let running: Promise<void> | null = null;

/** The clockwork's part: makes what is due, charges what is due. Safe to call again, and from anywhere. */
export function runRepeats(world: World): Promise<void> {
	running ??= makeDue(world).finally(() => (running = null));
	return running;
}

async function makeDue(world: World): Promise<void> {
	const today = world.clock.today();
	const active = world.db
		.select()
		.from(repeats)
		.where(eq(repeats.state, 'active'))
		.orderBy(asc(repeats.id))
		.all();
	for (const row of active) {
		const drafts = row.action === 'draft';
		const pile = drafts ? PILE_OF_DRAFTS : PILE;
		const due = firstDue(world.db, row, today, pile);
		const late = !drafts && due.some((one) => one.date < addDays(today, -LATE_DAYS));
		if (due.length >= pile || late) {
			world.db.update(repeats).set({ state: 'asking' }).where(eq(repeats.id, row.id)).run();
			continue;
		}
		for (const one of due) makeOccurrence(world, one);
		endWhereOver(world, row, today);
		await turn();
	}
	await finishMade(world);
	await chargeDue(world);
}

function endWhereOver(world: World, row: typeof repeats.$inferSelect, today: PlainDate): void {
	if (nextOccurrences(row.rule, addDays(today, 1), 1).length > 0) return;
	world.db.update(repeats).set({ state: 'ended' }).where(eq(repeats.id, row.id)).run();
}

/** What was missed is dated on the day it goes out, so that nobody is late with it; the day it is for stays on it. */
const goingOut = (sheet: Sheet, today: PlainDate): Sheet =>
	sheet.issueDate < today ? { ...sheet, issueDate: today } : sheet;

/** The draft and the mark that it is made, in one transaction: the primary key lets no second one through. */
function makeOccurrence(world: World, { row, nominal, date }: Due): void {
	writeAtOnce(world.db, (tx) => {
		const fresh = tx
			.insert(repeatOccurrences)
			.values({ repeatId: row.id, nominal, date, state: 'drafted' })
			.onConflictDoNothing()
			.run().changes;
		if (!fresh) return;
		const sheet = goingOut(sheetOn(sheetFor(tx, row, nominal), date), world.clock.today());
		const key = `repeat:${row.id}:${nominal}`;
		const id = draftOnce(tx, world, key, () => ({ sheet, origin: 'repeat' }));
		note(tx, {
			documentId: id,
			at: world.clock.now(),
			who: 'axiometer',
			what: 'repeated',
			detail: row.name
		});
		tx.update(repeatOccurrences)
			.set({ documentId: id })
			.where(and(eq(repeatOccurrences.repeatId, row.id), eq(repeatOccurrences.nominal, nominal)))
			.run();
	});
}

/** Issues and sends, or charges, what was drafted for it; taken up again here after a crash. */
async function finishMade(world: World): Promise<void> {
	const waiting = world.db
		.select({ occurrence: repeatOccurrences, action: repeats.action })
		.from(repeatOccurrences)
		.innerJoin(repeats, eq(repeats.id, repeatOccurrences.repeatId))
		.where(
			and(
				inArray(repeatOccurrences.state, ['drafted']),
				inArray(repeats.action, ['send', 'charge']),
				eq(repeatOccurrences.note, '')
			)
		)
		.orderBy(asc(repeatOccurrences.date))
		.all();
	for (const { occurrence, action } of waiting)
		if (occurrence.documentId !== null)
			await issueOccurrence(world, occurrence, occurrence.documentId, action as 'send' | 'charge');
}

async function issueOccurrence(
	world: World,
	occurrence: typeof repeatOccurrences.$inferSelect,
	documentId: number,
	action: 'send' | 'charge'
): Promise<void> {
	const set = (db: Reader, values: Partial<typeof repeatOccurrences.$inferInsert>) =>
		db
			.update(repeatOccurrences)
			.set(values)
			.where(
				and(
					eq(repeatOccurrences.repeatId, occurrence.repeatId),
					eq(repeatOccurrences.nominal, occurrence.nominal)
				)
			)
			.run();
	try {
		const draft = loadDraft(world.db, documentId);
		const after = (tx: Transaction, id: number) => {
			const key = `repeat-sent:${id}`;
			const sent = queueIssued(tx, world, id, { key, who: 'axiometer' });
			const charged = action === 'charge' && cardOf(tx, draft.customerId!);
			if (charged) set(tx, { state: 'charging', nextAttemptOn: world.clock.today() });
			else
				set(tx, {
					state: sent ? 'sent' : 'issued',
					note:
						action === 'charge'
							? 'No card is kept, so it went out as an ordinary invoice.'
							: sent
								? ''
								: 'There is no e-mail address to send it to.'
				});
		};
		await issueInvoice(world, documentId, draft.version, { after });
	} catch (error) {
		const known =
			error instanceof RefusedError ||
			error instanceof ConflictError ||
			error instanceof NotFoundError;
		if (!known) throw error;
		set(world.db, { note: `Left as a draft: ${(error as Error).message}` });
	}
}

/**
 * The owner's answer about a pile: all of it, only the latest, or none.
 * @throws RefusedError where it is too large to be made at once
 */
export async function answerPile(
	world: World,
	id: number,
	answer: 'all' | 'latest' | 'none'
): Promise<void> {
	must('bill');
	const today = world.clock.today();
	writeAtOnce(world.db, (tx) => {
		const row = load(tx, id);
		if (row.state !== 'asking') return;
		const due = [...dueOneByOne(tx, row, today)];
		const many = due.length > MOST_AT_ONCE;
		if (many && answer === 'all')
			throw new RefusedError(
				`These are ${due.length}: at most ${MOST_AT_ONCE} are made at once. Make only the latest, or none, and begin it anew from a later day.`
			);
		const left = answer === 'all' ? [] : answer === 'none' ? due : due.slice(0, -1);
		tx.update(repeats)
			.set({
				state: 'active',
				// Days left out are listed, unless there are so many that nobody reads them.
				...(many
					? { madeFrom: addDays(left.at(-1)!.nominal, 1) }
					: {
							skipped: [...new Set([...row.skipped, ...left.map((one) => one.nominal)])].sort()
						})
			})
			.where(eq(repeats.id, id))
			.run();
	});
	if (answer === 'none') return;
	// What was agreed to goes out, although it is a pile, or late.
	for (const one of firstDue(world.db, load(world.db, id), today, MOST_AT_ONCE)) {
		makeOccurrence(world, one);
		await turn();
	}
}
