// Fields that many forms share: texts, days, amounts and quantities as people type them, with their messages.
import { z } from 'zod';
import { isPlainDate } from '../../../core/calendar/queries';
import { readTypedTime } from '../../../core/calendar/times';
import {
	explainTypedNumber,
	readTypedNumber,
	type TypedNumberLimits
} from '../../../core/money/typed';
import { FieldError } from '../../../core/refusals';

export const text = (most: number) =>
	z
		.string()
		.trim()
		.max(most, `At most ${most.toLocaleString('en-GB')} characters.`)
		.default('');

export const required = (most: number, message: string) =>
	z
		.string()
		.trim()
		.min(1, message)
		.max(most, `At most ${most.toLocaleString('en-GB')} characters.`);

export const email = text(200).refine(
	(value) => value === '' || z.email().safeParse(value).success,
	'That is no e-mail address.'
);

/** A time of day, or empty, as `09:30`. */
export const timeOfDay = text(10).transform((value, context) => {
	const time = readTypedTime(value);
	if (time !== null) return time;
	context.addIssue({ code: 'custom', message: 'A time such as 09:30.' });
	return z.NEVER;
});

/** A day, or empty. */
export const day = text(40).refine(
	(value) => value === '' || isPlainDate(value),
	'That is no day. Write it as 3 Nov 2026.'
);

/** A number as typed, kept as a plain decimal text; empty stays empty unless `needed`. */
export function typedNumber(what: string, limits: TypedNumberLimits, needed = false) {
	return text(60).transform((value, context) => {
		if (value === '' && !needed) return '';
		const read = readTypedNumber(value, limits);
		if (read.ok) return read.text;
		context.addIssue({ code: 'custom', message: explainTypedNumber(read, what, limits) });
		return z.NEVER;
	});
}

/** A percentage from 0 to `most`, without its sign. */
export function typedPercent(what: string, most = 100) {
	return text(20).transform((value, context) => {
		if (value === '') return '';
		const limits = { decimals: 4 };
		const read = readTypedNumber(value.replace(/%$/, ''), limits);
		if (read.ok && Number(read.text) <= most) return read.text;
		context.addIssue({
			code: 'custom',
			message: read.ok ? `At most ${most} %.` : explainTypedNumber(read, what, limits)
		});
		return z.NEVER;
	});
}

export const labels = z
	.array(z.string().trim().min(1).max(40, 'At most 40 characters for a label.'))
	.max(20, 'At most 20 labels.')
	.default([])
	.transform((given) => [...new Set(given)]);

/** Turns Zod's issues into messages by field. */
export function parseForm<T extends z.ZodType>(schema: T, input: unknown): z.output<T> {
	const result = schema.safeParse(input);
	if (result.success) return result.data;
	const fields: Record<string, string> = {};
	for (const issue of result.error.issues) fields[issue.path.join('.')] ??= issue.message;
	throw new FieldError(fields);
}
