// What is proposed for a line: how it is shared out, why, and which of several that propose the same is best.
import { min } from '../money/decimal';
import { displayPounds } from '../money/display';
import type { OpenInvoice, Proposal, ProposedShare, ToMatch } from './types';

export function amountReason(line: ToMatch, invoice: OpenInvoice): string {
	if (invoice.toPay === line.amount)
		return invoice.outstanding > invoice.toPay
			? `the amount of ${invoice.number} less the ${displayPounds(invoice.outstanding - invoice.toPay)} they deduct`
			: `the exact amount of ${invoice.number}`;
	return `the whole amount of ${invoice.number}, without the deduction`;
}

/** Shares a line out over invoices, the one due first, first; without deduction where the whole came. */
export function proposal(
	line: ToMatch,
	invoices: readonly OpenInvoice[],
	score: number,
	reasons: string[]
): Proposal {
	const ordered = [...invoices].sort((a, b) =>
		a.dueDate === b.dueDate ? a.documentId - b.documentId : a.dueDate < b.dueDate ? -1 : 1
	);
	const gross = ordered.reduce((sum, one) => sum + one.outstanding, 0n);
	const toPay = ordered.reduce((sum, one) => sum + one.toPay, 0n);
	const undeducted = line.amount === gross && gross !== toPay;
	let left = line.amount;
	const shares: ProposedShare[] = [];
	for (const one of ordered) {
		const most = undeducted ? one.outstanding : one.toPay;
		const amount = min(left, most);
		if (amount <= 0n) continue;
		left -= amount;
		shares.push({
			documentId: one.documentId,
			number: one.number,
			amount,
			withheld: undeducted && one.outstanding !== one.toPay ? 0n : null
		});
	}
	const { payerId, payer } = ordered[0]!;
	return {
		payerId,
		payer,
		shares,
		over: left,
		score: Math.min(100, score),
		sure: false,
		reasons
	};
}

const keyOf = (one: Proposal) =>
	`${one.payerId} ${one.shares.map((share) => `${share.documentId}:${share.amount}`).join(' ')}`;
export const sameShares = (a: Proposal, b: Proposal) => keyOf(a) === keyOf(b);

/** The best of those that propose the same, by score. */
export function bestOf(found: Proposal[]): Proposal[] {
	const best = new Map<string, Proposal>();
	for (const one of found) {
		const known = best.get(keyOf(one));
		if (!known || known.score < one.score) best.set(keyOf(one), one);
	}
	return [...best.values()].sort((a, b) => b.score - a.score);
}
