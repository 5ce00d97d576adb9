// Lines of the bank accepted: recorded, tied to what is in the books already, taken back, opened again.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { NotFoundError, RefusedError } from '../../../../../src/lib/core/refusals';
import {
	bankLines,
	paymentReversals,
	payments,
	payouts
} from '../../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../../src/lib/server/services/customers/customers';
import { inHandOf } from '../../../../../src/lib/server/services/ledger/inHand';
import {
	acceptLine,
	acceptReversal,
	reopenLine,
	setNotBusiness
} from '../../../../../src/lib/server/services/money/bank/accept';
import { recordedMoney } from '../../../../../src/lib/server/services/money/bank/facts';
import { bankPage } from '../../../../../src/lib/server/services/money/bank/lines';
import { receivePayout } from '../../../../../src/lib/server/services/money/payouts';
import { refusedAt } from '../../../../support/refused';
import { bringIn } from '../../../../support/bank';
import { expectSoundBooks } from '../../../../support/books';
import { another, FIRM, itemOf, oneLine, payByHand } from '../../../../support/money';
import { CONTRACTOR, issued, line, makeWorld, type TestWorld } from '../../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

/** Lines of one statement, in their order. */
function bring(...rows: string[]) {
	const file = ['Date,Description,Amount', ...rows].join('\n');
	bringIn(world, 'bank.csv', new TextEncoder().encode(file), {
		account: 'Business',
		date: '0',
		text: '1',
		amount: '2',
		dates: 'dmy'
	});
	return world.db.select().from(bankLines).orderBy(bankLines.id).all();
}
const rowOf = (id: number) =>
	world.db
		.select()
		.from(bankLines)
		.all()
		.find((one) => one.id === id)!;
const paid = () => world.db.select().from(payments).orderBy(payments.id).all();
const firm = () => issued(world, FIRM, oneLine('100'));

describe('a line that is recorded', () => {
	it('without shares pays what is due first, and what is over stays in hand', async () => {
		const { id, customerId } = await firm();
		const next = await another(world, customerId, '50');
		const [row] = bring('24/11/2026,CORVANE,200.00');
		const payment = acceptLine(world, row!.id, { payerId: customerId });
		expect(paid()).to.have.length(1);
		expect(paid()[0]).to.include({
			id: payment,
			payerId: customerId,
			date: '2026-11-24',
			amount: 200_00,
			way: 'bank',
			source: 'bankLine',
			reference: 'CORVANE',
			fee: 0
		});
		expect([itemOf(world, id).outstanding, itemOf(world, next.id).outstanding]).to.deep.equal([
			0, 0
		]);
		expect(inHandOf(world.db, customerId).map((one) => one.amount)).to.deep.equal([20_00]);
		expect(rowOf(row!.id)).to.include({
			state: 'accepted',
			paymentId: payment,
			tied: false,
			decidedAt: world.clock.now()
		});
	});

	it('is shared out to the penny of what is open, and of what came in', async () => {
		const { id, customerId } = await firm();
		const [row] = bring('24/11/2026,CORVANE,120.00');
		const share = (amount: number, documentId = id, withheld: number | null = null) =>
			acceptLine(world, row!.id, {
				payerId: customerId,
				shares: [{ documentId, amount, withheld }]
			});
		expect(() => share(0)).to.throw(RefusedError, 'Only £120.00 is still to pay');
		expect(() => share(120_01)).to.throw(RefusedError, 'Only £120.00 is still to pay');
		expect(() => share(1, 999)).to.throw(RefusedError, 'settled by now');
		// What is said to be withheld is not to be paid as well.
		expect(() => share(110_01, id, 10_00)).to.throw(RefusedError, 'Only £110.00 is still to pay');
		const next = await another(world, customerId, '50');
		const both = (second: number) =>
			acceptLine(world, row!.id, {
				payerId: customerId,
				shares: [
					{ documentId: id, amount: 70_00, withheld: null },
					{ documentId: next.id, amount: second, withheld: null }
				]
			});
		expect(() => both(50_01)).to.throw(RefusedError, 'More is shared out than came in');
		expect(paid()).to.deep.equal([]);
		both(50_00);
		expect([itemOf(world, id).outstanding, itemOf(world, next.id).outstanding]).to.deep.equal([
			50_00, 10_00
		]);
	});

	it('of a contractor takes the deduction that is stated along', async () => {
		const { id, customerId } = await issued(world, CONTRACTOR, {
			rows: [line('a', 'Render', '1000')]
		});
		const [row] = bring('24/11/2026,BEACON,750.00');
		acceptLine(world, row!.id, {
			payerId: customerId,
			shares: [{ documentId: id, amount: 750_00, withheld: 250_00 }]
		});
		expect(itemOf(world, id)).to.include({ withheld: 250_00, outstanding: 0, state: 'paid' });
	});

	it('is somebody’s that is known, and one that came in', async () => {
		const { customerId } = await firm();
		const [came, went] = bring('24/11/2026,CORVANE,1.00', '24/11/2026,Rent,-1.00');
		expect(refusedAt(() => acceptLine(world, came!.id, { payerId: 0 }))).to.deep.equal({
			payerId: 'Choose who paid.'
		});
		expect(() => acceptLine(world, came!.id, { payerId: 99 })).to.throw(NotFoundError);
		expect(() => acceptLine(world, went!.id, { payerId: customerId })).to.throw(NotFoundError);
		expect(() => acceptLine(world, 99, { payerId: customerId })).to.throw(NotFoundError);
	});

	it('opened again and accepted anew is another payment, and the first stands with its trace', async () => {
		const { id, customerId } = await firm();
		const [row] = bring('24/11/2026,CORVANE,120.00');
		const first = acceptLine(world, row!.id, { payerId: customerId });
		reopenLine(world, row!.id);
		expect(rowOf(row!.id)).to.include({
			state: 'open',
			paymentId: null,
			tied: false,
			decidedAt: null
		});
		expect(itemOf(world, id).outstanding).to.equal(120_00);
		const second = acceptLine(world, row!.id, { payerId: customerId });
		expect(second).not.to.equal(first);
		expect(paid().map(({ key }) => key.split(':').at(-1))).to.deep.equal(['0', '1']);
	});
});

describe('a line that is in the books already', () => {
	it('is tied to the payment of its sum, which is seen once, and nothing is recorded again', async () => {
		const { id, customerId } = await firm();
		const payment = payByHand(world, id, '50');
		const [other, same, twin] = bring(
			'24/11/2026,CORVANE,50.01',
			'25/11/2026,CORVANE,50.00',
			'26/11/2026,CORVANE,50.00'
		);
		const tie = (lineId: number, wanted = payment) =>
			acceptLine(world, lineId, { payerId: 0, recorded: { kind: 'payment', id: wanted } });
		expect(() => tie(other!.id)).to.throw(RefusedError, 'seen in another line');
		expect(() => tie(same!.id, payment + 1)).to.throw(RefusedError);
		expect(() =>
			acceptLine(world, same!.id, { payerId: 0, recorded: { kind: 'payout', id: payment } })
		).to.throw(RefusedError);
		expect(tie(same!.id)).to.equal(payment);
		expect(rowOf(same!.id)).to.include({ state: 'accepted', tied: true, paymentId: payment });
		expect(() => tie(twin!.id)).to.throw(RefusedError, 'seen in another line');
		expect([rowOf(other!.id).state, rowOf(twin!.id).state]).to.deep.equal(['open', 'open']);
		expect(paid()).to.have.length(1);
		// Opened again the payment stays: it was not the line that made it.
		reopenLine(world, same!.id);
		expect(rowOf(same!.id)).to.include({ state: 'open', paymentId: null, tied: false });
		expect(itemOf(world, id)).to.include({ cash: 50_00 });
		expect(tie(twin!.id)).to.equal(payment);
		expect(bankPage(world, 'accepted').lines.map((one) => one.id)).to.deep.equal([twin!.id]);
		expect(customerId).to.equal(paid()[0]!.payerId);
	});

	it('is tied to a payout on its day, and lets go of it when it is opened again', () => {
		const event = { id: 'e', type: 'payout.paid' as const, payout: 'po-1', amount: 97_50 };
		receivePayout(world, { ...event, reference: 'PO-1', parts: [] }, '{}');
		// A payout without its payments is asked about, and not in the books.
		expect(recordedMoney(world.db)).to.deep.equal([]);
		world.db
			.insert(payouts)
			.values({
				processorId: 'po-2',
				date: '2026-11-23',
				amount: 97_50,
				reference: 'PO-2',
				recordedAt: world.clock.now()
			})
			.run();
		const { id } = world.db.select().from(payouts).get()!;
		const [row, other] = bring('25/11/2026,CARDS PO-2,97.50', '25/11/2026,CARDS,97.49');
		const tie = (lineId: number) =>
			acceptLine(world, lineId, { payerId: 0, recorded: { kind: 'payout', id } });
		expect(() => tie(other!.id)).to.throw(RefusedError);
		expect(tie(row!.id)).to.equal(0);
		const seen = () => world.db.select().from(payouts).get()!.seenOn;
		expect(seen()).to.equal('2026-11-25');
		expect(rowOf(row!.id)).to.include({ payoutId: id, paymentId: null, tied: true });
		reopenLine(world, row!.id);
		expect(seen()).to.equal(null);
		expect(rowOf(row!.id)).to.include({ payoutId: null, state: 'open' });
		world.db.delete(bankLines).run();
		world.db.delete(payouts).run();
	});
});

describe('a payment the bank took back', () => {
	it('is undone once, with the line dealt with for good', async () => {
		const { id } = await firm();
		const [in1, in2] = [payByHand(world, id, '60'), payByHand(world, id, '59.99')];
		const rows = bring(
			'25/11/2026,RETURNED UNPAID,-60.00',
			'25/11/2026,Rent,-59.99',
			'25/11/2026,CORVANE,60.00'
		);
		const [back, rent, came] = rows;
		expect(() => acceptReversal(world, back!.id, in2)).to.throw(RefusedError, 'another sum');
		expect(() => acceptReversal(world, rent!.id, in2)).to.throw(RefusedError);
		expect(() => acceptReversal(world, came!.id, in1)).to.throw(NotFoundError);
		expect(() => acceptReversal(world, 99, in1)).to.throw(NotFoundError);
		acceptReversal(world, back!.id, in1);
		acceptReversal(world, back!.id, in1);
		expect(itemOf(world, id)).to.include({ cash: 59_99, outstanding: 60_01 });
		expect(rowOf(back!.id)).to.include({ state: 'accepted', paymentId: in1, tied: true });
		expect(() => reopenLine(world, back!.id)).to.throw(RefusedError, 'record it again');
	});

	it('leaves the line by which it came as it was: that money did come', async () => {
		const { id, customerId } = await firm();
		const [came, back] = bring('24/11/2026,CORVANE,120.00', '26/11/2026,RETURNED UNPAID,-120.00');
		const payment = acceptLine(world, came!.id, { payerId: customerId });
		acceptReversal(world, back!.id, payment);
		expect(itemOf(world, id)).to.include({ cash: 0, outstanding: 120_00 });
		expect(rowOf(came!.id)).to.include({ state: 'accepted', paymentId: payment });
		const [reversal] = world.db.select().from(paymentReversals).all();
		expect(reversal).to.include({ paymentId: payment, reason: 'The bank took it back' });
	});

	it('money out that was put aside can be looked at again', () => {
		const [rent] = bring('25/11/2026,Rent,-500.00');
		setNotBusiness(world, rent!.id);
		expect(rowOf(rent!.id).state).to.equal('notBusiness');
		reopenLine(world, rent!.id);
		expect(rowOf(rent!.id)).to.include({ state: 'open', decidedAt: null });
		expect(() => reopenLine(world, 99)).to.throw(NotFoundError);
	});

	it('what is accepted is not put aside', async () => {
		const customerId = addCustomer(world, FIRM);
		const [row] = bring('25/11/2026,CORVANE,5.00');
		acceptLine(world, row!.id, { payerId: customerId });
		setNotBusiness(world, row!.id);
		expect(rowOf(row!.id).state).to.equal('accepted');
	});
});
