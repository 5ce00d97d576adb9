// What belongs to a customer: standings over time, contacts, sites, and the record documents are made from.
import { isMobile } from '../../../core/regimes/gb/checks';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { z } from 'zod';
import { BOOKS } from '../../../core/money/currencies';
import type { CustomerRecord } from '../../../core/parties';
import type { Transaction, Reader } from '../../db/connection';
import { contacts, customers, sites, taxStandings } from '../../db/schema';
import { hasStopped } from '../messages/stopped';
import type { CustomerParsed, standingForm } from './form';

const ALWAYS = '0001-01-01';

/** Who gets the bill: whoever the sheet or job names, else the site's bill-to, else the customer's. */
export interface BillToChoice {
	siteId?: number | null;
	billToId?: number | null | undefined;
}

function billToOf(
	db: Reader,
	customer: { id: number; billToId: number | null },
	{ siteId, billToId }: BillToChoice
): number | null {
	if (billToId) return billToId;
	const site = siteId ? db.select().from(sites).where(eq(sites.id, siteId)).get() : undefined;
	const ofSite = site?.customerId === customer.id ? site.billToId : null;
	return ofSite ?? customer.billToId;
}

/** A customer as documents need it; null where it is not there (any more). */
export function customerRecord(
	db: Reader,
	id: number | null,
	choice: BillToChoice = {}
): CustomerRecord | null {
	if (id === null) return null;
	const row = db.select().from(customers).where(eq(customers.id, id)).get();
	if (!row) return null;
	const billToId = billToOf(db, row, choice);
	const billTo =
		billToId === null ? null : db.select().from(customers).where(eq(customers.id, billToId)).get();
	return {
		id: row.id,
		kind: row.kind,
		name: row.name,
		email: row.email,
		address: row.address,
		terms: row.termsDays === null ? null : { days: row.termsDays, endOfMonth: row.termsEndOfMonth },
		...(row.currency === BOOKS ? {} : { currency: row.currency }),
		orderNumberRequired: row.orderNumberRequired,
		...(row.inTrade && row.kind === 'household' ? { inTrade: true } : {}),
		...(row.payWays ? { ways: row.payWays } : {}),
		billTo: billTo
			? { id: billTo.id, name: billTo.name, address: billTo.address, email: billTo.email }
			: null,
		sites: db
			.select({ id: sites.id, name: sites.name, address: sites.address })
			.from(sites)
			.where(eq(sites.customerId, id))
			.orderBy(asc(sites.id))
			.all(),
		standings: standingsOf(db, id)
	};
}

export function standingsOf(db: Reader, customerId: number): CustomerRecord['standings'] {
	return db
		.select()
		.from(taxStandings)
		.where(eq(taxStandings.customerId, customerId))
		.orderBy(asc(taxStandings.from), asc(taxStandings.id))
		.all()
		.map(
			({
				from,
				vatRegistered,
				vatNumber,
				cisRegistered,
				cisRate,
				verificationNumber,
				endUser,
				endUserStatement,
				endUserDate
			}) => ({
				from: from === ALWAYS ? null : from,
				vatRegistered,
				vatNumber,
				cisRegistered,
				cisRate,
				verificationNumber,
				endUser,
				endUserStatement,
				endUserDate
			})
		);
}

export function saveParts(
	tx: Transaction,
	customerId: number,
	form: CustomerParsed,
	now: number
): void {
	if (form.standing) saveStanding(tx, customerId, form.standing, now);
	if (form.contacts) {
		tx.delete(contacts).where(eq(contacts.customerId, customerId)).run();
		for (const { id: _id, ...contact } of form.contacts)
			tx.insert(contacts)
				.values({ ...contact, customerId })
				.run();
	}
	if (form.sites) saveSites(tx, customerId, form.sites);
}

function saveStanding(
	tx: Transaction,
	customerId: number,
	standing: z.output<typeof standingForm>,
	now: number
): void {
	const { from, endUserDate, vatNumber, verificationNumber, ...facts } = standing;
	const values = {
		...facts,
		vatNumber: vatNumber
			.replace(/[\s.-]/g, '')
			.toUpperCase()
			.replace(/^GB/, ''),
		verificationNumber: verificationNumber.replace(/\s/g, '').toUpperCase(),
		endUserDate: endUserDate || null,
		customerId,
		from: from || ALWAYS,
		recordedAt: now
	};
	const same = tx
		.select({ id: taxStandings.id })
		.from(taxStandings)
		.where(and(eq(taxStandings.customerId, customerId), eq(taxStandings.from, values.from)))
		.get();
	if (same) tx.update(taxStandings).set(values).where(eq(taxStandings.id, same.id)).run();
	else tx.insert(taxStandings).values(values).run();
}

/** Sites keep their identity, because drafts point at them. */
function saveSites(
	tx: Transaction,
	customerId: number,
	given: NonNullable<CustomerParsed['sites']>
): void {
	const kept = new Set(given.flatMap((site) => (site.id ? [site.id] : [])));
	const existing = tx
		.select({ id: sites.id })
		.from(sites)
		.where(eq(sites.customerId, customerId))
		.all();
	for (const { id } of existing) if (!kept.has(id)) tx.delete(sites).where(eq(sites.id, id)).run();
	const known = new Set(existing.map((site) => site.id));
	for (const { id, ...site } of given) {
		if (id && known.has(id)) tx.update(sites).set(site).where(eq(sites.id, id)).run();
		else
			tx.insert(sites)
				.values({ ...site, customerId })
				.run();
	}
}

/** Whoever has an address at these customers: the firms themselves, and the people there. */
export function addressesAt(db: Reader, ids: readonly number[]) {
	return {
		people: db
			.select()
			.from(contacts)
			.where(inArray(contacts.customerId, [...ids]))
			.all(),
		firms: db
			.select({ id: customers.id, email: customers.email })
			.from(customers)
			.where(inArray(customers.id, [...ids]))
			.all()
	};
}

/** E-mail addresses a document could go to, the likeliest first. */
export function mailAddresses(db: Reader, customerId: number, choice: BillToChoice = {}): string[] {
	const row = db.select().from(customers).where(eq(customers.id, customerId)).get();
	if (!row) return [];
	const billToId = billToOf(db, row, choice);
	const ids = billToId === null ? [row.id] : [billToId, row.id];
	const { firms, people } = addressesAt(db, ids);
	return inOrderOfUse(ids, firms, people);
}

/** The mobile number of a customer, or of somebody there; empty where none is known, or it asked for no more texts. */
export function mobileOf(db: Reader, customerId: number): string {
	const row = db
		.select({ phone: customers.phone })
		.from(customers)
		.where(eq(customers.id, customerId))
		.get();
	const people = db
		.select({ phone: contacts.phone })
		.from(contacts)
		.where(eq(contacts.customerId, customerId))
		.all();
	return (
		[row?.phone ?? '', ...people.map((one) => one.phone)].find(
			(phone) => isMobile(phone) && !hasStopped(db, phone)
		) ?? ''
	);
}

/** Whose address comes first: whoever does invoices there, the firm itself, anybody else; bill-to before customer. */
export function inOrderOfUse(
	ids: readonly number[],
	firms: readonly { id: number; email: string }[],
	people: readonly { customerId: number; role: string; email: string }[]
): string[] {
	const ordered = ids.flatMap((id) => [
		...people
			.filter((person) => person.customerId === id && /invoice|account|bill/i.test(person.role))
			.map((person) => person.email),
		...firms.filter((firm) => firm.id === id).map((firm) => firm.email),
		...people.filter((person) => person.customerId === id).map((person) => person.email)
	]);
	return [...new Set(ordered.filter(Boolean))];
}
