<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { CURRENCY_NAMES, OTHER_CURRENCIES } from '$lib/core/money/currencies';
	import type { ExchangeRate } from '$lib/core/money/exchange';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';

	let { data } = $props();
	let upload = $state<HTMLFormElement>();
	const days = ({ from, to }: ExchangeRate) =>
		from === to ? displayDate(from) : `${displayDate(from)} to ${displayDate(to)}`;
	const columns: Column<ExchangeRate>[] = [
		{ id: 'money', head: 'One', text: (one) => CURRENCY_NAMES[one.currency].one, names: true },
		{ id: 'days', head: 'On', text: days },
		{ id: 'rate', head: 'Is worth, £', text: (one) => one.rate, figures: true },
		{ id: 'source', head: 'Where it is from', text: (one) => one.source },
		{ id: 'out', head: 'Take out', quiet: true, cell: out }
	];
	const taken = (answer: Record<string, unknown>) =>
		answer.taken === 1
			? 'One rate is in the table.'
			: `${String(answer.taken)} rates are in the table.`;
</script>

{#snippet out(one: ExchangeRate)}
	<Form
		action="?/remove"
		hidden={{ currency: one.currency, from: one.from }}
		done="The rate is taken out."
		undo={{ action: '?/restore', values: { ...one } }}
	>
		<button class="button plain"
			>Take it out <span class="sr-only">: one {CURRENCY_NAMES[one.currency].one}, {days(one)}</span
			></button
		>
	</Form>
{/snippet}

<svelte:head><title>Exchange rates · Axiometer</title></svelte:head>
<div class="page max-w-245">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-1">Exchange rates</h1>
	<p class="mb-4">
		A document in other money comes into your books, and its VAT to the tax office, at the rate of
		its tax point. What is issued keeps the rate it was issued with.
	</p>
	<div class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-3.5 mb-4.5 max-[900px]:grid-cols-1">
		<section class="panel grid gap-3 content-start py-4 px-4.5">
			<h2>From a monthly file</h2>
			<p class="quiet">
				The tax office publishes a CSV for each month: currency code, units to the pound, first and
				last day. Money that no document here can be in is passed over.
			</p>
			<Form bind:root={upload} action="?/file" enctype="multipart/form-data" done={taken}>
				<FilePick
					label="Bring a month in"
					name="file"
					accept=".csv,.txt"
					onchoose={() => upload?.requestSubmit()}
				/>
				<noscript><button class="button">Bring it in</button></noscript>
			</Form>
		</section>
		<Form
			action="?/add"
			reset
			done="The rate is in the table."
			class="panel grid grid-cols-[repeat(auto-fit,minmax(170px,1fr))] gap-y-2.5 gap-x-4 items-start py-4 px-4.5"
		>
			<h2 class="col-span-full">One rate by hand</h2>
			<Choice label="One" name="currency" value="EUR">
				{#each OTHER_CURRENCIES as code (code)}<option value={code}
						>{CURRENCY_NAMES[code].one} ({code})</option
					>{/each}
			</Choice>
			<Field label="Is worth, £" name="rate" inputmode="decimal" placeholder="0.8432" />
			<DateField label="From" name="from" value={data.today} />
			<DateField label="To" name="to" value="" />
			<Field
				label="Where it is from"
				name="source"
				placeholder="the bank’s selling rate"
				maxlength={200}
				look="col-span-full"
			/>
			<div class="col-span-full"><button class="button filled">Write it down</button></div>
		</Form>
	</div>
	{#if data.rates.length}
		<Table
			label="Exchange rates"
			stack
			rows={data.rates}
			{columns}
			id={(one) => `${one.currency} ${one.from}`}
		/>
	{:else}<p class="panel p-6">
			{data.any
				? 'The newest rates are more than a year and a half old.'
				: 'None yet. A document in other money asks for its rate; one that stands here is taken by itself.'}
		</p>{/if}
	{#if data.older}<p class="quiet mt-2">
			{data.older}
			{data.older === 1 ? 'older rate is' : 'older rates are'} kept, and not shown.
		</p>{/if}
</div>
