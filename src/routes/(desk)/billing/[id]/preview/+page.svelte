<script lang="ts">
	import Paper from '$lib/ui/invoices/Paper.svelte';

	let { data } = $props();
	let shown = $state<'page' | 'pdf'>('page');
</script>

<svelte:head><title>As the customer sees it · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex justify-between items-center gap-3.5 flex-wrap">
		<h1>As the customer will see it</h1>
		<a class="button" href="/billing/{data.id}">Back to the sheet</a>
	</div>
	{#if data.view}
		<div class="flex gap-1 items-center my-3 mx-0 flex-wrap" role="group" aria-label="Show">
			<button
				class="pt-2 pb-1.25 px-3 border-b-4 border-b-transparent min-h-10.5 cursor-pointer [&.on]:border-b-(--tape) [&.on]:font-[650]"
				class:on={shown === 'page'}
				aria-pressed={shown === 'page'}
				onclick={() => (shown = 'page')}>The web page</button
			>
			<button
				class="pt-2 pb-1.25 px-3 border-b-4 border-b-transparent min-h-10.5 cursor-pointer [&.on]:border-b-(--tape) [&.on]:font-[650]"
				class:on={shown === 'pdf'}
				aria-pressed={shown === 'pdf'}
				onclick={() => (shown = 'pdf')}>The PDF</button
			>
			<a class="ml-auto" href="/billing/{data.id}/pdf?download">Download the PDF</a>
		</div>
		{#if shown === 'page'}
			<Paper
				view={data.view}
				logo={data.view.look.logo && `/settings/letterheads/logo/${data.view.look.logo}`}
			/>
		{:else}
			<iframe
				class="w-full h-[78vh] border border-(--hair) bg-(--sheet)"
				title="The PDF"
				src="/billing/{data.id}/pdf"
			></iframe>
		{/if}
	{:else}
		<p class="panel p-6 mt-3.5">Nothing is on it yet. Give it a line first.</p>
	{/if}
</div>
