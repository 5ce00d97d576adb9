// The gateway for mail against a server that answers as told: what is known to have gone, what may be tried again, and
// what nobody can know.
import { createServer, type Server, type Socket } from 'node:net';
import { expect } from 'chai';
import { afterEach, describe, it } from 'mocha';
import { smtpGateway, type MailMessage } from '../../../src/lib/server/gateways/mail';

const MESSAGE: MailMessage = {
	messageId: '<one@axiometer.example>',
	from: { name: 'Orrell Lime & Plaster', address: 'tamsin@orrell-lime.example' },
	to: 'odile@post.example',
	cc: '',
	bcc: 'tamsin@orrell-lime.example',
	subject: 'Invoice INV-7',
	text: 'Hello',
	html: '<p>Hello</p>',
	attachments: [
		{ filename: 'INV-7.pdf', content: Buffer.from('%PDF'), contentType: 'application/pdf' }
	]
};

interface Script {
	greeting?: string | 'hang up';
	rcpt?: string | ((line: string) => string);
	data?: string;
	/** After the whole text has come. */
	end?: string | 'hang up';
	/** In the middle of the text. */
	during?: 'hang up';
}
let server: Server | undefined;
const open = new Set<Socket>();
afterEach(() => {
	for (const socket of open) socket.destroy();
	server?.close();
});

/** Speaks as much of the protocol as the script needs. */
async function speaking(script: Script): Promise<{ url: string; heard: string[] }> {
	const heard: string[] = [];
	server = createServer((socket) => {
		open.add(socket);
		socket.on('error', () => undefined);
		if (script.greeting === 'hang up') return void socket.destroy();
		const say = (line: string) => socket.write(`${line}\r\n`);
		let text: string | null = null;
		let rest = '';
		socket.on('data', (chunk) => {
			rest += chunk.toString();
			if (text !== null) {
				text += rest;
				rest = '';
				if (script.during === 'hang up') return void socket.destroy();
				if (!text.includes('\r\n.\r\n')) return;
				heard.push(`TEXT ${text}`);
				text = null;
				if (script.end === 'hang up') return void socket.destroy();
				return void say(script.end ?? '250 taken');
			}
			const lines = rest.split('\r\n');
			rest = lines.pop()!;
			for (const line of lines) {
				heard.push(line);
				const command = line.slice(0, 4).toUpperCase();
				if (command === 'DATA') {
					const answer = script.data ?? '354 go ahead';
					say(answer);
					if (answer.startsWith('354')) text = '';
				} else if (command === 'RCPT')
					say(typeof script.rcpt === 'function' ? script.rcpt(line) : (script.rcpt ?? '250 ok'));
				else if (command === 'QUIT') say('221 bye');
				else say('250 ok');
			}
		});
		say(script.greeting ?? '220 ready');
	});
	await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve));
	const address = server.address();
	const port = typeof address === 'object' && address ? address.port : 0;
	return { url: `smtp://127.0.0.1:${port}`, heard };
}
const sent = async (script: Script, message: Partial<MailMessage> = {}) => {
	const { url, heard } = await speaking(script);
	return { outcome: await smtpGateway(url).send({ ...MESSAGE, ...message }), heard };
};

describe('mail handed to a server', () => {
	it('is sent when the server has taken it, to the payer and the copy alone', async () => {
		const { outcome, heard } = await sent({});
		expect(outcome).to.deep.equal({ state: 'sent' });
		expect(heard.filter((line) => line.startsWith('RCPT'))).to.deep.equal([
			'RCPT TO:<odile@post.example>',
			'RCPT TO:<tamsin@orrell-lime.example>'
		]);
		const text = heard.find((line) => line.startsWith('TEXT'))!;
		expect(text).to.contain('Message-ID: <one@axiometer.example>');
		expect(text).to.contain('INV-7.pdf');
		// Nobody reads who else got it.
		expect(text).not.to.match(/^bcc:/im);
	});

	it('says who was not taken where others were, and whether for good', async () => {
		const { outcome } = await sent(
			{
				rcpt: (line) =>
					line.includes('odile') ? '550 nobody here' : line.includes('bea') ? '451 later' : '250 ok'
			},
			{ cc: 'bea@post.example' }
		);
		expect(outcome).to.deep.equal({
			state: 'sent',
			missed: [
				{ address: 'odile@post.example', reason: 'the mail server answered 550', forGood: true },
				{ address: 'bea@post.example', reason: 'the mail server answered 451', forGood: false }
			]
		});
	});

	it('asks for one recipient where there is no copy', async () => {
		const { heard } = await sent({}, { bcc: '' });
		expect(heard.filter((line) => line.startsWith('RCPT'))).to.have.length(1);
	});

	for (const [what, script] of [
		['the recipient', { rcpt: '550 nobody here' }],
		['the text', { end: '554 looks like spam' }],
		['the wish to send', { data: '554 not today' }]
	] as const)
		it(`is refused for good when ${what} is`, async () => {
			const { outcome } = await sent(script, { bcc: '' });
			expect(outcome.state).to.equal('refused');
			expect('reason' in outcome && outcome.reason).to.match(/answered 55[04]/);
		});

	for (const [what, script] of [
		['the recipient', { rcpt: '451 try later' }],
		['the text', { end: '452 disk full' }],
		['the wish to send', { data: '421 busy' }]
	] as const)
		it(`is tried later when ${what} is put off`, async () => {
			const { outcome } = await sent(script, { bcc: '' });
			expect(outcome.state).to.equal('later');
			expect('reason' in outcome && outcome.reason).to.match(/answered 4/);
		});

	it('is tried later when nobody listens, or the line breaks before the text goes over', async () => {
		expect((await sent({ greeting: 'hang up' })).outcome.state).to.equal('later');
		const { url } = await speaking({});
		for (const socket of open) socket.destroy();
		await new Promise<void>((resolve) => server!.close(() => resolve()));
		server = undefined;
		expect(await smtpGateway(url).send(MESSAGE)).to.deep.equal({
			state: 'later',
			reason: 'the mail server could not be reached'
		});
	});

	it('may have gone when the line breaks while or after the text goes over', async () => {
		for (const script of [{ during: 'hang up' }, { end: 'hang up' }] as const) {
			const { outcome } = await sent(script);
			expect(outcome, JSON.stringify(script)).to.deep.equal({
				state: 'unsure',
				reason: 'the line broke while the message was handed over'
			});
		}
	});

	it('is refused where the address can be none', async () => {
		const { outcome } = await sent({}, { to: 'no address', bcc: '' });
		expect(outcome.state).to.equal('refused');
	});
});
