// A mail server that stands in for a real one: it takes mail by SMTP, keeps it, and shows it in a small inbox.
//
// Addresses that behave: `refused@…` is refused for good, `later@…` is turned away for now, `cut@…` breaks
// the line after the message was handed over. Everything else arrives.
import { createServer, type ServerResponse } from 'node:http';
import Sqlite from 'better-sqlite3';
import { simpleParser } from 'mailparser';
import { SMTPServer, type SMTPServerDataStream } from 'smtp-server';

export interface MailStandIn {
	close(): Promise<void>;
}

interface Row {
	id: number;
	at: string;
	recipients: string;
	subject: string;
	raw: Buffer;
}

const PAGE = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Stand-in inbox</title><style>body{font:16px/1.5 system-ui;margin:2rem auto;max-width:60rem;padding:0 1rem;color:#222}
table{width:100%;border-collapse:collapse}td,th{text-align:left;padding:.4rem;border-bottom:1px solid #ddd;vertical-align:top}
iframe{width:100%;height:28rem;border:1px solid #ccc}dt{float:left;width:6rem;color:#555}</style>`;

function escape(text: string): string {
	return text
		.replaceAll('&', '&amp;')
		.replaceAll('<', '&lt;')
		.replaceAll('>', '&gt;')
		.replaceAll('"', '&quot;');
}

export async function startMailStandIn(options: {
	smtpPort: number;
	inboxPort: number;
	file: string;
}): Promise<MailStandIn> {
	const db = new Sqlite(options.file);
	db.pragma('journal_mode = WAL');
	db.exec(
		'CREATE TABLE IF NOT EXISTS mails (id INTEGER PRIMARY KEY, at TEXT, recipients TEXT, subject TEXT, raw BLOB)'
	);

	const smtp = new SMTPServer({
		authOptional: true,
		disabledCommands: ['AUTH', 'STARTTLS'],
		size: 30 * 1024 * 1024,
		onRcptTo({ address }, _session, done) {
			if (address.startsWith('refused@'))
				return done(Object.assign(new Error('No such mailbox'), { responseCode: 550 }));
			if (address.startsWith('later@'))
				return done(Object.assign(new Error('Mailbox busy'), { responseCode: 450 }));
			done();
		},
		onData(stream, session, done) {
			void read(stream).then(async (raw) => {
				const recipients = session.envelope.rcptTo.map((to) => to.address);
				const parsed = await simpleParser(raw);
				db.prepare('INSERT INTO mails (at, recipients, subject, raw) VALUES (?, ?, ?, ?)').run(
					new Date().toISOString(),
					recipients.join(', '),
					parsed.subject ?? '',
					raw
				);
				if (recipients.some((address) => address.startsWith('cut@'))) {
					// The message is kept, but the sender never hears so.
					for (const connection of smtp.connections as Set<{ _socket?: { destroy(): void } }>)
						connection._socket?.destroy();
					return;
				}
				done();
			}, done);
		}
	});
	smtp.on('error', () => undefined);

	const web = createServer((request, response) => {
		void answer(db, new URL(request.url ?? '/', 'http://inbox').pathname, response).catch(() =>
			response.writeHead(500).end()
		);
	});
	await Promise.all([
		new Promise<void>((resolve) => smtp.listen(options.smtpPort, '127.0.0.1', resolve)),
		new Promise<void>((resolve) => web.listen(options.inboxPort, '127.0.0.1', resolve))
	]);
	return {
		async close() {
			await new Promise<void>((resolve) => smtp.close(resolve));
			web.closeAllConnections();
			await new Promise((resolve) => web.close(resolve));
			db.close();
		}
	};
}

async function read(stream: SMTPServerDataStream): Promise<Buffer> {
	const chunks: Buffer[] = [];
	for await (const chunk of stream) chunks.push(chunk as Buffer);
	return Buffer.concat(chunks);
}

async function answer(db: Sqlite.Database, path: string, response: ServerResponse): Promise<void> {
	const send = (status: number, type: string, body: string | Buffer) =>
		response
			.writeHead(status, { 'content-type': type, 'content-security-policy': "script-src 'none'" })
			.end(body);
	if (path === '/') {
		const rows = db
			.prepare('SELECT id, at, recipients, subject FROM mails ORDER BY id DESC LIMIT 200')
			.all() as Row[];
		const body = rows
			.map(
				(row) =>
					`<tr><td>${row.at.slice(0, 16).replace('T', ' ')}<td>${escape(row.recipients)}<td><a href="/${row.id}">${escape(row.subject)}</a>`
			)
			.join('');
		return void send(
			200,
			'text/html; charset=utf-8',
			`${PAGE}<h1>Stand-in inbox</h1><table><tr><th>Arrived<th>To<th>Subject${body}</table>${rows.length ? '' : '<p>Nothing has arrived yet.</p>'}`
		);
	}
	if (path === '/mails.json') {
		const rows = db.prepare('SELECT * FROM mails ORDER BY id').all() as Row[];
		const mails = await Promise.all(
			rows.map(async (row) => {
				const parsed = await simpleParser(row.raw);
				return {
					id: row.id,
					recipients: row.recipients.split(', '),
					subject: row.subject,
					messageId: parsed.messageId,
					text: parsed.text,
					html: parsed.html || '',
					attachments: parsed.attachments.map((file) => ({
						name: file.filename,
						size: file.size,
						type: file.contentType
					}))
				};
			})
		);
		return void send(200, 'application/json', JSON.stringify(mails));
	}
	const match = /^\/(\d+)(?:\/(body|\d+))?$/.exec(path);
	const row =
		match &&
		(db.prepare('SELECT * FROM mails WHERE id = ?').get(Number(match[1])) as Row | undefined);
	if (!match || !row) return void send(404, 'text/plain', 'Not here');
	const mail = await simpleParser(row.raw);
	if (match[2] === 'body')
		return void send(
			200,
			'text/html; charset=utf-8',
			mail.html || `<pre>${escape(mail.text ?? '')}</pre>`
		);
	if (match[2]) {
		const file = mail.attachments[Number(match[2])];
		return void (file
			? send(200, file.contentType, file.content)
			: send(404, 'text/plain', 'Not here'));
	}
	const files = mail.attachments
		.map((file, index) => `<a href="/${row.id}/${index}">${escape(file.filename ?? 'file')}</a>`)
		.join(' ');
	send(
		200,
		'text/html; charset=utf-8',
		`${PAGE}<p><a href="/">All mail</a><h1>${escape(row.subject)}</h1><dl><dt>From<dd>${escape(mail.from?.text ?? '')}<dt>To<dd>${escape(row.recipients)}<dt>Files<dd>${files || 'none'}</dl><iframe src="/${row.id}/body" title="Message" sandbox="allow-popups allow-top-navigation-by-user-activation"></iframe>`
	);
}
