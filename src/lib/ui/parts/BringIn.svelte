<!-- People or jobs out of a file: what each row would bring is looked at first, then written with one press. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import FilePick from './FilePick.svelte';
	import Form from './Form.svelte';

	interface Shown {
		fresh: number;
		same: number;
		wrong: number;
		/** How the file was understood, where that could be in doubt. */
		readAs?: string;
		/** What is worth knowing of the file as a whole. */
		notes?: string[];
		rows: { line: number; name: string; outcome: 'new' | 'same' | 'wrong'; detail: string }[];
	}
	interface Props {
		/** What the file is. */
		label: string;
		accept: string;
		/** What one row brings, and several. */
		one: string;
		many: string;
		/** Where to, once it is done. */
		to: { href: string; label: string };
		form: { preview: Shown } | { report: Shown } | object | null;
		/** What is to be chosen beside the file. */
		children?: Snippet;
	}
	let { label, accept, one, many, to, form, children }: Props = $props();
	let preview = $derived(form && 'preview' in form ? form.preview : null);
	let report = $derived(form && 'report' in form ? form.report : null);
	let shown = $derived(report ?? preview);
	let root = $state<HTMLFormElement>();

	/** What is chosen beside the file, now and when it was last looked at. */
	const chosen = () =>
		root
			? [...new FormData(root)]
					.filter(([name]) => name !== 'key')
					.map(([name, value]) => `${name}=${String(value)}`)
					.join()
			: '';
	let seen = '';
	let asked = false;
	const lookAnew = () => {
		if (preview && !report && chosen() !== seen) root?.requestSubmit();
	};
	function onask() {
		// While one look is under way, another one is not sent.
		if (!asked) seen = chosen();
		asked = true;
	}
	$effect(() => {
		void form;
		asked = false;
		// Something else was chosen while it was looked at: once the form is at rest, it is looked at again.
		const rest = setTimeout(lookAnew, 100);
		return () => clearTimeout(rest);
	});
	const WORDS = { new: 'new', same: 'is here', wrong: 'left out' };
</script>

<div onsubmitcapture={onask}>
	<Form
		class="panel py-4 px-4.5 grid gap-2.5 justify-items-start max-w-215 mt-3"
		bind:root
		action="?/preview"
		enctype="multipart/form-data"
	>
		<FilePick {label} name="file" {accept} onchoose={() => root?.requestSubmit()} />
		<!-- What is chosen beside the file changes what it would bring: it is looked at again. -->
		<div class="grid gap-2.5 w-full" onchange={lookAnew}>
			{@render children?.()}
		</div>
		<div class="flex gap-2.5 flex-wrap">
			{#if preview && !report && preview.fresh > 0}<button
					class="button filled"
					formaction="?/write">Add {preview.fresh} {preview.fresh === 1 ? one : many}</button
				>{/if}
			{#if preview && !report && children}<button class="button">Look again</button>{/if}
		</div>
	</Form>
</div>
{#if shown}
	<section class="panel py-4 px-4.5 grid gap-2.5 justify-items-start max-w-215 mt-3" role="status">
		<h2>
			{shown.fresh}
			{report ? 'added' : 'new'}, {shown.same} here already, {shown.wrong} left out
		</h2>
		{#if shown.readAs}<p class="quiet">
				{shown.readAs} If names look wrong, save the file as UTF-8 and bring it in again.
			</p>{/if}
		{#each shown.notes ?? [] as said (said)}<p>{said}</p>{/each}
		{#if report}<a class="button" href={to.href}>{to.label}</a>{/if}
		<ul class="w-full">
			{#each shown.rows as row, index (index)}
				<li class="py-1.25 px-0 border-b border-b-(--hair)">
					<b>{row.name || `line ${row.line}`}</b>
					<span class="tag" class:wrong={row.outcome === 'wrong'}>{WORDS[row.outcome]}</span>
					<span class="quiet">{row.detail}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}
