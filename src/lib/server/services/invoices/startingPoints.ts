// Sheets used again: kept as starting points, begun from, or written for several customers at once.
import { must } from '../../actor';
import { asc, eq, inArray } from 'drizzle-orm';
import { blankSheet, pricesIncludeVatFor, sheetLines } from '../../../core/sheet/blank';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Reader } from '../../db/connection';
import { customers, documents, startingPoints } from '../../db/schema';
import { toBin } from '../business/bin';
import type { World } from '../../world';
import { withoutTaken } from '../jobs/takenParts';
import { draftOnce } from './drafts';
import { readTemplate } from './template';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';

/** What of a sheet belongs to no one occasion and no one customer. */
function withoutOccasion(sheet: Sheet): Sheet {
	const { billToId: _billTo, own: _own, ...rest } = withoutTaken(sheet);
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

function readName(typed: string): string {
	const name = typed.trim();
	if (name === '') throw new FieldError({ name: 'Give it a name.' });
	if (name.length > 80) throw new FieldError({ name: 'At most 80 characters.' });
	return name;
}

/** Keeps a document's sheet under a name; the same name again replaces it. @throws FieldError */
export function keepStartingPoint(world: World, documentId: number, typed: string): void {
	must('bill');
	const name = readName(typed);
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
		.map(({ id, name, sheet }) => {
			const lines = sheetLines(sheet);
			return { id, name, lines: lines.length, first: lines[0]?.description ?? '' };
		});
}

export function loadStartingPoint(db: Reader, id: number) {
	const row = db.select().from(startingPoints).where(eq(startingPoints.id, id)).get();
	if (!row) throw new NotFoundError('This starting point');
	return row;
}

/**
 * Changes what is kept; what was begun from it stays as it is.
 * @returns its new version @throws FieldError, NotFoundError, ConflictError
 */
export function saveStartingPoint(
	world: World,
	id: number,
	version: number,
	typedName: string,
	input: unknown
): number {
	must('bill');
	const name = readName(typedName);
	const sheet = readTemplate(input);
	return writeAtOnce(world.db, (tx) => {
		const row = loadStartingPoint(tx, id);
		if (row.updatedAt !== version)
			throw new ConflictError(
				'This starting point was changed in another tab. Load it again to see how.'
			);
		const same = tx.select().from(startingPoints).where(eq(startingPoints.name, name)).get();
		if (same && same.id !== id)
			throw new FieldError({ name: 'Another starting point has that name.' });
		const updatedAt = Math.max(world.clock.now(), version + 1);
		tx.update(startingPoints)
			.set({ name, sheet: withoutOccasion(sheet), updatedAt })
			.where(eq(startingPoints.id, id))
			.run();
		return updatedAt;
	});
}

/** @returns by what it is brought back; null where it was not there */
export function removeStartingPoint(world: World, id: number): number | null {
	must('bill');
	return writeAtOnce(world.db, (tx) => {
		const row = tx.delete(startingPoints).where(eq(startingPoints.id, id)).returning().get();
		return row ? toBin(tx, world, 'startingPoint', row) : null;
	});
}

/** A draft that begins as it was kept; the starting point stays as it is. The same key again gives the same draft. */
export function beginFrom(world: World, id: number, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) => {
		const row = loadStartingPoint(tx, id);
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
	must('bill');
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
