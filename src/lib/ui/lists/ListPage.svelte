<!-- The page of any list, below its head: how much it is, its views, filters, rows, and what can be done with those chosen. -->
<script lang="ts">
	import { onMount, type Snippet } from 'svelte';
	import type { ListSpec, ReadListView } from '$lib/core/lists/types';
	import { displayPounds } from '$lib/core/money/display';
	import { counted } from '$lib/core/words';
	import Pager from '../parts/Pager.svelte';
	import { addressesOf } from './address';
	import { Chosen } from './chosen.svelte';
	import ChosenBar from './ChosenBar.svelte';
	import Columns from './Columns.svelte';
	import Filters from './Filters.svelte';
	import ListTable from './ListTable.svelte';
	import Views from './Views.svelte';

	type Cell = string | number | null;
	interface Row {
		id: number;
		cells: Record<string, Cell>;
		more: Record<string, Cell>;
	}
	interface Sums {
		count: number;
		sums: Record<string, number>;
	}
	interface View {
		key: string;
		label: string;
		address: string;
		here: boolean;
		kept: number | null;
		count?: number | undefined;
	}
	interface Props {
		path: string;
		label: string;
		spec: ListSpec;
		data: {
			view: ReadListView;
			offered: Readonly<Record<string, readonly string[]>>;
			written: string;
			rows: readonly Row[];
			sums: Sums | null;
			adding: { field: string; how: string; value: string; wrong: string } | null;
			before: string | null;
			after: string | null;
		};
		views: readonly View[];
		/** What the sum beside the count is of, and in which words: `open`. */
		head?: { field: string; words: string };
		href: (row: Row) => string;
		name: (row: Row) => string;
		cells?: Record<string, Snippet<[Row]>>;
		/** What a row is worth where it is chosen; and by which sum all of them are. */
		amount?: { of: (row: Row) => number; field: string };
		/** Shown where there is nothing at all, and nothing is asked for. */
		empty: Snippet;
	}
	let {
		path,
		label,
		spec,
		data,
		views,
		head,
		href,
		name,
		cells = {},
		amount,
		empty
	}: Props = $props();
	const chosen = new Chosen();
	let to = $derived(addressesOf(path, spec, data.view));
	let filtered = $derived(Boolean(data.view.search || data.view.filters.length));
	// Of a long list it is worked out once the page is there.
	let late = $state.raw<{ of: string; sums: Sums | null } | null>(null);
	let sums = $derived(data.sums ?? (late?.of === data.written ? late.sums : null));
	let alive = $state(false);
	onMount(() => (alive = true));
	$effect(() => {
		const of = data.written;
		if (!alive || data.sums) return;
		void fetch(`${path}/sums?${of}`)
			.then((response) => (response.ok ? response.json() : null))
			.catch(() => null)
			.then((found) => (late = found && { of, sums: found }));
	});
</script>

<div class="flex flex-wrap items-baseline gap-x-4">
	<p class="text-[1.15rem]" aria-live="polite">
		{#if sums}<b>{counted(sums.count, ...spec.words)}</b>{#if head && sums.sums[head.field]}, <b
					>{displayPounds(sums.sums[head.field]!)}</b
				>
				{head.words}{/if}{:else}&nbsp;{/if}
	</p>
	<span class="ml-auto flex flex-wrap items-center gap-x-3">
		<Columns {spec} view={data.view} {to} />
		<a class="button plain min-h-9" href="{path}/csv?{data.written}" download>CSV of this</a>
	</span>
</div>
<Views {path} {views} written={data.written} />
<Filters
	{path}
	{spec}
	view={data.view}
	{to}
	adding={data.adding}
	wrong={data.view.wrong}
	offered={data.offered}
/>
{#if data.rows.length === 0}
	<div class="panel p-7 grid gap-3 justify-items-start">
		{#if filtered}
			<h2>Nothing matches</h2>
			<p>Nothing fits what you chose. <a href={path}>Show everything</a></p>
		{:else}{@render empty()}{/if}
	</div>
{:else}
	<ListTable
		{label}
		{spec}
		view={data.view}
		rows={data.rows}
		{to}
		{href}
		{name}
		{cells}
		{...spec.actions ? { chosen } : {}}
		{...amount ? { amount: amount.of } : {}}
		{sums}
	/>
	<Pager before={data.before} after={data.after} words={['Back', 'On']} />
	<ChosenBar
		{spec}
		{chosen}
		written={data.written}
		all={sums && { count: sums.count, amount: amount ? (sums.sums[amount.field] ?? 0) : 0 }}
	/>
{/if}
