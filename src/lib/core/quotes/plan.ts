// When a quote that is out is reminded of: so many days after it went out, and before it expires.
import { addDays } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';

export interface QuotePlan {
	/** Days after it went out, and before it expires; each ascending. */
	after: number[];
	before: number[];
}

export interface QuoteStep {
	when: 'after' | 'before';
	days: number;
	/** The day it falls on. */
	on: PlainDate;
}

export const STANDARD_QUOTE_PLAN: QuotePlan = { after: [7], before: [3] };

/** What went out less than so many days ago is not asked about because it expires soon. */
const FRESH_DAYS = 3;

/**
 * The reminder that is due on a day: of several that are, the latest, so that what was missed is not made up for all at once;
 * null where none is.
 */
export function dueStep(
	plan: QuotePlan,
	sentOn: PlainDate,
	validUntil: PlainDate,
	today: PlainDate
): QuoteStep | null {
	if (validUntil < today) return null;
	const steps: QuoteStep[] = [
		...plan.after.map((days) => ({ when: 'after' as const, days, on: addDays(sentOn, days) })),
		...plan.before
			.map((days) => ({ when: 'before' as const, days, on: addDays(validUntil, -days) }))
			.filter(() => addDays(sentOn, FRESH_DAYS) <= today)
	];
	return (
		steps
			.filter(({ on }) => on <= today)
			.sort((a, b) => (a.on < b.on ? 1 : a.on > b.on ? -1 : a.when === 'before' ? -1 : 1))[0] ??
		null
	);
}
