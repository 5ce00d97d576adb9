<!--
	A table: rows and columns in the server's HTML, put in order by its heads. On a phone it scrolls in its own frame, or its
	rows are stacked.
-->
<script lang="ts" generics="Row extends RowData">
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import type { RowData } from '@tanstack/svelte-table';
	import type { Component, Snippet } from 'svelte';
	import type { Column, Order } from './table';

	interface Props {
		/** What it lists, for those who do not see it. */
		label: string;
		rows: readonly Row[];
		columns: readonly Column<Row>[];
		id: (row: Row) => string | number;
		/** Said where there is no row. */
		empty?: string;
		/** Rows below the others, such as sums. */
		foot?: Snippet;
		/** A first row that is not one of the list. */
		lead?: Snippet;
		stack?: boolean;
		/** Cells begin at the edge, where the table has no frame of its own. */
		flush?: boolean;
		/** Rows that stand out. */
		marked?: (row: Row) => boolean;
		class?: string;
	}
	let {
		label,
		rows,
		columns,
		id,
		empty = '',
		foot,
		lead,
		stack = false,
		flush = false,
		marked,
		class: look = ''
	}: Props = $props();

	let order = $state<Order | null>(null);
	let ordered = $state.raw<readonly Row[] | null>(null);
	let Life = $state<Component<LifeProps>>();
	interface LifeProps {
		rows: readonly Row[];
		columns: readonly Column<Row>[];
		order: Order | null;
		onorder: (rows: readonly Row[]) => void;
	}
	/** First up, then down, then as the rows came. */
	async function press(id: string) {
		order = order?.id !== id ? { id, desc: false } : order.desc ? null : { id, desc: true };
		Life ??= (await import('./TableLife.svelte')).default as unknown as Component<LifeProps>;
	}
	let shown = $derived(order && ordered ? ordered : rows);
	let space = $derived(flush ? 'py-1.5 pr-2.5 phone:pr-2' : 'py-2 px-3.5 phone:px-2');
	let cellLook = $derived(
		`${space} text-left align-top border-b border-b-(--hair) ${stack ? 'phone:border-0 phone:px-0 phone:py-0.5' : ''}`
	);
	let rowLook = $derived(
		stack
			? `phone:grid phone:grid-cols-2 phone:gap-x-3 phone:border-b phone:border-b-(--hair) phone:py-2.5 ${flush ? '' : 'phone:px-4'}`
			: ''
	);
	const ofColumn = (column: Column<Row>, row: Row) =>
		[
			column.figures
				? `numbers text-right whitespace-nowrap ${stack ? 'phone:text-left' : ''}`
				: '',
			stack
				? column.stacked
					? "phone:before:content-[attr(data-label)'_'] phone:before:text-[0.875rem] phone:before:text-(--ink-2)"
					: 'phone:col-span-full'
				: '',
			stack && column.names ? 'phone:order-first phone:font-[650]' : '',
			column.desk ? 'phone:hidden' : '',
			column.look?.(row) ?? ''
		].join(' ');
</script>

<table class="w-full border-collapse {look}" aria-label={label}>
	<thead class={stack ? 'phone:sr-only' : ''}>
		<tr>
			{#each columns as column (column.id)}
				{@const sorted =
					column.ordered ??
					(order?.id === column.id ? (order.desc ? 'descending' : 'ascending') : undefined)}
				<th
					scope="col"
					class="{space} border-b-[1.5px] border-b-(--ink) text-[0.875rem] font-normal whitespace-nowrap text-(--ink-2) {column.figures
						? 'text-right'
						: 'text-left'} {column.desk ? 'phone:hidden' : ''}"
					aria-sort={sorted}
				>
					{#if column.top}{@render column.top()}{:else if column.order}<a
							class="inline-flex items-center gap-1 no-underline text-inherit hover:underline"
							href={column.order}
							data-sveltekit-keepfocus
							data-sveltekit-noscroll
							>{column.head}{#if sorted === 'ascending'}<ArrowUp
									size={14}
									aria-hidden="true"
								/>{:else if sorted}<ArrowDown size={14} aria-hidden="true" />{/if}</a
						>{:else if column.sort}<button
							type="button"
							class="inline-flex cursor-pointer items-center gap-1 hover:underline"
							onclick={() => press(column.id)}
							>{column.head}{#if sorted === 'ascending'}<ArrowUp
									size={14}
									aria-hidden="true"
								/>{:else if sorted}<ArrowDown size={14} aria-hidden="true" />{/if}</button
						>{:else}<span class={column.quiet ? 'sr-only' : ''}>{column.head}</span>{/if}
				</th>
			{/each}
		</tr>
	</thead>
	<tbody>
		{@render lead?.()}
		{#each shown as row (id(row))}
			<tr class="{rowLook} {marked?.(row) ? 'bg-(--tape-tint)' : ''}">
				{#each columns as column (column.id)}
					<svelte:element
						this={column.names ? 'th' : 'td'}
						scope={column.names ? 'row' : undefined}
						class="{cellLook} {column.names ? 'font-normal' : ''} {ofColumn(column, row)}"
						data-label={column.stacked}
						>{#if column.cell}{@render column.cell(row)}{:else if column.href?.(row)}<a
								href={column.href(row)}>{column.text?.(row)}</a
							>{:else}{column.text?.(row)}{/if}</svelte:element
					>
				{/each}
			</tr>
		{:else}
			{#if empty}<tr><td class={cellLook} colspan={columns.length}>{empty}</td></tr>{/if}
		{/each}
	</tbody>
	{#if foot}<tfoot class={stack ? 'phone:hidden' : ''}>{@render foot()}</tfoot>{/if}
</table>
{#if Life}<Life {rows} {columns} {order} onorder={(now) => (ordered = now)} />{/if}
