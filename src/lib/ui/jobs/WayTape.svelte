<!-- The tape of the way: days since the last answer, the first ones with more room. -->
<script lang="ts">
	import { GUTTER, LONGEST, placeOf } from '$lib/core/jobs/way';

	const LABELS = [1, 3, 7, 14, 30, 60];
	const ticks = [0, 1, 2, 3, 4, 5, 6, 7, 10, 14, 21, 30, 40, 50, 60];
</script>

<div
	class="drawn relative h-10 overflow-hidden border border-(--on-tape) bg-(--tape) text-(--on-tape) [border-radius:2px_2px_0_0]"
	aria-hidden="true"
>
	{#each ticks as day (day)}<i
			class="absolute bottom-0 h-2 w-[1.5px] [background:currentColor] [&.long]:h-3.75 [&.long]:w-0.5"
			class:long={LABELS.includes(day)}
			style:left="{placeOf(day)}%"
		></i>{/each}
	<i class="absolute inset-y-0 border-l-[1.5px] border-l-(--on-tape)" style:left="{100 - GUTTER}%"
	></i>
	<b class="absolute top-0.75 left-1.5 [font:700_0.8rem_var(--font-mono)]">today</b>
	{#each LABELS.slice(1) as day (day)}<b
			class="absolute top-0.75 [transform:translateX(-50%)] [font:700_0.8rem_var(--font-mono)] [&.few]:phone:hidden"
			class:few={day === 3}
			style:left="{day === LONGEST ? placeOf(day) - 3 : placeOf(day)}%">{day}</b
		>{/each}
	<b
		class="absolute top-0.75 [transform:translateX(-50%)] [font:700_0.8rem_var(--font-mono)]"
		style:left="{100 - GUTTER / 2}%">{LONGEST}+</b
	>
</div>
