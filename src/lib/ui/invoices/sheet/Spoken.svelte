<!-- What happens on the sheet, for who does not see it: said once, after the typing has paused. -->
<script lang="ts">
	import { displayMoney } from '$lib/core/money/display';
	import type { Draft } from '../../lines/draft.svelte';
	import type { Autosave } from './autosave.svelte';

	let { draft, save }: { draft: Draft; save: Autosave } = $props();
	const PAUSE_MS = 1500;
	let said = $state('');
	let payable = $derived(draft.reading.figures?.payable ?? null);
	/** What was last told of each. */
	let toldSum: bigint | null | undefined;
	let toldSaved = false;

	// A move is told at once, and what it came to with it.
	$effect(() => {
		if (draft.done) said = draft.done;
	});
	$effect(() => {
		const sum = payable;
		const { state } = save;
		if (toldSum === undefined) toldSum = sum;
		if (state !== 'saved') {
			if (state !== 'typing' && state !== 'saving') toldSaved = false;
			return;
		}
		const timer = setTimeout(() => {
			const words = [
				...(toldSaved ? [] : ['Saved.']),
				...(sum !== toldSum && sum !== null
					? [`They pay you ${displayMoney(sum, draft.currency)}.`]
					: [])
			];
			toldSaved = true;
			toldSum = sum;
			if (words.length) said = words.join(' ');
		}, PAUSE_MS);
		return () => clearTimeout(timer);
	});
</script>

<p class="sr-only" role="status">{said}</p>
