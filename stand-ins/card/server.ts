// A card processor that stands in for a real one: a hosted payment page, signed webhooks that are repeated until
// they are acknowledged (and may arrive twice or out of order), refunds, and a fee. Nothing is charged for real.
// Over 300 lines: one processor whose requests, events and payouts share one store and would only pass it around.
import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { z } from 'zod';
import { newsRequest, startEvents } from '../events';
import { amountInPounds, read } from '../page';
import { cardPage, CARDS, codePage, donePage, feeOf, feePage, paidPage } from './pages';
import { openStore } from './store';

export interface CardStandInOptions {
	port: number;
	file: string;
	/** The base of the addresses it gives out. */
	origin: string;
	secret: string;
	/** Milliseconds until a late card settles. */
	lateAfter?: number;
	/** Delivers each event a second time. */
	twice?: boolean;
	/** Delivers the news that a payment is pending only after it has settled. */
	outOfOrder?: boolean;
	/** Milliseconds until money is paid out. */
	payOutAfter?: number;
}

export interface CardStandIn {
	close(): Promise<void>;
}

interface Checkout {
	id: string;
	key: string;
	amount: number;
	description: string;
	return_url: string;
	webhook_url: string;
	state: 'open' | 'code' | 'pending' | 'settled' | 'declined';
	keep: number;
	number: string | null;
	pass_on: number;
}

interface Earned {
	rowid: number;
	checkout: string;
	type: 'payment' | 'refund';
	amount: number;
	fee: number;
}

interface KeptCard {
	token: string;
	number: string;
	charges: number;
	forgotten: number;
}

const checkoutRequest = z.object({
	amount: z.number().int().min(1),
	currency: z.literal('GBP'),
	description: z.string().max(300),
	returnUrl: z.url(),
	webhookUrl: z.url(),
	keepCard: z.boolean().optional(),
	passOnFee: z.boolean().optional()
});
const chargeRequest = z.object({
	token: z.string().min(1),
	amount: z.number().int().min(1),
	currency: z.literal('GBP'),
	description: z.string().max(300),
	webhookUrl: z.url()
});
const refundRequest = z.object({ amount: z.number().int().min(1) });

export async function startCardStandIn(options: CardStandInOptions): Promise<CardStandIn> {
	const db = openStore(options.file);
	const find = (id: string) =>
		db.prepare('SELECT * FROM checkouts WHERE id = ?').get(id) as Checkout | undefined;

	const events = startEvents(db, { secret: options.secret, name: 'card', twice: options.twice });

	function emit(checkout: Checkout, type: string, extra: object = {}, delay = 0): void {
		const { id, amount, webhook_url } = checkout;
		events.emit(webhook_url, { type, checkout: id, amount, fee: 0, ...extra }, delay);
	}

	/** Notes what is to be paid out for a payment or a refund. */
	function earn(checkout: string, type: 'payment' | 'refund', amount: number, fee: number): void {
		db.prepare('INSERT INTO earned (checkout, type, amount, fee, at) VALUES (?, ?, ?, ?, ?)').run(
			checkout,
			type,
			amount,
			fee,
			Date.now()
		);
	}

	/** Sends what has lain long enough to the seller's bank, in one payout. */
	function payOut(): void {
		const parts = db
			.prepare('SELECT rowid, * FROM earned WHERE payout IS NULL AND at <= ?')
			.all(Date.now() - (options.payOutAfter ?? 120_000)) as Earned[];
		const amount = parts.reduce((sum, part) => sum + part.amount - part.fee, 0);
		if (amount <= 0) return;
		const { webhook_url } = find(parts.at(-1)!.checkout)!;
		const id = `po_${randomBytes(6).toString('hex')}`;
		const reference = `CARDPAY ${id.slice(3, 11).toUpperCase()}`;
		db.transaction(() => {
			for (const part of parts)
				db.prepare('UPDATE earned SET payout = ? WHERE rowid = ?').run(id, part.rowid);
			events.emit(webhook_url, {
				type: 'payout.paid',
				payout: id,
				amount,
				reference,
				parts: parts.map(({ checkout, type, amount: part, fee }) => ({
					checkout,
					type,
					amount: part,
					fee
				}))
			});
		})();
	}
	const payOuts = setInterval(payOut, Math.min(options.payOutAfter ?? 120_000, 5_000));

	function settle(checkout: Checkout, feeOnTop = 0): void {
		db.prepare('UPDATE checkouts SET state = ? WHERE id = ?').run('settled', checkout.id);
		const fee = feeOf(checkout.amount);
		earn(checkout.id, 'payment', checkout.amount + feeOnTop, fee);
		const onTop = feeOnTop ? { feeOnTop } : {};
		emit(checkout, 'payment.settled', { fee, ...onTop, ...keptWith(checkout) });
	}

	/** A token for the card, where the customer let it be kept. */
	function keptWith(checkout: Checkout): { card?: { token: string; lastDigits: string } } {
		const row = find(checkout.id);
		if (!row?.keep || !row.number) return {};
		const token = `crd_${randomBytes(12).toString('hex')}`;
		db.prepare('INSERT INTO cards (token, number) VALUES (?, ?)').run(token, row.number);
		return { card: { token, lastDigits: row.number.slice(-4) } };
	}

	/** Charges a kept card. The same key again answers the same. */
	function charge(key: string, given: z.output<typeof chargeRequest>): object {
		const same = db.prepare('SELECT * FROM checkouts WHERE key = ?').get(key) as
			Checkout | undefined;
		if (same) return { id: same.id, state: same.state };
		const card = db.prepare('SELECT * FROM cards WHERE token = ?').get(given.token) as
			KeptCard | undefined;
		const does = CARDS.find((one) => one.number === card?.number);
		const count = (card?.charges ?? 0) + 1;
		const refused =
			!card || card.forgotten === 1 || (does?.number === '9000000000000005' && count % 2 === 0);
		const state = refused ? 'declined' : does?.does === 'late' ? 'pending' : 'settled';
		const id = `chk_${randomBytes(12).toString('hex')}`;
		db.transaction(() => {
			db.prepare(
				"INSERT INTO checkouts (id, key, amount, description, return_url, webhook_url, state) VALUES (?, ?, ?, ?, '', ?, ?)"
			).run(id, key, given.amount, given.description, given.webhookUrl, state);
			db.prepare('UPDATE cards SET charges = ? WHERE token = ?').run(count, given.token);
			const row = find(id)!;
			const fee = feeOf(given.amount);
			if (state !== 'declined') earn(id, 'payment', given.amount, fee);
			if (state === 'declined') emit(row, 'payment.declined');
			else emit(row, 'payment.settled', { fee }, state === 'pending' ? options.lateAfter : 0);
		})();
		return { id, state };
	}

	function pay(checkout: Checkout, number: string, response: ServerResponse): void {
		const card = CARDS.find((one) => one.number === number.replace(/\D/g, ''));
		if (card) {
			db.prepare('UPDATE checkouts SET number = ? WHERE id = ?').run(card.number, checkout.id);
		}
		const page = (status: number, html: string) =>
			response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(html);
		if (!card)
			return void page(422, cardPage(checkout, 'This stand-in knows only the cards listed below.'));
		if (card.does === 'decline') {
			emit(checkout, 'payment.declined');
			return void page(
				402,
				cardPage(checkout, 'The card was declined. Nothing was charged. Try another.')
			);
		}
		if (card.does === 'commercial' && checkout.pass_on)
			return void page(200, feePage(checkout, feeOf(checkout.amount)));
		if (card.does === 'code') {
			db.prepare('UPDATE checkouts SET state = ? WHERE id = ?').run('code', checkout.id);
			return void page(200, codePage(checkout, ''));
		}
		if (card.does === 'late') {
			db.prepare('UPDATE checkouts SET state = ? WHERE id = ?').run('pending', checkout.id);
			const late = options.lateAfter ?? 20_000;
			earn(checkout.id, 'payment', checkout.amount, feeOf(checkout.amount));
			emit(checkout, 'payment.pending', {}, options.outOfOrder ? late + 400 : 0);
			emit(
				checkout,
				'payment.settled',
				{ fee: feeOf(checkout.amount), ...keptWith(checkout) },
				late
			);
		} else settle(checkout);
		response.writeHead(303, { location: checkout.return_url }).end();
	}

	const disputeOf = (id: string) =>
		db.prepare('SELECT * FROM disputes WHERE checkout = ?').get(id) as
			{ id: string; respond_by: string; state: string } | undefined;

	/** The card's holder disputes a payment, or the bank decides: money that goes back is part of the next payout. */
	function dispute(checkout: Checkout, step: string): void {
		const known = disputeOf(checkout.id);
		const about = (id: string, respondBy: string) => ({
			dispute: id,
			respondBy,
			reason: 'The card’s holder does not know this payment'
		});
		if (step === 'dispute' && !known) {
			const id = `dsp_${randomBytes(9).toString('hex')}`;
			const respondBy = new Date(Date.now() + 10 * 86_400_000).toISOString().slice(0, 10);
			db.prepare('INSERT INTO disputes (id, checkout, respond_by, state) VALUES (?, ?, ?, ?)').run(
				id,
				checkout.id,
				respondBy,
				'open'
			);
			emit(checkout, 'dispute.opened', about(id, respondBy));
		} else if (known?.state === 'open' && (step === 'won' || step === 'lost')) {
			db.prepare('UPDATE disputes SET state = ? WHERE id = ?').run(step, known.id);
			if (step === 'lost') earn(checkout.id, 'refund', -checkout.amount, 0);
			emit(checkout, `dispute.${step}`, about(known.id, known.respond_by));
		}
	}

	async function hosted(
		request: IncomingMessage,
		response: ServerResponse,
		id: string,
		step: string | undefined
	): Promise<void> {
		const html = (status: number, body: string) =>
			response.writeHead(status, { 'content-type': 'text/html; charset=utf-8' }).end(body);
		const checkout = find(id);
		if (!checkout) return void html(404, donePage('This payment page does not exist.', ''));
		if (checkout.state === 'settled' && step && request.method === 'POST') dispute(checkout, step);
		if (checkout.state === 'settled')
			return void html(200, paidPage(checkout, disputeOf(id)?.state ?? null));
		if (checkout.state === 'pending')
			return void html(
				200,
				donePage(`${amountInPounds(checkout.amount)} has been paid already.`, checkout.return_url)
			);
		if (request.method !== 'POST')
			return void html(
				200,
				checkout.state === 'code' ? codePage(checkout, '') : cardPage(checkout, '')
			);
		const form = new URLSearchParams(await read(request));
		if (step === 'fee') {
			settle(checkout, feeOf(checkout.amount));
			return void response.writeHead(303, { location: checkout.return_url }).end();
		}
		if (step === 'code') {
			if (form.get('code') !== '246810')
				return void html(422, codePage(checkout, 'That is not the code.'));
			settle(checkout);
			return void response.writeHead(303, { location: checkout.return_url }).end();
		}
		pay(checkout, form.get('number') ?? '', response);
	}

	function refund(
		checkout: Checkout,
		key: string,
		amount: number
	): { status: number; body: object } {
		const same = db.prepare('SELECT id FROM refunds WHERE key = ?').get(key) as
			{ id: string } | undefined;
		if (same) return { status: 200, body: same };
		const before = (
			db
				.prepare('SELECT coalesce(sum(amount), 0) AS sum FROM refunds WHERE checkout = ?')
				.get(checkout.id) as { sum: number }
		).sum;
		if (checkout.state !== 'settled' || before + amount > checkout.amount)
			return { status: 409, body: { error: 'more than was paid' } };
		const id = `ref_${randomBytes(9).toString('hex')}`;
		db.prepare('INSERT INTO refunds (id, key, checkout, amount) VALUES (?, ?, ?, ?)').run(
			id,
			key,
			checkout.id,
			amount
		);
		earn(checkout.id, 'refund', -amount, 0);
		emit(checkout, 'refund.settled', { amount, refund: id });
		return { status: 201, body: { id } };
	}

	async function api(
		request: IncomingMessage,
		response: ServerResponse,
		path: string
	): Promise<void> {
		const json = (status: number, body: object) =>
			response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
		if (request.headers.authorization !== `Bearer ${options.secret}`)
			return void json(401, { error: 'unauthorised' });
		const key = String(request.headers['idempotency-key'] ?? '');
		const given: unknown = JSON.parse((await read(request)) || '{}');
		if (path === '/checkouts') {
			const parsed = checkoutRequest.safeParse(given);
			if (!parsed.success || !key) return void json(400, { error: 'bad request' });
			let row = db.prepare('SELECT * FROM checkouts WHERE key = ?').get(key) as
				Checkout | undefined;
			if (!row) {
				const { amount, description, returnUrl, webhookUrl, keepCard, passOnFee } = parsed.data;
				const id = `chk_${randomBytes(12).toString('hex')}`;
				db.prepare(
					"INSERT INTO checkouts (id, key, amount, description, return_url, webhook_url, state, keep, pass_on) VALUES (?, ?, ?, ?, ?, ?, 'open', ?, ?)"
				).run(
					id,
					key,
					amount,
					description,
					returnUrl,
					webhookUrl,
					keepCard ? 1 : 0,
					passOnFee ? 1 : 0
				);
				row = find(id)!;
			}
			return void json(201, { id: row.id, url: `${options.origin}/pay/${row.id}` });
		}
		if (path === '/news') {
			const parsed = newsRequest.safeParse(given);
			return void (parsed.success
				? json(200, events.since(parsed.data))
				: json(400, { error: 'bad request' }));
		}
		if (path === '/charges') {
			const parsed = chargeRequest.safeParse(given);
			if (!parsed.success || !key) return void json(400, { error: 'bad request' });
			return void json(201, charge(key, parsed.data));
		}
		const kept = /^\/cards\/([^/]+)\/forget$/.exec(path);
		if (kept) {
			db.prepare('UPDATE cards SET forgotten = 1 WHERE token = ?').run(kept[1]);
			return void json(200, {});
		}
		const match = /^\/checkouts\/([^/]+)\/refunds$/.exec(path);
		const checkout = match && find(match[1]!);
		const parsed = refundRequest.safeParse(given);
		if (!checkout || !parsed.success || !key) return void json(404, { error: 'not found' });
		const { status, body } = refund(checkout, key, parsed.data.amount);
		json(status, body);
	}

	const server = createServer((request, response) => {
		const { pathname } = new URL(request.url ?? '/', 'http://card');
		const page = /^\/pay\/([^/]+)(?:\/(code|fee|dispute|won|lost))?$/.exec(pathname);
		const work = page
			? hosted(request, response, page[1]!, page[2])
			: request.method === 'POST'
				? api(request, response, pathname)
				: Promise.resolve(void response.writeHead(404).end());
		work.catch(() => response.writeHead(500).end());
	});
	await new Promise<void>((resolve) => server.listen(options.port, '127.0.0.1', resolve));
	return {
		async close() {
			events.stop();
			clearInterval(payOuts);
			server.closeAllConnections();
			await new Promise((resolve) => server.close(resolve));
			db.close();
		}
	};
}
