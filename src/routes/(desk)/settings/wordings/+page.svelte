<script lang="ts">
	import { counted } from '$lib/core/words';

	let { data } = $props();
</script>

<svelte:head><title>Wordings · Axiometer</title></svelte:head>
<div class="page max-w-215">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-1">Wordings</h1>
	<p class="mb-4">
		What your messages say. How one customer is greeted stands on the customer’s own page.
	</p>
	<ul class="panel grid">
		{#each data.wordings as { kind, title, when, own, words } (kind)}
			<li class="border-b border-(--hair) last:border-b-0">
				<a class="grid gap-0.5 py-3 px-4.5 no-underline" href="/settings/wordings/{kind}">
					<span class="flex flex-wrap gap-x-2.5 items-baseline"
						><b class="underline">{title}</b>{#if own}<span class="tag">your words</span>{/if}</span
					>
					<span class="quiet">{when}</span>
					<span class="wrap-anywhere">{words.subject || words.text}</span>
				</a>
			</li>
		{/each}
		{#each data.plans as { id, name, steps } (id)}
			<li class="border-b border-(--hair) last:border-b-0">
				<a class="grid gap-0.5 py-3 px-4.5 no-underline" href="/owed/chasing/plans/{id}">
					<b class="underline">Reminders: {name}</b>
					<span class="quiet"
						>when an invoice is not paid; {counted(steps, 'step')}, each with its own words</span
					>
				</a>
			</li>
		{/each}
	</ul>
</div>
