<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import { invalidateAll } from '$app/navigation';
	import EntryForm from '$lib/ui/prices/EntryForm.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data } = $props();
	let entry = $derived(data.entry);
	let picture = $state<HTMLFormElement>();
	async function save(values: object) {
		const response = await fetch(`/work/prices/${entry.id}/api`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ version: entry.version, entry: values })
		});
		if (!response.ok) return response.json();
		await invalidateAll();
		notices.say('Saved. Documents written before keep their prices.');
		return null;
	}
</script>

<svelte:head><title>{entry.name} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/work/prices">Price list</a></p>
	<div class="flex gap-y-2 gap-x-3 items-center flex-wrap mb-3">
		<h1 class="wrap-anywhere">{entry.name}</h1>
		<span class="quiet">used {entry.used} {entry.used === 1 ? 'time' : 'times'}</span>
		<span class="flex-1"></span>
		<Form
			action="?/archive"
			hidden={{ archived: entry.archivedAt === null ? 'yes' : 'no' }}
			done={entry.archivedAt === null ? 'It is offered no more.' : 'It is offered again.'}
			undo={{
				action: '?/archive',
				values: { archived: entry.archivedAt === null ? 'no' : 'yes' }
			}}
		>
			<button class="button">{entry.archivedAt === null ? 'Archive' : 'Bring back'}</button>
		</Form>
		{#if entry.used === 0}<Form action="?/remove">
				<button class="button danger">Remove</button>
			</Form>{/if}
	</div>
	{#key entry.version}<EntryForm
			values={entry}
			categories={data.categories}
			today={data.today}
			registered={data.registered}
			parties={data.parties}
			onsave={save}
		/>{/key}
	<Form
		class="flex gap-3.5 items-center mt-3.5"
		bind:root={picture}
		action="?/picture"
		enctype="multipart/form-data"
	>
		{#if entry.hasPicture}<img
				class="max-h-35 border border-(--hair)"
				src="/work/prices/{entry.id}/picture"
				alt={entry.name}
			/>{/if}
		<FilePick
			label={entry.hasPicture ? 'Another picture' : 'Add a picture'}
			name="picture"
			accept="image/*"
			onchoose={() => picture?.requestSubmit()}
		/>
	</Form>
</div>
