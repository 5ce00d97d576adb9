<!-- Every invoice a run would make, with warnings; and what it leaves out, and why. -->
<script lang="ts">
	import type { RunPlan } from '$lib/core/jobs/run';
	import { displayPounds } from '$lib/core/money/display';

	let { plan }: { plan: RunPlan } = $props();
	let stuck = $derived(plan.invoices.filter((one) => one.noAddress).length);
</script>

<div class="review" role="status">
	<h3 class="text-base mt-1.5">
		{plan.invoices.length}
		{plan.invoices.length === 1 ? 'invoice' : 'invoices'}, {displayPounds(plan.total)} in all
	</h3>
	<p class="quiet">
		{plan.invoices.length - stuck} can go by e-mail{stuck
			? `, ${stuck} without an address ${stuck === 1 ? 'waits' : 'wait'} to be sent`
			: ''}{plan.leftOut.length
			? `, ${plan.leftOut.length} ${plan.leftOut.length === 1 ? 'job is' : 'jobs are'} left out`
			: ''}.
	</p>
	<ul>
		{#each plan.invoices as invoice, index (index)}
			<li class="py-2 px-0 border-b border-b-(--hair) *:block">
				<span class="row justify-between gap-3 flex"
					><b>{invoice.customer}</b><b class="numbers">{displayPounds(invoice.total)}</b></span
				>
				<span class="quiet"
					>{invoice.jobs.length === 1
						? `${invoice.jobs[0]!.number} ${invoice.jobs[0]!.title}`
						: `${invoice.jobs.length} jobs`}{invoice.payable !== invoice.total
						? ` · they pay ${displayPounds(invoice.payable)}`
						: ''}</span
				>
				{#if invoice.splitBecause.length}<span
						class="note text-[0.906rem] border-l-3 border-l-(--tape) pl-2 mt-1"
						>Apart, because {invoice.splitBecause.join(', and ')}.</span
					>{/if}
				{#each invoice.warnings as warning (warning)}<span
						class="note text-[0.906rem] border-l-3 border-l-(--tape) pl-2 mt-1">{warning}</span
					>{/each}
				{#if invoice.noAddress}<span
						class="note text-[0.906rem] border-l-3 border-l-(--tape) pl-2 mt-1"
						>No e-mail address: it is issued and waits to be sent.</span
					>{/if}
			</li>
		{/each}
	</ul>
	{#if plan.leftOut.length}
		<h3 class="text-base mt-1.5">Left out</h3>
		<ul>
			{#each plan.leftOut as one (one.jobId)}
				<li class="py-2 px-0 border-b border-b-(--hair) *:block">
					<a href="/work/{one.jobId}">{one.number} {one.title}</a>
					<span class="quiet">{one.because}</span>
				</li>
			{/each}
		</ul>
	{/if}
</div>
