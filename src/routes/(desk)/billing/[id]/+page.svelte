<script lang="ts">
	import IssuedDocument from '$lib/ui/invoices/IssuedDocument.svelte';
	import Sheet from '$lib/ui/invoices/sheet/Sheet.svelte';

	let { data } = $props();
</script>

{#if data.state === 'draft'}
	{#key data.draft.id}<Sheet page={data} files={data.files} sheets={data.sheets} />{/key}
{:else}
	{#key data.document.id}<IssuedDocument document={data.document} sending={data.sending} />{/key}
{/if}
