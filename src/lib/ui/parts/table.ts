import type { Snippet } from 'svelte';

/** A column of a table: what stands at its head, and how a row's cell is written. */
export interface Column<Row> {
	id: string;
	head: string;
	/** In place of the words at its head. */
	top?: Snippet;
	/** The head is said and not shown. */
	quiet?: boolean;
	/** The cell as plain text … */
	text?: (row: Row) => string | number;
	/** … or as more than that. */
	cell?: Snippet<[Row]>;
	/** Where its text leads. */
	href?: (row: Row) => string | null;
	/** Figures: to the right, in figures of one width. */
	figures?: boolean;
	/** Names its row. */
	names?: boolean;
	/** By what the rows are put in order when its head is pressed. */
	sort?: (row: Row) => string | number;
	/** Where the whole list stands in its order, which the server makes; and whether it does now. */
	order?: string;
	ordered?: 'ascending' | 'descending' | null;
	/** Classes of its cells. */
	look?: (row: Row) => string;
	/** What stands before the cell where the rows are stacked on a phone. */
	stacked?: string;
	/** Left out on a phone. */
	desk?: boolean;
}

/** By which column the rows are in order, and whether from the largest down. */
export interface Order {
	id: string;
	desc: boolean;
}
