<!-- One line of the sheet. Enter goes on, arrows move between lines, Alt+arrows move the line, Ctrl+D copies it. -->
<script lang="ts">
	import { unitOf } from '$lib/core/money/currencies';
	import type { Snippet } from 'svelte';
	import Copy from '@lucide/svelte/icons/copy';
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { dragHandle } from 'svelte-dnd-action';
	import { KIND_NAMES } from '$lib/core/words';
	import { ALLOWABLE_KINDS, LINE_KINDS } from '$lib/core/figures/types';
	import type { VatTreatment } from '$lib/core/regimes/types';
	import type { SheetLine } from '$lib/core/sheet/types';
	import Cell from './Cell.svelte';
	import TagChoice, { TAG_SORTS } from '../parts/TagChoice.svelte';
	import LineText from './LineText.svelte';
	import type { Draft } from './draft.svelte';

	interface Props {
		draft: Draft;
		line: SheetLine;
		number: number;
		/** What can be chosen in the VAT cell: a treatment with its reason. */
		rates: { id: string; treatment: VatTreatment; label: string }[];
		onkeydown: (event: KeyboardEvent) => void;
		onpaste: (event: ClipboardEvent) => void;
		/** What else belongs to it, beside its kind. */
		beside?: Snippet<[SheetLine, number]> | undefined;
	}
	let { draft, line, number, rates, onkeydown, onpaste, beside }: Props = $props();

	let path = $derived(`rows.${line.id}`);
	let index = $derived(draft.lineIndex.get(line.id));
	let amount = $derived(draft.amounts.get(line.id) ?? '');
	/** A part of a kit is an entry of the price list: its quantity alone is its own. */
	let part = $derived(draft.of === 'kit');
	let registered = $derived(draft.registered && !part);
	let reversed = $derived(
		draft.reverseCharge && (line.vat === 'standard' || line.vat === 'reduced')
	);
	let chosen = $derived(line.vatReason || 'standard');
	let contractor = $derived(
		draft.customer?.kind === 'contractor' && draft.sheet.contract !== 'none'
	);
	let costs = $derived(draft.of === 'job' || draft.of === 'quote');
	let asksCost = $derived(costs || (contractor && line.kind !== 'levy' && line.vat !== 'noSupply'));
	let costWanted = $derived(!costs && asksCost && ALLOWABLE_KINDS.has(line.kind));
	let current = $derived(draft.figure.startsWith(`lines.${index}.`));
	const problem = (field: string) => draft.problemAt.get(`${path}.${field}`);

	/** What is shown of a line only while one is at it goes a moment after one has left: a press on its way lands where it was meant. */
	let at = $state(false);
	let leaving: ReturnType<typeof setTimeout>;
	function come() {
		clearTimeout(leaving);
		at = true;
	}
	function leave() {
		clearTimeout(leaving);
		leaving = setTimeout(() => (at = false), 250);
	}

	/** Treatment and reason are chosen together: a rate other than standard is chosen by its reason. */
	function chooseVat(value: string) {
		const rate = rates.find((one) => one.id === value);
		line.vat = rate?.treatment ?? 'standard';
		line.vatReason = rate && rate.treatment !== 'standard' ? rate.id : '';
	}
</script>

<!-- The keys work for the cells inside. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
	class="row group/row grid grid-cols-(--line-columns) gap-y-0 gap-x-1.5 items-start pt-1.25 pb-1 px-0 border-b border-b-(--hair) bg-(--sheet) tight:grid-cols-[26px_minmax(56px,0.7fr)_minmax(0,1fr)_minmax(96px,1.1fr)] tight:[grid-template-areas:'grip_what_what_what'_'._more_more_tools'_'._quantity_unit_price'_'._vat_vat_amount'] tight:py-2 tight:px-0 tight:gap-y-0.5 tight:gap-x-2 [&.current]:bg-(--tape-tint) [&.current]:shadow-[inset_0_-2px_var(--tape)] focus-within:bg-(--tape-tint) focus-within:shadow-[inset_0_-2px_var(--tape)] tight:[&>.what]:[grid-area:what] tight:[&_.line-box]:min-h-10"
	class:current
	class:at
	onfocusin={come}
	onfocusout={leave}
	role="group"
	aria-label="Line {number}"
	{onkeydown}
	{onpaste}
>
	<span
		class="text-(--dotted) cursor-grab grid place-items-center h-8.5 tight:[grid-area:grip]"
		use:dragHandle
		aria-label="Drag line {number}"><GripVertical size={18} aria-hidden="true" /></span
	>
	<LineText
		bind:value={line.description}
		{path}
		{number}
		problem={problem('description')}
		settled={line.itemId !== undefined || line.bills !== undefined}
		fixed={part && line.itemId !== undefined}
		placeholder={part ? 'Find on the price list' : undefined}
		onchoose={(lines) => draft.useEntry(line.id, lines)}
	/>
	<div class="quantity tight:[grid-area:quantity]">
		<Cell
			bind:value={line.quantity}
			label="Quantity, line {number}"
			path="{path}.quantity"
			problem={problem('quantity')}
			numeric
			tidy
		/>
	</div>
	<div class="unit tight:[grid-area:unit]">
		<Cell
			bind:value={line.unit}
			label="Unit, line {number}"
			path="{path}.unit"
			problem={problem('unit')}
			list="units"
			placeholder="unit"
			fixed={part}
		/>
	</div>
	<div class="price tight:[grid-area:price]">
		<Cell
			bind:value={line.unitPrice}
			label="Price, line {number}"
			path="{path}.unitPrice"
			problem={index === undefined ? undefined : problem('unitPrice')}
			numeric
			tidy
			decimals={2}
			placeholder="0.00"
			fixed={part}
		/>
	</div>
	{#if registered}
		<div class="vat tight:[grid-area:vat]">
			<select
				class="small bg-transparent border-0 p-0.5 max-w-full cursor-pointer w-full text-base min-h-8.5 text-(--ink) text-ellipsis tight:min-h-10 group-focus-within/row:text-(--ink)"
				data-path="{path}.vat"
				aria-label="VAT, line {number}"
				aria-invalid={problem('vat') ? 'true' : undefined}
				value={chosen}
				onchange={(event) => chooseVat(event.currentTarget.value)}
			>
				{#each rates as one (one.id)}
					<option value={one.id}
						>{one.id === chosen && reversed ? `${one.label} r.c.` : one.label}</option
					>
				{/each}
			</select>
			{#if problem('vat')}<span class="wrong">{problem('vat')?.message}</span>{/if}
		</div>
	{/if}
	{#if part}<span
			class="numbers text-right py-1.25 px-2 whitespace-nowrap tight:[grid-area:amount] tight:font-semibold"
			>{amount}</span
		>
	{:else}
		<button
			class="amount numbers text-right py-1.25 px-2 min-h-8.5 [cursor:help] whitespace-nowrap tight:[grid-area:amount] tight:font-semibold"
			type="button"
			disabled={amount === ''}
			data-path="{path}.amount"
			title="Workings"
			onclick={() => (draft.figure = `lines.${index}.net`)}
		>
			<span class="sr-only">Amount, line {number}: </span>{amount}
		</button>
	{/if}
	{#if !part}
		<div
			class="more col-[2_/_-1] row-start-2 flex flex-wrap gap-y-0 gap-x-2.5 items-center pl-0.5 tight:[grid-area:more] group-focus-within/row:[&_.quiet]:text-(--ink)"
		>
			<select
				class="small text-[0.875rem] text-(--ink-2) bg-transparent border-0 p-0.5 min-h-6.5 max-w-full cursor-pointer tight:min-h-10 group-focus-within/row:text-(--ink)"
				data-path="{path}.kind"
				aria-label="Kind, line {number}"
				bind:value={line.kind}
			>
				{#each LINE_KINDS as kind (kind)}<option value={kind}
						>{KIND_NAMES[kind].toLowerCase()}</option
					>{/each}
			</select>
			{#if asksCost && (costs || costWanted || line.cost)}
				<span
					class="cost text-[0.875rem] [&_input]:w-19 [&_input]:min-h-6.5 [&_input]:text-[0.875rem] [&.asked_input]:border-b-[1.5px] [&.asked_input]:border-b-(--oxide)"
					class:asked={costWanted && !line.cost}
					><Cell
						bind:value={line.cost}
						label="What it cost you, line {number}"
						path="{path}.cost"
						problem={problem('cost')}
						numeric
						prefix="cost you {unitOf(draft.currency)}"
						tidy
					/></span
				>
			{:else if asksCost}
				<span
					class="cost shy text-[0.875rem] hidden [&_input]:w-19 [&_input]:min-h-6.5 [&_input]:text-[0.875rem] group-[.at]/row:block"
					><Cell
						bind:value={line.cost}
						label="What its materials cost you, line {number}"
						path="{path}.cost"
						problem={problem('cost')}
						numeric
						prefix="materials in it, cost {unitOf(draft.currency)}"
					/></span
				>
			{/if}
			<span
				class="discount text-[0.875rem] [&.shy]:hidden [&_input]:w-16 [&_input]:min-h-6.5 [&_input]:text-[0.875rem] group-[.at]/row:[&.shy]:block"
				class:shy={!line.discount}
				><Cell
					bind:value={line.discount}
					label="Discount, line {number}"
					path="{path}.discount"
					problem={problem('discount')}
					numeric
					prefix="less"
					placeholder="5% or {unitOf(draft.currency)}"
				/></span
			>
			{#each TAG_SORTS as sort (sort)}<TagChoice
					{sort}
					bind:value={
						() => line[sort] ?? '',
						(name) => {
							if (name) line[sort] = name;
							else delete line[sort];
						}
					}
					line={number}
					path="{path}.{sort}"
				/>{/each}
			{@render beside?.(line, number)}
			{#if line.itemId === undefined && !line.bills && amount !== '' && line.description.trim()}
				<button
					type="button"
					tabindex="-1"
					class="shy hidden text-[0.875rem] text-(--ink-2) [text-decoration:underline_dotted] cursor-pointer group-[.at]/row:block"
					onclick={() => draft.keepOnList(line.id)}
					>keep on the price list<span class="sr-only">, line {number}</span></button
				>
			{/if}
		</div>
	{/if}
	<span
		class="flex opacity-0 tight:[grid-area:tools] tight:opacity-100 tight:justify-end group-hover/row:opacity-100 group-focus-within/row:opacity-100"
	>
		<button
			type="button"
			class="grid place-items-center w-6.5 h-8.5 cursor-pointer tight:w-11 tight:h-10"
			tabindex="-1"
			title="Copy (Ctrl D)"
			aria-label="Copy line {number}"
			onclick={() => draft.copyRow(line.id)}><Copy size={17} aria-hidden="true" /></button
		>
		<button
			type="button"
			class="grid place-items-center w-6.5 h-8.5 cursor-pointer tight:w-11 tight:h-10"
			tabindex="-1"
			title="Remove (Alt Delete)"
			aria-label="Remove line {number}"
			onclick={() => draft.removeRow(line.id)}><Trash2 size={17} aria-hidden="true" /></button
		>
	</span>
</div>
