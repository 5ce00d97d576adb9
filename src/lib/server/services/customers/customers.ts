// Customers: found, added with only a name, completed later, archived or removed.
import { must } from '../../actor';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { NO_STANDING } from '../../../core/parties';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { contacts, customers, documents, openItems, sites } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { checkCustomer, customerForm, type CustomerParsed } from './form';
import { unusedPayments } from '../ledger/inHand';
import { saveParts, standingsOf } from './parts';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';

/** Everything about a customer, for its own page. */
export function customerDetail(world: World, id: number) {
	must('work');
	const { db } = world;
	const row = db.select().from(customers).where(eq(customers.id, id)).get();
	if (!row) throw new NotFoundError('This customer');
	const standings = standingsOf(db, id);
	return {
		...row,
		standings,
		standing: standings.at(-1) ?? NO_STANDING,
		billToName: row.billToId
			? (db
					.select({ name: customers.name })
					.from(customers)
					.where(eq(customers.id, row.billToId))
					.get()?.name ?? '')
			: '',
		contacts: db
			.select()
			.from(contacts)
			.where(eq(contacts.customerId, id))
			.orderBy(asc(contacts.id))
			.all(),
		sites: db.select().from(sites).where(eq(sites.customerId, id)).orderBy(asc(sites.id)).all(),
		...balanceOf(db, id)
	};
}

function balanceOf(db: Reader, customerId: number): { outstanding: number; documentCount: number } {
	const open = db
		.select({
			sum: sql<number>`coalesce(sum(${openItems.outstandingSterling} - ${openItems.overpaidSterling}), 0)`
		})
		.from(openItems)
		.where(eq(openItems.customerId, customerId))
		.get();
	const count = db
		.select({ n: sql<number>`count(*)` })
		.from(documents)
		.where(and(eq(documents.customerId, customerId), eq(documents.state, 'issued')))
		.get();
	return { outstanding: open?.sum ?? 0, documentCount: count?.n ?? 0 };
}

/** Customers whose name, place or address contains every word. Most recently used first. */
export function searchCustomers(world: World, query: string, limit = 20, archived = false) {
	must('work');
	const words = query.trim().toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
	const matches = words.map((word) => {
		const pattern = `%${word.replace(/[\\%_]/g, '\\$&')}%`;
		return sql`(lower(${customers.name} || ' ' || ${customers.address} || ' ' || ${customers.email} || ' ' || ${customers.labels}) like ${pattern} escape '\\')`;
	});
	const found = world.db
		.select()
		.from(customers)
		.where(and(archived ? undefined : isNull(customers.archivedAt), ...matches))
		.orderBy(
			// A name that begins with what was typed comes before one that merely lives there.
			sql`${customers.name} not like ${`${query.trim().replace(/[\\%_]/g, '')}%`}`,
			desc(customers.updatedAt),
			asc(customers.name)
		)
		.limit(limit)
		.all();
	const ids = found.map((one) => one.id);
	const owed = new Map(
		ids.length
			? world.db
					.select({
						id: openItems.customerId,
						sum: sql<number>`sum(${openItems.outstandingSterling} - ${openItems.overpaidSterling})`
					})
					.from(openItems)
					.where(inArray(openItems.customerId, ids))
					.groupBy(openItems.customerId)
					.all()
					.map((row) => [row.id, row.sum])
			: []
	);
	return found.map(({ id, name, kind, address, email: mail, archivedAt }) => ({
		id,
		name,
		kind,
		address,
		email: mail,
		archivedAt,
		owed: owed.get(id) ?? 0
	}));
}

/** Everyone who could get a bill, by name. */
export function customerNames(world: World, ids: readonly number[]): Record<number, string> {
	return Object.fromEntries(
		world.db
			.select({ id: customers.id, name: customers.name })
			.from(customers)
			.where(inArray(customers.id, [...new Set(ids)]))
			.all()
			.map(({ id, name }) => [id, name])
	);
}

/** @throws FieldError */
export function addCustomer(world: World, input: unknown): number {
	must('work');
	const form = checkCustomer(parseForm(customerForm, input));
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		refuseCircle(tx, null, form.billToId);
		refuseSiteCircle(tx, null, form.sites);
		const { id } = tx
			.insert(customers)
			.values({ ...columns(form), createdAt: now, updatedAt: now })
			.returning({ id: customers.id })
			.get();
		saveParts(tx, id, form, now);
		return id;
	});
}

/**
 * Saves a customer. Documents issued before keep what they were issued with.
 * @throws FieldError, NotFoundError, or ConflictError where another tab saved first.
 */
export function saveCustomer(world: World, id: number, version: number, input: unknown): number {
	must('work');
	const form = checkCustomer(parseForm(customerForm, input));
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const row = tx
			.select({ version: customers.version })
			.from(customers)
			.where(eq(customers.id, id))
			.get();
		if (!row) throw new NotFoundError('This customer');
		if (row.version !== version)
			throw new ConflictError(
				'This customer was changed in another tab. Load it again to see how.'
			);
		refuseCircle(tx, id, form.billToId);
		refuseSiteCircle(tx, id, form.sites);
		tx.update(customers)
			.set({ ...columns(form), version: version + 1, updatedAt: now })
			.where(eq(customers.id, id))
			.run();
		saveParts(tx, id, form, now);
		return version + 1;
	});
}

function columns({
	standing: _standing,
	contacts: _contacts,
	sites: _sites,
	...form
}: CustomerParsed) {
	return form;
}

/** A bill-to that points in a circle would bill nobody. */
function refuseCircle(tx: Transaction, id: number | null, billToId: number | null): void {
	for (let next = billToId, steps = 0; next !== null; steps++) {
		if (next === id || steps > 20)
			throw new FieldError({ billToId: 'That would send the bill round in a circle.' });
		const row = tx
			.select({ billToId: customers.billToId })
			.from(customers)
			.where(eq(customers.id, next))
			.get();
		if (!row) throw new FieldError({ billToId: 'That customer is not here any more.' });
		next = row.billToId;
	}
}

/** A site's bill-to is somebody else, who is there. */
function refuseSiteCircle(
	tx: Transaction,
	id: number | null,
	given: CustomerParsed['sites']
): void {
	for (const [index, site] of (given ?? []).entries()) {
		if (site.billToId === null) continue;
		const there = tx
			.select({ id: customers.id })
			.from(customers)
			.where(eq(customers.id, site.billToId))
			.get();
		if (!there || site.billToId === id)
			throw new FieldError({
				[`sites.${index}.billToId`]: there
					? 'The customer gets the bill anyway.'
					: 'That customer is not here any more.'
			});
	}
}

/**
 * Removes a customer nothing was ever issued to; its drafts stay, without a customer.
 * @throws RefusedError where documents keep it here.
 */
export function removeCustomer(world: World, id: number): void {
	must('work');
	writeAtOnce(world.db, (tx) => {
		const { documentCount } = balanceOf(tx, id);
		if (documentCount > 0)
			throw new RefusedError(
				'Documents were issued to this customer, so it stays. Archive it instead.'
			);
		tx.update(customers).set({ billToId: null }).where(eq(customers.billToId, id)).run();
		tx.delete(customers).where(eq(customers.id, id)).run();
	});
}

/** @throws RefusedError that says what is still open. */
export function archiveCustomer(world: World, id: number, archived: boolean): void {
	must('work');
	writeAtOnce(world.db, (tx) => {
		const { outstanding } = balanceOf(tx, id);
		// What others' invoices ask of it, and what it has in hand, keep it as well.
		const asPayer = tx
			.select({
				sum: sql<number>`coalesce(sum(${openItems.outstanding} + ${openItems.overpaid}), 0)`
			})
			.from(openItems)
			.where(eq(openItems.payerId, id))
			.get()!.sum;
		const open = outstanding !== 0 || asPayer !== 0 || unusedPayments(tx, id).length > 0;
		if (archived && open)
			throw new RefusedError('Something is still open on this account. Settle it first.');
		tx.update(customers)
			.set({ archivedAt: archived ? world.clock.now() : null })
			.where(eq(customers.id, id))
			.run();
	});
}
