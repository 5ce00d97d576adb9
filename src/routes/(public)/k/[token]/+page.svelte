<script lang="ts">
	import { page } from '$app/state';
	import { displayDate, londonDate } from '$lib/core/calendar/conversion';
	import Entrance from '$lib/ui/business/Entrance.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Books of {data.of}</title><meta name="robots" content="noindex" /></svelte:head>
<Entrance title={`Books of ${data.of}`}>
	<p class="mb-3">
		{displayDate(data.from)} to {displayDate(data.to)}, {data.basis === 'cash'
			? 'by the money that came in'
			: 'by invoice'}: sales, credits, payments, costs, deductions and journal as tables, every
		document as PDF, and a summary.
	</p>
	<a class="button filled" href="{page.url.pathname}/pack" download>Fetch the pack</a>
	<p class="quiet mt-3">One ZIP. It can be fetched until {displayDate(londonDate(data.until))}.</p>
</Entrance>
