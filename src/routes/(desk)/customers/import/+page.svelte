<script lang="ts">
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import { enhance } from '$app/forms';

	let { form } = $props();
	let errors = $derived<Record<string, string>>((form && 'fields' in form && form.fields) || {});
	let preview = $derived((form && 'preview' in form && form.preview) || null);
	let report = $derived((form && 'report' in form && form.report) || null);
	let shown = $derived(report ?? preview);
	let root: HTMLFormElement;
	const WORDS = { new: 'new', same: 'is here', wrong: 'left out' };
</script>

<svelte:head><title>Bring in customers · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/customers">Customers</a></p>
	<h1>Bring in customers</h1>
	<form
		class="panel"
		bind:this={root}
		method="post"
		action="?/preview"
		enctype="multipart/form-data"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<FilePick
			label="A CSV file with a column of names, or vCards from a phone"
			name="file"
			accept=".csv,.txt,.vcf,text/csv,text/vcard"
			error={errors.file}
			onchoose={() => root.requestSubmit()}
		/>
		{#if preview && !report && preview.fresh > 0}<button class="button filled" formaction="?/write"
				>Add {preview.fresh} {preview.fresh === 1 ? 'customer' : 'customers'}</button
			>{/if}
	</form>
	{#if shown}
		<section class="panel" role="status">
			<h2>
				{shown.fresh}
				{report ? 'added' : 'new'}, {shown.same} here already, {shown.wrong} left out
			</h2>
			{#if report}<a class="button" href="/customers">To the customers</a>{/if}
			<ul>
				{#each shown.rows as row, index (index)}
					<li>
						<b>{row.name || `line ${row.line}`}</b> <span class="tag">{WORDS[row.outcome]}</span>
						<span class="quiet">{row.detail}</span>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
</div>

<style>
	form,
	section {
		padding: 16px 18px;
		display: grid;
		gap: 10px;
		justify-items: start;
		max-width: 860px;
		margin-top: 12px;
	}
	li {
		padding: 5px 0;
		border-bottom: 1px solid var(--hair);
	}
</style>
