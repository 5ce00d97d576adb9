<!-- Sending a quote: what is missing, or the message it goes out with. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { Problem } from '$lib/core/sheet/types';
	import Dialog from '../parts/Dialog.svelte';
	import { pressKey } from '../parts/keys';

	interface Props {
		id: number;
		version: () => number;
		open: boolean;
		onsent: () => void;
		onfix: (path: string) => void;
	}
	let { id, version, open = $bindable(), onsent, onfix }: Props = $props();
	interface Prepared {
		number: string;
		to: string;
		subject: string;
		text: string;
		problems: Problem[];
	}
	let prepared = $state<Prepared | null>(null);
	let errors = $state.raw<Record<string, string>>({});
	let message = $state('');
	let busy = $state(false);
	/** Where the test went. */
	let tried = $state<{ link: string; to: string } | null>(null);
	let key = pressKey();

	$effect(() => {
		if (!open) return;
		untrack(() => {
			prepared = null;
			message = '';
			tried = null;
			errors = {};
			void load();
		});
	});
	async function load() {
		const response = await fetch(`/work/quotes/${id}/api`).catch(() => null);
		if (response?.ok) prepared = (await response.json()) as Prepared;
		else message = 'The connection is lost. Nothing was sent.';
	}
	async function send(byHand: boolean) {
		if (busy) return;
		busy = true;
		const response = await fetch(`/work/quotes/${id}/api`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({
				action: 'send',
				version: version(),
				key,
				byHand,
				...(byHand || !prepared
					? {}
					: { to: prepared.to, subject: prepared.subject, text: prepared.text })
			})
		}).catch(() => null);
		busy = false;
		const answer = await response?.json().catch(() => null);
		if (response?.ok) {
			key = pressKey();
			return onsent();
		}
		errors = answer?.fields ?? {};
		message =
			Object.keys(errors).length > 0
				? ''
				: (answer?.message ?? 'The connection is lost. Try again: it goes out once.');
	}
	async function tryOut() {
		if (busy) return;
		busy = true;
		const response = await fetch(`/work/quotes/${id}/api`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ action: 'tryOut', key: pressKey() })
		}).catch(() => null);
		busy = false;
		const answer = await response?.json().catch(() => null);
		if (response?.ok) tried = answer;
		else
			message =
				Object.values((answer?.fields ?? {}) as Record<string, string>)[0] ??
				answer?.message ??
				'The connection is lost. Nothing was sent.';
	}
	function go(path: string) {
		open = false;
		setTimeout(() => onfix(path), 60);
	}
</script>

<Dialog
	bind:open
	title={prepared ? `Send ${prepared.number}` : 'Send it'}
	first="[name=to], button"
>
	<div class="grid gap-3 pb-3">
		{#if message}<p class="wrong" role="alert">{message}</p>{/if}
		{#if !prepared}<p class="quiet" role="status">One moment …</p>
		{:else if prepared.problems.length}
			<p>Before it can go out:</p>
			<ul class="grid gap-1.5">
				{#each prepared.problems as problem (problem.path + problem.message)}<li
						class="flex flex-wrap items-center justify-between gap-2 border-l-4 border-l-(--oxide) pl-3"
					>
						<span>{problem.message}</span>{#if problem.path}<button
								class="button plain"
								onclick={() => go(problem.path)}
								>Go there<span class="sr-only">: {problem.message}</span></button
							>{/if}
					</li>{/each}
			</ul>
		{:else}
			<label class="field"
				><span class="name">To</span><input
					class="box"
					name="to"
					inputmode="email"
					autocomplete="off"
					aria-invalid={errors.to ? 'true' : undefined}
					bind:value={prepared.to}
				/>{#if errors.to}<span class="wrong">{errors.to}</span>{/if}</label
			>
			<label class="field"
				><span class="name">Subject</span><input
					class="box"
					name="subject"
					aria-invalid={errors.subject ? 'true' : undefined}
					bind:value={prepared.subject}
				/>{#if errors.subject}<span class="wrong">{errors.subject}</span>{/if}</label
			>
			<label class="field"
				><span class="name">{'Message; {link} becomes the link'}</span><textarea
					class="box"
					name="text"
					rows="8"
					aria-invalid={errors.text ? 'true' : undefined}
					bind:value={prepared.text}></textarea>{#if errors.text}<span class="wrong"
						>{errors.text}</span
					>{/if}</label
			>
			<div class="flex flex-wrap gap-2.5">
				<button class="button filled" aria-busy={busy} onclick={() => send(false)}
					>Send it with the PDF</button
				>
				<button class="button" aria-busy={busy} onclick={() => send(true)}
					>It goes another way</button
				>
				<button class="button plain" aria-busy={busy} onclick={tryOut}
					>Send myself a test first</button
				>
			</div>
			{#if tried}<p role="status">
					The test went to {tried.to}.
					<a class="underline" href={tried.link} target="_blank" rel="noreferrer">See its page</a>
				</p>{/if}
			<p class="quiet">
				Once it is out it never changes: what you write on becomes the next version.
			</p>
		{/if}
	</div>
</Dialog>
