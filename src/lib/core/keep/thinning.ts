// Which backups stay: close together lately, far apart long ago.
import { mondayOf } from '../calendar/manipulation';
import type { BackupName } from './names';

/** The newest of each of so many days, weeks and months that have any. */
const KEPT = { days: 7, weeks: 5, months: 12 } as const;

/**
 * Those that can go. The newest of the last seven days, five weeks and twelve months *that have a backup* stay, so that a machine that was off for long
 * loses none; and the newest before an update, until the next update.
 */
export function thinned<T extends Pick<BackupName, 'madeAt' | 'day' | 'why'>>(
	all: readonly T[]
): T[] {
	const newestFirst = [...all].sort((a, b) => b.madeAt - a.madeAt);
	const staying = new Set<T>();
	const stay = (most: number, span: (one: T) => string) => {
		const seen = new Set<string>();
		for (const one of newestFirst) {
			const name = span(one);
			if (seen.has(name)) continue;
			if (seen.size === most) break;
			seen.add(name);
			staying.add(one);
		}
	};
	stay(KEPT.days, ({ day }) => day);
	stay(KEPT.weeks, ({ day }) => mondayOf(day));
	stay(KEPT.months, ({ day }) => day.slice(0, 7));
	const update = newestFirst.find(({ why }) => why === 'update');
	if (update) staying.add(update);
	return newestFirst.filter((one) => !staying.has(one));
}
