<script lang="ts">
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { isHeld } from '$lib/core/settlement/owed';
	import { AGES } from '$lib/core/settlement/statement';
	import { AGE_NAMES } from '$lib/core/words';
	import OwedRow from '$lib/ui/owed/OwedRow.svelte';
	import { columnsOf, daysInWords, heightOf } from '$lib/ui/owed/scale';
	import Tape from '$lib/ui/owed/Tape.svelte';

	let { data } = $props();
	let form: HTMLFormElement;
	let pages = $derived(data.pages);
	/** Something is larger than the marks can show. */
	let over = $derived(
		data.rows.some((row) =>
			columnsOf(row.items, data.today).some((column) => column.sum > data.cap)
		)
	);

	function with_(changes: Record<string, string>): string {
		const params = new URLSearchParams(page.url.search);
		for (const [name, value] of Object.entries(changes))
			if (value) params.set(name, value);
			else params.delete(name);
		const query = params.toString();
		return query ? `/owed?${query}` : '/owed';
	}
	type Item = (typeof data.rows)[number] & { item: (typeof data.rows)[number]['items'][number] };
	const late = ({ item }: Item) => daysBetween(item.dueDate, data.today);
	const openItems: Column<Item>[] = [
		{
			id: 'payer',
			head: 'Payer',
			text: (row) => row.payer,
			href: (row) => `/owed/${row.payerId}`,
			names: true,
			sort: (row) => row.payer
		},
		{
			id: 'invoice',
			head: 'Invoice',
			text: ({ item }) => item.number,
			href: ({ item }) => `/billing/${item.documentId}`,
			look: () => 'mono whitespace-nowrap'
		},
		{
			id: 'due',
			head: 'Due',
			text: ({ item }) => displayDate(item.dueDate),
			sort: ({ item }) => item.dueDate,
			look: () => 'whitespace-nowrap'
		},
		{
			id: 'days',
			head: 'Days',
			text: (row) => daysInWords(late(row)),
			sort: late,
			look: (row) => `whitespace-nowrap ${late(row) > 0 ? 'late' : ''}`
		},
		{
			id: 'held',
			head: 'Held',
			text: ({ item }) =>
				!isHeld(item, data.today)
					? ''
					: item.hold?.kind === 'dispute'
						? 'disputed'
						: `promised by ${displayDate(item.hold!.until!)}`
		},
		{
			id: 'toPay',
			head: 'To pay, £',
			text: ({ item }) => displayAmount(item.toPay),
			sort: ({ item }) => Number(item.toPay),
			figures: true
		}
	];
</script>

<svelte:head><title>Owed · Axiometer</title></svelte:head>
<div class="page [--owed-columns:270px_minmax(0,1fr)_128px]">
	<div class="flex gap-y-3 gap-x-6 justify-between items-end flex-wrap mb-3.5">
		<div class="flex-[1_1_380px]">
			<h1>
				{data.owed
					? `${displayPounds(data.owed)} is owed to you`
					: 'Nothing is owed to you right now'}
			</h1>
			<p class="quiet">
				by {data.payers}
				{data.payers === 1 ? 'payer' : 'payers'} on {data.invoices}
				{data.invoices === 1 ? 'invoice' : 'invoices'}
				{#if data.late}· <span class="late">{displayPounds(data.late)} of it is late</span>{/if}
				{#if data.likely}· about {displayPounds(data.likely)} is likely by {displayDate(
						data.likelyBy
					)}, as they usually pay{/if}
			</p>
		</div>
		<dl
			class="panel ages flex phone:w-full phone:grid phone:grid-cols-[repeat(3,1fr)]"
			aria-label="Owed by days after due, in pounds"
		>
			{#each AGES as age (age)}
				<div
					class="py-2.25 px-4.5 not-first:border-l not-first:border-l-(--hair) phone:py-1.5 phone:px-3"
				>
					<dt class="text-(--ink-2) text-[0.906rem]">{AGE_NAMES[age]}</dt>
					<dd
						class="numbers font-[650] text-[1.2rem] phone:text-[1.02rem]"
						class:late={age === 'over90' && data.ages[age] > 0}
					>
						{displayAmount(data.ages[age])}
					</dd>
				</div>
			{/each}
		</dl>
	</div>
	{#if data.missingRate}<p class="panel note py-2.5 px-3.5 bg-(--tape-tint) mb-3">
			The Bank of England’s rate for the half year from {displayDate(data.missingRate)} is missing, so
			interest on what turned late since then cannot be shown.
			<a href="/settings#late">Enter it</a>
		</p>{/if}

	<form
		class="print:hidden flex flex-wrap gap-y-2 gap-x-3.5 items-center mb-3 [&_.box]:w-auto phone:[&_.box[name='q']]:flex-[1_1_100%]"
		bind:this={form}
		data-sveltekit-keepfocus
		data-sveltekit-noscroll
		onchange={() => form.requestSubmit()}
	>
		<input
			class="box"
			name="q"
			aria-label="Find a payer or a number"
			placeholder="Payer or number"
			value={data.filter.typed}
		/>
		<label class="check"
			><input type="checkbox" name="late" value="1" checked={data.filter.late} />late only</label
		>
		<label class="quiet above flex items-center gap-1"
			>above £<input
				class="box numbers w-22.5!"
				name="above"
				inputmode="decimal"
				value={data.filter.aboveTyped}
			/></label
		>
		{#if data.labels.length}<select class="box" name="label" aria-label="Label">
				<option value="">any label</option>
				{#each data.labels as label (label)}<option selected={label === data.filter.label}
						>{label}</option
					>{/each}
			</select>{/if}
		<select class="box" name="hold" aria-label="Held">
			<option value="">disputed, promised or neither</option>
			<option value="dispute" selected={data.filter.hold === 'dispute'}>disputed</option>
			<option value="promise" selected={data.filter.hold === 'promise'}>promised</option>
		</select>
		{#if data.asTable}<input type="hidden" name="as" value="table" />{/if}
		<noscript><button class="button">Show</button></noscript>
		<span class="flex-1"></span>
		<a class="button plain" href={with_({ as: data.asTable ? '' : 'table' })}
			>{data.asTable ? 'On the rule' : 'As a table'}</a
		>
		<a class="button" href="/owed/chasing">Chasing</a>
		<a class="button" href="/owed/statements">Statements</a>
	</form>

	{#if data.rows.length === 0}
		<div class="panel p-6.5 grid gap-2.5 justify-items-start">
			{#if data.payers === 0}
				<h2>Every invoice is paid</h2>
				<p>What is owed will stand here on a rule: how much, and how long before or after due.</p>
				<a class="button filled" href="/work/bill">See what is to bill</a>
			{:else}
				<p>Nobody fits what you chose.</p>
				<a class="button" href="/owed">Show all</a>
			{/if}
		</div>
	{:else if data.asTable}
		<div class="panel overflow-x-auto relative">
			<Table
				label="Open invoices, by payer"
				rows={data.rows.flatMap((row) => row.items.map((item) => ({ ...row, item })))}
				columns={openItems}
				id={({ item }) => item.documentId}
			/>
		</div>
	{:else}
		<section class="rule" aria-label="The money rule: payers, most worth a call first">
			<div
				class="grid grid-cols-(--owed-columns) items-end sticky top-0 z-4 bg-(--plaster) phone:grid-cols-1"
			>
				<span class="quiet pt-0 pb-1.5 px-3.5 text-[0.906rem] phone:hidden"
					>Most worth a call first</span
				>
				<Tape />
				<span class="quiet r pt-0 pb-1.5 px-3.5 text-[0.906rem] phone:hidden">open, £</span>
			</div>
			<ul class="border border-(--hair) border-t-0">
				{#each data.rows as row, index (row.payerId)}
					<OwedRow
						{row}
						today={data.today}
						cap={data.cap}
						worst={index === 0 && row.late > 0 && data.filter.page === 1}
					/>
				{/each}
			</ul>
			<p
				class="quiet flex flex-wrap items-end justify-center gap-x-5 gap-y-1 pt-2 min-h-13"
				aria-hidden="true"
			>
				{#each [16n, 4n, 1n] as part (part)}
					<span class="inline-flex items-end gap-1.5 numbers"
						><i
							class="inline-block w-3.5 border-[1.5px] border-(--ink) border-b-0 bg-(--sheet)"
							style:height="{42 * heightOf(data.cap / part, data.cap)}px"
						></i>{displayPounds(data.cap / part).replace(/\.00$/, '')}{part === 1n && over
							? ' and more'
							: ''}</span
					>
				{/each}
			</p>
		</section>
	{/if}
	{#if pages > 1}
		<nav class="flex gap-3 items-center justify-center mt-4" aria-label="Pages">
			{#if data.filter.page > 1}<a
					class="button"
					href={with_({ page: String(data.filter.page - 1) })}>Before</a
				>{/if}
			<span class="quiet">{data.filter.page} of {pages}</span>
			{#if data.filter.page < pages}<a
					class="button"
					href={with_({ page: String(data.filter.page + 1) })}>Next</a
				>{/if}
		</nav>
	{/if}
</div>
