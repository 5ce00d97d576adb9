<!-- What is left of a job, in money and percent, with every part of it. -->
<script lang="ts">
	import { KIND_NAMES } from '$lib/core/words';
	import type { LineKind } from '$lib/core/figures/types';
	import type { Margin } from '$lib/core/jobs/margin';
	import { displayPounds } from '$lib/core/money/display';

	let { margin, title = 'Margin' }: { margin: Margin; title?: string } = $props();
	let costs = $derived(Object.entries(margin.costs) as [LineKind, bigint][]);
	const percent = (perMille: number | null) => (perMille === null ? '' : `${perMille / 10} %`);
</script>

<section class="panel">
	<h2>
		{title}: {displayPounds(margin.margin)}
		<span class="quiet">{percent(margin.perMille)}</span>
	</h2>
	<dl class="numbers">
		<div>
			<dt>Agreed and to charge</dt>
			<dd>{displayPounds(margin.agreed)}</dd>
		</div>
		<div>
			<dt>Billed</dt>
			<dd>{displayPounds(margin.billed)}</dd>
		</div>
		<div>
			<dt>Received</dt>
			<dd>{displayPounds(margin.received)}</dd>
		</div>
		{#if margin.withheld}<div>
				<dt>Withheld</dt>
				<dd>{displayPounds(margin.withheld)}</dd>
			</div>{/if}
		{#each costs as [kind, amount] (kind)}
			<div>
				<dt>{kind === 'labour' ? 'Time at cost' : `${KIND_NAMES[kind]} at cost`}</dt>
				<dd>{displayPounds(-amount)}</dd>
			</div>
		{/each}
		<div class="sum">
			<dt>Left, without VAT</dt>
			<dd>{displayPounds(margin.margin)}</dd>
		</div>
	</dl>
</section>

<style>
	section {
		padding: 16px 18px;
	}
	h2 {
		margin-bottom: 8px;
	}
	dl div {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		padding: 3px 0;
	}
	dt {
		color: var(--ink-2);
	}
	.sum {
		border-top: 1.5px solid var(--ink);
		font-weight: 600;
		margin-top: 3px;
	}
</style>
