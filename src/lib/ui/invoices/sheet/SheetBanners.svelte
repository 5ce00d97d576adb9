<!-- What has happened to the draft elsewhere, and what can be done about it. -->
<script lang="ts">
	import type { Autosave } from './autosave.svelte';

	interface Props {
		save: Autosave;
		draftId: number;
		/** Something typed here was never saved, and the draft has changed since. */
		clash: boolean;
		onkeep: () => void;
		ontake: () => void;
		onforget: () => void;
	}
	let { save, draftId, clash, onkeep, ontake, onforget }: Props = $props();
</script>

{#if save.message}
	<div
		class="banner bg-(--tape-tint) border-[1.5px] border-(--ink) py-2.5 px-3.5 mb-3 flex gap-y-2 gap-x-3 items-center flex-wrap"
		role="alert"
	>
		{save.message}
		{#if save.state === 'conflict'}
			<button class="button" onclick={ontake}>Load what is saved</button>
			<button class="button" onclick={onkeep}>Keep mine as a second draft</button>
		{:else if save.state === 'gone'}<a class="button" href="/billing/{draftId}">Look at it</a>{/if}
	</div>
{:else if clash}
	<div
		class="banner bg-(--tape-tint) border-[1.5px] border-(--ink) py-2.5 px-3.5 mb-3 flex gap-y-2 gap-x-3 items-center flex-wrap"
		role="alert"
	>
		Something typed in this browser was never saved, and the draft has changed since.
		<button class="button" onclick={onkeep}>Keep it as a second draft</button>
		<button class="button" onclick={onforget}>Forget it</button>
	</div>
{:else if save.alsoOpen}
	<div
		class="banner bg-(--tape-tint) border-[1.5px] border-(--ink) py-2.5 px-3.5 mb-3 flex gap-y-2 gap-x-3 items-center flex-wrap"
		role="status"
	>
		This draft is open in another tab too. Whoever saves first wins; nothing is overwritten.
	</div>
{/if}
