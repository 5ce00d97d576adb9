// Sheets used again: kept as starting points, begun from, or written for several customers at once.
import { asc, eq, inArray } from 'drizzle-orm';
import { blankSheet, pricesIncludeVatFor } from '../../../core/sheet/blank';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce } from '../../db/connection';
import { customers, documents, startingPoints } from '../../db/schema';
import type { World } from '../../world';
import { withoutTaken } from '../jobs/takenParts';
import { draftOnce } from './drafts';
import { FieldError, NotFoundError } from '../../../core/refusals';

/** What of a sheet belongs to no one occasion and no one customer. */
function withoutOccasion(sheet: Sheet): Sheet {
	const { billToId: _billTo, ...rest } = withoutTaken(sheet);
	return {
		...rest,
		customerId: null,
		siteId: null,
		issueDate: '',
		workFinished: '',
		dueDate: '',
		orderNumber: ''
	};
}

/** Keeps a document's sheet under a name; the same name again replaces it. @throws FieldError */
export function keepStartingPoint(world: World, documentId: number, typed: string): void {
	const name = typed.trim();
	if (name === '') throw new FieldError({ name: 'Give it a name.' });
	if (name.length > 80) throw new FieldError({ name: 'At most 80 characters.' });
	const row = world.db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row) throw new NotFoundError('This document');
	const values = { sheet: withoutOccasion(row.sheet), updatedAt: world.clock.now() };
	world.db
		.insert(startingPoints)
		.values({ name, ...values })
		.onConflictDoUpdate({ target: startingPoints.name, set: values })
		.run();
}

export function listStartingPoints(world: World) {
	return world.db
		.select()
		.from(startingPoints)
		.orderBy(asc(startingPoints.name))
		.all()
		.map(({ id, name, sheet }) => ({
			id,
			name,
			lines: sheet.rows.filter((row) => row.type === 'line').length,
			first:
				sheet.rows.find((row) => row.type === 'line')?.type === 'line'
					? (sheet.rows.find((row) => row.type === 'line') as { description: string }).description
					: ''
		}));
}

export function removeStartingPoint(world: World, id: number): void {
	world.db.delete(startingPoints).where(eq(startingPoints.id, id)).run();
}

/** A draft that begins as it was kept; the starting point stays as it is. The same key again gives the same draft. */
export function beginFrom(world: World, id: number, key: string): number {
	return writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(startingPoints).where(eq(startingPoints.id, id)).get();
		if (!row) throw new NotFoundError('This starting point');
		return draftOnce(tx, world, key, () => ({
			sheet: { ...blankSheet(), ...row.sheet },
			origin: 'startingPoint'
		}));
	});
}

/**
 * The same invoice for several customers: a draft for each. What belongs to one customer (site, contract class,
 * prices with VAT) is each one's own. The same key again makes nothing new.
 * @throws FieldError
 */
export function copyToCustomers(
	world: World,
	documentId: number,
	customerIds: readonly number[],
	key: string
): number[] {
	const ids = [...new Set(customerIds)];
	if (ids.length === 0) throw new FieldError({ customers: 'Choose at least one customer.' });
	if (ids.length > 500) throw new FieldError({ customers: 'At most 500 at once.' });
	return writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(documents).where(eq(documents.id, documentId)).get();
		if (!row) throw new NotFoundError('This document');
		const original = tx
			.select()
			.from(customers)
			.where(eq(customers.id, row.customerId ?? 0))
			.get();
		return tx
			.select()
			.from(customers)
			.where(inArray(customers.id, ids))
			.orderBy(asc(customers.name))
			.all()
			.map((customer) =>
				draftOnce(tx, world, `${key}:${customer.id}`, () => ({
					origin: 'copy',
					sheet: {
						...withoutOccasion(row.sheet),
						customerId: customer.id,
						contract: customer.kind === 'contractor' ? row.sheet.contract : null,
						pricesIncludeVat:
							customer.kind === original?.kind
								? row.sheet.pricesIncludeVat
								: pricesIncludeVatFor(customer.kind)
					}
				}))
			);
	});
}
