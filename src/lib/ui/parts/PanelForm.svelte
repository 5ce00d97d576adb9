<!--
	The frame of a form in a panel that opens over a page: one press does it once, what was typed stays where it is refused,
	what was done is said, and the panel closes. Fields say themselves what is wrong with them; the rest is said here.
-->
<script lang="ts">
	import { onMount, type Snippet } from 'svelte';
	import { enhance } from '$app/forms';
	import { pressKey } from './keys';
	import { notices } from './notices.svelte';

	interface Props {
		action: string;
		/** What the button says. */
		submit: string;
		danger?: boolean;
		/** Said when it is done. */
		done: string;
		/** What has the cursor at first, as a selector. */
		first: string;
		/** Said where it belongs to no field. */
		message?: string | undefined;
		onclose: () => void;
		class?: string;
		children: Snippet;
		/** Further buttons. */
		more?: Snippet;
	}
	let {
		action,
		submit,
		danger = false,
		done,
		first,
		message,
		onclose,
		class: look = 'gap-3',
		children,
		more
	}: Props = $props();
	let key = $state(pressKey());
	let busy = $state(false);
	let root: HTMLFormElement;
	onMount(() => root.querySelector<HTMLElement>(first)?.focus());
</script>

<form
	class="grid {look}"
	method="post"
	{action}
	bind:this={root}
	use:enhance={() => {
		busy = true;
		return async ({ result, update }) => {
			await update({ reset: false });
			busy = false;
			if (result.type !== 'success') return;
			key = pressKey();
			notices.say(done);
			onclose();
		};
	}}
>
	<input type="hidden" name="key" value={key} />
	{@render children()}
	{#if message}<p class="wrong col-span-full" role="alert">{message}</p>{/if}
	<div class="col-span-full flex flex-wrap gap-2.5">
		<button class="button {danger ? 'danger' : 'filled'}" aria-busy={busy}>{submit}</button>
		{@render more?.()}
		<button type="button" class="button plain" onclick={onclose}>Close</button>
	</div>
</form>
