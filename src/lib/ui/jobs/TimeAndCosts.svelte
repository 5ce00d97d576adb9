<!-- What was done and spent on a job: time and costs, each typed in one row of a form. -->
<script lang="ts">
	import { fromBin } from '$lib/ui/parts/takeBack';
	import LateFold from '../parts/LateFold.svelte';
	import Form from '../parts/Form.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { KIND_NAMES } from '$lib/core/words';
	import { costAmount, hoursOf, sellingPrice } from '$lib/core/jobs/billing';
	import type { JobWork } from '$lib/core/jobs/types';
	import { displayAmount } from '$lib/core/money/display';
	import { multiplyToMinor, parseDecimal } from '$lib/core/money/decimal';
	import Field from '../parts/Field.svelte';
	import Money from '../parts/Money.svelte';

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
	const SHOWN = 6;
	let rows = $derived(
		[
			...work.time.map((entry) => ({ key: `time:${entry.id}`, date: entry.date, entry })),
			...work.costs.map((cost) => ({ key: `cost:${cost.id}`, date: cost.date, cost }))
		].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0))
	);
	let earlier = $derived(rows.slice(0, -SHOWN));
	let latest = $derived(rows.slice(-SHOWN));
	const d = (text: string) => parseDecimal(text) ?? { units: 0n, scale: 0 };
	function added() {
		adding = null;
	}
</script>

<section aria-label="Time and costs">
	<Form action="?/removeTime" done="It is removed." undo={fromBin}>
		{#if earlier.length}
			<LateFold label="{earlier.length} earlier">
				<ul>
					{#each earlier as one (one.key)}{@render row(one)}{/each}
				</ul>
			</LateFold>
		{/if}
		<ul>
			{#each latest as one (one.key)}{@render row(one)}{/each}
		</ul>
	</Form>
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
		{#await import('./CostForm.svelte') then { default: CostForm }}
			<CostForm {today} {includes} {chargeable} ondone={() => (adding = null)} />
		{:catch}<p class="wrong">The connection is lost. Try again when it is back.</p>{/await}
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
			<button
				class="grid place-items-center w-9 h-9 cursor-pointer"
				name="entry"
				value={entry.id}
				aria-label="Remove {entry.note || 'the time'} of {displayDate(entry.date)}"
				><Trash2 size={17} aria-hidden="true" /></button
			>
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
			<button
				class="grid place-items-center w-9 h-9 cursor-pointer"
				name="entry"
				value={cost.id}
				formaction="?/removeCost"
				aria-label="Remove {cost.description} of {displayDate(cost.date)}"
				><Trash2 size={17} aria-hidden="true" /></button
			>
		{/if}
	</li>
{/snippet}
