<!-- The boxes of a cost; what a photo of its receipt seems to say is put in and marked, never taken unseen. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { CATEGORY_NAMES, COST_CATEGORIES, type CostCategory } from '$lib/core/costs/types';
	import { meaningsOf } from '$lib/core/costs/meaning';
	import { mileageCost } from '$lib/core/costs/mileage';
	import type { ReceiptRead } from '$lib/core/costs/receipt';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import { readTypedNumber } from '$lib/core/money/typed';
	import Choice from '../parts/Choice.svelte';
	import DateField from '../parts/DateField.svelte';
	import Field from '../parts/Field.svelte';
	import FilePick from '../parts/FilePick.svelte';
	import Fold from '../parts/Fold.svelte';
	import Segments from '../parts/Segments.svelte';
	import TagChoice from '../parts/TagChoice.svelte';
	import Tick from '../parts/Tick.svelte';
	import { shrink } from '../files/shrink';

	interface Values {
		kind: 'bill' | 'credit' | 'mileage';
		supplier: string;
		number: string;
		description: string;
		date: string;
		paidOn: string;
		gross: string;
		vat: string;
		reclaim: boolean;
		privateShare: string;
		category: CostCategory;
		centre: string;
		miles: string;
		jobId: number | null;
		chargeable: boolean;
		markUp: string;
	}
	interface Props {
		start: Values;
		today: string;
		registered: boolean;
		suppliers: readonly {
			name: string;
			subcontractor: boolean;
			vatNumber: string;
			category: CostCategory | null;
		}[];
		jobs: readonly { id: number; number: string; title: string; customer: string }[];
		/** A photo can be read: of a new one. */
		photo?: boolean;
		/** There may be another that looks the same. */
		twin?: string | undefined;
	}
	let { start, today, registered, suppliers, jobs, photo = false, twin }: Props = $props();
	let cost = $state(untrack(() => ({ ...start })));
	let paid = $state(untrack(() => start.paidOn !== '' || start.gross === ''));
	let reading = $state(false);
	/** What was read, until it is typed over. */
	let read = $state<Partial<Record<'date' | 'gross' | 'vat', boolean>>>({});
	let said = $state('');
	let supplier = $derived(
		suppliers.find(({ name }) => name.toLowerCase() === cost.supplier.trim().toLowerCase()) ?? null
	);
	const pence = (typed: string): number => {
		const number = readTypedNumber(typed, { decimals: 2 });
		return number.ok ? Math.round(Number(number.text) * 100) : 0;
	};
	let meanings = $derived(
		meaningsOf(
			supplier,
			{ vatRegistered: registered },
			{ gross: pence(cost.gross), vat: pence(cost.vat), reclaim: cost.reclaim }
		)
	);
	let miles = $derived(readTypedNumber(cost.miles, { decimals: 2 }));

	function chosenSupplier() {
		if (supplier?.category) cost.category = supplier.category;
	}
	/** The photo goes to this machine's own reader; whatever comes of it, it is kept with the cost. */
	async function look(files: File[]) {
		const [file] = files;
		if (!file?.type.startsWith('image/')) return;
		reading = true;
		said = '';
		const body = new FormData();
		body.set('file', await shrink(file));
		const response = await fetch('/costs/read', { method: 'POST', body }).catch(() => null);
		const answer = (await response?.json().catch(() => null)) as
			(ReceiptRead & { nothing: boolean; fields?: Record<string, string> }) | null;
		reading = false;
		if (!response?.ok || !answer) {
			said = answer?.fields?.file ?? 'It could not be read just now. Type what it says.';
			return;
		}
		if (answer.nothing) {
			said = 'Nothing on it could be read as a receipt. Type what it says.';
			return;
		}
		read = {};
		// Nothing that somebody typed is overwritten.
		if (answer.total && cost.gross === '') {
			cost.gross = displayAmount(answer.total.value);
			read.gross = answer.total.sure;
		}
		if (answer.date && cost.date === today) {
			cost.date = answer.date.value;
			read.date = answer.date.sure;
		}
		if (answer.vat && cost.vat === '') {
			cost.vat = displayAmount(answer.vat.value);
			read.vat = answer.vat.sure;
			cost.reclaim = registered;
		}
		said = Object.values(read).every(Boolean)
			? 'Read from the photo. Look at it before you keep it.'
			: 'Read from the photo, and not all of it for certain: check what is marked.';
	}
	const hint = (box: 'date' | 'gross' | 'vat') =>
		read[box] === undefined
			? {}
			: { hint: read[box] ? 'read from the photo' : 'read from the photo: is it right?' };
	const typedOver = (event: Event) => {
		const { name } = event.target as HTMLInputElement;
		if (name === 'gross' || name === 'vat' || name === 'date') read[name] = undefined as never;
	};
</script>

<div class="grid gap-3.5" oninput={typedOver}>
	<Segments
		label="What it is"
		name="kind"
		bind:value={cost.kind}
		options={[
			{ value: 'bill', label: 'Bought' },
			{ value: 'credit', label: 'Credit from a supplier' },
			{ value: 'mileage', label: 'Mileage' }
		]}
	/>
	{#if photo && cost.kind !== 'mileage'}
		<FilePick
			label="Photo of the receipt"
			name="file"
			accept="image/*,application/pdf"
			capture
			onchoose={look}
		/>
		<p class="quiet min-h-6" role="status">
			{reading ? 'Reading it, on this machine …' : said}
		</p>
	{/if}
	<div class="grid grid-cols-[repeat(auto-fit,minmax(220px,1fr))] gap-x-4.5 gap-y-3 items-start">
		<Field
			label={cost.kind === 'mileage' ? 'From where to where, and what for' : 'What it was'}
			name="description"
			maxlength={300}
			bind:value={cost.description}
		/>
		{#if cost.kind !== 'mileage'}
			<div class="field">
				<label class="name" for="supplier">From</label>
				<input
					class="box"
					id="supplier"
					name="supplier"
					list="suppliers"
					maxlength="200"
					autocomplete="off"
					bind:value={cost.supplier}
					onchange={chosenSupplier}
				/>
				<datalist id="suppliers">
					{#each suppliers as { name } (name)}<option value={name}></option>{/each}
				</datalist>
			</div>
			<Field label="Their number" name="number" maxlength={60} bind:value={cost.number} />
		{/if}
		<DateField label="Date" name="date" max={today} bind:value={cost.date} {...hint('date')} />
		{#if cost.kind === 'mileage'}
			<Field
				label="Miles"
				name="miles"
				inputmode="decimal"
				bind:value={cost.miles}
				hint={miles.ok && Number(miles.text) > 0
					? `${displayPounds(mileageCost(miles.text))} at 45p a mile; 25p after 10,000 in the tax year`
					: '45p a mile; 25p after 10,000 in the tax year'}
			/>
		{:else}
			<Field
				label="In all, with VAT, £"
				name="gross"
				inputmode="decimal"
				bind:value={cost.gross}
				{...hint('gross')}
			/>
			<Field
				label="Of it VAT, £"
				name="vat"
				inputmode="decimal"
				bind:value={cost.vat}
				{...hint('vat')}
			/>
		{/if}
		<Choice label="What it is for" name="category" bind:value={cost.category}>
			{#each COST_CATEGORIES as category (category)}<option value={category}
					>{CATEGORY_NAMES[category].name}</option
				>{/each}
		</Choice>
		<TagChoice sort="centre" name="centre" bind:value={cost.centre} />
		<Choice label="Job" name="jobId" bind:value={cost.jobId}>
			<option value={null}>none</option>
			{#each jobs as job (job.id)}<option value={job.id}
					>{job.number} {job.title}, {job.customer}</option
				>{/each}
		</Choice>
	</div>
	{#if cost.kind !== 'mileage'}
		<div class="flex flex-wrap gap-x-6 gap-y-1">
			{#if registered}<Tick name="reclaim" bind:checked={cost.reclaim}>Reclaim the VAT</Tick>{/if}
			<Tick name="paid" bind:checked={paid}>It is paid</Tick>
		</div>
		{#if paid}<div class="max-w-64">
				<DateField
					label="Paid on"
					name="paidOn"
					bind:value={cost.paidOn}
					hint="empty: on its own day"
				/>
			</div>{/if}
	{/if}
	{#if cost.jobId !== null}
		<div class="flex flex-wrap items-end gap-x-6 gap-y-2">
			<Tick name="chargeable" bind:checked={cost.chargeable}>Charge it on to the customer</Tick>
			{#if cost.chargeable}<div class="w-40">
					<Field
						label="With on top, %"
						name="markUp"
						inputmode="decimal"
						bind:value={cost.markUp}
					/>
				</div>{/if}
		</div>
	{:else}
		<Fold label="Some of it is private" open={cost.privateShare !== ''}>
			<div class="w-44">
				<Field
					label="Private, %"
					name="privateShare"
					inputmode="decimal"
					bind:value={cost.privateShare}
				/>
			</div>
		</Fold>
	{/if}
	{#each meanings as { words, reference } (words)}
		<p class="border-l-4 border-l-(--tape) pl-3 py-1">
			{words} <span class="quiet">{reference}</span>
		</p>
	{/each}
	{#if twin}<Tick name="another" checked={false}>{twin}</Tick>{/if}
</div>
