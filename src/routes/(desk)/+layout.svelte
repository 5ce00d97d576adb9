<script lang="ts">
	import Desk from '$lib/ui/desk/Desk.svelte';

	let { data, children } = $props();
</script>

<Desk resting={data.resting}>{@render children()}</Desk>
