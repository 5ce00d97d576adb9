<script lang="ts">
	import SheetDetail from '$lib/ui/signing/SheetDetail.svelte';
	import SheetEditor from '$lib/ui/signing/SheetEditor.svelte';

	let { data } = $props();
</script>

{#if data.writing}{#key data.writing.id}<SheetEditor {...data.writing} />{/key}
{:else if data.finished}<SheetDetail {...data.finished} just={data.just} />{/if}
