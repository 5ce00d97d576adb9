<script lang="ts">
	import BringIn from '$lib/ui/parts/BringIn.svelte';

	let { form } = $props();
</script>

<svelte:head><title>Bring in customers · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/customers">Customers</a></p>
	<h1>Bring in customers</h1>
	<BringIn
		label="A CSV file with a column of names, or vCards from a phone"
		accept=".csv,.txt,.vcf,text/csv,text/vcard"
		one="customer"
		many="customers"
		to={{ href: '/customers', label: 'To the customers' }}
		{form}
	/>
</div>
