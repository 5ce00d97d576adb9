<!-- One payer on the money rule: marks at their place before or after due, their height the amount. -->
<script lang="ts">
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { divideRounded } from '$lib/core/money/decimal';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import type { Habit, OwedItem } from '$lib/core/settlement/owed';
	import { isHeld } from '$lib/core/settlement/owed';
	import { daysInWords, place } from './scale';

	interface Props {
		row: {
			payerId: number;
			payer: string;
			owed: Minor;
			late: Minor;
			daysLate: number;
			habit: Habit | null;
			claim: Minor;
			items: OwedItem[];
		};
		today: string;
		largest: Minor;
		worst: boolean;
	}
	let { row, today, largest, worst }: Props = $props();
	const HEIGHT = 42n;
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

<li
	class="grid grid-cols-(--owed-columns) min-h-14.5 border-b border-b-(--hair) bg-(--sheet) phone:grid-cols-[minmax(0,1fr)_auto] [&.worst]:bg-(--tape-tint)"
	class:worst
>
	<div class="who py-2 px-3.5 min-w-0">
		<a
			class="font-semibold no-underline block wrap-anywhere hover:underline"
			href="/owed/{row.payerId}">{row.payer}</a
		>
		<span class="quiet text-[0.906rem]" class:late={row.daysLate > 0}>{about.join(' · ')}</span>
	</div>
	<div class="rule relative overflow-hidden phone:col-span-full phone:row-start-2 phone:h-11.5">
		<span
			class="after absolute [inset:0_0_0_auto] bg-(--oxide-tint) in-[.worst]:bg-transparent"
			style:left="{place(0)}%"
		></span>
		<span class="due absolute [inset:0_auto_0_auto] w-0.5 bg-(--ink)" style:left="{place(0)}%"
		></span>
		{#each row.items as item (item.documentId)}
			{@const days = daysBetween(item.dueDate, today)}
			<a
				class="absolute bottom-0 w-3.5 [transform:translateX(-50%)] border-[1.5px] border-(--ink) border-b-0 rounded-none bg-(--sheet) phone:w-4 hover:[outline:3px_solid_var(--tape)] hover:z-3 [&.late]:border-(--oxide) [&.late]:bg-(--oxide) [&.held]:[background:repeating-linear-gradient(45deg,var(--oxide)_0_2px,var(--sheet)_2px_5px)] focus-visible:[outline:3px_solid_var(--tape)] focus-visible:z-3 [&.held:not(.late)]:[background:repeating-linear-gradient(45deg,var(--ink)_0_2px,var(--sheet)_2px_5px)]"
				class:late={days > 0}
				class:held={isHeld(item, today)}
				style:left="{place(days)}%"
				style:height="{Math.max(7, Number(divideRounded(HEIGHT * item.toPay, largest)))}px"
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
		<span
			class="absolute top-2 right-2.5 flex gap-1.5 pointer-events-none phone:top-0.5 phone:right-1"
		>
			{#if disputed}<span class="tag bg-(--sheet)">disputed</span>{/if}
			{#if promise}<span class="tag bg-(--sheet)">promised by {displayDate(promise)}</span>{/if}
			{#if row.claim > 0}<span class="tag bg-(--sheet)">could claim {displayPounds(row.claim)}</span
				>{/if}
		</span>
	</div>
	<div class="sum numbers py-2 px-3.5 text-right">
		<b class="block">{displayAmount(row.owed)}</b>
		{#if row.late > 0 && row.late !== row.owed}<span class="late block text-[0.875rem]"
				>{displayAmount(row.late)} late</span
			>{/if}
	</div>
</li>
