<!-- After something was removed on a page that is gone with it: what is said on the next one, and the way back. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { replaceState } from '$app/navigation';
	import { page } from '$app/state';
	import { notices } from './notices.svelte';

	let { done }: { done: string } = $props();
	onMount(() => {
		const at = new URL(page.url);
		const bin = Number(at.searchParams.get('removed'));
		if (!bin) return;
		notices.say('It is removed.', {
			label: 'Undo',
			run: () =>
				void import('./takeBack').then(({ postAction }) =>
					postAction({ action: '/api/bring-back', values: { bin } }, done)
				)
		});
		at.searchParams.delete('removed');
		// The router is there a moment after the page is.
		setTimeout(() => replaceState(at, page.state));
	});
</script>
