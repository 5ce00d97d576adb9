<!-- Photos and files of one thing: dropped, pasted, photographed, shown, renamed, marked as going out with its document. -->
<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import FileText from '@lucide/svelte/icons/file-text';
	import { displayBytes } from '$lib/core/words';
	import FilePick from '../parts/FilePick.svelte';
	import { notices } from '../parts/notices.svelte';
	import type { FileShown } from './types';
	import { shrink } from './shrink';

	interface Props {
		to: 'job' | 'customer' | 'document' | 'purchase' | 'quote' | 'enquiry';
		id: number;
		files: readonly FileShown[];
		/** They can go out with their document. */
		mayGoOut?: boolean;
		root?: HTMLElement | undefined;
	}
	let { to, id, files, mayGoOut = false, root = $bindable() }: Props = $props();
	let sending = $state<{ done: number; of: number } | null>(null);
	let wrong = $state('');
	let renaming = $state<{ id: number; name: string } | null>(null);

	async function send(chosen: readonly File[]) {
		if (chosen.length === 0) return;
		wrong = '';
		sending = { done: 0, of: chosen.length };
		for (const file of chosen) {
			const body = new FormData();
			body.set('to', to);
			body.set('id', String(id));
			body.set('file', await shrink(file));
			const response = await fetch('/files', {
				method: 'POST',
				headers: { accept: 'application/json' },
				body
			}).catch(() => null);
			if (!response?.ok) {
				const answer = await response?.json().catch(() => null);
				wrong = `${file.name}: ${answer?.fields?.file ?? answer?.message ?? (response ? 'This could not be taken.' : 'The connection is lost. Try again.')}`;
				break;
			}
			sending = { done: sending.done + 1, of: chosen.length };
		}
		sending = null;
		await invalidateAll();
	}
	async function change(
		file: FileShown,
		set: { name?: string; goesOut?: boolean; removed?: boolean }
	) {
		wrong = '';
		const response = await fetch(`/files/${file.id}`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(set)
		}).catch(() => null);
		if (!response?.ok) {
			const answer = await response?.json().catch(() => null);
			wrong =
				answer?.fields?.name ?? answer?.message ?? 'The connection is lost. Nothing was changed.';
		} else renaming = null;
		await invalidateAll();
	}
	async function remove(file: FileShown) {
		await change(file, { removed: true });
		if (!wrong)
			notices.say(`${file.name} is removed.`, {
				label: 'Undo',
				run: () => void change(file, { removed: false })
			});
	}
	/** A picture from the clipboard, wherever on the page it is pasted, but not into a box that takes it. */
	function paste(event: ClipboardEvent) {
		const pasted = [...(event.clipboardData?.files ?? [])];
		if (pasted.length === 0) return;
		event.preventDefault();
		void send(pasted);
	}
</script>

<svelte:window onpaste={paste} />
<div class="grid gap-2.5" bind:this={root}>
	{#if files.length}
		<ul class="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-2.5">
			{#each files as file (file.id)}
				<li class="grid content-start gap-1 border border-(--hair) rounded-[3px] bg-(--sheet) p-2">
					<a
						class="grid h-24 place-items-center overflow-hidden bg-(--quiet-fill)"
						href="/files/{file.id}"
						target="_blank"
						rel="noreferrer"
						aria-label="Open {file.name}"
					>
						{#if file.picture}<img
								class="h-24 w-full object-cover"
								src="/files/{file.id}?small"
								alt=""
								loading="lazy"
							/>{:else}<FileText size={30} aria-hidden="true" />{/if}
					</a>
					{#if renaming?.id === file.id}
						<form
							class="grid gap-1"
							onsubmit={(event) => {
								event.preventDefault();
								void change(file, { name: renaming!.name });
							}}
						>
							<input
								class="box min-h-9"
								aria-label="Name of the file"
								maxlength="200"
								bind:value={renaming.name}
							/>
							<button class="button">Keep the name</button>
						</form>
					{:else}
						<span class="wrap-anywhere text-[0.906rem] leading-tight">{file.name}</span>
						<span class="quiet"
							>{displayBytes(file.size)}{#if file.type === 'image/heic'}: kept as it came, browsers
								cannot draw it{/if}</span
						>
						{#if mayGoOut}
							<label class="check items-center"
								><input
									type="checkbox"
									checked={file.goesOut}
									aria-label="{file.name} goes out with the document"
									onchange={(event) => change(file, { goesOut: event.currentTarget.checked })}
								/>goes out</label
							>
						{/if}
						<span class="flex flex-wrap gap-x-2 with-scripts">
							<button
								class="button plain min-h-8! px-0!"
								type="button"
								aria-label="Rename {file.name}"
								onclick={() => (renaming = { id: file.id, name: file.name })}>Rename</button
							>
							<button
								class="button plain min-h-8! px-0!"
								type="button"
								aria-label="Remove {file.name}"
								onclick={() => remove(file)}>Remove</button
							>
						</span>
					{/if}
				</li>
			{/each}
		</ul>
	{/if}
	<form method="post" action="/files" enctype="multipart/form-data">
		<input type="hidden" name="to" value={to} />
		<input type="hidden" name="id" value={id} />
		<FilePick
			label="Photo or file"
			name="file"
			multiple
			onchoose={send}
			error={wrong || undefined}
		/>
		<noscript><button class="button">Add it</button></noscript>
	</form>
	{#if sending}<p class="quiet" role="status">
			{sending.done} of {sending.of} sent
		</p>{/if}
	{#if mayGoOut && files.some(({ goesOut }) => goesOut)}<p class="quiet">
			What goes out is on the customer’s page, and with the e-mail as far as 10 MB go.
		</p>{/if}
</div>
