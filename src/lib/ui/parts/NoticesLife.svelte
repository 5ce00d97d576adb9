<!-- Where notices stand: above the thumbs on a phone. -->
<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import { Toast } from '@skeletonlabs/skeleton-svelte';
	import { toaster } from './toaster';
</script>

<Toast.Group {toaster} class="max-[760px]:mb-[70px]">
	{#snippet children(toast)}
		<Toast
			{toast}
			class="z-[var(--z-index)] flex h-[var(--height)] [scale:var(--scale)] [translate:var(--x)_var(--y)] opacity-[var(--opacity)] max-w-[calc(100vw-24px)] items-center gap-3.5 rounded-[3px] border-l-[6px] border-[var(--tape)] bg-[var(--strip)] px-3 py-2.5 text-white"
		>
			<Toast.Title>{toast.title}</Toast.Title>
			{#if toast.action}
				<Toast.ActionTrigger
					class="min-h-7 cursor-pointer font-semibold text-[var(--tape)] underline underline-offset-[3px]"
					>{toast.action.label}</Toast.ActionTrigger
				>
			{/if}
			<Toast.CloseTrigger
				class="grid min-h-7 min-w-7 cursor-pointer place-items-center"
				aria-label="Dismiss"><X size={18} aria-hidden="true" /></Toast.CloseTrigger
			>
		</Toast>
	{/snippet}
</Toast.Group>
