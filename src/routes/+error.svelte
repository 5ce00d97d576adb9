<script lang="ts">
	import { page } from '$app/state';
	import Desk from '$lib/ui/desk/Desk.svelte';
	import NotHere from '$lib/ui/desk/NotHere.svelte';

	/** A link somebody was sent. */
	let link = $derived(/^\/[ps]\//.test(page.url.pathname));
	let desk = $derived(page.data.signedIn && !link);
	let title = $derived(page.status === 404 ? 'Not here' : 'That did not work');
</script>

<svelte:head
	>{#if !desk}<title>{title}</title>{/if}</svelte:head
>
{#if desk}
	<Desk resting={false}><NotHere /></Desk>
{:else}
	<main class="page">
		<h1>{title}</h1>
		<p class="mt-3 mb-5">{page.error?.message}</p>
		{#if link}<p>
				If you typed the link, look at it again; or ask whoever sent it to send it once more.
			</p>{/if}
	</main>
{/if}
