<!-- One line of the sheet. Enter goes on, arrows move between lines, Alt+arrows move the line, Ctrl+D copies it. -->
<script lang="ts">
	import Copy from '@lucide/svelte/icons/copy';
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { dragHandle } from 'svelte-dnd-action';
	import { KIND_NAMES } from '$lib/core/words';
	import { ALLOWABLE_KINDS, LINE_KINDS } from '$lib/core/figures/types';
	import type { VatTreatment } from '$lib/core/regimes/types';
	import type { SheetLine } from '$lib/core/sheet/types';
	import Cell from './Cell.svelte';
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
	}
	let { draft, line, number, rates, onkeydown, onpaste }: Props = $props();

	let path = $derived(`rows.${line.id}`);
	let index = $derived(draft.lineIndex.get(line.id));
	let amount = $derived(draft.amounts.get(line.id) ?? '');
	let registered = $derived(draft.registered);
	let reversed = $derived(
		draft.reverseCharge && (line.vat === 'standard' || line.vat === 'reduced')
	);
	let chosen = $derived(line.vatReason || 'standard');
	let contractor = $derived(
		draft.customer?.kind === 'contractor' && draft.sheet.contract !== 'none'
	);
	let asksCost = $derived(contractor && line.kind !== 'levy' && line.vat !== 'noSupply');
	let costWanted = $derived(asksCost && ALLOWABLE_KINDS.has(line.kind));
	let current = $derived(draft.figure.startsWith(`lines.${index}.`));
	const problem = (field: string) => draft.problemAt.get(`${path}.${field}`);

	/** Treatment and reason are chosen together: a rate other than standard is chosen by its reason. */
	function chooseVat(value: string) {
		const rate = rates.find((one) => one.id === value);
		line.vat = rate?.treatment ?? 'standard';
		line.vatReason = rate && rate.treatment !== 'standard' ? rate.id : '';
	}
</script>

<!-- The keys work for the cells inside. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div class="row" class:current role="group" aria-label="Line {number}" {onkeydown} {onpaste}>
	<span class="grip" use:dragHandle aria-label="Drag line {number}"
		><GripVertical size={18} aria-hidden="true" /></span
	>
	<LineText
		bind:value={line.description}
		{path}
		{number}
		problem={problem('description')}
		settled={line.itemId !== undefined || line.bills !== undefined}
		onchoose={(lines) => draft.useEntry(line.id, lines)}
	/>
	<div class="quantity">
		<Cell
			bind:value={line.quantity}
			label="Quantity, line {number}"
			path="{path}.quantity"
			problem={problem('quantity')}
			numeric
			tidy
		/>
	</div>
	<div class="unit">
		<Cell
			bind:value={line.unit}
			label="Unit, line {number}"
			path="{path}.unit"
			problem={problem('unit')}
			list="units"
			placeholder="unit"
		/>
	</div>
	<div class="price">
		<Cell
			bind:value={line.unitPrice}
			label="Price, line {number}"
			path="{path}.unitPrice"
			problem={index === undefined ? undefined : problem('unitPrice')}
			numeric
			tidy
			decimals={2}
			placeholder="0.00"
		/>
	</div>
	{#if registered}
		<div class="vat">
			<select
				class="small"
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
	<button
		class="amount numbers"
		disabled={amount === ''}
		data-path="{path}.amount"
		title="Workings"
		onclick={() => (draft.figure = `lines.${index}.net`)}
	>
		<span class="sr-only">Amount, line {number}: </span>{amount}
	</button>
	<div class="more">
		<select
			class="small"
			data-path="{path}.kind"
			aria-label="Kind, line {number}"
			bind:value={line.kind}
		>
			{#each LINE_KINDS as kind (kind)}<option value={kind}>{KIND_NAMES[kind].toLowerCase()}</option
				>{/each}
		</select>
		{#if asksCost && (costWanted || line.cost)}
			<span class="cost" class:asked={costWanted && !line.cost}
				><Cell
					bind:value={line.cost}
					label="What it cost you, line {number}"
					path="{path}.cost"
					problem={problem('cost')}
					numeric
					prefix="cost you £"
					tidy
				/></span
			>
		{:else if asksCost}
			<span class="cost shy"
				><Cell
					bind:value={line.cost}
					label="What its materials cost you, line {number}"
					path="{path}.cost"
					problem={problem('cost')}
					numeric
					prefix="materials in it, cost £"
				/></span
			>
		{/if}
		<span class="discount" class:shy={!line.discount}
			><Cell
				bind:value={line.discount}
				label="Discount, line {number}"
				path="{path}.discount"
				problem={problem('discount')}
				numeric
				prefix="less"
				placeholder="5% or £"
			/></span
		>
		{#if line.itemId === undefined && !line.bills && amount !== '' && line.description.trim()}
			<button tabindex="-1" class="shy keep" onclick={() => draft.keepOnList(line.id)}
				>keep on the price list<span class="sr-only">, line {number}</span></button
			>
		{/if}
	</div>
	<span class="tools">
		<button
			tabindex="-1"
			title="Copy (Ctrl D)"
			aria-label="Copy line {number}"
			onclick={() => draft.copyRow(line.id)}><Copy size={17} aria-hidden="true" /></button
		>
		<button
			tabindex="-1"
			title="Remove (Ctrl Delete)"
			aria-label="Remove line {number}"
			onclick={() => draft.removeRow(line.id)}><Trash2 size={17} aria-hidden="true" /></button
		>
	</span>
</div>

<style>
	.row {
		display: grid;
		grid-template-columns: 22px minmax(0, 1fr) 76px 76px 92px var(--vat, 92px) 104px 52px;
		gap: 0 6px;
		align-items: start;
		padding: 5px 0 4px;
		border-bottom: 1px solid var(--hair);
		background: var(--sheet);
	}
	:global(.unregistered) .row {
		--vat: 0px;
	}
	.row:focus-within,
	.row.current {
		background: var(--tape-tint);
		box-shadow: inset 0 -2px var(--tape);
	}
	.grip {
		color: var(--dotted);
		cursor: grab;
		display: grid;
		place-items: center;
		height: 34px;
	}
	.more {
		grid-column: 2 / -1;
		grid-row: 2;
		display: flex;
		flex-wrap: wrap;
		gap: 0 10px;
		align-items: center;
		padding-left: 2px;
	}
	.small {
		font-size: 0.875rem;
		color: var(--ink-2);
		background: transparent;
		border: 0;
		padding: 2px 2px;
		min-height: 26px;
		max-width: 100%;
		cursor: pointer;
	}
	.row:focus-within .small {
		color: var(--ink);
	}
	.vat .small {
		width: 100%;
		font-size: 1rem;
		min-height: 34px;
		color: var(--ink);
		text-overflow: ellipsis;
	}
	.cost,
	.discount {
		font-size: 0.875rem;
	}
	.cost :global(input) {
		width: 76px;
		min-height: 26px;
		font-size: 0.875rem;
	}
	.discount :global(input) {
		width: 64px;
		min-height: 26px;
		font-size: 0.875rem;
	}
	.row:focus-within .more :global(.quiet) {
		color: var(--ink);
	}
	.asked :global(input) {
		border-bottom: 1.5px solid var(--oxide);
	}
	.shy {
		display: none;
	}
	.row:focus-within .shy {
		display: block;
	}
	.amount {
		text-align: right;
		padding: 5px 8px;
		min-height: 34px;
		cursor: help;
		overflow-wrap: anywhere;
	}
	.keep {
		font-size: 0.875rem;
		color: var(--ink-2);
		text-decoration: underline dotted;
		cursor: pointer;
	}
	.tools {
		display: flex;
		opacity: 0;
	}
	.tools button {
		display: grid;
		place-items: center;
		width: 26px;
		height: 34px;
		cursor: pointer;
	}
	.row:hover .tools,
	.row:focus-within .tools {
		opacity: 1;
	}
	@media (max-width: 760px) {
		.row {
			grid-template-columns: 30px 68px 1fr 100px;
			grid-template-areas: 'grip what what what' '. more more more' '. quantity unit price' '. vat tools amount';
			padding: 8px 0;
			gap: 2px 8px;
		}
		.grip {
			grid-area: grip;
		}
		.row > :global(.what) {
			grid-area: what;
		}
		.more {
			grid-area: more;
		}
		.quantity {
			grid-area: quantity;
		}
		.unit {
			grid-area: unit;
		}
		.price {
			grid-area: price;
		}
		.vat {
			grid-area: vat;
		}
		.amount {
			grid-area: amount;
			font-weight: 600;
		}
		.tools {
			grid-area: tools;
			opacity: 1;
			justify-content: end;
		}
		.tools button {
			width: 44px;
			height: 40px;
		}
		.row :global(.line-box),
		.small {
			min-height: 40px;
		}
	}
</style>
