// What an assault is made on: the real processes on loopback, a prepared folder, chance with a seed, and what is found afterwards.
import Sqlite from 'better-sqlite3';
import { auditBooks } from '../scripts/audit/books';
import { londonMoment } from '../src/lib/core/calendar/conversion';
import { settableClock } from '../src/lib/server/clock';
import { readConfig } from '../src/lib/server/config';
import { openWorld } from '../src/lib/server/open';
import { setPassword } from '../src/lib/server/services/business/signIn';
import { openSession } from '../src/lib/server/services/business/sessions';
import { saveBusiness } from '../src/lib/server/services/business/settings';
import type { World } from '../src/lib/server/world';
import { runApp, type Process, type RunningApp } from '../tests/support/app';
import { BUSINESS } from '../tests/support/world';

/** What came of one sort of assault. */
export interface Outcome {
	what: string;
	tries: number;
	lost: number;
	doubled: number;
	/** What else is not as it must be. */
	wrong: string[];
}

/** Chance that is the same each time (mulberry32): between 0 and 1. */
export function chance(seed: number): () => number {
	let state = seed;
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
}

export const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

export class Ground {
	private constructor(
		readonly app: RunningApp,
		private readonly session: string
	) {}

	/** Sets up a business, has `prepare` fill its books, and starts everything. */
	static async laidOut(
		prepare: (world: World) => Promise<void>,
		needed: readonly Process[] = ['app']
	): Promise<Ground> {
		let session = '';
		const app = await runApp(
			{},
			async (env) => {
				const clock = settableClock(londonMoment('2026-11-24T08:30'));
				// Nothing outside is reached while the books are laid out.
				const world = openWorld(readConfig(env), {
					clock,
					card: {
						openCheckout: async ({ key }) => ({ id: `chk-${key}`, url: 'http://127.0.0.1/' }),
						refund: async ({ key }) => ({ id: `ref-${key}` }),
						charge: async ({ key }) => ({ id: `chg-${key}`, state: 'pending' }),
						forgetCard: async () => undefined,
						newsSince: async () => []
					}
				});
				world.db.$client.pragma('synchronous = OFF');
				saveBusiness(world, { ...BUSINESS, copyToSelf: false }, true);
				await setPassword(world, 'lime-and-plaster');
				session = openSession(world);
				await prepare(world);
				world.db.$client.close();
			},
			needed
		);
		return new Ground(app, session);
	}

	/** Asks as the owner. A line that breaks is no answer. */
	ask(path: string, options: RequestInit = {}): Promise<Response | null> {
		return fetch(this.app.origin + path, {
			redirect: 'manual',
			...options,
			headers: {
				cookie: `axiometer_session=${this.session}`,
				origin: this.app.origin,
				...options.headers
			}
		}).catch(() => null);
	}

	/** A line that the server ended after it refused something is no answer: it is asked once more, as browsers do. */
	async askTwice(path: string, options: RequestInit = {}): Promise<Response | null> {
		return (await this.ask(path, options)) ?? this.ask(path, options);
	}

	json(path: string, body: object): Promise<Response | null> {
		return this.ask(path, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(body)
		});
	}

	/** Kills the server so many milliseconds from now, and starts it again. */
	async killed(after: number): Promise<void> {
		await pause(after);
		await this.app.kill('app');
		await this.app.start('app');
	}

	/** One value, or a list of one column, read from outside. */
	read<T>(query: string): T[] {
		const file = new Sqlite(`${this.app.folder}/axiometer.sqlite`, { readonly: true });
		try {
			return file.prepare(query).pluck().all() as T[];
		} finally {
			file.close();
		}
	}

	async until(query: string, seconds: number): Promise<boolean> {
		for (const end = Date.now() + seconds * 1000; Date.now() < end; await pause(150))
			if (this.read<number>(query)[0]) return true;
		return false;
	}

	/** What the audit says of the books now. */
	audit(): string[] {
		const file = new Sqlite(`${this.app.folder}/axiometer.sqlite`, { readonly: true });
		try {
			return auditBooks(file);
		} finally {
			file.close();
		}
	}

	/** How many mails came more than once; and how many that are held to have gone did not come, and which. */
	async mails(): Promise<{ lost: number; doubled: number; which: string[] }> {
		const waiting = "select count(*) = 0 from mails where state in ('queued', 'sending')";
		const gone = await this.until(waiting, 120);
		// Asked before the inbox is: what goes in between has come.
		const sent = this.read<string>(
			"select message_id || ' ' || kind || ' ' || attempts from mails where state = 'sent'"
		);
		const came = (await this.app.inbox()).map((mail) => mail.messageId.replace(/[<>]/g, ''));
		const once = new Set(came);
		const lost = sent.filter((one) => !once.has(one.split(' ')[0]!.replace(/[<>]/g, '')));
		return {
			lost: lost.length,
			doubled: came.length - once.size,
			which: [
				...lost.map((one) => `a mail did not come: ${one}`),
				...(gone ? [] : ['mails are still waiting'])
			]
		};
	}

	end(): Promise<void> {
		return this.app.end();
	}
}
