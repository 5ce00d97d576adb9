<script lang="ts">
	import BringIn from '$lib/ui/parts/BringIn.svelte';
	import Tick from '$lib/ui/parts/Tick.svelte';

	let { form } = $props();
</script>

<svelte:head><title>Bring in jobs · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/work">Work</a></p>
	<h1>Bring in jobs</h1>
	<p>
		A row for each job, with columns for customer and title; and where you have them day, time,
		price, site, description, private note and labels.
	</p>
	<BringIn
		label="A CSV file of jobs"
		accept=".csv,.txt,text/csv"
		one="job"
		many="jobs"
		to={{ href: '/work', label: 'To the jobs' }}
		{form}
	>
		<Tick name="addCustomers">Whoever is no customer yet is added, as a household</Tick>
	</BringIn>
</div>
