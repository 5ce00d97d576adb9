<script lang="ts">
	import { NOTHING_PICKED, type Picked } from '$lib/core/quotes/chosen';
	import AcceptForm from '$lib/ui/quotes/AcceptForm.svelte';
	import QuotePaper from '$lib/ui/quotes/QuotePaper.svelte';

	let { data } = $props();
	let picked = $state<Picked>(NOTHING_PICKED);
</script>

<svelte:head><title>{data.quote.name} {data.number}</title></svelte:head>
<!-- Whoever holds the phone sees the quote alone. -->
<div>
	<div class="mx-auto grid max-w-140 gap-5 pb-15">
		<QuotePaper quote={data.quote} number={data.number} validUntil={data.validUntil} bind:picked />
		<AcceptForm
			quote={data.quote}
			{picked}
			version={data.version}
			action="/work/quotes/{data.id}/sign?/accept"
		/>
		<p class="px-5"><a href="/work/quotes/{data.id}">Not now</a></p>
	</div>
</div>
