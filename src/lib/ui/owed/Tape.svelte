<!-- The money rule itself: a tape in days, zero is the due day. -->
<script lang="ts">
	import { FROM, place, TO } from './scale';

	const LABELS: [number, string][] = [
		[-45, '45 days left'],
		[-30, '30'],
		[-15, '15'],
		[0, 'due'],
		[15, '15'],
		[30, '30'],
		[60, '60'],
		[90, '90 days late']
	];
	const ticks = Array.from({ length: (TO - FROM) / 5 + 1 }, (_, n) => FROM + n * 5);
</script>

<div
	class="relative h-10 bg-(--tape) text-(--on-tape) border border-(--on-tape) [border-radius:2px_2px_0_0] overflow-hidden"
	aria-hidden="true"
>
	{#each ticks as day (day)}<i
			class="absolute bottom-0 w-[1.5px] h-2 [background:currentColor] [&.long]:h-3.75 [&.long]:w-0.5"
			class:long={day % 15 === 0}
			style:left="{place(day)}%"
		></i>{/each}
	{#each LABELS as [day, words] (day)}<b
			class="absolute top-0.75 [transform:translateX(-50%)] [font:700_0.8rem_var(--font-mono)] whitespace-nowrap phone:[&.few]:hidden phone:[&.side]:hidden"
			class:side={day === -45 || day === 90}
			class:few={day === -15 || day === 15}
			style:left="{place(day)}%"><span>{words}</span></b
		>{/each}
</div>
