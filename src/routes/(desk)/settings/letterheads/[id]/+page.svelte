<script lang="ts">
	import { untrack } from 'svelte';
	import { page } from '$app/state';
	import Field from '$lib/ui/parts/Field.svelte';
	import Finder from '$lib/ui/parts/Finder.svelte';
	import Form from '$lib/ui/parts/Form.svelte';
	import Menu from '$lib/ui/parts/Menu.svelte';
	import Segments from '$lib/ui/parts/Segments.svelte';
	import LookSettings from '$lib/ui/letterheads/LookSettings.svelte';
	import Pages from '$lib/ui/letterheads/Pages.svelte';
	import { LookEditor } from '$lib/ui/letterheads/look.svelte';
	import { counted } from '$lib/core/words';

	let { data } = $props();
	const editor = untrack(
		() =>
			new LookEditor(
				data.letterhead.id,
				data.letterhead.version,
				data.letterhead.look,
				data.documents[0] ?? null
			)
	);
	let found = $state.raw(untrack(() => data.documents));
	let about = $state(untrack(() => data.documents[0]?.title ?? ''));
	let renaming = $state(false);
	/** On a phone one is seen at a time. */
	let side = $state<'settings' | 'paper'>('settings');
	let used = $derived(
		[
			data.letterhead.standard ? 'the standard' : '',
			data.users.customers.length ? counted(data.users.customers.length, 'customer') : '',
			data.users.kinds.length ? `${counted(data.users.kinds.length, 'kind')} of work` : ''
		]
			.filter(Boolean)
			.join(' · ')
	);
	async function search(typed: string) {
		found = (await editor.search(typed)) ?? found;
	}
	$effect(() => {
		// Whatever is changed is drawn and kept.
		void JSON.stringify(editor.look);
		untrack(() => editor.changed());
	});
	$effect(() => () => editor.leave());
</script>

<svelte:head><title>{data.letterhead.name} · Letterheads · Axiometer</title></svelte:head>
<svelte:window
	onbeforeunload={(event) => {
		if (editor.waiting) event.preventDefault();
	}}
/>
<div class="page">
	<p class="quiet">
		<a href="/settings">Settings</a> · <a href="/settings/letterheads">Letterheads</a>
	</p>
	<div class="flex flex-wrap items-center justify-between gap-x-4 gap-y-2 mb-3">
		{#if renaming}
			<Form
				action="?/rename"
				first="input"
				done="Renamed."
				ondone={() => (renaming = false)}
				class="flex flex-wrap items-end gap-2"
			>
				<Field label="Name" name="name" value={data.letterhead.name} maxlength={60} />
				<button class="button filled">Keep the name</button>
				<button class="button" type="button" onclick={() => (renaming = false)}>Leave it</button>
			</Form>
		{:else}
			<div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
				<h1>{data.letterhead.name}</h1>
				{#if used}<span class="tag">{used}</span>{/if}
				<span class="quiet" role="status" aria-live="polite">{editor.said}</span>
			</div>
		{/if}
		<div class="flex flex-wrap items-center gap-2">
			<button
				class="button plain with-scripts"
				type="button"
				disabled={!editor.canUndo}
				onclick={() => editor.undo()}>Undo</button
			>
			<Form action="?/copy" keyed><button class="button">Copy it</button></Form>
			<Menu
				label="More"
				entries={[
					{ label: 'Rename it', run: () => (renaming = true) },
					...(data.letterhead.standard
						? []
						: [
								{
									label: 'Make it the standard',
									href: '?/standard',
									post: { id: data.letterhead.id }
								}
							]),
					...(data.letterhead.archived
						? []
						: [{ label: 'Archive it', href: '?/archive', post: { id: data.letterhead.id } }])
				]}
			/>
		</div>
	</div>
	{#if data.letterhead.archived}<p class="panel py-2.5 px-3.5 mb-3">
			It is archived: nothing is written on it any more.
		</p>{/if}
	{#if editor.conflict}<p class="wrong mb-3" role="alert">
			This letterhead was changed in another tab. <a href={page.url.pathname} data-sveltekit-reload
				>Load it again</a
			> to see how; what you changed here since is not kept.
		</p>{/if}
	<div class="mb-3 hidden narrow:block">
		<Segments
			label="What is shown"
			quiet
			bind:value={side}
			options={[
				{ value: 'settings', label: 'Settings' },
				{ value: 'paper', label: 'On paper' }
			]}
		/>
	</div>
	<div class="grid grid-cols-[minmax(0,410px)_minmax(0,1fr)] gap-6 items-start narrow:grid-cols-1">
		<div class={{ 'narrow:hidden': side === 'paper' }}>
			<LookSettings {editor} registered={data.registered} logoName={data.logoName} />
		</div>
		<section
			class={[
				'sticky top-3.5 narrow:static grid gap-3 bg-[light-dark(#e3dccd,#0d1218)] border border-(--hair) rounded-[3px] p-4 phone:p-2.5 max-h-[calc(100dvh-28px)] overflow-auto narrow:max-h-none',
				{ 'narrow:hidden': side === 'settings' }
			]}
			aria-label="On paper"
		>
			<div class="flex flex-wrap items-end justify-between gap-3">
				{#if data.documents.length}
					<div class="field grow max-w-90">
						<Finder
							label="Shown with"
							placeholder="A number or a name"
							bind:typed={about}
							items={found.map(({ id, title, detail }) => ({ key: String(id), title, detail }))}
							none="Nothing is called so."
							onsearch={search}
							onchoose={({ key, title }) => {
								about = title;
								editor.show(Number(key), title);
							}}
						>
							{#snippet item(one)}<b>{one.title}</b><span class="quiet">{one.detail}</span
								>{/snippet}
						</Finder>
					</div>
				{:else}<p class="quiet">With an example, as long as you have no document.</p>{/if}
				<button class="button plain with-scripts" type="button" onclick={() => editor.open()}
					>Open as a PDF</button
				>
			</div>
			{#if editor.lost}<p class="wrong" role="alert">{editor.lost}</p>{/if}
			<div class={{ 'opacity-60': editor.stale }}>
				<Pages pdf={editor.pdf} label="{editor.shownName} on this letterhead" />
			</div>
		</section>
	</div>
</div>
