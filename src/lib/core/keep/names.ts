// Names of backups: the moment they were made, why, and whether they are sealed. A folder of them sorts itself by time.
import type { PlainDate } from '../calendar/types';
import { londonDate } from '../calendar/conversion';

export const REASONS = ['night', 'hand', 'update'] as const;
/** `update`: before a new version changed the data file. */
export type Reason = (typeof REASONS)[number];

export interface BackupName {
	name: string;
	/** Milliseconds since 1970, to the second. */
	madeAt: number;
	/** That moment's day in London. */
	day: PlainDate;
	why: Reason;
	sealed: boolean;
}

const PATTERN =
	/^axiometer-(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z-(night|hand|update)\.sqlite(\.sealed)?$/;

/** `axiometer-20261127T021000Z-night.sqlite`, with `.sealed` where it is. `moment` in milliseconds. */
export function backupName(moment: number, why: Reason, sealed: boolean): string {
	const stamp = new Date(moment).toISOString().replace(/[-:]|\.\d+/g, '');
	return `axiometer-${stamp}-${why}.sqlite${sealed ? '.sealed' : ''}`;
}

/** Null where it is the name of something else. */
export function readBackupName(name: string): BackupName | null {
	const found = PATTERN.exec(name);
	if (!found) return null;
	const [, year, month, day, hour, minute, second, why, sealed] = found;
	const madeAt = Date.parse(`${year}-${month}-${day}T${hour}:${minute}:${second}Z`);
	if (Number.isNaN(madeAt)) return null;
	return {
		name,
		madeAt,
		day: londonDate(madeAt),
		why: why as Reason,
		sealed: sealed !== undefined
	};
}

/** The list of the files that a backup is about, beside it. */
export const listName = (name: string): string => `${name.replace(/\.sealed$/, '')}.files`;
