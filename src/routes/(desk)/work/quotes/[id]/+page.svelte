<script lang="ts">
	import QuoteDetail from '$lib/ui/quotes/QuoteDetail.svelte';
	import QuoteSheet from '$lib/ui/quotes/QuoteSheet.svelte';

	let { data } = $props();
</script>

<svelte:head
	>{#if !data.sheet && !data.detail}<title>Thrown away · Axiometer</title>{/if}</svelte:head
>
{#if data.sheet}
	{#key data.sheet.draft.id}<QuoteSheet page={data.sheet} files={data.sheet.files} />{/key}
{:else if data.detail}
	<QuoteDetail quote={data.detail} just={data.just} />
{:else}
	<div class="page">
		<h1>It was thrown away</h1>
		<p><a href="/lists/quotes">Quotes</a></p>
	</div>
{/if}
