<!-- Rows of documents: who, which, how much, how settled, how late. -->
<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { daysBetween } from '$lib/core/calendar/queries';
	import type { Currency } from '$lib/core/money/currencies';
	import { displayAmount, displayMoney } from '$lib/core/money/display';
	import SettlementBar from '../money/SettlementBar.svelte';
	import SlimRule from '../owed/SlimRule.svelte';

	interface Row {
		id: number;
		kind: 'invoice' | 'creditNote';
		state: string;
		number: string | null;
		customerName: string;
		issueDate: string | null;
		dueDate: string | null;
		total: number;
		currency: Currency;
		cash: number | null;
		withheld: number | null;
		credited: number | null;
		writtenOff: number | null;
		outstanding: number | null;
		settlement: 'open' | 'partPaid' | 'paid' | 'credited' | 'writtenOff' | null;
		settledOn: string | null;
		toPay: number;
		mailTrouble: boolean;
	}
	interface Props {
		rows: Row[];
		today: string;
		/** All of one customer, whose name need not be said. */
		ofOne?: boolean;
	}
	let { rows, today, ofOne = false }: Props = $props();
	let columns = $derived(
		ofOne
			? 'grid-cols-[110px_100px_minmax(90px,130px)_minmax(120px,1fr)_minmax(120px,150px)] gap-4'
			: 'grid-cols-[minmax(160px,1.6fr)_120px_110px_minmax(90px,150px)_minmax(140px,1fr)_minmax(130px,170px)] gap-4.5'
	);
	let largest = $derived(Math.max(1, ...rows.map((row) => row.toPay)));

	function stateOf(row: Row): { words: string; late: boolean } {
		if (row.state === 'draft') return { words: 'draft', late: false };
		if (row.kind === 'creditNote') return { words: 'credit note', late: false };
		const days = row.dueDate ? daysBetween(row.dueDate, today) : 0;
		if (row.settlement === 'paid')
			return { words: row.settledOn ? `paid ${displayDate(row.settledOn)}` : 'paid', late: false };
		if (row.settlement === 'writtenOff') return { words: 'written off', late: false };
		if (row.settlement === 'credited') return { words: 'credited', late: false };
		const part = row.settlement === 'partPaid' ? 'part paid, ' : '';
		if (days > 0)
			return { words: `${part}${days} ${days === 1 ? 'day' : 'days'} late`, late: true };
		return { words: `${part}due ${displayDate(row.dueDate!)}`, late: false };
	}
</script>

<ul class="panel" aria-label="Invoices, amounts in pounds">
	<li
		class="grid {columns} items-center px-4 py-2 text-(--ink-2) text-[0.875rem] border-b-[1.5px] border-b-(--ink) last:border-b-0 max-[900px]:hidden"
		aria-hidden="true"
	>
		{#if !ofOne}<span>Customer</span>{/if}<span>Number</span><span class="text-right"
			>Amount, £</span
		><span>Settled</span><span>Days before and after due</span><span>State</span>
	</li>
	{#each rows as row (row.id)}
		{@const state = stateOf(row)}
		<li class="border-b border-b-(--hair) last:border-b-0">
			<a
				class="grid {columns} items-center py-2.25 px-4 no-underline min-h-13.5 hover:bg-(--tape-tint) max-[900px]:grid-cols-[1fr_auto] max-[900px]:gap-y-0.75 max-[900px]:gap-x-3 max-[900px]:py-2.75 max-[900px]:px-3.5"
				href="/billing/{row.id}"
			>
				{#if !ofOne}<span class="line-clamp-2 font-semibold max-[900px]:col-start-1"
						>{row.customerName || 'No customer yet'}</span
					>{/if}
				<span
					class="mono number max-[900px]:col-start-1 {ofOne
						? 'max-[900px]:row-start-1'
						: 'max-[900px]:row-start-2'}"
					>{row.number ?? '–'}<small
						class="block text-(--ink-2) text-[0.85rem] [font-family:'Atkinson_Hyperlegible_Next_Variable',sans-serif] max-[900px]:inline max-[900px]:ml-2"
						>{row.issueDate ? displayDate(row.issueDate) : ''}</small
					></span
				>
				<span
					class="numbers amount text-right font-[550] max-[900px]:col-start-2 max-[900px]:row-start-1 max-[900px]:text-[1.06rem]"
					>{row.currency === 'GBP'
						? displayAmount(row.kind === 'creditNote' ? -row.total : row.total)
						: displayMoney(row.kind === 'creditNote' ? -row.total : row.total, row.currency)}</span
				>
				<span
					class="settled max-[900px]:col-[1_/_3] max-[900px]:row-start-3 max-[900px]:empty:hidden"
				>
					{#if row.outstanding !== null}
						<SettlementBar
							total={BigInt(row.total)}
							cash={BigInt(row.cash ?? 0)}
							withheld={BigInt(row.withheld ?? 0)}
							credited={BigInt(row.credited ?? 0)}
							writtenOff={BigInt(row.writtenOff ?? 0)}
							outstanding={BigInt(row.outstanding)}
							currency={row.currency}
						/>
					{/if}
				</span>
				<span class="max-[900px]:hidden">
					{#if row.toPay > 0 && row.dueDate}<SlimRule
							days={daysBetween(row.dueDate, today)}
							size={Math.sqrt(row.toPay / largest)}
						/>{/if}
				</span>
				<span
					class="state max-[900px]:col-start-2 max-[900px]:row-start-2 max-[900px]:text-right max-[900px]:text-[0.906rem]"
					class:late={state.late}
				>
					{state.words}
					{#if row.toPay > 0 && row.toPay !== row.total}<small
							class="numbers block text-(--ink-2) text-[0.85rem] [font-family:'Atkinson_Hyperlegible_Next_Variable',sans-serif]"
							>{displayMoney(row.toPay, row.currency)} to come</small
						>{/if}
					{#if row.mailTrouble}<small
							class="late text-[0.85rem] [font-family:'Atkinson_Hyperlegible_Next_Variable',sans-serif] flex gap-1 items-center text-(--oxide)"
							><TriangleAlert size={14} aria-hidden="true" /> e-mail did not arrive</small
						>{/if}
				</span>
			</a>
		</li>
	{/each}
</ul>
