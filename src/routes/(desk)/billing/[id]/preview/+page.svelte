<script lang="ts">
	import Paper from '$lib/ui/invoices/Paper.svelte';

	let { data } = $props();
	let shown = $state<'page' | 'pdf'>('page');
</script>

<svelte:head><title>As the customer sees it · Axiometer</title></svelte:head>
<div class="page">
	<div class="top">
		<h1>As the customer will see it</h1>
		<a class="button" href="/billing/{data.id}">Back to the sheet</a>
	</div>
	{#if data.view}
		<div class="choice" role="group" aria-label="Show">
			<button
				class:on={shown === 'page'}
				aria-pressed={shown === 'page'}
				onclick={() => (shown = 'page')}>The web page</button
			>
			<button
				class:on={shown === 'pdf'}
				aria-pressed={shown === 'pdf'}
				onclick={() => (shown = 'pdf')}>The PDF</button
			>
			<a href="/billing/{data.id}/pdf?download">Download the PDF</a>
		</div>
		{#if shown === 'page'}
			<Paper view={data.view} />
		{:else}
			<iframe title="The PDF" src="/billing/{data.id}/pdf"></iframe>
		{/if}
	{:else}
		<p class="panel none">Nothing is on it yet. Give it a line first.</p>
	{/if}
</div>

<style>
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 14px;
		flex-wrap: wrap;
	}
	.choice {
		display: flex;
		gap: 4px;
		align-items: center;
		margin: 12px 0;
		flex-wrap: wrap;
	}
	.choice button {
		padding: 8px 12px 5px;
		border-bottom: 4px solid transparent;
		min-height: 42px;
		cursor: pointer;
	}
	.choice button.on {
		border-bottom-color: var(--tape);
		font-weight: 650;
	}
	.choice a {
		margin-left: auto;
	}
	iframe {
		width: 100%;
		height: 78vh;
		border: 1px solid var(--hair);
		background: var(--sheet);
	}
	.none {
		padding: 24px;
		margin-top: 14px;
	}
</style>
