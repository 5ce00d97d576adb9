<!-- One payer on the money rule: marks at their place before or after due, their height the amount. -->
<script lang="ts">
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { Habit, OwedItem } from '$lib/core/settlement/owed';
	import { isHeld } from '$lib/core/settlement/owed';
	import { daysInWords, place } from './scale';

	interface Props {
		row: {
			payerId: number;
			payer: string;
			owed: number;
			late: number;
			daysLate: number;
			habit: Habit | null;
			claim: number;
			items: OwedItem[];
		};
		today: string;
		largest: number;
		worst: boolean;
	}
	let { row, today, largest, worst }: Props = $props();
	const HEIGHT = 42;
	let promise = $derived(
		row.items
			.flatMap((item) =>
				item.hold?.kind === 'promise' && isHeld(item, today) ? [item.hold.until!] : []
			)
			.sort()[0]
	);
	let disputed = $derived(row.items.some((item) => item.hold?.kind === 'dispute'));
	let about = $derived(
		[
			`${row.items.length} ${row.items.length === 1 ? 'invoice' : 'invoices'}`,
			row.daysLate > 0
				? daysInWords(row.daysLate)
				: row.habit && row.habit.of > 2
					? row.habit.median > 0
						? `usually ${daysInWords(row.habit.median)}`
						: 'usually in time'
					: ''
		].filter(Boolean)
	);
</script>

<li class:worst>
	<div class="who">
		<a href="/owed/{row.payerId}">{row.payer}</a>
		<span class="quiet" class:late={row.daysLate > 0}>{about.join(' · ')}</span>
	</div>
	<div class="rule">
		<span class="after" style:left="{place(0)}%"></span>
		<span class="due" style:left="{place(0)}%"></span>
		{#each row.items as item (item.documentId)}
			{@const days = daysBetween(item.dueDate, today)}
			<a
				class="mark"
				class:late={days > 0}
				class:held={isHeld(item, today)}
				style:left="{place(days)}%"
				style:height="{Math.max(7, Math.round((HEIGHT * item.toPay) / largest))}px"
				href="/billing/{item.documentId}"
				title="{item.number}: {displayPounds(item.toPay)}, {daysInWords(days)}"
				aria-label="{item.number}: {displayPounds(item.toPay)}, {daysInWords(days)}{isHeld(
					item,
					today
				)
					? ', held'
					: ''}"
			></a>
		{/each}
		<span class="tags">
			{#if disputed}<span class="tag">disputed</span>{/if}
			{#if promise}<span class="tag">promised by {displayDate(promise)}</span>{/if}
			{#if row.claim > 0}<span class="tag">could claim {displayPounds(row.claim)}</span>{/if}
		</span>
	</div>
	<div class="sum numbers">
		<b>{displayAmount(row.owed)}</b>
		{#if row.late > 0 && row.late !== row.owed}<span class="late"
				>{displayAmount(row.late)} late</span
			>{/if}
	</div>
</li>

<style>
	li {
		display: grid;
		grid-template-columns: var(--owed-columns);
		min-height: 58px;
		border-bottom: 1px solid var(--hair);
		background: var(--sheet);
	}
	li.worst {
		background: var(--tape-tint);
	}
	.who {
		padding: 8px 14px;
		min-width: 0;
	}
	.who a {
		font-weight: 600;
		text-decoration: none;
		display: block;
		overflow-wrap: anywhere;
	}
	.who a:hover {
		text-decoration: underline;
	}
	.who .quiet {
		font-size: 0.906rem;
	}
	.rule {
		position: relative;
		overflow: hidden;
	}
	.after {
		position: absolute;
		inset: 0 0 0 auto;
		background: var(--oxide-tint);
	}
	.worst .after {
		background: none;
	}
	.due {
		position: absolute;
		inset: 0 auto 0 auto;
		width: 2px;
		background: var(--ink);
	}
	.mark {
		position: absolute;
		bottom: 0;
		width: 14px;
		transform: translateX(-50%);
		border: 1.5px solid var(--ink);
		border-bottom: 0;
		border-radius: 0;
		background: var(--sheet);
	}
	.mark.late {
		border-color: var(--oxide);
		background: var(--oxide);
	}
	.mark.held {
		background: repeating-linear-gradient(45deg, var(--oxide) 0 2px, var(--sheet) 2px 5px);
	}
	.mark.held:not(.late) {
		background: repeating-linear-gradient(45deg, var(--ink) 0 2px, var(--sheet) 2px 5px);
	}
	.mark:hover,
	.mark:focus-visible {
		outline: 3px solid var(--tape);
		z-index: 3;
	}
	.tags {
		position: absolute;
		top: 8px;
		right: 10px;
		display: flex;
		gap: 6px;
		pointer-events: none;
	}
	.tags .tag {
		background: var(--sheet);
	}
	.sum {
		padding: 8px 14px;
		text-align: right;
	}
	.sum > * {
		display: block;
	}
	.sum .late {
		font-size: 0.875rem;
	}
	@media (max-width: 760px) {
		li {
			grid-template-columns: minmax(0, 1fr) auto;
		}
		.rule {
			grid-column: 1 / -1;
			grid-row: 2;
			height: 46px;
		}
		.tags {
			top: 2px;
			right: 4px;
		}
		.mark {
			width: 16px;
		}
	}
</style>
