<!-- Which columns a list shows, and in which order: it stands in the address, as all of a view does. -->
<script lang="ts">
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import type { ListSpec, ListView } from '$lib/core/lists/types';
	import { goto } from '$app/navigation';
	import Dialog from '../parts/Dialog.svelte';
	import type { Addresses } from './address';

	interface Props {
		spec: ListSpec;
		view: ListView;
		to: Addresses;
	}
	let { spec, view, to }: Props = $props();
	let open = $state(false);
	let chosen = $state<string[]>([]);
	let others = $derived(
		spec.fields.filter((field) => field.column !== false && !chosen.includes(field.id))
	);
	const labelOf = (id: string) => {
		const field = spec.fields.find((one) => one.id === id)!;
		return field.head ?? field.label;
	};
	function begin() {
		chosen = [...view.columns];
		open = true;
	}
	function move(index: number, by: number) {
		const [id] = chosen.splice(index, 1);
		chosen.splice(index + by, 0, id!);
	}
	function use() {
		open = false;
		void goto(to.of({ columns: chosen.length ? chosen : spec.columns }), { noScroll: true });
	}
</script>

<button class="button plain with-scripts min-h-9" type="button" onclick={begin}>Columns</button>
<Dialog bind:open title="Columns">
	<ol class="grid gap-1 max-h-[60vh] overflow-auto" aria-label="Shown, in this order">
		{#each chosen as id, index (id)}
			<li class="flex items-center gap-2">
				<label class="check grow"
					><input
						type="checkbox"
						checked
						onchange={() => (chosen = chosen.filter((one) => one !== id))}
					/>{labelOf(id)}</label
				>
				<button
					class="button plain"
					type="button"
					disabled={index === 0}
					aria-label="{labelOf(id)} further to the front"
					onclick={() => move(index, -1)}><ArrowUp size={17} /></button
				>
				<button
					class="button plain"
					type="button"
					disabled={index === chosen.length - 1}
					aria-label="{labelOf(id)} further back"
					onclick={() => move(index, 1)}><ArrowDown size={17} /></button
				>
			</li>
		{/each}
		{#each others as field (field.id)}
			<li>
				<label class="check"
					><input type="checkbox" onchange={() => chosen.push(field.id)} />{field.head ??
						field.label}</label
				>
			</li>
		{/each}
	</ol>
	<div class="flex flex-wrap gap-2.5 mt-3.5">
		<button class="button filled" type="button" onclick={use}>Show these</button>
		<button class="button" type="button" onclick={() => (chosen = [...spec.columns])}
			>As at first</button
		>
	</div>
</Dialog>
