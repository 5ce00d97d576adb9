<!-- One of the owner's own kinds of work; nothing is shown as long as there are none. -->
<script lang="ts">
	import { page } from '$app/state';
	import Choice from '../parts/Choice.svelte';

	interface Props {
		value: number | null;
		name?: string;
		path?: string;
		error?: string | undefined;
	}
	let { value = $bindable(), name, path, error }: Props = $props();
	let kinds = $derived<{ id: number; name: string }[]>(page.data.offers?.workKinds ?? []);
</script>

{#if kinds.length || value !== null}
	<Choice label="Kind of work" {...name ? { name } : {}} {path} bind:value {error}>
		<option value={null}>none in particular</option>
		{#if value !== null && !kinds.some(({ id }) => id === value)}<option {value}
				>as before, archived</option
			>{/if}
		{#each kinds as kind (kind.id)}<option value={kind.id}>{kind.name}</option>{/each}
	</Choice>
{/if}
