<!-- What else can be made of a document: a repeat, a starting point, the same for several customers. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { notices } from '../parts/notices.svelte';

	interface Props {
		id: number;
		suggestion: string;
		/** A draft is saved first, so that what is typed goes with it. */
		before?: () => Promise<unknown>;
		/** What comes first. */
		children?: Snippet;
	}
	let { id, suggestion, before, children }: Props = $props();
	let naming = $state(false);
	let name = $derived(suggestion.slice(0, 80));
	let wrong = $state('');

	async function keep(event: SubmitEvent) {
		event.preventDefault();
		await before?.();
		const response = await fetch('/billing/start?/keep', {
			method: 'POST',
			body: new URLSearchParams({ document: String(id), name }),
			headers: {
				'content-type': 'application/x-www-form-urlencoded',
				'x-sveltekit-action': 'true'
			}
		}).catch(() => null);
		const answer = await response?.json().catch(() => null);
		if (answer?.type !== 'success') {
			wrong = name.trim() ? 'It could not be kept just now.' : 'Give it a name.';
			return;
		}
		naming = false;
		wrong = '';
		notices.say(`“${name}” is kept: begin from it under Billing, Starting points.`);
	}
</script>

<div class="again flex flex-wrap gap-y-1 gap-x-3.5 items-center">
	{@render children?.()}
	<a class="button plain" href="/billing/repeats/new?from={id}" onclick={() => void before?.()}
		>Repeat it</a
	>
	<a class="button plain" href="/billing/{id}/several" onclick={() => void before?.()}
		>Same to several customers</a
	>
	{#if naming}
		<form class="flex gap-2 items-center flex-wrap" onsubmit={keep}>
			<input
				class="box w-65"
				aria-label="Name of the starting point"
				aria-invalid={wrong ? 'true' : undefined}
				bind:value={name}
			/>
			<button class="button">Keep it</button>
			{#if wrong}<span class="wrong">{wrong}</span>{/if}
		</form>
	{:else}
		<button class="button plain" onclick={() => (naming = true)}>Keep as a starting point</button>
	{/if}
</div>
