// Asks the price list, from wherever an entry is looked for.
import type { SheetLine } from '$lib/core/sheet/types';

export interface FoundEntry {
	id: number;
	name: string;
	code: string;
	unit: string;
	price: string;
	/** The lines it makes: one, or those of a kit. */
	lines: SheetLine[];
}

/** Entries that fit what was typed, the best first; null where they cannot be looked up just now. */
export async function findOnPriceList(typed: string): Promise<FoundEntry[] | null> {
	const response = await fetch(`/work/prices/api?q=${encodeURIComponent(typed)}`).catch(() => null);
	return response?.ok ? response.json() : null;
}
