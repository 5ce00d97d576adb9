<!-- Of which days a report is, and how money counts in it: it stands in the address, without scripts too. -->
<script lang="ts">
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import DateField from '../parts/DateField.svelte';
	import Fold from '../parts/Fold.svelte';

	interface Props {
		data: {
			period: { from: string; to: string };
			key: string;
			periods: readonly { key: string; label: string }[];
			basis: 'cash' | 'invoice';
			wrong: string;
		};
		/** How each way of counting is called here. */
		bases: Readonly<Record<'cash' | 'invoice', string>>;
	}
	let { data, bases }: Props = $props();
	const to = (change: Record<string, string>) => {
		const params = new URLSearchParams(
			data.key ? { period: data.key } : { from: data.period.from, to: data.period.to }
		);
		params.set('basis', data.basis);
		if (change.period) {
			params.delete('from');
			params.delete('to');
		}
		for (const [name, value] of Object.entries(change)) params.set(name, value);
		return `${page.url.pathname}?${params}`;
	};
</script>

<div class="panel grid gap-2.5 py-3 px-4 mb-4 print:border-0" data-sveltekit-noscroll>
	<nav
		class="flex flex-wrap gap-x-4 gap-y-1 phone:flex-nowrap phone:overflow-x-auto phone:whitespace-nowrap"
		aria-label="Period"
	>
		{#each data.periods as one (one.key)}<a
				class="py-1 no-underline border-b-3 border-transparent text-(--ink-2) [&.on]:border-(--tape) [&.on]:text-(--ink) [&.on]:font-semibold"
				class:on={data.key === one.key}
				aria-current={data.key === one.key ? 'true' : undefined}
				href={to({ period: one.key })}>{one.label}</a
			>{/each}
	</nav>
	<nav
		class="flex flex-wrap gap-x-4 gap-y-1 phone:flex-nowrap phone:overflow-x-auto phone:whitespace-nowrap"
		aria-label="How money counts"
	>
		{#each ['cash', 'invoice'] as const as basis (basis)}<a
				class="py-1 no-underline border-b-3 border-transparent text-(--ink-2) [&.on]:border-(--tape) [&.on]:text-(--ink) [&.on]:font-semibold"
				class:on={data.basis === basis}
				aria-current={data.basis === basis ? 'true' : undefined}
				href={to({ basis })}>{bases[basis]}</a
			>{/each}
	</nav>
	<Fold label="Other days: now {displayDate(data.period.from)} to {displayDate(data.period.to)}">
		<form class="flex flex-wrap items-end gap-2.5 py-1" method="get">
			<input type="hidden" name="basis" value={data.basis} />
			<DateField label="From" name="from" value={data.period.from} />
			<DateField label="To" name="to" value={data.period.to} />
			<button class="button">Show</button>
		</form>
	</Fold>
	{#if data.wrong}<p class="wrong" role="alert">{data.wrong}</p>{/if}
</div>
