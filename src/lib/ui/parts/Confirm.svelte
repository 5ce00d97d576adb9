<!-- Asks before what cannot be taken back. Without scripts the form itself goes: the server refuses what may not be. -->
<script lang="ts">
	import Dialog from './Dialog.svelte';

	interface Props {
		open: boolean;
		title: string;
		text: string;
		/** The word on the button that does it. */
		yes: string;
		onyes: () => void;
	}
	let { open = $bindable(), title, text, yes, onyes }: Props = $props();
</script>

<Dialog bind:open {title} first="[data-no]">
	<p>{text}</p>
	<div class="mt-4 mb-2 flex flex-wrap gap-2">
		<button
			type="button"
			class="button filled"
			onclick={() => {
				open = false;
				onyes();
			}}>{yes}</button
		>
		<button type="button" class="button" data-no onclick={() => (open = false)}>Leave it</button>
	</div>
</Dialog>
