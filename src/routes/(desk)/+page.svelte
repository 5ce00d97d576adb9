<script lang="ts">
	import { displayWeekday } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import Check from '@lucide/svelte/icons/check';
	import OnSite from '$lib/ui/desk/OnSite.svelte';
	import MoneyIn from '$lib/ui/desk/MoneyIn.svelte';

	let { data } = $props();
	const NUMBERS = [
		'No',
		'One',
		'Two',
		'Three',
		'Four',
		'Five',
		'Six',
		'Seven',
		'Eight',
		'Nine',
		'Ten'
	];
	let fresh = $derived(data.steps !== null && data.moves.every((move) => move.amount === null));
	let count = $derived(NUMBERS[data.moves.length] ?? String(data.moves.length));
	const SHOWN = 12;
	let all = $state(false);
	let shown = $derived(all ? data.moves : data.moves.slice(0, SHOWN));
</script>

<svelte:head><title>Today · Axiometer</title></svelte:head>
<div class="page today grid grid-cols-[minmax(0,1fr)_330px] gap-6.5 max-[900px]:grid-cols-1">
	<section>
		<h1>{displayWeekday(data.today)}</h1>
		{#if fresh && data.steps}
			<p class="quiet mt-1.5 mb-3.5">Welcome. Three things to begin with, in any order.</p>
			<ul class="panel">
				{#each data.steps as step, index (step.href)}
					<li
						class="grid grid-cols-[36px_1fr_auto] gap-4 items-center py-3.25 px-4.5 border-b border-b-(--hair) last:border-0 [&.first]:bg-(--tape-tint) max-[560px]:grid-cols-[28px_1fr] max-[560px]:px-3.5"
						class:first={index === 0}
					>
						<span class="[font:650_21px_var(--font-heading)] text-center"
							>{#if step.done}<Check size={22} aria-label="Done" />{:else}{index + 1}{/if}</span
						>
						<span
							><b class="text-[1.06rem] font-[650]">{step.title}</b><span
								class="quiet block in-[.first]:text-(--ink)">{step.detail}</span
							></span
						>
						{#if step.post}<form
								method="post"
								action={step.href}
								class="max-[560px]:col-start-2 max-[560px]:justify-self-start"
							>
								<button class="button filled">{step.action}</button>
							</form>{:else}<a
								class="button max-[560px]:col-start-2 max-[560px]:justify-self-start"
								href={step.href}>{step.action}</a
							>{/if}
					</li>
				{/each}
			</ul>
			{#each data.moves as move (move.id)}<p class="mt-3">
					{move.title}: {move.detail}. <a href={move.href}>{move.action}</a>
				</p>{/each}
		{:else if data.moves.length === 0}
			<div class="panel p-7 mt-3.5 grid gap-3 justify-items-start">
				<h2>Nothing needs you now</h2>
				<p>What is late, unsent or unfinished will stand here, most money first.</p>
				<form method="post" action="/billing/new">
					<button class="button filled max-[560px]:col-start-2 max-[560px]:row-start-1"
						>Write an invoice</button
					>
				</form>
			</div>
		{:else}
			<p class="quiet mt-1.5 mb-3.5 mx-0">
				{count} next {data.moves.length === 1 ? 'move' : 'moves'}{data.worth
					? `, worth ${displayPounds(data.worth)}`
					: ''}
			</p>
			<ul class="panel">
				{#each shown as move, index (move.id)}
					<li
						class="grid grid-cols-[128px_1fr_auto] gap-4.5 items-center py-3.25 px-4.5 border-b border-b-(--hair) last:border-0 [&.first]:bg-(--tape-tint) max-[560px]:grid-cols-[1fr_auto] max-[560px]:gap-y-1 max-[560px]:gap-x-3 max-[560px]:py-3 max-[560px]:px-3.5"
						class:first={index === 0}
					>
						<span
							class="amount numbers [font:650_21px_var(--font-heading)] text-right [&.late]:text-(--oxide) max-[560px]:col-start-1 max-[560px]:text-left"
							class:late={move.late}>{move.amount === null ? '' : displayPounds(move.amount)}</span
						>
						<span class="what max-[560px]:col-[1_/_3] max-[560px]:row-start-2"
							><b class="text-[1.06rem] font-[650] wrap-anywhere">{move.title}</b><span
								class="quiet block wrap-anywhere in-[.first]:text-(--ink)">{move.detail}</span
							></span
						>
						<a
							class="button max-[560px]:col-start-2 max-[560px]:row-start-1"
							class:filled={index === 0}
							href={move.href}>{move.action} <span class="sr-only">: {move.title}</span></a
						>
					</li>
				{/each}
			</ul>
			{#if data.moves.length > SHOWN}
				<button
					class="button plain max-[560px]:col-start-2 max-[560px]:row-start-1"
					onclick={() => (all = !all)}
					>{all ? 'Show the largest only' : `Show all ${data.moves.length}`}</button
				>
			{/if}
		{/if}
	</section>
	<aside class="grid gap-4.5 content-start">
		{#if data.visits.length}<OnSite visits={data.visits} />{/if}
		{#if !fresh}<MoneyIn months={data.months} />{/if}
	</aside>
</div>
