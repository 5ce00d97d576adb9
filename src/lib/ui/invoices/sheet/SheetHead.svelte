<!-- The head of the sheet: for whom, when, on which terms, under which contract. -->
<script lang="ts">
	import { taxPointRuleOf } from '$lib/core/sheet/taxPoint';
	import { displayDate, readTypedDate } from '$lib/core/calendar/conversion';
	import { describeTerms } from '$lib/core/calendar/terms';
	import type { CustomerRecord } from '$lib/core/parties';
	import { formatVatNumber } from '$lib/core/regimes/gb/checks';
	import type { ContractClass } from '$lib/core/regimes/types';
	import DateField from '../../parts/DateField.svelte';
	import Cell from '../../lines/Cell.svelte';
	import CustomerPicker from './CustomerPicker.svelte';
	import type { Draft } from '../../lines/draft.svelte';

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

	/** Who goes on typing the line, or presses Enter, is there: the question stays open and is asked again at the end. */
	function goOn(event: KeyboardEvent) {
		const types = event.key.length === 1 && event.key !== ' ';
		if (event.ctrlKey || event.metaKey || event.altKey || !(types || event.key === 'Enter')) return;
		if (!(event.target as HTMLElement).matches('[type=radio]')) return;
		const line = draft.sheet.rows.find((row) => row.type === 'line');
		if (!line) return;
		if (!types) event.preventDefault();
		// At once, so that this very key is typed there.
		document.querySelector<HTMLElement>(`[data-path="rows.${line.id}.description"]`)?.focus();
	}

	/** Who would be under the reverse charge, had it not said that it is an end user. */
	let registeredForBoth = $derived.by(() => {
		const { customer, seller } = draft.reading;
		const { standing } = customer ?? {};
		return Boolean(
			seller.vatRegistered &&
			standing?.vatRegistered &&
			standing.cisRegistered &&
			(!standing.endUser || draft.sheet.endUser)
		);
	});
	function setEndUser(typed: { statement?: string; date?: string }) {
		if (draft.sheet.endUser) draft.sheet.endUser = { ...draft.sheet.endUser, ...typed };
	}

	const stopAt = (path: string) => {
		const problem = wrong(path);
		return problem?.level === 'stop' ? problem.message : undefined;
	};
	/** The day that is typed there; what is no day as it stands. */
	const dayOf = (typed: string) => readTypedDate(typed, draft.today) ?? typed;
</script>

<div
	class="grid grid-cols-[1.25fr_1fr_1fr] gap-y-1.5 gap-x-4.5 pb-2.5 border-b border-b-(--hair) phone:grid-cols-[1fr_1fr] [&_.line-box]:pl-0"
>
	<div class="who phone:col-[1_/_3]">
		<CustomerPicker
			name={draft.customer?.name ?? ''}
			wrong={wrong('customer')?.message}
			autofocus={!draft.customer}
			onchoose={choose}
		/>
		{#if draft.customer}
			<p class="quiet facts">
				{facts}
				{#if decision?.answer}· <button
						class="underline underline-offset-[3px] min-h-6 cursor-pointer"
						onclick={() => (draft.figure = 'vatReverseCharged')}>reverse charge</button
					>{/if}
				·
				<button
					class="underline underline-offset-[3px] min-h-6 cursor-pointer"
					data-path="customer.details"
					onclick={() => (draft.customerField = 'name')}>details</button
				>
			</p>
			{#if draft.customer.billTo}<p class="quiet">Bill goes to {draft.customer.billTo.name}</p>{/if}
			{#if draft.customer.sites.length}
				<label class="field site mt-1">
					<span class="name mb-0">Work at</span>
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
	<div class="days grid gap-1.5 content-start">
		{#if taxPointRuleOf(draft.sheet) === 'work'}
			<DateField
				label="Work finished"
				path="workFinished"
				bind:value={
					() => dayOf(draft.sheet.workFinished), (day) => (draft.sheet.workFinished = day ?? '')
				}
				error={stopAt('workFinished')}
				placeholder={displayDate(dates.issueDate)}
			/>
		{/if}
		<DateField
			label="Issued"
			path="issueDate"
			bind:value={() => dayOf(draft.sheet.issueDate), (day) => (draft.sheet.issueDate = day ?? '')}
			error={stopAt('issueDate')}
			placeholder={displayDate(draft.today)}
		/>
		{#if draft.reading.seller.vatRegistered}<p class="quiet" title={dates.taxPoint.reason}>
				Tax point {displayDate(dates.taxPoint.date)}
			</p>{/if}
	</div>
	<div class="days grid gap-1.5 content-start">
		<div class="field">
			<span class="name mb-0">Their order number</span><Cell
				bind:value={draft.sheet.orderNumber}
				label="Their order number"
				path="orderNumber"
				problem={wrong('orderNumber')}
				placeholder="none"
			/>
		</div>
		<DateField
			label="Due · {describeTerms(dates.terms)}"
			path="dueDate"
			bind:value={() => dayOf(draft.sheet.dueDate), (day) => (draft.sheet.dueDate = day ?? '')}
			error={stopAt('dueDate')}
			placeholder={displayDate(dates.dueDate)}
		/>
	</div>
	{#if draft.customer?.kind === 'contractor'}
		<!-- The keys are those of the boxes in it. -->
		<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
		<fieldset
			class="contract col-span-full flex flex-wrap gap-y-0.5 gap-x-5.5 [&.asked]:py-1 [&.asked]:px-2 [&.asked]:bg-(--tape-tint) phone:[&.asked]:grid"
			class:asked={draft.sheet.contract === null}
			data-path="contract"
			onkeydown={goOn}
		>
			<legend
				class="float-left pt-1 text-(--ink-2) text-[0.906rem] phone:w-full in-[.asked]:text-(--ink) in-[.asked]:font-semibold"
				>Construction work in this contract?</legend
			>
			{#each CONTRACTS as { value, words, detail } (value)}
				<label class="check phone:min-h-11 phone:items-center"
					><input type="radio" name="contract" {value} bind:group={draft.sheet.contract} /><span
						title={detail}
						>{words}{#if draft.sheet.contract === null}<span
								class="quiet detail ml-[0.3em] in-[.asked]:text-(--ink)">{detail}</span
							>{/if}</span
					></label
				>
			{/each}
			{#if draft.sheet.contract === 'none' || draft.sheet.contract === 'minor'}
				<div class="field grow phone:w-full">
					<Cell
						bind:value={
							() => draft.sheet.contractReason ?? '',
							(value) => (draft.sheet.contractReason = value)
						}
						label="Why"
						path="contractReason"
						problem={wrong('contractReason')}
						placeholder="why, in a few words"
					/>
				</div>
			{/if}
		</fieldset>
		{#if draft.sheet.endUser || (draft.sheet.contract === 'construction' && registeredForBoth)}
			<div class="col-span-full flex flex-wrap gap-x-4 gap-y-1 items-center">
				<label class="check phone:min-h-11 phone:items-center"
					><input
						type="checkbox"
						checked={draft.sheet.endUser !== undefined}
						onchange={(event) => {
							if (event.currentTarget.checked) draft.sheet.endUser = { statement: '', date: '' };
							else delete draft.sheet.endUser;
						}}
					/> They wrote that they are the end user of this work</label
				>
				{#if draft.sheet.endUser}
					<div class="field grow min-w-[14rem]">
						<Cell
							bind:value={
								() => draft.sheet.endUser?.statement ?? '', (statement) => setEndUser({ statement })
							}
							label="What they wrote"
							path="endUser.statement"
							problem={wrong('endUser.statement')}
							placeholder="what they wrote, in a few words"
						/>
					</div>
					<div class="field w-[9rem]">
						<Cell
							bind:value={() => draft.sheet.endUser?.date ?? '', (date) => setEndUser({ date })}
							label="On which day"
							path="endUser.date"
							problem={wrong('endUser.date')}
							placeholder="on which day"
						/>
					</div>
				{/if}
			</div>
		{/if}
	{/if}
</div>
