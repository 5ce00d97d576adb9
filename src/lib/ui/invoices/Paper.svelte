<!-- A document as a web page: what the customer reads, fit for a phone. -->
<script lang="ts">
	import type { DocumentView, ViewColumn, ViewRow } from '$lib/core/documents/viewTypes';

	interface Props {
		view: DocumentView;
		/** Where its logo is fetched; null where it has none. */
		logo?: string | null;
		/** Where a photo of it is fetched, by the number of its file. */
		photo?: (id: number) => string;
	}
	let { view, logo = null, photo }: Props = $props();
	/** Pictures are for paper: on a phone they would push the words away. */
	let columns = $derived(view.columns.filter(({ id }) => id !== 'picture'));
	let place = $derived(view.look.logoPlace);
	const shown = (row: ViewRow, { id }: ViewColumn): string =>
		id === 'picture' ? '' : id === 'price' ? row.unitPrice : row[id];
	/** What a figure is on a phone, where there is no head above it. */
	const LABELS: Partial<Record<ViewColumn['id'], string>> = {
		quantity: 'Quantity',
		unit: 'Unit',
		price: 'Price',
		discount: 'Discount',
		vat: 'VAT',
		withoutVat: 'Without VAT',
		code: 'Code'
	};
</script>

{#snippet mark()}{#if logo && !view.look.preprinted}<img
			src={logo}
			alt=""
			class="mb-2.5 max-h-32 max-w-full object-contain"
			style:width="{view.look.logoWidth}mm"
		/>{/if}{/snippet}

<article
	class="scheme-light bg-[#fff] text-[#17212b] border border-(--hair) rounded-[3px] py-8.5 px-10 max-w-225 mx-auto max-[700px]:py-5 max-[700px]:px-4"
	style:--accent={view.look.accent}
>
	{#if view.banner}<p
			class="banner border-[1.5px] border-(--accent) text-center font-[650] p-1.25 mb-4.5"
		>
			{view.banner}
		</p>{/if}
	{#if place === 'middle'}<div class="flex justify-center">{@render mark()}</div>{/if}
	<header class="flex justify-between gap-6 mb-6 max-[700px]:flex-col max-[700px]:gap-3">
		<div>
			{#if place === 'left'}{@render mark()}{/if}
			<h2 class="[font:650_1.5rem/1.1_var(--font-heading)]">{view.seller.name}</h2>
			{#each view.seller.lines as line, index (index)}<div class="quiet">{line}</div>{/each}
		</div>
		<div class="title text-right max-[700px]:text-left">
			{#if place === 'right'}<div class="flex justify-end max-[700px]:justify-start">
					{@render mark()}
				</div>{/if}
			<div class="kind [font:650_1.5rem/1.1_var(--font-heading)] text-(--accent)">{view.title}</div>
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
	{#each view.above as words, index (index)}<p class="mb-4 whitespace-pre-line wrap-anywhere">
			{words}
		</p>{/each}
	<table>
		<thead>
			<tr>
				{#each columns as column (column.id)}<th class={{ r: column.right }}>{column.title}</th
					>{/each}
			</tr>
		</thead>
		{#each view.sections as section, index (index)}
			<tbody>
				{#if section.heading}<tr class="heading"
						><th colspan={columns.length} scope="rowgroup">{section.heading}</th></tr
					>{/if}
				{#each section.rows as row, line (line)}
					<tr>
						{#each columns as column (column.id)}<td
								class={{
									what: column.id === 'description',
									sum: column.id === 'amount',
									'r numbers': column.right
								}}
								data-label={LABELS[column.id]}>{shown(row, column)}</td
							>{/each}
					</tr>
				{/each}
				{#if section.sum}<tr class="sub"
						><td colspan={columns.length} class="r numbers"
							>{section.heading} <b>{section.sum}</b></td
						></tr
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
		{#if view.payable}<div
				class="payable [font:700_1.45rem_var(--font-heading)] border-t-2 border-t-(--accent) mt-1.5 pt-1.5!"
			>
				<span>{view.payable.label}</span><span>{view.sign}{view.payable.amount}</span>
			</div>{/if}
		{#if view.due}<div class="quiet"><span>due {view.due}</span><span></span></div>{/if}
	</div>
	{#each view.statements as statement (statement)}<p class="quiet mt-2.5 text-[#4c5864]">
			{statement}
		</p>{/each}
	{#if view.note}<p class="note mt-4 whitespace-pre-line wrap-anywhere">{view.note}</p>{/if}
	{#if view.signature}<img
			src={view.signature}
			alt="The signature"
			class="mt-3 max-h-24 max-w-full"
		/>{/if}
	{#if photo && view.photos?.length}<ul
			class="mt-5 grid grid-cols-2 gap-4 max-[700px]:grid-cols-1"
			aria-label="Photos"
		>
			{#each view.photos as { id, caption } (id)}<li>
					<img src={photo(id)} alt={caption ? '' : 'Photo'} class="w-full object-contain" />
					{#if caption}<span class="quiet">{caption}</span>{/if}
				</li>{/each}
		</ul>{/if}
	{#each view.below as words, index (index)}<p
			class="mt-3 whitespace-pre-line wrap-anywhere text-[0.9375rem]"
		>
			{words}
		</p>{/each}
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
		td.what {
			order: -1;
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
