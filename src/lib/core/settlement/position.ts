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
