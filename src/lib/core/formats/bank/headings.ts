// What the columns of a bank's CSV file are called, and what stands in those that say the direction or the state. Over 300 lines: a list of words.
import type { Column } from '../table';
import type { DateOrder, DecimalSign } from './line';

export type BankField =
	| 'date'
	| 'amount'
	| 'in'
	| 'out'
	| 'direction'
	| 'payer'
	| 'reference'
	| 'text'
	| 'more'
	| 'state'
	| 'currency'
	| 'fee'
	| 'account';

/** Which column is what, as it is shown, changed and remembered. */
export type CsvLayout = Partial<Record<BankField, number>> & {
	/** How its dates are written. */
	dates?: DateOrder;
	/** What stands before the pence. */
	decimal?: DecimalSign;
	/** Its first line is no heading. */
	headless?: boolean;
};

/** What a cell of a column for the direction says: 1 came in, -1 went out. */
const IN = new Set([
	'cr',
	'c',
	'credit',
	'crdt',
	'in',
	'money in',
	'paid in',
	'incoming',
	'received',
	'h',
	'+',
	'credited',
	'deposit'
]);
const OUT = new Set([
	'dr',
	'd',
	'debit',
	'dbit',
	'out',
	'money out',
	'paid out',
	'outgoing',
	'sent',
	's',
	'-',
	'debited',
	'withdrawal'
]);
export function directionOf(cell: string): 1 | -1 | null {
	const word = cell.trim().toLowerCase().replace(/\.$/, '');
	return IN.has(word) ? 1 : OUT.has(word) ? -1 : null;
}

/** What a cell of a column for the state says. */
export function stateOf(cell: string): 'booked' | 'pending' | 'void' | null {
	const word = cell.trim().toLowerCase();
	if (
		/pending|processing|in progress|authori[sz]|uncleared|scheduled|on hold|awaiting|created|pdng|futr/.test(
			word
		)
	)
		return 'pending';
	if (
		/revert|declin|fail|cancel|reject|refus|revers|void|return|expire|refund|unpaid|deleted|blocked|^not /.test(
			word
		)
	)
		return 'void';
	if (
		/complete|\bbook(ed)?\b|posted|settled|cleared|executed|success|paid|done|processed|received|sent|approved|final|^ok$/.test(
			word
		)
	)
		return 'booked';
	return null;
}

const OTHERS =
	'payee|payer|counter ?party|beneficiary|recipient|sender|other|debtor|creditor|their|merchant';

/** In the order in which they take their columns. */
export const BANK_COLUMNS: (Column<BankField> & { label: string })[] = [
	{
		field: 'date',
		label: 'Date',
		names: [
			'completed date',
			'date completed',
			'completed on',
			'completed',
			'booking date',
			'booked on',
			'booked',
			'posting date',
			'posted date',
			'posted on',
			'date posted',
			'transaction date',
			'date of transaction',
			'entry date',
			'buchungstag',
			'datum',
			'date',
			'value date'
		],
		alone: ['posted', 'when', 'day'],
		not: /start|creat|initiat|due|order|birth|expir|request|authori|statement|from|until|until|updated/
	},
	{
		field: 'direction',
		label: 'In or out',
		names: [
			'dr cr',
			'cr dr',
			'debit credit',
			'credit debit',
			'credit or debit',
			'debit or credit',
			'dr or cr',
			'cr or dr',
			'in out',
			'in or out',
			'direction',
			'credit debit indicator',
			'cdtdbtind',
			'debit credit indicator',
			'soll haben'
		],
		alone: ['d c', 'c d', 'sign', 'indicator', 'dc', 'drcr', 'crdr', 's h'],
		not: /amount|limit/
	},
	{
		field: 'currency',
		label: 'Currency',
		names: ['currency', 'currency code', 'ccy', 'account currency', 'transaction currency', 'curr'],
		not: /original|foreign|local|exchange|rate|target|fee|converted|counter/
	},
	{
		field: 'state',
		label: 'State',
		names: [
			'transaction status',
			'transaction state',
			'payment status',
			'status',
			'booking status'
		],
		alone: ['state']
	},
	{
		field: 'fee',
		label: 'Fee',
		names: [
			'fee',
			'fees',
			'transaction fee',
			'bank charge',
			'bank charges',
			'commission',
			'charges'
		],
		alone: ['charge'],
		not: /currency|type|refund|description/
	},
	{
		field: 'in',
		label: 'Money in',
		names: [
			'money in',
			'paid in',
			'credit amount',
			'amount credited',
			'credit',
			'credits',
			'deposits',
			'deposit',
			'received',
			'receipts',
			'lodgement',
			'lodgements',
			'haben'
		],
		alone: ['in', 'amount in', 'cr', 'in gbp'],
		not: /date|balance|interest|type|card|limit|indicator|reference|name/
	},
	{
		field: 'out',
		label: 'Money out',
		names: [
			'money out',
			'paid out',
			'debit amount',
			'amount debited',
			'debit',
			'debits',
			'withdrawals',
			'withdrawal',
			'spent',
			'payments out',
			'soll'
		],
		alone: ['out', 'amount out', 'dr', 'out gbp'],
		not: /date|balance|interest|type|card|limit|indicator|reference|name|direct/
	},
	{
		field: 'amount',
		label: 'Amount',
		names: [
			'amount gbp',
			'amount in gbp',
			'gbp',
			'amount',
			'transaction amount',
			'net amount',
			'gross',
			'gross amount',
			'value',
			'betrag',
			'total'
		],
		alone: ['sum', 'net', 'money'],
		not: /date|balance|fee|charge|original|foreign|local|instructed|exchange|rate|vat|tax|count|number|type|currency|code/
	},
	{
		field: 'account',
		label: 'Your account',
		names: [
			'account number',
			'account no',
			'iban',
			'account',
			'account id',
			'account name',
			'account holder',
			'account owner',
			'own account'
		],
		not: new RegExp(`${OTHERS}|\\bto\\b|from|type|currency|balance|status`)
	},
	{
		field: 'payer',
		label: 'Who paid, or was paid',
		names: [
			'payer',
			'payer name',
			'paid by',
			'counterparty name',
			'counter party name',
			'counterparty',
			'counter party',
			'name of counterparty',
			'sender name',
			'sender',
			'debtor name',
			'debtor',
			'payee name',
			'payee',
			'beneficiary name',
			'beneficiary',
			'recipient name',
			'recipient',
			'merchant name',
			'merchant',
			'other party',
			'customer name',
			'customer',
			'name'
		],
		alone: ['from', 'who', 'to', 'party'],
		not: /^(your |my |own |the )?account( name| holder| owner)?$|holder|owner|bank name|\b(iban|bic|number|no|date|id|type|sort code|country|e ?mail|city|address|reference|category)\b/
	},
	{
		field: 'text',
		label: 'Text',
		names: [
			'transaction description',
			'description',
			'narrative',
			'narration',
			'particulars',
			'transaction details',
			'details',
			'text',
			'memo',
			'remittance information',
			'purpose',
			'verwendungszweck',
			'information',
			'message'
		],
		not: /date|amount|number|code/
	},
	{
		field: 'reference',
		label: 'Their reference',
		names: [
			'payment reference',
			'customer reference',
			'payer reference',
			'your reference',
			'end to end id',
			'end to end',
			'reference',
			'transaction reference',
			'bank reference'
		],
		alone: ['ref', 'reference number'],
		not: /date|type|amount/
	},
	{
		field: 'more',
		label: 'More text',
		names: [
			'memo',
			'notes',
			'note',
			'further details',
			'additional information',
			'additional details',
			'description',
			'details',
			'narrative',
			'text',
			'message',
			'information',
			'transaction type',
			'payment type',
			'comment'
		],
		alone: ['type', 'extra', 'method'],
		not: /date|amount|number|code/
	}
];
