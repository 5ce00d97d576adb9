// The tables of the pack for the accountant: each with its columns, explained.
import { sql } from 'drizzle-orm';
import { formatMoney } from '../../../core/money/decimal';
import type { Period } from '../../../core/reports/income';

export interface Table {
	file: string;
	what: string;
	/** Each column with what it holds. */
	columns: readonly [name: string, holds: string][];
	query: ReturnType<typeof sql>;
}

export const pounds = (pence: number): string => formatMoney(BigInt(pence));
export const AMOUNTS = /^(Net|VAT|Reverse|Total|Deduction|Amount|Withheld|Fee|Gross|Materials)/;

export const tablesOf = ({ from, to }: Period): Table[] => [
	{
		file: 'sales.csv',
		what: 'Invoices, by the day they were issued.',
		columns: [
			['Number', 'its number'],
			['Issued', 'invoice date'],
			['Tax point', 'when the supply took place'],
			['Due', 'when it is due'],
			['Customer', 'the customer’s name then'],
			['Kind of work', 'the owner’s own kind'],
			['Net', 'without VAT, £'],
			['VAT charged', 'VAT on it, £'],
			['Reverse charged', 'VAT the customer accounts for, £'],
			['Total', 'what the customer is asked for before any deduction, £'],
			['Deduction expected', 'under CIS, £; empty: none'],
			['Money', 'what the document is in'],
			['Amount in it', 'the total in that money'],
			['Rate', 'pounds for one of it; empty: it is in pounds']
		],
		query: sql`select number, issue_date, tax_point, due_date, customer_name, coalesce(json_extract(frozen, '$.workKind.name'), ''),
			net_sterling, vat_charged_sterling, coalesce(json_extract(frozen, '$.exchange.vatReverseCharged'), vat_reverse_charged), total_sterling, deduction,
			currency, total, json_extract(frozen, '$.exchange.rate')
			from documents where kind = 'invoice' and state = 'issued' and origin <> 'opening' and issue_date between ${from} and ${to} order by id`
	},
	{
		file: 'carried-over.csv',
		what: 'Open invoices that came from other books, up to the end of the period: income of those books, and of these when it is paid.',
		columns: [
			['Number', 'its number'],
			['Issued', 'invoice date'],
			['Tax point', 'when the supply took place'],
			['Customer', 'the customer’s name'],
			['Net', 'without VAT, £'],
			['VAT charged', 'VAT on it, £'],
			['Total', 'what the customer is asked for before any deduction, £'],
			['Deduction expected', 'under CIS, £; empty: none'],
			['VAT returned', 'yes: its VAT stood in a return before']
		],
		query: sql`select number, issue_date, tax_point, customer_name, net_sterling, vat_charged_sterling, total_sterling, deduction,
			case when json_extract(frozen, '$.sheet.opening.returned') then 'yes' else 'no' end
			from documents where kind = 'invoice' and state = 'issued' and origin = 'opening' and issue_date <= ${to} order by id`
	},
	{
		file: 'credits.csv',
		what: 'Credit notes, by the day they were issued; amounts positive.',
		columns: [
			['Number', 'its number'],
			['Issued', 'its date'],
			['Of', 'the invoice it corrects'],
			['Customer', 'the customer’s name then'],
			['Reason', 'why'],
			['Net', 'without VAT, £'],
			['VAT', 'VAT on it, £'],
			['Total', 'what was credited, £']
		],
		query: sql`select d.number, d.issue_date, i.number, d.customer_name, json_extract(d.frozen, '$.corrects.reason'), d.net_sterling, d.vat_charged_sterling, d.total_sterling
			from documents d left join documents i on i.id = d.corrects_id
			where d.kind = 'creditNote' and d.state = 'issued' and d.issue_date between ${from} and ${to} order by d.id`
	},
	{
		file: 'payments.csv',
		what: 'Money that came in, a line for each invoice it is for; what is for none stands by itself.',
		columns: [
			['Date', 'the day it came'],
			['From', 'who paid'],
			['How', 'bank, card, cash, cheque; before: it came into other books'],
			['Reference', 'what was written with it'],
			['For', 'the invoice; empty: in hand'],
			['Amount', 'for that invoice, £: what the bank had of it'],
			['Fee', 'what the card processor kept of the whole payment, £']
		],
		query: sql`select p.date, coalesce(c.name, ''), case p.source when 'opening' then 'before' else p.way end, p.reference, d.number, case when p.currency = 'GBP' then coalesce(a.amount, p.amount) else p.amount_sterling end, p.fee
			from payments p left join allocations a on a.payment_id = p.id left join documents d on d.id = a.document_id
			left join customers c on c.id = p.payer_id
			where p.date between ${from} and ${to} and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
			order by p.date, p.id`
	},
	{
		file: 'deductions.csv',
		what: 'Deductions by contractor and tax month, as their statements say.',
		columns: [
			['Contractor', 'who deducted'],
			['Month to', 'the 5th on which the tax month ends'],
			['Gross', 'paid, without VAT, £'],
			['Materials', 'of it, £'],
			['Deduction', 'withheld, £']
		],
		query: sql`select c.name, s.month_end, s.gross, s.materials, s.deduction from deduction_statements s join customers c on c.id = s.contractor_id
			where s.month_end between ${from} and ${to} order by s.month_end, c.name`
	}
];

export const COST_COLUMNS: readonly [name: string, holds: string][] = [
	['Date', 'its date'],
	['Paid', 'the day it was paid; empty: not yet'],
	['From', 'the supplier'],
	['Number', 'the supplier’s number'],
	['What', 'what it was'],
	['Box', 'of the self-assessment return (SA103F)'],
	['For', 'what that box is called'],
	['Cost centre', 'the owner’s own; empty: none'],
	['Net', 'without VAT, £; a credit is below zero'],
	['VAT', 'on it, £'],
	['Reclaimed', 'the VAT of it that is reclaimed, £'],
	['Counts as cost', 'with the VAT that is not reclaimed, without the private share, £']
];

export const LINE_COLUMNS: readonly [name: string, holds: string][] = [
	['Number', 'of the invoice or credit note'],
	['Issued', 'its date'],
	['Line', 'which of its lines'],
	['What', 'what the line says'],
	['Kind', 'labour, materials, fuel and so on'],
	['Income category', 'the owner’s own; empty: none'],
	['Cost centre', 'the owner’s own; empty: none'],
	[
		'Net',
		'without VAT, £, after discounts and without what is held back; of a credit note below zero'
	],
	['VAT rate', 'how it is taxed']
];
