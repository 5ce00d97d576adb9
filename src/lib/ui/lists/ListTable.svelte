<!-- The rows of a list: each column by its field, in the order its head asks for; on a phone as cards. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { displayDate, londonDate } from '$lib/core/calendar/conversion';
	import type { ListField, ListSpec, ListView } from '$lib/core/lists/types';
	import { displayAmount } from '$lib/core/money/display';
	import Table from '../parts/Table.svelte';
	import type { Column } from '../parts/table';
	import type { Addresses } from './address';

	type Cell = string | number | null;
	interface Row {
		id: number;
		cells: Record<string, Cell>;
		more: Record<string, Cell>;
	}
	interface Props {
		label: string;
		spec: ListSpec;
		view: ListView;
		rows: readonly Row[];
		to: Addresses;
		/** Where a row leads. */
		href: (row: Row) => string;
		/** Cells that are more than their value, by field. */
		cells?: Record<string, Snippet<[Row]>>;
		/** What all of it comes to, by field; null: not known yet. */
		sums: { count: number; sums: Record<string, number> } | null;
	}
	let { label, spec, view, rows, to, href, cells = {}, sums }: Props = $props();
	let fields = $derived(view.columns.map((id) => spec.fields.find((field) => field.id === id)!));
	const figures = (field: ListField) => field.type === 'money' || field.type === 'number';

	function shown(field: ListField, cell: Cell): string {
		if (cell === null || cell === undefined || cell === '') return '–';
		if (field.type === 'money') return displayAmount(Number(cell));
		if (field.type === 'number') return Number(cell).toLocaleString('en-GB');
		if (field.type === 'yes') return cell ? 'yes' : 'no';
		if (field.type === 'choice') return field.choices?.[String(cell)] ?? String(cell);
		if (field.type !== 'day') return String(cell);
		return displayDate(field.moment ? londonDate(Number(cell)) : String(cell));
	}
	let columns = $derived(
		fields.map((field, index): Column<Row> => {
			const here = view.sort.field === field.id;
			const cell = cells[field.id];
			return {
				id: field.id,
				head: field.head ?? field.label,
				names: field.names ?? false,
				figures: figures(field),
				...(cell ? { cell } : { text: (row: Row) => shown(field, row.cells[field.id] ?? null) }),
				// The first column leads on, whatever it is; so does what names the row.
				...(!cell && (field.names || index === 0) ? { href } : {}),
				...(field.names ? {} : { stacked: `${field.head ?? field.label}:` }),
				...(field.sort === false
					? {}
					: {
							ordered: here ? (view.sort.down ? 'descending' : 'ascending') : null,
							// Figures and days are wanted from the largest down first.
							order: to.ordered(
								field.id,
								here ? !view.sort.down : figures(field) || field.type === 'day'
							)
						})
			};
		})
	);
	let summed = $derived(fields.some((field) => field.sum));
</script>

<div class="panel overflow-x-auto">
	<Table {label} {rows} {columns} id={(row) => row.id} stack>
		{#snippet foot()}
			{#if sums && summed}
				<tr class="font-semibold">
					{#each fields as field, index (field.id)}
						<td class="py-2 px-3.5 {figures(field) ? 'numbers text-right' : ''}"
							>{index === 0
								? `${sums.count.toLocaleString('en-GB')} in all`
								: field.sum
									? displayAmount(sums.sums[field.id] ?? 0)
									: ''}</td
						>
					{/each}
				</tr>
			{/if}
		{/snippet}
	</Table>
</div>
