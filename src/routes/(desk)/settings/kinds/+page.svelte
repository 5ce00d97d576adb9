<script lang="ts">
	import { page } from '$app/state';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data } = $props();
	let letterheads = $derived<{ id: number; name: string }[]>(page.data.offers?.letterheads ?? []);
	let inUse = $derived(data.kinds.filter(({ archived }) => !archived));
	let archived = $derived(data.kinds.filter((kind) => kind.archived));
	let changing = $state<number | null>(null);
	const nameOf = (id: number | null) => letterheads.find((one) => one.id === id)?.name;
</script>

{#snippet paper(chosen: number | null)}
	{#if letterheads.length}<Choice
			label="Written on"
			name="letterheadId"
			value={chosen === null ? '' : String(chosen)}
		>
			<option value="">the standard letterhead</option>
			{#each letterheads as one (one.id)}<option value={String(one.id)}>{one.name}</option>{/each}
		</Choice>{/if}
{/snippet}

<svelte:head><title>Kinds of work · Axiometer</title></svelte:head>
<div class="page max-w-215">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-1">Kinds of work</h1>
	<p class="mb-4">
		Your own list, such as damp, cornices, repairs. Jobs, repeats and invoices can say which it is,
		to be found and added up by it. What is issued keeps the name it had.
	</p>
	{#if inUse.length}
		<ul class="panel grid mb-4.5">
			{#each inUse as kind (kind.id)}
				<li class="border-b border-(--hair) last:border-b-0 py-2 px-4.5">
					{#if changing === kind.id}
						<Form
							action="?/save"
							hidden={{ id: kind.id }}
							done="Kept."
							ondone={() => (changing = null)}
							class="grid grid-cols-[repeat(auto-fit,minmax(200px,1fr))] items-end gap-3 py-1.5"
						>
							<Field label="Name" name="name" value={kind.name} maxlength={60} />
							{@render paper(kind.letterheadId)}
							<span class="flex gap-2">
								<button class="button filled">Keep</button>
								<button class="button" type="button" onclick={() => (changing = null)}
									>Leave it</button
								>
							</span>
						</Form>
					{:else}
						<div class="flex flex-wrap items-center justify-between gap-x-3.5">
							<span class="grid gap-x-2.5"
								><b class="font-semibold">{kind.name}</b>{#if nameOf(kind.letterheadId)}<span
										class="quiet">written on {nameOf(kind.letterheadId)}</span
									>{/if}</span
							>
							<span class="flex items-center gap-1">
								<button
									class="button plain with-scripts"
									type="button"
									aria-label="Change {kind.name}"
									onclick={() => (changing = kind.id)}>Change</button
								>
								<Form
									action="?/archive"
									hidden={{ id: kind.id }}
									done="{kind.name} is offered no more. What has it keeps it."
									undo={{ action: '?/restore', values: { id: kind.id } }}
									><button class="button plain" aria-label="Archive {kind.name}">Archive</button
									></Form
								>
							</span>
						</div>
					{/if}
				</li>
			{/each}
		</ul>
	{/if}
	<Form
		action="?/add"
		reset
		done="It can be chosen now."
		class="panel grid grid-cols-[repeat(auto-fit,minmax(200px,1fr))] items-end gap-3 py-4 px-4.5"
	>
		<Field label={inUse.length ? 'Another one' : 'The first one'} name="name" maxlength={60} />
		{@render paper(null)}
		<div><button class="button filled">Add it</button></div>
	</Form>
	{#if archived.length}
		<h2 class="mt-6 mb-2">Archived</h2>
		<ul class="panel grid">
			{#each archived as kind (kind.id)}
				<li
					class="flex flex-wrap items-center justify-between gap-x-3.5 border-b border-(--hair) last:border-b-0 py-2 px-4.5"
				>
					<span>{kind.name}</span>
					<Form action="?/restore" hidden={{ id: kind.id }} done="{kind.name} can be chosen again."
						><button class="button plain">Take “{kind.name}” back into use</button></Form
					>
				</li>
			{/each}
		</ul>
	{/if}
</div>
