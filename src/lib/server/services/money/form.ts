// What a person types about money that moved, checked the same way everywhere.
import { isPlainDate } from '../../../core/calendar/queries';
import { parseMoney } from '../../../core/money/decimal';
import { explainTypedNumber, readTypedNumber } from '../../../core/money/typed';
import { PAYMENT_WAYS, type PaymentWay } from '../../db/schema';
import type { World } from '../../world';

export type Problems = Record<string, string>;

const MONEY = { decimals: 2, digits: 11 };

/** Pence out of what was typed; a problem at its field where it is no amount. */
export function readAmount(typed: string, field: string, what: string, problems: Problems): number {
	const result = readTypedNumber(typed, MONEY);
	if (result.ok) return Number(parseMoney(result.text) ?? 0n);
	problems[field] = explainTypedNumber(result, what, MONEY);
	return 0;
}

export interface MovedForm {
	/** Names the press of the button. */
	key: string;
	date: string;
	amount: string;
	way: string;
	reference: string;
}

/** Which way the money went, with the words for what is missing. */
const DIRECTIONS = {
	in: {
		what: 'what came in',
		day: 'Give the day it came in.',
		way: 'Choose how it was paid.',
		ways: PAYMENT_WAYS as readonly PaymentWay[]
	},
	back: {
		what: 'what you gave back',
		day: 'Give the day you gave it back.',
		way: 'Choose how you gave it back.',
		// A card payment is given back by the processor alone.
		ways: PAYMENT_WAYS.filter((one) => one !== 'card')
	}
};

/** The caller throws the problems, with its own; `way` is there where there are none. */
export function readMoved(
	world: World,
	form: MovedForm,
	direction: keyof typeof DIRECTIONS
): { problems: Problems; amount: number; way: PaymentWay | undefined } {
	const words = DIRECTIONS[direction];
	const problems: Problems = {};
	const amount = readAmount(form.amount, 'amount', words.what, problems);
	if (amount === 0) problems.amount ??= 'More than nothing, please.';
	if (!isPlainDate(form.date)) problems.date = words.day;
	else if (form.date > world.clock.today()) problems.date = 'That day has not come yet.';
	const way = words.ways.find((one) => one === form.way);
	if (!way) problems.way = words.way;
	if (form.reference.length > 200) problems.reference = 'At most 200 characters.';
	return { problems, amount, way };
}
