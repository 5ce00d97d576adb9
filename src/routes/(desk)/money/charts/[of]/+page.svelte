<script lang="ts">
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';

	let { data } = $props();
	let sum = $derived(data.rows.reduce((total, row) => total + row.amount, 0));

	let documents = $derived<Column<(typeof data.rows)[number] & { index: number }>[]>([
		{
			id: 'document',
			head: 'Document',
			text: (row) => (row.documentId ? row.number : 'several, or none yet'),
			href: (row) => (row.documentId ? `/billing/${row.documentId}` : null),
			look: (row) => (row.documentId ? 'mono' : '')
		},
		{
			id: 'customer',
			head: 'Customer',
			text: (row) => row.customer,
			sort: (row) => row.customer
		},
		{ id: 'day', head: 'Day', text: (row) => displayDate(row.date), sort: (row) => row.date },
		{
			id: 'amount',
			head: data.inDays ? 'Days after due' : 'Amount, £',
			text: (row) => (data.inDays ? row.amount : displayAmount(row.amount)),
			sort: (row) => row.amount,
			figures: true
		}
	]);
</script>

<svelte:head><title>{data.title} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money/charts">Charts</a></p>
	<h1 class="mb-3.5">{data.title}{data.inDays ? '' : `: ${displayPounds(sum)}`}</h1>
	{#if data.rows.length}
		<div class="panel overflow-x-auto">
			<Table
				label={data.title}
				rows={data.rows.map((row, index) => ({ ...row, index }))}
				columns={documents}
				id={(row) => row.index}
			/>
		</div>
	{:else}<p class="panel p-4.5">Nothing stands behind it.</p>{/if}
</div>
