<!--
	Finds by a few letters: what is typed is asked of the server, the best match is the one Enter takes. Skeleton's combobox,
	so that keys, screen readers and touch behave.
-->
<script lang="ts" generics="Item extends { key: string; title: string }">
	import { Combobox, useListCollection } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		label: string;
		/** The label is said and not shown. */
		quiet?: boolean;
		placeholder?: string;
		/** What stands in the box. */
		typed: string;
		items: readonly Item[];
		/** Shown in the list where nothing is found. */
		none?: string;
		item: Snippet<[Item]>;
		onsearch: (typed: string) => void;
		onchoose: (item: Item) => void;
		class?: string;
	}
	let {
		label,
		quiet = false,
		placeholder = '',
		typed = $bindable(),
		items,
		none,
		item,
		onsearch,
		onchoose,
		class: given = 'box'
	}: Props = $props();
	let list = $derived(
		useListCollection({
			items: [...items],
			itemToValue: (one) => one.key,
			itemToString: (one) => one.title
		})
	);
</script>

<Combobox
	class="relative"
	collection={list}
	value={[]}
	inputValue={typed}
	inputBehavior="autohighlight"
	selectionBehavior="clear"
	allowCustomValue
	openOnClick
	{placeholder}
	positioning={{ placement: 'bottom-start', sameWidth: false, gutter: 3 }}
	onInputValueChange={({ inputValue, reason }) => {
		if (reason !== 'input-change') return;
		typed = inputValue;
		onsearch(inputValue);
	}}
	onValueChange={({ items: [chosen] }) => chosen && onchoose(chosen)}
>
	<Combobox.Label class={quiet ? 'sr-only' : 'name'}>{label}</Combobox.Label>
	<Combobox.Control><Combobox.Input class={given} autocomplete="off" /></Combobox.Control>
	<Combobox.Positioner class="z-40">
		<Combobox.Content
			class="max-h-[370px] max-w-[calc(100vw-1rem)] min-w-[min(420px,90vw)] overflow-auto rounded-[3px] border-[1.5px] border-[var(--ink)] bg-[var(--sheet)]"
		>
			{#each items as one (one.key)}
				<Combobox.Item
					item={one}
					class="flex min-h-10 cursor-pointer items-center justify-between gap-3.5 px-3 py-2 data-[highlighted]:bg-[var(--tape-tint)] data-[highlighted]:shadow-[inset_3px_0_var(--tape)]"
				>
					{@render item(one)}
				</Combobox.Item>
			{:else}
				{#if none && typed.trim()}<p class="quiet px-3 py-2">{none}</p>{/if}
			{/each}
		</Combobox.Content>
	</Combobox.Positioner>
</Combobox>
