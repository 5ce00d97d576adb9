// Deductions by contractor and tax month, against the payment and deduction statements that came.
import { statementDeadline, taxMonthEnd } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';
import { absolute, min } from '../money/decimal';
import type { Minor } from '../money/types';
import type { Settlement, SettlementEntry } from './types';

/** A payment from which something was, or should have been, withheld. */
export interface DeductedPayment {
	contractorId: number;
	date: PlainDate;
	documentId: number;
	/** Cash and deduction together. */
	gross: Minor;
	expected: Minor;
	withheld: Minor;
}

/** Money of one day: what came in, and what was withheld from it. */
export interface PaidPart {
	/** The day the contractor paid: it decides the tax month, whatever the money is used for later. */
	paidOn: PlainDate;
	cash: Minor;
	withheld: Minor;
}

/** Takes money out of what came in, the last of it first. What is not there to be taken is left. */
export function takeLast(
	parts: readonly PaidPart[],
	cash: Minor,
	withheld: Minor
): { taken: PaidPart[]; left: PaidPart[] } {
	const taken: PaidPart[] = [];
	const left = [...parts];
	for (let index = left.length - 1; index >= 0 && (cash > 0n || withheld > 0n); index--) {
		const part = left[index]!;
		const one = {
			paidOn: part.paidOn,
			cash: min(cash, part.cash),
			withheld: min(withheld, part.withheld)
		};
		cash -= one.cash;
		withheld -= one.withheld;
		left[index] = {
			...part,
			cash: part.cash - one.cash,
			withheld: part.withheld - one.withheld
		};
		if (one.cash > 0n || one.withheld > 0n) taken.push(one);
	}
	return { taken, left };
}

/** What an invoice has of each payment, in order of day, what was given back or moved taken from the last. */
export function paidParts(
	entries: readonly SettlementEntry[],
	{ entries: results }: Pick<Settlement, 'entries'>
): PaidPart[] {
	const inOrder = entries
		.map((entry, index) => ({ entry, withheld: results[index]!.withheld }))
		.filter(({ entry }) => entry.type === 'payment' || entry.type === 'refund')
		.sort((a, b) => (a.entry.date < b.entry.date ? -1 : a.entry.date > b.entry.date ? 1 : 0));
	let parts: PaidPart[] = [];
	for (const { entry, withheld } of inOrder)
		if (entry.type === 'payment')
			parts.push({ paidOn: entry.paidOn ?? entry.date, cash: entry.amount, withheld });
		else parts = takeLast(parts, entry.amount, withheld).left;
	return parts;
}

export interface DeductionStatement {
	contractorId: number;
	monthEnd: PlainDate;
	deduction: Minor;
}

export type DeductionState = 'agrees' | 'differs' | 'waiting' | 'missing' | 'unexpected';

export interface DeductionMonth {
	contractorId: number;
	monthEnd: PlainDate;
	/** By which the statement must have come. */
	deadline: PlainDate;
	gross: Minor;
	expected: Minor;
	withheld: Minor;
	/** What the statement says; null where none came. */
	stated: Minor | null;
	state: DeductionState;
	documentIds: number[];
}

/** Statements round to whole pounds: less than a pound is no difference. */
const ROUNDING = 100n;

/**
 * One row for each contractor and tax month with a deduction or a statement, newest month first. The deduction belongs
 * to the tax month of the payment (FA 2004 s.62; SI 2005/2045 reg. 4).
 */
export function deductionMonths(
	payments: readonly DeductedPayment[],
	statements: readonly DeductionStatement[],
	today: PlainDate
): DeductionMonth[] {
	const months = new Map<string, DeductionMonth>();
	const monthOf = (contractorId: number, monthEnd: PlainDate): DeductionMonth => {
		const key = `${contractorId} ${monthEnd}`;
		const known = months.get(key);
		if (known) return known;
		const fresh: DeductionMonth = {
			contractorId,
			monthEnd,
			deadline: statementDeadline(monthEnd),
			gross: 0n,
			expected: 0n,
			withheld: 0n,
			stated: null,
			state: 'waiting',
			documentIds: []
		};
		months.set(key, fresh);
		return fresh;
	};
	for (const payment of payments) {
		const month = monthOf(payment.contractorId, taxMonthEnd(payment.date));
		month.gross += payment.gross;
		month.expected += payment.expected;
		month.withheld += payment.withheld;
		if (!month.documentIds.includes(payment.documentId)) month.documentIds.push(payment.documentId);
	}
	for (const statement of statements)
		monthOf(statement.contractorId, statement.monthEnd).stated = statement.deduction;
	for (const month of months.values()) month.state = stateOf(month, today);
	return [...months.values()].sort((a, b) =>
		a.monthEnd === b.monthEnd ? a.contractorId - b.contractorId : a.monthEnd < b.monthEnd ? 1 : -1
	);
}

function stateOf({ withheld, stated, deadline }: DeductionMonth, today: PlainDate): DeductionState {
	if (stated === null) return today > deadline && withheld > 0n ? 'missing' : 'waiting';
	if (withheld === 0n && stated > 0n) return 'unexpected';
	return absolute(stated - withheld) < ROUNDING ? 'agrees' : 'differs';
}
