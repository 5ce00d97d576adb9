<script lang="ts">
	import { fromBin } from '$lib/ui/parts/takeBack';
	import Form from '$lib/ui/parts/Form.svelte';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import Tabs from '$lib/ui/parts/Places.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Starting points · Axiometer</title></svelte:head>
<div class="page">
	<h1>Billing</h1>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	{#if data.points.length === 0}
		<div class="panel p-6.5 grid gap-2.5 justify-items-start">
			<h2>Invoices to begin from</h2>
			<p>
				Open any invoice or draft and choose <b>Keep as a starting point</b>. What is kept never
				changes when you write from it.
			</p>
			<a class="button filled" href="/billing">To the invoices</a>
		</div>
	{:else}
		<ul class="panel">
			{#each data.points as point (point.id)}
				<li
					class="flex gap-2.5 items-center phone:flex-wrap py-2.5 px-4 border-b border-b-(--hair)"
				>
					<span class="flex-1 phone:flex-[1_1_100%] *:block *:wrap-anywhere"
						><b>{point.name}</b><span class="quiet"
							>{point.lines}
							{point.lines === 1 ? 'line' : 'lines'}{point.first ? ` · ${point.first}` : ''}</span
						></span
					>
					<a class="button plain" href="/billing/start/{point.id}"
						>Change <span class="sr-only">{point.name}</span></a
					>
					<Form action="?/begin" keyed hidden={{ id: point.id }}>
						<button class="button filled"
							>Begin from it<span class="sr-only">: {point.name}</span></button
						>
					</Form>
					<Form
						action="?/remove"
						hidden={{ id: point.id }}
						done="“{point.name}” is removed."
						undo={fromBin}
					>
						<button class="button plain">Remove <span class="sr-only">{point.name}</span></button>
					</Form>
				</li>
			{/each}
		</ul>
	{/if}
</div>
