// Opens the world once for a process: folder, data file, clock, gateways.
import { chmodSync, mkdirSync, readdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { londonMoment } from '../core/calendar/conversion';
import { clockStartingAt, systemClock, type Clock } from './clock';
import type { Config } from './config';
import { connect, type Database } from './db/connection';
import { moveFilesOut } from './db/fileStore';
import { unlockKey } from './db/secrets';
import { migrateFile, MigrationError } from './db/migrate';
import { troubleOf } from './db/trouble';
import { threadPress } from './documents/press';
import { httpBankGateway } from './gateways/bank';
import { httpCardGateway } from './gateways/card';
import { smtpGateway } from './gateways/mail';
import { httpTextGateway } from './gateways/text';
import { checkClaim } from './services/business/claim';
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

/** Takes the rights of everybody else from the data folder and what lies in it, as far as this user may. */
function keepToOwner(folder: string): void {
	try {
		chmodSync(folder, 0o700);
		for (const entry of readdirSync(folder, { withFileTypes: true }))
			if (entry.isFile()) chmodSync(join(folder, entry.name), 0o600);
	} catch {
		// A file system without rights, such as a stick's, or a folder of somebody else's.
	}
}

/** The data file cannot be worked with: said before anything is begun. */
export class DamagedError extends Error {}

/** @throws DamagedError, LockedError, MigrationError, LostBooksError */
export function openWorld(config: Config, overrides: Partial<World> = {}): World {
	try {
		return open(config, overrides);
	} catch (error) {
		const trouble = troubleOf(error);
		if (!trouble || error instanceof MigrationError) throw error;
		throw new DamagedError(
			`Axiometer did not start with the data folder ${config.dataFolder}. ${trouble.replace(/ Nothing was saved by this.*/, '')}\nNothing was changed in it. A backup comes back with: npm run restore -- FILE`
		);
	}
}

function open(config: Config, overrides: Partial<World>): World {
	const clock = clockOf(config);
	// Nobody else on the machine reads the books: what is made from here on is the owner's alone, and so is what was there.
	process.umask(0o077);
	mkdirSync(config.dataFolder, { recursive: true, mode: 0o700 });
	keepToOwner(config.dataFolder);
	unlockKey(config.dataFolder, config.passphrase);
	const file = dataFile(config.dataFolder);
	migrateFile(file, MIGRATIONS, clock.now());
	const db = connect(file);
	moveFilesOut(db);
	checkClaim(db, config.dataFolder);
	layFirstPlan(db, clock.now());
	return worldOn(db, config, clock, overrides);
}

/** What the services work with, on a data file that is open and as it has to be. */
export function worldOn(
	db: Database,
	config: Config,
	clock: Clock,
	overrides: Partial<World> = {}
): World {
	return {
		db,
		clock,
		mail: smtpGateway(config.smtpUrl),
		text: httpTextGateway(config.textUrl, config.textSecret, `${config.origin}/webhooks/text`),
		card: httpCardGateway(config.cardUrl, config.cardSecret),
		bank: httpBankGateway(config.bankUrl, config.bankSecret),
		press: threadPress(),
		origin: config.origin,
		...overrides
	};
}
