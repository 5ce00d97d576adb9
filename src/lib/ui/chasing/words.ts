// Words for channels, tones and reasons, the same wherever they are shown.
import type { Channel, HeldBecause, Tone } from '$lib/core/chasing/types';

export const CHANNEL_WORDS: Record<Channel, string> = {
	mail: 'e-mail',
	text: 'text message',
	letter: 'letter'
};
export const TONE_WORDS: Record<Tone, string> = {
	kind: 'kind',
	plain: 'plain',
	firm: 'firm',
	last: 'last letter'
};
export const HELD_WORDS: Record<HeldBecause, string> = {
	breathingSpace: 'in breathing space',
	disputed: 'disputed',
	promised: 'promised',
	customerOnHold: 'the customer is on hold',
	notSent: 'the invoice was never sent',
	paymentPending: 'a payment is on its way',
	bankLineWaiting: 'a bank line seems to pay it',
	paidJustNow: 'something was paid just now',
	writtenJustNow: 'they were written to just now'
};

/** `3 days before due`, `on the day`, `10 days after due`. */
export function offsetInWords(offset: number): string {
	if (offset === 0) return 'on the due day';
	const days = `${Math.abs(offset)} ${Math.abs(offset) === 1 ? 'day' : 'days'}`;
	return offset < 0 ? `${days} before due` : `${days} after due`;
}
