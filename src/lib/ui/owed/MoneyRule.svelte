<!-- The money rule on top of an invoice: issued, seen, due, today, paid, all on one scale of days. -->
<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { daysBetween } from '$lib/core/calendar/queries';

	interface Mark {
		date: string;
		label: string;
		kind: 'event' | 'today' | 'paid';
	}
	interface Props {
		due: string;
		marks: Mark[];
		/** Whether something is still open and late. */
		late: boolean;
	}
	let { due, marks, late }: Props = $props();

	let placed = $derived(marks.map((mark) => ({ ...mark, day: daysBetween(due, mark.date) })));
	let from = $derived(Math.min(-10, ...placed.map((mark) => mark.day)) - 4);
	let to = $derived(Math.max(10, ...placed.map((mark) => mark.day)) + 6);
	let place = $derived((day: number) => (100 * (day - from)) / (to - from));
	let step = $derived([1, 5, 10, 30, 60].find((days) => (to - from) / days <= 40) ?? 120);
	let big = $derived(step * 3);
	let ticks = $derived(
		Array.from(
			{ length: Math.floor(to / step) - Math.ceil(from / step) + 1 },
			(_, index) => (Math.ceil(from / step) + index) * step
		)
	);
	let width = $state(1000);
	/** The share of the rule a label takes, in percent. */
	const labelWidth = (mark: Mark) => (100 * (mark.label.length + 8) * 8.4) / Math.max(width, 200);
	/** Marks whose labels would stand on each other take turns above one another. */
	let rows = $derived.by(() => {
		const taken: { from: number; to: number }[][] = [];
		return [...placed]
			.sort((a, b) => a.day - b.day)
			.map((mark) => {
				const left = place(mark.day);
				const label = labelWidth(mark);
				const side = left + label > 100 ? 'end' : 'start';
				const span =
					side === 'end' ? { from: left - label, to: left } : { from: left, to: left + label };
				let row = taken.findIndex((spans) =>
					spans.every((other) => span.to < other.from || span.from > other.to)
				);
				if (row < 0) row = taken.push([]) - 1;
				taken[row]!.push(span);
				return { ...mark, left, row, side };
			});
	});
	let depth = $derived(Math.max(0, ...rows.map((mark) => mark.row)) + 1);
	let words = $derived(
		[...placed]
			.sort((a, b) => a.day - b.day)
			.map((mark) => `${mark.label} ${displayDate(mark.date)}`)
			.join(', ') + `; due ${displayDate(due)}`
	);
</script>

<div
	class="rule drawn relative"
	role="img"
	aria-label="Days before and after due: {words}"
	style:--depth={depth}
>
	<div class="relative h-[calc(var(--depth)_*_25px_+_8px)]" bind:clientWidth={width}>
		{#each rows as mark, index (index)}
			<span
				class="peg absolute bottom-0 h-[calc((var(--row)_+_1)_*_25px_+_2px)] border-l-2 border-l-(--ink) pl-1.25 text-[0.875rem] leading-[1.2] whitespace-nowrap [&.late]:border-(--oxide) [&.today]:border-(--ink-2) [&.today]:border-dashed [&[data-side='end']]:border-l-0 [&[data-side='end']]:border-r-2 [&[data-side='end']]:border-r-(--ink) [&[data-side='end']]:py-0 [&[data-side='end']]:pr-1.25 [&[data-side='end']]:pl-0 [&[data-side='end']]:[transform:translateX(-100%)] {mark.kind}"
				class:late={late && mark.kind === 'today'}
				data-side={mark.side}
				style:left="{mark.left}%"
				style:--row={mark.row}
			>
				<b class="in-[.late]:text-(--oxide)">{mark.label}</b>
				<span class="text-(--ink-2)">{displayDate(mark.date).replace(/ \d{4}$/, '')}</span>
			</span>
		{/each}
		{#if late}
			{@const now = rows.find((mark) => mark.kind === 'today')}
			{#if now}<span
					class="absolute bottom-0 h-2.25 text-(--oxide) [background:var(--hatch)] border-[1.5px] border-(--oxide) border-b-0"
					style:left="{place(0)}%"
					style:width="{now.left - place(0)}%"
				></span>{/if}
		{/if}
	</div>
	<div
		class="relative h-8.5 bg-(--tape) border-[1.5px] border-(--on-tape) rounded-[2px] overflow-hidden text-(--on-tape)"
	>
		{#each ticks as day (day)}
			<s
				class="absolute top-0 w-[1.5px] h-1.75 bg-(--on-tape) [&.big]:h-3"
				class:big={day % big === 0}
				style:left="{place(day)}%"
			></s>
			{#if day % big === 0 && day !== 0 && place(day) > 3 && place(day) < 95 && Math.abs(place(day) - place(0)) > 6}<i
					class="absolute bottom-0 [transform:translateX(-50%)] [font:650_13px_var(--font-mono)]"
					style:left="{place(day)}%">{Math.abs(day)}</i
				>{/if}
		{/each}
		<i
			class="absolute [transform:translateX(-50%)] font-(family-name:--font-mono) text-[13px] font-[800] bg-(--on-tape) text-(--tape) py-0 px-1.5 bottom-0 h-full grid place-items-center"
			style:left="{place(0)}%">due</i
		>
	</div>
</div>
