// Repeats: schedules that make invoices. Every occurrence is made exactly once, with its own date, whatever happens.
import { must } from '../../actor';
import { and, desc, eq, lte } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { isPlainDate } from '../../../core/calendar/queries';
import {
	nextOccurrences,
	REPEAT_UNITS,
	WEEKEND_RULES,
	type RepeatRule
} from '../../../core/calendar/recurrence';
import type { PlainDate } from '../../../core/calendar/types';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Reader } from '../../db/connection';
import { documents, repeatChanges, repeats } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { withoutTaken } from '../jobs/takenParts';
import { checkTemplate, readTemplate } from '../invoices/template';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { required } from '../business/fields';

export const REPEAT_ACTIONS = ['draft', 'send', 'charge'] as const;

const plainDay = z.string().refine(isPlainDate, 'Choose a day.');
export const count = (most: number) =>
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
	must('bill');
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
				sheet: { ...withoutTaken(document.sheet), issueDate: '', workFinished: '', dueDate: '' },
				action: form.action,
				state: 'active',
				madeFrom: form.start,
				createdAt: now
			})
			.returning({ id: repeats.id })
			.get().id;
	});
}

export function load(db: Reader, id: number) {
	const row = db.select().from(repeats).where(eq(repeats.id, id)).get();
	if (!row) throw new NotFoundError('This repeat');
	return row;
}

/** Changes how often and what happens with it; what was made stays. @throws FieldError, ConflictError */
export function saveRepeat(world: World, id: number, version: number, input: unknown): void {
	must('bill');
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

export const laterOf = (a: PlainDate, b: PlainDate) => (a > b ? a : b);

/**
 * From a day on, other lines or prices; or on that day's occurrence alone, after which it goes on as it was. Before it
 * everything stays as it was.
 * @throws FieldError
 */
export function changeRepeat(
	world: World,
	id: number,
	from: string,
	input: unknown,
	only = false
): void {
	must('bill');
	if (!isPlainDate(from)) throw new FieldError({ from: 'From which day on?' });
	const typed = readTemplate(input);
	writeAtOnce(world.db, (tx) => {
		const row = load(tx, id);
		const sheet = { ...withoutTaken(typed), customerId: row.customerId };
		checkTemplate(tx, sheet, world.clock.today());
		const values = { sheet };
		if (only) {
			const coming = nextOccurrences(row.rule, from, 1)[0];
			if (coming?.nominal !== from) throw new FieldError({ from: 'It does not fall on that day.' });
			// What held until now holds again from the day after.
			tx.insert(repeatChanges)
				.values({ repeatId: id, from: addDays(from, 1), sheet: sheetFor(tx, row, from) })
				.onConflictDoNothing()
				.run();
		}
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
export function sheetFor(db: Reader, row: typeof repeats.$inferSelect, on: PlainDate): Sheet {
	const change = db
		.select()
		.from(repeatChanges)
		.where(and(eq(repeatChanges.repeatId, row.id), lte(repeatChanges.from, on)))
		.orderBy(desc(repeatChanges.from))
		.get();
	return change?.sheet ?? row.sheet;
}

/** What it bills on a nominal day. @throws NotFoundError */
export const repeatSheet = (world: World, id: number, on: PlainDate): Sheet =>
	sheetFor(world.db, load(world.db, id), on);

/** Leaves out the occurrence of a nominal day, or takes it in again. One that is made stays made. */
export function skipOccurrence(world: World, id: number, nominal: string, skip: boolean): void {
	must('bill');
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
	must('bill');
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
