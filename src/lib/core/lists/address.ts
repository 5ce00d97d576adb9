// A view in an address, and back: whoever has the link sees the same list.
import { readTypedDate } from '../calendar/conversion';
import { isPlainDate } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { parseDecimal, powerOfTen } from '../money/decimal';
import { readTypedNumber } from '../money/typed';
import {
	HOWS,
	type Filter,
	type How,
	type ListField,
	type ListSpec,
	type ListView,
	type ReadListView
} from './types';

/** So much can be asked at once. */
const FILTERS = 20;
const LONGEST = 200;

export const fieldOf = (spec: ListSpec, id: string): ListField | undefined =>
	spec.fields.find((field) => field.id === id);

/** A day from today on, or back: a view of “the last week” stays one. */
const RELATIVE = /^([+-]\d{1,4}|today)$/;

/**
 * What somebody typed as a filter's value, as it stands in an address.
 * @returns null where it is none
 */
export function readFilterValue(
	field: ListField,
	how: How,
	typed: string,
	today: PlainDate
): string | null {
	const text = typed.trim();
	if (how === 'yes' || how === 'no') return '';
	if (text === '' || text.length > LONGEST) return null;
	switch (field.type) {
		case 'text':
			return text;
		case 'day': {
			const relative = text.replaceAll(' ', '').toLowerCase();
			return RELATIVE.test(relative) ? relative : readTypedDate(text, today);
		}
		case 'choice': {
			const chosen = text.split(',').filter((one) => Object.hasOwn(field.choices ?? {}, one));
			return chosen.length ? chosen.join(',') : null;
		}
		case 'money':
		case 'number': {
			const decimals = field.type === 'money' ? 2 : 0;
			const number = readTypedNumber(text, { decimals, negative: true });
			const decimal = number.ok ? parseDecimal(number.text) : null;
			return decimal && String(decimal.units * powerOfTen(decimals - decimal.scale));
		}
		case 'yes':
			return '';
	}
}

/** Of a filter in an address: null where its field, its question or its value is none. */
function readFilter(spec: ListSpec, written: string): Filter | null {
	const [id = '', how = '', ...rest] = written.split('.');
	const field = fieldOf(spec, id);
	if (!field || field.filter === false) return null;
	const hows: readonly string[] = HOWS[field.type];
	if (!hows.includes(how)) return null;
	const value = rest.join('.');
	const fits = {
		text: value.trim() !== '' && value.length <= LONGEST,
		day: RELATIVE.test(value) || isPlainDate(value),
		money: /^-?\d{1,13}$/.test(value),
		number: /^-?\d{1,9}$/.test(value),
		choice:
			value !== '' && value.split(',').every((one) => Object.hasOwn(field.choices ?? {}, one)),
		yes: value === ''
	}[field.type];
	return fits ? { field: id, how: how as How, value } : null;
}

export const writeFilter = ({ field, how, value }: Filter): string =>
	[field, how, ...(value === '' ? [] : [value])].join('.');

/** The view an address asks for. What it does not say is as the list begins. */
export function readView(spec: ListSpec, params: URLSearchParams): ReadListView {
	const named = spec.views.find((view) => view.id === params.get('view')) ?? null;
	const wrong: string[] = [];
	const typed = params.getAll('f').slice(0, FILTERS);
	const filters = typed.flatMap((written) => {
		const filter = readFilter(spec, written);
		if (!filter) wrong.push(written.slice(0, 60));
		return filter ?? [];
	});
	const order = /^(-?)([a-zA-Z]+)$/.exec(params.get('sort') ?? '');
	const sorted = order && fieldOf(spec, order[2]!);
	const columns = [...new Set(params.getAll('c'))].filter((id) => {
		const field = fieldOf(spec, id);
		return field && field.column !== false;
	});
	return {
		search: (params.get('q') ?? '').slice(0, LONGEST),
		filters: [...(named?.filters ?? []), ...filters],
		sort:
			sorted && sorted.sort !== false
				? { field: sorted.id, down: order[1] === '-' }
				: (named?.sort ?? spec.sort),
		columns: columns.length ? columns : spec.columns,
		named: named?.id ?? null,
		wrong
	};
}

/**
 * A view as it stands in an address, without what the list begins with. A view with a name is written out: what is changed
 * of it is no longer that one.
 */
export function writeView(spec: ListSpec, view: ListView): URLSearchParams {
	const params = new URLSearchParams();
	if (view.search) params.set('q', view.search);
	for (const filter of view.filters) params.append('f', writeFilter(filter));
	if (view.sort.field !== spec.sort.field || view.sort.down !== spec.sort.down)
		params.set('sort', `${view.sort.down ? '-' : ''}${view.sort.field}`);
	if (view.columns.join() !== spec.columns.join())
		for (const id of view.columns) params.append('c', id);
	return params;
}

/** The day a filter's value means. */
export const dayMeant = (value: string, today: PlainDate): PlainDate =>
	readTypedDate(value, today) ?? today;
