<script lang="ts">
	import Field from '$lib/ui/parts/Field.svelte';
	import Form from '$lib/ui/parts/Form.svelte';

	let { data } = $props();
	const SORTS = [
		{
			sort: 'income',
			title: 'Income categories',
			words: 'What you earn with, such as new work, repairs, advice.'
		},
		{
			sort: 'centre',
			title: 'Cost centres',
			words: 'Where it belongs, such as a van, a team, an area. Costs can have one too.'
		}
	] as const;
	let archived = $derived(data.tags.filter((tag) => tag.archived));
</script>

<svelte:head><title>Income categories and cost centres · Axiometer</title></svelte:head>
<div class="page max-w-215">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<h1 class="mb-1">Income categories and cost centres</h1>
	<p class="mb-4">
		For who wants them: as soon as there is one, each line can have it, and <a href="/reports"
			>Reports</a
		> add up by it. They never stand on paper. A line that stands for a whole job has one where all of
		that job’s lines agree.
	</p>
	<div class="grid grid-cols-2 gap-4 items-start narrow:grid-cols-1">
		{#each SORTS as { sort, title, words } (sort)}
			{@const inUse = data.tags.filter((tag) => tag.sort === sort && !tag.archived)}
			<section class="panel grid gap-3 py-4 px-4.5" aria-labelledby="of-{sort}">
				<div>
					<h2 id="of-{sort}">{title}</h2>
					<p class="quiet">{words}</p>
				</div>
				{#if inUse.length}<ul class="grid">
						{#each inUse as tag (tag.id)}
							<li
								class="flex flex-wrap items-center justify-between gap-x-3.5 border-b border-(--hair) last:border-b-0 py-1"
							>
								<b class="font-semibold wrap-anywhere">{tag.name}</b>
								<Form
									action="?/archive"
									hidden={{ id: tag.id }}
									done="{tag.name} is offered no more. What has it keeps it."
									undo={{ action: '?/restore', values: { id: tag.id } }}
									><button class="button plain" aria-label="Archive {tag.name}">Archive</button
									></Form
								>
							</li>
						{/each}
					</ul>{/if}
				<Form
					action="?/add"
					hidden={{ sort }}
					reset
					done="It can be chosen now."
					class="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-3"
				>
					<Field
						label={inUse.length ? 'Another one' : 'The first one'}
						name="name"
						maxlength={60}
					/>
					<button class="button">Add it<span class="sr-only">: {title.toLowerCase()}</span></button>
				</Form>
			</section>
		{/each}
	</div>
	{#if archived.length}
		<h2 class="mt-6 mb-2">Archived</h2>
		<ul class="panel grid">
			{#each archived as tag (tag.id)}
				<li
					class="flex flex-wrap items-center justify-between gap-x-3.5 border-b border-(--hair) last:border-b-0 py-2 px-4.5"
				>
					<span
						>{tag.name}
						<span class="quiet">{tag.sort === 'income' ? 'income category' : 'cost centre'}</span
						></span
					>
					<Form action="?/restore" hidden={{ id: tag.id }} done="{tag.name} can be chosen again."
						><button class="button plain">Take “{tag.name}” back into use</button></Form
					>
				</li>
			{/each}
		</ul>
	{/if}
</div>
