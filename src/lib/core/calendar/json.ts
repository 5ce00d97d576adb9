// The JSON form of a repetition, in and out.
import { z } from 'zod';
import { plainDate } from '../figures/forms';
import { parseOrThrow } from '../figures/input';
import {
	occurrences,
	REPEAT_UNITS,
	WEEKEND_RULES,
	type RepeatEnd,
	type RepeatRule
} from './recurrence';

const count = z
	.unknown()
	.refine(
		(value) => typeof value === 'number' && Number.isInteger(value) && value >= 1,
		'expected a whole number of at least 1'
	)
	.transform((value) => value as number);

const end = z
	.strictObject({
		never: z.literal(true, 'expected true').nullish(),
		after: count.nullish(),
		on: plainDate.nullish()
	})
	.transform((given, context): RepeatEnd => {
		const ways: RepeatEnd[] = [];
		if (given.never != null) ways.push({ never: true });
		if (given.after != null) ways.push({ after: given.after });
		if (given.on != null) ways.push({ on: given.on });
		if (ways.length === 1) return ways[0]!;
		context.addIssue({ code: 'custom', message: 'expected exactly one of never, after and on' });
		return z.NEVER;
	});

const datesInput = z.strictObject({
	start: plainDate,
	every: count,
	unit: z.enum(REPEAT_UNITS),
	end,
	weekend: z
		.enum(WEEKEND_RULES)
		.nullish()
		.transform((value) => value ?? 'asIs'),
	from: plainDate,
	to: plainDate
});

export interface DatesInput {
	rule: RepeatRule;
	from: string;
	to: string;
}

/** @throws FiguresError with the path of the first thing that is wrong. */
export function readDatesInput(value: unknown): DatesInput {
	const { from, to, ...rule } = parseOrThrow(datesInput, value);
	return { rule, from, to };
}

export function writeDates({ rule, from, to }: DatesInput): { dates: string[] } {
	return { dates: Array.from(occurrences(rule, from, to), (one) => one.date) };
}
