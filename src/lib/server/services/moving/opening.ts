// An invoice out of other books, ready to stand here: matched with its customer, and frozen as it stands there.
import { and, eq, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import type { OpeningInvoice } from '../../../core/moving/invoices';
import { openingSheet, refuseDifferences } from '../../../core/moving/sheet';
import { RowError } from '../../../core/moving/reading';
import { BOOKS } from '../../../core/money/currencies';
import { converted, parseDecimal } from '../../../core/money/decimal';
import { displayMoney } from '../../../core/money/display';
import { customerOn, sellerOn, type CustomerRecord } from '../../../core/parties';
import type { Reader, Transaction } from '../../db/connection';
import { documents, jobs } from '../../db/schema';
import { turn } from '../../turn';
import type { World } from '../../world';
import { sellerRecord } from '../business/settings';
import { addNamed, customersByName, nameOf, unknownName } from '../customers/byName';
import { customerRecord } from '../customers/parts';
import { sheetContext } from '../invoices/context';
import { freezeOpening, type FrozenDraft } from '../invoices/freeze';
import type { ToIssue } from '../invoices/issuing';
import { beginForm, beginOnce } from '../jobs/begin';
import { takePayment } from '../money/taking';
import { noteMoved, type MovedRow } from './book';

/** Whether the seller was registered for VAT on a day. */
export function registeredOn(db: Reader): (day: string) => boolean {
	const seller = sellerRecord(db);
	return (day) => sellerOn(seller, day).vatRegistered;
}

export interface Planned {
	report: MovedRow;
	/** What is to be brought in; null where nothing is. */
	invoice: OpeningInvoice | null;
	customerId: number | null;
}

export interface Given {
	line: number;
	name: string;
	invoice: OpeningInvoice | null;
	why: string;
}

/** Up to this day VAT stands in a return already; empty: of nothing. */
const withReturn = (invoice: OpeningInvoice, returnedUntil: string): OpeningInvoice => ({
	...invoice,
	returned: invoice.returned ?? (returnedUntil !== '' && invoice.taxPoint <= returnedUntil)
});

/** What becomes of each, in the order given. */
export async function planOpening(
	world: World,
	db: Reader,
	given: readonly Given[],
	{ addCustomers, returnedUntil }: { addCustomers: boolean; returnedUntil: string }
): Promise<Planned[]> {
	const known = customersByName(db);
	const isRegistered = registeredOn(db);
	const seen = new Set<string>();
	const planOne = ({ line, name, invoice: read, why }: Given): Planned => {
		const wrong = (detail: string): Planned => ({
			report: { line, name, outcome: 'wrong', detail },
			invoice: null,
			customerId: null
		});
		if (!read) return wrong(why);
		const invoice = withReturn(read, returnedUntil);
		const number = invoice.number.toLowerCase();
		if (seen.has(number)) return wrong('Its number stands in the file twice.');
		seen.add(number);
		const found = known.get(nameOf(invoice.customer)) ?? [];
		const there = numbered(db, invoice.number);
		if (there?.origin === 'opening' && nameOf(there.customer) === nameOf(invoice.customer))
			return {
				report: { line, name, outcome: 'same', detail: 'is here already' },
				invoice: null,
				customerId: null
			};
		if (there) return wrong(`There is an invoice ${there.number} here already.`);
		const unknown = unknownName(invoice.customer, found.length, addCustomers);
		if (unknown) return wrong(unknown);
		try {
			frozenFor(world, db, invoice, found[0]?.id ?? null, null);
		} catch (error) {
			if (error instanceof RowError) return wrong(error.message);
			throw error;
		}
		return {
			report: {
				line,
				name,
				outcome: 'new',
				detail: inWords(invoice, found.length === 0, isRegistered(invoice.taxPoint))
			},
			invoice,
			customerId: found[0]?.id ?? null
		};
	};
	const planned: Planned[] = [];
	for (const [index, one] of given.entries()) {
		planned.push(planOne(one));
		if (index % AT_ONCE === AT_ONCE - 1) await turn();
	}
	return planned;
}

/** So many are worked on before others get their turn. */
export const AT_ONCE = 10;

function numbered(db: Reader, number: string) {
	return db
		.select({
			number: documents.number,
			origin: documents.origin,
			customer: documents.customerName
		})
		.from(documents)
		.where(
			and(
				// As the index says it.
				sql`${documents.origin} <> 'selfBilled'`,
				eq(documents.kind, 'invoice'),
				sql`lower(${documents.number}) = ${number.toLowerCase()}`
			)
		)
		.get();
}

function inWords(invoice: OpeningInvoice, fresh: boolean, registered: boolean): string {
	const { customer, currency, total, paid, due, deduction, retention } = invoice;
	const money = (amount: bigint) => displayMoney(amount, currency);
	return [
		fresh ? `${customer}, a new customer` : customer,
		money(total),
		invoice.vat > 0n ? `${money(invoice.vat)} of it VAT` : '',
		paid > 0n ? `${money(paid)} of it paid` : '',
		deduction ? `${money(deduction)} to be deducted` : '',
		retention > 0n ? `${money(retention)} held back besides` : '',
		due ? `due ${displayDate(due)}` : '',
		registered
			? invoice.returned
				? 'its VAT is returned already'
				: 'its VAT is to be returned'
			: ''
	]
		.filter(Boolean)
		.join(' · ');
}

const NOBODY_YET: CustomerRecord = {
	id: 0,
	kind: 'household',
	name: '',
	email: '',
	address: '',
	terms: null,
	orderNumberRequired: false,
	standings: [],
	billTo: null,
	sites: []
};

/** @throws RowError where its sums do not come out as they stand there */
export function frozenFor(
	world: World,
	db: Reader,
	invoice: OpeningInvoice,
	customerId: number | null,
	jobId: number | null
): FrozenDraft {
	const record = customerId === null ? null : customerRecord(db, customerId);
	const customer = record ?? { ...NOBODY_YET, name: invoice.customer };
	const { kind, standing } = customerOn(customer, invoice.taxPoint);
	const contractor = kind === 'contractor';
	if (contractor && invoice.deduction === null && (standing.cisRate ?? '0') !== '0')
		throw new RowError(
			`${customer.name} deducts ${standing.cisRate} %. Say what it is expected to deduct, or 0.`
		);
	if (invoice.reversed && !contractor)
		throw new RowError('Under the reverse charge the customer is a contractor: set that first.');
	const sheet = openingSheet(invoice, {
		customerId: customer.id,
		contractor,
		cisRate: contractor ? standing.cisRate : null,
		jobId
	});
	const parties = sheetContext(db, sheet, world.clock.today());
	const context = {
		...parties,
		customer,
		// On its invoice it was decided, whatever would be decided now.
		...(sellerOn(parties.seller, invoice.taxPoint).vatRegistered
			? { follows: { reverseCharge: invoice.reversed } }
			: {})
	};
	const done = freezeOpening(sheet, context);
	if (!done) throw new RowError('It has no sums.');
	if (invoice.currency !== BOOKS && !done.frozen.exchange)
		throw new RowError(
			`What ${invoice.currency} was worth on ${displayDate(invoice.taxPoint)} is not known. Add a column “Exchange rate”.`
		);
	refuseDifferences(invoice, done.figures);
	return done;
}

/** A job for what is held back, so that it can be released; in the caller's transaction. */
export function jobFor(
	tx: Transaction,
	world: World,
	{ number, job, retention }: OpeningInvoice,
	customerId: number
): number | null {
	if (retention === 0n && job === '') return null;
	const title = job || `Work of ${number}`;
	const here = tx
		.select({ id: jobs.id })
		.from(jobs)
		.where(and(eq(jobs.customerId, customerId), eq(jobs.title, title)))
		.get();
	if (here) return here.id;
	const form = beginForm.parse({ title, customerId });
	return beginOnce(tx, world, `opening:${number.toLowerCase()}`, form, 'booked').id;
}

/** The customer's id, or a new customer's; in the caller's transaction. */
export function customerFor(
	tx: Transaction,
	world: World,
	name: string,
	known: ReturnType<typeof customersByName>
): number {
	const key = nameOf(name);
	const [first] = known.get(key) ?? [];
	if (first) return first.id;
	const id = addNamed(tx, world, name);
	known.set(key, [{ id, kind: 'household' }]);
	return id;
}

/** What issues it here, with what was paid of it before. */
export function openingIssue(
	world: World,
	{ frozen, figures }: FrozenDraft,
	invoice: OpeningInvoice,
	jobId: number | null,
	movingId: number
): ToIssue {
	const key = `opening:${invoice.number.toLowerCase()}`;
	return {
		frozen,
		figures,
		draftId: null,
		version: 0,
		correctsId: null,
		origin: 'opening',
		key,
		after: (tx, id) => {
			noteMoved(tx, movingId, 'document', id);
			if (jobId !== null && madeHere(tx, jobId, key)) noteMoved(tx, movingId, 'job', jobId);
			const { paid, withheld, paidOn, currency, exchange } = invoice;
			if (paid === 0n && !withheld) return;
			const rate = exchange || frozen.exchange?.rate;
			takePayment(tx, world, {
				key: `paid-before:${id}`,
				documentId: id,
				date: paidOn,
				amount: Number(paid),
				withheld: withheld === null ? null : Number(withheld),
				way: 'bank',
				source: 'opening',
				reference: '',
				fee: 0,
				...(currency === BOOKS ? {} : { sterling: Number(converted(paid, parseDecimal(rate!)!)) }),
				who: 'you'
			});
		}
	};
}

const madeHere = (tx: Transaction, jobId: number, key: string): boolean =>
	tx.select({ key: jobs.key }).from(jobs).where(eq(jobs.id, jobId)).get()?.key === key;
