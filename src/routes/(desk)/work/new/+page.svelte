<script lang="ts">
	import { untrack } from 'svelte';
	import { enhance } from '$app/forms';
	import type { CustomerRecord } from '$lib/core/parties';
	import Field from '$lib/ui/parts/Field.svelte';
	import { pressKey } from '$lib/ui/parts/keys';
	import CustomerPicker from '$lib/ui/invoices/sheet/CustomerPicker.svelte';

	let { data, form } = $props();
	let customer = $state<CustomerRecord | null>(untrack(() => data.customer));
	let title = $state('');
	let description = $state('');
	let siteId = $state('');
	let pricing = $state('agreed');
	let hourlyRate = $state('');
	const key = pressKey();
	let fields = $derived<Record<string, string>>(form && 'fields' in form ? form.fields : {});
</script>

<svelte:head><title>New job · Axiometer</title></svelte:head>
<div class="page">
	<h1>New job</h1>
	<p class="quiet">A customer and a title are enough to begin.</p>
	<form
		class="panel"
		method="post"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<input type="hidden" name="key" value={key} />
		<input type="hidden" name="customerId" value={customer?.id ?? ''} />
		<CustomerPicker
			name={customer?.name ?? ''}
			wrong={customer ? undefined : fields.customerId}
			autofocus={!data.customer}
			onchoose={(record) => {
				customer = record;
				siteId = '';
			}}
		/>
		{#if customer?.sites.length}
			<label class="field"
				><span class="name">Site</span><select class="box" name="siteId" bind:value={siteId}>
					<option value="">none in particular</option>
					{#each customer.sites as site (site.id)}<option value={String(site.id)}
							>{site.name}</option
						>{/each}
				</select></label
			>
		{/if}
		<Field label="What is to be done" name="title" bind:value={title} error={fields.title} />
		<Field
			label="More about it"
			name="description"
			rows={3}
			bind:value={description}
			error={fields.description}
		/>
		<fieldset>
			<legend class="quiet">How is it priced?</legend>
			<label class="check"
				><input type="radio" name="pricing" value="agreed" bind:group={pricing} /><span
					>A price is agreed <span class="quiet">time and materials then count for the margin</span
					></span
				></label
			>
			<label class="check"
				><input type="radio" name="pricing" value="asDone" bind:group={pricing} /><span
					>By time and materials <span class="quiet">what is done is billed</span></span
				></label
			>
		</fieldset>
		{#if pricing === 'asDone'}<Field
				label="Charged for an hour, £"
				name="hourlyRate"
				inputmode="decimal"
				bind:value={hourlyRate}
				error={fields.hourlyRate}
			/>{/if}
		<label class="check"><input type="checkbox" name="enquiry" /> Only an enquiry so far</label>
		{#if form && 'message' in form && !Object.keys(fields).length}<p class="wrong" role="alert">
				{form.message}
			</p>{/if}
		<button class="button filled">Begin the job</button>
	</form>
</div>

<style>
	form {
		display: grid;
		gap: 14px;
		max-width: 640px;
		padding: 20px 22px;
		margin-top: 12px;
		justify-items: start;
	}
	form > :global(*) {
		width: 100%;
	}
	form > .button {
		width: auto;
	}
</style>
