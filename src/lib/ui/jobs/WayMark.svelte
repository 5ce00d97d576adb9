<!-- Where one thing stands on the tape: so many days after the last answer. -->
<script lang="ts">
	import { LONGEST, placeOf, type Turn } from '$lib/core/jobs/way';
	import { counted } from '$lib/core/words';

	let { turn, days }: { turn: Turn; days: number } = $props();
	let at = $derived(placeOf(days));
	let words = $derived(days === 0 ? 'today' : counted(days, 'day'));
	/** Beyond the middle its words stand before it. */
	let before = $derived(at > 62);
</script>

<span
	class="relative block h-full min-h-10 border-x border-(--hair) phone:col-span-full phone:mx-3.5 phone:min-h-7"
	data-turn={turn}
>
	<i class="line absolute top-1/2 left-0 h-[3px] -translate-y-1/2" style:width="{at}%"></i>
	<i
		class="mark absolute top-1/2 block size-3.5 -translate-x-1/2 -translate-y-1/2 border-[1.5px] border-(--ink)"
		class:long={days > LONGEST}
		style:left="max(8px, {at}%)"
	></i>
	<span
		class="numbers absolute top-1/2 -translate-y-1/2 bg-(--sheet) px-1 text-[0.906rem] whitespace-nowrap"
		style:left={before ? undefined : `calc(max(8px, ${at}%) + 12px)`}
		style:right={before ? `calc(${100 - at}% + 12px)` : undefined}
		>{words}<span class="sr-only">: since the last answer</span></span
	>
</span>

<style>
	[data-turn='you'] {
		--of: var(--oxide);
	}
	[data-turn='them'] {
		--of: var(--tape);
	}
	[data-turn='time'] {
		--of: var(--verdigris);
	}
	.line {
		background: repeating-linear-gradient(90deg, var(--of) 0 5px, transparent 5px 8px);
	}
	[data-turn='you'] .line {
		background: var(--of);
	}
	.mark {
		background: var(--of);
	}
	[data-turn='them'] .mark {
		border-radius: 50%;
	}
	[data-turn='time'] .mark {
		rotate: 45deg;
	}
	@media (forced-colors: active) {
		.line {
			background: CanvasText;
		}
	}
</style>
