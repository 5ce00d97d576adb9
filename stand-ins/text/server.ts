// A text-message gateway that stands in for a real one: it takes each key once, refuses numbers that are none, and shows
// what it took on a page and as JSON. Nothing is sent.
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
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
}

export async function startTextStandIn({ port, secret }: TextStandInOptions) {
	const taken: Taken[] = [];

	async function take(request: IncomingMessage, response: ServerResponse): Promise<void> {
		const json = (status: number, body: object) =>
			void response
				.writeHead(status, { 'content-type': 'application/json' })
				.end(JSON.stringify(body));
		if (request.headers.authorization !== `Bearer ${secret}`)
			return json(401, { error: 'unauthorised' });
		const key = String(request.headers['idempotency-key'] ?? '');
		const given = JSON.parse(await read(request)) as { to?: unknown; text?: unknown };
		const to = String(given.to ?? '').replace(/[\s()-]/g, '');
		if (!key || typeof given.text !== 'string' || given.text === '')
			return json(400, { error: 'bad request' });
		if (!/^(\+44|0)7\d{9}$/.test(to)) return json(422, { error: 'no mobile number' });
		const same = taken.find((one) => one.key === key);
		if (same) return json(200, { id: same.id });
		const id = taken.length + 1;
		taken.push({ id, key, to, text: given.text, at: new Date().toISOString() });
		json(201, { id });
	}

	const server = createServer((request, response) => {
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
				`<li><b>${escape(one.to)}</b> <small>${one.at}</small><p>${escape(one.text)}</p></li>`
		)
		.join('');
	return `<!doctype html><html lang="en-GB"><meta charset="utf-8"><title>Text messages (stand-in)</title><style>body{font:16px/1.5 system-ui;max-width:36rem;margin:2rem auto;padding:0 1rem}li{margin:0 0 1rem}p{margin:.2rem 0;white-space:pre-wrap}</style><h1>Text messages</h1><p>A stand-in: nothing is sent.</p><ul>${rows || '<li>None yet.</li>'}</ul></html>`;
}
