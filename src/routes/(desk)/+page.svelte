<script lang="ts">
	import { displayWeekday } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
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
	let worth = $derived(data.moves.reduce((sum, move) => sum + (move.amount ?? 0), 0));
	let count = $derived(NUMBERS[data.moves.length] ?? String(data.moves.length));
	const SHOWN = 12;
	let all = $state(false);
	let shown = $derived(all ? data.moves : data.moves.slice(0, SHOWN));
</script>

<svelte:head><title>Today · Axiometer</title></svelte:head>
<div class="page today">
	<section>
		<h1>{displayWeekday(data.today)}</h1>
		{#if data.moves.length === 0}
			<div class="panel empty">
				<h2>Nothing needs you now</h2>
				<p>What is late, unsent or unfinished will stand here, most money first.</p>
				<form method="post" action="/billing/new">
					<button class="button filled">Write an invoice</button>
				</form>
			</div>
		{:else}
			<p class="quiet lead">
				{count} next {data.moves.length === 1 ? 'move' : 'moves'}, worth {displayPounds(worth)}
			</p>
			<ul class="panel">
				{#each shown as move, index (move.id)}
					<li class:first={index === 0}>
						<span class="amount numbers" class:late={move.late}
							>{move.amount === null ? '' : displayPounds(move.amount)}</span
						>
						<span class="what"><b>{move.title}</b><span class="quiet">{move.detail}</span></span>
						<a class="button" class:filled={index === 0} href={move.href}>{move.action}</a>
					</li>
				{/each}
			</ul>
			{#if data.moves.length > SHOWN}
				<button class="button plain" onclick={() => (all = !all)}
					>{all ? 'Show the largest only' : `Show all ${data.moves.length}`}</button
				>
			{/if}
		{/if}
	</section>
	<aside>
		<MoneyIn months={data.months} />
	</aside>
</div>

<style>
	.today {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 330px;
		gap: 26px;
	}
	.lead {
		margin: 6px 0 14px;
	}
	li {
		display: grid;
		grid-template-columns: 128px 1fr auto;
		gap: 18px;
		align-items: center;
		padding: 13px 18px;
		border-bottom: 1px solid var(--hair);
	}
	li:last-child {
		border: 0;
	}
	.first {
		background: var(--tape-tint);
	}
	.amount {
		font: 650 21px var(--font-heading);
		text-align: right;
	}
	.amount.late {
		color: var(--oxide);
	}
	.what b {
		font-size: 1.06rem;
		font-weight: 650;
		overflow-wrap: anywhere;
	}
	.what .quiet {
		display: block;
		overflow-wrap: anywhere;
	}
	.first .quiet {
		color: var(--ink);
	}
	.empty {
		padding: 28px;
		margin-top: 14px;
		display: grid;
		gap: 12px;
		justify-items: start;
	}
	@media (max-width: 900px) {
		.today {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 560px) {
		li {
			grid-template-columns: 1fr auto;
			gap: 4px 12px;
			padding: 12px 14px;
		}
		.amount {
			grid-column: 1;
			text-align: left;
		}
		.what {
			grid-column: 1 / 3;
			grid-row: 2;
		}
		.button {
			grid-column: 2;
			grid-row: 1;
		}
	}
</style>
