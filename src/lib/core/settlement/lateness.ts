// How late a debt is, and what the law lets its creditor claim for that.
import { addDays } from '../calendar/manipulation';
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { divideRounded, max, powerOfTen } from '../money/decimal';
import type { Decimal, Minor } from '../money/types';
import type { DaySpan } from '../regimes/gb/breathingSpace';
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
	/** Days on which nothing is added, both included: a breathing space. */
	pauses?: readonly DaySpan[];
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
 * The day after which lateness counts: the due day, but never one before the work was done, nor before whoever got a
 * back-dated invoice had as long to pay it as it says (Late Payment of Commercial Debts (Interest) Act 1998 s.4).
 */
export function dueForLateness({
	issueDate,
	issuedOn,
	dueDate,
	workFinished
}: Record<'issueDate' | 'issuedOn' | 'dueDate' | 'workFinished', PlainDate>): PlainDate {
	const given = issuedOn > issueDate ? addDays(issuedOn, daysBetween(issueDate, dueDate)) : dueDate;
	return given > workFinished ? given : workFinished;
}

/**
 * Simple interest by the day on what is outstanding, and the fixed sum (figures of the 1998 Act). A payment counts
 * from its own day on; the interest is rounded once.
 * @throws FiguresError at `referenceRates` where the half year in which it turned late has no rate.
 */
export function lateness(input: LatenessInput): Lateness {
	const { total, due, asOf, business } = input;
	const outstandingOn = outstandingBy(total, input.payments);
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
	const spans = spansFrom(first, input, outstandingOn);
	return {
		...result,
		rate,
		interest: interestOn(spans, rate),
		compensation: compensationFor(result.workings.openWhenDue),
		workings: { ...result.workings, reference, spans }
	};
}

/** What a contract says about late payment, in place of the Act (s.8), or with a household. */
export interface AgreedTerms {
	/** Added once. */
	fee: Minor;
	/** Simple interest, percent a year; null: none. */
	rate: Decimal | null;
	/** Nothing is added before it is later than this. */
	afterDays: number;
}

/** What agreed terms let us add: the fee once, and simple interest by the day, from the day after the days of grace. */
export function agreedLateness(
	input: Omit<LatenessInput, 'business' | 'referenceRates'>,
	{ fee, rate, afterDays }: AgreedTerms
): Lateness {
	const { total, due, asOf } = input;
	const outstandingOn = outstandingBy(total, input.payments);
	const grace = addDays(due, afterDays);
	const openWhenDue = outstandingOn(grace);
	const late = asOf > grace;
	const spans = late ? spansFrom(addDays(grace, 1), input, outstandingOn) : [];
	return {
		applies: true,
		daysLate: Math.max(daysBetween(due, asOf), 0),
		rate: late ? rate : null,
		outstanding: outstandingOn(asOf),
		interest: rate ? interestOn(spans, rate) : 0n,
		compensation: late && openWhenDue > 0n ? fee : 0n,
		workings: { reference: null, spans: rate ? spans : [], openWhenDue }
	};
}

/** What one more day adds to a debt while all of it stays open: simple interest at `rate` percent a year. */
export const dailyInterest = (outstanding: Minor, rate: Decimal): Minor =>
	divideRounded(outstanding * rate.units, 36_500n * powerOfTen(rate.scale));

function outstandingBy(total: Minor, payments: LatenessInput['payments']) {
	return (day: PlainDate): Minor =>
		max(
			payments.reduce((left, one) => (one.date <= day ? left - one.amount : left), total),
			0n
		);
}

/** The days from `first` to `asOf`, in spans in which the same stood open. */
function spansFrom(
	first: PlainDate,
	{ asOf, payments, pauses = [] }: Pick<LatenessInput, 'asOf' | 'payments' | 'pauses'>,
	outstandingOn: (day: PlainDate) => Minor
): LateSpan[] {
	const changes = [
		...new Set([first, ...payments.map((one) => (one.date > first ? one.date : first))])
	].filter((day) => day <= asOf);
	changes.sort();
	return changes.flatMap((from, index): LateSpan[] => {
		const next = changes[index + 1];
		const to = next === undefined ? asOf : addDays(next, -1);
		return without({ from, to }, pauses).map((span) => ({
			...span,
			days: daysBetween(span.from, span.to) + 1,
			outstanding: outstandingOn(from)
		}));
	});
}

/** What is left of some days without those of the pauses. */
function without(span: DaySpan, pauses: readonly DaySpan[]): DaySpan[] {
	return pauses.reduce<DaySpan[]>(
		(left, pause) =>
			left.flatMap(({ from, to }) => {
				if (pause.to < from || pause.from > to) return [{ from, to }];
				return [
					...(from < pause.from ? [{ from, to: addDays(pause.from, -1) }] : []),
					...(pause.to < to ? [{ from: addDays(pause.to, 1), to }] : [])
				];
			}),
		[span]
	);
}

/** Rounded once, at the end. */
function interestOn(spans: readonly LateSpan[], rate: Decimal): Minor {
	const penceDays = spans.reduce((sum, span) => sum + span.outstanding * BigInt(span.days), 0n);
	return divideRounded(penceDays * rate.units, 36_500n * powerOfTen(rate.scale));
}
