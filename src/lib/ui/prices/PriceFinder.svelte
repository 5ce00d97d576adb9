<!-- Finds an entry of the price list by a few letters of any of its words. -->
<script lang="ts">
	import { displayAmount } from '$lib/core/money/display';
	import { parseMoney } from '$lib/core/money/decimal';
	import type { SheetLine } from '$lib/core/sheet/types';

	interface Props {
		label: string;
		placeholder?: string;
		/** The lines the entry makes: one, or those of a kit. */
		onchoose: (lines: SheetLine[], name: string) => void;
	}
	let { label, placeholder = 'Find on the price list', onchoose }: Props = $props();
	interface Found {
		id: number;
		name: string;
		code: string;
		unit: string;
		price: string;
		lines: SheetLine[];
	}
	const id = $props.id();
	let typed = $state('');
	let found = $state<Found[]>([]);
	let at = $state(0);
	let open = $state(false);
	let asked = 0;
	let active = $derived(found[at]);

	async function search() {
		const turn = ++asked;
		const response = await fetch(`/work/prices/api?q=${encodeURIComponent(typed)}`).catch(
			() => null
		);
		if (turn !== asked || !response?.ok) return;
		found = await response.json();
		at = 0;
		open = found.length > 0 || typed.trim() !== '';
	}

	function choose(one: Found | undefined) {
		if (!one) return;
		onchoose(one.lines, one.name);
		typed = '';
		found = [];
		open = false;
	}

	function keys(event: KeyboardEvent) {
		if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
			event.preventDefault();
			at = Math.max(0, Math.min(found.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)));
		} else if (event.key === 'Enter') {
			event.preventDefault();
			choose(found[at]);
		} else if (event.key === 'Escape') open = false;
	}
	const amount = (text: string) => displayAmount(parseMoney(text) ?? 0n);
</script>

<div class="finder">
	<input
		class="box"
		role="combobox"
		aria-label={label}
		aria-expanded={open}
		aria-controls="{id}-list"
		aria-autocomplete="list"
		aria-activedescendant={open && active ? `${id}-${active.id}` : undefined}
		autocomplete="off"
		{placeholder}
		bind:value={typed}
		oninput={() => (typed.trim() ? void search() : (open = false))}
		onkeydown={keys}
		onblur={() => setTimeout(() => (open = false), 150)}
	/>
	<ul id="{id}-list" role="listbox" aria-label="Price list" hidden={!open}>
		{#each found as one, index (one.id)}
			<li
				id="{id}-{one.id}"
				role="option"
				aria-selected={index === at}
				class:on={index === at}
				onpointerdown={(event) => {
					event.preventDefault();
					choose(one);
				}}
			>
				<span>{one.name} <span class="mono quiet">{one.code}</span></span>
				<span class="numbers">{amount(one.price)}{one.unit ? ` / ${one.unit}` : ''}</span>
			</li>
		{:else}
			<li role="option" aria-selected="false" class="quiet">Nothing on the price list fits.</li>
		{/each}
	</ul>
</div>

<style>
	.finder {
		position: relative;
	}
	ul {
		position: absolute;
		z-index: 30;
		inset: 100% 0 auto 0;
		background: var(--sheet);
		border: 1.5px solid var(--ink);
		max-height: 300px;
		overflow: auto;
		min-width: min(420px, 90vw);
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 14px;
		padding: 9px 12px;
		cursor: pointer;
	}
	li.on {
		background: var(--tape-tint);
	}
	.numbers {
		white-space: nowrap;
	}
</style>
