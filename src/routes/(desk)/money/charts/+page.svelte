<script lang="ts">
	import { displayDate, shortMonth } from '$lib/core/calendar/conversion';
	import { displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import { AGES } from '$lib/core/settlement/statement';
	import { AGE_NAMES, counted } from '$lib/core/words';
	import BarChart from '$lib/ui/desk/BarChart.svelte';

	let { data } = $props();
	const AGE_FILL = {
		notDue: { color: 'verdigris', pattern: 'plain' },
		'1-30': { color: 'tape', pattern: 'plain' },
		'31-60': { color: 'tape', pattern: 'hatch' },
		'61-90': { color: 'oxide', pattern: 'hatch' },
		over90: { color: 'oxide', pattern: 'plain' }
	} as const;
	const month = (text: string) => {
		const name = shortMonth(text);
		return name === 'Jan' ? `Jan ${text.slice(2, 4)}` : name;
	};
	const pounds = (pence: number | Minor) => displayPounds(pence).replace(/\.00$/, '');
	const whole = (pence: number | Minor) => pounds(Math.round(Number(pence) / 100) * 100);
	const days = (count: number) => counted(count, 'day').replace('-', '−');
	const KINDS = ['billed', 'received', 'withheld'] as const;
	let likely = $derived(data.likely.reduce((sum, one) => sum + one.amount, 0n));
</script>

<svelte:head><title>Charts · Money in · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money">Money in</a></p>
	<h1>About {whole(likely)} is likely within eight weeks</h1>
	<p class="quiet mb-3.5">as each payer usually pays. Any bar opens into its documents.</p>
	<div class="grid grid-cols-2 gap-4 items-start narrow:grid-cols-1">
		<BarChart
			title="Likely to come, by week"
			note="By each payer’s median of days after due, or a promise.{data.unsaid
				? ` ${whole(data.unsaid)} more is open of which nothing can be said: disputed, later than usual already, or a payer without a past.`
				: ''}"
			categories={data.likely.map((one) => displayDate(one.week).replace(/ \d{4}$/, ''))}
			series={[
				{
					name: 'likely to come',
					color: 'verdigris',
					pattern: 'lines',
					values: data.likely.map((one) => Number(one.amount))
				}
			]}
			write={whole}
			href={(_, index) => `/money/charts/likely?week=${data.likely[index]!.week}`}
		/>
		<BarChart
			title="Owed by age, at the end of each month"
			note="Deductions that are still expected are included."
			categories={data.ends.map(month)}
			stacked
			series={AGES.map((age) => ({
				name: AGE_NAMES[age],
				...AGE_FILL[age],
				values: data.owed.map((sums) => Number(sums[age]))
			}))}
			write={whole}
			href={(series, index) => `/money/charts/owed?on=${data.ends[index]}&age=${AGES[series]}`}
		/>
		<BarChart
			title="Income by month"
			note="Billed with VAT, credit notes taken off; received less what was given back; withheld by contractors."
			categories={data.months.map((one) => month(one.month))}
			series={[
				{
					name: 'billed',
					color: 'ink-2',
					pattern: 'plain',
					values: data.months.map((one) => one.billed)
				},
				{
					name: 'received',
					color: 'verdigris',
					pattern: 'plain',
					values: data.months.map((one) => one.received)
				},
				{
					name: 'withheld',
					color: 'ink-2',
					pattern: 'hatch',
					values: data.months.map((one) => one.withheld)
				}
			]}
			write={whole}
			href={(series, index) => `/money/charts/${KINDS[series]}?month=${data.months[index]!.month}`}
		/>
		{#if data.payers.length}
			<BarChart
				title="Days to pay after due, by customer"
				note="The median of each one’s last 24 paid invoices; below zero they pay before it is due."
				categories={data.payers.map((one) => one.name)}
				lying
				stacked
				series={[
					{
						name: 'in time',
						color: 'verdigris',
						pattern: 'plain',
						values: data.payers.map((one) => Math.min(one.median, 0))
					},
					{
						name: 'after due',
						color: 'tape',
						pattern: 'plain',
						values: data.payers.map((one) => Math.max(one.median, 0))
					}
				]}
				write={days}
				href={(_, index) => `/money/charts/payer?id=${data.payers[index]!.id}`}
			/>
		{/if}
	</div>
</div>
