// A text-message gateway that stands in for a real one: it takes each key once, refuses numbers that are none, and shows
// what it took on a page and as JSON. On that page a text is answered, or said not to have arrived: the app is told, signed, until it
// acknowledges. Nothing is sent.
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import Sqlite from 'better-sqlite3';
import { startEvents } from '../events';
import { escape, read } from '../page';

export interface TextStandInOptions {
	port: number;
	secret: string;
}

interface Taken {
	id: number;
	key: string;
	to: string;
	text: string;
	at: string;
	webhookUrl: string;
}

export async function startTextStandIn({ port, secret }: TextStandInOptions) {
	const taken: Taken[] = [];
	// What is still to be told does not outlive it: nor does what it took.
	const events = startEvents(new Sqlite(':memory:'), { secret, name: 'text' });

	async function take(request: IncomingMessage, response: ServerResponse): Promise<void> {
		const json = (status: number, body: object) =>
			void response
				.writeHead(status, { 'content-type': 'application/json' })
				.end(JSON.stringify(body));
		if (request.headers.authorization !== `Bearer ${secret}`)
			return json(401, { error: 'unauthorised' });
		const key = String(request.headers['idempotency-key'] ?? '');
		const given = JSON.parse(await read(request)) as {
			to?: unknown;
			text?: unknown;
			webhookUrl?: unknown;
		};
		const to = String(given.to ?? '').replace(/[\s()-]/g, '');
		if (!key || typeof given.text !== 'string' || given.text === '')
			return json(400, { error: 'bad request' });
		if (!/^(\+44|0)7\d{9}$/.test(to)) return json(422, { error: 'no mobile number' });
		const same = taken.find((one) => one.key === key);
		if (same) return json(200, { id: same.id });
		const id = taken.length + 1;
		taken.push({
			id,
			key,
			to,
			text: given.text,
			at: new Date().toISOString(),
			webhookUrl: String(given.webhookUrl ?? '')
		});
		json(201, { id });
	}

	/** What came back: an answer, or that it did not arrive. */
	async function comeBack(request: IncomingMessage, response: ServerResponse): Promise<void> {
		const form = new URLSearchParams(await read(request));
		const one = taken.find(({ id }) => id === Number(form.get('id')));
		if (one?.webhookUrl) {
			const answer = form.get('answer') ?? '';
			if (form.has('lost'))
				events.emit(one.webhookUrl, {
					type: 'undelivered',
					key: one.key,
					reason: 'This number is not in use any more'
				});
			else if (answer.trim())
				events.emit(one.webhookUrl, { type: 'reply', from: one.to, text: answer });
		}
		response.writeHead(303, { location: '/' }).end();
	}

	const server = createServer((request, response) => {
		if (request.method === 'POST' && request.url === '/back')
			return void comeBack(request, response).catch(() => response.writeHead(400).end());
		if (request.method === 'POST' && request.url === '/messages')
			return void take(request, response).catch(() => response.writeHead(400).end());
		if (request.url === '/messages.json')
			return void response
				.writeHead(200, { 'content-type': 'application/json' })
				.end(JSON.stringify(taken));
		response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(taken));
	});
	await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
	return {
		async close() {
			events.stop();
			server.closeAllConnections();
			await new Promise((resolve) => server.close(resolve));
		}
	};
}

function page(taken: readonly Taken[]): string {
	const rows = [...taken]
		.reverse()
		.map(
			(one) =>
				`<li><b>${escape(one.to)}</b> <small>${one.at}</small><p>${escape(one.text)}</p><form method="post" action="/back"><input type="hidden" name="id" value="${one.id}"><label>Answer <input name="answer"></label> <button>Answer it</button> <button name="lost" value="yes">It did not arrive</button></form></li>`
		)
		.join('');
	return `<!doctype html><html lang="en-GB"><meta charset="utf-8"><title>Text messages (stand-in)</title><style>body{font:16px/1.5 system-ui;max-width:36rem;margin:2rem auto;padding:0 1rem}li{margin:0 0 1rem}p{margin:.2rem 0;white-space:pre-wrap}</style><h1>Text messages</h1><p>A stand-in: nothing is sent.</p><ul>${rows || '<li>None yet.</li>'}</ul></html>`;
}
