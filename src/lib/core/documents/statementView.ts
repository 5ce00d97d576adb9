// A statement as its page and its PDF show it.
import { AGE_NAMES } from '../words';
import { displayDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import { BOOKS, unitOf, type Currency } from '../money/currencies';
import { displayAmount, displayMoney } from '../money/display';
import type { Minor } from '../money/types';
import { AGES, canBeSettled, type Statement, type StatementItem } from '../settlement/statement';
import type { BankAccount, SellerFacts } from './types';

export interface StatementOptions {
	style: 'openItems' | 'activity';
	asOf: PlainDate;
	/** Activity only. */
	from: PlainDate | null;
	ageing: 'dueDate' | 'issueDate';
	/** With the lines of each invoice. */
	withLines: boolean;
	/** What is in this money, and nothing else; absent: pounds. */
	currency?: Currency | undefined;
}

/** An item of an account with what a reader knows it by. */
export interface AccountEntry extends StatementItem {
	/** `Invoice INV-7`, `Payment, bank transfer`. */
	what: string;
	documentId: number | null;
	/** What the payer may still deduct from it. Pence. */
	leftToDeduct: Minor;
}

export interface StatementView {
	kind: 'statement';
	title: string;
	seller: { name: string; lines: string[] };
	payer: string[];
	facts: { label: string; value: string }[];
	/** What the last two columns are. */
	columns: [string, string];
	opening: string | null;
	rows: {
		date: string;
		what: string;
		due: string;
		amount: string;
		left: string;
		details: string[];
		documentId: number | null;
	}[];
	balance: string;
	/** What is to be paid, in words. */
	toPay: string;
	ages: { label: string; amount: string }[];
	notes: string[];
	bank: (BankAccount & { reference: string }) | null;
}

export function viewStatement(
	result: Statement,
	entries: ReadonlyMap<string, AccountEntry>,
	options: StatementOptions,
	seller: SellerFacts,
	payer: { name: string; address: string },
	detailsOf: (documentId: number) => string[],
	/** Into which account a transfer goes; null where the invoices name different ones, or want none. */
	account: BankAccount | null,
	/** What the payer holds back of it until later: in no invoice yet, and in no balance. */
	retained: readonly { number: string; amount: Minor }[] = []
): StatementView {
	const name = seller.tradingName || seller.ownerName;
	const unit = unitOf(options.currency);
	const money = (amount: Minor) => displayMoney(amount, options.currency ?? BOOKS);
	const activity = options.style === 'activity';
	const deducts = result.rows.reduce((sum, { item, left }) => {
		const entry = entries.get(item.id);
		return !activity && left > 0n && entry ? sum + entry.leftToDeduct : sum;
	}, 0n);
	return {
		kind: 'statement',
		title: 'Statement',
		seller: {
			name,
			lines: [
				...(name === seller.ownerName ? [] : [seller.ownerName]),
				...seller.address.split('\n'),
				seller.phone,
				seller.email
			].filter(Boolean)
		},
		payer: [payer.name, ...payer.address.split('\n')].filter(Boolean),
		facts: [
			{ label: 'As of', value: displayDate(options.asOf) },
			...(activity && options.from ? [{ label: 'From', value: displayDate(options.from) }] : []),
			{ label: 'Balance', value: money(result.balance) }
		],
		columns: activity
			? [`Amount, ${unit}`, `Balance, ${unit}`]
			: [`Amount, ${unit}`, `Open, ${unit}`],
		opening: result.opening === null ? null : displayAmount(result.opening),
		rows: result.rows.map(({ item, amount, left }) => {
			const entry = entries.get(item.id);
			return {
				date: displayDate(item.date),
				what: entry?.what ?? item.id,
				due: canBeSettled(item.type) && item.due ? displayDate(item.due) : '',
				amount: displayAmount(amount),
				left: displayAmount(left),
				details:
					options.withLines && item.type === 'invoice' && entry?.documentId
						? detailsOf(entry.documentId)
						: [],
				documentId: entry?.documentId ?? null
			};
		}),
		balance: displayAmount(result.balance),
		toPay:
			result.balance > 0n
				? money(result.balance - deducts)
				: result.balance < 0n
					? `Nothing: ${money(-result.balance)} is in your favour`
					: 'Nothing',
		ages: [
			...AGES.map((age) => ({ label: AGE_NAMES[age], amount: displayAmount(result.ageing[age]) })),
			...(result.ageing.unapplied === 0n
				? []
				: [{ label: 'Not yet applied', amount: displayAmount(result.ageing.unapplied) }])
		],
		notes: [
			...(deducts > 0n
				? [
						`${money(deducts)} of the balance is the CIS deduction you are expected to make; ${money(result.balance - deducts)} is left to pay.`
					]
				: []),
			...(retained.length
				? [
						`Not due, and not in the balance: ${money(retained.reduce((sum, { amount }) => sum + amount, 0n))} of retention that you hold on ${[...new Set(retained.map(({ number }) => number))].join(', ')}. It is invoiced when it is released.`
					]
				: [])
		],
		bank:
			account && result.balance > 0n ? { ...account, reference: bankReference(payer.name) } : null
	};
}

/** A bank transfer's reference has 18 characters; it ends with a whole word where one fits. */
export function bankReference(name: string): string {
	if (name.length <= 18) return name;
	const cut = name.slice(0, 19);
	const space = cut.lastIndexOf(' ');
	return (space > 6 ? cut.slice(0, space) : cut.slice(0, 18)).trim();
}
