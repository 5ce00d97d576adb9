<!-- Finds an entry of the price list by a few letters of any of its words. -->
<script lang="ts">
	import { displayAmount } from '$lib/core/money/display';
	import { parseMoney } from '$lib/core/money/decimal';
	import type { SheetLine } from '$lib/core/sheet/types';
	import Finder from '../parts/Finder.svelte';
	import { findOnPriceList, type FoundEntry } from './find';

	interface Props {
		label: string;
		placeholder?: string;
		/** The lines the entry makes: one, or those of a kit. */
		onchoose: (lines: SheetLine[], name: string) => void;
	}
	let { label, placeholder = 'Find on the price list', onchoose }: Props = $props();
	let typed = $state('');
	let found = $state<(FoundEntry & { key: string; title: string })[]>([]);
	let asked = 0;

	async function search(words: string) {
		const turn = ++asked;
		const answer = words.trim() === '' ? [] : await findOnPriceList(words);
		if (turn !== asked || answer === null) return;
		found = answer.map((one) => ({ ...one, key: String(one.id), title: one.name }));
	}
	const amount = (text: string) => displayAmount(parseMoney(text) ?? 0n);
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
		onchoose(one.lines, one.name);
		typed = '';
		found = [];
	}}
>
	{#snippet item(one)}
		<span>{one.name} <span class="mono quiet">{one.code}</span></span>
		<span class="numbers whitespace-nowrap"
			>{amount(one.price)}{one.unit ? ` / ${one.unit}` : ''}</span
		>
	{/snippet}
</Finder>
