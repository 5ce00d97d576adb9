<!-- Rows of documents: who, which, how much, how settled, how late. -->
<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { daysBetween } from '$lib/core/calendar/queries';
	import { displayAmount, displayPounds } from '$lib/core/money/display';
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
	let { rows, today }: { rows: Row[]; today: string } = $props();
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
	<li class="head" aria-hidden="true">
		<span>Customer</span><span>Number</span><span class="r">Amount, £</span><span>Settled</span
		><span>Days before and after due</span><span>State</span>
	</li>
	{#each rows as row (row.id)}
		{@const state = stateOf(row)}
		<li>
			<a href="/billing/{row.id}">
				<span class="who">{row.customerName || 'No customer yet'}</span>
				<span class="mono number"
					>{row.number ?? '–'}<small>{row.issueDate ? displayDate(row.issueDate) : ''}</small></span
				>
				<span class="r numbers amount"
					>{row.kind === 'creditNote' ? displayAmount(-row.total) : displayAmount(row.total)}</span
				>
				<span class="settled">
					{#if row.outstanding !== null}
						<SettlementBar
							total={row.total}
							cash={row.cash ?? 0}
							withheld={row.withheld ?? 0}
							credited={row.credited ?? 0}
							writtenOff={row.writtenOff ?? 0}
							outstanding={row.outstanding}
						/>
					{/if}
				</span>
				<span class="when">
					{#if row.toPay > 0 && row.dueDate}<SlimRule
							days={daysBetween(row.dueDate, today)}
							size={row.toPay / largest}
						/>{/if}
				</span>
				<span class="state" class:late={state.late}>
					{state.words}
					{#if row.toPay > 0 && row.toPay !== row.total}<small class="numbers"
							>{displayPounds(row.toPay)} to come</small
						>{/if}
					{#if row.mailTrouble}<small class="late trouble"
							><TriangleAlert size={14} aria-hidden="true" /> mail did not arrive</small
						>{/if}
				</span>
			</a>
		</li>
	{/each}
</ul>

<style>
	li a,
	.head {
		display: grid;
		grid-template-columns:
			minmax(160px, 1.6fr) 120px 110px minmax(90px, 150px) minmax(140px, 1fr)
			minmax(130px, 170px);
		gap: 18px;
		align-items: center;
		padding: 9px 16px;
		text-decoration: none;
		min-height: 54px;
	}
	.head {
		min-height: 0;
		color: var(--ink-2);
		font-size: 0.875rem;
		border-bottom: 1.5px solid var(--ink);
		padding-block: 8px;
	}
	li + li {
		border-bottom: 1px solid var(--hair);
	}
	li:last-child {
		border-bottom: 0;
	}
	li a:hover {
		background: var(--tape-tint);
	}
	.who {
		font-weight: 600;
		overflow: hidden;
		text-overflow: ellipsis;
		display: -webkit-box;
		-webkit-line-clamp: 2;
		line-clamp: 2;
		-webkit-box-orient: vertical;
	}
	small {
		display: block;
		color: var(--ink-2);
		font-size: 0.85rem;
		font-family: 'Atkinson Hyperlegible Next Variable', sans-serif;
	}
	.r {
		text-align: right;
	}
	.amount {
		font-weight: 550;
	}
	.trouble {
		display: flex;
		gap: 4px;
		align-items: center;
		color: var(--oxide);
	}
	@media (max-width: 900px) {
		.head {
			display: none;
		}
		li a {
			grid-template-columns: 1fr auto;
			gap: 3px 12px;
			padding: 11px 14px;
		}
		.who {
			grid-column: 1;
		}
		.amount {
			grid-column: 2;
			grid-row: 1;
			font-size: 1.06rem;
		}
		.number {
			grid-column: 1;
			grid-row: 2;
		}
		.number small {
			display: inline;
			margin-left: 8px;
		}
		.state {
			grid-column: 2;
			grid-row: 2;
			text-align: right;
			font-size: 0.906rem;
		}
		.settled {
			grid-column: 1 / 3;
			grid-row: 3;
		}
		.settled:empty {
			display: none;
		}
		.when {
			display: none;
		}
	}
</style>
