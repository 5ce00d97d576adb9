// What reminders say: the wording with merge fields, what the fields become, and what the law lets us write.
import { displayDate } from '../calendar/conversion';
import { addDays } from '../calendar/manipulation';
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { BOOKS, type Currency } from '../money/currencies';
import { displayMoney, displayPounds } from '../money/display';
import type { Minor } from '../money/types';
import { fillWords, type Words } from '../wordings/fill';
import type { ChaseStep } from './types';

/** What may stand in braces, and what it becomes. */
export const MERGE_FIELDS = {
	greeting: 'the customer’s own salutation, or “Hello”',
	customer: 'who it goes to',
	what: '“invoice INV-0007” or “3 invoices”',
	invoices: 'a line for each invoice, with its amount and link',
	amount: 'what is to pay in all',
	due: 'the day the oldest was due',
	late: '“21 days late”, “due today” or “due in 3 days”',
	link: 'the link to see and pay it, or all of them',
	bank: 'your bank details',
	law: 'what the law, or your terms, let you charge; nothing for households without such terms',
	next: 'what comes next if it stays unpaid, as the law has it',
	deadline: 'two weeks from the day it goes out',
	owner: 'your name',
	business: 'your trading name',
	phone: 'your telephone'
} as const;
export type MergeField = keyof typeof MERGE_FIELDS;

export interface ChaseInvoice {
	number: string;
	dueDate: PlainDate;
	/** Less what may be deducted; in its own money. */
	toPay: Minor;
	/** Absent: pounds. */
	currency?: Currency;
	/** What a contractor may yet deduct. */
	leftToDeduct: Minor;
	/** Empty on paper, which has a code to scan. */
	link: string;
}

/** What a late debt may cost its debtor, and what of it was charged already. */
export type LateRight =
	| { kind: 'act'; rate: string | null; claim: Minor | null; charged: Minor }
	| { kind: 'contract'; terms: string; claim: Minor; charged: Minor }
	| { kind: 'none' };

export interface ChaseFacts {
	/** The customer’s own salutation; empty: none. */
	salutation: string;
	customer: string;
	household: boolean;
	today: PlainDate;
	/** The one due first, first; at least one. */
	invoices: readonly ChaseInvoice[];
	/** The page on which several are paid together; empty for one, and on paper. */
	together: string;
	right: LateRight;
	owner: string;
	business: string;
	phone: string;
	/** Empty where none is known. */
	bank: string;
}

const DAYS_TO_ANSWER = 14;

/** A step's words as they go out. */
export const fillWording = (words: Words, facts: ChaseFacts): Words =>
	fillWords(words, valuesOf(facts));

function valuesOf(facts: ChaseFacts): Record<MergeField, string> {
	const { invoices, today } = facts;
	const first = invoices[0]!;
	return {
		greeting: facts.salutation || 'Hello',
		customer: facts.customer,
		what: invoices.length === 1 ? `invoice ${first.number}` : `${invoices.length} invoices`,
		invoices: invoices.map((one) => invoiceLine(one, today)).join('\n'),
		amount: sumInWords(invoices),
		due: displayDate(first.dueDate),
		late: daysInWords(first.dueDate, today),
		link: facts.together || first.link,
		bank: facts.bank,
		law: lawSentence(facts),
		next: nextSentence(facts),
		deadline: displayDate(addDays(today, DAYS_TO_ANSWER)),
		owner: facts.owner,
		business: facts.business === facts.owner ? '' : facts.business,
		phone: facts.phone
	};
}

/** One sum for each money they are in. */
function sumInWords(invoices: readonly ChaseInvoice[]): string {
	const sums = new Map<Currency, Minor>();
	for (const { toPay, currency = BOOKS } of invoices)
		sums.set(currency, (sums.get(currency) ?? 0n) + toPay);
	return [...sums].map(([currency, sum]) => displayMoney(sum, currency)).join(' and ');
}

function invoiceLine(
	{ number, dueDate, toPay, currency, leftToDeduct, link }: ChaseInvoice,
	today: string
) {
	const deducted =
		leftToDeduct > 0n ? ` after your deduction of ${displayPounds(leftToDeduct)}` : '';
	return `${number}: ${displayMoney(toPay, currency)}${deducted}, due ${displayDate(dueDate)} (${daysInWords(dueDate, today)})${link ? `\n${link}` : ''}`;
}

/** `21 days late`, `due today`, `due in 3 days`. */
export function daysInWords(due: PlainDate, today: PlainDate): string {
	const days = daysBetween(due, today);
	if (days === 0) return 'due today';
	const count = `${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}`;
	return days > 0 ? `${count} late` : `due in ${count}`;
}

const chargedSoFar = (charged: Minor): string =>
	charged > 0n ? ` Of that ${displayPounds(charged)} has been charged already.` : '';

/**
 * What may be charged for lateness. Between businesses: Late Payment of Commercial Debts (Interest) Act 1998, ss.1, 5A and
 * 6, unless the contract gives a remedy of its own (s.8). From households only what was agreed.
 */
function lawSentence({ right }: ChaseFacts): string {
	if (right.kind === 'none') return '';
	if (right.kind === 'contract')
		return right.claim > 0n
			? `Under our terms (${right.terms}) we may add ${displayPounds(right.claim)} as of today.${chargedSoFar(right.charged)}`
			: `Under our terms a late payment may cost you more: ${right.terms}.`;
	const rate = right.rate
		? `at ${right.rate} % a year`
		: 'at 8 % a year above the Bank of England base rate';
	const claim = right.claim ? `; as of today that comes to ${displayPounds(right.claim)}` : '';
	return `The Late Payment of Commercial Debts (Interest) Act 1998 lets us charge interest ${rate} and a fixed sum for each late invoice${claim}.${chargedSoFar(right.charged) || ' We have not added it yet.'}`;
}

/**
 * What the last letter may announce. Before a claim against an individual (a sole trader is one) the Pre-Action Protocol
 * for Debt Claims asks for a letter of claim and 30 days to answer it; this letter is none, and says so.
 */
function nextSentence({ household, today }: ChaseFacts): string {
	const deadline = displayDate(addDays(today, DAYS_TO_ANSWER));
	return household
		? `If we hear nothing by ${deadline}, the next step would be a letter of claim under the Pre-Action Protocol for Debt Claims. It would give you 30 days to answer, and say where to get free advice, before anything goes to the county court. This letter is not that one.`
		: `If it is not paid by ${deadline} and you have not told us of a reason, we may begin a claim in the county court, for the debt, what the law lets us add for its lateness, and the costs. If you trade as an individual, a letter of claim under the Pre-Action Protocol for Debt Claims would come first and give you 30 days to answer.`;
}

const END = 'Kind regards\n{owner}\n{business}';

/** A text that has to go on paper says what a letter says. */
export const LETTER_FOR_TEXT: Pick<ChaseStep, 'subject' | 'text'> = {
	subject: 'Still open: {amount}',
	text: `To {customer}\n\n{amount} for {what} is still open: it is {late}.\n\n{invoices}\n\nPlease pay it, or tell us when you will. If something about the work is not as it should be, please say so.\n\n{bank}\n\nYours sincerely\n{owner}\n{business}\n{phone}`
};

/** The plan a new owner begins with. */
export const FIRST_PLAN: { name: string; steps: ChaseStep[] } = {
	name: 'Polite, then plain',
	steps: [
		{
			id: 'first-ahead',
			offset: -3,
			channel: 'mail',
			tone: 'kind',
			subject: 'Due on {due}: {amount}',
			text: `{greeting}\n\nA short note before {what} falls due:\n\n{invoices}\n\nIf it is on its way, thank you, and nothing more is needed.\n\n${END}`,
			byHand: false
		},
		{
			id: 'first-after',
			offset: 3,
			channel: 'mail',
			tone: 'kind',
			subject: 'Still open: {amount}',
			text: `{greeting}\n\nIt may have slipped by: {amount} is still open.\n\n{invoices}\n\nIf something about the work is not as it should be, please tell us.\n\n${END}`,
			byHand: false
		},
		{
			id: 'first-text',
			offset: 10,
			channel: 'text',
			tone: 'plain',
			subject: 'Still open: {amount}',
			text: '{owner} here: {amount} for {what} is open, {late}. See it and pay: {link}',
			byHand: false
		},
		{
			id: 'first-firm',
			offset: 21,
			channel: 'mail',
			tone: 'firm',
			subject: '{amount} is {late}',
			text: `{greeting}\n\n{amount} is {late} now, and we have heard nothing from you.\n\n{invoices}\n\nPlease pay it this week, or tell us when you will.\n\n{law}\n\n{bank}\n\n${END}`,
			byHand: false
		},
		{
			id: 'first-last',
			offset: 42,
			channel: 'letter',
			tone: 'last',
			subject: 'Last letter before further steps: {amount}',
			text: `To {customer}\n\n{amount} is {late}, and earlier reminders brought no answer.\n\n{invoices}\n\nPlease pay by {deadline}.\n\n{law}\n\n{next}\n\n{bank}\n\nYours sincerely\n{owner}\n{business}\n{phone}`,
			byHand: true
		}
	]
};
