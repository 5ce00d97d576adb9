<!--
	The frame of every form that is posted: one press does it once and shows that it is busy; what is refused is said at its box,
	the first of them gets the cursor, and nothing typed is lost; what was done is said. Without scripts it is a plain form.
-->
<script lang="ts">
	import { onMount, untrack, type Component, type Snippet } from 'svelte';
	import type { HTMLFormAttributes } from 'svelte/elements';
	import { page } from '$app/state';
	import type FormLife from './FormLife.svelte';
	import {
		answerTo,
		comesWithAnswer,
		nowAlive,
		setFrame,
		type FormState,
		type Frame
	} from './frame';
	import { pressKey } from './keys';
	import { notices } from './notices.svelte';
	import type { WayBack } from './takeBack';

	type Answer = Record<string, unknown>;
	interface Props extends Omit<HTMLFormAttributes, 'action' | 'method' | 'children' | 'hidden'> {
		action?: string;
		/** Values that go with it unseen. Numbers name the row it belongs to, where a page has many of it. */
		hidden?: Record<string, string | number | null | undefined>;
		/** With a key of its press, so that pressing twice does it once. */
		keyed?: boolean;
		/** Said when it is done. */
		done?: string | ((answer: Answer) => string);
		/** How it is taken back: offered beside what is said. */
		undo?: WayBack | ((answer: Answer) => WayBack | undefined) | undefined;
		ondone?: (answer: Answer) => void;
		/** Empties the boxes when it is done. */
		reset?: boolean;
		/** What has the cursor at first, as a selector. */
		first?: string;
		/** Sent while somebody types: the newest counts, and the cursor stays. */
		live?: boolean;
		/** Goes to another site: the browser sends it. */
		leaves?: boolean;
		root?: HTMLFormElement | undefined;
		/** With what the frame knows, for what depends on it. */
		children?: Snippet<[Frame]>;
	}
	let {
		action = '',
		hidden = {},
		keyed = false,
		done,
		undo,
		ondone,
		reset = false,
		first,
		live = false,
		leaves = false,
		root = $bindable(),
		children,
		...rest
	}: Props = $props();

	const id = untrack(() =>
		[action || 'form', ...Object.values(hidden).filter((one) => typeof one === 'number')].join(' ')
	);
	const came = (comesWithAnswer() && answerTo(id, page.form)) || undefined;
	const before: FormState = came ?? { id, valid: false, posted: false, errors: {}, data: {} };
	let errors = $state.raw(before.errors);
	let message = $state(before.message ?? '');
	let key = $state(pressKey());

	const claimed = new Set<string>();
	const frame = setFrame({
		error: (name) => {
			claimed.add(name);
			return errors[name]?.[0];
		},
		kept: (name) => came?.data[name],
		claim: (name) => claimed.add(name)
	});
	let elsewhere = $derived([
		...(message ? [message] : []),
		...Object.entries(errors).flatMap(([name, texts]) => (claimed.has(name) ? [] : (texts ?? [])))
	]);

	// It comes to life with the first touch; what is pressed before that waits for it.
	let Life = $state<Component<Parameters<typeof FormLife>[1]>>();
	let held: { submitter: HTMLElement | null } | null = null;
	let alive = false;
	async function wake() {
		if (!leaves) Life ??= (await import('./FormLife.svelte')).default;
	}
	function onsubmit(event: SubmitEvent) {
		if (leaves) return busy(event.submitter);
		if (alive) return;
		event.preventDefault();
		held = { submitter: event.submitter };
		void wake();
	}
	function onalive() {
		alive = true;
		if (held) root?.requestSubmit(held.submitter);
		held = null;
	}

	let pressed: HTMLElement | null = null;
	function busy(submitter: HTMLElement | null) {
		pressed = submitter;
		pressed?.setAttribute('aria-busy', 'true');
	}
	const rested = () => pressed?.removeAttribute('aria-busy');
	function finish(answer: Answer) {
		key = pressKey();
		// Where it goes is settled now: the page may be another one by then.
		const back = typeof undo === 'function' ? undo(answer) : undo;
		const way = back && { ...back, action: new URL(back.action, page.url).href };
		if (done)
			notices.say(
				typeof done === 'string' ? done : done(answer),
				way && {
					label: 'Undo',
					run: () => void import('./takeBack').then(({ takeBack }) => takeBack(way))
				}
			);
		if (reset) root?.reset();
		ondone?.(answer);
	}

	onMount(() => {
		nowAlive();
		if (first) root?.querySelector<HTMLElement>(first)?.focus();
	});
</script>

<!-- Coming back by the back button, the page must be usable again. -->
<svelte:window onpageshow={rested} />
<!-- What is wrong is said in our words at its box, never in the browser’s. -->
<form
	method="post"
	novalidate
	action={action || undefined}
	bind:this={root}
	{onsubmit}
	onfocusin={wake}
	onpointerover={wake}
	{...rest}
>
	<input type="hidden" name="__superform_id" value={id} />
	{#if keyed}<input type="hidden" name="key" value={key} />{/if}
	{#each Object.entries(hidden) as [name, value] (name)}<input
			type="hidden"
			{name}
			value={value ?? ''}
		/>{/each}
	{@render children?.(frame)}
	{#each elsewhere as text (text)}<p class="wrong col-span-full" role="alert">{text}</p>{/each}
</form>
{#if Life && root}<Life
		form={root}
		state={before}
		{live}
		{onalive}
		onsubmit={busy}
		onchange={(now, said) => {
			errors = now;
			message = said;
		}}
		ondone={finish}
		onend={rested}
	/>{/if}
