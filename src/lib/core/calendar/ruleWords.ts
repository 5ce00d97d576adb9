// How a rule of repeating is said.
import { displayDate } from './conversion';
import type { RepeatRule } from './recurrence';

const WEEKEND = {
	asIs: '',
	nextWorkingDay: 'the next working day where that is a weekend or bank holiday',
	previousWorkingDay: 'the working day before where that is a weekend or bank holiday'
};

/** `Every 3 months from 1 Dec 2026, 4 times in all; the next working day where that is …` */
export function ruleWords({ start, every, unit, end, weekend }: RepeatRule): string {
	const often = every === 1 ? `Every ${unit}` : `Every ${every} ${unit}s`;
	const until =
		'after' in end
			? `, ${end.after === 1 ? 'once' : `${end.after} times`} in all`
			: 'on' in end
				? ` until ${displayDate(end.on)}`
				: '';
	return `${often} from ${displayDate(start)}${until}${WEEKEND[weekend] ? `; ${WEEKEND[weekend]}` : ''}.`;
}
