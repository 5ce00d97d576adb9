// The hosted payment page of the card stand-in, and what its cards do.

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
	}
] as const;

/** 1.4 % and 20p, in pence, rounded up at the half. */
export function feeOf(amount: number): number {
	return Math.min(Math.floor((amount * 14 + 500) / 1000) + 20, amount);
}

export function amountInPounds(pence: number): string {
	return `£${Math.floor(pence / 100).toLocaleString('en-GB')}.${String(pence % 100).padStart(2, '0')}`;
}

function escape(text: string): string {
	return text
		.replaceAll('&', '&amp;')
		.replaceAll('<', '&lt;')
		.replaceAll('>', '&gt;')
		.replaceAll('"', '&quot;');
}

function page(title: string, body: string): string {
	return `<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escape(title)}</title>
<style>body{font:17px/1.5 system-ui;margin:0;background:#e9eef0;color:#182126}main{max-width:26rem;margin:3rem auto;background:#fff;padding:1.5rem 1.75rem;border-radius:10px}
h1{font-size:1.7rem;margin:.2rem 0 1rem}label{display:block;font-weight:600}input{font:inherit;width:100%;box-sizing:border-box;padding:.7rem;border:1px solid #6b7a82;border-radius:6px;margin:.3rem 0 1rem}
button{font:inherit;font-weight:600;width:100%;padding:.8rem;border:0;border-radius:6px;background:#182126;color:#fff}.error{color:#8d1f12;font-weight:600}ul{padding-left:1.1rem;color:#47555c;font-size:.92rem}</style>
<main>${body}</main></html>`;
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

export function donePage(text: string, back: string): string {
	return page(
		'Pay by card',
		`<h1>${escape(text)}</h1>${back ? `<p><a href="${escape(back)}">Back to the invoice</a></p>` : ''}`
	);
}
