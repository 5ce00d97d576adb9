// Money held for customers, as other books have it: deposits and credit, with the deposit invoice where there was one.
import type { PlainDate } from '../calendar/types';
import type { Column } from '../formats/table';
import { CUSTOMER, RETURNED, INVOICE_COLUMNS, type InvoiceField } from './columns';
import type { Minor } from '../money/types';
import { readOpeningInvoices, type OpeningInvoice } from './invoices';
import { readDay, readSum, readYes, RowError, within } from './reading';

export const DEPOSIT_COLUMNS = [
	CUSTOMER,
	{
		field: 'amount',
		label: 'Amount',
		names: ['amount', 'deposit', 'credit', 'held', 'balance', 'total'],
		required: true
	},
	{
		field: 'date',
		label: 'Date',
		names: ['date', 'received', 'received on', 'paid on', 'day'],
		required: true
	},
	{
		field: 'number',
		label: 'Deposit invoice',
		names: ['deposit invoice', 'invoice number', 'invoice', 'number']
	},
	RETURNED,
	{ field: 'rate', label: 'VAT rate', names: ['vat rate', 'tax rate', 'rate of vat'] },
	{ field: 'vat', label: 'VAT', names: ['vat', 'vat amount', 'tax'] },
	{
		field: 'reference',
		label: 'Reference',
		names: ['reference', 'ref', 'description', 'for', 'what', 'details']
	}
] as const satisfies readonly Column<string>[];
export type DepositField = (typeof DEPOSIT_COLUMNS)[number]['field'];

export interface HeldMoney {
	line: number;
	customer: string;
	amount: Minor;
	date: PlainDate;
	reference: string;
	/** The deposit invoice it paid; null: none was written. */
	invoice: OpeningInvoice | null;
}

export interface ReadHeld {
	line: number;
	name: string;
	held: HeldMoney | null;
	why: string;
}

type Row = { line: number; values: Record<DepositField, string> };

const NOTHING = Object.fromEntries(INVOICE_COLUMNS.map(({ field }) => [field, ''])) as Record<
	InvoiceField,
	string
>;

/** What the rows say, in the order of the file. */
export function readHeldMoney(
	rows: readonly Row[],
	today: PlainDate,
	registered: (day: PlainDate) => boolean
): ReadHeld[] {
	return rows.map(({ line, values }) => {
		const name = values.customer || `line ${line}`;
		try {
			return { line, name, held: readOne({ line, values }, today, registered), why: '' };
		} catch (error) {
			if (error instanceof RowError) return { line, name, held: null, why: error.message };
			throw error;
		}
	});
}

function readOne(
	{ line, values }: Row,
	today: PlainDate,
	registered: (day: PlainDate) => boolean
): HeldMoney {
	if (values.customer === '') throw new RowError('It names no customer.');
	const amount = readSum(values.amount, 'Amount');
	if (!amount) throw new RowError('It has no amount.');
	const date = readDay(values.date, 'Date', today);
	if (date === null) throw new RowError('It does not say when the money came.');
	if (date > today) throw new RowError('It would have come in the future.');
	const held = {
		line,
		customer: within(values.customer, 'The customer’s name', 300),
		amount,
		date,
		reference: within(values.reference, 'Its reference', 200)
	};
	if (values.number === '') {
		if (registered(date) && readYes(values.returned, 'VAT returned'))
			throw new RowError(
				'Its VAT stands in a return: give the number of the deposit invoice, and the VAT in it.'
			);
		return { ...held, invoice: null };
	}
	const [read] = readOpeningInvoices(
		[
			{
				line,
				values: {
					...NOTHING,
					number: values.number,
					customer: values.customer,
					issued: date,
					returned: values.returned,
					rate: values.rate,
					vat: values.vat,
					total: values.amount,
					reference: values.reference,
					description: values.reference || 'Deposit'
				}
			}
		],
		today,
		registered
	);
	if (!read?.invoice) throw new RowError(read?.why ?? 'It could not be read.');
	return { ...held, invoice: { ...read.invoice, paid: read.invoice.total, deposit: true } };
}
