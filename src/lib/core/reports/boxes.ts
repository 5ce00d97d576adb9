// What was spent, row by row as the self-assessment return asks for it.
import { CATEGORY_NAMES, COST_CATEGORIES, type CostCategory } from '../costs/types';
import type { Minor } from '../money/types';

export interface BoxRow {
	/** `null`: what card processors kept, which nobody writes down as a cost. */
	category: CostCategory | null;
	/** With the number of its box (SA103F). */
	name: string;
	amount: Minor;
}

/** The costs in the order of their boxes; what card processors kept stands beside the bank's own charges. */
export function boxRows(
	costs: readonly { category: CostCategory; amount: Minor }[],
	fees: Minor
): BoxRow[] {
	return COST_CATEGORIES.flatMap((category): BoxRow[] => {
		const { box, name } = CATEGORY_NAMES[category];
		const rows = costs
			.filter((one) => one.category === category)
			.map(({ amount }): BoxRow => ({ category, name: `${box} ${name}`, amount }));
		if (category === 'charges' && fees !== 0n)
			rows.push({ category: null, name: `${box} Kept by card processors`, amount: fees });
		return rows;
	});
}
