<!-- The head of the sheet: for whom, when, on which terms, under which contract. -->
<script lang="ts">
	import { displayDate, readTypedDate } from '$lib/core/calendar/conversion';
	import { describeTerms } from '$lib/core/calendar/terms';
	import type { CustomerRecord } from '$lib/core/parties';
	import { formatVatNumber } from '$lib/core/regimes/gb/checks';
	import type { ContractClass } from '$lib/core/regimes/types';
	import Cell from './Cell.svelte';
	import CustomerPicker from './CustomerPicker.svelte';
	import type { Draft } from './draft.svelte';

	let { draft }: { draft: Draft } = $props();
	let dates = $derived(draft.reading.dates);
	let customer = $derived(draft.reading.customer);
	let standing = $derived(customer?.standing);
	const wrong = (path: string) => draft.problemAt.get(path);

	/** What is known of the customer's tax, in one line. */
	let facts = $derived.by(() => {
		if (!customer || !standing) return '';
		if (customer.kind === 'household') return 'household';
		const parts = [
			standing.vatRegistered
				? standing.vatNumber
					? `VAT ${formatVatNumber(standing.vatNumber)}`
					: 'VAT registered'
				: 'no VAT number',
			...(customer.kind === 'contractor'
				? [
						standing.cisRegistered ? 'CIS registered' : 'CIS not confirmed',
						standing.cisRate === null ? 'rate not known' : `deducts ${standing.cisRate} %`,
						...(standing.endUser ? ['end user'] : [])
					]
				: [])
		];
		return parts.join(' · ');
	});
	let decision = $derived(draft.reading.figures?.decisions.reverseCharge);

	const CONTRACTS: { value: ContractClass; words: string; detail: string }[] = [
		{ value: 'construction', words: 'Yes', detail: 'building, repair, decorating, plastering …' },
		{ value: 'minor', words: 'At most 5 % of it', detail: 'and the rest is something else' },
		{ value: 'none', words: 'No', detail: 'goods alone, a survey, hire without operator …' }
	];

	/** The cursor goes on to what comes next: the question for contractors, or the first line. */
	function choose(record: CustomerRecord, mailTo: string) {
		draft.chooseCustomer(record, mailTo);
		const line = draft.sheet.rows.find((row) => row.type === 'line');
		draft.wanted =
			record.kind === 'contractor' && draft.sheet.contract === null
				? 'contract'
				: line
					? `rows.${line.id}.description`
					: null;
	}

	/** A day is shown as it is printed once the cursor leaves it. */
	function tidy(field: 'workFinished' | 'issueDate' | 'dueDate') {
		const date = readTypedDate(draft.sheet[field], draft.today);
		if (date) draft.sheet[field] = displayDate(date);
	}
</script>

<div class="head">
	<div class="who">
		<CustomerPicker
			name={draft.customer?.name ?? ''}
			wrong={wrong('customer')?.message}
			autofocus={!draft.customer}
			onchoose={choose}
		/>
		{#if draft.customer}
			<p class="quiet facts">
				{facts}
				{#if decision?.answer}· <button onclick={() => (draft.figure = 'vatReverseCharged')}
						>reverse charge</button
					>{/if}
				·
				<button data-path="customer.details" onclick={() => (draft.customerField = 'name')}
					>details</button
				>
			</p>
			{#if draft.customer.billTo}<p class="quiet">Bill goes to {draft.customer.billTo.name}</p>{/if}
			{#if draft.customer.sites.length}
				<label class="field site">
					<span class="name">Work at</span>
					<select
						class="line-box"
						data-path="siteId"
						value={draft.sheet.siteId ?? ''}
						onchange={(event) =>
							(draft.sheet.siteId = event.currentTarget.value
								? Number(event.currentTarget.value)
								: null)}
					>
						<option value="">their own address</option>
						{#each draft.customer.sites as site (site.id)}<option value={site.id}
								>{site.name}</option
							>{/each}
					</select>
				</label>
			{/if}
		{/if}
	</div>
	<div
		class="days"
		onfocusout={(event) => tidy((event.target as HTMLElement).dataset.path as 'issueDate')}
		role="presentation"
	>
		<div class="field">
			<span class="name">Work finished</span><Cell
				bind:value={draft.sheet.workFinished}
				label="Work finished"
				path="workFinished"
				problem={wrong('workFinished')}
				placeholder={displayDate(dates.issueDate)}
			/>
		</div>
		<div class="field">
			<span class="name">Issued</span><Cell
				bind:value={draft.sheet.issueDate}
				label="Issue date"
				path="issueDate"
				problem={wrong('issueDate')}
				placeholder={displayDate(draft.today)}
			/>
		</div>
		{#if draft.reading.seller.vatRegistered}<p class="quiet" title={dates.taxPoint.reason}>
				Tax point {displayDate(dates.taxPoint.date)}
			</p>{/if}
	</div>
	<div
		class="days"
		onfocusout={(event) => tidy((event.target as HTMLElement).dataset.path as 'dueDate')}
		role="presentation"
	>
		<div class="field">
			<span class="name">Their order no.</span><Cell
				bind:value={draft.sheet.orderNumber}
				label="Their order number"
				path="orderNumber"
				problem={wrong('orderNumber')}
				placeholder="none"
			/>
		</div>
		<div class="field">
			<span class="name">Due · {describeTerms(dates.terms)}</span>
			<Cell
				bind:value={draft.sheet.dueDate}
				label="Due date"
				path="dueDate"
				problem={wrong('dueDate')}
				placeholder={displayDate(dates.dueDate)}
			/>
		</div>
	</div>
	{#if draft.customer?.kind === 'contractor'}
		<fieldset class="contract" class:asked={draft.sheet.contract === null} data-path="contract">
			<legend>Construction work in this contract?</legend>
			{#each CONTRACTS as { value, words, detail } (value)}
				<label class="check"
					><input type="radio" name="contract" {value} bind:group={draft.sheet.contract} /><span
						title={detail}
						>{words}{#if draft.sheet.contract === null}<span class="quiet detail">{detail}</span
							>{/if}</span
					></label
				>
			{/each}
		</fieldset>
	{/if}
</div>

<style>
	.head {
		display: grid;
		grid-template-columns: 1.25fr 1fr 1fr;
		gap: 6px 18px;
		padding-bottom: 10px;
		border-bottom: 1px solid var(--hair);
	}
	.head :global(.line-box) {
		padding-left: 0;
	}
	.days {
		display: grid;
		gap: 6px;
		align-content: start;
	}
	.field .name {
		margin-bottom: 0;
	}
	.facts button {
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 24px;
		cursor: pointer;
	}
	.detail {
		margin-left: 0.3em;
	}
	.site {
		margin-top: 4px;
	}
	.contract {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 2px 22px;
	}
	.contract.asked {
		padding: 4px 8px;
		background: var(--tape-tint);
	}
	.contract.asked .quiet {
		color: var(--ink);
	}
	legend {
		float: left;
		padding-top: 4px;
		color: var(--ink-2);
		font-size: 0.906rem;
	}
	.asked legend {
		color: var(--ink);
		font-weight: 600;
	}
	@media (max-width: 760px) {
		.head {
			grid-template-columns: 1fr 1fr;
		}
		.who {
			grid-column: 1 / 3;
		}
		.contract.asked {
			display: grid;
		}
		legend {
			width: 100%;
		}
		.contract .check {
			min-height: 44px;
			align-items: center;
		}
	}
</style>
