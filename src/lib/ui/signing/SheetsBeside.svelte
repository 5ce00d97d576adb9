<!-- Job sheets of the work a document bills: each can go out with it. -->
<script lang="ts">
	import type { SheetBeside } from '$lib/core/documents/detail';
	import Form from '../parts/Form.svelte';

	let { id, sheets }: { id: number; sheets: readonly SheetBeside[] } = $props();
</script>

{#each sheets.filter((one) => !one.with) as one (one.id)}
	<Form
		class="flex flex-wrap items-center justify-between gap-2 border-l-4 border-l-(--tape) pl-3"
		action="/billing/{id}?/sheet"
		hidden={{ sheet: one.id }}
		done="It goes out with it."
	>
		<span
			>Job sheet <a href="/work/sheets/{one.id}">{one.number}</a>{one.signedBy
				? `, signed by ${one.signedBy}`
				: ', not signed'}</span
		>
		<button class="button"
			>Send it along<span class="sr-only">: job sheet {one.number}</span></button
		>
	</Form>
{/each}
