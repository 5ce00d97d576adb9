<script lang="ts">
	import PayTogether from '$lib/ui/money/PayTogether.svelte';

	let { data } = $props();
</script>

<svelte:head>
	<title>What is open with {data.business}</title>
	<meta name="robots" content="noindex" />
</svelte:head>
<main class="max-w-225 my-0 mx-auto pt-6 pb-15 px-3.5 grid grid-cols-[minmax(0,1fr)] gap-4">
	<PayTogether name={data.business} {data} linked>
		{#if data.open.length < data.asked}<p class="quiet col-span-full">
				{data.asked - data.open.length} of the {data.asked} invoices the reminder was about {data.asked -
					data.open.length ===
				1
					? 'is'
					: 'are'} settled.
			</p>{/if}
	</PayTogether>
</main>
