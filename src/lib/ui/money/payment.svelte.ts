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
	/** The last word is not said of what somebody has just come back from: after a declined card another may have paid. */
	const tried = () => {
		const { from, last } = came();
		if (from === '' || !last) return '';
		return last.way === 'card' && last.state === 'declined' ? 'open' : last.state;
	};
	const unsaid = () => /open|pending/.test(tried());
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
			return tried() === 'open' && waited < ASKED;
		},
		/** It has not come for a while. */
		get silent() {
			return tried() === 'open' && waited >= ASKED;
		},
		/** It has come, and the money with it. */
		get arrived() {
			return tried() === 'settled';
		},
		get failed() {
			const { last } = came();
			return last?.way === 'bank' && last.state === 'declined';
		}
	};
}
