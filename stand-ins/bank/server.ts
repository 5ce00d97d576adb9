// The payer's own bank, for pay-by-bank: a page on which a transfer is approved that arrives at once, a little later, or
// fails later after all. News are signed and repeated until they are acknowledged. No money moves.
import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import Sqlite from 'better-sqlite3';
import { z } from 'zod';
import { newsRequest, startEvents } from '../events';
import { amountInPounds, escape, page, read } from '../page';

export interface BankStandInOptions {
	port: number;
	file: string;
	/** The base of the addresses it gives out. */
	origin: string;
	secret: string;
	/** Milliseconds until a slow transfer arrives or fails. */
	lateAfter?: number;
}

interface Transfer {
	id: string;
	amount: number;
	reference: string;
	description: string;
	return_url: string;
	webhook_url: string;
	state: 'open' | 'pending' | 'settled' | 'failed';
}

const request = z.object({
	amount: z.number().int().min(1),
	currency: z.literal('GBP'),
	reference: z.string().min(1).max(18),
	description: z.string().max(300),
	returnUrl: z.url(),
	webhookUrl: z.url()
});

export async function startBankStandIn(options: BankStandInOptions) {
	const db = new Sqlite(options.file);
	db.pragma('journal_mode = WAL');
	db.exec(
		'CREATE TABLE IF NOT EXISTS transfers (id TEXT PRIMARY KEY, key TEXT UNIQUE, amount INTEGER, reference TEXT, description TEXT, return_url TEXT, webhook_url TEXT, state TEXT)'
	);
	const events = startEvents(db, { secret: options.secret, name: 'bank' });
	const late = options.lateAfter ?? 20_000;
	const find = (id: string) =>
		db.prepare('SELECT * FROM transfers WHERE id = ?').get(id) as Transfer | undefined;
	const emit = ({ id, amount, webhook_url }: Transfer, type: string, delay = 0) =>
		events.emit(webhook_url, { type, transfer: id, amount }, delay);

	async function open(
		given: IncomingMessage,
		response: ServerResponse,
		path: string
	): Promise<void> {
		const json = (status: number, body: object) =>
			void response
				.writeHead(status, { 'content-type': 'application/json' })
				.end(JSON.stringify(body));
		if (given.headers.authorization !== `Bearer ${options.secret}`)
			return json(401, { error: 'unauthorised' });
		const key = String(given.headers['idempotency-key'] ?? '');
		const asked: unknown = JSON.parse((await read(given)) || '{}');
		if (path === '/news') {
			const since = newsRequest.safeParse(asked);
			return since.success
				? json(200, events.since(since.data))
				: json(400, { error: 'bad request' });
		}
		const parsed = request.safeParse(asked);
		if (!parsed.success || !key) return json(400, { error: 'bad request' });
		const { amount, reference, description, returnUrl, webhookUrl } = parsed.data;
		db.prepare("INSERT OR IGNORE INTO transfers VALUES (?, ?, ?, ?, ?, ?, ?, 'open')").run(
			`trf_${randomBytes(12).toString('hex')}`,
			key,
			amount,
			reference,
			description,
			returnUrl,
			webhookUrl
		);
		const { id } = db.prepare('SELECT id FROM transfers WHERE key = ?').get(key) as Transfer;
		json(201, { id, url: `${options.origin}/approve/${id}` });
	}

	async function approve(
		given: IncomingMessage,
		response: ServerResponse,
		id: string
	): Promise<void> {
		const html = (status: number, body: string) =>
			void response
				.writeHead(status, { 'content-type': 'text/html; charset=utf-8' })
				.end(page('Your bank', body));
		const transfer = find(id);
		if (!transfer) return html(404, '<h1>This transfer does not exist.</h1>');
		if (given.method !== 'POST') return html(200, question(transfer));
		const how = new URLSearchParams(await read(given)).get('how');
		if (transfer.state === 'open') {
			const state = how === 'now' ? 'settled' : 'pending';
			db.prepare('UPDATE transfers SET state = ? WHERE id = ?').run(state, id);
			if (how === 'now') emit(transfer, 'transfer.settled');
			else {
				emit(transfer, 'transfer.pending');
				emit(transfer, how === 'fails' ? 'transfer.failed' : 'transfer.settled', late);
			}
		}
		response.writeHead(303, { location: transfer.return_url }).end();
	}

	const server = createServer((given, response) => {
		const { pathname } = new URL(given.url ?? '/', 'http://bank');
		const asked = /^\/approve\/([^/]+)$/.exec(pathname);
		const work = asked
			? approve(given, response, asked[1]!)
			: given.method === 'POST' && ['/transfers', '/news'].includes(pathname)
				? open(given, response, pathname)
				: Promise.resolve(void response.writeHead(404).end());
		work.catch(() => response.writeHead(500).end());
	});
	await new Promise<void>((resolve) => server.listen(options.port, '127.0.0.1', resolve));
	return {
		async close() {
			events.stop();
			server.closeAllConnections();
			await new Promise((resolve) => server.close(resolve));
			db.close();
		}
	};
}

function question({ id, amount, reference, description, state, return_url }: Transfer): string {
	const head = `<div>${escape(description)}</div><h1>${amountInPounds(amount)}</h1><p>Reference ${escape(reference)}</p>`;
	const back = `<p><a href="${escape(return_url)}">Go back${state === 'open' ? ' without paying' : ''}</a></p>`;
	if (state !== 'open') return `${head}<p>This transfer was approved already.</p>${back}`;
	const button = (how: string, words: string) =>
		`<button name="how" value="${how}">${words}</button>`;
	return `${head}<form method="post" action="/approve/${id}">${button('now', 'Approve: arrives at once')}${button('late', 'Approve: takes a while')}${button('fails', 'Approve: fails later')}</form>${back}<p>This is a stand-in for the payer’s bank: no money moves.</p>`;
}
