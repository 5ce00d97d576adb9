<script lang="ts">
	import { page } from '$app/state';
</script>

<svelte:head><title>{page.status} · Axiometer</title></svelte:head>
<main class="page">
	<h1>{page.status === 404 ? 'Not here' : 'That did not work'}</h1>
	<p style="margin: 12px 0 20px">{page.error?.message}</p>
	{#if !page.url.pathname.startsWith('/p/')}<a class="button" href="/">Go to Today</a>{/if}
</main>
