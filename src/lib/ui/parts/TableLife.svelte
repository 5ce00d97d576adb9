<!-- Puts the rows of a table in order. Loaded when somebody first asks for it. -->
<script lang="ts" generics="Row extends RowData">
	import {
		createSortedRowModel,
		createTable,
		rowSortingFeature,
		sortFn_alphanumeric,
		sortFn_basic,
		tableFeatures,
		type RowData
	} from '@tanstack/svelte-table';
	import type { Column, Order } from './table';

	interface Props {
		rows: readonly Row[];
		columns: readonly Column<Row>[];
		order: Order | null;
		onorder: (rows: readonly Row[]) => void;
	}
	let { rows, columns, order, onorder }: Props = $props();

	const features = tableFeatures({
		rowSortingFeature,
		sortedRowModel: createSortedRowModel(),
		sortFns: { basic: sortFn_basic, alphanumeric: sortFn_alphanumeric }
	});
	const table = createTable({
		features,
		get columns() {
			return columns.map((column) => ({
				id: column.id,
				accessorFn: (row: Row) => column.sort?.(row) ?? ''
			}));
		},
		get data() {
			return rows as Row[];
		},
		state: {
			get sorting() {
				return order ? [order] : [];
			}
		}
	});
	$effect(() => onorder(table.getRowModel().rows.map((row) => row.original as Row)));
</script>
