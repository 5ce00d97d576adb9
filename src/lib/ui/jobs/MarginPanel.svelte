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

<section class="panel py-4 px-4.5">
	<h2 class="mb-2">
		{title}: {displayPounds(margin.margin)}
		<span class="quiet">{percent(margin.perMille)}</span>
	</h2>
	<p class="quiet">Everything here is without VAT.</p>
	<dl
		class="numbers [&_div]:flex [&_div]:justify-between [&_div]:gap-3 [&_div]:py-0.75 [&_div]:px-0"
	>
		<div>
			<dt class="text-(--ink-2)">Agreed and to charge</dt>
			<dd>{displayPounds(margin.agreed)}</dd>
		</div>
		<div>
			<dt class="text-(--ink-2)">Billed</dt>
			<dd>{displayPounds(margin.billed)}</dd>
		</div>
		<div>
			<dt class="text-(--ink-2)">Received</dt>
			<dd>{displayPounds(margin.received)}</dd>
		</div>
		{#if margin.withheld}<div>
				<dt class="text-(--ink-2)">Withheld</dt>
				<dd>{displayPounds(margin.withheld)}</dd>
			</div>{/if}
		{#each costs as [kind, amount] (kind)}
			<div>
				<dt class="text-(--ink-2)">
					{kind === 'labour' ? 'Time at cost' : `${KIND_NAMES[kind]} at cost`}
				</dt>
				<dd>{displayPounds(-amount)}</dd>
			</div>
		{/each}
		<div class="sum border-t-[1.5px] border-t-(--ink) font-semibold mt-0.75">
			<dt class="text-(--ink-2)">Left</dt>
			<dd>{displayPounds(margin.margin)}</dd>
		</div>
	</dl>
	{#if margin.expected}<p class="quiet mt-1.5">
			{displayPounds(margin.expected)} of the costs is what the agreed lines should cost you: nothing
			of that kind has been spent yet.
		</p>{/if}
</section>
