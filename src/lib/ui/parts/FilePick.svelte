<!-- A file, chosen or dropped. A plain box for a file in the server's HTML. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { frameOf } from './frame';

	interface Props {
		label: string;
		name: string;
		accept?: string;
		/** The camera of a phone may be used. */
		capture?: boolean;
		multiple?: boolean;
		hint?: string;
		error?: string | undefined;
		/** Chosen: with it a form may go at once. */
		onchoose?: (files: File[]) => void;
	}
	let {
		label,
		name,
		accept,
		capture = false,
		multiple = false,
		hint,
		error,
		onchoose
	}: Props = $props();
	const id = $props.id();
	const frame = untrack(() => frameOf(name));
	let wrong = $derived(error ?? frame?.error(name));
	let Life = $state.raw<typeof import('./FilePickLife.svelte').default>();
	let box: HTMLInputElement | undefined = $state();
	// Once the page has come to life and nothing else is to be done. Without a line the plain box stays, which does the same.
	onMount(() => {
		const load = () =>
			import('./FilePickLife.svelte').then(
				(part) => {
					// What was chosen meanwhile stays chosen.
					if (!box?.files?.length) Life = part.default;
				},
				() => undefined
			);
		const timer = setTimeout(load, 500);
		return () => clearTimeout(timer);
	});
</script>

<div class="field">
	{#if Life}
		<Life
			{label}
			{name}
			{accept}
			{capture}
			{multiple}
			wrong={wrong ? `${id}-wrong` : undefined}
			{onchoose}
		/>
	{:else}
		<label class="name" for={id}>{label}</label>
		<input
			class="box"
			{id}
			type="file"
			{name}
			{accept}
			{multiple}
			bind:this={box}
			onchange={(event) => onchoose?.([...(event.currentTarget.files ?? [])])}
		/>
	{/if}
	{#if hint}<div class="quiet">{hint}</div>{/if}
	{#if wrong}<div class="wrong" id="{id}-wrong">{wrong}</div>{/if}
</div>
