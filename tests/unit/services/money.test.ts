// Payments by hand and by card. Over 300 lines: every way to pay against the same three invoices.
import { expect } from 'chai';
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { expectSoundBooks } from '../../support/books';
import { openCheckout } from '../../../src/lib/server/services/money/checkouts';
import { documentDetail } from '../../../src/lib/server/services/desk/documents';
import { FieldError, NotFoundError } from '../../../src/lib/core/refusals';
import { deliverDue } from '../../../src/lib/server/clockwork/delivery';
import { settleInterrupted } from '../../../src/lib/server/services/messages/deliver';
import { mailsOf, sendAgain } from '../../../src/lib/server/services/messages/outbox';
import { noteOpened, payPage, payPagePdf } from '../../../src/lib/server/services/money/payPage';
import { recordPayment, type PaymentForm } from '../../../src/lib/server/services/money/payments';
import { undoPayment } from '../../../src/lib/server/services/money/undo';
import { tryOut } from '../../../src/lib/server/services/invoices/trial';
import { prepareSending, sendByMail } from '../../../src/lib/server/services/invoices/send';
import { isSigned } from '../../../src/lib/server/gateways/asking';
import { createHmac } from 'node:crypto';
import {
	CONTRACTOR,
	draftOf,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld,
	wordsOf
} from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	if (!world.db.$client.open) return;
	expectSoundBooks(world.db);
	world.end();
});

const tokenOf = (id: number) => documentDetail(world, id).link.split('/').at(-1)!;
const account = (name: string) =>
	world.db.get<{ n: number }>(
		sql`select coalesce(sum(amount), 0) as n from journal_lines where account = ${name}`
	).n;
const pay = (id: number, amount: string, more: Partial<PaymentForm> = {}) =>
	recordPayment(world, id, {
		key: `k${amount}`,
		date: '2026-11-24',
		amount,
		withheld: '',
		way: 'bank',
		reference: '',
		allowOverpaid: false,
		...more
	});

describe('payments by hand', () => {
	it('a contractor that pays total minus deduction has paid in full', async () => {
		const { id } = await issued(world, CONTRACTOR);
		pay(id, '£1,984.00');
		const { item, toPay } = documentDetail(world, id);
		expect([item?.state, item?.withheld, toPay]).to.deep.equal(['paid', 31600n, 0n]);
		expect([account('bank'), account('cisWithheld'), account('receivable')]).to.deep.equal([
			198400, 31600, 0
		]);
	});

	it('in parts, what is withheld follows the cash', async () => {
		const { id } = await issued(world, CONTRACTOR);
		pay(id, '992.00');
		expect(documentDetail(world, id).item).to.include({
			state: 'partPaid',
			withheld: 15800n,
			outstanding: 115000n
		});
		pay(id, '992');
		expect(documentDetail(world, id).item?.state).to.equal('paid');
	});

	it('with another deduction stated than expected, the rest stays open', async () => {
		const { id } = await issued(world, CONTRACTOR);
		pay(id, '1700.00', { withheld: '400.00' });
		expect(documentDetail(world, id).item).to.include({ withheld: 40000n, outstanding: 20000n });
	});

	it('more than is owed is asked about first, then kept as overpaid', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		expect(() => pay(id, '3000')).to.throw(FieldError, '£240.00 more');
		pay(id, '3000', { allowOverpaid: true });
		expect(documentDetail(world, id).item).to.include({ state: 'paid', overpaid: 24000n });
	});

	it('the same press twice is one payment', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		expect(pay(id, '100')).to.equal(pay(id, '100'));
		expect(documentDetail(world, id).payments).to.have.length(1);
	});

	it('undone, it leaves its trace and a reversing entry', async () => {
		const { id } = await issued(world, CONTRACTOR);
		const payment = pay(id, '1984');
		undoPayment(world, payment, 'typed on the wrong invoice');
		undoPayment(world, payment, 'pressed twice');
		expect(documentDetail(world, id).item).to.include({
			state: 'open',
			withheld: 0n,
			outstanding: 230000n
		});
		expect([account('bank'), account('cisWithheld'), account('receivable')]).to.deep.equal([
			0, 0, 230000
		]);
		expect(documentDetail(world, id).trail.map((entry) => entry.what)).to.include.members([
			'paid',
			'paymentUndone'
		]);
	});

	for (const [what, form, field] of [
		['no number', { amount: 'lots' }, 'amount'],
		['nothing', { amount: '0.00' }, 'amount'],
		['less than nothing', { amount: '-5' }, 'amount'],
		['a day to come', { amount: '5', date: '2026-11-25' }, 'date'],
		['a deduction that is not expected', { amount: '5', withheld: '1' }, 'withheld'],
		['no such way', { amount: '5', way: 'shells' }, 'way']
	] as [string, Partial<PaymentForm>, string][]) {
		it(`refuses ${what}, at its field`, async () => {
			const { id } = await issued(world, HOUSEHOLD);
			try {
				pay(id, form.amount ?? '', form);
				expect.fail();
			} catch (error) {
				expect((error as FieldError).fields).to.have.key(field);
			}
		});
	}
});

describe('card payments', () => {
	it('are recorded once, the fee apart, with a receipt and a notice', async () => {
		const { id } = await issued(world, CONTRACTOR);
		await openCheckout(world, tokenOf(id), 'k');
		const event = settledEvent('chk-1', 198400);
		receive(world, event);
		receive(world, event);
		receive(world, settledEvent('chk-1', 198400, 'another event of the same payment'));
		expect(documentDetail(world, id).item).to.include({
			state: 'paid',
			cash: 198400n,
			withheld: 31600n
		});
		expect([account('cardClearing'), account('cardFees')]).to.deep.equal([198375, 25]);
		await deliverDue(world);
		expect(world.sent.map((mail) => mail.to)).to.deep.equal([
			CONTRACTOR.email,
			'tamsin@orrell-lime.example'
		]);
	});

	it('out of order, the earlier news changes nothing', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		await openCheckout(world, tokenOf(id), 'k');
		receive(world, settledEvent('chk-1', 276000));
		receive(world, {
			id: 'late',
			type: 'payment.pending',
			checkout: 'chk-1',
			amount: 276000,
			fee: 0
		});
		receive(world, {
			id: 'later',
			type: 'payment.declined',
			checkout: 'chk-1',
			amount: 276000,
			fee: 0
		});
		expect(documentDetail(world, id).item?.state).to.equal('paid');
		expect(payPage(world, tokenOf(id)).state).to.equal('paid');
	});

	it('declined, nothing is recorded and one can try again; settling late, the page says so', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		await openCheckout(world, tokenOf(id), 'k');
		receive(world, {
			id: 'd',
			type: 'payment.declined',
			checkout: 'chk-1',
			amount: 276000,
			fee: 0
		});
		expect(payPage(world, tokenOf(id))).to.include({ state: 'open', toPay: 276000 });
		await openCheckout(world, tokenOf(id), 'k2');
		receive(world, { id: 'p', type: 'payment.pending', checkout: 'chk-2', amount: 276000, fee: 0 });
		expect(payPage(world, tokenOf(id)).state).to.equal('pending');
		receive(world, settledEvent('chk-2', 276000));
		expect(payPage(world, tokenOf(id)).state).to.equal('paid');
	});

	it('in part, the invoice is part paid; more than is left is refused', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		await openCheckout(world, tokenOf(id), 'k', 100000);
		receive(world, settledEvent('chk-1', 100000));
		expect(documentDetail(world, id).item).to.include({ state: 'partPaid', outstanding: 176000n });
		const error = await openCheckout(world, tokenOf(id), 'k2', 176001).catch((one) => one);
		expect(error).to.be.instanceOf(FieldError);
	});

	it('paid twice in two tabs at once, both are kept and the rest is shown as overpaid', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		await openCheckout(world, tokenOf(id), 'k1');
		await openCheckout(world, tokenOf(id), 'k2');
		receive(world, settledEvent('chk-1', 276000));
		receive(world, settledEvent('chk-2', 276000));
		expect(documentDetail(world, id).item).to.include({ state: 'paid', overpaid: 276000n });
	});

	it('given back, the invoice is open again; a refund heard of twice is one', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		await openCheckout(world, tokenOf(id), 'k');
		receive(world, settledEvent('chk-1', 276000));
		const refund = {
			id: 'r',
			type: 'refund.settled' as const,
			checkout: 'chk-1',
			amount: 76000,
			fee: 0,
			refund: 'ref-1'
		};
		receive(world, refund);
		receive(world, refund);
		expect(documentDetail(world, id).item).to.include({ cash: 200000n, outstanding: 76000n });
	});

	it('with the processor down nothing is begun', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		world.cardDown = true;
		const error = await openCheckout(world, tokenOf(id), 'k').catch((one: Error) => one);
		expect((error as Error).name).to.equal('Error');
		expect(world.db.get<{ n: number }>(sql`select count(*) as n from checkouts`).n).to.equal(0);
	});

	it('an event of an unknown checkout is not taken, so that it is sent again', () => {
		expect(() => receive(world, settledEvent('chk-9', 1))).to.throw(NotFoundError);
		expect(world.db.get<{ n: number }>(sql`select count(*) as n from webhook_events`).n).to.equal(
			0
		);
	});

	it('for a trial it is pretended: the receipt comes, the books do not move', async () => {
		const draft = draftOf(world, HOUSEHOLD);
		const { link } = await tryOut(world, draft.id, 'r');
		await openCheckout(world, link.split('/').at(-1)!, 'k');
		receive(world, settledEvent('chk-1', 276000));
		expect(payPage(world, link.split('/').at(-1)!)).to.include({ trial: true, state: 'paid' });
		expect(world.db.get<{ n: number }>(sql`select count(*) as n from journal_entries`).n).to.equal(
			0
		);
		await deliverDue(world);
		expect(
			world.sent.every(
				(mail) => mail.to === 'tamsin@orrell-lime.example' && mail.subject.startsWith('Test')
			)
		).to.equal(true);
	});

	it('believes only the processor’s signature', () => {
		const body = '{"id":"1"}';
		const sign = (secret: string, text = body) =>
			createHmac('sha256', secret).update(`1764.${text}`).digest('hex');
		const check = (signature: string | null, time: string | null = '1764', now = 1764) =>
			isSigned(body, { time, signature }, 'the secret of both', now * 1000);
		const right = sign('the secret of both');
		expect(check(right)).to.equal(true);
		// Signed five minutes ago, or ahead, by another clock: that much and no more.
		expect([1464, 1463, 2064, 2065].map((now) => check(right, '1764', now))).to.deep.equal([
			true,
			false,
			true,
			false
		]);
		for (const wrong of [
			sign('another secret'),
			sign('the secret of both', `${body} `),
			'zz',
			'',
			null
		])
			expect(check(wrong)).to.equal(false);
		expect(check(sign('the secret of both'), '1765')).to.equal(false);
	});
});

describe('the pay page', () => {
	it('opens for its own link only', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		const other = await issued(world, { ...HOUSEHOLD, name: 'Someone Else' });
		const token = tokenOf(id);
		const altered = `${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`;
		for (const wrong of [
			altered,
			token.slice(1),
			`${token}x`,
			'',
			String(id),
			"' or 1=1 --",
			'a'.repeat(32)
		]) {
			expect(() => payPage(world, wrong), wrong).to.throw(NotFoundError);
			expect(() => payPagePdf(world, wrong), wrong).to.throw(NotFoundError);
		}
		expect(wordsOf(payPage(world, token)))
			.to.not.contain('Someone Else')
			.and.not.contain(tokenOf(other.id));
	});

	it('never shows the private note, and notes that it was opened, once a visit', async () => {
		const { id } = await issued(world, { ...HOUSEHOLD, privateNote: 'haggles' });
		expect(wordsOf(payPage(world, tokenOf(id)))).to.not.contain('haggles');
		noteOpened(world, tokenOf(id), 'opened');
		noteOpened(world, tokenOf(id), 'opened');
		world.clock.set(world.clock.now() + 3_600_000);
		noteOpened(world, tokenOf(id), 'opened');
		expect(
			documentDetail(world, id).trail.filter((entry) => entry.what === 'opened')
		).to.have.length(2);
	});
});

describe('mail', () => {
	const send = (id: number, key = 's') => {
		const { subject, text } = prepareSending(world, id);
		sendByMail(world, id, { key, to: 'odile@post.example', subject, text, copyToSelf: true });
	};

	it('goes out with the PDF, the link and a copy to oneself, once for each press', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		send(id);
		send(id);
		await Promise.all([deliverDue(world), deliverDue(world)]);
		expect(world.sent).to.have.length(1);
		expect(world.sent[0]).to.include({
			to: 'odile@post.example',
			bcc: 'tamsin@orrell-lime.example'
		});
		expect(world.sent[0]?.text).to.contain(documentDetail(world, id).link);
		expect(world.sent[0]?.attachments[0]?.content.subarray(0, 5).toString()).to.equal('%PDF-');
	});

	it('with the server down it waits, is tried again, and goes once', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		world.mailAnswer = () => ({ state: 'later', reason: 'the mail server could not be reached' });
		send(id);
		await deliverDue(world);
		expect(mailsOf(world, id)[0]).to.include({ state: 'queued', attempts: 1 });
		world.mailAnswer = () => ({ state: 'sent' });
		await deliverDue(world);
		expect(world.sent).to.have.length(0);
		world.clock.set(world.clock.now() + 60_000);
		await deliverDue(world);
		expect(world.sent).to.have.length(1);
	});

	it('refused, it is shown and goes again when told to', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		world.mailAnswer = () => ({ state: 'refused', reason: 'the mail server answered 550' });
		send(id);
		await deliverDue(world);
		const [mail] = mailsOf(world, id);
		expect(mail).to.include({ state: 'failed', lastError: 'the mail server answered 550' });
		world.mailAnswer = () => ({ state: 'sent' });
		sendAgain(world, mail!.id);
		await deliverDue(world);
		expect(mailsOf(world, id)[0]?.state).to.equal('sent');
	});

	it('after a crash in the middle of sending it is not sent again unasked', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		send(id);
		world.db.run(sql`update mails set state = 'sending'`);
		settleInterrupted(world);
		world.clock.set(world.clock.now() + 86_400_000);
		await deliverDue(world);
		expect(world.sent).to.have.length(0);
		expect(mailsOf(world, id)[0]?.state).to.equal('unsure');
	});

	it('nothing typed becomes markup, and no line break a header', async () => {
		const evil = '<script>alert(1)</script>';
		const { id } = await issued(
			world,
			{ ...HOUSEHOLD, name: evil },
			{ rows: [line('a', evil, '10')] }
		);
		sendByMail(world, id, {
			key: 's',
			to: 'a@post.example',
			subject: 'x\r\nBcc: b@post.example',
			text: evil,
			copyToSelf: false
		});
		await deliverDue(world);
		expect(world.sent[0]?.html).to.not.contain('<script');
		expect(world.sent[0]?.subject).to.equal('x Bcc: b@post.example');
	});

	for (const to of ['', 'nobody', 'a@post.example, b@', 'a@post.example\nBcc: c@post.example']) {
		it(`refuses the address ${JSON.stringify(to)}`, async () => {
			const { id } = await issued(world, HOUSEHOLD);
			expect(() =>
				sendByMail(world, id, { key: 's', to, subject: 's', text: 't', copyToSelf: false })
			).to.throw(FieldError);
		});
	}
});
