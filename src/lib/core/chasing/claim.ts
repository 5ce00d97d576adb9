// The letter before court. To an individual or a sole trader it is the letter of claim that the Pre-Action Protocol for Debt
// Claims asks for: what is owed and why, what is still added, how it is paid or talked about, and thirty days, with an
// information sheet, a reply form and a statement of means enclosed. To a company it is a letter before action: fourteen days.
import { displayDate } from '../calendar/conversion';
import { addDays } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';
import { displayPounds } from '../money/display';
import type { Minor } from '../money/types';

export const DEBTORS = ['individual', 'firm'] as const;
export type Debtor = (typeof DEBTORS)[number];

/** Days to answer, from the date at the top of the letter (protocol para 3.4; for firms, the Practice Direction on conduct, para 6). */
export const DAYS_TO_ANSWER: Record<Debtor, number> = { individual: 30, firm: 14 };

export interface ClaimedInvoice {
	number: string;
	issued: PlainDate;
	due: PlainDate;
	/** The site or the reference: what it was for, in a word or two. */
	about: string;
	/** Still to pay. */
	open: Minor;
	/** Interest and fixed sums to the day of the letter that no document charges yet. */
	added: Minor;
	/** What each further day adds; zero: nothing. */
	daily: Minor;
}

export interface ClaimFacts {
	debtor: Debtor;
	customer: string;
	today: PlainDate;
	invoices: readonly ClaimedInvoice[];
	/** How the work was agreed, in the owner's words. */
	agreed: string;
	owner: string;
	business: string;
	/** In lines. */
	address: readonly string[];
	phone: string;
	email: string;
	/** Where a transfer goes, within a sentence; empty: none is known. */
	bank: string;
	/** Of the charge for lateness: the Act, or the agreed terms; empty: nothing is added. */
	ground: string;
}

export const claimDeadline = ({ debtor, today }: Pick<ClaimFacts, 'debtor' | 'today'>): PlainDate =>
	addDays(today, DAYS_TO_ANSWER[debtor]);

const sumOf = (facts: ClaimFacts, of: (one: ClaimedInvoice) => Minor): Minor =>
	facts.invoices.reduce((sum, one) => sum + of(one), 0n);

export const claimSum = (facts: ClaimFacts): Minor =>
	sumOf(facts, ({ open, added }) => open + added);

export function claimLetter(facts: ClaimFacts): { subject: string; text: string } {
	const { debtor, customer, invoices, agreed, ground } = facts;
	const added = sumOf(facts, (one) => one.added);
	const daily = sumOf(facts, (one) => one.daily);
	const deadline = displayDate(claimDeadline(facts));
	const individual = debtor === 'individual';
	const name = facts.business || facts.owner;
	const reach = [facts.phone, facts.email].filter(Boolean).join(' or ');
	const paragraphs = [
		`Dear ${customer},`,
		`You owe ${name} ${displayPounds(claimSum(facts))}. This is ${individual ? 'our letter of claim under the Pre-Action Protocol for Debt Claims' : 'our letter before action'}: please read it, and answer by ${deadline}.`,
		`What you owe:\n${invoices.map(lineOf).join('\n')}`,
		agreed.trim(),
		added > 0n
			? `${displayPounds(added)} of it is interest and compensation to today (${ground}).${daily > 0n ? ` ${displayPounds(daily)} is added for each further day.` : ''}`
			: individual
				? 'No interest and no other charge is added.'
				: '',
		facts.bank
			? `Please pay ${displayPounds(claimSum(facts))} by bank transfer to ${facts.bank}, with the invoice number as the reference.`
			: '',
		`If you cannot pay it all at once, or think that something is wrong, talk to us${reach ? `: ${reach}` : ''}. We will gladly agree how and when you pay.`,
		individual
			? `With this letter come an information sheet, a reply form and a statement of means. Send the form to ${[name, ...facts.address].join(', ')}. You can ask us for a copy of what was agreed and of each invoice, and you can get free advice; the sheet says where.`
			: '',
		individual
			? `If we have heard nothing by ${deadline}, thirty days from the date at the top, we may begin a claim at the county court without writing again. That adds its fees to what you owe.`
			: `If it is not paid by ${deadline}, fourteen days from today, we may begin a claim at the county court without writing again. That adds its fees and further interest.`,
		`Yours sincerely\n${[facts.owner, facts.business !== facts.owner ? facts.business : ''].filter(Boolean).join('\n')}`
	];
	return {
		subject: individual
			? `Letter of claim: ${displayPounds(claimSum(facts))}`
			: `Letter before action: ${displayPounds(claimSum(facts))}`,
		text: paragraphs.filter(Boolean).join('\n\n')
	};
}

function lineOf({ number, issued, due, about, open, added }: ClaimedInvoice): string {
	const more = added > 0n ? `, and ${displayPounds(added)} for its lateness` : '';
	return `Invoice ${number} of ${displayDate(issued)}${about ? `, ${about}` : ''}, due ${displayDate(due)}: ${displayPounds(open)}${more}`;
}

/** What is enclosed, page by page: a heading, then words, boxes to tick and lines to write on. */
export interface Enclosure {
	title: string;
	parts: readonly (
		{ head: string } | { words: string } | { tick: string } | { line: string; rows?: number }
	)[];
}

/** Nothing for a firm. The forms follow annexes 1 and 2 of the protocol. */
export function enclosuresOf(
	facts: Pick<ClaimFacts, 'debtor' | 'customer' | 'today' | 'owner' | 'business' | 'address'> & {
		sum: Minor;
	}
): Enclosure[] {
	if (facts.debtor !== 'individual') return [];
	const name = facts.business || facts.owner;
	const deadline = displayDate(claimDeadline(facts));
	return [
		{
			title: 'Information sheet',
			parts: [
				{
					words: `${name} says that you owe ${displayPounds(facts.sum)}. Before anybody goes to court, the Pre-Action Protocol for Debt Claims asks both of you to try to settle it. This sheet says what you can do.`
				},
				{ head: 'Do not ignore it' },
				{
					words: `Fill in the reply form and send it back by ${deadline}. If you do not, a claim may be begun at court, and a judgment against you may make it harder to borrow.`
				},
				{ head: 'You agree that you owe it' },
				{
					words:
						'Pay it, or say on the form what you can pay and when. Fill in the statement of means as well, so that your offer can be understood. If an offer is refused you must be told why, in writing.'
				},
				{ head: 'You do not agree, or are not sure' },
				{
					words:
						'Say so on the form and say why. You can ask for documents: what was agreed, the invoices, how the sum was worked out. They must be sent, or it must be said why they cannot be, within thirty days, and no claim is begun in that time.'
				},
				{ head: 'You need advice' },
				{
					words:
						'Advice on debt is free. Say on the form that you are seeking it, and you are given reasonable time, thirty days at least. Look for a free debt advice service near you, a Citizens Advice office, a law centre, or a solicitor; MoneyHelper, which the government set up, lists them.'
				},
				{ head: 'If you cannot agree' },
				{
					words:
						'Both of you should think about another way to settle it than a court, such as mediation. If you answered, fourteen days’ notice is given before a claim is begun.'
				},
				{ head: 'If you are in breathing space' },
				{
					words:
						'An adviser can apply for sixty days in which no interest, fee or demand is added. Tell us at once if you have it.'
				}
			]
		},
		{
			title: 'Reply form',
			parts: [
				{ words: `To ${[name, ...facts.address].join(', ')}. Please send it back by ${deadline}.` },
				{ line: 'Your name' },
				{ line: 'Your address', rows: 2 },
				{ line: 'How we reach you (telephone, e-mail)' },
				{ head: '1 Do you owe the debt?' },
				{ tick: 'I agree that I owe all of it.' },
				{ tick: 'I agree that I owe some of it: £' },
				{ tick: 'I do not agree that I owe it.' },
				{ tick: 'I do not know whether I owe it.' },
				{ line: 'Because', rows: 3 },
				{ head: '2 How will you pay?' },
				{ tick: 'I pay it now.' },
				{ tick: 'I will pay it on this day:' },
				{ tick: 'I need time to pay. I can pay each week / each month: £' },
				{ tick: 'I cannot pay at the moment.' },
				{ head: '3 Advice' },
				{ tick: 'I am getting advice, or will get it, from:' },
				{ tick: 'I need more time for that, until:' },
				{ head: '4 Documents' },
				{ tick: 'I need these documents or this information:' },
				{ line: 'They are', rows: 2 },
				{ tick: 'I enclose these documents:' },
				{ line: 'They are', rows: 2 },
				{ line: 'Signed, and the date' }
			]
		},
		{
			title: 'Statement of means',
			parts: [
				{
					words:
						'Fill this in if you need time to pay. Each amount: for a week or for a month; say which.'
				},
				{ head: 'You and who lives with you' },
				{ line: 'Adults and children in your home' },
				{ line: 'Your work, and for whom' },
				{ head: 'What comes in' },
				{ line: 'Wages, after tax' },
				{ line: 'Self-employment' },
				{ line: 'Benefits and tax credits' },
				{ line: 'Pensions' },
				{ line: 'Anything else' },
				{ head: 'What goes out' },
				{ line: 'Rent or mortgage' },
				{ line: 'Council tax' },
				{ line: 'Gas, electricity, water' },
				{ line: 'Food and household' },
				{ line: 'Travel' },
				{ line: 'Children and care' },
				{ line: 'Anything else' },
				{ head: 'Other debts, and what you own' },
				{ line: 'To whom, how much, what you pay', rows: 3 },
				{ line: 'Savings', rows: 1 }
			]
		}
	];
}
