// What the messages about a document say, before the owner changes a word.
import { displayDate } from '../calendar/conversion';
import { displayPounds } from '../money/display';
import { withinSentence } from '../words';
import type { StatementView } from './statementView';
import type { Frozen } from './types';

export interface Message {
	subject: string;
	text: string;
}

/** People are greeted by name; a firm's name is no person's. */
const hello = ({ customer }: Frozen): string =>
	customer.kind === 'household' ? `Hello ${customer.name}` : 'Hello';

const sellerName = ({ seller }: Frozen) => seller.tradingName || seller.ownerName;

/** The line that holds the link, wherever the owner moves it. */
export const LINK_PLACEHOLDER = '{link}';

/** @param left what of it is still to pay, where something has been paid or credited since */
export function documentMessage(
	frozen: Frozen,
	number: string,
	payable: bigint,
	left: bigint = payable
): Message {
	const name = sellerName(frozen);
	const { orderNumber } = frozen.sheet;
	const order = orderNumber.trim() ? `, your order ${orderNumber.trim()}` : '';
	if (frozen.kind === 'creditNote') {
		return {
			subject: `Credit note ${number} from ${name}`,
			text: `${hello(frozen)}\n\nHere is credit note ${number} for ${displayPounds(payable)}, which corrects invoice ${frozen.corrects?.number}.\n\nSee it here: ${LINK_PLACEHOLDER}\n\nKind regards\n${frozen.seller.ownerName}`
		};
	}
	const what = frozen.sheet.about?.as === 'debit' ? 'Debit note' : 'Invoice';
	const instead =
		frozen.about?.as === 'replacement'
			? ` It stands in place of ${frozen.about.number}, which the credit note that goes with it takes back: ${frozen.about.reason}.`
			: frozen.about
				? ` It adds to ${frozen.about.number}: ${frozen.about.reason}.`
				: '';
	const [head, sum] =
		left <= 0n
			? ['settled', 'It is settled: nothing is left to pay.']
			: left === payable
				? [
						`${displayPounds(payable)}, due ${displayDate(frozen.dueDate)}`,
						`${displayPounds(payable)} is due by ${displayDate(frozen.dueDate)}.`
					]
				: [
						`${displayPounds(left)} still to pay`,
						`Of its ${displayPounds(payable)}, ${displayPounds(left)} is still to pay; it is due by ${displayDate(frozen.dueDate)}.`
					];
	return {
		subject: `${what} ${number} from ${name}: ${head}`,
		text: `${hello(frozen)}\n\nHere is ${withinSentence(what)} ${number}${order}.${instead} ${sum}\n\nSee it${left > 0n ? ' and pay' : ''} here: ${LINK_PLACEHOLDER}\n\nThe PDF is attached.\n\nKind regards\n${frozen.seller.ownerName}\n${name === frozen.seller.ownerName ? '' : name}`.trimEnd()
	};
}

/** What a text about it says. */
export function documentText(
	frozen: Frozen,
	number: string,
	payable: bigint,
	left: bigint = payable
): string {
	const what = frozen.kind === 'creditNote' ? 'Credit note' : 'Invoice';
	if (frozen.kind !== 'creditNote' && left !== payable)
		return `${what} ${number} from ${sellerName(frozen)}: ${left > 0n ? `${displayPounds(left)} still to pay` : 'settled'}. ${LINK_PLACEHOLDER}`;
	const due = frozen.kind === 'creditNote' ? '' : `, due ${displayDate(frozen.dueDate)}`;
	return `${what} ${number} from ${sellerName(frozen)}: ${displayPounds(payable)}${due}. ${LINK_PLACEHOLDER}`;
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

export function receiptMessage(
	frozen: Frozen,
	number: string,
	paid: bigint,
	left: bigint
): Message {
	const rest =
		left > 0n ? `${displayPounds(left)} is still open.` : 'The invoice is paid in full. Thank you.';
	return {
		subject: `Receipt: ${displayPounds(paid)} for invoice ${number}`,
		text: `${hello(frozen)}\n\nWe received ${displayPounds(paid)} for invoice ${number}. ${rest}\n\nSee it here: ${LINK_PLACEHOLDER}\n\nKind regards\n${frozen.seller.ownerName}`
	};
}

export function paidNotice(
	frozen: Frozen,
	number: string,
	paid: bigint,
	fee: bigint,
	left: bigint,
	way: 'card' | 'bank' = 'card'
): Message {
	const rest = left > 0n ? `${displayPounds(left)} is still open.` : 'It is paid in full.';
	const kept = way === 'card' ? `\n\nThe card fee is ${displayPounds(fee)}.` : '';
	return {
		subject: `${frozen.customer.name} paid ${displayPounds(paid)}`,
		text: `${frozen.customer.name} paid ${displayPounds(paid)} ${way === 'card' ? 'by card' : 'from their bank'} for invoice ${number}. ${rest}${kept}\n\nSee it here: ${LINK_PLACEHOLDER}`
	};
}

/** To the customer, when a kept card could not be charged: the invoice is an ordinary open one from now on. */
export function chargeFailedMessage(frozen: Frozen, number: string, payable: bigint): Message {
	return {
		subject: `Invoice ${number}: your card could not be charged`,
		text: `${hello(frozen)}\n\nYour card could not be charged for invoice ${number}. ${displayPounds(payable)} is still open, due ${displayDate(frozen.dueDate)}.\n\nPlease pay it here, with another card if you like: ${LINK_PLACEHOLDER}\n\nThe PDF is attached.\n\nKind regards\n${frozen.seller.ownerName}`
	};
}

export function statementMessage(view: StatementView, ownerName: string): Message {
	const open = view.bank !== null;
	const pay = open
		? `${view.toPay} is to pay. See it, and pay all or some of it, here: ${LINK_PLACEHOLDER}`
		: `Nothing is to pay. See it here: ${LINK_PLACEHOLDER}`;
	const asOf = view.facts.find((fact) => fact.label === 'As of')?.value ?? '';
	return {
		subject: `Statement from ${view.seller.name} as of ${asOf}`,
		text: `Hello\n\nHere is your statement as of ${asOf}. ${pay}\n\nIf you have paid in the last days, thank you: it may not show yet.\n\nThe PDF is attached.\n\nKind regards\n${ownerName}`
	};
}

/** To the payer and to the owner, when one payment settled several invoices. */
export function accountReceipt(
	seller: string,
	numbers: readonly string[],
	paid: bigint,
	left: bigint
): Message {
	const rest = left > 0n ? `${displayPounds(left)} is still open.` : 'Nothing else is open.';
	return {
		subject: `Receipt: ${displayPounds(paid)} to ${seller}`,
		text: `Hello\n\nWe received ${displayPounds(paid)}${numbers.length ? ` for ${numbers.join(', ')}` : ''}. ${rest}\n\nSee it here: ${LINK_PLACEHOLDER}\n\nKind regards\n${seller}`
	};
}
