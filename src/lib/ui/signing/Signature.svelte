<!-- A signature, drawn with a finger; or the typed name stands for it. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import type SignaturePad from 'signature_pad';

	let { value = $bindable(''), error }: { value: string; error?: string | undefined } = $props();
	let canvas = $state<HTMLCanvasElement>();
	let typed = $state(false);
	let pad: SignaturePad | undefined;

	onMount(() => {
		let ended = false;
		void import('signature_pad').then(({ default: Pad }) => {
			if (ended || !canvas) return;
			// So many dots as the screen has: sharp on paper too.
			const ratio = Math.min(2, Math.max(1, window.devicePixelRatio));
			canvas.width = canvas.offsetWidth * ratio;
			canvas.height = canvas.offsetHeight * ratio;
			canvas.getContext('2d')!.scale(ratio, ratio);
			pad = new Pad(canvas, { penColor: '#17212b' });
			pad.addEventListener('endStroke', () => (value = pad!.toDataURL('image/png')));
		});
		return () => {
			ended = true;
			pad?.off();
		};
	});
	function clear() {
		pad?.clear();
		value = '';
	}
</script>

<div class="grid gap-1.5">
	<div class="flex items-center justify-between gap-3">
		<span class="name mb-0"
			>{typed ? 'Your name above stands for your signature' : 'Sign here'}</span
		>
		<span class="flex gap-3">
			{#if value && !typed}<button type="button" class="button plain" onclick={clear}>Clear</button
				>{/if}
			<button
				type="button"
				class="button plain"
				aria-pressed={typed}
				onclick={() => {
					typed = !typed;
					if (typed) clear();
				}}>{typed ? 'draw it instead' : 'type it instead'}</button
			>
		</span>
	</div>
	<canvas
		bind:this={canvas}
		class="h-32 w-full touch-none border border-dashed border-(--dotted) bg-[#fff]"
		class:hidden={typed}
		aria-label="Your signature, drawn"
	></canvas>
	{#if error}<span class="wrong">{error}</span>{/if}
</div>
