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
	/** Chosen in the plain box just as it was put away. */
	let late = $state.raw<FileList | null>(null);
	// Once the page has come to life and nothing else is to be done. Without a line the plain box stays, which does the same.
	onMount(() => {
		const plain = box;
		// Whoever has begun to choose (the device's own window may be open for long) goes on with the same box.
		let begun = false;
		const begin = () => (begun = true);
		for (const kind of ['click', 'focus', 'dragenter', 'touchstart'])
			plain?.addEventListener(kind, begin, { passive: true });
		// Heard at the box itself, so that it is heard when the box has left the page, too.
		plain?.addEventListener('change', () => {
			if (!plain.isConnected) late = plain.files;
			else onchoose?.([...(plain.files ?? [])]);
		});
		const load = () =>
			import('./FilePickLife.svelte').then(
				(part) => {
					if (!begun && !plain?.files?.length && document.activeElement !== plain)
						Life = part.default;
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
			{late}
			{onchoose}
		/>
	{:else}
		<label class="name" for={id}>{label}</label>
		<input class="box" {id} type="file" {name} {accept} {multiple} bind:this={box} />
	{/if}
	{#if hint}<div class="quiet">{hint}</div>{/if}
	{#if wrong}<div class="wrong" id="{id}-wrong">{wrong}</div>{/if}
</div>
