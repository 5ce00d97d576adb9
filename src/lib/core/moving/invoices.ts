// Open invoices out of other books: what a file says of each, with its VAT by rate. An invoice may have a row for each rate.
import { displayDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import type { Column } from '../formats/table';
import { CUSTOMER, RETURNED } from './columns';
import { BOOKS, CURRENCIES, type Currency } from '../money/currencies';
import { absolute, formatDecimal, max, percentOf, taxWithin } from '../money/decimal';
import { displayMoney } from '../money/display';
import type { Minor } from '../money/types';
import { rateOn } from '../regimes/gb/rates';
import type { VatTreatment } from '../regimes/types';
import { readRate } from '../sheet/exchange';
import { readDay, readSum, readYes, RowError, within } from './reading';

export const INVOICE_COLUMNS = [
	{
		field: 'number',
		label: 'Number',
		names: ['number', 'invoice number', 'invoice no', 'invoice', 'no', 'document number'],
		required: true
	},
	CUSTOMER,
	{
		field: 'issued',
		label: 'Issued',
		names: ['issued', 'issue date', 'invoice date', 'date', 'dated'],
		required: true
	},
	{ field: 'due', label: 'Due', names: ['due', 'due date', 'due on', 'pay by'] },
	{ field: 'taxPoint', label: 'Tax point', names: ['tax point', 'supply date', 'date of supply'] },
	{ field: 'reversed', label: 'Reverse charge', names: ['reverse charge', 'drc', 'reverse'] },
	RETURNED,
	{ field: 'rate', label: 'VAT rate', names: ['vat rate', 'tax rate', 'rate of vat', 'vat code'] },
	{ field: 'vat', label: 'VAT', names: ['vat', 'vat amount', 'tax', 'tax amount'] },
	{
		field: 'net',
		label: 'Net',
		names: ['net', 'net amount', 'subtotal', 'sub total', 'amount without vat', 'excl vat']
	},
	{
		field: 'open',
		label: 'Still open',
		names: ['still open', 'open', 'outstanding', 'balance', 'balance due', 'amount due', 'owed']
	},
	{ field: 'paidOn', label: 'Paid on', names: ['paid on', 'date paid', 'payment date'] },
	{
		field: 'paid',
		label: 'Paid',
		names: ['paid', 'paid so far', 'amount paid', 'payments', 'received']
	},
	{
		field: 'withheld',
		label: 'Withheld',
		names: ['withheld', 'cis withheld', 'deducted so far', 'cis suffered']
	},
	{
		field: 'deduction',
		label: 'Expected deduction',
		names: ['expected deduction', 'cis deduction', 'deduction', 'cis']
	},
	{
		field: 'retentionDue',
		label: 'Retention due',
		names: ['retention due', 'retention date', 'release date']
	},
	{ field: 'retention', label: 'Retention', names: ['retention', 'retention held', 'held back'] },
	{
		field: 'total',
		label: 'Total',
		names: ['total', 'gross', 'total amount', 'invoice total', 'amount', 'incl vat']
	},
	{
		field: 'description',
		label: 'Description',
		names: ['description', 'details', 'what', 'work', 'subject']
	},
	{ field: 'job', label: 'Job', names: ['job', 'job title', 'project'] },
	{ field: 'order', label: 'Order number', names: ['order number', 'po', 'po number', 'order'] },
	{ field: 'reference', label: 'Reference', names: ['reference', 'ref', 'your reference'] },
	{ field: 'currency', label: 'Currency', names: ['currency', 'currency code'] },
	{
		field: 'exchange',
		label: 'Exchange rate',
		names: ['exchange rate', 'rate to gbp', 'fx rate']
	}
] as const satisfies readonly Column<string>[];
export type InvoiceField = (typeof INVOICE_COLUMNS)[number]['field'];

export interface OpeningGroup {
	treatment: VatTreatment;
	/** What was charged then, without VAT and without what was held back. */
	net: Minor;
	vat: Minor;
}

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
	const groups = joined(rows.map((row) => readGroup(row, taxPoint, isRegistered, reversed)));
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

const TREATMENTS: readonly (readonly [VatTreatment, RegExp])[] = [
	['exempt', /exempt/],
	['outside', /outside|out of scope|no vat/],
	['reduced', /reduced/],
	['zero', /zero/],
	['standard', /standard|full/]
];

/** Pence by which other books round VAT otherwise: by line, or down. */
const ROUNDING = 100n;

/** A row's part of an invoice at one rate. @throws RowError */
function readGroup(
	{ values }: Row,
	day: PlainDate,
	registered: boolean,
	reversed: boolean
): OpeningGroup {
	const said = {
		net: readSum(values.net, 'Net'),
		vat: readSum(values.vat, 'VAT'),
		total: readSum(values.total, 'Total')
	};
	if (!registered) {
		if (said.vat)
			throw new RowError(
				`It has VAT, and by your settings you were not registered on ${displayDate(day)}.`
			);
		const net = said.net ?? said.total;
		if (net === null) throw new RowError('It has no sum.');
		refuseOther(net, said.total);
		return { treatment: 'standard', net, vat: 0n };
	}
	const named = treatmentOf(values.rate, day);
	const { net, vat } = sumsOf(said, named, day, reversed);
	refuseOther(reversed ? net : net + vat, said.total);
	const treatment = named ?? guessed(net, vat, day);
	if (!treatment)
		throw new RowError(
			`VAT of ${displayMoney(vat)} on ${displayMoney(net)} is at no rate that was in force. Where it has several, give each a row.`
		);
	const rate = rateOn(treatment, day);
	const worked = rate ? percentOf(net, rate.rate) : 0n;
	// Under the reverse charge the customer accounts for it, and nothing was charged.
	if (reversed) return { treatment, net, vat: worked };
	if (absolute(worked - vat) > (rate && rate.rate.units > 0n ? ROUNDING : 0n))
		throw new RowError(
			`VAT ${rate ? `at ${formatDecimal(rate.rate)} % ` : ''}on ${displayMoney(net)} is ${displayMoney(worked)}, not ${displayMoney(vat)}.`
		);
	return { treatment, net, vat };
}

function refuseOther(worked: Minor, total: Minor | null): void {
	if (total !== null && total !== worked)
		throw new RowError(
			`Net and VAT come to ${displayMoney(worked)}, and the total says ${displayMoney(total)}.`
		);
}

/** By name or by percentage; null where nothing is said. @throws RowError */
export function treatmentOf(cell: string, day: PlainDate): VatTreatment | null {
	const word = cell.toLowerCase();
	if (word === '') return null;
	const named = TREATMENTS.find(([, pattern]) => pattern.test(word));
	if (named) return named[0];
	const percent = /(\d+(?:\.\d+)?)\s*%?/.exec(word)?.[1];
	const found = (['standard', 'reduced', 'zero'] as const).find((treatment) => {
		const dated = rateOn(treatment, day);
		return dated && percent !== undefined && Number(percent) === Number(formatDecimal(dated.rate));
	});
	if (found) return found;
	throw new RowError(`“${cell.slice(0, 20)}” is no rate of VAT on ${displayDate(day)}.`);
}

function sumsOf(
	said: { net: Minor | null; vat: Minor | null; total: Minor | null },
	named: VatTreatment | null,
	day: PlainDate,
	reversed: boolean
): { net: Minor; vat: Minor } {
	const rate = named === null ? null : rateOn(named, day);
	const known = named !== null;
	if (said.net !== null) {
		if (said.vat !== null) return { net: said.net, vat: said.vat };
		if (reversed) return { net: said.net, vat: 0n };
		if (said.total !== null) return { net: said.net, vat: max(said.total - said.net, 0n) };
		if (known) return { net: said.net, vat: rate ? percentOf(said.net, rate.rate) : 0n };
		throw new RowError('It does not say its VAT, nor the rate.');
	}
	if (said.total === null) throw new RowError('It has no sum.');
	if (reversed) return { net: said.total, vat: 0n };
	if (said.vat !== null) return { net: max(said.total - said.vat, 0n), vat: said.vat };
	if (!known) throw new RowError('It does not say its VAT, nor the rate.');
	const vat = rate ? taxWithin(said.total, rate.rate) : 0n;
	return { net: said.total - vat, vat };
}

/** The rate at which a sum has this VAT. */
function guessed(net: Minor, vat: Minor, day: PlainDate): VatTreatment | null {
	if (vat === 0n) return 'zero';
	const near = (treatment: VatTreatment) => {
		const dated = rateOn(treatment, day);
		if (!dated) return false;
		const worked = percentOf(net, dated.rate);
		return absolute(worked - vat) <= max(2n, net / 1000n);
	};
	return near('standard') ? 'standard' : near('reduced') ? 'reduced' : null;
}

/** Rows of one rate are one group. */
function joined(groups: readonly OpeningGroup[]): OpeningGroup[] {
	const found = new Map<VatTreatment, OpeningGroup>();
	for (const { treatment, net, vat } of groups) {
		const so = found.get(treatment) ?? { treatment, net: 0n, vat: 0n };
		found.set(treatment, { treatment, net: so.net + net, vat: so.vat + vat });
	}
	return [...found.values()];
}
