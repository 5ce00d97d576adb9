// A payment form on a public page: a key for its press, and the wait for the word of the processor after coming back.
import { onMount } from 'svelte';
import { invalidateAll } from '$app/navigation';
import { pressKey } from '../parts/keys';

/** So many seconds somebody is asked to wait for the word; it is listened for longer. */
const ASKED = 20;
const LISTENING = 300;

export interface Came {
	/** Where the payer comes back from: `card`, `bank`, or nowhere. */
	from: string;
	/** The last try to pay online. */
	last: { way: 'card' | 'bank'; state: 'open' | 'pending' | 'settled' | 'declined' } | null;
}

export function publicPayment(came: () => Came) {
	let key = $state('');
	let waited = $state(0);
	/** What may still be said of the payment somebody has just come back from. */
	const unsaid = () => came().from !== '' && /open|pending/.test(came().last?.state ?? '');
	onMount(() => {
		key = pressKey();
		const timer = setInterval(() => {
			if (!unsaid() || waited >= LISTENING) return clearInterval(timer);
			waited++;
			void invalidateAll();
		}, 1000);
		return () => clearInterval(timer);
	});
	return {
		get key() {
			return key;
		},
		/** The word may come any moment: nobody should pay twice meanwhile. */
		get confirming() {
			return unsaid() && came().last?.state === 'open' && waited < ASKED;
		},
		/** It has not come for a while. */
		get silent() {
			return unsaid() && came().last?.state === 'open' && waited >= ASKED;
		},
		/** It has come, and the money with it. */
		get arrived() {
			return came().from !== '' && came().last?.state === 'settled';
		},
		get failed() {
			const { last } = came();
			return last?.way === 'bank' && last.state === 'declined';
		}
	};
}
