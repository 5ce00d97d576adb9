<script lang="ts">
	import CommandBox from '$lib/ui/desk/CommandBox.svelte';
	import Notices from '$lib/ui/parts/Notices.svelte';
	import Strip from '$lib/ui/desk/Strip.svelte';

	let { children } = $props();
	let finding = $state(false);

	function keys(event: KeyboardEvent) {
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
			event.preventDefault();
			finding = true;
		}
	}
</script>

<svelte:window onkeydown={keys} />
<a class="skip" href="#main">Skip to the content</a>
<Strip onfind={() => (finding = true)} />
<main id="main" tabindex="-1">{@render children()}</main>
<CommandBox bind:open={finding} />
<Notices />

<style>
	.skip {
		position: absolute;
		left: -9999px;
	}
	.skip:focus {
		left: 8px;
		top: 8px;
		background: var(--sheet);
		padding: 8px 12px;
		z-index: 50;
	}
	main:focus {
		outline: none;
		box-shadow: none;
	}
</style>
