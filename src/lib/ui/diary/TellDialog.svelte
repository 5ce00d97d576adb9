<!-- What the customer would be told of a visit, read before it goes. -->
<script lang="ts">
	import { tick, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { textSize } from '$lib/core/wordings/texts';
	import Dialog from '../parts/Dialog.svelte';
	import { notices } from '../parts/notices.svelte';

	interface Props {
		/** Which visit, and what of it; null: nothing. */
		about: { visit: number; kind: string } | null;
		onclose: () => void;
	}
	let { about, onclose }: Props = $props();
	let proposal = $state<{
		to: string;
		subject: string;
		text: string;
		sequence: number;
		before: boolean;
		mobile: string;
		words: string;
		textPrice: string;
		by: 'mail' | 'text';
		customer: string;
		quiet: boolean;
	} | null>(null);
	/** As it goes, with a link of the usual length. */
	let texted = $derived(
		(proposal?.words ?? '').replaceAll('{link}', `${page.url.origin}/v/${'x'.repeat(24)}`)
	);
	let message = $state('');
	let busy = $state(false);
	let minutes = $state('20');
	let root = $state<HTMLElement>();
	const TITLES: Record<string, string> = {
		booked: 'Tell them of the visit?',
		moved: 'Tell them that it has moved?',
		cancelled: 'Tell them that it falls away?',
		onTheWay: 'On the way',
		finished: 'Tell them that it is finished?'
	};
	$effect(() => {
		if (!about) return;
		untrack(() => void load(true));
	});
	async function load(first = false) {
		proposal = null;
		message = '';
		const response = await fetch(
			`/work/diary/api?visit=${about!.visit}&kind=${about!.kind}&minutes=${encodeURIComponent(minutes)}`
		).catch(() => null);
		if (response?.ok) {
			const read = await response.json();
			if (!read.quiet) {
				proposal = read;
				// Read, and gone with one press: nothing was there to have the cursor before.
				await tick();
				if (first) root?.querySelector<HTMLElement>('button.filled:not(:disabled)')?.focus();
			} else {
				const { visit } = about!;
				onclose();
				notices.say(`${read.customer} is told of no visits.`, {
					label: 'Tell them again',
					run: () => void quiet(visit, false)
				});
			}
		} else message = 'The connection is lost. Nothing was sent.';
	}
	async function quiet(visit: number, never: boolean) {
		const response = await fetch('/work/diary/api', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ action: 'quiet', visit, quiet: never })
		}).catch(() => null);
		if (!response?.ok) return notices.say('The connection is lost. It stays as it was.');
		if (never) {
			const { customer } = proposal!;
			onclose();
			notices.say(`${customer} is told of no visits any more.`, {
				label: 'Undo',
				run: () => void quiet(visit, false)
			});
		} else notices.say('They are told again.');
	}
	async function send() {
		if (busy || !proposal || !about) return;
		busy = true;
		const response = await fetch('/work/diary/api', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ action: 'tell', ...about, ...proposal })
		}).catch(() => null);
		busy = false;
		const answer = await response?.json().catch(() => null);
		if (!response?.ok) {
			message =
				Object.values((answer?.fields ?? {}) as Record<string, string>)[0] ??
				answer?.message ??
				'The connection is lost. Try again: it goes once.';
			return;
		}
		notices.say(answer?.sent ? 'They are told.' : 'They were told that already.');
		onclose();
		await invalidateAll();
	}
</script>

<Dialog
	bind:open={() => about !== null, (open) => !open && onclose()}
	title={TITLES[about?.kind ?? ''] ?? 'Tell them'}
	first="button.filled"
>
	<div class="grid gap-3 pb-3" bind:this={root}>
		{#if message}<p class="wrong" role="alert">{message}</p>{/if}
		{#if proposal}
			{#if proposal.before}<p>They were told exactly this already.</p>{/if}
			{#if about?.kind === 'onTheWay'}<label class="field max-w-40"
					><span class="name">There in, minutes</span><input
						class="box"
						inputmode="numeric"
						bind:value={minutes}
						onchange={() => load()}
					/></label
				>{/if}
			<div class="flex gap-5" role="radiogroup" aria-label="How they are told">
				<label class="check"
					><input type="radio" name="by" value="mail" bind:group={proposal.by} />By e-mail</label
				>
				<label class="check"
					><input type="radio" name="by" value="text" bind:group={proposal.by} />By text</label
				>
			</div>
			{#if proposal.by === 'text'}
				<label class="field"
					><span class="name">Mobile number</span><input
						class="box"
						type="tel"
						autocomplete="off"
						bind:value={proposal.mobile}
					/></label
				>
				<label class="field"
					><span class="name">{'Text; {link} becomes the link'}</span><textarea
						class="box"
						rows="4"
						bind:value={proposal.words}></textarea><span class="quiet"
						>{textSize(texted, proposal.textPrice)}, to one number</span
					></label
				>
			{:else}
				<label class="field"
					><span class="name">To</span><input
						class="box"
						inputmode="email"
						autocomplete="off"
						bind:value={proposal.to}
					/></label
				>
				<label class="field"
					><span class="name">Subject</span><input
						class="box"
						bind:value={proposal.subject}
					/></label
				>
				<label class="field"
					><span class="name">{'Message; {link} becomes the link'}</span><textarea
						class="box"
						rows="7"
						bind:value={proposal.text}></textarea></label
				>
			{/if}
			<div class="flex flex-wrap gap-2.5">
				<button class="button filled" aria-busy={busy} disabled={proposal.before} onclick={send}
					>Tell them</button
				>
				<button class="button" onclick={onclose}>Not this time</button>
				<button class="button plain" onclick={() => quiet(about!.visit, true)}
					>Never tell them of visits</button
				>
			</div>
		{:else if !message}<p class="quiet" role="status">One moment …</p>{/if}
	</div>
</Dialog>
