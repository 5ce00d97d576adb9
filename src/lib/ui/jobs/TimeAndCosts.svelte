<!-- What was done and spent on a job: time and costs, each typed in one row of a form. -->
<script lang="ts">
	import Fold from '../parts/Fold.svelte';
	import Form from '../parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { KIND_NAMES } from '$lib/core/words';
	import { LINE_KINDS } from '$lib/core/figures/types';
	import { costAmount, hoursOf, sellingPrice } from '$lib/core/jobs/billing';
	import type { JobWork } from '$lib/core/jobs/types';
	import { displayAmount } from '$lib/core/money/display';
	import { multiplyToMinor, parseDecimal } from '$lib/core/money/decimal';
	import Field from '../parts/Field.svelte';
	import Choice from '../parts/Choice.svelte';
	import Money from '../parts/Money.svelte';
	import PriceFinder from '../prices/PriceFinder.svelte';

	interface Props {
		work: JobWork;
		/** `time:4` → what bills it. */
		billed: Map<string, string>;
		today: string;
		hourlyRate: string;
		hourlyCost: string;
		/** Chargeable unless a price is agreed. */
		chargeable: boolean;
		/** Whether the job's prices are with VAT; null where the owner charges none. */
		includes: boolean | null;
		/** Opens one of the two forms. */
		adding: 'time' | 'cost' | null;
	}
	let {
		work,
		billed,
		today,
		hourlyRate,
		hourlyCost,
		chargeable,
		includes,
		adding = $bindable()
	}: Props = $props();

	let basis = $derived(includes === null ? '' : includes ? ', with VAT' : ', without VAT');
	/** So many of the latest stand in sight. */
	const SHOWN = 8;
	let rows = $derived(
		[
			...work.time.map((entry) => ({ key: `time:${entry.id}`, date: entry.date, entry })),
			...work.costs.map((cost) => ({ key: `cost:${cost.id}`, date: cost.date, cost }))
		].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0))
	);
	let earlier = $derived(rows.slice(0, -SHOWN));
	let latest = $derived(rows.slice(-SHOWN));
	const NO_ITEM = { description: '', unit: '', unitCost: '', unitPrice: '', id: '' };
	let item = $state({ ...NO_ITEM });
	let kind = $state('materials');
	const d = (text: string) => parseDecimal(text) ?? { units: 0n, scale: 0 };
	function added() {
		item = { ...NO_ITEM };
		adding = null;
	}
</script>

<section aria-label="Time and costs">
	{#if earlier.length}
		<Fold label="{earlier.length} earlier">
			<ul>
				{#each earlier as one (one.key)}{@render row(one)}{/each}
			</ul>
		</Fold>
	{/if}
	<ul>
		{#each latest as one (one.key)}{@render row(one)}{/each}
	</ul>
	{#if work.time.length + work.costs.length === 0}
		<p class="quiet">Nothing was noted yet.</p>
	{/if}
	<div class="flex gap-2.5 mt-3 phone:hidden">
		<button
			class="button"
			type="button"
			onclick={() => (adding = adding === 'time' ? null : 'time')}>Time</button
		>
		<button
			class="button"
			type="button"
			onclick={() => (adding = adding === 'cost' ? null : 'cost')}>Materials or cost</button
		>
	</div>
	{#if adding === 'time'}
		<Form
			class="panel add grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5 py-3.5 px-4 mt-2.5 items-end"
			action="?/time"
			keyed
			ondone={added}
		>
			<Field label="Hours" name="hours" inputmode="text" placeholder="7.5 or 7:30" />
			<DateField label="Day" name="date" value={today} />
			<Field label="Who" name="person" placeholder="you" />
			<Field label="What for" name="note" />
			<Money label="Charged for an hour{basis}" name="rate" value={hourlyRate} />
			<Money label="Costs you an hour" name="hourlyCost" value={hourlyCost} />
			<label class="check"
				><input type="checkbox" name="chargeable" checked={chargeable} /> Charged to the customer</label
			>
			<button class="button filled">Add the time</button>
		</Form>
	{:else if adding === 'cost'}
		<Form
			class="panel add grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5 py-3.5 px-4 mt-2.5 items-end"
			action="?/cost"
			keyed
			hidden={{ itemId: item.id }}
			ondone={added}
		>
			<div class="col-span-full">
				<PriceFinder
					label="From the price list"
					includes={includes ?? undefined}
					{today}
					onchoose={([line], name) => {
						if (!line) return;
						item = {
							description: name,
							unit: line.unit,
							unitCost: line.cost,
							unitPrice: line.unitPrice,
							id: String(line.itemId ?? '')
						};
						kind = line.kind;
					}}
				/>
			</div>
			<Field label="What was it" name="description" bind:value={item.description} />
			<Choice label="Kind" name="kind" bind:value={kind}>
				{#each LINE_KINDS as one (one)}<option value={one}>{KIND_NAMES[one]}</option>{/each}
			</Choice>
			<Field label="Quantity" name="quantity" inputmode="decimal" value="1" />
			<Field label="Unit" name="unit" bind:value={item.unit} />
			<Money label="One cost you, without VAT" name="unitCost" bind:value={item.unitCost} />
			<Field label="Mark-up, %" name="markUp" inputmode="decimal" />
			<Money label="Or sold at{basis}" name="unitPrice" bind:value={item.unitPrice} />
			<DateField label="Day" name="date" value={today} />
			<label class="check"
				><input type="checkbox" name="chargeable" checked={chargeable} /> Charged to the customer</label
			>
			{#if kind === 'labour'}<p class="quiet col-span-full">
					Paying a self-employed helper makes you a contractor yourself: register for CIS as one,
					verify the helper and deduct (FA 2004 s.57).
				</p>{/if}
			<button class="button filled">Add the cost</button>
		</Form>
	{/if}
</section>

{#snippet row(one: (typeof rows)[number])}
	{#if 'entry' in one}{@render time(one.entry)}{:else}{@render cost(one.cost)}{/if}
{/snippet}

{#snippet time(entry: JobWork['time'][number])}
	{@const holder = billed.get(`time:${entry.id}`)}
	<li
		class="grid grid-cols-[minmax(0,1fr)_auto_auto] gap-2.5 items-center py-2.25 px-0 border-b border-b-(--hair)"
	>
		<span class="what *:block *:wrap-anywhere"
			><b>{entry.note || 'Time'}</b><span class="quiet"
				>{displayDate(entry.date)}{entry.person ? ` · ${entry.person}` : ''} · {entry.minutes ===
				null
					? 'the clock runs'
					: `${hoursOf(entry.minutes)} h`}{entry.chargeable ? '' : ' · not charged'}</span
			></span
		>
		<span class="numbers"
			>{entry.chargeable && entry.minutes
				? displayAmount(multiplyToMinor(d(hoursOf(entry.minutes)), d(entry.rate)))
				: ''}</span
		>
		{#if holder}<span class="tag">{holder}</span>{:else if entry.minutes !== null}
			<Form action="?/removeTime" hidden={{ entry: entry.id }}>
				<button
					class="grid place-items-center w-9 h-9 cursor-pointer"
					aria-label="Remove {entry.note || 'the time'} of {displayDate(entry.date)}"
					><Trash2 size={17} aria-hidden="true" /></button
				>
			</Form>
		{/if}
	</li>
{/snippet}

{#snippet cost(cost: JobWork['costs'][number])}
	{@const holder = billed.get(`cost:${cost.id}`)}
	<li
		class="grid grid-cols-[minmax(0,1fr)_auto_auto] gap-2.5 items-center py-2.25 px-0 border-b border-b-(--hair)"
	>
		<span class="what *:block *:wrap-anywhere"
			><b>{cost.description}</b><span class="quiet"
				>{displayDate(cost.date)} · {KIND_NAMES[cost.kind].toLowerCase()} · cost you {displayAmount(
					costAmount(cost)
				)}{cost.chargeable ? '' : ' · not charged'}</span
			></span
		>
		<span class="numbers"
			>{cost.chargeable
				? displayAmount(multiplyToMinor(d(cost.quantity), d(sellingPrice(cost))))
				: ''}</span
		>
		{#if holder}<span class="tag">{holder}</span>{:else}
			<Form action="?/removeCost" hidden={{ entry: cost.id }}>
				<button
					class="grid place-items-center w-9 h-9 cursor-pointer"
					aria-label="Remove {cost.description} of {displayDate(cost.date)}"
					><Trash2 size={17} aria-hidden="true" /></button
				>
			</Form>
		{/if}
	</li>
{/snippet}
