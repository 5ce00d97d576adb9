<script lang="ts">
	import { goto } from '$app/navigation';
	import { displayMoment } from '$lib/core/calendar/conversion';
	import Form from '$lib/ui/parts/Form.svelte';
	import Search from '$lib/ui/parts/Search.svelte';

	let { data } = $props();
	const search = (typed: string) =>
		goto(typed ? `?q=${encodeURIComponent(typed)}` : '/money/learned', {
			keepFocus: true,
			replaceState: true,
			noScroll: true
		});
</script>

<svelte:head><title>What was learned · Money in · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money">Money in</a></p>
	<h1>Under which names they pay</h1>
	<p class="quiet mb-3">
		Learned from lines you accepted: a new line with such a name is proposed for this payer. One
		that is wrong is forgotten here; what was recorded stays.
	</p>
	<Search
		class="max-w-105 mb-3"
		label="Search the names"
		placeholder="Part of a name"
		value={data.typed}
		onsearch={search}
	/>
	{#if data.rows.length}
		<ul class="panel py-1 px-4.5 max-w-215">
			{#each data.rows as { name, payer, payerId, learnedAt } (name)}
				<li
					class="flex flex-wrap gap-x-3 items-center py-1 border-b border-b-(--hair) last:border-0"
				>
					<span class="mono wrap-anywhere">{name}</span>
					<span class="flex-1 min-w-40"
						><a href="/owed/{payerId}">{payer}</a>
						<span class="quiet">{displayMoment(learnedAt)}</span></span
					>
					<Form action="?/forget" hidden={{ name }} done="Forgotten.">
						<button class="button plain">Forget <span class="sr-only">{name}</span></button>
					</Form>
				</li>
			{/each}
		</ul>
		{#if data.more}<p class="quiet mt-2">There are more: search for one.</p>{/if}
	{:else}
		<p class="panel p-6">
			{data.typed
				? 'No name fits.'
				: 'Nothing was learned yet. It begins with the first line from the bank that you accept.'}
		</p>
	{/if}
</div>
