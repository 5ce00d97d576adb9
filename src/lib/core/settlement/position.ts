// What a payer still has to send for an invoice, and what it may yet deduct.

export interface Position {
	/** Pence, as all of it. */
	outstanding: number;
	/** What the contractor is expected to deduct in all; null where CIS does not apply. */
	deduction: number | null;
	withheld: number;
}

/** What may still be withheld from payments of an invoice. Pence. */
export function leftToDeduct({ deduction, withheld }: Omit<Position, 'outstanding'>): number {
	return Math.max((deduction ?? 0) - withheld, 0);
}

/** What a payer still has to send for an invoice to be settled: what is outstanding less what it may yet deduct. */
export function stillToPay(position: Position): number {
	return Math.max(position.outstanding - leftToDeduct(position), 0);
}
