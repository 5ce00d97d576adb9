<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import { untrack } from 'svelte';
	import type { CustomerRecord } from '$lib/core/parties';
	import Field from '$lib/ui/parts/Field.svelte';
	import WorkKindChoice from '$lib/ui/letterheads/WorkKindChoice.svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Money from '$lib/ui/parts/Money.svelte';
	import DateField from '$lib/ui/parts/DateField.svelte';
	import Fold from '$lib/ui/parts/Fold.svelte';
	import { pricesIncludeVatFor } from '$lib/core/sheet/blank';
	import Tick from '$lib/ui/parts/Tick.svelte';
	import CustomerPicker from '$lib/ui/invoices/sheet/CustomerPicker.svelte';

	let { data } = $props();
	let customer = $state<CustomerRecord | null>(untrack(() => data.customer));
	let title = $state('');
	let description = $state('');
	let siteId = $state('');
	let workKindId = $state<number | null>(null);
	let pricing = $state('agreed');
	let hourlyRate = $state('');
	let price = $state('');
	let day = $state('');
	let from = $state('');
	/** A household is quoted with VAT. */
	let basis = $derived(
		!data.registered || !customer
			? ''
			: pricesIncludeVatFor(customer.kind)
				? ', with VAT'
				: ', without VAT'
	);
</script>

<svelte:head><title>New job · Axiometer</title></svelte:head>
<div class="page">
	<h1>New job</h1>
	<p class="quiet">
		A customer and a title are enough to begin. <a href="/work/import">Bring jobs in from a file</a>
	</p>
	<Form
		class="panel grid gap-3.5 max-w-160 py-5 px-5.5 mt-3 justify-items-start *:w-full"
		keyed
		hidden={{ customerId: customer?.id ?? '' }}
	>
		{#snippet children(frame)}
			<CustomerPicker
				name={customer?.name ?? ''}
				wrong={customer ? undefined : frame.error('customerId')}
				autofocus={!data.customer}
				onchoose={(record) => {
					customer = record;
					siteId = '';
				}}
			/>
			{#if customer?.sites.length}
				<Choice label="Site" name="siteId" bind:value={siteId}>
					<option value="">none in particular</option>
					{#each customer.sites as site (site.id)}<option value={String(site.id)}
							>{site.name}</option
						>{/each}
				</Choice>
			{/if}
			<Field label="What is to be done" name="title" bind:value={title} />
			<WorkKindChoice name="workKindId" bind:value={workKindId} />
			<div class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-4.5 gap-y-3">
				<DateField label="Day of the visit" name="day" bind:value={day} hint="if you know it yet" />
				<Field label="At" name="from" inputmode="numeric" placeholder="09:30" bind:value={from} />
			</div>
			<fieldset>
				<legend class="quiet">How is it priced?</legend>
				<label class="check"
					><input type="radio" name="pricing" value="agreed" bind:group={pricing} /><span
						>A price is agreed <span class="quiet"
							>time and materials then count for the margin</span
						></span
					></label
				>
				<label class="check"
					><input type="radio" name="pricing" value="asDone" bind:group={pricing} /><span
						>By time and materials <span class="quiet">what is done is billed</span></span
					></label
				>
			</fieldset>
			{#if pricing === 'asDone'}<Money
					label="Charged for an hour{basis}"
					name="hourlyRate"
					bind:value={hourlyRate}
				/>
			{:else}<Money label="The price{basis}" name="price" bind:value={price} />{/if}
			<Fold label="More about it">
				<Field label="Description" name="description" rows={3} bind:value={description} />
				<Tick name="enquiry">Only an enquiry so far</Tick>
			</Fold>
			<button class="button filled w-auto!">Begin the job</button>
		{/snippet}
	</Form>
</div>
