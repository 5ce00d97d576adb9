// Restores a backup: `npm run restore -- FILE` says what is in it; `npm run restore -- FILE --yes` puts it in place. The app must not run meanwhile.
// A sealed one asks for its passphrase, or takes it from AXIOMETER_PASSPHRASE.
import { askHidden } from './asking.mjs';
import { readConfig } from '../src/lib/server/config';
import { HeldError, holdFolder } from '../src/lib/server/db/hold';
import { MigrationError } from '../src/lib/server/db/migrate';
import { clockOf, dataFile, MIGRATIONS } from '../src/lib/server/open';
import {
	forget,
	isSealed,
	openBackup,
	RestoreError,
	swapIn
} from '../src/lib/server/services/keep/restore';
import { saidOfLook } from '../src/lib/server/services/keep/said';

const file = process.argv.slice(2).find((one) => !one.startsWith('--'));
const yes = process.argv.includes('--yes');

async function passphrase(): Promise<string> {
	const given = process.env.AXIOMETER_PASSPHRASE;
	if (given !== undefined) return given;
	return await askHidden('The passphrase of this backup: ');
}

async function restore(): Promise<void> {
	if (!file) throw new RestoreError('Which backup? npm run restore -- FILE');
	const config = readConfig(process.env);
	const letGo = holdFolder(config.dataFolder);
	try {
		const now = clockOf(config).now();
		const phrase = isSealed(file) ? await passphrase() : '';
		const ready = await openBackup(file, config.dataFolder, phrase, MIGRATIONS, now);
		console.log(saidOfLook(ready).join('\n'));
		if (!yes) {
			await forget(config.dataFolder);
			console.log(
				'\nNothing was changed. With --yes it takes the place of the data; what is there now is kept as a backup.'
			);
			return;
		}
		const kept = await swapIn(ready, dataFile(config.dataFolder), now);
		console.log(
			`\nIt is in place.${kept ? ` What was there is ${kept} among the backups.` : ''} Start Axiometer: nothing goes out until you have looked through it.`
		);
	} finally {
		letGo();
	}
}

try {
	await restore();
} catch (error) {
	if (!(
		error instanceof RestoreError ||
		error instanceof HeldError ||
		error instanceof MigrationError
	))
		throw error;
	console.error(
		error.message.replace('Axiometer did not start: another one', 'Axiometer is running: it')
	);
	process.exitCode = 1;
}
