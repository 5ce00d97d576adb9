<script lang="ts">
	import { enhance } from '$app/forms';
	import Field from '$lib/ui/parts/Field.svelte';
	import Tabs from '$lib/ui/parts/Places.svelte';
	import { WORK_PAGES } from '$lib/ui/jobs/tabs';

	let { data, form } = $props();
	let category = $state('');
	let percent = $state('');
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let message = $derived(
		form && 'message' in form && !Object.keys(errors).length ? form.message : ''
	);
	let seen = $derived(form && 'seen' in form && form.seen ? form : null);
	let fits = $derived(seen?.values?.category === category && seen?.values?.percent === percent);
</script>

<svelte:head><title>Raise prices · Axiometer</title></svelte:head>
<div class="page">
	<h1>Raise prices</h1>
	<Tabs label="Work" pages={WORK_PAGES} />
	<form
		class="panel"
		method="post"
		action="?/preview"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<label class="field"
			><span class="name">Of</span><select class="box" name="category" bind:value={category}>
				<option value="">everything on the list</option>
				{#each data.categories as one (one)}<option value={one}>{one}</option>{/each}
			</select></label
		>
		<Field
			label="By, in percent"
			name="percent"
			inputmode="text"
			placeholder="4.5"
			bind:value={percent}
			error={errors.percent}
		/>
		{#if message}<p class="wrong" role="alert">{message}</p>{/if}
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
	</form>
	{#if seen && fits}
		<table class="panel numbers">
			<thead><tr><th>Entry</th><th class="r">Now</th><th class="r">Then</th></tr></thead>
			<tbody>
				{#each seen.raised ?? [] as row (row.id)}
					<tr
						><td>{row.name}</td><td class="r">{row.before}</td><td class="r"><b>{row.after}</b></td
						></tr
					>
				{:else}<tr><td colspan="3">No entry with a price is in this category.</td></tr>{/each}
			</tbody>
		</table>
		<p class="quiet">
			Kits follow their parts. Rounded to the penny. Documents written before keep their prices.
		</p>
	{/if}
</div>

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 12px 16px;
		align-items: end;
		padding: 16px 18px;
		margin-bottom: 12px;
	}
	form .field {
		min-width: 200px;
	}
	table {
		width: 100%;
		max-width: 760px;
		border-collapse: collapse;
	}
	th,
	td {
		padding: 7px 14px;
		text-align: left;
		border-bottom: 1px solid var(--hair);
	}
	.r {
		text-align: right;
	}
</style>
