<!-- What holds for the whole document: prices, discount, retention, reference, terms, note. -->
<script lang="ts">
	import Fold from '$lib/ui/parts/Fold.svelte';
	import LetterheadChoice from '$lib/ui/letterheads/LetterheadChoice.svelte';
	import WorkKindChoice from '$lib/ui/letterheads/WorkKindChoice.svelte';
	import OnlyHere from './OnlyHere.svelte';
	import { BOOKS } from '$lib/core/money/currencies';
	import Cell from './Cell.svelte';
	import MoneyChoice from './MoneyChoice.svelte';
	import type { Draft } from './draft.svelte';

	interface Props {
		draft: Draft;
		/** It is one document, which may differ from all others. */
		one?: boolean;
	}
	let { draft, one = true }: Props = $props();
	const wrong = (path: string) => draft.problemAt.get(path);
	let registered = $derived(draft.reading.seller.vatRegistered);
	let prompt = $derived(draft.sheet.prompt ?? { percent: '', days: '' });
	function setPrompt(typed: Partial<typeof prompt>) {
		draft.sheet.prompt = { ...prompt, ...typed };
	}
	let firm = $derived(draft.customer !== null && draft.customer.kind !== 'household');
</script>

<Fold
	label="Discount, retention, reference, terms, money, kind of work, note"
	open={Boolean(
		draft.currency !== BOOKS ||
		draft.sheet.discount ||
		draft.sheet.retention ||
		draft.sheet.reference ||
		draft.sheet.note ||
		draft.sheet.workKindId ||
		draft.sheet.letterheadId ||
		draft.sheet.prompt?.percent ||
		draft.sheet.termsDays
	)}
	class="whole"
>
	<div class="fields grid grid-cols-4 gap-y-2 gap-x-4 pt-0.5 pb-2 px-1.5 phone:grid-cols-[1fr_1fr]">
		<div class="field">
			<span class="name">Discount on the whole</span><Cell
				bind:value={draft.sheet.discount}
				label="Discount on the whole"
				path="discount"
				problem={wrong('discount')}
				placeholder="5% or an amount"
			/>
		</div>
		<div class="field">
			<span class="name">Held back (retention), %</span><Cell
				bind:value={draft.sheet.retention}
				label="Held back (retention), %"
				path="retention"
				problem={wrong('retention')}
				placeholder="none"
			/>
		</div>
		<div class="field">
			<span class="name">Terms, in days</span><Cell
				bind:value={draft.sheet.termsDays}
				label="Terms, in days"
				path="termsDays"
				problem={wrong('termsDays')}
				placeholder={String(draft.reading.dates.terms.days)}
			/>
		</div>
		<div class="field">
			<span class="name">Reference</span><Cell
				bind:value={draft.sheet.reference}
				label="Reference"
				path="reference"
				problem={wrong('reference')}
				placeholder="none"
			/>
		</div>
		<div class="field col-span-2">
			<span class="name">Off for paying in time, % and within how many days</span>
			<span class="grid grid-cols-2 gap-3"
				><Cell
					bind:value={() => prompt.percent, (percent) => setPrompt({ percent })}
					label="Percent off for paying in time"
					path="prompt.percent"
					problem={wrong('prompt.percent')}
					placeholder="none, %"
				/><Cell
					bind:value={() => prompt.days, (days) => setPrompt({ days })}
					label="Days within which it is paid in time"
					path="prompt.days"
					problem={wrong('prompt.days')}
					placeholder="days"
				/></span
			>
		</div>
		<div class="col-span-2">
			<WorkKindChoice
				path="workKindId"
				bind:value={
					() => draft.sheet.workKindId ?? null, (id) => (draft.sheet.workKindId = id ?? undefined)
				}
			/>
		</div>
		{#if one}<div class="col-span-2">
				<LetterheadChoice
					label="Letterhead"
					standard="as for the customer and the kind of work"
					path="letterheadId"
					bind:value={
						() => draft.sheet.letterheadId ?? null,
						(id) => (draft.sheet.letterheadId = id ?? undefined)
					}
				/>
			</div>{/if}
		{#if draft.of === 'invoice'}<MoneyChoice {draft} />{/if}
		<label class="field col-span-full"
			><span class="name">Note, printed at the end</span><textarea
				class="box"
				rows="2"
				data-path="note"
				bind:value={draft.sheet.note}></textarea>{#if wrong('note')}<span class="wrong"
					>{wrong('note')?.message}</span
				>{/if}</label
		>
	</div>
</Fold>
{#if one}<OnlyHere {draft} />{/if}
{#if registered}
	<div class="flex gap-y-1 gap-x-5.5 flex-wrap pl-1.5">
		{#if firm && !draft.sheet.pricesIncludeVat}
			<label class="check items-center phone:min-h-11"
				><input type="checkbox" data-path="roundVatDown" bind:checked={draft.sheet.roundVatDown} /> Round
				VAT down</label
			>
		{/if}
	</div>
	{#each ['pricesIncludeVat', 'roundVatDown'] as path (path)}{#if wrong(path)?.level === 'stop'}<p
				class="wrong"
			>
				{wrong(path)?.message}
			</p>{/if}{/each}
{/if}
