<!-- One of the letterheads; nothing is shown as long as there are none of the owner's own. -->
<script lang="ts">
	import { page } from '$app/state';
	import Choice from '../parts/Choice.svelte';

	interface Props {
		value: number | null;
		label: string;
		/** What it is without a choice. */
		standard: string;
		path?: string;
		error?: string | undefined;
	}
	let { value = $bindable(), label, standard, path, error }: Props = $props();
	let letterheads = $derived<{ id: number; name: string }[]>(page.data.offers?.letterheads ?? []);
</script>

{#if letterheads.length || value !== null}
	<Choice {label} {path} bind:value {error}>
		<option value={null}>{standard}</option>
		{#if value !== null && !letterheads.some(({ id }) => id === value)}<option {value}
				>one that is archived: the next that applies is used</option
			>{/if}
		{#each letterheads as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
	</Choice>
{/if}
