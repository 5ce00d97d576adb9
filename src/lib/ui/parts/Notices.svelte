<!-- Where notices stand. Skeleton's toasts come once the page has come to life and nothing else is to be done, or with the first notice. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { notices } from './notices.svelte';

	let Life = $state.raw<typeof import('./NoticesLife.svelte').default>();
	onMount(() => {
		const load = () => import('./NoticesLife.svelte').then((part) => (Life = part.default));
		const timer = setTimeout(() => void load().catch(() => undefined), 1500);
		// Without a line it is tried again with the next notice.
		const end = notices.whenSaid(() => void load().catch(() => undefined));
		return () => {
			clearTimeout(timer);
			end();
		};
	});
</script>

{#if Life}<Life />{/if}
