<!-- Looks through a list as it is typed; a plain form where there are no scripts. -->
<script lang="ts">
	import SearchIcon from '@lucide/svelte/icons/search';
	import { page } from '$app/state';

	interface Props {
		label: string;
		placeholder: string;
		value: string;
		onsearch: (typed: string) => void;
		class?: string;
	}
	let { label, placeholder, value, onsearch, class: look = '' }: Props = $props();
	/** The list's other filters go with it; its page does not. */
	let kept = $derived(
		[...page.url.searchParams].filter(([name]) => !['q', 'before', 'after'].includes(name))
	);
</script>

<form
	class="relative flex gap-2 print:hidden [&_svg]:absolute [&_svg]:left-2.5 [&_svg]:top-3 [&_svg]:text-(--ink-2) {look}"
	role="search"
	onsubmit={(event) => {
		event.preventDefault();
		onsearch(new FormData(event.currentTarget).get('q') as string);
	}}
>
	{#each kept as [name, given] (name + given)}<input type="hidden" {name} value={given} />{/each}
	<SearchIcon size={18} aria-hidden="true" />
	<input
		class="box pl-9"
		type="search"
		name="q"
		aria-label={label}
		{placeholder}
		{value}
		oninput={(event) => onsearch(event.currentTarget.value)}
	/>
	<noscript><button class="button">Find</button></noscript>
</form>
