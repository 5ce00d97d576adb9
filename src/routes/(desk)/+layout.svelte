<script lang="ts">
	import Desk from '$lib/ui/desk/Desk.svelte';

	let { children } = $props();
</script>

<Desk>{@render children()}</Desk>
