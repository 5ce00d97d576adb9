<!-- What went wrong with a page, and where to go from it. -->
<script lang="ts">
	import { page } from '$app/state';
	import { meantBy } from './catalogue';
	import { placesOf } from './places';

	let missing = $derived(page.status === 404);
	let meant = $derived(missing ? meantBy(page.url.pathname) : []);
</script>

<svelte:head><title>{missing ? 'Not here' : 'That did not work'} · Axiometer</title></svelte:head>
<div class="page">
	<h1>{missing ? 'Not here' : 'That did not work'}</h1>
	<p class="mt-3 mb-5">{page.error?.message}</p>
	{#if meant.length}
		<h2 class="mb-2">Did you mean</h2>
		<ul class="mb-5 grid gap-1 justify-items-start">
			{#each meant as entry (entry.href)}<li>
					<a class="inline-block min-h-8 underline underline-offset-[3px]" href={entry.href}
						>{entry.label}</a
					>
				</li>{/each}
		</ul>
	{/if}
	<nav class="flex flex-wrap gap-2.5" aria-label="Other places">
		{#each placesOf(page.data.role ?? 'owner') as place (place.href)}<a
				class="button"
				href={place.href}>{place.label}</a
			>{/each}
	</nav>
</div>
