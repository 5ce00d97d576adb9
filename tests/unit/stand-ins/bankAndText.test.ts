import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { isSigned } from '../../../src/lib/server/gateways/asking';
import { BankUnavailableError, httpBankGateway } from '../../../src/lib/server/gateways/bank';
import { httpTextGateway, textEvent } from '../../../src/lib/server/gateways/text';
import { startBankStandIn } from '../../../stand-ins/bank/server';
import { startTextStandIn } from '../../../stand-ins/text/server';
import { freePort, until } from '../../support/app';

const SECRET = 'the secret of both sides';
const HOOK = 'http://127.0.0.1:9/webhooks/text';

describe('the payer’s bank, and our gateway to it', () => {
	let folder: string;
	let app: Server;
	let base: string;
	let standIn: Awaited<ReturnType<typeof startBankStandIn>>;
	let heard: { type: string; transfer: string; amount: number; signed: boolean }[];
	let webhookUrl: string;

	beforeEach(async () => {
		folder = mkdtempSync(join(tmpdir(), 'axiometer-bank-'));
		heard = [];
		const [appPort, port] = [await freePort(), await freePort()];
		webhookUrl = `http://127.0.0.1:${appPort}/webhooks/bank`;
		app = createServer(async (request, response) => {
			const chunks: Buffer[] = [];
			for await (const chunk of request) chunks.push(chunk as Buffer);
			const body = Buffer.concat(chunks).toString();
			const header = (name: string) => String(request.headers[name] ?? '');
			const headers = { time: header('bank-time'), signature: header('bank-signature') };
			heard.push({ ...JSON.parse(body), signed: isSigned(body, headers, SECRET, Date.now()) });
			response.end();
		}).listen(appPort, '127.0.0.1');
		base = `http://127.0.0.1:${port}`;
		standIn = await startBankStandIn({
			port,
			file: join(folder, 'bank.sqlite'),
			origin: base,
			secret: SECRET,
			lateAfter: 200
		});
	});
	afterEach(async () => {
		await standIn.close();
		app.closeAllConnections();
		app.close();
		rmSync(folder, { recursive: true, force: true });
	});

	const open = (key = 'press', secret = SECRET) =>
		httpBankGateway(base, secret).openTransfer({
			key,
			amount: 120_00,
			reference: 'OLP-0301',
			description: 'Invoice OLP-0301',
			returnUrl: 'http://127.0.0.1/p/x',
			webhookUrl
		});
	const approve = (url: string, how: string) =>
		fetch(url, { method: 'POST', body: new URLSearchParams({ how }), redirect: 'manual' });
	const types = () => heard.map((one) => one.type);

	it('answers the same attempt with the same transfer, and only to the right secret', async () => {
		const [one, same, other] = [await open(), await open(), await open('another')];
		expect(same).to.deep.equal(one);
		expect(other.id).not.to.equal(one.id);
		const refused = await open('x', 'another secret').catch((error: unknown) => error);
		expect(refused).to.be.instanceOf(BankUnavailableError);
		expect(await (await fetch(one.url)).text())
			.to.include('OLP-0301')
			.and.include('£120.00');
	});

	for (const [how, news] of [
		['now', ['transfer.settled']],
		['late', ['transfer.pending', 'transfer.settled']],
		['fails', ['transfer.pending', 'transfer.failed']]
	] as const)
		it(`approved “${how}” it says ${news.join(', then ')}, signed, and once`, async () => {
			const { id, url } = await open();
			const answer = await approve(url, how);
			expect(answer.headers.get('location')).to.equal('http://127.0.0.1/p/x');
			await approve(url, 'now');
			await until(async () => heard.length === news.length);
			await new Promise((resolve) => setTimeout(resolve, 400));
			expect(types()).to.deep.equal(news);
			expect(
				heard.every((one) => one.signed && one.transfer === id && one.amount === 120_00)
			).to.equal(true);
		});

	it('that cannot be reached has begun nothing', async () => {
		await standIn.close();
		const refused = await open().catch((error: unknown) => error);
		expect(refused).to.be.instanceOf(BankUnavailableError);
		standIn = { close: async () => undefined };
	});
});

describe('the text gateway', () => {
	it('takes a message once, refuses what is no mobile number, and can be tried again later', async () => {
		const port = await freePort();
		const gateway = httpTextGateway(`http://127.0.0.1:${port}`, SECRET, HOOK);
		const message = { key: 'chase:1', to: '07700 900123', text: 'Hello' };
		expect((await gateway.send(message)).state).to.equal('later');
		const standIn = await startTextStandIn({ port, secret: SECRET });
		expect(await gateway.send(message)).to.deep.equal({ state: 'sent' });
		expect(await gateway.send(message)).to.deep.equal({ state: 'sent' });
		expect((await gateway.send({ ...message, key: 'b', to: '01632 960001' })).state).to.equal(
			'refused'
		);
		const stranger = httpTextGateway(`http://127.0.0.1:${port}`, 'another secret', HOOK);
		expect((await stranger.send({ ...message, key: 'c' })).state).to.equal('later');
		const taken = await (await fetch(`http://127.0.0.1:${port}/messages.json`)).json();
		expect(taken).to.have.length(1);
		expect(taken[0]).to.include({ to: '07700900123', text: 'Hello' });
		await standIn.close();
	});

	it('tells, signed and until it is heard, what was answered and what did not arrive', async () => {
		const [port, appPort] = [await freePort(), await freePort()];
		const heard: Record<string, unknown>[] = [];
		let busy = true;
		const app = createServer(async (request, response) => {
			const chunks: Buffer[] = [];
			for await (const chunk of request) chunks.push(chunk as Buffer);
			const body = Buffer.concat(chunks).toString();
			const header = (name: string) => String(request.headers[name] ?? '');
			const headers = { time: header('text-time'), signature: header('text-signature') };
			response.writeHead(busy ? 503 : 200).end();
			if (busy) busy = false;
			else
				heard.push({
					...textEvent.parse(JSON.parse(body)),
					signed: isSigned(body, headers, SECRET, Date.now())
				});
		}).listen(appPort, '127.0.0.1');
		const standIn = await startTextStandIn({ port, secret: SECRET });
		const base = `http://127.0.0.1:${port}`;
		const hook = `http://127.0.0.1:${appPort}/webhooks/text`;
		await httpTextGateway(base, SECRET, hook).send({ key: 'told:1', to: '07700900123', text: 'x' });
		const back = (form: Record<string, string>) =>
			fetch(`${base}/back`, { method: 'POST', body: new URLSearchParams({ id: '1', ...form }) });
		await back({ answer: 'Fine' });
		await back({ answer: ' ' });
		await until(async () => heard.length === 1);
		await back({ lost: 'yes' });
		await until(async () => heard.length === 2);
		await standIn.close();
		app.close();
		expect(
			heard.map(({ type, from, text, key, signed }) => [type, from ?? key, text, signed])
		).to.deep.equal([
			['reply', '07700900123', 'Fine', true],
			['undelivered', 'told:1', undefined, true]
		]);
	});
});
