<!-- From the least to the most a quote can come to, on a tape; where the present choice stands on it. -->
<script lang="ts">
	import { displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';

	interface Props {
		lowest: Minor;
		highest: Minor;
		now: Minor;
	}
	let { lowest, highest, now }: Props = $props();
	let width = $derived(highest - lowest);
	let at = $derived(
		width <= 0n ? 50 : Math.min(100, Math.max(0, Number(((now - lowest) * 1000n) / width) / 10))
	);
	const whole = (amount: Minor) => displayPounds(amount).replace(/\.00$/, '');
</script>

<div class="grid gap-1.5">
	<span class="sr-only"
		>It can come to {displayPounds(lowest)} at the least and {displayPounds(highest)} at the most.</span
	>
	<div class="relative pt-2.5" aria-hidden="true">
		<div class="tape h-5 border-[1.5px] border-(--on-tape) bg-(--tape)"></div>
		<div class="absolute top-0 h-9 w-[3px] -translate-x-1/2 bg-(--ink)" style:left="{at}%">
			<span
				class="absolute -top-0.5 left-1/2 -translate-x-1/2 border-x-8 border-t-9 border-x-transparent border-t-(--ink)"
			></span>
		</div>
	</div>
	<div class="quiet numbers flex justify-between" aria-hidden="true">
		<span>from {whole(lowest)}</span><span>to {whole(highest)}</span>
	</div>
</div>

<style>
	.tape {
		background-image: repeating-linear-gradient(90deg, var(--on-tape) 0 2px, transparent 2px 5%);
		background-size: 100% 55%;
		background-repeat: no-repeat;
		background-position: bottom;
	}
	@media (forced-colors: active) {
		.tape {
			forced-color-adjust: none;
		}
	}
</style>
