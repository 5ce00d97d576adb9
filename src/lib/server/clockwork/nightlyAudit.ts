// The audit of the night: a process of its own on a connection that cannot write, so that it keeps nobody waiting and
// shares nothing with what it checks.
import { londonTime } from '../../core/calendar/conversion';
import { addDays } from '../../core/calendar/manipulation';
import { folderOf } from '../db/fileStore';
import { audited } from '../aside';
import { keepAudit, lastAudit } from '../services/business/audits';
import type { World } from '../world';

const NIGHT = { from: '02:00', to: '05:00' };

/** What failed is tried again after this long, not at every tick. */
const AGAIN_MS = 3_600_000;

let running: Promise<void> | null = null;
let failedAt = -Infinity;

/** Audits once a night; a machine that sleeps at night is audited by day, once its last audit is two days old. */
export function runNightlyAudit(world: World): Promise<void> {
	if (running || !isTime(world)) return running ?? Promise.resolve();
	running = auditNow(world)
		.catch((error: unknown) => {
			failedAt = world.clock.now();
			throw error;
		})
		.finally(() => (running = null));
	return running;
}

function isTime(world: World): boolean {
	if (Math.abs(world.clock.now() - failedAt) < AGAIN_MS) return false;
	const today = world.clock.today();
	const last = lastAudit(world.db);
	if (last?.day === today) return false;
	const time = londonTime(world.clock.now());
	if (time >= NIGHT.from && time < NIGHT.to) return true;
	return last !== undefined && last.day < addDays(today, -1);
}

/** Audits the data file and keeps what was found. @throws where the audit itself could not be done */
export async function auditNow(world: World): Promise<void> {
	const found = await audited([], { AXIOMETER_DATA: folderOf(world.db) });
	if (world.db.$client.open) keepAudit(world, found);
}
