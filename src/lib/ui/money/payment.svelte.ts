// A payment form on a public page: a key for its press, and the wait for the word of the processor after coming back.
import { onMount } from 'svelte';
import { invalidateAll } from '$app/navigation';
import { pressKey } from '../parts/keys';

/** `cameBack`: from the processor's page. `settled`: nothing is left to wait for. `patience`: seconds. */
export function publicPayment(cameBack: () => boolean, settled: () => boolean, patience: number) {
	let key = $state('');
	let part = $state(false);
	let waited = $state(0);
	onMount(() => {
		key = pressKey();
		const timer = setInterval(() => {
			if (!cameBack() || settled() || waited >= patience) return clearInterval(timer);
			waited++;
			void invalidateAll();
		}, 1000);
		return () => clearInterval(timer);
	});
	return {
		get key() {
			return key;
		},
		get waited() {
			return waited;
		},
		/** Another amount than the whole. */
		get part() {
			return part;
		},
		set part(value: boolean) {
			part = value;
		}
	};
}
