<!-- A document as a web page: what the customer reads, fit for a phone. -->
<script lang="ts">
	import type { DocumentView } from '$lib/core/documents/viewTypes';

	let { view }: { view: DocumentView } = $props();
</script>

<article class="paper">
	{#if view.banner}<p class="banner">{view.banner}</p>{/if}
	<header>
		<div>
			<h2>{view.seller.name}</h2>
			{#each view.seller.lines as line, index (index)}<div class="quiet">{line}</div>{/each}
		</div>
		<div class="title">
			<div class="kind">{view.title}</div>
			{#if view.number}<div class="mono">{view.number}</div>{/if}
		</div>
	</header>
	<div class="parties">
		<div>
			<div class="quiet">{view.billTo.length ? 'Bill to' : 'To'}</div>
			{#each view.billTo.length ? view.billTo : view.customer as line, index (index)}<div
					class:strong={index === 0}
				>
					{line}
				</div>{/each}
			{#if view.billTo.length}
				<div class="quiet gap">Customer</div>
				{#each view.customer as line, index (index)}<div class:strong={index === 0}>
						{line}
					</div>{/each}
			{/if}
			{#if view.site.length}
				<div class="quiet gap">Work at</div>
				{#each view.site as line, index (index)}<div class:strong={index === 0}>{line}</div>{/each}
			{/if}
		</div>
		<dl>
			{#each view.facts as fact (fact.label)}<div>
					<dt>{fact.label}</dt>
					<dd>{fact.value}</dd>
				</div>{/each}
		</dl>
	</div>
	<table>
		<thead>
			<tr>
				<th>Description</th><th class="r">Quantity</th><th>Unit</th><th class="r">Price, £</th>
				{#if view.columns.discount}<th class="r">Discount, £</th>{/if}
				{#if view.columns.vat}<th class="r">VAT</th>{/if}
				{#if view.columns.withoutVat}<th class="r">Without VAT, £</th>{/if}
				<th class="r">{view.amountHeading}</th>
			</tr>
		</thead>
		{#each view.sections as section, index (index)}
			<tbody>
				{#if section.heading}<tr class="heading"
						><th colspan="8" scope="rowgroup">{section.heading}</th></tr
					>{/if}
				{#each section.rows as row, line (line)}
					<tr>
						<td class="what">{row.description}</td>
						<td class="r numbers" data-label="Quantity">{row.quantity}</td>
						<td data-label="Unit">{row.unit}</td>
						<td class="r numbers" data-label="Price">{row.unitPrice}</td>
						{#if view.columns.discount}<td class="r numbers" data-label="Discount"
								>{row.discount}</td
							>{/if}
						{#if view.columns.vat}<td class="r numbers" data-label="VAT">{row.vat}</td>{/if}
						{#if view.columns.withoutVat}<td class="r numbers" data-label="Without VAT"
								>{row.withoutVat}</td
							>{/if}
						<td class="r numbers sum">{row.amount}</td>
					</tr>
				{/each}
				{#if section.sum}<tr class="sub"
						><td colspan="8" class="r numbers">{section.heading} <b>{section.sum}</b></td></tr
					>{/if}
			</tbody>
		{/each}
	</table>
	<div class="totals numbers">
		{#each view.totals as row (row.label)}<div class:strong={row.strong}>
				<span>{row.label}</span><span>{row.amount}</span>
			</div>{/each}
		{#if view.deduction.length}
			<hr />
			{#each view.deduction as row (row.label)}<div class:strong={row.strong}>
					<span>{row.label}</span><span>{row.amount}</span>
				</div>{/each}
		{/if}
		<div class="payable"><span>{view.payable.label}</span><span>£{view.payable.amount}</span></div>
		{#if view.due}<div class="quiet"><span>due {view.due}</span><span></span></div>{/if}
	</div>
	{#each view.statements as statement (statement)}<p class="quiet statement">{statement}</p>{/each}
	{#if view.note}<p class="note">{view.note}</p>{/if}
</article>

<style>
	.paper {
		background: #fff;
		color: #17212b;
		border: 1px solid var(--hair);
		border-radius: 3px;
		padding: 34px 40px;
		max-width: 900px;
		margin-inline: auto;
	}
	.banner {
		border: 1.5px solid #1f5d57;
		text-align: center;
		font-weight: 650;
		padding: 5px;
		margin-bottom: 18px;
	}
	header,
	.parties {
		display: flex;
		justify-content: space-between;
		gap: 24px;
		margin-bottom: 24px;
	}
	h2,
	.kind {
		font: 650 1.5rem/1.1 var(--font-heading);
	}
	.title {
		text-align: right;
	}
	.kind {
		color: #1f5d57;
	}
	.strong {
		font-weight: 650;
	}
	.gap {
		margin-top: 10px;
	}
	.parties > div {
		overflow-wrap: anywhere;
	}
	dl {
		min-width: 270px;
	}
	dl > div {
		display: flex;
		justify-content: space-between;
		gap: 14px;
	}
	dt {
		color: #4c5864;
	}
	dd {
		text-align: right;
		overflow-wrap: anywhere;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	thead th {
		font-weight: 500;
		font-size: 0.85rem;
		color: #4c5864;
		text-align: left;
		padding: 6px 8px;
		border-bottom: 1.5px solid #17212b;
	}
	td,
	.heading th {
		padding: 7px 8px;
		border-bottom: 1px solid #e2dbcd;
		vertical-align: top;
		text-align: left;
	}
	.heading th {
		font: 650 1.05rem var(--font-heading);
		padding-top: 14px;
	}
	.what {
		white-space: pre-line;
		overflow-wrap: anywhere;
		min-width: 200px;
	}
	th.r,
	td.r {
		text-align: right;
	}
	.totals {
		margin: 16px 8px 0 auto;
		max-width: 400px;
	}
	.totals > div {
		display: flex;
		justify-content: space-between;
		gap: 18px;
		padding: 2px 0;
	}
	hr {
		border: 0;
		border-top: 1px solid #d9d0c0;
		margin: 8px 0;
	}
	.payable {
		font: 700 1.45rem var(--font-heading);
		border-top: 2px solid #1f5d57;
		margin-top: 6px;
		padding-top: 6px !important;
	}
	.statement {
		margin-top: 10px;
		color: #4c5864;
	}
	.note {
		margin-top: 16px;
		white-space: pre-line;
		overflow-wrap: anywhere;
	}
	@media (max-width: 700px) {
		.paper {
			padding: 20px 16px;
		}
		header,
		.parties {
			flex-direction: column;
			gap: 12px;
		}
		.title {
			text-align: left;
		}
		dl {
			min-width: 0;
		}
		thead {
			display: none;
		}
		tbody tr:not(.heading, .sub) {
			display: flex;
			flex-wrap: wrap;
			gap: 0 14px;
			border-bottom: 1px solid #e2dbcd;
			padding: 8px 0;
			position: relative;
		}
		td {
			border: 0;
			padding: 0;
		}
		td.what {
			flex: 1 0 100%;
			padding-right: 96px;
			min-width: 0;
			font-weight: 550;
		}
		td[data-label] {
			color: #4c5864;
			font-size: 0.9rem;
		}
		td[data-label='Price']::before {
			content: '× ';
		}
		td[data-label='VAT']::before {
			content: 'VAT ';
		}
		td[data-label='Discount']:not(:empty)::before {
			content: 'discount ';
		}
		td[data-label='Without VAT']::before {
			content: 'without VAT ';
		}
		td.sum {
			position: absolute;
			right: 0;
			top: 8px;
			font-weight: 550;
		}
		.totals {
			margin-inline: 0;
			max-width: none;
		}
	}
</style>
