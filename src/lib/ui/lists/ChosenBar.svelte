<!-- What can be done with the rows that are chosen: it lies along the foot of the page as long as there are any. -->
<script lang="ts">
	import { ACTIONS } from '$lib/core/lists/actions';
	import type { ListName, ListSpec } from '$lib/core/lists/types';
	import { displayPounds } from '$lib/core/money/display';
	import { counted } from '$lib/core/words';
	import Form from '../parts/Form.svelte';
	import type { Chosen } from './chosen.svelte';

	interface Props {
		spec: ListSpec;
		chosen: Chosen;
		/** What is shown, as an address, and what all of it comes to. */
		written: string;
		all: { count: number; amount: number } | null;
	}
	let { spec, chosen, written, all }: Props = $props();
	/** The others are one press further away: a bar of a dozen buttons shows none of them. */
	const SHOWN = 4;
	const LOOK =
		'min-h-10 cursor-pointer rounded-[3px] border px-3.5 py-1.5 font-semibold whitespace-nowrap';

	/** What is not done row by row, but goes on elsewhere with what was chosen. */
	const ELSEWHERE: Partial<Record<ListName, Record<string, string>>> = {
		invoices: { pdf: 'One PDF', zip: 'ZIP of PDFs' },
		jobs: { billRun: 'Bill them' }
	};
</script>

{#if chosen.count}
	<Form
		action="?/choose"
		keyed
		hidden={{
			address: chosen.all?.written ?? '',
			all: chosen.all ? '1' : '',
			ids: chosen.all ? '' : [...chosen.rows.keys()].join(',')
		}}
		class="sticky bottom-3 z-20 mt-3 flex flex-wrap items-center gap-2.5 rounded-[3px] bg-(--strip) px-4 py-2.5 text-(--strip-on) phone:bottom-17 print:hidden"
		aria-label="What is chosen"
	>
		<p class="mr-auto" role="status">
			<b>{chosen.count.toLocaleString('en-GB')} chosen</b>{#if chosen.amount}<span
					>&nbsp;· {displayPounds(chosen.amount)}</span
				>{/if}
			<span class="ml-2 whitespace-nowrap text-(--strip-text)">
				{#if all && !chosen.all && all.count > chosen.count}<button
						type="button"
						class="min-h-6 cursor-pointer px-1 underline"
						onclick={() => (chosen.all = { written, ...all })}
						>all {counted(all.count, 'row')}</button
					> ·{/if}
				<button
					type="button"
					class="min-h-6 cursor-pointer px-1 underline"
					onclick={() => chosen.clear()}>none</button
				>
			</span>
		</p>
		{#each ACTIONS[spec.name].slice(0, SHOWN) as { id, label }, index (id)}
			<button
				class="{LOOK} {index === 0
					? 'border-(--tape) bg-(--tape) text-(--on-tape)'
					: 'border-(--strip-edge) bg-transparent text-(--strip-on)'}"
				name="go"
				value={id}>{label}</button
			>
		{/each}
		{#if ELSEWHERE[spec.name]}
			{#each Object.entries(ELSEWHERE[spec.name] ?? {}) as [go, label] (go)}<button
					class="{LOOK} border-(--strip-edge) bg-transparent text-(--strip-on)"
					name="go"
					value={go}>{label}</button
				>{/each}
		{/if}
		{#if ACTIONS[spec.name].length > SHOWN}<button
				class="{LOOK} border-(--strip-edge) bg-transparent text-(--strip-on)"
				name="go"
				value="">Something else</button
			>{/if}
	</Form>
{/if}
