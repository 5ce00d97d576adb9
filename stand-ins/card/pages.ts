// The hosted payment page of the card stand-in, and what its cards do.
import { amountInPounds, escape, page } from '../page';

interface Shown {
	id: string;
	amount: number;
	description: string;
	return_url: string;
}

/** Numbers of no scheme (they begin with 9): what each of them does is what it is for. */
export const CARDS = [
	{ number: '9000000000000001', does: 'pay', label: 'pays at once' },
	{ number: '9000000000000002', does: 'decline', label: 'is declined' },
	{ number: '9000000000000003', does: 'code', label: 'asks for a code (246810)' },
	{ number: '9000000000000004', does: 'late', label: 'settles a little later' },
	{
		number: '9000000000000005',
		does: 'pay',
		label: 'pays at once; kept, every second charge of it is declined'
	},
	{
		number: '9000000000000006',
		does: 'commercial',
		label: 'pays at once; a firm’s commercial card'
	}
] as const;

/** 1.4 % and 20p, in pence, rounded up at the half. */
export function feeOf(amount: number): number {
	return Math.min(Math.floor((amount * 14 + 500) / 1000) + 20, amount);
}

export function cardPage(checkout: Shown, error: string): string {
	const cards = CARDS.map(
		(card) => `<li><code>${card.number.replace(/(\d{4})(?=\d)/g, '$1 ')}</code> ${card.label}</li>`
	).join('');
	return page(
		'Pay by card',
		`<div>${escape(checkout.description)}</div><h1>${amountInPounds(checkout.amount)}</h1>
${error ? `<p class="error" role="alert">${escape(error)}</p>` : ''}
<form method="post" action="/pay/${checkout.id}"><label for="number">Card number</label><input id="number" name="number" inputmode="numeric" autocomplete="off" required>
<button>Pay ${amountInPounds(checkout.amount)}</button></form><p><a href="${escape(checkout.return_url)}">Go back without paying</a></p>
<p>This is a stand-in: no card is charged. It knows these cards:</p><ul>${cards}</ul>`
	);
}

export function codePage(checkout: Shown, error: string): string {
	return page(
		'Confirm the payment',
		`<div>${escape(checkout.description)}</div><h1>${amountInPounds(checkout.amount)}</h1>
${error ? `<p class="error" role="alert">${escape(error)}</p>` : ''}
<form method="post" action="/pay/${checkout.id}/code"><label for="code">Code from your bank (246810)</label><input id="code" name="code" inputmode="numeric" autocomplete="off" required><button>Confirm</button></form>`
	);
}

/** A commercial card bears its fee where the seller asks for that; the payer is told before. */
export function feePage(checkout: Shown, fee: number): string {
	return page(
		'A card fee is added',
		`<div>${escape(checkout.description)}</div><h1>${amountInPounds(checkout.amount + fee)}</h1>
<p>This is a firm’s commercial card: its fee of ${amountInPounds(fee)} is added to ${amountInPounds(checkout.amount)}.</p>
<form method="post" action="/pay/${checkout.id}/fee"><button>Pay ${amountInPounds(checkout.amount + fee)}</button></form><p><a href="/pay/${checkout.id}">Use another card</a></p>`
	);
}

/** What a card's holder can do about a payment that is done: tell the bank that it was not right; and, in its place, decide that. */
export function paidPage(checkout: Shown, disputed: string | null): string {
	const press = (step: string, label: string) =>
		`<form method="post" action="/pay/${checkout.id}/${step}"><button>${label}</button></form>`;
	return page(
		'Pay by card',
		`<h1>${amountInPounds(checkout.amount)} has been paid already.</h1><p><a href="${escape(checkout.return_url)}">Back to the invoice</a></p>
${
	disputed === null
		? `<p>As the card’s holder you can tell your bank that this payment was not right.</p>${press('dispute', 'Dispute it')}`
		: disputed === 'open'
			? `<p>It is disputed. In place of the bank:</p>${press('won', 'Decide for the seller')}${press('lost', 'Decide for the card’s holder')}`
			: `<p>The dispute has ended.</p>`
}`
	);
}

export function donePage(text: string, back: string): string {
	return page(
		'Pay by card',
		`<h1>${escape(text)}</h1>${back ? `<p><a href="${escape(back)}">Back to the invoice</a></p>` : ''}`
	);
}
