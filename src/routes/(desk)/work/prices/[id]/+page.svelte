<script lang="ts">
	import FilePick from '$lib/ui/parts/FilePick.svelte';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import EntryForm from '$lib/ui/prices/EntryForm.svelte';
	import { notices } from '$lib/ui/parts/notices.svelte';

	let { data, form } = $props();
	let entry = $derived(data.entry);
	let picture: HTMLFormElement;
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
	<div class="top">
		<h1>{entry.name}</h1>
		<span class="quiet">used {entry.used} {entry.used === 1 ? 'time' : 'times'}</span>
		<span class="gap"></span>
		<form method="post" action="?/archive" use:enhance>
			<input type="hidden" name="archived" value={entry.archivedAt === null ? 'yes' : 'no'} />
			<button class="button">{entry.archivedAt === null ? 'Put aside' : 'Use it again'}</button>
		</form>
		{#if entry.used === 0}<form method="post" action="?/remove" use:enhance>
				<button class="button danger">Remove</button>
			</form>{/if}
	</div>
	{#if form && 'message' in form}<p class="wrong" role="alert">{form.message}</p>{/if}
	{#key entry.version}<EntryForm
			values={entry}
			categories={data.categories}
			today={data.today}
			onsave={save}
		/>{/key}
	<form
		class="picture"
		bind:this={picture}
		method="post"
		action="?/picture"
		enctype="multipart/form-data"
		use:enhance
	>
		{#if entry.hasPicture}<img src="/work/prices/{entry.id}/picture" alt={entry.name} />{/if}
		<FilePick
			label={entry.hasPicture ? 'Another picture' : 'Add a picture'}
			name="picture"
			accept="image/*"
			onchoose={() => picture.requestSubmit()}
		/>
	</form>
</div>

<style>
	.top {
		display: flex;
		gap: 8px 12px;
		align-items: center;
		flex-wrap: wrap;
		margin-bottom: 12px;
	}
	h1 {
		overflow-wrap: anywhere;
	}
	.gap {
		flex: 1;
	}
	.picture {
		display: flex;
		gap: 14px;
		align-items: center;
		margin-top: 14px;
	}
	img {
		max-height: 140px;
		border: 1px solid var(--hair);
	}
</style>
