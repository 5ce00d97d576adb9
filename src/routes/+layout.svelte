<script lang="ts">
	import { onMount } from 'svelte';
	import '../app.css';
	let { children } = $props();

	// Says that the page answers now (what drives it from outside waits for this), and answers the keys
	// and the press that `app.html` has kept until here.
	onMount(() => {
		document.body.dataset.ready = 'yes';
		removeEventListener('keydown', window.keepKey);
		for (const key of window.earlyKeys.splice(0))
			document.body.dispatchEvent(
				new KeyboardEvent('keydown', { key, ctrlKey: true, bubbles: true, cancelable: true })
			);
		removeEventListener('click', window.keepPress);
		window.earlyPress?.click();
		window.earlyPress = undefined;
	});
</script>

{@render children()}
