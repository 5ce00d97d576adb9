<!-- An entry of the price list, or a kit made of entries. -->
<script lang="ts">
	import NeedsScripts from '$lib/ui/parts/NeedsScripts.svelte';
	import { untrack } from 'svelte';
	import { KIND_NAMES } from '$lib/core/words';
	import { LINE_KINDS, type LineKind } from '$lib/core/figures/types';
	import { displayAmount } from '$lib/core/money/display';
	import { lineAmount } from '$lib/core/jobs/billing';
	import { reasonsOn } from '$lib/core/regimes/gb/reasons';
	import type { VatTreatment } from '$lib/core/regimes/types';
	import { priceOn, ratesOn } from '$lib/core/sheet/priceBasis';
	import Field from '../parts/Field.svelte';
	import TagChoice from '../parts/TagChoice.svelte';
	import Segments from '../parts/Segments.svelte';
	import { VAT_BASIS } from './find';
	import LineGrid from '../lines/LineGrid.svelte';
	import { Draft, type LinesOf } from '../lines/draft.svelte';
	import { blankLine, blankSheet } from '$lib/core/sheet/blank';

	export interface EntryValues {
		name: string;
		code: string;
		text: string;
		kind: LineKind;
		unit: string;
		unitPrice: string;
		withVat: boolean;
		cost: string;
		vat: VatTreatment;
		vatReason: string;
		category: string;
		income?: string;
		kit: 'line' | 'parts' | null;
		parts: {
			itemId: number;
			quantity: string;
			name: string;
			unit: string;
			unitPrice: string;
			withVat: boolean;
			vat: VatTreatment;
		}[];
	}
	interface Props {
		values: EntryValues;
		categories: string[];
		today: string;
		/** Whether the owner charges VAT: otherwise there is none to be in a price. */
		registered: boolean;
		parties: Pick<LinesOf, 'seller' | 'customer' | 'today'>;
		/** Sends the entry; gives messages by field back, or nothing when it is saved. */
		onsave: (values: object) => Promise<{ message: string; fields: Record<string, string> } | null>;
	}
	let { values, categories, today, registered, parties, onsave }: Props = $props();
	let entry = $state(untrack(() => structuredClone($state.snapshot(values)) as EntryValues));
	let errors = $state<Record<string, string>>({});
	let message = $state('');
	let busy = $state(false);
	let reasons = $derived(reasonsOn(today));
	/** A kit's parts as lines of the grid: each an entry of the list, with its price as the kit takes prices. */
	const parts = untrack(
		() =>
			new Draft({
				...parties,
				of: 'kit',
				draft: {
					id: 0,
					sheet: {
						...blankSheet(),
						pricesIncludeVat: values.withVat,
						rows: values.parts.map((part, index) => ({
							...blankLine(`p${index}`),
							description: part.name,
							quantity: part.quantity,
							unit: part.unit,
							unitPrice: priceOn(
								part.unitPrice,
								part.withVat,
								values.withVat,
								ratesOn(today, registered)(part.vat)
							),
							vat: part.vat,
							itemId: part.itemId,
							listPrice: { price: part.unitPrice, withVat: part.withVat }
						}))
					}
				}
			})
	);
	let lines = $derived(parts.kept.filter((row) => row.type === 'line'));
	let partsSum = $derived(lines.reduce((sum, line) => sum + lineAmount(line), 0n));

	/** The kit takes its prices the other way, so those of its parts are converted. */
	function takePrices(withVat: boolean) {
		entry.withVat = withVat;
		const before = parts.sheet.pricesIncludeVat;
		parts.sheet.pricesIncludeVat = withVat;
		for (const row of parts.sheet.rows)
			if (row.type === 'line') {
				const { price, withVat: from } = (row.listPrice ??= {
					price: row.unitPrice,
					withVat: before
				});
				row.unitPrice = priceOn(price, from, withVat, parts.rateOf(row.vat));
			}
	}

	async function save(event: SubmitEvent) {
		event.preventDefault();
		const strange = lines.find((line) => line.itemId === undefined);
		if (entry.kit !== null && strange) {
			parts.refused = {
				[`rows.${strange.id}.description`]:
					'Choose it from the price list: arrow down, then Enter. What is not on the list is added there first.'
			};
			parts.wanted = `rows.${strange.id}.description`;
			return;
		}
		busy = true;
		const { parts: _before, ...plain } = $state.snapshot(entry) as EntryValues;
		const answer = await onsave({
			...plain,
			parts: lines.map(({ itemId, quantity }) => ({ itemId, quantity }))
		}).catch(() => ({
			message: 'The connection is lost. Nothing was saved; try again.',
			fields: {}
		}));
		busy = false;
		errors = answer?.fields ?? {};
		parts.refused = Object.fromEntries(
			lines.flatMap(({ id }, index) => {
				const said = errors[`parts.${index}.quantity`] ?? errors[`parts.${index}`];
				return said ? [[`rows.${id}.quantity`, said]] : [];
			})
		);
		message = answer?.message ?? '';
	}
</script>

<NeedsScripts instead="The price list can be brought in as a file." />
<form
	class="panel grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] gap-y-3 gap-x-4.5 py-4.5 px-5 max-w-205 [&.kit]:max-w-270"
	class:kit={entry.kit !== null}
	onsubmit={save}
	novalidate
>
	{#if message}<p class="wrong col-span-full" role="alert">{message}</p>{/if}
	<Field label="Name" name="name" bind:value={entry.name} error={errors.name} />
	<Field label="Code" name="code" bind:value={entry.code} error={errors.code} />
	<label class="field"
		><span class="name">Kind</span><select class="box" name="kind" bind:value={entry.kind}>
			{#each LINE_KINDS as kind (kind)}<option value={kind}>{KIND_NAMES[kind]}</option>{/each}
		</select></label
	>
	<Field
		label="Category"
		name="category"
		list="categories"
		bind:value={entry.category}
		error={errors.category}
	/>
	<datalist id="categories"
		>{#each categories as one (one)}<option value={one}></option>{/each}</datalist
	>
	<TagChoice sort="income" bind:value={() => entry.income ?? '', (name) => (entry.income = name)} />
	<Field
		label="Price of one, £"
		name="unitPrice"
		inputmode="decimal"
		placeholder={entry.kit ? displayAmount(partsSum) : ''}
		bind:value={entry.unitPrice}
		error={errors.unitPrice}
	/>
	{#if registered}<div>
			<Segments
				label="That price is"
				value={entry.withVat ? 'with' : 'without'}
				options={VAT_BASIS}
				onchange={(chosen) => takePrices(chosen === 'with')}
			/>
		</div>{/if}
	<Field label="Unit" name="unit" bind:value={entry.unit} error={errors.unit} />
	{#if entry.kit === null}
		<Field
			label="Costs you, without VAT, £"
			name="cost"
			inputmode="decimal"
			bind:value={entry.cost}
			error={errors.cost}
		/>
		<label class="field"
			><span class="name">VAT</span><select
				class="box"
				name="vat"
				aria-invalid={errors.vat ? 'true' : undefined}
				value={entry.vat === 'standard' ? 'standard' : entry.vatReason}
				onchange={(event) => {
					const chosen = event.currentTarget.value;
					entry.vat = reasons.find((one) => one.id === chosen)?.treatment ?? 'standard';
					entry.vatReason = entry.vat === 'standard' ? '' : chosen;
				}}
			>
				<option value="standard">Standard</option>
				{#each reasons as one (one.id)}<option value={one.id}>{one.label}</option>{/each}
			</select>{#if errors.vat}<span class="wrong">{errors.vat}</span>{/if}</label
		>
	{/if}
	<div class="col-span-full">
		<Field
			label="Text for the customer, where it is not the name"
			name="text"
			rows={2}
			bind:value={entry.text}
			error={errors.text}
		/>
	</div>
	<label class="check col-span-full"
		><input
			type="checkbox"
			checked={entry.kit !== null}
			onchange={(event) => (entry.kit = event.currentTarget.checked ? 'line' : null)}
		/> It is a kit, made of other entries</label
	>
	{#if entry.kit !== null}
		<fieldset class="grid gap-2 col-span-full">
			<legend class="font-semibold">What one of it is made of</legend>
			<LineGrid draft={parts} />
			{#if errors.parts}<p class="wrong">{errors.parts}</p>{/if}
			<p class="numbers text-right font-semibold pr-14.5">Parts: {displayAmount(partsSum)}</p>
			<label class="check"
				><input type="radio" value="line" bind:group={entry.kit} /> On a document it is one line</label
			>
			<label class="check"
				><input type="radio" value="parts" bind:group={entry.kit} /> On a document its parts are shown</label
			>
			{#if errors.kit}<p class="wrong">{errors.kit}</p>{/if}
		</fieldset>
	{/if}
	<div class="col-span-full"><button class="button filled" aria-busy={busy}>Save</button></div>
</form>
