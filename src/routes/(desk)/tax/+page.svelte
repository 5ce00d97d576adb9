<script lang="ts">
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { pressKey } from '$lib/ui/parts/keys';
	import Field from '$lib/ui/parts/Field.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data, form } = $props();
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let entering = $state<{ contractor: number; month: string } | null>(null);
	let panel = $state<HTMLElement>();
	const key = pressKey();
	let message = $derived(
		form && 'message' in form && Object.keys(errors).length === 0 ? String(form.message ?? '') : ''
	);
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
	function enter(contractor: number, month: string) {
		entering = { contractor, month };
		panel?.scrollIntoView({ block: 'center' });
		panel?.querySelector<HTMLElement>('[name="gross"]')?.focus();
	}
</script>

<svelte:head><title>Tax · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<div>
			<h1>{displayPounds(data.withheld)} withheld by contractors</h1>
			<p class="quiet">
				in the tax year to {displayDate(data.year)}, of {displayPounds(data.gross)} paid. It counts toward
				your Income Tax and National Insurance; {displayPounds(data.stated)} of it is on statements.
			</p>
		</div>
		<span class="gap"></span>
		<nav aria-label="Tax years">
			{#each data.years as year (year)}<a
					href="/tax?year={year}"
					class:on={year === data.year}
					aria-current={year === data.year ? 'page' : undefined}>to {displayDate(year)}</a
				>{/each}
		</nav>
	</div>
	<div class="columns">
		<section class="panel scroll">
			{#if data.months.length}
				<table>
					<thead>
						<tr
							><th>Tax month</th><th>Contractor</th><th class="r">Paid, £</th><th class="r"
								>Expected, £</th
							><th class="r">Withheld, £</th><th class="r">Statement, £</th><th>State</th></tr
						>
					</thead>
					<tbody>
						{#each data.months as month (`${month.contractorId} ${month.monthEnd}`)}
							<tr>
								<td
									>{displayDate(month.from).replace(/ \d{4}$/, '')} to {displayDate(
										month.monthEnd
									)}</td
								>
								<td><a href="/owed/{month.contractorId}">{month.contractor}</a></td>
								<td class="r numbers" data-label="Paid">{displayAmount(month.gross)}</td>
								<td class="r numbers" data-label="Expected">{displayAmount(month.expected)}</td>
								<td
									class="r numbers"
									data-label="Withheld"
									class:late={month.withheld !== month.expected}>{displayAmount(month.withheld)}</td
								>
								<td class="r numbers" data-label="Statement"
									>{month.stated === null ? '–' : displayAmount(month.stated)}</td
								>
								<td class="state">
									<span class:late={month.state === 'missing' || month.state === 'differs'}
										>{STATES[month.state]}{month.state === 'differs'
											? ` by ${displayPounds(Math.abs(month.stated! - month.withheld))}`
											: month.state === 'missing'
												? `, due ${displayDate(month.deadline)}`
												: ''}</span
									>
									{#if month.stated === null}
										<button
											class="button plain"
											type="button"
											onclick={() => enter(month.contractorId, month.monthEnd)}
											>Enter it<span class="sr-only">
												for {month.contractor}, {displayDate(month.monthEnd)}</span
											></button
										>
									{:else}
										<form method="post" action="?/remove" use:enhance>
											<input type="hidden" name="contractor" value={month.contractorId} />
											<input type="hidden" name="month" value={month.monthEnd} />
											<button class="button plain"
												>Take it back<span class="sr-only">: {month.contractor}</span></button
											>
										</form>
									{/if}
								</td>
							</tr>
						{/each}
					</tbody>
				</table>
			{:else}
				<div class="empty">
					<h2>Nothing was withheld in this tax year</h2>
					<p>
						What contractors deduct from their payments stands here, month by month (6th to 5th),
						against the statements they give you.
					</p>
				</div>
			{/if}
		</section>
		<section class="panel enter" bind:this={panel}>
			<h2>A payment and deduction statement</h2>
			<form
				method="post"
				action="?/save"
				use:enhance={() =>
					async ({ result, update }) => {
						await update({ reset: result.type === 'success' });
						if (result.type !== 'success') return;
						entering = null;
						notices.say('The statement is kept.');
					}}
			>
				<label class="field"
					><span class="name">From</span><select
						class="box"
						name="contractor"
						aria-invalid={errors.contractor ? 'true' : undefined}
					>
						<option value="">choose the contractor</option>
						{#each data.contractors as one (one.id)}<option
								value={one.id}
								selected={entering?.contractor === one.id}>{one.name}</option
							>{/each}
					</select>{#if errors.contractor}<span class="wrong">{errors.contractor}</span>{/if}</label
				>
				<DateField
					label="A day of its tax month"
					name="month"
					value={entering?.month ?? ''}
					error={errors.month}
				/>
				<Field
					label="Paid before the deduction, without VAT, £"
					name="gross"
					inputmode="decimal"
					value=""
					error={errors.gross}
				/>
				<Field
					label="Materials, £"
					name="materials"
					inputmode="decimal"
					value=""
					error={errors.materials}
				/>
				<Field
					label="Deducted, £"
					name="deduction"
					inputmode="decimal"
					value=""
					error={errors.deduction}
				/>
				<Field label="Its number" name="reference" value="" error={errors.reference} />
				<button class="button filled">Keep it</button>
			</form>
			<form
				class="file"
				method="post"
				action="?/file"
				enctype="multipart/form-data"
				bind:this={upload}
				use:enhance
			>
				<FilePick
					label="Or bring in a CSV of many"
					name="file"
					accept=".csv,.txt"
					error={errors.file}
					onchoose={() => upload?.requestSubmit()}
				/>
			</form>
		</section>
	</div>
	{#if message}<p class="wrong" role="alert">{message}</p>{/if}
	{#if preview}
		<section class="panel scroll preview" aria-labelledby="preview">
			<h2 id="preview">
				{preview.rows.length}
				{preview.rows.length === 1 ? 'statement' : 'statements'} in the file
			</h2>
			{#if preview.rows.length}
				<table>
					<thead
						><tr
							><th>Tax month to</th><th>Contractor</th><th class="r">Paid, £</th><th class="r"
								>Deducted, £</th
							><th class="r">By the books, £</th><th>State</th></tr
						></thead
					>
					<tbody>
						{#each preview.rows as row (row.line)}
							<tr>
								<td>{displayDate(row.monthEnd)}</td>
								<td>{row.contractor}</td>
								<td class="r numbers" data-label="Paid">{displayAmount(row.gross)}</td>
								<td class="r numbers" data-label="Deducted">{displayAmount(row.deduction)}</td>
								<td class="r numbers" data-label="By the books">{displayAmount(row.withheld)}</td>
								<td class:late={row.deduction !== row.withheld}
									>{row.known
										? 'replaces the one that is kept'
										: row.deduction === row.withheld
											? 'agrees'
											: `differs by ${displayPounds(Math.abs(row.deduction - row.withheld))}`}</td
								>
							</tr>
						{/each}
					</tbody>
				</table>
			{/if}
			{#each preview.problems as problem (problem.line)}<p class="late">
					Line {problem.line}: {problem.message}. It is left out.
				</p>{/each}
			{#if preview.rows.length}
				<form
					method="post"
					action="?/bringIn"
					use:enhance={() =>
						async ({ result, update }) => {
							await update();
							if (result.type === 'success') notices.say('The statements are kept.');
						}}
				>
					<input type="hidden" name="rows" value={JSON.stringify(preview.rows)} />
					<button class="button filled">Keep {preview.rows.length === 1 ? 'it' : 'them'}</button>
				</form>
			{/if}
		</section>
	{/if}
	<section class="panel scroll debts" aria-labelledby="debts">
		<h2 id="debts">VAT of bad debts</h2>
		{#if data.badDebts.length}
			<table>
				<thead
					><tr
						><th>Invoice</th><th>Customer</th><th class="r">Written off, £</th><th class="r"
							>VAT in it, £</th
						><th>State</th></tr
					></thead
				>
				<tbody>
					{#each data.badDebts as row (row.documentId)}
						<tr>
							<td><a class="mono" href="/billing/{row.documentId}">{row.number}</a></td>
							<td>{row.customer}</td>
							<td class="r numbers" data-label="Written off">{displayAmount(row.writtenOff)}</td>
							<td class="r numbers" data-label="VAT"
								>{displayAmount(row.state === 'claimed' ? row.claimed : row.vat)}</td
							>
							<td class="state">
								<span class:late={row.state === 'repay'}
									>{RELIEF[row.state]}{row.state === 'waiting'
										? ` ${displayDate(row.from)}`
										: row.state === 'claimable' || row.state === 'expired'
											? ` ${displayDate(row.until)}`
											: ''}</span
								>
								{#if row.state === 'claimable' || row.state === 'repay'}
									<form method="post" action="?/relief" use:enhance>
										<input type="hidden" name="document" value={row.documentId} />
										<input type="hidden" name="key" value="{key}:{row.documentId}:{row.vat}" />
										<button class="button plain"
											>{row.state === 'repay' ? 'It is repaid' : 'It is claimed (box 4)'}<span
												class="sr-only">: {row.number}</span
											></button
										>
									</form>
								{/if}
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}
			<p class="quiet">
				None. When a debt with VAT is written off, what can be claimed back stands here, from six
				months after it was due until four years later.
			</p>
		{/if}
	</section>
</div>

<style>
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 20px;
		align-items: end;
		margin-bottom: 14px;
	}
	.gap {
		flex: 1;
	}
	.preview,
	.debts {
		margin-top: 16px;
		padding: 16px 18px;
		display: grid;
		gap: 8px;
		justify-items: start;
	}
	.file {
		margin-top: 12px;
	}
	nav {
		display: flex;
		gap: 14px;
	}
	nav a {
		text-decoration: none;
		padding: 6px 0;
		border-bottom: 4px solid transparent;
	}
	nav a.on {
		font-weight: 650;
		border-bottom-color: var(--tape);
	}
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 300px;
		gap: 16px 20px;
		align-items: start;
	}
	.scroll {
		overflow-x: auto;
		/* Words for screen readers stay inside, and do not widen the page. */
		position: relative;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th,
	td {
		text-align: left;
		padding: 8px 12px;
		border-bottom: 1px solid var(--hair);
		vertical-align: top;
	}
	thead th {
		color: var(--ink-2);
		font-weight: 400;
		font-size: 0.875rem;
		border-bottom: 1.5px solid var(--ink);
		white-space: nowrap;
	}
	th.r,
	td.r {
		text-align: right;
	}
	td.state form {
		display: inline;
	}
	td.state .button {
		min-height: 0;
		padding: 0 6px;
	}
	td.numbers {
		white-space: nowrap;
	}
	.empty,
	.enter {
		padding: 18px 20px;
	}
	.enter form {
		display: grid;
		gap: 10px;
		margin-top: 8px;
	}
	@media (max-width: 760px) {
		thead {
			position: absolute;
			clip-path: inset(50%);
		}
		tr {
			display: grid;
			grid-template-columns: repeat(2, minmax(0, 1fr));
			padding: 10px 16px;
			border-bottom: 1px solid var(--hair);
		}
		td {
			border: 0;
			padding: 2px 0;
		}
		td:not([data-label]) {
			grid-column: 1 / -1;
		}
		td:nth-child(2) {
			font-weight: 650;
			order: -1;
		}
		td.r {
			text-align: left;
		}
		td[data-label]::before {
			content: attr(data-label) ' £';
			color: var(--ink-2);
			font-size: 0.875rem;
		}
		td.state .button {
			min-height: 44px;
		}
	}
	@media (max-width: 1000px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
