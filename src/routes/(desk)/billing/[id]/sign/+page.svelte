<script lang="ts">
	import SignPage from '$lib/ui/signing/SignPage.svelte';

	let { data } = $props();
</script>

<SignPage view={data.view} at="/billing/{data.id}" of={data.of} about="invoice" firm={data.firm} />
