<!-- Money in by month: received, and what was withheld on top. -->
<script lang="ts">
	import { shortMonth } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';

	let { months }: { months: { month: string; received: number; withheld: number }[] } = $props();
	let most = $derived(Math.max(1, ...months.map((month) => month.received + month.withheld)));
	const height = (amount: number) => `${(100 * Math.max(amount, 0)) / most}%`;
	let withheld = $derived(months.reduce((sum, month) => sum + month.withheld, 0));
</script>

<section class="panel py-3 px-4">
	<h2 class="text-base [font-family:inherit]">Money in, by month</h2>
	<p class="quiet">received{withheld ? ', and withheld on top' : ''}</p>
	<ul class="grid grid-cols-[repeat(6,1fr)] gap-1.5 mt-2.5">
		{#each months as month, index (month.month)}
			<li
				class="grid gap-0.5 justify-items-center"
				title="{shortMonth(month.month)}: {displayPounds(month.received)} received{month.withheld
					? `, ${displayPounds(month.withheld)} withheld`
					: ''}"
			>
				<span
					class="column h-24 w-full flex flex-col justify-end border-b border-b-(--ink) text-(--ink)"
					class:now={index === months.length - 1}
				>
					<i
						class="withheld [background:var(--hatch)] shadow-[inset_0_0_0_1px_var(--ink)]"
						style:height={height(month.withheld)}
					></i>
					<i class="received bg-(--ink) in-[.now]:opacity-55" style:height={height(month.received)}
					></i>
				</span>
				<span class="quiet">{shortMonth(month.month)}</span>
				<span class="sr-only"
					>{displayPounds(month.received)} received, {displayPounds(month.withheld)} withheld</span
				>
			</li>
		{/each}
	</ul>
	<p class="quiet numbers sum mt-2">
		{displayPounds(months.at(-1)?.received ?? 0)} so far this month
	</p>
</section>
