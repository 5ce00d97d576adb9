<!-- Where a contract stands: contract sum, extras, billed, left; its stages, and what is held back. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import type { ContractPosition } from '$lib/core/jobs/stages';
	import { displayPounds } from '$lib/core/money/display';
	import { pressKey } from '../parts/keys';

	interface Stage {
		id: number;
		kind: string;
		basis: string;
		state: 'applied' | 'invoiced' | 'dropped';
		amount: number;
		applicationNumber: string | null;
		appliedOn: string | null;
		documentId: number | null;
		number: string | null;
		documentState: string | null;
	}
	interface Retention {
		documentId: number;
		number: string | null;
		amount: number;
		dueOn: string;
		releasedById: number | null;
	}
	interface Props {
		jobId: number;
		position: ContractPosition;
		stages: Stage[];
		retentions: Retention[];
		canStage: boolean;
		today: string;
	}
	let { jobId, position, stages, retentions, canStage, today }: Props = $props();
	const key = pressKey();
	let standing = $derived(stages.filter((stage) => stage.state !== 'dropped'));
	let held = $derived(retentions.filter((one) => one.releasedById === null));
	let heldSum = $derived(held.reduce((sum, one) => sum + one.amount, 0));
	let whole = $derived(position.contractSum + position.extras);
	let part = $derived(whole > 0n ? Number((position.billed * 1000n) / whole) / 10 : 0);
</script>

<section class="panel">
	<h2>Contract</h2>
	<dl class="numbers">
		<div>
			<dt>Agreed</dt>
			<dd>{displayPounds(position.contractSum)}</dd>
		</div>
		{#if position.extras}<div>
				<dt>Extras</dt>
				<dd>{displayPounds(position.extras)}</dd>
			</div>{/if}
		{#if standing.length}
			<div>
				<dt>Billed in stages</dt>
				<dd>{displayPounds(position.billed)}</dd>
			</div>
			<div class="sum">
				<dt>Left</dt>
				<dd>{displayPounds(position.left)}</dd>
			</div>
		{/if}
	</dl>
	{#if standing.length}
		<div class="tape" role="img" aria-label="{part} % of the contract is billed">
			<span style:width="{part}%"></span>
		</div>
		<ol>
			{#each standing as stage (stage.id)}
				<li>
					<span
						>{#if stage.documentId}<a href="/billing/{stage.documentId}"
								>{stage.number ?? 'Draft'}</a
							>{:else}{stage.applicationNumber}{/if}
						<span class="quiet">{stage.basis}</span></span
					>
					<b class="numbers">{displayPounds(stage.amount)}</b>
					{#if stage.applicationNumber}<a class="pdf" href="/work/{jobId}/application/{stage.id}"
							>Application {stage.applicationNumber}, PDF</a
						>{/if}
					{#if stage.state === 'applied'}
						<form class="approve" method="post" action="?/approve" use:enhance>
							<input type="hidden" name="stage" value={stage.id} />
							<label class="field"
								><span class="name">Approved, £</span><input
									class="box"
									name="amount"
									inputmode="decimal"
									placeholder={(stage.amount / 100).toFixed(2)}
								/></label
							>
							<DateField label="Paid on, if it was" name="paidOn" max={today} />
							<button class="button">Make the VAT invoice</button>
							<button class="button plain" formaction="?/withdraw">Withdraw</button>
						</form>
					{/if}
				</li>
			{/each}
		</ol>
	{/if}
	{#if held.length}
		<p>
			<b class="numbers">{displayPounds(heldSum)}</b> is held back, due from {displayDate(
				held[0]!.dueOn
			)}.
		</p>
		<form method="post" action="?/release" use:enhance>
			<input type="hidden" name="key" value={key} />
			<button class="button">Release the retention</button>
		</form>
	{/if}
	{#if canStage && position.left > 0n}
		<a class="button" href="/work/{jobId}/stage"
			>{standing.length ? 'Bill the next stage' : 'Bill in stages'}</a
		>
	{/if}
</section>

<style>
	section {
		padding: 16px 18px;
		display: grid;
		gap: 10px;
		justify-items: start;
	}
	dl,
	ol,
	.tape {
		width: 100%;
	}
	dl div {
		display: flex;
		justify-content: space-between;
		padding: 3px 0;
	}
	.sum {
		border-top: 1.5px solid var(--ink);
		font-weight: 600;
	}
	dt {
		color: var(--ink-2);
	}
	.tape {
		height: 12px;
		background:
			repeating-linear-gradient(90deg, var(--ink) 0 1px, transparent 1px 10%), var(--plaster);
		border: 1px solid var(--hair);
	}
	.tape span {
		display: block;
		height: 100%;
		background: var(--tape);
		border-right: 2px solid var(--ink);
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 2px 10px;
		padding: 8px 0;
		border-bottom: 1px solid var(--hair);
	}
	li span > :global(*) {
		margin-right: 6px;
	}
	.pdf {
		grid-column: 1 / -1;
	}
	.approve {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: end;
	}
	.approve .field {
		flex: 1 1 120px;
	}
</style>
