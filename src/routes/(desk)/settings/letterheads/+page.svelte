<script lang="ts">
	import Form from '$lib/ui/parts/Form.svelte';
	import Menu from '$lib/ui/parts/Menu.svelte';
	import { counted } from '$lib/core/words';

	let { data } = $props();
	let inUse = $derived(data.letterheads.filter(({ archived }) => !archived));
	let archived = $derived(data.letterheads.filter((one) => one.archived));
	const usedBy = ({ standard, customers, kinds }: (typeof data.letterheads)[number]) =>
		[
			standard ? 'used where nothing else is chosen' : '',
			customers ? `by ${counted(customers, 'customer')}` : '',
			kinds ? `by ${counted(kinds, 'kind')} of work` : ''
		]
			.filter(Boolean)
			.join(', ') || 'used by nobody yet';
</script>

<svelte:head><title>Letterheads · Axiometer</title></svelte:head>
<div class="page max-w-215">
	<p class="quiet"><a href="/settings">Settings</a></p>
	<div class="flex flex-wrap items-center justify-between gap-3 mb-1">
		<h1>Letterheads</h1>
		<Form action="?/make" keyed
			><button class="button filled">{inUse.length ? 'Another one' : 'Make one of your own'}</button
			></Form
		>
	</div>
	<p class="mb-4">
		How your documents look. A customer, a <a href="/settings/kinds">kind of work</a> or a single document
		can have its own. What is issued keeps the look it was issued with.
	</p>
	{#if inUse.length === 0}
		<p class="panel py-4 px-4.5">
			Your documents look as they came with Axiometer: your name on the left, no logo. Make one of
			your own and see each change on the page.
		</p>
	{:else}
		<ul class="panel grid">
			{#each inUse as one (one.id)}
				<li
					class="grid grid-cols-[64px_minmax(0,1fr)_auto] items-center gap-x-3.5 border-b border-(--hair) last:border-b-0 py-3 px-4.5"
				>
					<span
						class="scheme-light grid h-12 w-15 place-items-center border border-(--hair) bg-[#fff] overflow-hidden"
						>{#if one.logo}<img
								class="max-h-10 max-w-13 object-contain"
								src="/settings/letterheads/logo/{one.logo}"
								alt=""
							/>{:else}<span class="h-1.5 w-9" style:background={one.accent}></span>{/if}</span
					>
					<span class="grid gap-0.5">
						<span class="flex flex-wrap items-baseline gap-x-2.5"
							><a class="font-semibold" href="/settings/letterheads/{one.id}">{one.name}</a
							>{#if one.standard}<span class="tag">the standard</span>{/if}</span
						>
						<span class="quiet">{usedBy(one)}</span>
					</span>
					<Menu
						label="More"
						about={one.name}
						entries={[
							...(one.standard
								? []
								: [
										{
											label: 'Make it the standard',
											href: '?/standard',
											post: { id: one.id }
										}
									]),
							...(one.standard && inUse.length > 1
								? []
								: [
										{
											label: 'Archive it',
											href: '?/archive',
											post: { id: one.id },
											done: `${one.name} is archived.`,
											undo: { action: '?/restore', values: { id: one.id } }
										}
									])
						]}
					/>
				</li>
			{/each}
		</ul>
	{/if}
	{#if archived.length}
		<h2 class="mt-6 mb-2">Archived</h2>
		<ul class="panel grid">
			{#each archived as one (one.id)}
				<li
					class="flex flex-wrap items-center justify-between gap-x-3.5 border-b border-(--hair) last:border-b-0 py-2.5 px-4.5"
				>
					<span>{one.name}</span>
					<Form action="?/restore" hidden={{ id: one.id }} done="{one.name} can be chosen again."
						><button class="button plain">Take “{one.name}” back into use</button></Form
					>
				</li>
			{/each}
		</ul>
	{/if}
</div>
