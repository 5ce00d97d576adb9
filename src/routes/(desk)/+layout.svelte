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
<a
	class="absolute -left-2499.75 focus:left-2 focus:top-2 focus:bg-(--sheet) focus:py-2 focus:px-3 focus:z-50"
	href="#main">Skip to the content</a
>
<Strip onfind={() => (finding = true)} />
<main class="focus:[outline:none] focus:shadow-none" id="main" tabindex="-1">
	{@render children()}
</main>
<CommandBox bind:open={finding} />
<Notices />
