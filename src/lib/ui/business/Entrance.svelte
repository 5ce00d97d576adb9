<!-- The frame of the pages before one is signed in. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import Logo from '../parts/Logo.svelte';

	let {
		title,
		wide = false,
		children
	}: { title: string; wide?: boolean; children: Snippet } = $props();
</script>

<header
	class="bg-(--strip) text-(--strip-mark) [font:700_20px_var(--font-heading)] flex gap-2.25 items-center py-3.5 px-5"
>
	<Logo /><span>Axiometer</span>
</header>
<div
	class="h-5 [background:repeating-linear-gradient(90deg,#17212b_0_1.5px,transparent_1.5px_10px)_bottom_/_100%_7px_no-repeat,repeating-linear-gradient(90deg,#17212b_0_1.5px,transparent_1.5px_50px)_bottom_/_100%_13px_no-repeat,var(--tape)]"
	aria-hidden="true"
></div>
<main class="max-w-115 my-8.5 mx-auto pt-0 pb-10 px-4 [&.wide]:max-w-215" class:wide>
	<h1 class="mb-3.5">{title}</h1>
	<div class="panel p-5.5">{@render children()}</div>
</main>
