// The debt respite scheme: while it runs, an individual's creditors add no interest or fee and ask for nothing.
// Source: Debt Respite Scheme (Breathing Space Moratorium and Mental Health Crisis Moratorium) Regulations 2020 reg. 7, 26.
import { addDays } from '../../calendar/manipulation';
import type { PlainDate } from '../../calendar/types';

/** Days, both included. */
export interface DaySpan {
	from: PlainDate;
	to: PlainDate;
}

const DAYS = 60;

/** The last of the sixty days that begin with the day it starts. */
export const breathingEnd = (from: PlainDate): PlainDate => addDays(from, DAYS - 1);

export const runsOn = (spaces: readonly DaySpan[], day: PlainDate): DaySpan | undefined =>
	spaces.find(({ from, to }) => from <= day && day <= to);
