<!-- Choosing and dropping files, Skeleton's: loaded once the page has come to life. -->
<script lang="ts">
	import Upload from '@lucide/svelte/icons/upload';
	import { FileUpload } from '@skeletonlabs/skeleton-svelte';

	interface Props {
		label: string;
		name: string;
		accept: string | undefined;
		capture: boolean;
		multiple: boolean;
		/** The id of what is wrong with it. */
		wrong: string | undefined;
		/** Chosen in the plain box while this took its place. */
		late: FileList | null;
		onchoose: ((files: File[]) => void) | undefined;
	}
	let { label, name, accept, capture, multiple, wrong, late, onchoose }: Props = $props();
	let chosen = $state<string[]>([]);
	let place: HTMLElement | undefined = $state();
	$effect(() => {
		const box = place?.querySelector<HTMLInputElement>('input[type=file]');
		if (!box || !late?.length) return;
		box.files = late;
		box.dispatchEvent(new Event('input', { bubbles: true }));
	});
</script>

<div bind:this={place}>
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
			<FileUpload.Trigger class="button" aria-describedby={wrong}
				><Upload size={17} aria-hidden="true" />Choose{multiple
					? ' files'
					: ' a file'}</FileUpload.Trigger
			>
			<span class="quiet">{chosen.length ? chosen.join(', ') : 'or drop it here'}</span>
		</FileUpload.Dropzone>
		<FileUpload.HiddenInput {accept} aria-label={label} />
	</FileUpload>
</div>
