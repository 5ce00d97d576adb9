// What is left of a job: what it brings, what it cost, and the difference, in money and percent.
import { divideRounded, parseMoney } from '../money/decimal';
import type { Minor } from '../money/types';
import type { LineKind } from '../figures/types';
import { billablesOf, costAmount, timeCost } from './billing';
import type { JobWork } from './types';

export interface Margin {
	/** Without VAT: what was agreed, with extras, and chargeable time and costs. */
	agreed: Minor;
	/** Sales without VAT by invoices less credit notes, from the journal. */
	billed: Minor;
	received: Minor;
	withheld: Minor;
	/** By kind of cost; one's own and a helper's time is labour. */
	costs: Partial<Record<LineKind, Minor>>;
	labour: Minor;
	/** What of the costs is only expected: the agreed lines' own cost, of kinds on which nothing was spent yet. */
	expected: Minor;
	spent: Minor;
	/** What the job brings in the end: billed where that is more, else agreed. */
	income: Minor;
	margin: Minor;
	/** Of the income, in tenths of a percent, rounded; null without income. */
	perMille: number | null;
}

/** The books' side of a job, in pence. */
export interface JobBooks {
	billed: Minor;
	received: Minor;
	withheld: Minor;
	/** Everything is billed: what was agreed no longer counts. */
	complete: boolean;
}

/**
 * @param withoutVat turns an agreed amount into one without VAT (prices may include it)
 */
export function marginOf(
	work: JobWork,
	books: JobBooks,
	withoutVat: (amount: Minor, vat: string) => Minor = (amount) => amount
): Margin {
	const agreed = billablesOf(work).reduce((sum, one) => sum + withoutVat(one.amount, one.vat), 0n);
	const costs: Partial<Record<LineKind, Minor>> = {};
	let spent = 0n;
	for (const cost of work.costs) {
		const amount = costAmount(cost);
		costs[cost.kind] = (costs[cost.kind] ?? 0n) + amount;
		spent += amount;
	}
	const labour = work.time.reduce((sum, entry) => sum + timeCost(entry), 0n);
	if (labour) costs.labour = (costs.labour ?? 0n) + labour;
	spent += labour;
	let expected = 0n;
	const spentOn = new Set(Object.keys(costs));
	for (const { kind, cost } of work.lines) {
		const amount = parseMoney(cost.trim()) ?? 0n;
		if (!amount || spentOn.has(kind)) continue;
		costs[kind] = (costs[kind] ?? 0n) + amount;
		expected += amount;
	}
	spent += expected;
	const income = books.complete || books.billed > agreed ? books.billed : agreed;
	return finish({ agreed, ...books, costs, labour, expected, spent, income });
}

function finish(parts: Omit<Margin, 'margin' | 'perMille'> & { complete?: boolean }): Margin {
	const { complete: _complete, ...rest } = parts;
	const margin = rest.income - rest.spent;
	return {
		...rest,
		margin,
		perMille: rest.income > 0n ? Number(divideRounded(margin * 1000n, rest.income)) : null
	};
}

/** The same for many jobs together. */
export function addMargins(margins: readonly Margin[]): Margin {
	const total = (read: (margin: Margin) => Minor) =>
		margins.reduce((sum, margin) => sum + read(margin), 0n);
	const costs: Partial<Record<LineKind, Minor>> = {};
	for (const margin of margins)
		for (const [kind, amount] of Object.entries(margin.costs) as [LineKind, Minor][])
			costs[kind] = (costs[kind] ?? 0n) + amount;
	return finish({
		agreed: total((one) => one.agreed),
		billed: total((one) => one.billed),
		received: total((one) => one.received),
		withheld: total((one) => one.withheld),
		costs,
		labour: total((one) => one.labour),
		expected: total((one) => one.expected),
		spent: total((one) => one.spent),
		income: total((one) => one.income)
	});
}
