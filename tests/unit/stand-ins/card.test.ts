import { expect } from 'chai';
import { createHmac } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { isSigned } from '../../../src/lib/server/gateways/asking';
import { httpCardGateway, CardUnavailableError } from '../../../src/lib/server/gateways/card';
import { startCardStandIn, type CardStandIn } from '../../../stand-ins/card/server';
import { until } from '../../support/app';

const SECRET = 'the secret of both sides';

describe('the card processor, and our gateway to it', () => {
	let folder: string;
	let standIn: CardStandIn;
	let shop: Server;
	let heard: { type: string; amount: number; fee: number; signed: boolean }[];
	let answerWith: number;
	let port: number;
	let shopPort: number;

	async function start(options: { twice?: boolean; outOfOrder?: boolean } = {}): Promise<void> {
		standIn = await startCardStandIn({
			port,
			file: join(folder, 'card.sqlite'),
			origin: `http://127.0.0.1:${port}`,
			secret: SECRET,
			lateAfter: 300,
			...options
		});
	}

	beforeEach(async () => {
		folder = mkdtempSync(join(tmpdir(), 'axiometer-card-'));
		heard = [];
		answerWith = 200;
		shop = createServer((request, response) => {
			let body = '';
			request.on('data', (chunk) => (body += chunk));
			request.on('end', () => {
				const headers = {
					time: String(request.headers['card-time']),
					signature: String(request.headers['card-signature'])
				};
				heard.push({ ...JSON.parse(body), signed: isSigned(body, headers, SECRET, Date.now()) });
				response.writeHead(answerWith).end();
			});
		});
		const portOf = (server: Server) =>
			new Promise<number>((resolve) =>
				server.listen(0, '127.0.0.1', () => resolve((server.address() as { port: number }).port))
			);
		shopPort = await portOf(shop);
		const spare = createServer();
		port = await portOf(spare);
		await new Promise((resolve) => spare.close(resolve));
	});
	afterEach(async () => {
		await standIn.close();
		shop.closeAllConnections();
		await new Promise((resolve) => shop.close(resolve));
		rmSync(folder, { recursive: true, force: true });
	});

	const gateway = (secret = SECRET) => httpCardGateway(`http://127.0.0.1:${port}`, secret);
	const checkout = (key = 'k', amount = 10_000) =>
		gateway().openCheckout({
			key,
			amount,
			description: 'Invoice 7',
			returnUrl: 'http://127.0.0.1/back',
			webhookUrl: `http://127.0.0.1:${shopPort}/hook`
		});
	const pay = (url: string, number: string) =>
		fetch(url, { method: 'POST', body: new URLSearchParams({ number }), redirect: 'manual' }).then(
			(answer) => answer.status
		);
	const types = () => heard.map((event) => event.type);

	it('answers the same attempt with the same checkout, and only to the right secret', async () => {
		await start();
		const first = await checkout();
		expect(await checkout()).to.deep.equal(first);
		expect((await checkout('another')).id).to.not.equal(first.id);
		const error = await gateway('somebody else’s')
			.openCheckout({
				key: 'x',
				amount: 1,
				description: '',
				returnUrl: 'http://a.example',
				webhookUrl: 'http://a.example'
			})
			.catch((one) => one);
		expect(error).to.be.instanceOf(CardUnavailableError);
	});

	it('tells of a payment, signed, with its fee, and tells again until it is acknowledged', async () => {
		await start();
		const { url } = await checkout();
		answerWith = 500;
		expect(await pay(url, '9000 0000 0000 0001')).to.equal(303);
		await until(async () => heard.length >= 2, 300, 'a second try');
		answerWith = 200;
		await until(async () => heard.length >= 3, 300, 'a third');
		const before = heard.length;
		await new Promise((resolve) => setTimeout(resolve, 1500));
		expect(heard.length).to.equal(before);
		expect(heard[0]).to.include({
			type: 'payment.settled',
			amount: 10_000,
			fee: 160,
			signed: true
		});
	});

	it('keeps what it has to tell through a restart', async () => {
		await start();
		const { url } = await checkout();
		answerWith = 500;
		await pay(url, '9000000000000001');
		await until(async () => heard.length >= 1);
		await standIn.close();
		heard = [];
		answerWith = 200;
		await start();
		await until(async () => heard.length >= 1);
		expect(types()).to.deep.equal(['payment.settled']);
	});

	it('knows cards that are declined, ask for a code, settle late; a paid page is not paid twice', async () => {
		await start();
		const declined = await checkout('a');
		expect(await pay(declined.url, '9000000000000002')).to.equal(402);
		expect(await pay(declined.url, '1234')).to.equal(422);
		const coded = await checkout('b');
		expect(await pay(coded.url, '9000000000000003')).to.equal(200);
		const code = (text: string) =>
			fetch(`${coded.url}/code`, {
				method: 'POST',
				body: new URLSearchParams({ code: text }),
				redirect: 'manual'
			}).then((answer) => answer.status);
		expect([
			await code('000000'),
			await code('246810'),
			await pay(coded.url, '9000000000000001')
		]).to.deep.equal([422, 303, 200]);
		const late = await checkout('c');
		expect(await pay(late.url, '9000000000000004')).to.equal(303);
		await until(async () => heard.length === 4);
		expect(types().sort()).to.deep.equal([
			'payment.declined',
			'payment.pending',
			'payment.settled',
			'payment.settled'
		]);
	});

	it('may tell twice, and out of order', async () => {
		await start({ twice: true, outOfOrder: true });
		const { url } = await checkout();
		await pay(url, '9000000000000004');
		await until(async () => heard.length === 4);
		expect(types()).to.deep.equal([
			'payment.settled',
			'payment.settled',
			'payment.pending',
			'payment.pending'
		]);
	});

	it('gives money back once for each press, and never more than came in', async () => {
		await start();
		const { id, url } = await checkout();
		await pay(url, '9000000000000001');
		const give = (key: string, amount: number) => gateway().refund({ key, checkoutId: id, amount });
		expect(await give('r', 6_000)).to.deep.equal(await give('r', 6_000));
		expect(await give('s', 4_001).catch((error) => error)).to.be.instanceOf(CardUnavailableError);
		await until(async () => types().includes('refund.settled'));
		expect(
			heard.filter((event) => event.type === 'refund.settled').map((event) => event.amount)
		).to.deep.equal([6_000]);
	});

	it('signs nothing that somebody else could', () => {
		const forged = createHmac('sha256', 'guess').update('1.{}').digest('hex');
		expect(isSigned('{}', { time: '1', signature: forged }, SECRET, 1000)).to.equal(false);
		return start();
	});
});
