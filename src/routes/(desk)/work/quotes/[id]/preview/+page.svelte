<script lang="ts">
	import QuotePaper from '$lib/ui/quotes/QuotePaper.svelte';

	let { data } = $props();
	let shown = $state<'page' | 'pdf'>('page');
</script>

<svelte:head><title>As the customer sees it · Axiometer</title></svelte:head>
<div class="page">
	<div class="flex justify-between items-center gap-3.5 flex-wrap">
		<h1>As the customer will see it</h1>
		<a class="button" href="/work/quotes/{data.id}?write">Back to the sheet</a>
	</div>
	{#if data.quote}
		<div class="flex gap-1 items-center my-3 mx-0 flex-wrap" role="group" aria-label="Show">
			{#each [['page', 'The web page'], ['pdf', 'The PDF']] as const as [what, words] (what)}
				<button
					class="pt-2 pb-1.25 px-3 border-b-4 border-b-transparent min-h-10.5 cursor-pointer [&.on]:border-b-(--tape) [&.on]:font-[650]"
					class:on={shown === what}
					aria-pressed={shown === what}
					onclick={() => (shown = what)}>{words}</button
				>
			{/each}
			<a class="ml-auto" href="/work/quotes/{data.id}/pdf?download">Download the PDF</a>
		</div>
		{#if shown === 'page'}<div class="max-w-130 mx-auto">
				<QuotePaper
					below
					quote={data.quote}
					number=""
					validUntil=""
					picked={{ options: {}, extras: {} }}
				/>
			</div>
		{:else}<iframe
				class="w-full h-[78vh] border border-(--hair) bg-(--sheet)"
				title="The PDF"
				src="/work/quotes/{data.id}/pdf"
			></iframe>{/if}
	{:else}
		<p class="panel p-6 mt-3.5">Nothing is on it yet. Give it a line first.</p>
	{/if}
</div>
