// Whether a card processor's adapter does what Axiometer relies on: `npm run conform -- URL SECRET [public address of this machine]`. It opens checkouts of
// £1.23, asks you to pay one of them, and says what holds. docs/operations.md describes the interface.
import { createServer, type Server } from 'node:http';
import { randomBytes } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { isSigned } from '../src/lib/server/gateways/asking';
import {
	cardEvent,
	disputeEvent,
	httpCardGateway,
	type CardEvent,
	type DisputeEvent
} from '../src/lib/server/gateways/card';

export interface Conformance {
	base: string;
	secret: string;
	/** Where this machine is reached for webhooks, without a slash at the end; it listens at `port`. */
	reached: string;
	port: number;
	/** Has a checkout paid: a person does it, or a test. */
	pay: (url: string) => Promise<void>;
	/** Has the payment of a checkout disputed, or decided in the bank's place. */
	dispute: (url: string, step: 'dispute' | 'won') => Promise<void>;
	/** So long news are waited for, in milliseconds. */
	patience: number;
}

export interface Finding {
	what: string;
	/** Empty: it holds. */
	wrong: string;
}

interface HeardDispute {
	event: DisputeEvent;
	signed: boolean;
}

interface Heard {
	event: CardEvent;
	body: string;
	signed: boolean;
}

const AMOUNT = 123;

/** Listens for news; the first time of each is not acknowledged, so that it must come again. */
function listen(
	port: number,
	secret: string
): { heard: Heard[]; disputes: HeardDispute[]; server: Server } {
	const heard: Heard[] = [];
	const disputes: HeardDispute[] = [];
	const seen = new Set<string>();
	const server = createServer(async (request, response) => {
		const parts: Buffer[] = [];
		for await (const part of request) parts.push(part as Buffer);
		const body = Buffer.concat(parts).toString();
		const header = (name: string) => (request.headers[name] as string | undefined) ?? null;
		const signed = isSigned(
			body,
			{ time: header('card-time'), signature: header('card-signature') },
			secret,
			Date.now()
		);
		const event = cardEvent.safeParse(JSON.parse(body));
		if (event.success) {
			heard.push({ event: event.data, body, signed });
			response.statusCode = seen.has(event.data.id) ? 200 : 500;
			seen.add(event.data.id);
		}
		const dispute = disputeEvent.safeParse(JSON.parse(body));
		if (dispute.success) disputes.push({ event: dispute.data, signed });
		response.end();
	}).listen(port);
	return { heard, disputes, server };
}

/** Tries everything Axiometer relies on, in order. */
export async function conformance(given: Conformance): Promise<Finding[]> {
	const { base, secret, patience } = given;
	const findings: Finding[] = [];
	const { heard, disputes, server } = listen(given.port, secret);
	const gateway = httpCardGateway(base, secret);
	const run = randomBytes(6).toString('hex');
	const request = {
		amount: AMOUNT,
		description: 'Conformance',
		returnUrl: `${given.reached}/back`,
		webhookUrl: `${given.reached}/news`
	};
	const check = async (what: string, work: () => Promise<string>) => {
		try {
			findings.push({ what, wrong: await work() });
		} catch (error) {
			findings.push({ what, wrong: error instanceof Error ? error.message : String(error) });
		}
	};
	const wait = async (fits: (one: Heard) => boolean, least = 1): Promise<Heard[]> => {
		for (const end = Date.now() + patience; Date.now() < end;) {
			const found = heard.filter(fits);
			if (found.length >= least) return found;
			await new Promise((resolve) => setTimeout(resolve, 50));
		}
		return heard.filter(fits);
	};
	const begun = Date.now();
	let checkout = { id: '', url: '' };
	try {
		await check('the same key is the same checkout', async () => {
			checkout = await gateway.openCheckout({ key: `${run}-a`, ...request });
			const again = await gateway.openCheckout({ key: `${run}-a`, ...request });
			const other = await gateway.openCheckout({ key: `${run}-b`, ...request });
			if (again.id !== checkout.id) return 'a second checkout was opened for it';
			return other.id === checkout.id ? 'another key got the same one' : '';
		});
		await check('a wrong secret is refused', async () => {
			const wrong = httpCardGateway(base, `${secret}x`).openCheckout({
				key: `${run}-c`,
				...request
			});
			return wrong.then(
				() => 'it opened a checkout',
				() => ''
			);
		});
		await check('a payment is told, signed, with its amount and fee', async () => {
			await given.pay(checkout.url);
			const [news] = await wait(({ event }) => event.type === 'payment.settled');
			if (!news) return 'nothing was heard';
			if (!news.signed) return 'it is not signed as it must be';
			if (news.event.checkout !== checkout.id) return 'it names another checkout';
			if (news.event.amount !== AMOUNT) return `it says ${news.event.amount}`;
			return news.event.fee < AMOUNT ? '' : 'its fee is all of it';
		});
		await check('news that were not acknowledged come again, the same', async () => {
			const all = await wait(({ event }) => event.type === 'payment.settled', 2);
			if (all.length < 2) return 'they came once';
			return new Set(all.map(({ body }) => body)).size === 1 ? '' : 'they differ';
		});
		await check('money is given back once for a key, and never more than was paid', async () => {
			const refund = { key: `${run}-r`, checkoutId: checkout.id, amount: 100 };
			const [one, same] = [await gateway.refund(refund), await gateway.refund(refund)];
			if (one.id !== same.id) return 'the same key gave it back twice';
			return gateway.refund({ key: `${run}-s`, checkoutId: checkout.id, amount: 24 }).then(
				() => 'more than was paid could be given back',
				() => ''
			);
		});
		await check('a refund is told with its number', async () => {
			const [news] = await wait(({ event }) => event.type === 'refund.settled');
			if (!news) return 'nothing was heard';
			return news.event.amount === 100 && news.event.refund ? '' : `it says ${news.body}`;
		});
		const told = async (type: DisputeEvent['type']) => {
			for (const end = Date.now() + patience; Date.now() < end;) {
				const found = disputes.find(({ event }) => event.type === type);
				if (found) return found;
				await new Promise((resolve) => setTimeout(resolve, 50));
			}
			return undefined;
		};
		await check(
			'a dispute is told, signed, of its checkout and with the last day for evidence',
			async () => {
				await given.dispute(checkout.url, 'dispute');
				const news = await told('dispute.opened');
				if (!news) return 'nothing was heard';
				if (!news.signed) return 'it is not signed as it must be';
				if (news.event.checkout !== checkout.id) return 'it names another checkout';
				if (news.event.amount > AMOUNT) return `it says ${news.event.amount}`;
				return news.event.respondBy >= new Date(begun).toISOString().slice(0, 10)
					? ''
					: `evidence was taken until ${news.event.respondBy}`;
			}
		);
		await check('how a dispute ended is told under the same name', async () => {
			await given.dispute(checkout.url, 'won');
			const [opened, ended] = [await told('dispute.opened'), await told('dispute.won')];
			if (!opened || !ended) return 'nothing was heard';
			return ended.event.dispute === opened.event.dispute ? '' : 'it names another dispute';
		});
		await check('a card that is not known is charged by nobody', async () => {
			const charge = gateway.charge({
				key: `${run}-k`,
				token: `nobody-${run}`,
				amount: AMOUNT,
				description: 'Conformance',
				webhookUrl: request.webhookUrl
			});
			const state = await charge.then(
				(answer) => answer.state,
				() => 'refused'
			);
			return state === 'settled' || state === 'pending' ? `it is ${state}` : '';
		});
		await check('a card that is not known is forgotten already', async () => {
			await gateway.forgetCard(`nobody-${run}`);
			return '';
		});
		await check('all it has told is told again for books from a backup', async () => {
			const all = (await gateway.newsSince(begun - 1000)).map((one) => cardEvent.safeParse(one));
			const known = new Set(all.flatMap((one) => (one.success ? [one.data.id] : [])));
			const missing = heard.filter(({ event }) => !known.has(event.id));
			return missing.length ? `${missing.length} are missing` : '';
		});
		await check('a payment page is reached', async () => {
			const page = await fetch(checkout.url);
			return page.status < 500 ? '' : `it answers ${page.status}`;
		});
	} finally {
		server.closeAllConnections();
		server.close();
	}
	return findings;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
	const [base, secret, reached = 'http://127.0.0.1:4499'] = process.argv.slice(2);
	if (!base || !secret) {
		console.error(
			'Which adapter? npm run conform -- URL SECRET [address of this machine for webhooks]'
		);
		process.exit(2);
	}
	const findings = await conformance({
		base: base.replace(/\/$/, ''),
		secret,
		reached: reached.replace(/\/$/, ''),
		port: Number(new URL(reached).port) || 4499,
		patience: 120_000,
		pay: async (url) => console.log(`Pay here, with a test card: ${url}`),
		dispute: async (url, step) =>
			console.log(
				step === 'dispute'
					? `Have this payment disputed: ${url}`
					: `Have that dispute decided for the seller: ${url}`
			)
	});
	for (const { what, wrong } of findings)
		console.log(`${wrong ? 'NO ' : 'yes'} ${what}${wrong ? `: ${wrong}` : ''}`);
	process.exitCode = findings.some(({ wrong }) => wrong) ? 1 : 0;
}
