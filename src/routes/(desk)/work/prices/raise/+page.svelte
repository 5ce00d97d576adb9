<script lang="ts">
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Table from '$lib/ui/parts/Table.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data, form } = $props();
	let category = $state('');
	let percent = $state('');
	let seen = $derived(form && 'seen' in form && form.seen ? form : null);
	let fits = $derived(seen?.values?.category === category && seen?.values?.percent === percent);
</script>

<svelte:head><title>Raise prices · Axiometer</title></svelte:head>
<div class="page">
	<h1>Raise prices</h1>
	<Tabs label="Work" pages={WORK_PAGES} />
	<Form class="panel flex flex-wrap gap-y-3 gap-x-4 items-end py-4 px-4.5 mb-3" action="?/preview">
		<Choice label="Of" name="category" bind:value={category} class="min-w-50">
			<option value="">everything on the list</option>
			{#each data.categories as one (one)}<option value={one}>{one}</option>{/each}
		</Choice>
		<Field
			label="By, in percent"
			name="percent"
			inputmode="text"
			placeholder="4.5"
			bind:value={percent}
		/>
		<button class="button" class:filled={!fits}>See what it makes</button>
		{#if seen && fits}
			<input type="hidden" name="seen" value={seen.seen} />
			<button class="button filled" formaction="?/raise"
				>Change {seen.count?.toLocaleString('en-GB')} prices</button
			>
		{/if}
		{#if form && 'done' in form}<p role="status">
				<b>{form.done?.toLocaleString('en-GB')} prices changed.</b>
				<a href="/work/prices">To the price list</a>
			</p>{/if}
	</Form>
	{#if seen && fits}
		<div class="panel max-w-190 overflow-x-auto">
			<Table
				label="Prices now and then"
				rows={seen.raised ?? []}
				columns={[
					{ id: 'name', head: 'Entry', text: (row) => row.name, names: true },
					{ id: 'before', head: 'Now', text: (row) => row.before, figures: true },
					{
						id: 'after',
						head: 'Then',
						text: (row) => row.after,
						figures: true,
						look: () => 'font-[650]'
					}
				]}
				id={(row) => row.id}
				empty="No entry with a price is in this category."
			/>
		</div>
		<p class="quiet">
			Kits follow their parts. Rounded to the penny. Documents written before keep their prices.
		</p>
	{/if}
</div>
