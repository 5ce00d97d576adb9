<!-- How money moved, where somebody says so. -->
<script lang="ts">
	import Choice from '../parts/Choice.svelte';
	import { WAYS_BY_HAND } from './ways';
</script>

<Choice label="How" name="way" value="bank">
	{#each Object.entries(WAYS_BY_HAND) as [value, words] (value)}<option {value}>{words}</option
		>{/each}
</Choice>
