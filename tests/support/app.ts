// The real app and its stand-ins as processes of their own, on free ports, for tests that drive or kill them.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** With which a fresh installation is claimed in tests. */
export const SETUP_CODE = 'a-code-for-tests';

export interface InboxMail {
	id: number;
	recipients: string[];
	subject: string;
	messageId: string;
	text: string;
	html: string;
	attachments: { name: string; size: number; type: string }[];
}

export type Process = 'app' | 'mail' | 'card' | 'text' | 'bank';

export interface RunningApp {
	origin: string;
	folder: string;
	env: NodeJS.ProcessEnv;
	start(what: Process): Promise<void>;
	/** `kill -9`: no warning, no chance to tidy up. */
	kill(what: Process): Promise<void>;
	/** Of a process that runs; 0 of one that does not. */
	pid(what: Process): number;
	inbox(): Promise<InboxMail[]>;
	texts(): Promise<{ to: string; text: string }[]>;
	/** Whoever got the first text answers it. */
	answerText(words: string): Promise<void>;
	end(): Promise<void>;
}

/**
 * Under those that the system gives to whoever calls out: a process that was killed finds its port free when it starts again.
 * Each that tests has a thousand of its own, so that two who look at the same moment do not find the same.
 */
let nextPort = 15_000 + (process.pid % 16) * 1_000;

export async function freePort(): Promise<number> {
	for (;;) {
		const port = nextPort++;
		const free = await new Promise<boolean>((resolve) => {
			const server = createServer()
				.once('error', () => resolve(false))
				.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
		});
		if (free) return port;
	}
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until `check` gives something. @throws after `seconds`. */
export async function until<T>(
	check: () => Promise<T | null | undefined | false>,
	seconds = 60,
	what = 'what was waited for'
): Promise<T> {
	for (let waited = 0; waited < seconds * 20; waited++) {
		const found = await check().catch(() => null);
		if (found) return found;
		await pause(50);
	}
	throw new Error(`${what} did not come within ${seconds} s`);
}

const EVERYTHING: readonly Process[] = ['app', 'mail', 'card', 'text', 'bank'];

/** `prepare` may fill the data folder before anything is started; `needed`: which processes are, where not all of them. */
export async function runApp(
	extra: NodeJS.ProcessEnv = {},
	prepare?: (env: NodeJS.ProcessEnv) => void | Promise<void>,
	needed: readonly Process[] = EVERYTHING
): Promise<RunningApp> {
	const folder = mkdtempSync(join(tmpdir(), 'axiometer-e2e-'));
	const [port, mail, inbox, card, text, bank] = (await Promise.all([
		freePort(),
		freePort(),
		freePort(),
		freePort(),
		freePort(),
		freePort()
	])) as [number, number, number, number, number, number];
	// Some things of browsers want a name.
	const origin = `http://${extra.AXIOMETER_TEST_NAME ?? '127.0.0.1'}:${port}`;
	const env: NodeJS.ProcessEnv = {
		...process.env,
		NODE_ENV: 'production',
		AXIOMETER_DATA: folder,
		AXIOMETER_PORT: String(port),
		AXIOMETER_MAIL_PORT: String(mail),
		AXIOMETER_INBOX_PORT: String(inbox),
		AXIOMETER_CARD_PORT: String(card),
		AXIOMETER_TEXT_PORT: String(text),
		AXIOMETER_BANK_PORT: String(bank),
		AXIOMETER_CARD_LATE_MS: '1500',
		AXIOMETER_BANK_LATE_MS: '1500',
		AXIOMETER_CLOCK: '2026-11-24T09:00',
		AXIOMETER_LOG: 'silent',
		AXIOMETER_SETUP_CODE: SETUP_CODE,
		HOST: '127.0.0.1',
		PORT: String(port),
		ORIGIN: origin,
		BODY_SIZE_LIMIT: '106M',
		...(extra.AXIOMETER_TEST_NAME ? { AXIOMETER_ORIGIN: origin } : {}),
		...extra
	};
	const commands = {
		app: { args: ['scripts/serve.mjs'], address: `${origin}/health` },
		mail: {
			args: ['build/stand-ins/mail.js'],
			address: `http://127.0.0.1:${inbox}/`
		},
		card: {
			args: ['build/stand-ins/card.js'],
			address: `http://127.0.0.1:${card}/`
		},
		text: {
			args: ['build/stand-ins/text.js'],
			address: `http://127.0.0.1:${text}/`
		},
		bank: {
			args: ['build/stand-ins/bank.js'],
			address: `http://127.0.0.1:${bank}/`
		}
	};
	const running = new Map<string, ChildProcess>();
	const app: RunningApp = {
		origin,
		folder,
		env,
		async start(what) {
			const { args, address } = commands[what];
			const child = spawn(process.execPath, args, { env, stdio: ['ignore', 'ignore', 'inherit'] });
			running.set(what, child);
			await until(
				async () => child.exitCode !== null || (await fetch(address)).status > 0,
				300,
				`the start of ${what}`
			);
			if (child.exitCode !== null) throw new Error(`${what} ended as it started`);
		},
		pid: (what) => running.get(what)?.pid ?? 0,
		async kill(what) {
			const child = running.get(what);
			running.delete(what);
			if (!child || child.exitCode !== null) return;
			const ended = new Promise((resolve) => child.once('exit', resolve));
			child.kill('SIGKILL');
			await ended;
		},
		inbox: async () =>
			(await fetch(`http://127.0.0.1:${inbox}/mails.json`)).json() as Promise<InboxMail[]>,
		answerText: async (answer) => {
			await fetch(`http://127.0.0.1:${text}/back`, {
				method: 'POST',
				body: new URLSearchParams({ id: '1', answer }),
				redirect: 'manual'
			});
		},
		texts: async () =>
			(await fetch(`http://127.0.0.1:${text}/messages.json`)).json() as Promise<
				{ to: string; text: string }[]
			>,
		async end() {
			for (const what of EVERYTHING) await app.kill(what);
			rmSync(folder, { recursive: true, force: true });
		}
	};
	await prepare?.(env);
	await Promise.all(needed.map((what) => app.start(what)));
	return app;
}
