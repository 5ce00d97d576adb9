<script lang="ts">
	import Pager from '$lib/ui/parts/Pager.svelte';
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';

	let { data } = $props();
</script>

<svelte:head><title>Card payouts · Money in · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money">Money in</a></p>
	<h1>
		{data.waiting > 0
			? `${displayPounds(data.waiting)} lies with the card processor`
			: 'Everything paid by card has been paid out'}
	</h1>
	<p class="quiet under">
		What was collected, less the fee, comes to your bank in payouts. A line of the bank ticks each
		off.
	</p>
	{#each data.payouts as payout (payout.id)}
		<section class="panel">
			<div class="head">
				<h2>{displayDate(payout.date)}</h2>
				<span class="mono">{payout.reference}</span>
				<span class="tag"
					>{payout.seenOn
						? `at the bank on ${displayDate(payout.seenOn)}`
						: 'not seen at the bank yet'}</span
				>
				<b class="numbers">{displayPounds(payout.amount)}</b>
			</div>
			<table>
				<thead
					><tr
						><th>From</th><th>For</th><th class="r">Collected, £</th><th class="r">Fee, £</th><th
							class="r">Reached the bank, £</th
						></tr
					></thead
				>
				<tbody>
					{#each payout.parts as part, index (index)}
						<tr>
							<td>{part.payer || 'unknown here'}</td>
							<td
								>{#each part.documents as one (one.id)}<a class="mono" href="/billing/{one.id}"
										>{one.number}</a
									>
								{/each}{part.type === 'refund' ? ' given back' : ''}</td
							>
							<td class="r numbers" data-label="Collected">{displayAmount(part.amount)}</td>
							<td class="r numbers" data-label="Fee">{displayAmount(part.fee)}</td>
							<td class="r numbers" data-label="Reached the bank"
								>{displayAmount(part.amount - part.fee)}</td
							>
						</tr>
					{/each}
				</tbody>
				<tfoot
					><tr
						><th scope="row" colspan="2">Together</th><td class="r numbers"
							>{displayAmount(payout.collected)}</td
						><td class="r numbers">{displayAmount(payout.fees)}</td><td class="r numbers"
							>{displayAmount(payout.amount)}</td
						></tr
					></tfoot
				>
			</table>
		</section>
	{:else}
		<div class="panel empty">
			<h2>No payout yet</h2>
			<p>When a customer pays by card, the processor sends it on to your bank a little later.</p>
		</div>
	{/each}
	<Pager before={data.before} after={data.after} />
</div>

<style>
	.under {
		margin-bottom: 14px;
	}
	section {
		padding: 14px 18px;
		margin-bottom: 14px;
		overflow-x: auto;
	}
	.head {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
		align-items: baseline;
		margin-bottom: 8px;
	}
	.head b {
		margin-left: auto;
		font-size: 1.15rem;
	}
	table {
		table-layout: fixed;
		width: 100%;
		border-collapse: collapse;
	}
	th,
	td {
		text-align: left;
		padding: 6px 10px 6px 0;
		border-bottom: 1px solid var(--hair);
	}
	thead th {
		font-weight: 400;
		color: var(--ink-2);
		font-size: 0.906rem;
	}
	tfoot th,
	tfoot td {
		border-bottom: 0;
		font-weight: 650;
	}
	th.r,
	td.r {
		text-align: right;
		white-space: nowrap;
	}
	.empty {
		padding: 24px;
		display: grid;
		gap: 8px;
	}
	@media (max-width: 760px) {
		thead,
		tfoot {
			display: none;
		}
		tbody tr {
			display: grid;
			padding: 6px 0;
			border-bottom: 1px solid var(--hair);
		}
		td {
			border: 0;
			padding: 2px 0;
		}
		td.r {
			display: flex;
			justify-content: space-between;
		}
		td.r::before {
			content: attr(data-label) ', £';
			color: var(--ink-2);
		}
	}
</style>
