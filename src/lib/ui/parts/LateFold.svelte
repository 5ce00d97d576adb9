<!--
	A fold that is made when it is first opened: a page with many of them comes to life sooner. It holds whole forms, or no fields at all: what is not
	there is not posted. Without scripts it stands open; so nothing within it may be for browsers without scripts alone.
-->
<script lang="ts">
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { onMount, tick, type Snippet } from 'svelte';

	let { label, children }: { label: string; children: Snippet } = $props();
	let Life = $state.raw<typeof import('./Fold.svelte').default>();
	let failed = $state(false);
	let place: HTMLElement | undefined = $state();
	const load = () => import('./Fold.svelte');
	// Once the page has come to life and nothing else is to be done, so that a press is answered at once.
	onMount(() => {
		const timer = setTimeout(() => void load().catch(() => undefined), 1500);
		return () => clearTimeout(timer);
	});

	async function open() {
		try {
			Life = (await load()).default;
			await tick();
			place?.querySelector('button')?.focus();
		} catch {
			// Without a line it opens all the same, and does not close again.
			failed = true;
		}
	}
</script>

<div bind:this={place}>
	{#if Life}<Life open {label} {children} />
	{:else}
		<button
			type="button"
			class="flex min-h-9 cursor-pointer items-center gap-1.5 py-1 text-left underline decoration-[var(--dotted)] underline-offset-[3px]"
			aria-expanded={failed}
			onclick={open}>{label}<ChevronDown size={16} aria-hidden="true" /></button
		>
		{#if failed}{@render children()}{:else}<noscript>{@render children()}</noscript>{/if}
	{/if}
</div>
