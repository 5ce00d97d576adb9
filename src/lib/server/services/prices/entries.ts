// Entries found on the price list, as the lines they make on a sheet.
import { asc, inArray } from 'drizzle-orm';
import { entryLine, kitLines, kitPrice, type Kit } from '../../../core/kits';
import { ratesOn } from '../../../core/sheet/priceBasis';
import type { SheetLine } from '../../../core/sheet/types';
import { kitParts, priceItems } from '../../db/schema';
import type { World } from '../../world';
import { isRegistered } from '../business/settings';
import { findPrices, type PriceRow } from './search';

export interface FoundEntry {
	id: number;
	name: string;
	code: string;
	unit: string;
	price: string;
	/** Whether VAT is in the price. */
	withVat: boolean;
	lines: SheetLine[];
}

export function entriesFor(world: World, typed: string): FoundEntry[] {
	const rows = findPrices(world, typed);
	const rateOf = ratesOn(world.clock.today(), isRegistered(world));
	const kits = kitsOf(
		world,
		rows.filter((row) => row.kit !== null)
	);
	return rows.flatMap((row) => {
		let count = 0;
		const newId = () => `p${row.id}-${++count}`;
		const kit = kits.get(row.id);
		if (row.kit !== null && !kit?.parts.length) return [];
		return [
			{
				id: row.id,
				name: row.name,
				code: row.code,
				unit: row.unit,
				price: kit ? kitPrice(kit, rateOf) : row.unitPrice || '0',
				withVat: row.withVat,
				lines: kit ? kitLines(kit, '1', newId, rateOf) : [entryLine(row, '1', newId)]
			}
		];
	});
}

function kitsOf(world: World, rows: PriceRow[]): Map<number, Kit> {
	if (rows.length === 0) return new Map();
	const parts = world.db
		.select()
		.from(kitParts)
		.where(
			inArray(
				kitParts.kitId,
				rows.map((row) => row.id)
			)
		)
		.orderBy(asc(kitParts.kitId), asc(kitParts.position))
		.all();
	const entries = new Map(
		world.db
			.select()
			.from(priceItems)
			.where(
				inArray(
					priceItems.id,
					parts.map((part) => part.itemId)
				)
			)
			.all()
			.map((entry) => [entry.id, entry])
	);
	return new Map(
		rows.map((row) => [
			row.id,
			{
				...row,
				kit: row.kit!,
				parts: parts
					.filter((part) => part.kitId === row.id)
					.map((part) => ({ entry: entries.get(part.itemId)!, quantity: part.quantity }))
			}
		])
	);
}
