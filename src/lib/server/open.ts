// Opens the world once for a process: folder, data file, clock, gateways.
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { londonMoment } from '../core/calendar/conversion';
import { clockStartingAt, systemClock, type Clock } from './clock';
import type { Config } from './config';
import { connect } from './db/connection';
import { migrateFile } from './db/migrate';
import { threadPress } from './documents/press';
import { httpBankGateway } from './gateways/bank';
import { httpCardGateway } from './gateways/card';
import { smtpGateway } from './gateways/mail';
import { httpTextGateway } from './gateways/text';
import { layFirstPlan } from './services/chasing/plans';
import type { World } from './world';

/** Migrations lie in the source tree, from which the app is always started. */
export const MIGRATIONS = resolve('src/lib/server/db/migrations');

/** The variable says a moment in London, as a person would. */
export function clockOf(config: Pick<Config, 'clock'>): Clock {
	return config.clock === 'system' ? systemClock() : clockStartingAt(londonMoment(config.clock));
}

export function dataFile(folder: string): string {
	return join(folder, 'axiometer.sqlite');
}

/** @throws MigrationError */
export function openWorld(config: Config, overrides: Partial<World> = {}): World {
	const clock = clockOf(config);
	mkdirSync(config.dataFolder, { recursive: true });
	const file = dataFile(config.dataFolder);
	migrateFile(file, MIGRATIONS, String(clock.now()));
	const db = connect(file);
	layFirstPlan(db, clock.now());
	return {
		db,
		clock,
		mail: smtpGateway(config.smtpUrl),
		text: httpTextGateway(config.textUrl, config.textSecret),
		card: httpCardGateway(config.cardUrl, config.cardSecret),
		bank: httpBankGateway(config.bankUrl, config.bankSecret),
		press: threadPress(),
		origin: config.origin,
		...overrides
	};
}
