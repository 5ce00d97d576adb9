// News a stand-in sends to the app: signed, kept in its file, tried again until it is acknowledged, also after a restart.
import { createHmac, randomBytes } from 'node:crypto';
import type Sqlite from 'better-sqlite3';

export interface EventOptions {
	secret: string;
	/** The headers are `<name>-time` and `<name>-signature`. */
	name: string;
	/** Delivers each event a second time. */
	twice?: boolean | undefined;
}

interface Event {
	id: string;
	url: string;
	body: string;
	due: number;
	attempts: number;
}

const RETRY_MS = [500, 1000, 2000, 5000, 10_000, 30_000];

export function startEvents(db: Sqlite.Database, { secret, name, twice }: EventOptions) {
	db.exec(
		'CREATE TABLE IF NOT EXISTS events (id TEXT PRIMARY KEY, url TEXT, body TEXT, due INTEGER, attempts INTEGER, done INTEGER DEFAULT 0)'
	);

	function emit(url: string, content: object, delay = 0): void {
		const id = `evt_${randomBytes(12).toString('hex')}`;
		db.prepare('INSERT INTO events (id, url, body, due, attempts) VALUES (?, ?, ?, ?, 0)').run(
			id,
			url,
			JSON.stringify({ id, ...content }),
			Date.now() + delay
		);
	}

	async function deliver(event: Event): Promise<void> {
		const time = String(Math.floor(Date.now() / 1000));
		const signature = createHmac('sha256', secret).update(`${time}.${event.body}`).digest('hex');
		const post = () =>
			fetch(event.url, {
				method: 'POST',
				headers: {
					'content-type': 'application/json',
					[`${name}-time`]: time,
					[`${name}-signature`]: signature
				},
				body: event.body,
				signal: AbortSignal.timeout(20_000)
			});
		let acknowledged = false;
		try {
			acknowledged = (await post()).ok;
			if (twice) await post();
		} catch {
			// Not reached: it is tried again below.
		}
		if (acknowledged) db.prepare('UPDATE events SET done = 1 WHERE id = ?').run(event.id);
		else
			db.prepare('UPDATE events SET attempts = attempts + 1, due = ? WHERE id = ?').run(
				Date.now() + RETRY_MS[Math.min(event.attempts, RETRY_MS.length - 1)]!,
				event.id
			);
	}

	let busy = false;
	const timer = setInterval(async () => {
		if (busy) return;
		busy = true;
		try {
			const due = db
				.prepare('SELECT * FROM events WHERE done = 0 AND due <= ? ORDER BY due LIMIT 20')
				.all(Date.now()) as Event[];
			for (const event of due) await deliver(event);
		} finally {
			busy = false;
		}
	}, 100);
	return { emit, stop: () => clearInterval(timer) };
}
