// What the messages about a document say: the owner's words, or the standard ones, with what is known of the document.
import { displayDate } from '../calendar/conversion';
import type { Currency } from '../money/currencies';
import { displayMoney } from '../money/display';
import { fillWords, LINK_PLACEHOLDER, type Values, type Words } from '../wordings/fill';
import { greetingOf, PLAIN_VOICE, wordsOf, type Voice } from '../wordings/kinds';
import { withinSentence } from '../words';
import type { StatementView } from './statementView';
import type { Frozen, SellerFacts } from './types';

export { LINK_PLACEHOLDER };
export type Message = Words;

export const nameOf = (seller: Pick<SellerFacts, 'tradingName' | 'ownerName'>) =>
	seller.tradingName || seller.ownerName;

/** Who it comes from, in every message. */
export function sender(seller: Pick<SellerFacts, 'tradingName' | 'ownerName' | 'phone'>): Values {
	const from = nameOf(seller);
	return {
		owner: seller.ownerName,
		from,
		business: from === seller.ownerName ? '' : from,
		phone: seller.phone,
		link: LINK_PLACEHOLDER
	};
}

/** What the fields of a message about a document become. `left`: what of it is still to pay. */
export function documentValues(
	frozen: Frozen,
	number: string,
	payable: bigint,
	left: bigint,
	voice: Voice
): Values {
	const { kind, seller, customer, sheet, about, corrects } = frozen;
	const credit = kind === 'creditNote';
	const order = sheet.orderNumber.trim();
	const due = displayDate(frozen.dueDate);
	const open = !credit && left > 0n;
	const money = (amount: bigint) => displayMoney(amount, sheet.currency);
	return {
		...sender(seller),
		// An agent who gets the bill is not its customer.
		greeting: greetingOf(voice, customer.kind === 'household' && !customer.billTo, customer.name),
		customer: customer.name,
		document: withinSentence(
			credit ? 'Credit note' : sheet.about?.as === 'debit' ? 'Debit note' : 'Invoice'
		),
		number,
		order: order ? `, your order ${order}` : '',
		site: customer.sites.find(({ id }) => id === sheet.siteId)?.name ?? '',
		due: credit ? '' : due,
		amount: money(payable),
		left: money(open ? left : 0n),
		short: credit
			? money(payable)
			: !open
				? 'settled'
				: left === payable
					? `${money(payable)}, due ${due}`
					: `${money(left)} still to pay`,
		sum: credit
			? ''
			: !open
				? 'It is settled: nothing is left to pay.'
				: left === payable
					? `${money(payable)} is due by ${due}.`
					: `Of its ${money(payable)}, ${money(left)} is still to pay; it is due by ${due}.`,
		why:
			about?.as === 'replacement'
				? `It stands in place of ${about.number}, which the credit note that goes with it takes back: ${about.reason}.`
				: about
					? `It adds to ${about.number}: ${about.reason}.`
					: '',
		pay: open ? 'and pay' : '',
		corrects: corrects?.number ?? ''
	};
}

/** @param left what of it is still to pay, where something has been paid or credited since */
export function documentMessage(
	frozen: Frozen,
	number: string,
	payable: bigint,
	left: bigint = payable,
	voice: Voice = PLAIN_VOICE
): Message {
	return fillWords(
		wordsOf(voice, frozen.kind),
		documentValues(frozen, number, payable, left, voice)
	);
}

/** What a text about it says. */
export function documentText(
	frozen: Frozen,
	number: string,
	payable: bigint,
	left: bigint = payable,
	voice: Voice = PLAIN_VOICE
): string {
	return fillWords(wordsOf(voice, 'text'), documentValues(frozen, number, payable, left, voice))
		.text;
}

/** What fits into a text in its 7-bit alphabet (3GPP TS 23.038); those of the second row take two places. */
const ONE = /^[@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !"#¤%&'()*+,\-./0-9:;<=>?¡A-ZÄÖÑÜ§¿a-zäöñüà]$/;
const TWO = /^[\f^{}\\[~\]|€]$/;

/** Into how many parts a text goes: 160 places in one, 153 in each of several; 70 and 67 in any other alphabet. */
export function textParts(text: string): number {
	let places = 0;
	let wide = false;
	for (const letter of text) {
		if (ONE.test(letter)) places += 1;
		else if (TWO.test(letter)) places += 2;
		else wide = true;
	}
	if (wide) places = text.length;
	const [single, each] = wide ? [70, 67] : [160, 153];
	return places <= single ? Math.max(1, Math.ceil(places / single)) : Math.ceil(places / each);
}

/** Of a receipt: who paid, how much, for which documents, and what stays open of what. */
export interface Receipt {
	seller: Pick<SellerFacts, 'tradingName' | 'ownerName' | 'phone'>;
	/** Null where it is not known who paid. */
	customer: { name: string; household: boolean } | null;
	paid: bigint;
	numbers: readonly string[];
	left: bigint;
	/** It paid one invoice, and nothing else is meant. */
	one: boolean;
	/** There is something to look at. */
	linked: boolean;
	/** Of both amounts; absent: pounds. */
	currency?: Currency | undefined;
}

/** Numbers that are still read one by one. */
const FEW = 3;

export function receiptValues(receipt: Receipt, voice: Voice): Values {
	const { seller, customer, paid, numbers, left, one, linked, currency } = receipt;
	return {
		...sender(seller),
		greeting: customer
			? greetingOf(voice, customer.household, customer.name)
			: voice.salutation || 'Hello',
		customer: customer?.name ?? '',
		paid: displayMoney(paid, currency),
		what: one
			? `for invoice ${numbers[0]}`
			: numbers.length === 0
				? 'on account'
				: numbers.length <= FEW
					? `for ${numbers.join(', ')}`
					: `for ${numbers.length} invoices`,
		rest:
			left > 0n
				? `${displayMoney(left, currency)} is still open.`
				: one
					? 'The invoice is paid in full. Thank you.'
					: 'Nothing else is open.',
		link: linked ? LINK_PLACEHOLDER : ''
	};
}

export const receiptMessage = (receipt: Receipt, voice: Voice = PLAIN_VOICE): Message =>
	fillWords(wordsOf(voice, 'receipt'), receiptValues(receipt, voice));

/** The receipt of a payment of one frozen invoice. */
export const receiptOf = (
	{ seller, customer, sheet }: Frozen,
	number: string,
	paid: bigint,
	left: bigint
): Receipt => ({
	seller,
	customer: { name: customer.name, household: customer.kind === 'household' },
	paid,
	numbers: [number],
	left,
	one: true,
	linked: true,
	currency: sheet.currency
});

export function paidNotice(
	frozen: Frozen,
	number: string,
	paid: bigint,
	fee: bigint,
	left: bigint,
	way: 'card' | 'bank' = 'card'
): Message {
	const money = (amount: bigint) => displayMoney(amount, frozen.sheet.currency);
	const rest = left > 0n ? `${money(left)} is still open.` : 'It is paid in full.';
	const kept = way === 'card' ? `\n\nThe card fee is ${displayMoney(fee)}.` : '';
	return {
		subject: `${frozen.customer.name} paid ${money(paid)}`,
		text: `${frozen.customer.name} paid ${money(paid)} ${way === 'card' ? 'by card' : 'from their bank'} for invoice ${number}. ${rest}${kept}\n\nSee it here: ${LINK_PLACEHOLDER}`
	};
}

/** To the customer, when a kept card could not be charged: the invoice is an ordinary open one from now on. */
export const chargeFailedMessage = (
	frozen: Frozen,
	number: string,
	payable: bigint,
	voice: Voice = PLAIN_VOICE
): Message =>
	fillWords(
		wordsOf(voice, 'chargeFailed'),
		documentValues(frozen, number, payable, payable, voice)
	);

export function statementValues(
	view: StatementView,
	seller: Pick<SellerFacts, 'tradingName' | 'ownerName' | 'phone'>,
	payer: { name: string; household: boolean },
	voice: Voice
): Values {
	const open = view.bank !== null;
	return {
		...sender(seller),
		greeting: voice.salutation || (payer.household ? `Hello ${payer.name}` : 'Hello'),
		customer: payer.name,
		asof: view.facts.find((fact) => fact.label === 'As of')?.value ?? '',
		amount: view.toPay,
		sum: open ? `${view.toPay} is to pay.` : 'Nothing is to pay.',
		pay: open ? ', and pay all or some of it,' : ''
	};
}

export const statementMessage = (
	view: StatementView,
	seller: Pick<SellerFacts, 'tradingName' | 'ownerName' | 'phone'>,
	payer: { name: string; household: boolean },
	voice: Voice = PLAIN_VOICE
): Message => fillWords(wordsOf(voice, 'statement'), statementValues(view, seller, payer, voice));
