// Getting back in: `npm run recover` says who can sign in; `npm run recover -- factor [NAME]` takes a lost second factor and passkeys off;
// `npm run recover -- password [NAME]` sets another password, which is asked for. Without a name it is the owner. The app must not run meanwhile.
import { existsSync } from 'node:fs';
import { FieldError, NotFoundError } from '../src/lib/core/refusals';
import { readConfig } from '../src/lib/server/config';
import { HeldError, holdFolder } from '../src/lib/server/db/hold';
import { LockedError } from '../src/lib/server/db/secrets';
import { dataFile, openWorld } from '../src/lib/server/open';
import {
	recoverable,
	recoverFactor,
	recoverPassword,
	whoCanSignIn
} from '../src/lib/server/services/people/recover';
import { askHidden } from './asking.mjs';

class WrongUse extends Error {}

async function newPassword(): Promise<string> {
	const given = process.env.AXIOMETER_NEW_PASSWORD;
	if (given !== undefined) return given;
	const typed = await askHidden('New password: ');
	if ((await askHidden('Once more: ')) !== typed)
		throw new WrongUse('That was not the same twice; the password is as it was.');
	return typed;
}

async function run([what = '', ...name]: string[]): Promise<void> {
	if (!['', 'factor', 'password'].includes(what))
		throw new WrongUse('npm run recover, npm run recover -- factor NAME, or -- password NAME');
	const config = readConfig(process.env);
	if (!existsSync(dataFile(config.dataFolder)))
		throw new WrongUse(`There are no books in ${config.dataFolder}.`);
	const letGo = holdFolder(config.dataFolder);
	try {
		const world = openWorld(config);
		if (what === '') {
			for (const one of whoCanSignIn(world.db))
				console.log(
					`${one.name} <${one.email}>, ${one.role}${one.factor ? ', second factor' : ''}${one.passkeys ? `, ${one.passkeys} passkeys` : ''}`
				);
			return;
		}
		const person = recoverable(world.db, name.join(' '));
		if (what === 'factor') {
			recoverFactor(world, person);
			console.log(`${person.name} signs in with the password alone. Set a second factor anew.`);
			return;
		}
		await recoverPassword(world, person, await newPassword());
		console.log(`${person.name} signs in with the new password; everybody else’s sessions stay.`);
	} finally {
		letGo();
	}
}

try {
	await run(process.argv.slice(2));
} catch (error) {
	const said =
		error instanceof FieldError ? Object.values(error.fields)[0] : (error as Error).message;
	if (!(
		error instanceof WrongUse ||
		error instanceof FieldError ||
		error instanceof NotFoundError ||
		error instanceof HeldError ||
		error instanceof LockedError
	))
		throw error;
	console.error(said?.replace('Axiometer did not start: ', ''));
	process.exitCode = error instanceof WrongUse ? 2 : 1;
}
