<script lang="ts">
	import NotHere from '$lib/ui/desk/NotHere.svelte';
</script>

<NotHere />
