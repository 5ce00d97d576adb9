// Asks the price list, from wherever an entry is looked for.
import { parseMoney } from '$lib/core/money/decimal';
import { displayAmount } from '$lib/core/money/display';
import type { SheetLine } from '$lib/core/sheet/types';

export interface FoundEntry {
	id: number;
	name: string;
	code: string;
	unit: string;
	price: string;
	/** Whether VAT is in the price. */
	withVat: boolean;
	/** The lines it makes: one, or those of a kit. */
	lines: SheetLine[];
}

/** Entries that fit what was typed, the best first; null where they cannot be looked up just now. */
export async function findOnPriceList(typed: string): Promise<FoundEntry[] | null> {
	const response = await fetch(`/work/prices/api?q=${encodeURIComponent(typed)}`).catch(() => null);
	return response?.ok ? response.json() : null;
}

/** How a price stands on the list, in words. */
export const priceWords = (one: Pick<FoundEntry, 'price' | 'unit' | 'withVat'>): string =>
	`${displayAmount(parseMoney(one.price) ?? 0n)}${one.unit ? ` / ${one.unit}` : ''}${one.withVat ? ' with VAT' : ''}`;

/** How prices are taken, wherever that is chosen. */
export const VAT_BASIS = [
	{ value: 'without', label: 'without VAT' },
	{ value: 'with', label: 'with VAT' }
] as const;
