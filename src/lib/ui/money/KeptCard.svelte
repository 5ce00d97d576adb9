<!-- A card that the customer let be kept: shown, and taken back, with a code that is mailed to the address the business knows. -->
<script lang="ts">
	import { page } from '$app/state';
	import { displayDate } from '$lib/core/calendar/conversion';
	import Field from '../parts/Field.svelte';
	import Fold from '../parts/Fold.svelte';
	import Form from '../parts/Form.svelte';

	let { path }: { path: string } = $props();
	interface Kept {
		lastDigits: string;
		since: string;
		charged: { name: string; rule: string; paused: boolean }[];
		code: string;
	}
	// Without scripts the answers come with the page.
	const came = page.form as { asked?: boolean; kept?: Kept; forgotten?: boolean } | null;
	let asked = $state(came?.asked ?? false);
	let kept = $state<Kept | null>(came?.kept ?? null);
	let forgotten = $state(came?.forgotten ?? false);
	let open = $state(came !== null && 'asked' in came);
</script>

<div class="col-span-full" id="card">
	<Fold label="A card you let be kept" bind:open>
		<div class="grid gap-3 max-w-100 mt-1" aria-live="polite">
			{#if forgotten}<p><b>The card is forgotten.</b> It is not charged any more.</p>
			{:else if kept}
				<p>
					A card ending <b>{kept.lastDigits}</b> is kept for agreed repeat invoices, as you let it
					be on {displayDate(kept.since)}.
				</p>
				{#if kept.charged.length}
					<ul class="grid gap-1">
						{#each kept.charged as one (one.name)}<li>
								It is charged for <b>{one.name}</b>. {one.rule}{one.paused
									? ' Paused at the moment.'
									: ''} Each invoice comes by e-mail.
							</li>{/each}
					</ul>
				{:else}<p class="quiet">Nothing is charged to it at the moment.</p>{/if}
				<Form
					action="{path}?/forgetCard"
					hidden={{ code: kept.code }}
					ondone={() => (forgotten = true)}
				>
					<button class="button">Forget this card</button>
				</Form>
			{:else}
				<p class="quiet">
					{asked
						? 'If a card of yours is kept, a code is on its way to the e-mail address we know of you.'
						: 'To see it or take it back, have a code mailed to the e-mail address we know of you.'}
				</p>
				<Form action="{path}?/cardCode" ondone={() => (asked = true)}>
					<button class="button {asked ? 'plain' : ''}"
						>{asked ? 'Mail another code' : 'Mail me a code'}</button
					>
				</Form>
				<Form
					class="grid gap-2.5 justify-items-start"
					action="{path}?/showCard"
					ondone={(answer) => (kept = answer.kept as Kept)}
				>
					<Field
						label="The code"
						name="code"
						inputmode="numeric"
						autocomplete="one-time-code"
						value=""
					/>
					<button class="button">Show the card</button>
				</Form>
			{/if}
		</div>
	</Fold>
</div>
