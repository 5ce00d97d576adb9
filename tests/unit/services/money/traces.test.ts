// What every movement of money leaves behind: the entry in the journal, the line in the trail and who did it, the source
// of the payment; and the edges of paying online.
// Over 300 lines: one entry for each movement.
import { expect } from 'chai';
import { desc, eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { readCursor } from '../../../../src/lib/core/paging';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import {
	bankLines,
	checkouts,
	documents,
	journalEntries,
	payments,
	payouts,
	trail
} from '../../../../src/lib/server/db/schema';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { discardDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { type Changed } from '../../../../src/lib/server/services/money/bank/bringIn';
import { bringIn } from '../../../support/bank';
import { billCardFees } from '../../../../src/lib/server/services/money/cardFees';
import { openCheckout, referenceOf } from '../../../../src/lib/server/services/money/checkouts';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { paymentsOf } from '../../../../src/lib/server/services/money/payments';
import { writeAtOnce } from '../../../../src/lib/server/db/connection';
import { bookPayout, payoutPage } from '../../../../src/lib/server/services/money/payouts';
import { refundByHand } from '../../../../src/lib/server/services/money/refunds';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { returnInHand, useInHand } from '../../../../src/lib/server/services/money/useInHand';
import { undoWriteOff, writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, oneLine, payByHand } from '../../../support/money';
import {
	BUSINESS,
	issued,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld({ passOnCardFees: true })));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const firm = () => issued(world, FIRM, oneLine('1000'));
const tokenOf = (id: number) => documentDetail(world, id).link.split('/').at(-1)!;
const lastEvent = () =>
	world.db
		.select({ event: journalEntries.event })
		.from(journalEntries)
		.orderBy(desc(journalEntries.id))
		.limit(1)
		.get()!.event;
const trailOf = (id: number) =>
	world.db
		.select({ who: trail.who, what: trail.what, detail: trail.detail })
		.from(trail)
		.where(eq(trail.documentId, id))
		.orderBy(desc(trail.id))
		.all();
const left = (id: number) => [lastEvent(), trailOf(id)[0]!.who, trailOf(id)[0]!.what];

describe('what moves money by hand leaves', () => {
	it('each its own entry and its own word, by the owner', async () => {
		const { id, customerId } = await firm();
		const payment = payByHand(world, id, '100');
		expect(left(id)).to.deep.equal(['payment', 'you', 'paid']);
		expect(world.db.select().from(payments).get()).to.include({
			source: 'hand',
			way: 'bank',
			fee: 0
		});
		undoPayment(world, payment, 'Slip');
		expect(left(id)).to.deep.equal(['reversal', 'you', 'paymentUndone']);
		payByHand(world, id, '200');
		refundByHand(world, id, {
			key: 'r',
			date: '2026-11-24',
			amount: '50',
			way: 'cash',
			reference: ''
		});
		expect(left(id)).to.deep.equal(['refund', 'you', 'refunded']);
		expect(trailOf(id)[0]!.detail).to.equal('£50.00');
		writeOff(world, id, 'Gone', 'w');
		expect(left(id)).to.deep.equal(['writeOff', 'you', 'writtenOff']);
		expect(trailOf(id)[0]!.detail).to.equal('£1,050.00: Gone');
		undoWriteOff(world, id, 'u');
		expect(left(id)).to.deep.equal(['writeOff', 'you', 'takenUpAgain']);
		const over = recordForPayer(world, customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '1100',
			way: 'bank',
			reference: ''
		});
		const next = await another(world, customerId, '10');
		useInHand(world, next.id, 'use');
		expect(left(next.id)).to.deep.equal(['apply', 'you', 'creditApplied']);
		returnInHand(world, over, {
			key: 'b',
			date: '2026-11-24',
			amount: '1',
			way: 'bank',
			reference: ''
		});
		expect(lastEvent()).to.equal('refund');
	});
});

describe('what moves money online leaves', () => {
	for (const [way, words] of [
		['card', { begun: 'cardBegun', pending: 'cardPending', failed: 'cardDeclined' }],
		['bank', { begun: 'bankBegun', pending: 'bankPending', failed: 'bankFailed' }]
	] as const)
		it(`by ${way}: each step, by the customer, once`, async () => {
			const { id } = await firm();
			await openCheckout(world, tokenOf(id), `${way}:1`, 500_00, { way });
			const checkout = world.checkouts[0]!.id;
			expect(trailOf(id)[0]).to.deep.equal({
				who: 'customer',
				what: words.begun,
				detail: '£500.00'
			});
			await openCheckout(world, tokenOf(id), `${way}:1`, 500_00, { way });
			expect(trailOf(id).filter((one) => one.what === words.begun)).to.have.length(1);
			const news = (type: 'payment.pending' | 'payment.declined') =>
				receive(world, { ...settledEvent(checkout, 500_00), type });
			news('payment.pending');
			expect(trailOf(id)[0]).to.include({ who: 'customer', what: words.pending });
			news('payment.pending');
			expect(trailOf(id).filter((one) => one.what === words.pending)).to.have.length(1);
			news('payment.declined');
			expect(trailOf(id)[0]).to.include({ who: 'customer', what: words.failed });
			receive(world, settledEvent(checkout, 500_00));
			expect(trailOf(id)[0]).to.include({ who: 'customer', what: 'paid' });
			expect(world.db.select().from(payments).get()).to.include({ source: 'checkout', way });
			expect(paymentsOf(world, id)[0]!.byProcessor).to.equal(way === 'card');
			// What comes after it is settled is late news.
			news('payment.declined');
			expect(trailOf(id)[0]!.what).to.equal('paid');
			expect(world.db.select().from(checkouts).get()!.state).to.equal('settled');
		});

	it('asks for a penny to what is left, and for nothing where nothing is left', async () => {
		const { id } = await firm();
		const token = tokenOf(id);
		const refused = async (amount: number) => {
			try {
				await openCheckout(world, token, `k${amount}`, amount);
			} catch (problem) {
				if (problem instanceof FieldError) return problem.fields.amount;
				throw problem;
			}
			return null;
		};
		expect(await refused(0)).to.equal('Give an amount above zero.');
		expect(await refused(1.5)).to.equal('Give an amount above zero.');
		expect(await refused(1200_01)).to.equal('At most £1,200.00 is still to pay.');
		expect(await refused(1)).to.equal(null);
		expect(await refused(1200_00)).to.equal(null);
		payByHand(world, id, '1200');
		const none = await openCheckout(world, token, 'late').catch((problem: unknown) => problem);
		expect(none).to.be.instanceOf(RefusedError);
		const unknown = await openCheckout(world, 'no-such-token', 'x').catch(
			(problem: unknown) => problem
		);
		expect(unknown).to.be.instanceOf(NotFoundError);
	});

	it('is called in bank statements by letters, digits and hyphens, 18 at most', () => {
		expect(referenceOf('INV-0007')).to.equal('INV-0007');
		expect(referenceOf('Nº 7/2026')).to.equal('N72026');
		expect(referenceOf('A'.repeat(19))).to.have.length(18);
		expect(referenceOf('№ / ')).to.equal('INVOICE');
	});
});

describe('a card fee that was borne on top', () => {
	async function borne() {
		const { id } = await firm();
		await openCheckout(world, tokenOf(id), 'card:1');
		receive(world, {
			...settledEvent(world.checkouts[0]!.id, 1200_00),
			fee: 18_00,
			feeOnTop: 18_00
		});
		return id;
	}
	it('is billed once, and never again where its draft was thrown away', async () => {
		await borne();
		// Without a number the document cannot be issued: the draft waits.
		world.db.$client.prepare(`update vat_statuses set number = ''`).run();
		expect(await billCardFees(world)).to.equal(0);
		const draft = world.db.select().from(documents).where(eq(documents.origin, 'cardFee')).get()!;
		expect(draft.state).to.equal('draft');
		discardDraft(world, draft.id, true);
		world.db.$client.prepare(`update vat_statuses set number = '444444454'`).run();
		expect(await billCardFees(world)).to.equal(0);
		expect(
			world.db.select().from(documents).where(eq(documents.origin, 'cardFee')).all()
		).to.have.length(1);
	});

	it('whose draft waited is billed when what was missing is there', async () => {
		await borne();
		world.db.$client.prepare(`update vat_statuses set number = ''`).run();
		await billCardFees(world);
		world.db.$client.prepare(`update vat_statuses set number = '${BUSINESS.vatNumber}'`).run();
		expect(await billCardFees(world)).to.equal(1);
		expect(
			world.db.select().from(documents).where(eq(documents.origin, 'cardFee')).get()!.state
		).to.equal('issued');
	});
});

describe('payouts', () => {
	it('are shown twenty at a time, the newest first, there and back', () => {
		for (let n = 1; n <= 45; n++)
			writeAtOnce(world.db, (tx) =>
				bookPayout(tx, world, {
					id: `e${n}`,
					type: 'payout.paid',
					payout: `po-${n}`,
					amount: n,
					reference: `R${n}`,
					parts: [{ checkout: `c${n}`, type: 'payment', amount: n, fee: 0 }]
				})
			);
		expect(world.db.select().from(payouts).all()).to.have.length(45);
		const references = (page: ReturnType<typeof payoutPage>) =>
			page.payouts.map((one) => one.reference);
		const at = (way: 'before' | 'after', place: string) =>
			payoutPage(world, readCursor(new URLSearchParams({ [way]: place })));
		const first = payoutPage(world);
		// Each with its own payments, and theirs alone.
		expect(
			first.payouts.slice(0, 2).map(({ collected, fees, parts }) => [collected, fees, parts.length])
		).to.deep.equal([
			[45, 0, 1],
			[44, 0, 1]
		]);
		expect(references(first)).to.deep.equal(Array.from({ length: 20 }, (_, n) => `R${45 - n}`));
		expect(first.before).to.equal(null);
		const second = at('after', first.after!);
		expect(references(second)[0]).to.equal('R25');
		const third = at('after', second.after!);
		expect(references(third)).to.deep.equal(['R5', 'R4', 'R3', 'R2', 'R1']);
		expect(third.after).to.equal(null);
		expect(references(at('before', third.before!))).to.deep.equal(references(second));
		expect(references(at('before', second.before!))).to.deep.equal(references(first));
	});
});

describe('the columns of a bank’s file', () => {
	const bytes = (text: string) => new TextEncoder().encode(text);
	const FILE = 'Day,Words,In,Out\n2026-11-20,Corvane,12.00,\n2026-11-21,Rent,,50.00\n';
	const chosen = { date: '0', text: '1', in: '2', out: '3', dates: 'ymd', account: 'Till' };
	const refused = (changed: Changed): string[] => {
		try {
			bringIn(world, 'a.csv', bytes(FILE), changed);
		} catch (problem) {
			if (problem instanceof FieldError) return Object.keys(problem.fields);
			throw problem;
		}
		return [];
	};

	it('are a date, and an amount or what came in or went out', () => {
		const none = ['columns'];
		expect(refused({ text: '1', in: '2' })).to.deep.equal(none);
		expect(refused({ date: '0', text: '1' })).to.deep.equal(none);
		expect(refused({ date: '-1', in: '2' })).to.deep.equal(none);
		expect(refused({ date: '0', in: '201' })).to.deep.equal(none);
		expect(refused({ date: '1', in: '2', dates: 'ymd' }), 'no row can be read').to.deep.equal(none);
		expect(refused(chosen)).to.deep.equal([]);
		expect(
			world.db
				.select({
					account: bankLines.account,
					date: bankLines.date,
					amount: bankLines.amount,
					text: bankLines.text
				})
				.from(bankLines)
				.all()
		).to.deep.equal([
			{ account: 'Till', date: '2026-11-20', amount: 12_00, text: 'Corvane' },
			{ account: 'Till', date: '2026-11-21', amount: -50_00, text: 'Rent' }
		]);
	});

	it('are asked about once for the same headings, and remembered with the account', () => {
		expect(refused(chosen)).to.deep.equal([]);
		const next = bringIn(
			world,
			'b.csv',
			bytes('Day,Words,In,Out\n2026-11-22,Achterberg,7.00,\n2026-11-20,Corvane,12.00,\n')
		);
		expect(next).to.include({ added: 1, known: 1, unread: 0 });
		expect(
			world.db
				.select()
				.from(bankLines)
				.all()
				.map((one) => one.account)
		).to.deep.equal(['Till', 'Till', 'Till']);
	});
});
