// Breathing spaces of debtors: while one runs, nothing is added and nothing is asked for.
import { asc, inArray, sql } from 'drizzle-orm';
import type { PlainDate } from '../../../core/calendar/types';
import { breathingEnd, runsOn, type DaySpan } from '../../../core/regimes/gb/breathingSpace';
import { displayDate, readTypedDate } from '../../../core/calendar/conversion';
import { addDays } from '../../../core/calendar/manipulation';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { must } from '../../actor';
import { writeAtOnce, type Reader } from '../../db/connection';
import { breathingSpaces, customers } from '../../db/schema';
import type { World } from '../../world';

export interface BreathingSpace extends DaySpan {
	id: number;
	note: string;
}

/** All breathing spaces of debtors, the earliest first; nobody without one is named. */
export function breathingOf(
	db: Reader,
	customerIds?: readonly number[]
): Map<number, BreathingSpace[]> {
	if (customerIds?.length === 0) return new Map();
	const rows = db
		.select()
		.from(breathingSpaces)
		.where(customerIds ? inArray(breathingSpaces.customerId, [...customerIds]) : sql`1`)
		.orderBy(asc(breathingSpaces.from))
		.all();
	const found = new Map<number, BreathingSpace[]>();
	for (const { customerId, id, from, to, note } of rows) {
		const one = { id, from, to, note };
		const list = found.get(customerId);
		if (list) list.push(one);
		else found.set(customerId, [one]);
	}
	return found;
}

/** The one that runs on a day. */
export const breathingOn = (
	db: Reader,
	customerId: number,
	day: PlainDate
): BreathingSpace | undefined =>
	runsOn(breathingOf(db, [customerId]).get(customerId) ?? [], day) as BreathingSpace | undefined;

/** Nothing is added or asked for while one runs. @throws RefusedError */
export function refuseBreathing(db: Reader, customerId: number, day: PlainDate): void {
	const space = breathingOn(db, customerId, day);
	if (space)
		throw new RefusedError(
			`They are in breathing space until ${displayDate(space.to)}: no interest, fee or reminder before that (Debt Respite Scheme Regulations 2020 reg. 7).`
		);
}

/**
 * A notice came that a debtor's breathing space began on a day: sixty days. The same key again changes nothing.
 * @throws FieldError, NotFoundError
 */
export function beginBreathing(
	world: World,
	customerId: number,
	form: { key: string; from: string; note: string }
): void {
	must('bill');
	const problems: Record<string, string> = {};
	const from = readTypedDate(form.from, world.clock.today());
	if (!from) problems.from = 'Give the day it began, as the notice says.';
	else if (from > addDays(world.clock.today(), 7))
		problems.from = 'That is more than a week ahead.';
	if (form.note.trim().length > 200) problems.note = 'At most 200 characters.';
	if (Object.keys(problems).length || !from) throw new FieldError(problems);
	const to = breathingEnd(from);
	writeAtOnce(world.db, (tx) => {
		if (
			!tx
				.select()
				.from(customers)
				.where(sql`id = ${customerId}`)
				.get()
		)
			throw new NotFoundError('This payer');
		const known = (breathingOf(tx, [customerId]).get(customerId) ?? []).find(
			(one) => one.from <= to && from <= one.to
		);
		const same = tx
			.select({ id: breathingSpaces.id })
			.from(breathingSpaces)
			.where(sql`key = ${form.key}`)
			.get();
		if (same) return;
		if (known)
			throw new FieldError({
				from: `One is known from ${displayDate(known.from)} to ${displayDate(known.to)} already.`
			});
		tx.insert(breathingSpaces)
			.values({
				key: form.key,
				customerId,
				from,
				to,
				note: form.note.trim(),
				recordedAt: world.clock.now()
			})
			.run();
	});
}

/** It was ended before its time, or ends today: its last day was yesterday. @returns as it was, so that it can be put back */
export function endBreathing(world: World, customerId: number, id: number): BreathingSpace | null {
	must('bill');
	const today = world.clock.today();
	return writeAtOnce(world.db, (tx) => {
		const row = (breathingOf(tx, [customerId]).get(customerId) ?? []).find((one) => one.id === id);
		if (!row || row.to < today) return null;
		const to = addDays(today, -1);
		if (to < row.from)
			tx.delete(breathingSpaces)
				.where(sql`id = ${id}`)
				.run();
		else
			tx.update(breathingSpaces)
				.set({ to })
				.where(sql`id = ${id}`)
				.run();
		return row;
	});
}
