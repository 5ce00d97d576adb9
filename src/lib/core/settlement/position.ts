// What a payer still has to send for an invoice, and what it may yet deduct.
import { max } from '../money/decimal';
import type { Minor } from '../money/types';

export interface Position {
	outstanding: Minor;
	/** What the contractor is expected to deduct in all; null where CIS does not apply. */
	deduction: Minor | null;
	withheld: Minor;
}

/** What may still be withheld from payments of an invoice. */
export function leftToDeduct({ deduction, withheld }: Omit<Position, 'outstanding'>): Minor {
	return max((deduction ?? 0n) - withheld, 0n);
}

/** What a payer still has to send for an invoice to be settled: what is outstanding less what it may yet deduct. */
export function stillToPay(position: Position): Minor {
	return max(position.outstanding - leftToDeduct(position), 0n);
}

/** What came in above what is to come once so much more is credited, with its deduction: it is the payer's. */
export function beyondAfterCredit(
	position: { total: Minor; credited: Minor; cash: Minor; deduction: Minor | null },
	credit: { total: Minor; deduction: Minor }
): Minor {
	const { total, credited, cash, deduction } = position;
	const toDeduct = (deduction ?? 0n) - credit.deduction;
	return max(cash - (total - credited - credit.total - toDeduct), 0n);
}
