// What is still owed on an invoice, and what was withheld from its payments.
import { FiguresError } from '../figures/types';
import { divideRounded, max, min } from '../money/decimal';
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
	let expected = input.deduction ?? 0n;
	let credited = 0n;
	let paid = 0n;
	let refunded = 0n;
	let withheld = 0n;
	let owed = input.total;
	let settledOn: Settlement['settledOn'] = null;
	for (const { entry, index } of order) {
		let part = 0n;
		switch (entry.type) {
			case 'payment':
				paid += entry.amount;
				part =
					entry.withheld ??
					withheldFrom({ expected, credited, paid, withheld, total: input.total });
				withheld += part;
				owed -= entry.amount + part;
				break;
			case 'credit': {
				const taken = entry.deduction ?? 0n;
				if (taken > expected) {
					throw new FiguresError(
						'more deduction than is left on the invoice',
						`entries.${index}.deduction`
					);
				}
				expected -= taken;
				credited += entry.amount;
				owed -= entry.amount;
				break;
			}
			case 'writeOff':
				owed -= entry.amount;
				break;
			case 'refund':
				refunded += entry.amount;
				owed += entry.amount;
				break;
		}
		results[index] = { withheld: part, outstanding: max(owed, 0n) };
		settledOn = owed > 0n ? null : (settledOn ?? entry.date);
	}
	return {
		entries: results,
		cash: paid - refunded,
		withheld,
		outstanding: max(owed, 0n),
		overpaid: max(-owed, 0n),
		settledOn
	};
}

function refuseContradictions({ total, deduction, entries }: SettlementInput): void {
	for (const [index, entry] of entries.entries()) {
		if (entry.withheld !== null) {
			const path = `entries.${index}.withheld`;
			if (entry.type !== 'payment')
				throw new FiguresError('only a payment has something withheld', path);
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

interface Position {
	expected: bigint;
	credited: bigint;
	paid: bigint;
	withheld: bigint;
	total: bigint;
}

/** What a payment withholds so that the withheld total follows the cash total. */
function withheldFrom({ expected, credited, paid, withheld, total }: Position): bigint {
	const payable = total - credited - expected;
	if (payable <= 0n) return 0n;
	const target = min(divideRounded(expected * paid, payable), expected);
	return max(target - withheld, 0n);
}
