<script lang="ts">
	import { displayDate } from '$lib/core/calendar/conversion';
	import { displayAmount, displayPounds } from '$lib/core/money/display';

	let { data } = $props();
	let sum = $derived(data.rows.reduce((total, row) => total + row.amount, 0));
</script>

<svelte:head><title>{data.title} · Axiometer</title></svelte:head>
<div class="page">
	<p class="quiet"><a href="/money/charts">Charts</a></p>
	<h1>{data.title}{data.inDays ? '' : `: ${displayPounds(sum)}`}</h1>
	{#if data.rows.length}
		<div class="panel scroll">
			<table>
				<thead
					><tr
						><th>Document</th><th>Customer</th><th>Day</th><th class="r"
							>{data.inDays ? 'Days after due' : 'Amount, £'}</th
						></tr
					></thead
				>
				<tbody>
					{#each data.rows as row, index (index)}
						<tr>
							<td
								>{#if row.documentId}<a class="mono" href="/billing/{row.documentId}"
										>{row.number}</a
									>{:else}several, or none yet{/if}</td
							>
							<td>{row.customer}</td>
							<td>{displayDate(row.date)}</td>
							<td class="r numbers">{data.inDays ? row.amount : displayAmount(row.amount)}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	{:else}<p class="panel none">Nothing stands behind it.</p>{/if}
</div>

<style>
	h1 {
		margin-bottom: 14px;
	}
	.scroll {
		overflow-x: auto;
	}
	.none {
		padding: 18px;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th,
	td {
		text-align: left;
		padding: 8px 16px;
		border-bottom: 1px solid var(--hair);
	}
	thead th {
		font-weight: 400;
		color: var(--ink-2);
	}
	th.r,
	td.r {
		text-align: right;
		white-space: nowrap;
	}
	@media (max-width: 600px) {
		th,
		td {
			padding: 8px 8px;
		}
	}
</style>
