<!-- The money rule itself: a tape in days, zero is the due day. -->
<script lang="ts">
	import { FROM, GUTTER, place, TO } from './scale';

	const LABELS: [number, string][] = [
		[-45, '45 left'],
		[-30, '30'],
		[-15, '15'],
		[0, 'due'],
		[15, '15'],
		[30, '30'],
		[60, '60'],
		[TO + 1, 'over 90']
	];
	const ticks = Array.from({ length: (TO - FROM) / 5 + 1 }, (_, n) => FROM + n * 5);
</script>

<div
	class="drawn relative h-10 bg-(--tape) text-(--on-tape) border border-(--on-tape) [border-radius:2px_2px_0_0] overflow-hidden"
	aria-hidden="true"
>
	{#each ticks as day (day)}<i
			class="absolute bottom-0 w-[1.5px] h-2 [background:currentColor] [&.long]:h-3.75 [&.long]:w-0.5"
			class:long={day % 15 === 0}
			style:left="{place(day)}%"
		></i>{/each}
	<i
		class="absolute inset-y-0 border-l-[1.5px] border-l-(--on-tape)"
		style:left="{100 - GUTTER.after}%"
	></i>
	{#each LABELS as [day, words] (day)}<b
			class="absolute top-0.75 [transform:translateX(-50%)] [font:700_0.8rem_var(--font-mono)] whitespace-nowrap phone:[&.few]:hidden"
			class:few={[-45, -15, 15].includes(day)}
			style:left="{place(day)}%"
			><span class={day > TO ? 'phone:hidden' : ''}>{words}</span>{#if day > TO}<span
					class="hidden phone:inline">90+</span
				>{/if}</b
		>{/each}
</div>
