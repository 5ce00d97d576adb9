<!-- One payer on the money rule: marks at their place before or after due, their height the amount. -->
<script lang="ts">
	import { goto } from '$app/navigation';
	import { displayDate } from '$lib/core/calendar/conversion';
	import type { Currency } from '$lib/core/money/currencies';
	import { displayAmount, displayMoney, displayPounds } from '$lib/core/money/display';
	import type { Minor } from '$lib/core/money/types';
	import type { Habit, OwedItem } from '$lib/core/settlement/owed';
	import { isHeld } from '$lib/core/settlement/owed';
	import { columnsOf, daysInWords, GUTTER, heightOf, place, type Column } from './scale';

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
		/** Up to which amount marks grow. */
		cap: Minor;
		worst: boolean;
	}
	let { row, today, cap, worst }: Props = $props();
	/** Pixels. */
	const HEIGHT = 42;
	let columns = $derived(columnsOf(row.items, today));
	const inWords = (item: Column['items'][number]) =>
		`${item.number}: ${item.own ? `${displayMoney(item.own.amount, item.own.currency)}, about ` : ''}${displayPounds(item.toPay)}, ${daysInWords(item.days)}${item.held ? ', held' : ''}`;

	/** A mark leads to its invoice, for whoever has a pointer; without one the payer's page has them all. */
	function open(event: MouseEvent) {
		const id = (event.target as HTMLElement).dataset.invoice;
		if (id) void goto(`/billing/${id}`);
	}
	let promise = $derived(
		row.items
			.flatMap((item) =>
				item.hold?.kind === 'promise' && isHeld(item, today) ? [item.hold.until!] : []
			)
			.sort()[0]
	);
	let disputed = $derived(row.items.some((item) => item.hold?.kind === 'dispute'));
	/** What of it is in other money, a sum for each. */
	let abroad = $derived.by(() => {
		const sums: Partial<Record<Currency, Minor>> = {};
		for (const { own } of row.items)
			if (own) sums[own.currency] = (sums[own.currency] ?? 0n) + own.amount;
		return Object.entries(sums).map(([currency, sum]) => displayMoney(sum, currency as Currency));
	});
	let about = $derived(
		[
			`${row.items.length} ${row.items.length === 1 ? 'invoice' : 'invoices'}`,
			...(abroad.length ? [`${abroad.join(' and ')} at the rate`] : []),
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
	<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
	<div
		class="rule drawn relative overflow-hidden phone:col-span-full phone:row-start-2 phone:h-11.5"
		onclick={open}
	>
		<span
			class="after absolute [inset:0_0_0_auto] bg-(--oxide-tint) in-[.worst]:bg-transparent"
			style:left="{place(0)}%"
		></span>
		<span
			class="absolute inset-y-0 border-l border-l-(--hair) border-dashed"
			style:left="{100 - GUTTER.after}%"
		></span>
		<span class="due absolute [inset:0_auto_0_auto] w-0.5 bg-(--ink)" style:left="{place(0)}%"
		></span>
		{#each columns as column (column.at)}
			{@const height = Math.max(7, HEIGHT * heightOf(column.sum, cap))}
			<span
				class="absolute bottom-0 flex flex-col-reverse w-3.5 [transform:translateX(-50%)] phone:w-4 hover:[outline:3px_solid_var(--tape)] hover:z-3 [&.cut]:border-t-3 [&.cut]:border-t-(--ink) [&.cut]:border-dotted"
				class:cut={column.sum > cap}
				style:left="{column.at}%"
				style:height="{height}px"
			>
				{#each column.items as item (item.documentId)}
					<i
						class="block cursor-pointer border-[1.5px] border-(--ink) not-last:border-t-0 first:border-b-0 bg-(--sheet) min-h-0.5 [&.late]:border-(--oxide) [&.late]:bg-(--oxide) [&.late]:not-first:border-b-(--sheet) [&.held]:[background:repeating-linear-gradient(45deg,var(--oxide)_0_2px,var(--sheet)_2px_5px)] [&.held:not(.late)]:[background:repeating-linear-gradient(45deg,var(--ink)_0_2px,var(--sheet)_2px_5px)]"
						class:late={column.late}
						class:held={item.held}
						style:flex="{Number(item.toPay)} 1 0"
						data-invoice={item.documentId}
						title={inWords(item)}
					></i>
				{/each}
			</span>
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
