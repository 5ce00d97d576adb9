<!-- The frame of everything behind the sign-in: strip, command box, keys, notices. -->
<script lang="ts">
	import type { Component, Snippet } from 'svelte';
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import { beforeNavigate, afterNavigate } from '$app/navigation';
	import { opened } from '$lib/ui/desk/lately';
	import { countInTitle } from '$lib/ui/desk/tabTitle';
	import { keepPlace } from '$lib/ui/desk/keepPlace';
	import { typesInto } from '$lib/ui/parts/keys';
	import { notices } from '$lib/ui/parts/notices.svelte';
	import Notices from '$lib/ui/parts/Notices.svelte';
	import Strip from '$lib/ui/desk/Strip.svelte';

	interface Props {
		/** The books come from a backup, and nobody has looked yet. */
		resting: boolean;
		children: Snippet;
	}
	let { resting, children }: Props = $props();
	/** The phone is in somebody else's hand, to sign: nothing of the owner's stands around it. */
	let handed = $derived(page.route.id?.endsWith('/sign') ?? false);
	let finding = $state(false);
	// Until what comes next is drawn.
	let leaving = false;
	beforeNavigate(() => (leaving = true));
	afterNavigate(() => setTimeout(() => (leaving = false), 200));
	// Its title is written after it is drawn.
	afterNavigate(({ to }) => {
		const path = to?.url.pathname;
		if (path)
			setTimeout(() => {
				if (page.url.pathname === path) opened(page.data.person ?? 0, path, document.title);
			}, 100);
	});
	onMount(countInTitle);

	// Nobody waits for it who does not look for anything.
	let Box = $state<Component<{ open: boolean }, object, 'open'>>();
	async function find() {
		Box ??= (await import('$lib/ui/desk/CommandBox.svelte')).default;
		finding = true;
	}

	let KeysDialog = $state<Component<{ open: boolean }, object, 'open'>>();
	let asking = $state(false);
	async function listKeys() {
		KeysDialog ??= (await import('$lib/ui/desk/KeysDialog.svelte')).default;
		asking = true;
	}

	function keys(event: KeyboardEvent) {
		if (event.defaultPrevented || handed) return;
		const typing = typesInto(event.target);
		if (event.key === '?' && !typing) void listKeys();
		if (
			(event.ctrlKey || event.metaKey) &&
			event.key.toLowerCase() === 'z' &&
			!event.shiftKey &&
			!typing &&
			notices.takeUp()
		)
			event.preventDefault();
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
			event.preventDefault();
			void find();
		}
	}
</script>

<svelte:window onkeydown={keys} />
<a
	class="absolute -left-2499.75 focus:left-2 focus:top-2 focus:bg-(--sheet) focus:py-2 focus:px-3 focus:z-50"
	href="#main">Skip to the content</a
>
{#if !handed}<Strip onfind={find} />{/if}
<!-- On a phone the last button of a page can be brought above a notice. -->
<main
	class="focus:[outline:none] focus:shadow-none max-[760px]:pb-16"
	id="main"
	tabindex="-1"
	{@attach keepPlace(() => leaving)}
>
	{#if resting && !handed}<p class="py-2 px-5.5 max-[900px]:px-4 bg-(--tape-tint) text-(--ink)">
			<b>These books come from a backup.</b> Nothing goes out until you have
			<a class="underline" href="/settings/keep/restored">looked and gone on</a>.
		</p>{/if}
	{@render children()}
</main>
{#if Box}<Box bind:open={finding} />{/if}
{#if KeysDialog}<KeysDialog bind:open={asking} />{/if}
<Notices />
