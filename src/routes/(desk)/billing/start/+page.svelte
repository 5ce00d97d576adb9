<script lang="ts">
	import { enhance } from '$app/forms';
	import { pressKey } from '$lib/ui/parts/keys';
	import { BILLING_PAGES } from '$lib/ui/invoices/tabs';
	import Tabs from '$lib/ui/parts/Places.svelte';

	let { data, form } = $props();
	const key = pressKey();
</script>

<svelte:head><title>Starting points · Axiometer</title></svelte:head>
<div class="page">
	<h1>Billing</h1>
	<Tabs label="Billing" pages={BILLING_PAGES} />
	{#if form && 'message' in form}<p class="wrong" role="alert">{form.message}</p>{/if}
	{#if data.points.length === 0}
		<div class="panel empty">
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
				<li>
					<span
						><b>{point.name}</b><span class="quiet"
							>{point.lines}
							{point.lines === 1 ? 'line' : 'lines'}{point.first ? ` · ${point.first}` : ''}</span
						></span
					>
					<form method="post" action="?/begin" use:enhance>
						<input type="hidden" name="id" value={point.id} />
						<input type="hidden" name="key" value="{key}:{point.id}" />
						<button class="button filled">Begin from it</button>
					</form>
					<form method="post" action="?/remove" use:enhance>
						<input type="hidden" name="id" value={point.id} />
						<button class="button plain">Remove<span class="sr-only"> {point.name}</span></button>
					</form>
				</li>
			{/each}
		</ul>
	{/if}
</div>

<style>
	li {
		display: flex;
		gap: 10px;
		align-items: center;
		padding: 10px 16px;
		border-bottom: 1px solid var(--hair);
	}
	li > span {
		flex: 1;
	}
	li > span > :global(*) {
		display: block;
		overflow-wrap: anywhere;
	}
	.empty {
		padding: 26px;
		display: grid;
		gap: 10px;
		justify-items: start;
	}
</style>
