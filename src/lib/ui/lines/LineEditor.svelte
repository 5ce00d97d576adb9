<!-- Lines wherever they are kept and not yet billed: the sheet's own grid, what it comes to, and the workings of each amount. -->
<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import type { Snippet } from 'svelte';
	import { fromList } from '$lib/core/sheet/priceBasis';
	import type { SheetLine } from '$lib/core/sheet/types';
	import Fold from '../parts/Fold.svelte';
	import WorkingsPanel from '../invoices/WorkingsPanel.svelte';
	import type { Draft } from './draft.svelte';
	import LineGrid from './LineGrid.svelte';
	import Totals from './Totals.svelte';
	import Whole from './Whole.svelte';

	interface Props {
		draft: Draft;
		/** The name of the last sum. */
		last?: string;
		beside?: Snippet<[SheetLine, number]>;
	}
	let { draft, last = 'Comes to', beside }: Props = $props();
	let figures = $derived(draft.reading.figures);
	let workings = $state(false);
	function pick(figure: string) {
		draft.figure = figure;
		workings = true;
	}
	// A press on an amount of a line opens them too.
	let shown = '';
	$effect(() => {
		const { figure } = draft;
		if (shown && figure !== shown) workings = true;
		shown = figure;
	});
</script>

<NeedsScripts />
<LineGrid {draft} {beside} />
{#if figures}
	<Totals {figures} registered={draft.registered} figure={draft.figure} onpick={pick} {last} />
{/if}
{#if draft.problemAt.get('total')}<p class="wrong text-right pr-14.5">
		{draft.problemAt.get('total')?.message}
	</p>{/if}
{#if draft.of === 'invoice'}<Whole {draft} one={false} />{/if}
{#if figures}
	<Fold label="Workings" bind:open={workings}>
		<WorkingsPanel
			{figures}
			more={draft.headingSums}
			contractor={draft.customer?.kind === 'contractor'}
			listed={(line) => fromList(line, draft.sheet.pricesIncludeVat, draft.rateOf)}
			lines={draft.reading.lines}
			figure={draft.figure}
			onpick={pick}
		/>
	</Fold>
{/if}
