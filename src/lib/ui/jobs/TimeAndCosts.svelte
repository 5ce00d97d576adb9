<!-- What was done and spent on a job: time and costs, each typed in one row of a form. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { enhance } from '$app/forms';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { KIND_NAMES } from '$lib/core/words';
	import { LINE_KINDS } from '$lib/core/figures/types';
	import { costAmount, hoursOf, sellingPrice } from '$lib/core/jobs/billing';
	import type { JobWork } from '$lib/core/jobs/types';
	import { displayAmount } from '$lib/core/money/display';
	import { multiplyToMinor, parseDecimal } from '$lib/core/money/decimal';
	import Field from '../parts/Field.svelte';
	import { pressKey } from '../parts/keys';
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
		/** Messages of the last press, at their fields. */
		errors: Record<string, string>;
		wrongForm: string;
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
		errors,
		wrongForm,
		adding = $bindable()
	}: Props = $props();

	let key = $state(pressKey());
	let item = $state({ description: '', unit: '', unitCost: '', unitPrice: '', id: '' });
	let kind = $state('materials');
	const d = (text: string) => parseDecimal(text) ?? { units: 0n, scale: 0 };
	let timeErrors = $derived(wrongForm === 'time' ? errors : {});
	let costErrors = $derived(wrongForm === 'cost' ? errors : {});
	const done = () => {
		return async ({
			result,
			update
		}: {
			result: { type: string };
			update: (options?: { reset: boolean }) => Promise<void>;
		}) => {
			const good = result.type === 'success';
			await update({ reset: good });
			if (!good) return;
			key = pressKey();
			item = { description: '', unit: '', unitCost: '', unitPrice: '', id: '' };
			adding = null;
		};
	};
</script>

<section aria-label="Time and costs">
	<ul>
		{#each work.time as entry (entry.id)}
			{@const holder = billed.get(`time:${entry.id}`)}
			<li>
				<span class="what"
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
					<form method="post" action="?/removeTime" use:enhance>
						<input type="hidden" name="entry" value={entry.id} />
						<button class="icon" aria-label="Remove this time"
							><Trash2 size={17} aria-hidden="true" /></button
						>
					</form>
				{/if}
			</li>
		{/each}
		{#each work.costs as cost (cost.id)}
			{@const holder = billed.get(`cost:${cost.id}`)}
			<li>
				<span class="what"
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
					<form method="post" action="?/removeCost" use:enhance>
						<input type="hidden" name="entry" value={cost.id} />
						<button class="icon" aria-label="Remove {cost.description}"
							><Trash2 size={17} aria-hidden="true" /></button
						>
					</form>
				{/if}
			</li>
		{/each}
	</ul>
	{#if work.time.length + work.costs.length === 0}
		<p class="quiet">Nothing was noted yet.</p>
	{/if}
	<div class="buttons">
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
		<form class="panel add" method="post" action="?/time" use:enhance={done}>
			<input type="hidden" name="key" value={key} />
			<Field
				label="Hours"
				name="hours"
				inputmode="text"
				placeholder="7.5 or 7:30"
				error={timeErrors.hours}
			/>
			<DateField label="Day" name="date" value={today} error={timeErrors.date} />
			<Field label="Who" name="person" placeholder="you" error={timeErrors.person} />
			<Field label="What for" name="note" error={timeErrors.note} />
			<Field
				label="Charged for an hour, £"
				name="rate"
				inputmode="decimal"
				value={hourlyRate}
				error={timeErrors.rate}
			/>
			<Field
				label="Costs you an hour, £"
				name="hourlyCost"
				inputmode="decimal"
				value={hourlyCost}
				error={timeErrors.hourlyCost}
			/>
			<label class="check"
				><input type="checkbox" name="chargeable" checked={chargeable} /> Charged to the customer</label
			>
			<button class="button filled">Add the time</button>
		</form>
	{:else if adding === 'cost'}
		<form class="panel add" method="post" action="?/cost" use:enhance={done}>
			<input type="hidden" name="key" value={key} />
			<input type="hidden" name="itemId" value={item.id} />
			<div class="wide">
				<PriceFinder
					label="From the price list"
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
			<Field
				label="What was it"
				name="description"
				bind:value={item.description}
				error={costErrors.description}
			/>
			<label class="field"
				><span class="name">Kind</span><select class="box" name="kind" bind:value={kind}>
					{#each LINE_KINDS as one (one)}<option value={one}>{KIND_NAMES[one]}</option>{/each}
				</select></label
			>
			<Field
				label="Quantity"
				name="quantity"
				inputmode="decimal"
				value="1"
				error={costErrors.quantity}
			/>
			<Field label="Unit" name="unit" bind:value={item.unit} error={costErrors.unit} />
			<Field
				label="One cost you, without VAT, £"
				name="unitCost"
				inputmode="decimal"
				bind:value={item.unitCost}
				error={costErrors.unitCost}
			/>
			<Field label="Mark-up, %" name="markUp" inputmode="decimal" error={costErrors.markUp} />
			<Field
				label="Or sold at, £"
				name="unitPrice"
				inputmode="decimal"
				bind:value={item.unitPrice}
				error={costErrors.unitPrice}
			/>
			<DateField label="Day" name="date" value={today} error={costErrors.date} />
			<label class="check"
				><input type="checkbox" name="chargeable" checked={chargeable} /> Charged to the customer</label
			>
			{#if kind === 'labour'}<p class="quiet wide">
					Paying a self-employed helper makes you a contractor yourself: register for CIS as one,
					verify the helper and deduct (FA 2004 s.57).
				</p>{/if}
			<button class="button filled">Add the cost</button>
		</form>
	{/if}
</section>

<style>
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto auto;
		gap: 10px;
		align-items: center;
		padding: 9px 0;
		border-bottom: 1px solid var(--hair);
	}
	.what > * {
		display: block;
		overflow-wrap: anywhere;
	}
	.icon {
		display: grid;
		place-items: center;
		width: 36px;
		height: 36px;
		cursor: pointer;
	}
	.buttons {
		display: flex;
		gap: 10px;
		margin-top: 12px;
	}
	.add {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
		gap: 10px 14px;
		padding: 14px 16px;
		margin-top: 10px;
		align-items: end;
	}
	.add .wide {
		grid-column: 1 / -1;
	}
	@media (max-width: 760px) {
		/* The page has them at the thumb. */
		.buttons {
			display: none;
		}
	}
</style>
