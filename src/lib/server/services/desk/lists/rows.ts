// The rows of a list for what is done with many of them: which a view has, and what they are called.
import { inArray } from 'drizzle-orm';
import { readView } from '../../../../core/lists/address';
import type { ListName } from '../../../../core/lists/types';
import { documents } from '../../../db/schema';
import type { World } from '../../../world';
import type { ListSource } from './engine';
import { idsOfList } from './engine';
import { INVOICE_LIST } from './invoices';

export const SOURCES: Readonly<Record<ListName, ListSource>> = { invoices: INVOICE_LIST };

export const rowsOfList =
	(list: ListName) =>
	(world: World, view: URLSearchParams): number[] =>
		idsOfList(world, SOURCES[list], readView(SOURCES[list].spec, view));

/** What rows are called and where they lead. */
export function namesOf(
	world: World,
	_list: ListName,
	ids: readonly number[]
): Map<number, { name: string; href: string }> {
	if (ids.length === 0) return new Map();
	return new Map(
		world.db
			.select({ id: documents.id, number: documents.number, customer: documents.customerName })
			.from(documents)
			.where(inArray(documents.id, [...ids]))
			.all()
			.map(({ id, number, customer }) => [
				id,
				{
					name: [number ?? 'Draft', customer || 'no customer yet'].join(', '),
					href: `/billing/${id}`
				}
			])
	);
}
