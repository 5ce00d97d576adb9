<script lang="ts">
	import Dialog from '../parts/Dialog.svelte';
	import Keys from './Keys.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
</script>

<Dialog bind:open title="Keys">
	<Keys />
	<button class="button plain" onclick={() => (open = false)}>Close</button>
</Dialog>
