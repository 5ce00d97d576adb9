// Deductions by contractor and tax month, against the payment and deduction statements that came.
import { statementDeadline, taxMonthEnd } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';

/** A payment from which something was, or should have been, withheld. Pence. */
export interface DeductedPayment {
	contractorId: number;
	date: PlainDate;
	documentId: number;
	/** Cash and deduction together. */
	gross: number;
	expected: number;
	withheld: number;
}

export interface DeductionStatement {
	contractorId: number;
	monthEnd: PlainDate;
	deduction: number;
}

export type DeductionState = 'agrees' | 'differs' | 'waiting' | 'missing' | 'unexpected';

export interface DeductionMonth {
	contractorId: number;
	monthEnd: PlainDate;
	/** By which the statement must have come. */
	deadline: PlainDate;
	gross: number;
	expected: number;
	withheld: number;
	/** What the statement says; null where none came. */
	stated: number | null;
	state: DeductionState;
	documentIds: number[];
}

/** Statements round to whole pounds: less than a pound is no difference. Pence. */
const ROUNDING = 100;

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
			gross: 0,
			expected: 0,
			withheld: 0,
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
	if (stated === null) return today > deadline && withheld > 0 ? 'missing' : 'waiting';
	if (withheld === 0 && stated > 0) return 'unexpected';
	return Math.abs(stated - withheld) < ROUNDING ? 'agrees' : 'differs';
}
