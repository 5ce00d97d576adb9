<!-- What was agreed, line by line, with the price list at hand. -->
<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { KIND_NAMES } from '$lib/core/words';
	import { LINE_KINDS, type LineKind } from '$lib/core/figures/types';
	import { lineAmount } from '$lib/core/jobs/billing';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { readTypedNumber } from '$lib/core/money/typed';
	import { reasonsOn } from '$lib/core/regimes/gb/reasons';
	import type { VatTreatment } from '$lib/core/regimes/types';
	import PriceFinder from '../prices/PriceFinder.svelte';

	export interface EditedLine {
		id?: number | undefined;
		kind: LineKind;
		description: string;
		quantity: string;
		unit: string;
		unitPrice: string;
		vat: VatTreatment;
		vatReason: string;
		discount: string;
		cost: string;
		extra: boolean;
		itemId: number | null;
	}
	interface Props {
		lines: EditedLine[];
		errors: Record<string, string>;
		today: string;
		/** New lines are extras once something is agreed and billed. */
		extras: boolean;
		/** Whether the prices are with VAT; null where the owner charges none. */
		includes: boolean | null;
	}
	let { lines = $bindable(), errors, today, extras, includes }: Props = $props();
	let priceLabel = $derived(
		includes === null ? 'Price, £' : `Price ${includes ? 'with' : 'without'} VAT, £`
	);
	let reasons = $derived(reasonsOn(today));

	const blank = (): EditedLine => ({
		kind: lines.at(-1)?.kind ?? 'labour',
		description: '',
		quantity: '1',
		unit: lines.at(-1)?.unit ?? '',
		unitPrice: '',
		vat: lines.at(-1)?.vat ?? 'standard',
		vatReason: lines.at(-1)?.vatReason ?? '',
		discount: '',
		cost: '',
		extra: extras,
		itemId: null
	});
	const plain = (typed: string, negative = false) => {
		const read = readTypedNumber(typed, { decimals: 4, negative });
		return read.ok ? read.text : '0';
	};
	const amountOf = (line: EditedLine) =>
		lineAmount({
			quantity: plain(line.quantity, true),
			unitPrice: plain(line.unitPrice),
			discount: line.discount
		});
	let sum = $derived(lines.reduce((total, line) => total + amountOf(line), 0n));
	let list: HTMLElement;

	function add() {
		lines.push(blank());
		setTimeout(() => list.querySelector<HTMLElement>('li:last-child textarea')?.focus());
	}
</script>

<ol bind:this={list}>
	{#each lines as line, index (line)}
		{@const wrong = (field: string) => errors[`lines.${index}.${field}`]}
		<li
			class="grid grid-cols-[minmax(0,1fr)_84px_84px_104px_92px_110px] gap-y-1.5 gap-x-2.5 py-3 px-0 border-b border-b-(--hair) items-end phone:grid-cols-[1fr_1fr]"
		>
			<div class="what phone:col-span-full">
				<textarea
					class="box [field-sizing:content]"
					rows="1"
					aria-label="Description, line {index + 1}"
					aria-invalid={wrong('description') ? 'true' : undefined}
					placeholder="What is to be done or supplied"
					bind:value={line.description}></textarea>
				{#if wrong('description')}<span class="wrong">{wrong('description')}</span>{/if}
			</div>
			<label class="field"
				><span class="name">Quantity</span><input
					class="box numbers text-right"
					inputmode="decimal"
					aria-invalid={wrong('quantity') ? 'true' : undefined}
					bind:value={line.quantity}
				/>{#if wrong('quantity')}<span class="wrong">{wrong('quantity')}</span>{/if}</label
			>
			<label class="field"
				><span class="name">Unit</span><input class="box" bind:value={line.unit} /></label
			>
			<label class="field"
				><span class="name">{priceLabel}</span><input
					class="box numbers text-right"
					inputmode="decimal"
					aria-invalid={wrong('unitPrice') ? 'true' : undefined}
					bind:value={line.unitPrice}
				/>{#if wrong('unitPrice')}<span class="wrong">{wrong('unitPrice')}</span>{/if}</label
			>
			<label class="field"
				><span class="name">Discount</span><input
					class="box numbers text-right"
					placeholder="none"
					aria-invalid={wrong('discount') ? 'true' : undefined}
					bind:value={line.discount}
				/>{#if wrong('discount')}<span class="wrong">{wrong('discount')}</span>{/if}</label
			>
			<b class="numbers amount text-right pb-2.5">{displayAmount(amountOf(line))}</b>
			<div class="col-span-full flex gap-y-1.5 gap-x-3 flex-wrap items-center">
				<select
					class="box w-auto max-w-65 min-h-9 py-0.5"
					aria-label="Kind, line {index + 1}"
					bind:value={line.kind}
				>
					{#each LINE_KINDS as kind (kind)}<option value={kind}>{KIND_NAMES[kind]}</option>{/each}
				</select>
				<select
					class="box w-auto max-w-65 min-h-9 py-0.5"
					aria-label="VAT, line {index + 1}"
					value={line.vat === 'standard' ? 'standard' : line.vatReason}
					onchange={(event) => {
						const chosen = event.currentTarget.value;
						line.vat = reasons.find((one) => one.id === chosen)?.treatment ?? 'standard';
						line.vatReason = line.vat === 'standard' ? '' : chosen;
					}}
				>
					<option value="standard">Standard VAT</option>
					{#each reasons as one (one.id)}<option value={one.id}>{one.label}</option>{/each}
				</select>
				<label class="cost"
					>cost you £ <input
						class="box numbers text-right max-w-65 min-h-9 py-0.5 w-22.5"
						inputmode="decimal"
						aria-invalid={wrong('cost') ? 'true' : undefined}
						bind:value={line.cost}
					/></label
				>
				<label class="check"><input type="checkbox" bind:checked={line.extra} /> extra</label>
				<button type="button" class="button plain ml-auto" onclick={() => lines.splice(index, 1)}
					><Trash2 size={17} aria-hidden="true" />Remove<span class="sr-only">
						line {index + 1}</span
					></button
				>
				{#if wrong('cost')}<span class="wrong">{wrong('cost')}</span>{/if}
			</div>
		</li>
	{/each}
</ol>
{#if errors.lines}<p class="wrong">{errors.lines}</p>{/if}
<div class="flex gap-y-2.5 gap-x-3.5 items-center flex-wrap pt-3">
	<button type="button" class="button" onclick={add}
		><Plus size={18} aria-hidden="true" />Line</button
	>
	<div class="find flex-[1_1_220px] max-w-105">
		<PriceFinder
			label="Add a line from the price list"
			placeholder="Add from the price list"
			includes={includes ?? undefined}
			{today}
			onchoose={(made) =>
				lines.push(
					...made.map((line) => ({
						kind: line.kind,
						description: line.description,
						quantity: line.quantity,
						unit: line.unit,
						unitPrice: line.unitPrice,
						vat: line.vat,
						vatReason: line.vatReason,
						discount: '',
						cost: line.cost,
						extra: extras,
						itemId: line.itemId ?? null
					}))
				)}
		/>
	</div>
	<b class="numbers ml-auto [font:650_1.25rem_var(--font-heading)]">{displayPounds(sum)}</b>
</div>
