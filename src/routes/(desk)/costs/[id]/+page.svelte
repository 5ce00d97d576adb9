<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import CostFields from '$lib/ui/costs/CostFields.svelte';
	import Files from '$lib/ui/files/Files.svelte';

	let { data } = $props();
	let cost = $derived(data.cost);
</script>

<svelte:head><title>{cost.description} · Costs · Axiometer</title></svelte:head>
<div class="page max-w-300">
	<p class="quiet"><a href="/lists/costs">Costs</a></p>
	<h1 class="mb-3 wrap-anywhere">{cost.description}</h1>
	{#if cost.removed}
		<div class="panel flex flex-wrap items-center gap-3 py-3.5 px-4.5 mb-3.5">
			<p>It is deleted, and counts nowhere.</p>
			<Form action="?/restore" done="It counts again."
				><button class="button">Bring it back</button></Form
			>
		</div>
	{/if}
	<div class="grid grid-cols-[minmax(0,1fr)_360px] gap-5 items-start narrow:grid-cols-1">
		<Form
			class="panel grid gap-4 py-4.5 px-5"
			action="?/save"
			keyed
			hidden={{ version: cost.version }}
		>
			{#snippet children(frame)}
				{#key cost.version}<CostFields
						start={cost}
						today={data.today}
						registered={data.registered}
						suppliers={data.suppliers}
						jobs={data.jobs}
						twin={frame.error('another')}
					/>{/key}
				<div class="flex flex-wrap gap-2.5">
					<button class="button filled">Keep the changes</button>
					<a class="button" href="/lists/costs">Leave it</a>
				</div>
			{/snippet}
		</Form>
		<aside class="grid gap-3.5">
			<section class="panel grid gap-2 py-4 px-4.5">
				<h2>Receipt</h2>
				<Files to="purchase" id={cost.id} files={data.files} />
			</section>
			{#if !cost.removed}<Form
					action="?/remove"
					done="It is deleted."
					undo={{ action: '?/restore', values: {} }}
					><button class="button plain">Delete this cost</button></Form
				>{/if}
		</aside>
	</div>
</div>
