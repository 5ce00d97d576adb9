// Open invoices out of other books: what a file says of each, with its VAT by rate. An invoice may have a row for each rate.
import type { PlainDate } from '../calendar/types';
import { INVOICE_COLUMNS, type InvoiceField } from './columns';
import { BOOKS, CURRENCIES, type Currency } from '../money/currencies';
import { max } from '../money/decimal';
import { displayMoney } from '../money/display';
import type { Minor } from '../money/types';
import { readRate } from '../sheet/exchange';
import { readDay, readSum, readYes, RowError, within } from './reading';
import { joined, readGroup, type OpeningGroup } from './sums';

/** An invoice as the books before have it; amounts in minor units of its currency. */
export interface OpeningInvoice {
	/** The rows it was read from. */
	lines: number[];
	number: string;
	customer: string;
	issued: PlainDate;
	/** Null: by the customer's terms. */
	due: PlainDate | null;
	taxPoint: PlainDate;
	groups: OpeningGroup[];
	net: Minor;
	vat: Minor;
	/** With what VAT was charged. */
	total: Minor;
	reversed: boolean;
	/** Null: not said. */
	returned: boolean | null;
	paid: Minor;
	paidOn: PlainDate;
	/** What was withheld from what was paid; null: worked out. */
	withheld: Minor | null;
	/** Null: not said. */
	deduction: Minor | null;
	/** Without VAT: its tax point is its release. */
	retention: Minor;
	retentionDue: PlainDate | null;
	description: string;
	job: string;
	order: string;
	reference: string;
	currency: Currency;
	/** Pounds for one of it; empty: as the table says. */
	exchange: string;
	/** It asked for money before any work was done. */
	deposit?: true;
}

type Row = { line: number; values: Record<InvoiceField, string> };

export interface ReadInvoice {
	line: number;
	name: string;
	invoice: OpeningInvoice | null;
	/** Why it is left out. */
	why: string;
}

/**
 * What the rows say, invoice by invoice, in the order of the file.
 * @param registered whether the seller was registered for VAT on a day
 */
export function readOpeningInvoices(
	rows: readonly Row[],
	today: PlainDate,
	registered: (day: PlainDate) => boolean
): ReadInvoice[] {
	const groups = new Map<string, Row[]>();
	for (const row of rows) {
		const number = row.values.number.toLowerCase();
		// Without a number nothing belongs to it.
		const key = number === '' ? `line ${row.line}` : number;
		groups.set(key, [...(groups.get(key) ?? []), row]);
	}
	return [...groups.values()].map((own) => {
		const { line, values } = own[0]!;
		try {
			return { line, name: values.number, invoice: readOne(own, today, registered), why: '' };
		} catch (error) {
			if (error instanceof RowError)
				return { line, name: values.number, invoice: null, why: error.message };
			throw error;
		}
	});
}

/** What an invoice has once, however many rows it has. */
const ONCE: readonly InvoiceField[] = [
	'customer',
	'issued',
	'due',
	'taxPoint',
	'reversed',
	'returned',
	'currency',
	'exchange',
	'paidOn',
	'retentionDue',
	'job',
	'order',
	'reference'
];
/** Sums of the whole invoice: on one of its rows, or the same on each. */
const WHOLE: readonly InvoiceField[] = ['open', 'paid', 'withheld', 'deduction', 'retention'];

function once(rows: readonly Row[], field: InvoiceField): string {
	const said = [...new Set(rows.map(({ values }) => values[field]).filter(Boolean))];
	if (said.length > 1) {
		const { label } = INVOICE_COLUMNS.find((one) => one.field === field)!;
		throw new RowError(
			`Its rows differ in “${label}”: ${said[0]!.slice(0, 40)} and ${said[1]!.slice(0, 40)}.`
		);
	}
	return said[0] ?? '';
}

function readOne(
	rows: readonly Row[],
	today: PlainDate,
	registered: (day: PlainDate) => boolean
): OpeningInvoice {
	const { values: first } = rows[0]!;
	const own = Object.fromEntries(
		[...ONCE, ...WHOLE].map((field) => [field, once(rows, field)])
	) as Record<InvoiceField, string>;
	if (first.number === '') throw new RowError('It has no number.');
	if (own.customer === '') throw new RowError('It names no customer.');
	const issued = readDay(own.issued, 'Issued', today);
	if (issued === null) throw new RowError('It does not say when it was issued.');
	if (issued > today) throw new RowError('It would have been issued in the future.');
	const due = readDay(own.due, 'Due', today);
	if (due !== null && due < issued) throw new RowError('It would be due before it was issued.');
	const taxPoint = readDay(own.taxPoint, 'Tax point', today) ?? issued;
	if (taxPoint > today) throw new RowError('Its tax point would be in the future.');
	const currency = readCurrency(own.currency);
	const exchange = readExchange(own.exchange, currency);
	const reversed = readYes(own.reversed, 'Reverse charge') ?? false;
	const isRegistered = registered(taxPoint);
	const groups = joined(
		rows.map(({ values }) => readGroup(values, taxPoint, isRegistered, reversed))
	);
	const net = groups.reduce((sum, group) => sum + group.net, 0n);
	const vat = groups.reduce((sum, group) => sum + group.vat, 0n);
	const total = reversed ? net : net + vat;
	if (total === 0n) throw new RowError('It comes to nothing.');
	const retention = readSum(own.retention, 'Retention') ?? 0n;
	const deduction = readSum(own.deduction, 'Expected deduction');
	if (currency !== BOOKS && (retention > 0n || deduction))
		throw new RowError('What is held back or deducted is in pounds alone.');
	if (deduction !== null && deduction > net)
		throw new RowError('More would be deducted than it comes to without VAT.');
	const withheld = readSum(own.withheld, 'Withheld');
	if (withheld !== null && withheld > (deduction ?? 0n))
		throw new RowError('More was withheld than is expected to be deducted.');
	const paid = readPaid(own, total, withheld ?? 0n, currency);
	const paidOn = readDay(own.paidOn, 'Paid on', today) ?? issued;
	if (paidOn > today) throw new RowError('It would have been paid in the future.');
	// Without a word of what was withheld, it was withheld with what was paid.
	const asked = withheld === null ? total - (deduction ?? 0n) : total - withheld;
	if (paid > asked)
		throw new RowError('More was paid than it comes to: bring in what is over as money held.');
	const isPaid = paid === asked;
	if (isPaid && retention === 0n)
		throw new RowError('It is paid. Only what stands open is brought in.');
	return {
		lines: rows.map(({ line }) => line),
		number: within(first.number, 'Its number', 60),
		customer: within(own.customer, 'The customer’s name', 300),
		issued,
		due,
		taxPoint,
		groups,
		net,
		vat: reversed ? 0n : vat,
		total,
		reversed,
		returned: readYes(own.returned, 'VAT returned'),
		paid,
		paidOn,
		withheld,
		deduction,
		retention,
		retentionDue: readDay(own.retentionDue, 'Retention due', today),
		description: within(
			[...new Set(rows.map(({ values }) => values.description).filter(Boolean))].join('; '),
			'Its description',
			2_000
		),
		job: within(own.job, 'The job’s title', 200),
		order: within(own.order, 'Its order number', 200),
		reference: within(own.reference, 'Its reference', 200),
		currency,
		exchange
	};
}

function readPaid(
	own: Record<InvoiceField, string>,
	total: Minor,
	withheld: Minor,
	currency: Currency
): Minor {
	const typed = readSum(own.paid, 'Paid');
	const open = readSum(own.open, 'Still open');
	if (open !== null && open > total)
		throw new RowError(
			`More is open than it comes to: ${displayMoney(open, currency)} of ${displayMoney(total, currency)}.`
		);
	const paid = typed ?? (open === null ? 0n : max(total - open - withheld, 0n));
	if (typed !== null && open !== null && total - typed - withheld !== open)
		throw new RowError(
			`What was paid leaves ${displayMoney(total - typed - withheld, currency)} open, not ${displayMoney(open, currency)}.`
		);
	return paid;
}

function readCurrency(cell: string): Currency {
	const word = cell.toUpperCase();
	if (word === '' || word === '£') return BOOKS;
	const known = CURRENCIES.find((one) => one === (word === '€' ? 'EUR' : word));
	if (!known) throw new RowError(`“${cell.slice(0, 20)}” is no currency that is known here.`);
	return known;
}

function readExchange(cell: string, currency: Currency): string {
	if (currency === BOOKS || cell === '') return '';
	const read = readRate(cell);
	if ('wrong' in read) throw new RowError(`Exchange rate: ${read.wrong}`);
	return read.rate;
}
