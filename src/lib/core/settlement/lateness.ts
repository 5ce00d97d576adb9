// How late a debt is, and what the law lets its creditor claim for that.
import { addDays } from '../calendar/manipulation';
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { divideRounded, max, powerOfTen } from '../money/decimal';
import type { Decimal, Minor } from '../money/types';
import { compensationFor, lateRateOn, type ReferenceRate } from '../regimes/gb/latePayment';

export interface LatenessInput {
	total: Minor;
	due: PlainDate;
	asOf: PlainDate;
	/** Between businesses; the Act does not cover consumers. */
	business: boolean;
	/** Money, what was withheld from it, and credits, each on its day. */
	payments: readonly { date: PlainDate; amount: Minor }[];
	referenceRates: readonly ReferenceRate[];
}

/** Days on which the same amount stood open, both included. */
export interface LateSpan {
	from: PlainDate;
	to: PlainDate;
	days: number;
	outstanding: Minor;
}

export interface Lateness {
	applies: boolean;
	daysLate: number;
	/** Percent a year; null where it is not late, or the Act does not apply. */
	rate: Decimal | null;
	outstanding: Minor;
	interest: Minor;
	compensation: Minor;
	workings: { reference: ReferenceRate | null; spans: LateSpan[]; openWhenDue: Minor };
}

/**
 * Simple interest by the day on what is outstanding, and the fixed sum (figures of the 1998 Act). A payment counts
 * from its own day on; the interest is rounded once.
 * @throws FiguresError at `referenceRates` where the half year in which it turned late has no rate.
 */
export function lateness(input: LatenessInput): Lateness {
	const { total, due, asOf, business } = input;
	const outstandingOn = (day: PlainDate): Minor =>
		max(
			input.payments.reduce((left, one) => (one.date <= day ? left - one.amount : left), total),
			0n
		);
	const daysLate = Math.max(daysBetween(due, asOf), 0);
	const result: Lateness = {
		applies: business,
		daysLate,
		rate: null,
		outstanding: outstandingOn(asOf),
		interest: 0n,
		compensation: 0n,
		workings: { reference: null, spans: [], openWhenDue: outstandingOn(due) }
	};
	if (!business || daysLate === 0) return result;

	const first = addDays(due, 1);
	const { rate, reference } = lateRateOn(first, input.referenceRates);
	const changes = [
		...new Set([first, ...input.payments.map((one) => (one.date > first ? one.date : first))])
	].filter((day) => day <= asOf);
	changes.sort();
	const spans = changes.map((from, index): LateSpan => {
		const next = changes[index + 1];
		const to = next === undefined ? asOf : addDays(next, -1);
		return { from, to, days: daysBetween(from, to) + 1, outstanding: outstandingOn(from) };
	});
	const penceDays = spans.reduce((sum, span) => sum + span.outstanding * BigInt(span.days), 0n);
	return {
		...result,
		rate,
		interest: divideRounded(penceDays * rate.units, 36_500n * powerOfTen(rate.scale)),
		compensation: compensationFor(result.workings.openWhenDue),
		workings: { ...result.workings, reference, spans }
	};
}
