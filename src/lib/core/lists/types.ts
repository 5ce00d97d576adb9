// A list as data: what can be asked of it, which columns it has, and what somebody chose of that.

export const LIST_NAMES = [
	'invoices',
	'jobs',
	'customers',
	'payments',
	'costs',
	'prices',
	'messages',
	'quotes',
	'enquiries',
	'visits',
	'sheets'
] as const;
export type ListName = (typeof LIST_NAMES)[number];

/** `day`: a date without time. `money`: minor units. `yes`: it is so or not. */
export type FieldType = 'text' | 'day' | 'money' | 'number' | 'choice' | 'yes';

export interface ListField {
	id: string;
	/** In a sentence, as a filter says it: “days late at least 7”. */
	label: string;
	/** At the head of its column; as the label where it is not given. */
	head?: string;
	type: FieldType;
	/** A day that is kept as a moment. */
	moment?: true;
	/** Of a choice: its values and their words. */
	choices?: Readonly<Record<string, string>>;
	/** False: only to filter by. */
	column?: false;
	/** False: only to be seen. */
	filter?: false;
	/** False: no list can be in its order. */
	sort?: false;
	/** Its column adds up. */
	sum?: true;
	/** It names the row. */
	names?: true;
}

/** What a filter may ask, by the type of its field. */
export const HOWS = {
	text: ['has'],
	day: ['from', 'to'],
	money: ['least', 'most'],
	number: ['least', 'most'],
	choice: ['is', 'not'],
	yes: ['yes', 'no']
} as const satisfies Record<FieldType, readonly string[]>;
export type How = (typeof HOWS)[FieldType][number];

export interface Filter {
	field: string;
	how: How;
	/**
	 * As it stands in an address: pence, a day or one from today on (`-7`), choices with commas between, nothing for `yes` and
	 * `no`.
	 */
	value: string;
}

export interface Sort {
	field: string;
	down: boolean;
}

export interface ListView {
	search: string;
	filters: readonly Filter[];
	sort: Sort;
	columns: readonly string[];
}

/** As it was read from an address. */
export interface ReadListView extends ListView {
	/** Of the views with a name, the one that was asked for. */
	named: string | null;
	/** Filters that are none: left out, and said. */
	wrong: string[];
}

export interface NamedView {
	id: string;
	label: string;
	filters: readonly Filter[];
	sort?: Sort;
}

export interface ListSpec {
	name: ListName;
	/** One row, and several. */
	words: [one: string, many: string];
	fields: readonly ListField[];
	/** What is shown until somebody chooses. */
	columns: readonly string[];
	sort: Sort;
	/** Something can be done with many rows of it. */
	actions?: true;
	/** Views that every list of this kind has; the first is all of it. */
	views: readonly NamedView[];
}
