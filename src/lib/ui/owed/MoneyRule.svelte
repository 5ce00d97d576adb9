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

<div class="rule" role="img" aria-label="Days before and after due: {words}" style:--depth={depth}>
	<div class="marks" bind:clientWidth={width}>
		{#each rows as mark, index (index)}
			<span
				class="peg {mark.kind}"
				class:late={late && mark.kind === 'today'}
				data-side={mark.side}
				style:left="{mark.left}%"
				style:--row={mark.row}
			>
				<b>{mark.label}</b> <span>{displayDate(mark.date).replace(/ \d{4}$/, '')}</span>
			</span>
		{/each}
		{#if late}
			{@const now = rows.find((mark) => mark.kind === 'today')}
			{#if now}<span class="lateness" style:left="{place(0)}%" style:width="{now.left - place(0)}%"
				></span>{/if}
		{/if}
	</div>
	<div class="tape">
		{#each ticks as day (day)}
			<s class:big={day % big === 0} style:left="{place(day)}%"></s>
			{#if day % big === 0 && day !== 0 && place(day) > 3 && place(day) < 95 && Math.abs(place(day) - place(0)) > 6}<i
					style:left="{place(day)}%">{Math.abs(day)}</i
				>{/if}
		{/each}
		<i class="zero" style:left="{place(0)}%">due</i>
	</div>
</div>

<style>
	.rule {
		position: relative;
	}
	.marks {
		position: relative;
		height: calc(var(--depth) * 25px + 8px);
	}
	.peg {
		position: absolute;
		bottom: 0;
		height: calc((var(--row) + 1) * 25px + 2px);
		border-left: 2px solid var(--ink);
		padding-left: 5px;
		font-size: 0.875rem;
		line-height: 1.2;
		white-space: nowrap;
	}
	.peg[data-side='end'] {
		border-left: 0;
		border-right: 2px solid var(--ink);
		padding: 0 5px 0 0;
		transform: translateX(-100%);
	}
	.peg span {
		color: var(--ink-2);
	}
	.peg.today {
		border-color: var(--ink-2);
		border-style: dashed;
	}
	.peg.late {
		border-color: var(--oxide);
	}
	.peg.late b {
		color: var(--oxide);
	}
	.lateness {
		position: absolute;
		bottom: 0;
		height: 9px;
		color: var(--oxide);
		background: var(--hatch);
		border: 1.5px solid var(--oxide);
		border-bottom: 0;
	}
	.tape {
		position: relative;
		height: 34px;
		background: var(--tape);
		border: 1.5px solid var(--on-tape);
		border-radius: 2px;
		overflow: hidden;
		color: var(--on-tape);
	}
	s {
		position: absolute;
		top: 0;
		width: 1.5px;
		height: 7px;
		background: var(--on-tape);
	}
	s.big {
		height: 12px;
	}
	i {
		position: absolute;
		bottom: 0;
		transform: translateX(-50%);
		font: 650 13px var(--font-mono);
	}
	.zero {
		font-weight: 800;
		background: var(--on-tape);
		color: var(--tape);
		padding: 0 6px;
		bottom: 0;
		height: 100%;
		display: grid;
		place-items: center;
	}
</style>
