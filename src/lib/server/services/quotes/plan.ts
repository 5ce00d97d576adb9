// The owner's plan of when quotes are reminded of.
import { z } from 'zod';
import { STANDARD_QUOTE_PLAN, type QuotePlan } from '../../../core/quotes/plan';
import { must } from '../../actor';
import type { Reader } from '../../db/connection';
import { quotePlan } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';

export const loadQuotePlan = (db: Reader): QuotePlan =>
	db.select().from(quotePlan).get()?.steps ?? STANDARD_QUOTE_PLAN;

/** So many reminders of each kind: more are a nuisance. */
const MOST = 4;

/** Days with commas between; empty: none. */
const days = text(40).transform((typed, context) => {
	const given = typed.split(/[,;\s]+/).filter(Boolean);
	const read = [...new Set(given.map(Number))].sort((a, b) => a - b);
	if (read.some((day) => !Number.isInteger(day) || day < 1 || day > 120)) {
		context.addIssue({ code: 'custom', message: 'Whole days from 1 to 120, such as 7, 14.' });
		return z.NEVER;
	}
	if (read.length > MOST) {
		context.addIssue({ code: 'custom', message: `At most ${MOST}.` });
		return z.NEVER;
	}
	return read;
});

/** @throws FieldError */
export function saveQuotePlan(world: World, typed: unknown): void {
	must('bill');
	const steps = parseForm(z.object({ after: days, before: days }), typed);
	world.db
		.insert(quotePlan)
		.values({ id: 1, steps })
		.onConflictDoUpdate({ target: quotePlan.id, set: { steps } })
		.run();
}
