<script lang="ts">
	import Keys from '$lib/ui/desk/Keys.svelte';
</script>

<svelte:head><title>Keys · Axiometer</title></svelte:head>
<div class="page max-w-170">
	<p class="quiet"><a href="/more">More</a></p>
	<h1 class="mb-3.5">Keys</h1>
	<h2 class="sr-only">By place</h2>
	<div class="panel p-5"><Keys /></div>
</div>
