// What is still owed on an invoice, and what was withheld from its payments.
import { FiguresError } from '../figures/types';
import { divideRounded, max, min } from '../money/decimal';
import type { Minor } from '../money/types';
import type { Settlement, SettlementInput } from './types';

/**
 * Settles an invoice by its entries in order of date, then as given. A payment of cash X against an
 * invoice that expects a deduction settles X plus what was withheld from it (FA 2004 s.61: the
 * deduction counts as paid to the subcontractor).
 * @throws FiguresError at the entry that contradicts the invoice.
 */
export function settle(input: SettlementInput): Settlement {
	refuseContradictions(input);
	const order = input.entries
		.map((entry, index) => ({ entry, index }))
		.sort((a, b) =>
			a.entry.date === b.entry.date ? a.index - b.index : a.entry.date < b.entry.date ? -1 : 1
		);

	const results: Settlement['entries'] = new Array(input.entries.length);
	let { total: owed } = input;
	const so: SoFar = {
		payable: input.total - (input.deduction ?? 0n),
		expected: input.deduction ?? 0n,
		cash: 0n,
		withheld: 0n
	};
	let settledOn: Settlement['settledOn'] = null;
	for (const { entry, index } of order) {
		let part = 0n;
		switch (entry.type) {
			case 'payment':
				so.cash += entry.amount;
				part = entry.withheld ?? withheldFrom(so);
				so.withheld += part;
				owed -= entry.amount + part;
				break;
			case 'credit': {
				const taken = entry.deduction ?? 0n;
				if (taken > so.expected)
					throw new FiguresError(
						'more deduction than is left on the invoice',
						`entries.${index}.deduction`
					);
				so.expected -= taken;
				so.payable -= entry.amount - taken;
				owed -= entry.amount;
				break;
			}
			case 'writeOff':
				owed -= entry.amount;
				break;
			case 'refund':
				part = entry.withheld ?? goingBackWith(entry.amount, so);
				if (part > so.withheld)
					throw new FiguresError(
						'more given back than was withheld so far',
						`entries.${index}.withheld`
					);
				so.cash -= entry.amount;
				so.withheld -= part;
				owed += entry.amount + part;
				break;
		}
		results[index] = { withheld: part, outstanding: max(owed, 0n) };
		settledOn = owed > 0n ? null : (settledOn ?? entry.date);
	}
	const overpaid = max(-owed, 0n);
	return {
		entries: results,
		cash: so.cash,
		withheld: so.withheld,
		outstanding: max(owed, 0n),
		overpaid,
		inHand: min(overpaid, cashBeyond(so)),
		expected: so.expected,
		payable: so.payable,
		settledOn
	};
}

/** Where an invoice stands while its entries are taken. */
interface SoFar {
	/** The total less credits and the deduction expected now: what is to come in cash. */
	payable: Minor;
	/** The deduction expected now. */
	expected: Minor;
	/** Payments less refunds. */
	cash: Minor;
	withheld: Minor;
}

/** What a payment withholds so that the withheld total follows the cash total, the payment included. */
function withheldFrom({ payable, expected, cash, withheld }: SoFar): Minor {
	if (payable <= 0n) return 0n;
	const target = min(divideRounded(expected * max(cash, 0n), payable), expected);
	return max(target - withheld, 0n);
}

/** What came in above what is to come. */
const cashBeyond = ({ payable, cash }: SoFar): Minor => max(cash - max(payable, 0n), 0n);

/**
 * What goes back with money given back, or moved to another invoice, of what was withheld with it: its share of what is
 * withheld above what is expected. The contractor corrects its return (FA 2004 s.62; SI 2005/2045 reg. 4).
 */
function goingBackWith(amount: Minor, so: SoFar): Minor {
	const withheldBeyond = so.withheld - so.expected;
	const beyond = cashBeyond(so);
	if (withheldBeyond <= 0n || beyond <= 0n) return 0n;
	return min(divideRounded(withheldBeyond * amount, beyond), withheldBeyond);
}

/** The most of what is in hand that fits into what is open on another invoice, together with the deduction that goes along. */
export function mostThatFits(from: Settlement, open: Minor): { cash: Minor; withheld: Minor } {
	const along = (cash: Minor) => goingBackWith(cash, from);
	let [low, high] = [0n, min(from.inHand, open)];
	// What goes along grows with the cash: halving finds the penny.
	while (low < high) {
		const middle = (low + high + 1n) / 2n;
		if (middle + along(middle) <= open) low = middle;
		else high = middle - 1n;
	}
	return { cash: low, withheld: along(low) };
}

function refuseContradictions({ total, deduction, entries }: SettlementInput): void {
	for (const [index, entry] of entries.entries()) {
		if (entry.withheld !== null) {
			const path = `entries.${index}.withheld`;
			if (entry.type !== 'payment' && entry.type !== 'refund')
				throw new FiguresError('only a payment, or one given back, has something withheld', path);
			if (deduction === null)
				throw new FiguresError('no deduction is expected on this invoice', path);
			if (entry.withheld > total)
				throw new FiguresError('more withheld than the invoice comes to', path);
		}
		if (entry.deduction !== null && entry.type !== 'credit') {
			throw new FiguresError(
				'only a credit has a deduction of its own',
				`entries.${index}.deduction`
			);
		}
	}
}
