<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import CostFields from '$lib/ui/costs/CostFields.svelte';

	let { data } = $props();
	let twin = $state<string>();
</script>

<svelte:head><title>New cost · Axiometer</title></svelte:head>
<div class="page max-w-235">
	<p class="quiet"><a href="/lists/costs">Costs</a></p>
	<h1 class="mb-3">New cost</h1>
	<Form class="panel grid gap-4 py-4.5 px-5" keyed enctype="multipart/form-data">
		{#snippet children(frame)}
			<CostFields
				start={{
					kind: 'bill',
					supplier: '',
					number: '',
					description: '',
					date: data.today,
					paidOn: '',
					gross: '',
					vat: '',
					reclaim: data.registered,
					privateShare: '',
					category: 'goods',
					centre: '',
					miles: '',
					jobId: data.jobId,
					chargeable: false,
					markUp: ''
				}}
				today={data.today}
				registered={data.registered}
				suppliers={data.suppliers}
				jobs={data.jobs}
				photo
				twin={frame.error('another') ?? twin}
			/>
			<div class="flex flex-wrap gap-2.5">
				<button class="button filled">Keep it</button>
				<button class="button" name="next" value="on">Keep it, and another</button>
				<a class="button plain" href="/lists/costs">Leave it</a>
			</div>
		{/snippet}
	</Form>
</div>
