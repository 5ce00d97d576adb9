// Repeats: schedules that make invoices. Every occurrence is made exactly once, with its own date, whatever happens.
import { and, asc, desc, eq, inArray, lte, sql } from 'drizzle-orm';
import { z } from 'zod';
import { isPlainDate } from '../../../core/calendar/queries';
import { addDays } from '../../../core/calendar/manipulation';
import {
	nextOccurrences,
	occurrences,
	REPEAT_UNITS,
	WEEKEND_RULES,
	type Occurrence,
	type RepeatRule
} from '../../../core/calendar/recurrence';
import type { PlainDate } from '../../../core/calendar/types';
import { documentMessage } from '../../../core/documents/wording';
import { sheetForm } from '../../../core/sheet/form';
import { sheetOn } from '../../../core/sheet/occasion';
import { readSheet } from '../../../core/sheet/read';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Database, type Transaction } from '../../db/connection';
import {
	customers,
	documents,
	openItems,
	repeatChanges,
	repeatOccurrences,
	repeats
} from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { parseForm } from '../business/fields';
import { withoutClaims } from '../jobs/takenParts';
import { mailAddresses } from '../customers/parts';
import { computeDraft, insertDraft, loadDraft, sheetContext } from '../invoices/drafts';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { frozenFigures } from '../invoices/freeze';
import { issueInvoice } from '../invoices/issue';
import { linkOf, queueMail } from '../messages/outbox';
import { required } from '../business/fields';
import { chargeDue } from './charges';
import { cardOf } from './keptCards';
import { note } from '../trail/documents';

export const REPEAT_ACTIONS = ['draft', 'send', 'charge'] as const;

const plainDay = z.string().refine(isPlainDate, 'Choose a day.');
const count = (most: number) =>
	z.coerce
		.number('A whole number.')
		.int('A whole number.')
		.min(1, 'At least 1.')
		.max(most, `At most ${most}.`);

export const repeatForm = z
	.object({
		name: required(120, 'Give it a name.'),
		start: plainDay,
		every: count(1000),
		unit: z.enum(REPEAT_UNITS),
		ends: z.enum(['never', 'after', 'on']).default('never'),
		after: count(10_000).optional(),
		on: plainDay.optional(),
		weekend: z.enum(WEEKEND_RULES).default('asIs'),
		action: z.enum(REPEAT_ACTIONS).default('draft')
	})
	.superRefine((form, context) => {
		if (form.ends === 'after' && form.after === undefined)
			context.addIssue({ code: 'custom', path: ['after'], message: 'After how many?' });
		if (form.ends === 'on' && (form.on === undefined || form.on < form.start))
			context.addIssue({
				code: 'custom',
				path: ['on'],
				message: 'A day on or after the first one.'
			});
	});
type RepeatValues = z.output<typeof repeatForm>;

function ruleOf(form: RepeatValues): RepeatRule {
	const { start, every, unit, weekend } = form;
	const end =
		form.ends === 'after'
			? { after: form.after! }
			: form.ends === 'on'
				? { on: form.on! }
				: { never: true as const };
	return { start, every, unit, weekend, end };
}

/** Begins a repeat from a document: its sheet is what is repeated. The same key again gives that one back. */
export function addRepeat(world: World, key: string, documentId: number, input: unknown): number {
	const form = parseForm(repeatForm, input);
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const same = tx.select({ id: repeats.id }).from(repeats).where(eq(repeats.key, key)).get();
		if (same) return same.id;
		const document = tx.select().from(documents).where(eq(documents.id, documentId)).get();
		if (!document || document.kind !== 'invoice') throw new NotFoundError('This invoice');
		if (!document.sheet.customerId) throw new RefusedError('Choose its customer first.');
		const jobId = document.sheet.rows.find((row) => row.type === 'line' && row.jobId);
		return tx
			.insert(repeats)
			.values({
				key,
				name: form.name,
				customerId: document.sheet.customerId,
				jobId: jobId?.type === 'line' ? (jobId.jobId ?? null) : null,
				rule: ruleOf(form),
				sheet: { ...withoutClaims(document.sheet), issueDate: '', workFinished: '', dueDate: '' },
				action: form.action,
				state: 'active',
				madeFrom: form.start,
				createdAt: now
			})
			.returning({ id: repeats.id })
			.get().id;
	});
}

function load(db: Database | Transaction, id: number) {
	const row = db.select().from(repeats).where(eq(repeats.id, id)).get();
	if (!row) throw new NotFoundError('This repeat');
	return row;
}

/** Changes how often and what happens with it; what was made stays. @throws FieldError, ConflictError */
export function saveRepeat(world: World, id: number, version: number, input: unknown): void {
	const form = parseForm(repeatForm, input);
	writeAtOnce(world.db, (tx) => {
		const row = load(tx, id);
		if (row.version !== version)
			throw new ConflictError('This repeat was changed in another tab. Load it again to see how.');
		const rule = ruleOf(form);
		const moved = JSON.stringify({ ...rule, end: 0 }) !== JSON.stringify({ ...row.rule, end: 0 });
		tx.update(repeats)
			.set({
				name: form.name,
				rule,
				action: form.action,
				// Another rhythm begins today: days before it belonged to the old one.
				...(moved ? { madeFrom: laterOf(world.clock.today(), rule.start), skipped: [] } : {}),
				version: version + 1
			})
			.where(eq(repeats.id, id))
			.run();
	});
}

const laterOf = (a: PlainDate, b: PlainDate) => (a > b ? a : b);

/** From a day on, other lines or prices. Before it everything stays as it was. @throws FieldError */
export function changeRepeat(world: World, id: number, from: string, input: unknown): void {
	if (!isPlainDate(from)) throw new FieldError({ from: 'From which day on?' });
	const sheet = sheetForm.safeParse(input);
	if (!sheet.success) throw new FieldError({ rows: 'This could not be read.' });
	writeAtOnce(world.db, (tx) => {
		const row = load(tx, id);
		const reading = readSheet(
			{ ...sheet.data, customerId: row.customerId },
			sheetContext(tx, sheet.data, world.clock.today())
		);
		const stop = reading.problems.find(
			(problem) => problem.level === 'stop' && problem.path.startsWith('rows')
		);
		if (stop) throw new FieldError({ [stop.path]: stop.message });
		const values = { sheet: { ...withoutClaims(sheet.data), customerId: row.customerId } };
		tx.insert(repeatChanges)
			.values({ repeatId: id, from, ...values })
			.onConflictDoUpdate({
				target: [repeatChanges.repeatId, repeatChanges.from],
				set: values
			})
			.run();
	});
}

/** The sheet that holds on a nominal day. */
function sheetFor(
	db: Database | Transaction,
	row: typeof repeats.$inferSelect,
	on: PlainDate
): Sheet {
	const change = db
		.select()
		.from(repeatChanges)
		.where(and(eq(repeatChanges.repeatId, row.id), lte(repeatChanges.from, on)))
		.orderBy(desc(repeatChanges.from))
		.get();
	return change?.sheet ?? row.sheet;
}

/** Leaves out the occurrence of a nominal day, or takes it in again. One that is made stays made. */
export function skipOccurrence(world: World, id: number, nominal: string, skip: boolean): void {
	writeAtOnce(world.db, (tx) => {
		const row = load(tx, id);
		const others = row.skipped.filter((day) => day !== nominal);
		tx.update(repeats)
			.set({ skipped: skip ? [...others, nominal].sort() : others })
			.where(eq(repeats.id, id))
			.run();
	});
}

/**
 * Pauses, takes up again, or ends. What fell into a pause is not made afterwards: `madeFrom` moves to today.
 */
export function setRepeatState(
	world: World,
	id: number,
	state: 'active' | 'paused' | 'ended'
): void {
	writeAtOnce(world.db, (tx) => {
		const row = load(tx, id);
		if (row.state === state) return;
		tx.update(repeats)
			.set({
				state,
				...(state === 'active' && row.state !== 'asking'
					? { madeFrom: laterOf(world.clock.today(), row.rule.start) }
					: {})
			})
			.where(eq(repeats.id, id))
			.run();
	});
}

interface Due extends Occurrence {
	row: typeof repeats.$inferSelect;
}

/** What should have been made by today and was not, the oldest first. */
function dueOf(
	db: Database | Transaction,
	row: typeof repeats.$inferSelect,
	today: PlainDate
): Due[] {
	const made = new Set(
		db
			.select({ nominal: repeatOccurrences.nominal })
			.from(repeatOccurrences)
			.where(eq(repeatOccurrences.repeatId, row.id))
			.all()
			.map((one) => one.nominal)
	);
	// A day moved to before a weekend may lie before the day from which is made.
	return [...occurrences(row.rule, addDays(row.madeFrom, -14), today)]
		.filter((one) => one.nominal >= row.madeFrom)
		.filter((one) => !made.has(one.nominal) && !row.skipped.includes(one.nominal))
		.map((one) => ({ ...one, row }));
}

/** More than this many waiting at once means that the machine was off: the owner is asked before they go out. */
const PILE = 2;

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
		const due = dueOf(world.db, row, today);
		if (due.length >= PILE && row.action !== 'draft') {
			world.db.update(repeats).set({ state: 'asking' }).where(eq(repeats.id, row.id)).run();
			continue;
		}
		for (const one of due) makeOccurrence(world, one);
		endWhereOver(world, row, today);
	}
	await finishMade(world);
	await chargeDue(world);
}

function endWhereOver(world: World, row: typeof repeats.$inferSelect, today: PlainDate): void {
	if (nextOccurrences(row.rule, addDays(today, 1), 1).length > 0) return;
	world.db.update(repeats).set({ state: 'ended' }).where(eq(repeats.id, row.id)).run();
}

/** The draft and the mark that it is made, in one transaction: the primary key lets no second one through. */
function makeOccurrence(world: World, { row, nominal, date }: Due): void {
	writeAtOnce(world.db, (tx) => {
		const fresh = tx
			.insert(repeatOccurrences)
			.values({ repeatId: row.id, nominal, date, state: 'drafted' })
			.onConflictDoNothing()
			.run().changes;
		if (!fresh) return;
		const sheet = sheetOn(sheetFor(tx, row, nominal), date);
		const id = insertDraft(tx, `repeat:${row.id}:${nominal}`, sheet, world.clock.now());
		computeDraft(tx, id, sheet, world.clock.today());
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
	const set = (
		db: Database | Transaction,
		values: Partial<typeof repeatOccurrences.$inferInsert>
	) =>
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
		await issueInvoice(world, documentId, draft.version, (tx, id) => {
			const sent = sendOccurrence(tx, world, id);
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
								: 'There is no mail address to send it to.'
				});
		});
	} catch (error) {
		const known =
			error instanceof RefusedError ||
			error instanceof ConflictError ||
			error instanceof NotFoundError;
		if (!known) throw error;
		set(world.db, { note: `Left as a draft: ${(error as Error).message}` });
	}
}

function sendOccurrence(tx: Transaction, world: World, documentId: number): boolean {
	const row = tx.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const to = mailAddresses(tx, row.customerId!, row.frozen!.sheet)[0];
	if (!to) return false;
	const owner = loadBusiness(tx);
	const message = documentMessage(row.frozen!, row.number!, frozenFigures(row.frozen!).payable);
	const fresh = queueMail(tx, world, {
		key: `repeat-sent:${documentId}`,
		kind: 'invoice',
		documentId,
		to,
		bcc: owner.copyToSelf ? owner.email : '',
		...message,
		link: linkOf(world, documentId),
		attachPdf: true
	});
	if (fresh)
		note(tx, { documentId, at: world.clock.now(), who: 'axiometer', what: 'sent', detail: to });
	return true;
}

/** The owner's answer about a pile: all of it, only the latest, or none. */
export function answerPile(world: World, id: number, answer: 'all' | 'latest' | 'none'): void {
	writeAtOnce(world.db, (tx) => {
		const row = load(tx, id);
		if (row.state !== 'asking') return;
		const due = dueOf(tx, row, world.clock.today());
		const left = answer === 'all' ? [] : answer === 'none' ? due : due.slice(0, -1);
		tx.update(repeats)
			.set({
				state: 'active',
				skipped: [...new Set([...row.skipped, ...left.map((one) => one.nominal)])].sort()
			})
			.where(eq(repeats.id, id))
			.run();
	});
	if (answer === 'all') {
		// What was agreed to goes out although it is a pile.
		const row = load(world.db, id);
		for (const one of dueOf(world.db, row, world.clock.today())) makeOccurrence(world, one);
	}
}

/** Everything the page of a repeat shows. */
export function repeatPage(world: World, id: number) {
	const { db } = world;
	const row = load(db, id);
	const today = world.clock.today();
	const customer = db.select().from(customers).where(eq(customers.id, row.customerId)).get()!;
	const made = db
		.select({
			nominal: repeatOccurrences.nominal,
			date: repeatOccurrences.date,
			state: repeatOccurrences.state,
			note: repeatOccurrences.note,
			attempts: repeatOccurrences.attempts,
			nextAttemptOn: repeatOccurrences.nextAttemptOn,
			documentId: repeatOccurrences.documentId,
			number: documents.number,
			total: documents.total
		})
		.from(repeatOccurrences)
		.leftJoin(documents, eq(documents.id, repeatOccurrences.documentId))
		.where(eq(repeatOccurrences.repeatId, id))
		.orderBy(desc(repeatOccurrences.date))
		.all();
	const coming = [...occurrencesFrom(row, laterOf(addDays(today, 1), row.madeFrom))].map((one) => ({
		...one,
		skipped: row.skipped.includes(one.nominal),
		total: totalOn(db, row, one)
	}));
	return {
		repeat: row,
		customer: { id: customer.id, name: customer.name, email: customer.email },
		card: cardOf(db, row.customerId),
		changes: db
			.select({ from: repeatChanges.from })
			.from(repeatChanges)
			.where(eq(repeatChanges.repeatId, id))
			.orderBy(asc(repeatChanges.from))
			.all(),
		sheet: sheetFor(db, row, today),
		made,
		coming,
		waiting: row.state === 'asking' ? dueOf(db, row, today) : [],
		today
	};
}

function occurrencesFrom(row: typeof repeats.$inferSelect, from: PlainDate): Occurrence[] {
	return row.state === 'ended' ? [] : nextOccurrences(row.rule, from, 12);
}

function totalOn(db: Database, row: typeof repeats.$inferSelect, one: Occurrence): number {
	const sheet = sheetOn(sheetFor(db, row, one.nominal), one.date);
	const reading = readSheet(sheet, sheetContext(db, sheet, one.date));
	return Number(reading.figures?.total ?? 0n);
}

/** All repeats: next day, how many were made and for how much, and what failed. */
export function listRepeats(world: World) {
	const rows = world.db
		.select({ repeat: repeats, customer: customers.name })
		.from(repeats)
		.innerJoin(customers, eq(customers.id, repeats.customerId))
		.orderBy(sql`${repeats.state} = 'ended'`, asc(repeats.name))
		.all();
	const sums = new Map(
		world.db
			.select({
				id: repeatOccurrences.repeatId,
				count: sql<number>`count(*)`,
				total: sql<number>`coalesce(sum(${documents.total}), 0)`,
				failed: sql<number>`sum(${repeatOccurrences.state} = 'open' or ${repeatOccurrences.note} <> '')`
			})
			.from(repeatOccurrences)
			.leftJoin(documents, eq(documents.id, repeatOccurrences.documentId))
			.groupBy(repeatOccurrences.repeatId)
			.all()
			.map((row) => [row.id, row])
	);
	const today = world.clock.today();
	return rows.map(({ repeat, customer }) => ({
		id: repeat.id,
		name: repeat.name,
		customer,
		action: repeat.action,
		state: repeat.state,
		next:
			repeat.state === 'active'
				? (occurrencesFrom(repeat, laterOf(addDays(today, 1), repeat.madeFrom)).find(
						(one) => !repeat.skipped.includes(one.nominal)
					)?.date ?? null)
				: null,
		count: sums.get(repeat.id)?.count ?? 0,
		total: sums.get(repeat.id)?.total ?? 0,
		failed: sums.get(repeat.id)?.failed ?? 0
	}));
}

/** How many days before something goes out by itself it is shown among the next moves. */
const FOREWARNED_DAYS = 3;

/** What goes out by itself within days, for the next moves. */
export function aboutToGo(world: World) {
	const today = world.clock.today();
	const rows = world.db
		.select()
		.from(repeats)
		.where(and(eq(repeats.state, 'active'), inArray(repeats.action, ['send', 'charge'])))
		.all();
	return rows.flatMap((row) =>
		[
			...occurrences(
				row.rule,
				laterOf(addDays(today, 1), row.madeFrom),
				addDays(today, FOREWARNED_DAYS)
			)
		]
			.filter((one) => !row.skipped.includes(one.nominal))
			.map((one) => ({
				id: row.id,
				name: row.name,
				date: one.date,
				action: row.action,
				total: totalOn(world.db, row, one)
			}))
	);
}

/** Repeats that need the owner: a pile to decide about, and charges or sendings that failed. */
export function troubledRepeats(world: World) {
	return {
		asking: world.db
			.select({ id: repeats.id, name: repeats.name })
			.from(repeats)
			.where(eq(repeats.state, 'asking'))
			.all(),
		failed: world.db
			.select({
				repeatId: repeatOccurrences.repeatId,
				documentId: repeatOccurrences.documentId,
				note: repeatOccurrences.note,
				number: documents.number,
				customer: documents.customerName,
				outstanding: sql<number>`coalesce(${openItems.outstanding}, ${documents.total})`
			})
			.from(repeatOccurrences)
			.innerJoin(documents, eq(documents.id, repeatOccurrences.documentId))
			.leftJoin(openItems, eq(openItems.documentId, documents.id))
			.where(
				and(
					sql`${repeatOccurrences.note} <> ''`,
					inArray(repeatOccurrences.state, ['open', 'drafted']),
					sql`coalesce(${openItems.state}, 'open') not in ('paid', 'credited')`
				)
			)
			.limit(50)
			.all()
	};
}
