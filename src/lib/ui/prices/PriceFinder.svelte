<!-- Finds an entry of the price list by a few letters of any of its words. -->
<script lang="ts">
	import { onBasis, ratesOn } from '$lib/core/sheet/priceBasis';
	import type { SheetLine } from '$lib/core/sheet/types';
	import Finder from '../parts/Finder.svelte';
	import { findOnPriceList, priceWords, type FoundEntry } from './find';

	interface Props {
		label: string;
		placeholder?: string;
		/** Whether prices here include VAT: those that are otherwise on the list are converted. Absent: as on the list. */
		includes?: boolean | undefined;
		today?: string;
		/** The lines the entry makes: one, or those of a kit. */
		onchoose: (lines: SheetLine[], name: string) => void;
	}
	let {
		label,
		placeholder = 'Find on the price list',
		includes,
		today = '',
		onchoose
	}: Props = $props();
	const settled = (line: SheetLine) =>
		includes === undefined ? line : onBasis(line, includes, ratesOn(today, true));
	let typed = $state('');
	let found = $state<(FoundEntry & { key: string; title: string })[]>([]);
	let asked = 0;

	async function search(words: string) {
		const turn = ++asked;
		const answer = words.trim() === '' ? [] : await findOnPriceList(words);
		if (turn !== asked || answer === null) return;
		found = answer.map((one) => ({ ...one, key: String(one.id), title: one.name }));
	}
</script>

<Finder
	{label}
	quiet
	{placeholder}
	bind:typed
	items={found}
	none="Nothing on the price list fits."
	onsearch={search}
	onchoose={(one) => {
		onchoose(one.lines.map(settled), one.name);
		typed = '';
		found = [];
	}}
>
	{#snippet item(one)}
		<span>{one.name} <span class="mono quiet">{one.code}</span></span>
		<span class="numbers whitespace-nowrap">{priceWords(one)}</span>
	{/snippet}
</Finder>
