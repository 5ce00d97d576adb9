// A line as it was typed goes onto the price list, in passing.
import { readTypedNumber } from '$lib/core/money/typed';
import type { SheetLine } from '$lib/core/sheet/types';
import { notices } from '../parts/notices.svelte';

const plain = (typed: string) => {
	const read = readTypedNumber(typed, { decimals: 4 });
	return read.ok ? read.text : '';
};

/** Says how it went. @returns the entry it became; nothing where it did not */
export async function keepOnList(line: SheetLine, withVat: boolean): Promise<number | undefined> {
	const [name = '', ...rest] = line.description.trim().split('\n');
	const response = await fetch('/work/prices/api', {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({
			name: name.slice(0, 200),
			text: rest.length ? line.description.trim().slice(0, 2000) : '',
			kind: line.kind,
			unit: line.unit.trim(),
			unitPrice: plain(line.unitPrice),
			withVat,
			// The line's cost is for its whole quantity: on the list stands what one costs.
			cost: plain(line.quantity) === '1' ? plain(line.cost) : '',
			vat: line.vat,
			vatReason: line.vatReason
		})
	}).catch(() => null);
	const answer = await response?.json().catch(() => null);
	if (!response?.ok) {
		notices.say(answer?.message ?? 'It could not be kept just now.');
		return undefined;
	}
	notices.say(`“${name.slice(0, 40)}” is on the price list now.`);
	return answer.id;
}
