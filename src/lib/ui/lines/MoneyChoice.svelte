<!-- In which money a document is, and what one of it is worth in pounds on its tax point. -->
<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { BOOKS, CURRENCIES, CURRENCY_NAMES } from '$lib/core/money/currencies';
	import Choice from '../parts/Choice.svelte';
	import Cell from './Cell.svelte';
	import type { Draft } from './draft.svelte';

	let { draft }: { draft: Draft } = $props();
	let abroad = $derived(draft.currency !== BOOKS);
	let name = $derived(CURRENCY_NAMES[draft.currency]);
	let exchange = $derived(draft.sheet.exchange ?? { rate: '', source: '' });
	const set = (typed: Partial<typeof exchange>) => {
		const next = { ...exchange, ...typed };
		draft.sheet.exchange = next.rate || next.source ? next : undefined;
	};
	const wrong = (path: string) => draft.problemAt.get(path);
	let decided = $derived(draft.reading.exchange);
	let fixed = $derived(draft.exchange !== undefined);
</script>

<div class="col-span-2">
	<Choice
		label="In which money"
		path="currency"
		error={wrong('currency')?.message}
		bind:value={() => draft.currency, (currency) => draft.takeMoney(currency)}
	>
		{#each CURRENCIES as code (code)}<option value={code}
				>{code === BOOKS ? 'pounds' : `${CURRENCY_NAMES[code].many} (${code})`}</option
			>{/each}
	</Choice>
</div>
{#if abroad}
	<div class="field col-span-2">
		<span class="name">Pounds for one {name.one}, {displayDate(draft.taxDate)}</span><Cell
			bind:value={() => exchange.rate, (rate) => set({ rate })}
			label="Pounds for one {name.one}"
			path="exchange.rate"
			problem={wrong('exchange.rate')}
			placeholder={decided?.rate ?? 'not known'}
			numeric
			{fixed}
		/>
		<span class="quiet"
			>{#if fixed}the rate of the invoice it corrects
			{:else if decided && !exchange.rate.trim()}{decided.source}
			{:else if !decided}<a href="/settings/exchange">the table of rates</a> has none for that day
			{/if}</span
		>
	</div>
	{#if exchange.rate.trim()}<div class="field col-span-2">
			<span class="name">Where that rate is from</span><Cell
				bind:value={() => exchange.source, (source) => set({ source })}
				label="Where that rate is from"
				path="exchange.source"
				problem={wrong('exchange.source')}
				placeholder="my bank, on that day"
			/>
		</div>{/if}
{/if}
