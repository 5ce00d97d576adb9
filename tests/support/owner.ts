// A business with its owner's password, laid out before the app is started.
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { readConfig } from '../../src/lib/server/config';
import { settableClock } from '../../src/lib/server/clock';
import { openWorld } from '../../src/lib/server/open';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { BUSINESS } from './world';

export const PASSWORD = 'lime-and-plaster';

export async function layOut(env: NodeJS.ProcessEnv): Promise<void> {
	const clock = settableClock(londonMoment('2026-11-24T09:00'));
	const world = openWorld(readConfig(env), { clock });
	saveBusiness(world, BUSINESS, true);
	await setPassword(world, PASSWORD);
	world.db.$client.close();
}
