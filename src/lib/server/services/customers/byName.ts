// Customers as files name them: found by their name, or added.
import { sql } from 'drizzle-orm';
import type { CustomerKind } from '../../../core/regimes/types';
import type { Reader, Transaction } from '../../db/connection';
import { customers } from '../../db/schema';
import type { World } from '../../world';

/** What a customer is found by: its name, however it is written in capitals. */
export const nameOf = (name: string): string => name.trim().toLowerCase().replace(/\s+/g, ' ');

/** Those who are not archived, by name: several where several are called the same. */
export function customersByName(db: Reader): Map<string, { id: number; kind: CustomerKind }[]> {
	const known = new Map<string, { id: number; kind: CustomerKind }[]>();
	for (const { id, name, kind } of db
		.select({ id: customers.id, name: customers.name, kind: customers.kind })
		.from(customers)
		.where(sql`${customers.archivedAt} is null`)
		.all())
		known.set(nameOf(name), [...(known.get(nameOf(name)) ?? []), { id, kind }]);
	return known;
}

/** Why nobody, or nobody in particular, is meant; empty where somebody is. */
export function unknownName(name: string, found: number, addCustomers: boolean): string {
	if (found > 1) return `${found} customers are called “${name}”.`;
	return found === 0 && !addCustomers ? `Nobody here is called “${name}”.` : '';
}

/** In the caller's transaction. @returns the id */
export function addNamed(
	tx: Transaction,
	world: World,
	name: string,
	kind: CustomerKind = 'household',
	known: { email?: string; phone?: string; address?: string } = {}
): number {
	const now = world.clock.now();
	return tx
		.insert(customers)

		.values({ ...known, name: name.trim(), kind, createdAt: now, updatedAt: now })
		.returning({ id: customers.id })
		.get().id;
}
