<!--
	What is done less often, behind one button: Skeleton's menu, which comes later than the page. Each entry is a page, or a form that is posted, so that
	without scripts all of them stand beside each other.
-->
<script lang="ts">
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import type { WayBack } from './takeBack';

	interface Entry {
		label: string;
		/** A page; or where the form below is posted to. */
		href?: string;
		/** Done on this page, with scripts. */
		run?: () => void;
		/** Posted, with these values. */
		post?: Record<string, string | number>;
		/** Said once it is done, and how it is taken back. */
		done?: string;
		undo?: WayBack;
		/** Opens in a page of its own, or is a file. */
		leaves?: boolean;
	}
	interface Props {
		label?: string;
		/** What it is about, where a page has several: said and not shown. */
		about?: string;
		entries: readonly Entry[];
	}
	let { label = 'More', about = '', entries }: Props = $props();
	const id = $props.id();
	let Life = $state.raw<typeof import('./MenuLife.svelte').default>();
	let pressed = $state(false);
	/** Without a line it is tried again at the next press. */
	const load = () =>
		import('./MenuLife.svelte').then(
			(part) => (Life = part.default),
			() => undefined
		);
	// Once the page has come to life and nothing else is to be done.
	onMount(() => {
		const timer = setTimeout(load, 1500);
		return () => clearTimeout(timer);
	});

	async function done(href: string, { post = {}, done: said = '', undo }: Entry) {
		const { postAction } = await import('./takeBack');
		const back = undo && { ...undo, action: new URL(undo.action, page.url).href };
		await postAction({ action: new URL(href, page.url).href, values: post }, said, back);
	}
	function run(label: string) {
		const entry = entries.find((one) => one.label === label);
		if (!entry) return;
		if (entry.run) return entry.run();
		if (!entry.href) return;
		if (entry.post && entry.done) return void done(entry.href, entry);
		if (entry.post)
			(
				document.getElementById(`${id}-${entries.indexOf(entry)}`) as HTMLFormElement
			).requestSubmit();
		else if (entry.leaves) window.open(entry.href, '_blank', 'noopener');
		else void goto(entry.href, { noScroll: true });
	}
</script>

{#each entries as entry, index (entry.label)}
	{#if entry.post}
		<form class="hidden" id="{id}-{index}" method="post" action={entry.href}>
			{#each Object.entries(entry.post) as [name, value] (name)}<input
					type="hidden"
					{name}
					{value}
				/>{/each}
		</form>
	{/if}
{/each}
{#if Life}<Life {label} {about} {entries} onchoose={run} {pressed} />
{:else}<button
		type="button"
		class="button with-scripts"
		aria-haspopup="menu"
		aria-expanded="false"
		onclick={() => {
			pressed = true;
			void load();
		}}
		>{label}{#if about}<span class="sr-only">: {about}</span>{/if}<ChevronDown
			size={17}
			aria-hidden="true"
		/></button
	>{/if}
<noscript>
	<span class="flex flex-wrap gap-2.5">
		{#each entries as entry, index (entry.label)}
			{#if entry.post}<button class="button" form="{id}-{index}">{entry.label}</button>
			{:else if entry.href}<a class="button" href={entry.href}>{entry.label}</a>{/if}
		{/each}
	</span>
</noscript>
