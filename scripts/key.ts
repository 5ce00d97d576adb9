// The key that seals secrets at rest: `npm run key -- seal` has it take a passphrase at each start, `npm run key -- open` takes that away again.
// The app must not run meanwhile. The passphrase is asked for, or taken from AXIOMETER_PASSPHRASE.
import { readConfig } from '../src/lib/server/config';
import { HeldError, holdFolder } from '../src/lib/server/db/hold';
import { isKeySealed, LockedError, sealKeyFile, unlockKey } from '../src/lib/server/db/secrets';
import { askHidden } from './asking.mjs';

const what = process.argv[2];
const config = readConfig(process.env);

async function run(): Promise<void> {
	if (what !== 'seal' && what !== 'open') {
		console.error('npm run key -- seal, or npm run key -- open');
		process.exitCode = 2;
		return;
	}
	const letGo = holdFolder(config.dataFolder);
	try {
		const phrase = config.passphrase ?? (await askHidden('Passphrase: '));
		if (isKeySealed(config.dataFolder)) unlockKey(config.dataFolder, phrase);
		if (what === 'seal' && phrase.length < 12)
			throw new LockedError('At least twelve characters: three or four words of your own.');
		// A slip of the finger here would lock the secrets away from their owner.
		if (
			what === 'seal' &&
			config.passphrase === undefined &&
			(await askHidden('Once more: ')) !== phrase
		)
			throw new LockedError('That was not the same twice; the key is as it was.');
		sealKeyFile(config.dataFolder, what === 'seal' ? phrase : null);
		console.log(
			what === 'seal'
				? 'The key takes this passphrase at each start. Without it the secrets in the data file are lost; the books are not.'
				: 'The key takes no passphrase any more.'
		);
	} finally {
		letGo();
	}
}

try {
	await run();
} catch (error) {
	if (!(error instanceof LockedError || error instanceof HeldError)) throw error;
	console.error(error.message.replace('Axiometer did not start: ', ''));
	process.exitCode = 1;
}
