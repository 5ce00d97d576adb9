<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import { fromBin } from '$lib/ui/parts/takeBack';
	import Table from '$lib/ui/parts/Table.svelte';
	import type { Column } from '$lib/ui/parts/table';
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { absolute } from '$lib/core/money/decimal';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Money from '$lib/ui/parts/Money.svelte';
	import Field from '$lib/ui/parts/Field.svelte';

	let { data, form } = $props();
	let entering = $state<{ contractor: number; month: string } | null>(null);
	let panel = $state<HTMLElement>();
	let upload = $state<HTMLFormElement>();
	let preview = $derived(form && 'preview' in form ? form.preview : null);
	const RELIEF = {
		none: '',
		waiting: 'can be claimed from',
		claimable: 'can be claimed now, until',
		expired: 'could be claimed until',
		claimed: 'claimed back',
		repay: 'to be repaid: they paid after all'
	};
	const STATES = {
		agrees: 'agrees',
		differs: 'differs',
		waiting: 'not due yet',
		missing: 'has not come',
		unexpected: 'nothing was withheld'
	};
	type Month = (typeof data.months)[number];
	type Debt = (typeof data.badDebts)[number];
	type Row = NonNullable<typeof preview>['rows'][number];
	const months: Column<Month>[] = [
		{
			id: 'month',
			head: 'Tax month',
			text: (month) =>
				`${displayDate(month.from).replace(/ \d{4}$/, '')} to ${displayDate(month.monthEnd)}`,
			sort: (month) => month.monthEnd
		},
		{
			id: 'contractor',
			head: 'Contractor',
			text: (month) => month.contractor,
			href: (month) => `/owed/${month.contractorId}`,
			names: true,
			sort: (month) => month.contractor
		},
		figures('gross', 'Paid', (month: Month) => month.gross),
		figures('expected', 'Expected', (month: Month) => month.expected),
		{
			...figures('withheld', 'Withheld', (month: Month) => month.withheld),
			look: (month) => (month.withheld === month.expected ? '' : 'late')
		},
		figures('stated', 'Statement', (month: Month) => month.stated),
		{ id: 'state', head: 'State', cell: monthState }
	];
	const statements: Column<Row>[] = [
		{ id: 'month', head: 'Tax month to', text: (row) => displayDate(row.monthEnd) },
		{ id: 'contractor', head: 'Contractor', text: (row) => row.contractor, names: true },
		figures('gross', 'Paid', (row: Row) => row.gross),
		figures('deduction', 'Deducted', (row: Row) => row.deduction),
		figures('withheld', 'By the books', (row: Row) => row.withheld),
		{
			id: 'state',
			head: 'State',
			text: (row) =>
				row.known
					? 'replaces the one that is kept'
					: BigInt(row.deduction) === row.withheld
						? 'agrees'
						: `differs by ${displayPounds(absolute(BigInt(row.deduction) - row.withheld))}`,
			look: (row) => (BigInt(row.deduction) === row.withheld ? '' : 'late')
		}
	];
	const debts: Column<Debt>[] = [
		{
			id: 'invoice',
			head: 'Invoice',
			text: (row) => row.number,
			href: (row) => `/billing/${row.documentId}`,
			look: () => 'mono'
		},
		{ id: 'customer', head: 'Customer', text: (row) => row.customer, names: true },
		figures('writtenOff', 'Written off', (row: Debt) => row.writtenOff),
		figures('vat', 'VAT in it', (row: Debt) => (row.state === 'claimed' ? row.claimed : row.vat)),
		{ id: 'state', head: 'State', cell: debtState }
	];
	function figures<R>(id: string, head: string, of: (row: R) => number | Minor | null): Column<R> {
		return {
			id,
			head: `${head}, £`,
			stacked: `${head} £`,
			figures: true,
			text: (row) => {
				const amount = of(row);
				return amount === null ? '–' : displayAmount(amount);
			},
			sort: (row) => Number(of(row) ?? 0)
		};
	}
	function enter(contractor: number, month: string) {
		entering = { contractor, month };
		panel?.scrollIntoView({ block: 'center' });
		panel?.querySelector<HTMLElement>('[name="gross"]')?.focus();
	}
</script>

<svelte:head><title>Tax · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex flex-wrap gap-y-2 gap-x-5 items-end mb-3.5">
		<div>
			<h1>{displayPounds(data.withheld)} withheld by contractors</h1>
			<p class="quiet">
				in the tax year to {displayDate(data.year)}, of {displayPounds(data.gross)} paid. It counts toward
				your Income Tax and National Insurance; {displayPounds(data.stated)} of it is on statements.
			</p>
		</div>
		<span class="flex-1"></span>
		<nav class="flex gap-3.5" aria-label="Tax years">
			{#each data.years as year (year)}<a
					class="no-underline py-1.5 px-0 border-b-4 border-b-transparent [&.on]:font-[650] [&.on]:border-b-(--tape)"
					href="/tax?year={year}"
					class:on={year === data.year}
					aria-current={year === data.year ? 'page' : undefined}>to {displayDate(year)}</a
				>{/each}
		</nav>
	</div>
	<div
		class="columns grid grid-cols-[minmax(0,1fr)_300px] gap-y-4 gap-x-5 items-start max-[1180px]:grid-cols-1"
	>
		<section class="panel overflow-x-auto relative">
			{#if data.months.length}
				<Table
					label="Tax months"
					rows={data.months}
					columns={months}
					id={(month) => `${month.contractorId} ${month.monthEnd}`}
					stack
				/>
			{:else}
				<div class="py-4.5 px-5">
					<h2>Nothing was withheld in this tax year</h2>
					<p>
						What contractors deduct from their payments stands here, month by month (6th to 5th),
						against the statements they give you.
					</p>
				</div>
			{/if}
		</section>
		<section class="panel py-4.5 px-5" bind:this={panel}>
			<h2>A payment and deduction statement</h2>
			<Form
				class="grid gap-2.5 mt-2"
				action="?/save"
				reset
				done="The statement is kept."
				ondone={() => (entering = null)}
			>
				<Choice label="From" name="contractor" value={String(entering?.contractor ?? '')}>
					<option value="">choose the contractor</option>
					{#each data.contractors as one (one.id)}<option value={String(one.id)}>{one.name}</option
						>{/each}
				</Choice>
				<DateField label="A day of its tax month" name="month" value={entering?.month ?? ''} />
				<Money label="Paid before the deduction, without VAT" name="gross" />
				<Money label="Materials" name="materials" />
				<Money label="Deducted" name="deduction" />
				<Field label="Its number" name="reference" value="" />
				<button class="button filled">Keep it</button>
			</Form>
			<Form
				class="file grid gap-2.5 mt-2"
				action="?/file"
				enctype="multipart/form-data"
				bind:root={upload}
			>
				<FilePick
					label="Or bring in a CSV of many"
					name="file"
					accept=".csv,.txt"
					onchoose={() => upload?.requestSubmit()}
				/>
			</Form>
		</section>
	</div>
	{#if preview}
		<section
			class="panel mt-4 py-4 px-4.5 grid gap-2 justify-items-start overflow-x-auto relative"
			aria-labelledby="preview"
		>
			<h2 id="preview">
				{preview.rows.length}
				{preview.rows.length === 1 ? 'statement' : 'statements'} in the file
			</h2>
			{#if preview.rows.length}
				<Table
					label="Statements in the file"
					rows={preview.rows}
					columns={statements}
					id={(row) => row.line}
					stack
				/>
			{/if}
			{#each preview.problems as problem (problem.line)}<p class="late">
					Line {problem.line}: {problem.message}. It is left out.
				</p>{/each}
			{#if preview.rows.length}
				<Form
					action="?/bringIn"
					hidden={{ rows: JSON.stringify(preview.rows) }}
					done="The statements are kept."
				>
					<button class="button filled">Keep {preview.rows.length === 1 ? 'it' : 'them'}</button>
				</Form>
			{/if}
		</section>
	{/if}
	<section
		class="panel mt-4 py-4 px-4.5 grid gap-2 justify-items-start overflow-x-auto relative"
		aria-labelledby="debts"
	>
		<h2 id="debts">VAT of bad debts</h2>
		{#if data.badDebts.length}
			<Table
				label="VAT of bad debts"
				rows={data.badDebts}
				columns={debts}
				id={(row) => row.documentId}
				stack
			/>
		{:else}
			<p class="quiet">
				None. When a debt with VAT is written off, what can be claimed back stands here, from six
				months after it was due until four years later.
			</p>
		{/if}
	</section>
</div>

{#snippet monthState(month: Month)}
	<span class:late={month.state === 'missing' || month.state === 'differs'}
		>{STATES[month.state]}{month.state === 'differs'
			? ` by ${displayPounds(absolute(month.stated! - month.withheld))}`
			: month.state === 'missing'
				? `, due ${displayDate(month.deadline)}`
				: ''}</span
	>
	{#if month.stated === null}
		<button
			class="button plain min-h-0 py-0 px-1.5 phone:min-h-11"
			type="button"
			onclick={() => enter(month.contractorId, month.monthEnd)}
			>Enter it <span class="sr-only">for {month.contractor}, {displayDate(month.monthEnd)}</span
			></button
		>
	{:else}
		<Form
			class="inline"
			action="?/remove"
			hidden={{ contractor: month.contractorId, month: month.monthEnd }}
			done="The statement is taken back."
			undo={fromBin}
		>
			<button class="button plain min-h-0 py-0 px-1.5 phone:min-h-11"
				>Take it back<span class="sr-only">: {month.contractor}, {displayDate(month.monthEnd)}</span
				></button
			>
		</Form>
	{/if}
{/snippet}

{#snippet debtState(row: Debt)}
	<span class:late={row.state === 'repay'}
		>{RELIEF[row.state]}{row.state === 'waiting'
			? ` ${displayDate(row.from)}`
			: row.state === 'claimable' || row.state === 'expired'
				? ` ${displayDate(row.until)}`
				: ''}</span
	>
	{#if row.state === 'claimable' || row.state === 'repay'}
		<Form class="inline" action="?/relief" keyed hidden={{ document: row.documentId }}>
			<button class="button plain min-h-0 py-0 px-1.5 phone:min-h-11"
				>{row.state === 'repay' ? 'It is repaid' : 'It is claimed (box 4)'}
				<span class="sr-only">: {row.number}</span></button
			>
		</Form>
	{/if}
{/snippet}
