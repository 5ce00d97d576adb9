// A filter in words, as its owner reads it.
import { displayDate } from '../calendar/conversion';
import { displayPounds } from '../money/display';
import { counted } from '../words';
import { fieldOf } from './address';
import type { Filter, How, ListField, ListSpec } from './types';

const SAID: Record<How, string> = {
	has: 'has',
	from: 'from',
	to: 'until',
	least: 'at least',
	most: 'at most',
	is: 'is',
	not: 'is not',
	yes: '',
	no: 'not'
};
export const saidHow = (how: How): string => SAID[how] || 'it is';

function saidValue(field: ListField, value: string): string {
	if (field.type === 'money') return displayPounds(BigInt(value));
	if (field.type === 'number') return Number(value).toLocaleString('en-GB');
	if (field.type === 'choice')
		return value
			.split(',')
			.map((one) => field.choices?.[one] ?? one)
			.join(' or ');
	if (field.type !== 'day') return `“${value}”`;
	if (value === 'today') return value;
	const relative = /^([+-])(\d+)$/.exec(value);
	if (!relative) return displayDate(value);
	const days = counted(Number(relative[2]), 'day');
	return relative[1] === '-' ? `${days} ago` : `${days} from now`;
}

/** `days late at least 7` in two parts: what stands out is its value. */
export function filterWords(spec: ListSpec, { field: id, how, value }: Filter): [string, string] {
	const field = fieldOf(spec, id)!;
	if (field.type === 'yes') return how === 'yes' ? ['', field.label] : ['not', field.label];
	return [`${field.label} ${SAID[how]}`, saidValue(field, value)];
}
