<!-- On through a list, and back: by the rows at its edges, so that any page comes at once. -->
<script lang="ts">
	import { page } from '$app/state';

	interface Props {
		before: string | null;
		after: string | null;
		/** What lies in either direction. */
		words?: [before: string, after: string];
		/** Where on the page the list stands. */
		at?: string;
	}
	let { before, after, words = ['Newer', 'Older'], at = '' }: Props = $props();

	function address(way: 'before' | 'after', place: string): string {
		const next = new URLSearchParams(page.url.searchParams);
		next.delete('before');
		next.delete('after');
		next.set(way, place);
		return `?${next}${at && `#${at}`}`;
	}
</script>

{#if before || after}
	<nav class="mt-4 flex items-center justify-center gap-3" aria-label="Pages">
		{#if before}<a class="button" href={address('before', before)}>{words[0]}</a>{/if}
		{#if after}<a class="button" href={address('after', after)}>{words[1]}</a>{/if}
	</nav>
{/if}
