// Whether all is well, for whoever watches over the machine: nothing of the books is said.
import { lastTick } from './clockwork/ticking';
import { troubleOf } from './db/trouble';
import { restingSince } from './services/business/resting';
import { roomLeft, TIGHT } from './services/keep/room';
import { backupTrouble, isOld, lastWhole } from './services/keep/backups';
import type { World } from './world';

/** The clockwork ticks every five seconds. */
const STANDS_STILL_MS = 60_000;

export interface Health {
	/** It cannot do its work. */
	wrong: string[];
	/** It can, and somebody should look. */
	look: string[];
}

/** `now` is the machine's own time in milliseconds, whatever day the books are at. */
export function health(world: World, now: number): Health {
	const wrong: string[] = [];
	const look: string[] = [];
	try {
		world.db.$client.prepare('select 1 from business').get();
		if (restingSince(world.db))
			look.push('the books come from a backup, and nobody has gone on yet');
		const whole = lastWhole(world.db);
		if (whole && isOld(world, whole)) look.push('the last backup is more than two days old');
		if (backupTrouble(world)) look.push('the last backup was not all it should be');
	} catch (error) {
		wrong.push(troubleOf(error) ?? 'the data file cannot be read');
	}
	const room = roomLeft(world);
	if (room !== null && room < TIGHT / 10) wrong.push('there is no room left on the disk');
	else if (room !== null && room < TIGHT) look.push('there is little room left on the disk');
	const tick = lastTick();
	if (tick !== null && now - tick > STANDS_STILL_MS) wrong.push('the clockwork stands still');
	return { wrong, look };
}
