<!-- One of the owner's income categories or cost centres; nothing is shown as long as there are none. -->
<script module lang="ts">
	export const TAG_SORTS = ['income', 'centre'] as const;
</script>

<script lang="ts">
	import { page } from '$app/state';
	import Choice from './Choice.svelte';

	interface Props {
		sort: (typeof TAG_SORTS)[number];
		value: string;
		name?: string;
		/** On the line of this number, among its small print. */
		line?: number;
		path?: string;
	}
	let { sort, value = $bindable(), name, line, path }: Props = $props();
	let offered = $derived<string[]>(page.data.offers?.lineTags?.[sort] ?? []);
	let label = $derived(sort === 'income' ? 'Income category' : 'Cost centre');
</script>

{#snippet options()}
	<option value="">{line === undefined ? 'none in particular' : `no ${label.toLowerCase()}`}</option
	>
	{#if value !== '' && !offered.includes(value)}<option {value}>{value}</option>{/if}
	{#each offered as one (one)}<option value={one}>{one}</option>{/each}
{/snippet}

{#if offered.length || value !== ''}
	{#if line === undefined}<Choice {label} {...name ? { name } : {}} {path} bind:value
			>{@render options()}</Choice
		>
	{:else}<select
			class="small text-[0.875rem] text-(--ink-2) bg-transparent border-0 p-0.5 min-h-6.5 max-w-full cursor-pointer tight:min-h-10 group-focus-within/row:text-(--ink)"
			class:unchosen={value === ''}
			data-path={path}
			aria-label="{label}, line {line}"
			bind:value>{@render options()}</select
		>{/if}
{/if}

<style>
	/* Asked for only on the line one is at. */
	.unchosen:not(:global(.group\/row.at) *) {
		display: none;
	}
</style>
