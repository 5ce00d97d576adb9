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

<header><Logo /><span>Axiometer</span></header>
<div class="tape" aria-hidden="true"></div>
<main class:wide>
	<h1>{title}</h1>
	<div class="panel">{@render children()}</div>
</main>

<style>
	header {
		background: var(--strip);
		color: #efe8da;
		font: 700 20px var(--font-heading);
		display: flex;
		gap: 9px;
		align-items: center;
		padding: 14px 20px;
	}
	.tape {
		height: 20px;
		background:
			repeating-linear-gradient(90deg, #17212b 0 1.5px, transparent 1.5px 10px) bottom / 100% 7px
				no-repeat,
			repeating-linear-gradient(90deg, #17212b 0 1.5px, transparent 1.5px 50px) bottom / 100% 13px
				no-repeat,
			var(--tape);
	}
	main {
		max-width: 460px;
		margin: 34px auto;
		padding: 0 16px 40px;
	}
	main.wide {
		max-width: 860px;
	}
	h1 {
		margin-bottom: 14px;
	}
	.panel {
		padding: 22px;
	}
</style>
