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
		<div class="panel p-6.5 grid gap-2.5 justify-items-start">
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
					<a
						class="grid grid-cols-[minmax(0,1fr)_220px_90px_110px] gap-y-1 gap-x-4 items-center py-2.75 px-4 no-underline border-b border-b-(--hair) phone:grid-cols-[minmax(0,1fr)_auto] hover:bg-(--tape-tint)"
						href="/billing/repeats/{repeat.id}"
					>
						<span class="what"
							><b class="block wrap-anywhere">{repeat.name}</b><span
								class="quiet block wrap-anywhere">{repeat.customer} · {ACTIONS[repeat.action]}</span
							></span
						>
						<span
							>{#if repeat.state === 'active'}{repeat.next
									? `next ${displayDate(repeat.next)}`
									: 'nothing more to come'}{:else}<span class="tag">{STATES[repeat.state]}</span
								>{/if}
							{#if repeat.failed}<span class="late">{repeat.failed} to look at</span>{/if}</span
						>
						<span class="quiet numbers text-right">{repeat.count} made</span>
						<b class="numbers text-right">{displayPounds(repeat.total)}</b>
					</a>
				</li>
			{/each}
		</ul>
		<div class="more flex flex-wrap items-center gap-y-2 gap-x-3.5 mt-3.5">
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
