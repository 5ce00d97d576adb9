<!-- A file, chosen or dropped. A plain box for a file in the server's HTML. -->
<script lang="ts">
	import Upload from '@lucide/svelte/icons/upload';
	import { FileUpload } from '@skeletonlabs/skeleton-svelte';
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
	let alive = $state(false);
	onMount(() => (alive = true));
	let chosen = $state<string[]>([]);
</script>

<div class="field">
	{#if alive}
		<FileUpload
			{name}
			maxFiles={multiple ? 50 : 1}
			{...capture ? { capture: 'environment' as const } : {}}
			onFileAccept={({ files }) => {
				chosen = files.map((file) => file.name);
				if (files.length) onchoose?.(files);
			}}
		>
			<FileUpload.Label class="mb-0.5 block text-[0.906rem] text-[var(--ink-2)]"
				>{label}</FileUpload.Label
			>
			<FileUpload.Dropzone
				disableClick
				class="flex min-h-[42px] flex-wrap items-center gap-3 rounded-[3px] border border-dashed border-[var(--dotted)] bg-[var(--sheet)] p-1.5 data-[dragging]:bg-[var(--tape-tint)]"
			>
				<FileUpload.Trigger class="button" aria-describedby={wrong ? `${id}-wrong` : undefined}
					><Upload size={17} aria-hidden="true" />Choose{multiple
						? ' files'
						: ' a file'}</FileUpload.Trigger
				>
				<span class="quiet">{chosen.length ? chosen.join(', ') : 'or drop it here'}</span>
			</FileUpload.Dropzone>
			<FileUpload.HiddenInput {accept} aria-label={label} />
		</FileUpload>
	{:else}
		<label class="name" for={id}>{label}</label>
		<input class="box" {id} type="file" {name} {accept} {multiple} />
	{/if}
	{#if hint}<div class="quiet">{hint}</div>{/if}
	{#if wrong}<div class="wrong" id="{id}-wrong">{wrong}</div>{/if}
</div>
