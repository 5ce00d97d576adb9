<!-- Every invoice a run would make, with warnings; and what it leaves out, and why. -->
<script lang="ts">
	import type { RunPlan } from '$lib/core/jobs/run';
	import { displayPounds } from '$lib/core/money/display';

	let { plan }: { plan: RunPlan } = $props();
</script>

<div class="review" role="status">
	<h3>
		{plan.invoices.length}
		{plan.invoices.length === 1 ? 'invoice' : 'invoices'}, {displayPounds(plan.total)} in all
	</h3>
	<ul>
		{#each plan.invoices as invoice, index (index)}
			<li>
				<span class="row"
					><b>{invoice.customer}</b><b class="numbers">{displayPounds(invoice.total)}</b></span
				>
				<span class="quiet"
					>{invoice.jobs.length === 1
						? `${invoice.jobs[0]!.number} ${invoice.jobs[0]!.title}`
						: `${invoice.jobs.length} jobs`}{invoice.payable !== invoice.total
						? ` · they pay ${displayPounds(invoice.payable)}`
						: ''}</span
				>
				{#if invoice.splitBecause.length}<span class="note"
						>Apart, because {invoice.splitBecause.join(', and ')}.</span
					>{/if}
				{#each invoice.warnings as warning (warning)}<span class="note">{warning}</span>{/each}
				{#if invoice.noAddress}<span class="note"
						>No mail address: it is issued and waits to be sent.</span
					>{/if}
			</li>
		{/each}
	</ul>
	{#if plan.leftOut.length}
		<h3>Left out</h3>
		<ul>
			{#each plan.leftOut as one (one.jobId)}
				<li>
					<a href="/work/{one.jobId}">{one.number} {one.title}</a>
					<span class="quiet">{one.because}</span>
				</li>
			{/each}
		</ul>
	{/if}
</div>

<style>
	h3 {
		font-size: 1rem;
		margin-top: 6px;
	}
	li {
		padding: 8px 0;
		border-bottom: 1px solid var(--hair);
	}
	.row {
		display: flex;
		justify-content: space-between;
		gap: 12px;
	}
	li > :global(*) {
		display: block;
	}
	li > .row {
		display: flex;
	}
	.note {
		font-size: 0.906rem;
		border-left: 3px solid var(--tape);
		padding-left: 8px;
		margin-top: 4px;
	}
</style>
