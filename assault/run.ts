// An assault on Axiometer, on loopback alone: `npm run assault [-- ROUNDS [SEED]]`. It kills the server at random moments, forges and repeats news, floods
// it, gives it hostile files, and says what was lost or doubled. Needs the build (`npm run build`). Exit code 1 where anything was.
import { fileURLToPath } from 'node:url';
import { chance, type Outcome } from './ground';
import {
	whileIssuing,
	whileMany,
	whileRunning,
	whileStating,
	whileTicking,
	whileWebhook
} from './kills';
import { floods, forgedNews, hostileFiles } from './strangers';

/** By name, each with how often its fault is repeated, and chance. */
export const ASSAULTS: Readonly<
	Record<string, (rounds: number, chance: () => number) => Promise<Outcome>>
> = {
	issue: whileIssuing,
	webhook: whileWebhook,
	run: whileRunning,
	clockwork: whileTicking,
	statements: whileStating,
	many: whileMany,
	news: forgedNews,
	floods,
	files: hostileFiles
};

export const isHeld = ({ lost, doubled, wrong }: Outcome): boolean =>
	lost === 0 && doubled === 0 && wrong.length === 0;

if (process.argv[1] === fileURLToPath(import.meta.url)) {
	const [rounds = '100', seed = '20261127', only] = process.argv.slice(2);
	console.log(
		'what'.padEnd(54),
		'tries'.padStart(6),
		'lost'.padStart(6),
		'doubled'.padStart(8),
		' else wrong'
	);
	let held = true;
	for (const [name, assault] of Object.entries(ASSAULTS)) {
		if (only && only !== name) continue;
		const outcome = await assault(Number(rounds), chance(Number(seed)));
		held &&= isHeld(outcome);
		const { what, tries, lost, doubled, wrong } = outcome;
		console.log(
			what.padEnd(54),
			String(tries).padStart(6),
			String(lost).padStart(6),
			String(doubled).padStart(8),
			` ${wrong.length ? [...new Set(wrong)].join('; ') : 'nothing'}`
		);
	}
	process.exitCode = held ? 0 : 1;
}
