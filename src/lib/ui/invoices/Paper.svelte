<!-- A document as a web page: what the customer reads, fit for a phone. -->
<script lang="ts">
	import type { DocumentView } from '$lib/core/documents/viewTypes';

	let { view }: { view: DocumentView } = $props();
</script>

<article
	class="scheme-light bg-[#fff] text-[#17212b] border border-(--hair) rounded-[3px] py-8.5 px-10 max-w-225 mx-auto max-[700px]:py-5 max-[700px]:px-4"
>
	{#if view.banner}<p
			class="banner border-[1.5px] border-[#1f5d57] text-center font-[650] p-1.25 mb-4.5"
		>
			{view.banner}
		</p>{/if}
	<header class="flex justify-between gap-6 mb-6 max-[700px]:flex-col max-[700px]:gap-3">
		<div>
			<h2 class="[font:650_1.5rem/1.1_var(--font-heading)]">{view.seller.name}</h2>
			{#each view.seller.lines as line, index (index)}<div class="quiet">{line}</div>{/each}
		</div>
		<div class="title text-right max-[700px]:text-left">
			<div class="kind [font:650_1.5rem/1.1_var(--font-heading)] text-[#1f5d57]">{view.title}</div>
			{#if view.number}<div class="mono">{view.number}</div>{/if}
		</div>
	</header>
	<div class="flex justify-between gap-6 mb-6 max-[700px]:flex-col max-[700px]:gap-3">
		<div class="wrap-anywhere">
			<div class="quiet">{view.billTo.length ? 'Bill to' : 'To'}</div>
			{#each view.billTo.length ? view.billTo : view.customer as line, index (index)}<div
					class="[&.strong]:font-[650]"
					class:strong={index === 0}
				>
					{line}
				</div>{/each}
			{#if view.billTo.length}
				<div class="quiet mt-2.5">Customer</div>
				{#each view.customer as line, index (index)}<div
						class="[&.strong]:font-[650]"
						class:strong={index === 0}
					>
						{line}
					</div>{/each}
			{/if}
			{#if view.site.length}
				<div class="quiet mt-2.5">Work at</div>
				{#each view.site as line, index (index)}<div
						class="[&.strong]:font-[650]"
						class:strong={index === 0}
					>
						{line}
					</div>{/each}
			{/if}
		</div>
		<dl class="min-w-67.5 max-[700px]:min-w-0">
			{#each view.facts as fact (fact.label)}<div class="flex justify-between gap-3.5">
					<dt class="text-[#4c5864]">{fact.label}</dt>
					<dd class="text-right wrap-anywhere">{fact.value}</dd>
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
	<div
		class="totals numbers mt-4 mb-0 mr-2 ml-auto max-w-100 [&>div]:flex [&>div]:justify-between [&>div]:gap-4.5 [&>div]:py-0.5 [&>div]:px-0 max-[700px]:mx-0 max-[700px]:max-w-none"
	>
		{#each view.totals as row (row.label)}<div
				class="[&.strong]:font-[650]"
				class:strong={row.strong}
			>
				<span>{row.label}</span><span>{row.amount}</span>
			</div>{/each}
		{#if view.deduction.length}
			<hr class="border-0 border-t border-t-[#d9d0c0] my-2 mx-0" />
			{#each view.deduction as row (row.label)}<div
					class="[&.strong]:font-[650]"
					class:strong={row.strong}
				>
					<span>{row.label}</span><span>{row.amount}</span>
				</div>{/each}
		{/if}
		<div
			class="payable [font:700_1.45rem_var(--font-heading)] border-t-2 border-t-[#1f5d57] mt-1.5 pt-1.5!"
		>
			<span>{view.payable.label}</span><span>£{view.payable.amount}</span>
		</div>
		{#if view.due}<div class="quiet"><span>due {view.due}</span><span></span></div>{/if}
	</div>
	{#each view.statements as statement (statement)}<p class="quiet mt-2.5 text-[#4c5864]">
			{statement}
		</p>{/each}
	{#if view.note}<p class="note mt-4 whitespace-pre-line wrap-anywhere">{view.note}</p>{/if}
</article>

<style>
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
	@media (max-width: 700px) {
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
	}
</style>
