<script lang="ts">
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { isHeld } from '$lib/core/settlement/owed';
	import { AGES } from '$lib/core/settlement/statement';
	import { AGE_NAMES } from '$lib/core/words';
	import OwedRow from '$lib/ui/owed/OwedRow.svelte';
	import { daysInWords } from '$lib/ui/owed/scale';
	import Tape from '$lib/ui/owed/Tape.svelte';

	let { data } = $props();
	let form: HTMLFormElement;
	let pages = $derived(data.pages);

	function with_(changes: Record<string, string>): string {
		const params = new URLSearchParams(page.url.search);
		for (const [name, value] of Object.entries(changes))
			if (value) params.set(name, value);
			else params.delete(name);
		const query = params.toString();
		return query ? `/owed?${query}` : '/owed';
	}
</script>

<svelte:head><title>Owed · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<div>
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
		<dl class="panel ages" aria-label="Owed by days after due, in pounds">
			{#each AGES as age (age)}
				<div>
					<dt>{AGE_NAMES[age]}</dt>
					<dd class="numbers" class:late={age === 'over90' && data.ages[age] > 0}>
						{displayAmount(data.ages[age])}
					</dd>
				</div>
			{/each}
		</dl>
	</div>
	{#if data.missingRate}<p class="panel note">
			The Bank of England’s rate for the half year from {displayDate(data.missingRate)} is missing, so
			interest on what turned late since then cannot be shown.
			<a href="/settings#late">Enter it</a>
		</p>{/if}

	<form class="filters" bind:this={form} onchange={() => form.requestSubmit()}>
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
		<label class="quiet above"
			>above £<input
				class="box numbers"
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
			<option value="">held or not</option>
			<option value="dispute" selected={data.filter.hold === 'dispute'}>disputed</option>
			<option value="promise" selected={data.filter.hold === 'promise'}>promised</option>
		</select>
		{#if data.asTable}<input type="hidden" name="as" value="table" />{/if}
		<noscript><button class="button">Show</button></noscript>
		<span class="gap"></span>
		<a class="button plain" href={with_({ as: data.asTable ? '' : 'table' })}
			>{data.asTable ? 'On the rule' : 'As a table'}</a
		>
		<a class="button" href="/owed/chasing">Chasing</a>
		<a class="button" href="/owed/statements">Statements</a>
	</form>

	{#if data.rows.length === 0}
		<div class="panel empty">
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
		<div class="panel scroll">
			<table>
				<thead>
					<tr
						><th>Payer</th><th>Invoice</th><th>Due</th><th>Days</th><th>Held</th><th class="r"
							>To pay, £</th
						></tr
					>
				</thead>
				<tbody>
					{#each data.rows as row (row.payerId)}
						{#each row.items as item, index (item.documentId)}
							{@const days = daysBetween(item.dueDate, data.today)}
							<tr>
								<th scope="row"
									>{#if index === 0}<a href="/owed/{row.payerId}">{row.payer}</a>{:else}<span
											class="sr-only">{row.payer}</span
										>{/if}</th
								>
								<td><a class="mono" href="/billing/{item.documentId}">{item.number}</a></td>
								<td>{displayDate(item.dueDate)}</td>
								<td class:late={days > 0}>{daysInWords(days)}</td>
								<td
									>{isHeld(item, data.today)
										? item.hold?.kind === 'dispute'
											? 'disputed'
											: `promised by ${displayDate(item.hold!.until!)}`
										: ''}</td
								>
								<td class="r numbers">{displayAmount(item.toPay)}</td>
							</tr>
						{/each}
					{/each}
				</tbody>
			</table>
		</div>
	{:else}
		<section class="rule" aria-label="The money rule: payers, most worth a call first">
			<div class="head">
				<span class="quiet">Most worth a call first</span>
				<Tape />
				<span class="quiet r">open, £</span>
			</div>
			<ul>
				{#each data.rows as row, index (row.payerId)}
					<OwedRow
						{row}
						today={data.today}
						largest={data.largest}
						worst={index === 0 && row.late > 0 && data.filter.page === 1}
					/>
				{/each}
			</ul>
		</section>
	{/if}
	{#if pages > 1}
		<nav class="pages" aria-label="Pages">
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

<style>
	.page {
		--owed-columns: 270px minmax(0, 1fr) 128px;
	}
	.top {
		display: flex;
		gap: 12px 24px;
		justify-content: space-between;
		align-items: end;
		flex-wrap: wrap;
		margin-bottom: 14px;
	}
	.top > div {
		flex: 1 1 380px;
	}
	.ages {
		display: flex;
	}
	.ages div {
		padding: 9px 18px;
	}
	.ages div + div {
		border-left: 1px solid var(--hair);
	}
	.ages dt {
		color: var(--ink-2);
		font-size: 0.906rem;
	}
	.ages dd {
		font-weight: 650;
		font-size: 1.2rem;
	}
	.note {
		padding: 10px 14px;
		background: var(--tape-tint);
		margin-bottom: 12px;
	}
	.filters {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 14px;
		align-items: center;
		margin-bottom: 12px;
	}
	.filters .box {
		width: auto;
	}
	.above {
		display: flex;
		align-items: center;
		gap: 4px;
	}
	.above .box {
		width: 90px;
	}
	.gap {
		flex: 1;
	}
	.rule ul {
		border: 1px solid var(--hair);
		border-top: 0;
	}
	.head {
		display: grid;
		grid-template-columns: var(--owed-columns);
		align-items: end;
		position: sticky;
		top: 0;
		z-index: 4;
		background: var(--plaster);
	}
	.head .quiet {
		padding: 0 14px 6px;
		font-size: 0.906rem;
	}
	.r {
		text-align: right;
	}
	.empty {
		padding: 26px;
		display: grid;
		gap: 10px;
		justify-items: start;
	}
	.scroll {
		overflow-x: auto;
		position: relative;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th,
	td {
		text-align: left;
		padding: 8px 14px;
		border-bottom: 1px solid var(--hair);
		white-space: nowrap;
	}
	thead th {
		color: var(--ink-2);
		font-size: 0.875rem;
		font-weight: 400;
		border-bottom: 1.5px solid var(--ink);
	}
	th[scope='row'] {
		white-space: normal;
	}
	th.r,
	td.r {
		text-align: right;
	}
	.pages {
		display: flex;
		gap: 12px;
		align-items: center;
		justify-content: center;
		margin-top: 16px;
	}
	@media (max-width: 760px) {
		.ages {
			width: 100%;
			display: grid;
			grid-template-columns: repeat(3, 1fr);
		}
		.ages div {
			padding: 6px 12px;
		}
		.ages dd {
			font-size: 1.02rem;
		}
		.head {
			grid-template-columns: minmax(0, 1fr);
		}
		.head .quiet {
			display: none;
		}
		th,
		td {
			padding: 8px 8px;
		}
		.filters .box[name='q'] {
			flex: 1 1 100%;
		}
	}
</style>
