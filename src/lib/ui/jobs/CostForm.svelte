<!-- What was spent on a job, typed in one row of a form, or taken from the price list. -->
<script lang="ts">
	import DateField from '$lib/ui/parts/DateField.svelte';
	import { LINE_KINDS } from '$lib/core/figures/types';
	import { KIND_NAMES } from '$lib/core/words';
	import Choice from '../parts/Choice.svelte';
	import Field from '../parts/Field.svelte';
	import Form from '../parts/Form.svelte';
	import Money from '../parts/Money.svelte';
	import PriceFinder from '../prices/PriceFinder.svelte';

	interface Props {
		today: string;
		/** Whether the job's prices are with VAT; null where the owner charges none. */
		includes: boolean | null;
		/** Chargeable unless a price is agreed. */
		chargeable: boolean;
		ondone: () => void;
	}
	let { today, includes, chargeable, ondone }: Props = $props();
	let basis = $derived(includes === null ? '' : includes ? ', with VAT' : ', without VAT');
	let item = $state({ description: '', unit: '', unitCost: '', unitPrice: '', id: '' });
	let kind = $state('materials');
</script>

<Form
	class="panel add grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-y-2.5 gap-x-3.5 py-3.5 px-4 mt-2.5 items-end"
	action="?/cost"
	keyed
	hidden={{ itemId: item.id }}
	{ondone}
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
			Paying a self-employed helper makes you a contractor yourself: register for CIS as one, verify
			the helper and deduct (FA 2004 s.57).
		</p>{/if}
	<button class="button filled">Add the cost</button>
</Form>
