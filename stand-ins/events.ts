// News a stand-in sends to the app: signed, kept in its file, tried again until it is acknowledged, also after a restart.
import { createHmac, randomBytes } from 'node:crypto';
import type Sqlite from 'better-sqlite3';
import { z } from 'zod';

/** Asks for what was said since a moment, in milliseconds; `after` goes on from an answer's `next`. */
export const newsRequest = z.object({
	since: z.number().int().min(0),
	after: z.string().regex(/^\d+$/).optional()
});

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
		'CREATE TABLE IF NOT EXISTS events (id TEXT PRIMARY KEY, url TEXT, body TEXT, due INTEGER, attempts INTEGER, done INTEGER DEFAULT 0, at INTEGER DEFAULT 0)'
	);
	const columns = db.pragma('table_info(events)') as { name: string }[];
	if (!columns.some((column) => column.name === 'at'))
		db.exec('ALTER TABLE events ADD COLUMN at INTEGER DEFAULT 0');

	function emit(url: string, content: object, delay = 0): void {
		const id = `evt_${randomBytes(12).toString('hex')}`;
		db.prepare(
			'INSERT INTO events (id, url, body, due, attempts, at) VALUES (?, ?, ?, ?, 0, ?)'
		).run(id, url, JSON.stringify({ id, ...content }), Date.now() + delay, Date.now());
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
	/** What has been said since a moment, in order, a page at a time; what is not due yet has not been said. */
	function since({ since: from, after }: z.output<typeof newsRequest>): {
		events: unknown[];
		next: string | null;
	} {
		const rows = db
			.prepare(
				'SELECT rowid AS n, body FROM events WHERE at >= ? AND rowid > ? AND (due <= ? OR attempts > 0 OR done = 1) ORDER BY rowid LIMIT 100'
			)
			.all(from, Number(after ?? 0), Date.now()) as { n: number; body: string }[];
		const next = rows.length === 100 ? String(rows.at(-1)!.n) : null;
		return { events: rows.map(({ body }) => JSON.parse(body) as unknown), next };
	}
	return { emit, since, stop: () => clearInterval(timer) };
}
