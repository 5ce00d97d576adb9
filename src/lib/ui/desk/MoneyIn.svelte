<!-- Money in by month: received, and what was withheld on top. -->
<script lang="ts">
	import { shortMonth } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';

	let { months }: { months: { month: string; received: number; withheld: number }[] } = $props();
	let most = $derived(Math.max(1, ...months.map((month) => month.received + month.withheld)));
	const height = (amount: number) => `${(100 * Math.max(amount, 0)) / most}%`;
	let withheld = $derived(months.reduce((sum, month) => sum + month.withheld, 0));
</script>

<section class="panel">
	<h2>Money in, by month</h2>
	<p class="quiet">received{withheld ? ', and withheld on top' : ''}</p>
	<ul>
		{#each months as month, index (month.month)}
			<li
				title="{shortMonth(month.month)}: {displayPounds(month.received)} received{month.withheld
					? `, ${displayPounds(month.withheld)} withheld`
					: ''}"
			>
				<span class="column" class:now={index === months.length - 1}>
					<i class="withheld" style:height={height(month.withheld)}></i>
					<i class="received" style:height={height(month.received)}></i>
				</span>
				<span class="quiet">{shortMonth(month.month)}</span>
				<span class="sr-only"
					>{displayPounds(month.received)} received, {displayPounds(month.withheld)} withheld</span
				>
			</li>
		{/each}
	</ul>
	<p class="quiet numbers sum">{displayPounds(months.at(-1)?.received ?? 0)} so far this month</p>
</section>

<style>
	section {
		padding: 12px 16px 12px;
	}
	h2 {
		font-size: 1rem;
		font-family: inherit;
	}
	ul {
		display: grid;
		grid-template-columns: repeat(6, 1fr);
		gap: 6px;
		margin-top: 10px;
	}
	li {
		display: grid;
		gap: 2px;
		justify-items: center;
	}
	.column {
		height: 96px;
		width: 100%;
		display: flex;
		flex-direction: column;
		justify-content: flex-end;
		border-bottom: 1px solid var(--ink);
		color: var(--ink);
	}
	.received {
		background: var(--ink);
	}
	.now .received {
		opacity: 0.55;
	}
	.withheld {
		background: var(--hatch);
		box-shadow: inset 0 0 0 1px var(--ink);
	}
	.sum {
		margin-top: 8px;
	}
</style>
