<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import FilePick from '$lib/ui/parts/FilePick.svelte';

	let { form } = $props();
	let preview = $derived((form && 'preview' in form && form.preview) || null);
	let report = $derived((form && 'report' in form && form.report) || null);
	let shown = $derived(report ?? preview);
	let root = $state<HTMLFormElement>();
	const WORDS = { new: 'new', same: 'is here', wrong: 'left out' };
</script>

<svelte:head><title>Bring in customers · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/customers">Customers</a></p>
	<h1>Bring in customers</h1>
	<Form
		class="panel py-4 px-4.5 grid gap-2.5 justify-items-start max-w-215 mt-3"
		bind:root
		action="?/preview"
		enctype="multipart/form-data"
	>
		<FilePick
			label="A CSV file with a column of names, or vCards from a phone"
			name="file"
			accept=".csv,.txt,.vcf,text/csv,text/vcard"
			onchoose={() => root?.requestSubmit()}
		/>
		{#if preview && !report && preview.fresh > 0}<button class="button filled" formaction="?/write"
				>Add {preview.fresh} {preview.fresh === 1 ? 'customer' : 'customers'}</button
			>{/if}
	</Form>
	{#if shown}
		<section
			class="panel py-4 px-4.5 grid gap-2.5 justify-items-start max-w-215 mt-3"
			role="status"
		>
			<h2>
				{shown.fresh}
				{report ? 'added' : 'new'}, {shown.same} here already, {shown.wrong} left out
			</h2>
			{#if report}<a class="button" href="/customers">To the customers</a>{/if}
			<ul>
				{#each shown.rows as row, index (index)}
					<li class="py-1.25 px-0 border-b border-b-(--hair)">
						<b>{row.name || `line ${row.line}`}</b> <span class="tag">{WORDS[row.outcome]}</span>
						<span class="quiet">{row.detail}</span>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
</div>
