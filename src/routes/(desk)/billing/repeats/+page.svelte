<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import Tabs from '$lib/ui/parts/Places.svelte';

	let { data } = $props();
	const ACTIONS = { draft: 'left as draft', send: 'sent by itself', charge: 'charged to the card' };
	const STATES = { active: '', paused: 'paused', asking: 'asks you', ended: 'ended' };
</script>

<svelte:head><title>Repeats · Axiometer</title></svelte:head>
<div class="page">
	<h1>Billing</h1>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	{#if data.repeats.length === 0}
		<div class="panel empty">
			<h2>What you bill again and again will stand here</h2>
			<p>
				A retainer, a care plan, a quarterly inspection: write its invoice once, then choose
				<b>Repeat it</b> on it.
			</p>
			{@render begin()}
		</div>
	{:else}
		<ul class="panel">
			{#each data.repeats as repeat (repeat.id)}
				<li>
					<a href="/billing/repeats/{repeat.id}">
						<span class="what"
							><b>{repeat.name}</b><span class="quiet"
								>{repeat.customer} · {ACTIONS[repeat.action]}</span
							></span
						>
						<span
							>{#if repeat.state === 'active'}{repeat.next
									? `next ${displayDate(repeat.next)}`
									: 'nothing more to come'}{:else}<span class="tag">{STATES[repeat.state]}</span
								>{/if}
							{#if repeat.failed}<span class="late">{repeat.failed} to look at</span>{/if}</span
						>
						<span class="quiet numbers r">{repeat.count} made</span>
						<b class="numbers r">{displayPounds(repeat.total)}</b>
					</a>
				</li>
			{/each}
		</ul>
		<div class="more">
			{@render begin()}
			<span class="quiet"
				>or open an invoice and choose <b>Repeat it</b>; a job has it under what is agreed.</span
			>
		</div>
	{/if}
</div>

{#snippet begin()}
	<form method="post" action="/billing/new">
		<button class="button">Write an invoice to repeat</button>
	</form>
{/snippet}

<style>
	li a {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 220px 90px 110px;
		gap: 4px 16px;
		align-items: center;
		padding: 11px 16px;
		text-decoration: none;
		border-bottom: 1px solid var(--hair);
	}
	li a:hover {
		background: var(--tape-tint);
	}
	.what > * {
		display: block;
		overflow-wrap: anywhere;
	}
	.r {
		text-align: right;
	}
	.more {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px 14px;
		margin-top: 14px;
	}
	.empty {
		padding: 26px;
		display: grid;
		gap: 10px;
		justify-items: start;
	}
	@media (max-width: 760px) {
		li a {
			grid-template-columns: minmax(0, 1fr) auto;
		}
	}
</style>
