// How a payment is shared out over open invoices: the one due first, first; what is over stays with the payer.
import type { PlainDate } from '../calendar/types';
import { max, min } from '../money/decimal';
import type { Minor } from '../money/types';

export interface Payable {
	documentId: number;
	dueDate: PlainDate;
	/** What the payer still has to send for it: outstanding less what it may deduct. */
	toPay: Minor;
}

export interface Share {
	documentId: number;
	amount: Minor;
}

/** Due first, then as issued; the amounts add up to the payment together with what is left over. Pence. */
export function shareOldestFirst(
	amount: Minor,
	payables: readonly Payable[]
): { shares: Share[]; over: Minor } {
	const ordered = [...payables].sort((a, b) =>
		a.dueDate === b.dueDate ? a.documentId - b.documentId : a.dueDate < b.dueDate ? -1 : 1
	);
	let over = max(amount, 0n);
	const shares: Share[] = [];
	for (const { documentId, toPay } of ordered) {
		const part = min(over, max(toPay, 0n));
		if (part === 0n) continue;
		shares.push({ documentId, amount: part });
		over -= part;
	}
	return { shares, over };
}
