<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import PeriodChoice from '$lib/ui/reports/PeriodChoice.svelte';
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';

	let { data } = $props();
	let boxes = $derived(data.boxes);
	const WHY = {
		advance: 'paid before',
		taxPoint: 'tax point',
		credit: 'credited',
		payment: 'paid',
		refund: 'given back'
	} as const;
	let shown = $derived([
		{ box: '1', words: 'VAT due on sales', amount: displayAmount(boxes.box1), href: '#sales' },
		{ box: '3', words: 'VAT due in all', amount: displayAmount(boxes.box3), href: '#sales' },
		{
			box: '4',
			words: 'VAT reclaimed on costs',
			amount: displayAmount(boxes.box4),
			href: '#costs'
		},
		{
			box: '5',
			words: boxes.box5 < 0n ? 'To get back' : 'To pay',
			amount: displayAmount(boxes.box5 < 0n ? -boxes.box5 : boxes.box5),
			href: '#sales'
		},
		{
			box: '6',
			words: 'Sales without VAT, whole pounds',
			amount: boxes.box6.toLocaleString('en-GB'),
			href: '#sales'
		},
		{
			box: '7',
			words: 'Purchases without VAT, whole pounds',
			amount: boxes.box7.toLocaleString('en-GB'),
			href: '#costs'
		}
	]);
	type Sale = (typeof data.rows)[number];
	type Cost = (typeof data.costRows)[number];
	const sales: Column<Sale>[] = [
		{ id: 'number', head: 'Document', names: true, cell: number },
		{ id: 'customer', head: 'Customer', text: (row) => row.customer },
		{ id: 'date', head: 'Date', text: (row) => displayDate(row.date) },
		{ id: 'why', head: 'Because', text: (row) => WHY[row.why] },
		{ id: 'net', head: 'Without VAT, £', figures: true, text: (row) => displayAmount(row.net) },
		{ id: 'vat', head: 'VAT, £', figures: true, text: (row) => displayAmount(row.vat) }
	];
	const costs: Column<Cost>[] = [
		{ id: 'what', head: 'What', names: true, cell: what },
		{ id: 'date', head: 'Date', text: (row) => displayDate(row.date) },
		{ id: 'net', head: 'Without VAT, £', figures: true, text: (row) => displayAmount(row.net) },
		{ id: 'vat', head: 'VAT reclaimed, £', figures: true, text: (row) => displayAmount(row.vat) }
	];
</script>

{#snippet number(row: Sale)}<a href="/billing/{row.documentId}"
		>{row.number}<span class="sr-only">, {WHY[row.why]} {displayDate(row.date)}</span></a
	>{/snippet}
{#snippet what(row: Cost)}<a href="/costs/{row.id}"
		>{row.description}<span class="sr-only">, cost {row.id}</span></a
	>{/snippet}

<svelte:head><title>VAT period · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/reports">Reports</a></p>
	<h1 class="mb-3">VAT from {displayDate(data.period.from)} to {displayDate(data.period.to)}</h1>
	<PeriodChoice
		{data}
		bases={{ cash: 'Cash accounting', invoice: 'By tax point (the usual way)' }}
	/>
	{#if data.registered && !data.said}<p class="quiet mb-4">
			When your VAT periods end is not known yet: <a href="/settings?change=tax">say so</a>, and
			they stand here.
		</p>{/if}
	{#if !data.usual}<p class="quiet mb-4">
			By your settings VAT counts {data.basis === 'cash' ? 'by tax point' : 'when you are paid'}:
			this shows the other way.
		</p>{/if}
	{#if !data.registered}<p class="panel py-3 px-4 mb-4">
			You are not registered for VAT: there is no return to make.
		</p>{/if}
	<dl class="panel grid gap-1 py-4 px-5 mb-5 max-w-170">
		{#each shown as { box, words, amount, href } (box)}
			<div
				class="flex items-baseline justify-between gap-4 border-b border-(--hair) last:border-b-0 py-1.5"
			>
				<dt><b>Box {box}</b> <a {href}>{words}</a></dt>
				<dd class="numbers {box === '5' ? 'text-[1.3rem] font-semibold' : ''}">{amount}</dd>
			</div>
		{/each}
	</dl>
	<p class="quiet mb-4">
		From your documents and costs, by the rules of {data.basis === 'cash'
			? 'cash accounting: reverse-charge sales and invoices in advance count by their tax point all the same'
			: 'the tax point'}. What was bought under the reverse charge is not in here; closing the
		period and sending it come later.
	</p>
	<h2 id="sales" class="mb-2">Sales, {displayPounds(boxes.box1)} VAT</h2>
	<div class="panel overflow-x-auto mb-5">
		<Table
			label="Sales of the period"
			rows={data.rows.map((row, index) => ({ ...row, index }))}
			columns={sales}
			id={(row) => `${row.documentId} ${row.date} ${row.why} ${(row as { index?: number }).index}`}
			stack
		/>
		{#if data.rows.length === 0}<p class="py-3 px-4 quiet">Nothing counts in this period.</p>{/if}
	</div>
	<h2 id="costs" class="mb-2">Costs, {displayPounds(boxes.box4)} VAT reclaimed</h2>
	<div class="panel overflow-x-auto">
		<Table
			label="Costs of the period"
			rows={data.costRows}
			columns={costs}
			id={(row) => row.id}
			stack
		/>
		{#if data.costRows.length === 0}<p class="py-3 px-4 quiet">
				Nothing counts in this period.
			</p>{/if}
	</div>
	{#if data.more}<p class="quiet mt-3">
			{data.more.toLocaleString('en-GB')} more rows are in the accountant’s pack.
		</p>{/if}
</div>
