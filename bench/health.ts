// Whether long work keeps others waiting: how soon `/health` answers while each of `longWork.ts` goes on. Asked for: the 99th percentile
// within 50 ms of idle. The server is a process of its own, so that it and what asks it have a core each. Needs the build (`npm run build`);
// a word after the command takes only the work that has it in its name.
import { readConfig } from '../src/lib/server/config';
import { openWorld } from '../src/lib/server/open';
import { setPassword } from '../src/lib/server/services/business/signIn';
import { openSession } from '../src/lib/server/services/business/sessions';
import { runApp } from '../tests/support/app';
import { fill, works, type Filled } from './longWork';

const only = process.argv[2] ?? '';
let filled: Filled | undefined;
let session = '';

const app = await runApp({}, async (env) => {
	const world = openWorld(readConfig(env));
	filled = fill(world);
	await setPassword(world, 'a long enough password');
	session = openSession(world);
	world.db.$client.close();
});

const ask = (path: string, more: RequestInit = {}) =>
	fetch(`${app.origin}${path}`, {
		...more,
		redirect: 'manual',
		headers: { cookie: `axiometer_session=${session}`, origin: app.origin, ...more.headers }
	});

/** How long each of so many questions waits for its answer, in milliseconds, one every 10; more of them while `on` says so. */
async function waits(count: number, on: () => boolean = () => false): Promise<number[]> {
	const found: number[] = [];
	const asked: Promise<void>[] = [];
	for (let n = 0; n < count || on(); n++) {
		const start = performance.now();
		asked.push(
			fetch(`${app.origin}/health`)
				.then((response) => response.text())
				.then(() => void found.push(performance.now() - start))
		);
		await new Promise((resolve) => setTimeout(resolve, 10));
	}
	await Promise.all(asked);
	return found.sort((a, b) => a - b);
}
const at = (sorted: number[], part: number) => sorted[Math.floor((sorted.length - 1) * part)]!;

/** Rounds of each: a machine that is shared is taken away for a while now and then, which the middle one of several does not show. */
const ROUNDS = 9;
/** Work that takes long has many questions in each: three rounds of it are enough. */
const LONG_MS = 90_000;
const QUESTIONS = 200;
const middle = (of: readonly number[]) => of.toSorted((a, b) => a - b)[Math.floor(of.length / 2)]!;
const padded = (value: number) => value.toFixed(0).padStart(4);

/**
 * Asks in turns while nothing else is asked and while there is work, and says by how much the work moves the slowest hundredth: the middle
 * one of the rounds, each against its own idle. The work begins again until the questions are through, and is seen to its end once at least.
 */
async function compare(what: string, pass: () => Promise<void>): Promise<void> {
	const rounds: { idle: number; busy: number; half: number; asked: number }[] = [];
	const began = performance.now();
	for (let round = 0; round < ROUNDS; round++) {
		if (round >= 3 && performance.now() - began > LONG_MS) break;
		const idle = await waits(QUESTIONS);
		let passes = 0;
		let failed: unknown;
		let going = true;
		const load = (async () => {
			while (going) {
				await pass();
				passes++;
			}
		})().catch((error: unknown) => (failed = error));
		const busy = await waits(QUESTIONS, () => passes === 0 && failed === undefined);
		going = false;
		await load;
		if (failed) throw failed;
		rounds.push({
			idle: at(idle, 0.99),
			busy: at(busy, 0.99),
			half: at(busy, 0.5),
			asked: busy.length
		});
	}
	const more = rounds.map(({ idle, busy }) => busy - idle);
	const show = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(0)}`;
	const half = middle(rounds.map((one) => one.half));
	const busy = middle(rounds.map((one) => one.busy));
	const idle = middle(rounds.map((one) => one.idle));
	const asked = middle(rounds.map((one) => one.asked));
	console.log(
		`${what.padEnd(60)} p50 ${padded(half)}   p99 ${padded(busy)}, idle ${padded(idle)} ms: ${show(middle(more))} (${more.map(show).join(' ')}), ${asked} questions`
	);
}

try {
	// What is made once, as the thread that draws, is not part of being idle.
	await (await ask('/owed/statements/preview?of=1')).arrayBuffer();
	await waits(400);
	console.log('How soon /health answers, in milliseconds, while');
	for (const { what, pass } of works(ask, filled!))
		if (what.includes(only)) await compare(what, pass);
} finally {
	await app.end();
}
