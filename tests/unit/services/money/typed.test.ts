// Money typed by hand: each limit from both sides, each key pressed twice, and what stands in the books after it.
// Over 300 lines: one table of limits for each form in which money is typed.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import {
	allocations,
	creditReturns,
	journalEntries,
	mails,
	paymentReversals,
	payments,
	refunds,
	trail,
	writeOffs
} from '../../../../src/lib/server/db/schema';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import {
	paymentsOfPayer,
	recordForPayer,
	type PayerPaymentForm
} from '../../../../src/lib/server/services/money/payerPayments';
import { paymentsOf, recordPayment } from '../../../../src/lib/server/services/money/payments';
import { refundByHand, refundCard } from '../../../../src/lib/server/services/money/refunds';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import {
	returnInHand,
	useAllInHand,
	useInHand,
	inHandForDraft
} from '../../../../src/lib/server/services/money/useInHand';
import { undoWriteOff, writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { refusedAt } from '../../../support/refused';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const FORM = {
	key: 'k',
	date: '2026-11-24',
	amount: '10',
	withheld: '',
	way: 'bank',
	reference: '',
	allowOverpaid: false
};
/** 1,200.00 with VAT. */
const firm = () => issued(world, FIRM, oneLine('1000'));
/** 1,000.00 under the reverse charge, 200.00 of it deducted. */
const contract = () => issued(world, CONTRACTOR, oneLine('1000'));
const entries = () => world.db.select().from(journalEntries).all().length;

describe('a payment typed for an invoice', () => {
	it('is refused at each box that is wrong, all at once, and nothing is written', async () => {
		const { id } = await firm();
		const before = entries();
		const wrong = refusedAt(() =>
			recordPayment(world, id, {
				...FORM,
				amount: 'much',
				date: '',
				way: 'shells',
				reference: 'x'.repeat(201),
				withheld: '?'
			})
		);
		expect(Object.keys(wrong).sort()).to.deep.equal([
			'amount',
			'date',
			'reference',
			'way',
			'withheld'
		]);
		expect(entries()).to.equal(before);
		expect(
			refusedAt(() => recordPayment(world, id, { ...FORM, reference: 'x'.repeat(200) }))
		).to.deep.equal({});
	});

	it('may be of today, and of no day to come; of a penny, and not of nothing', async () => {
		const { id } = await firm();
		const at = (more: object) =>
			Object.keys(refusedAt(() => recordPayment(world, id, { ...FORM, ...more })));
		expect(at({ key: 'a', date: '2026-11-25' })).to.deep.equal(['date']);
		expect(at({ key: 'b', amount: '0' })).to.deep.equal(['amount']);
		expect(at({ key: 'c', amount: '0.00' })).to.deep.equal(['amount']);
		expect(at({ key: 'd', amount: '0.001' })).to.deep.equal(['amount']);
		expect(at({ key: 'e', amount: '-1' })).to.deep.equal(['amount']);
		expect(at({ key: 'f', amount: '0.01' })).to.deep.equal([]);
		expect(itemOf(world, id).cash).to.equal(1);
	});

	it('of a penny more than is owed is asked about, by how much', async () => {
		const { id } = await firm();
		expect(
			refusedAt(() => recordPayment(world, id, { ...FORM, amount: '1200.01' })).amount
		).to.match(/^That is £0\.01 more/);
		recordPayment(world, id, { ...FORM, amount: '1200.01', allowOverpaid: true });
		expect(itemOf(world, id)).to.include({ outstanding: 0, overpaid: 1, state: 'paid' });
		// Nothing is owed any more: all of the next is too much.
		expect(
			refusedAt(() => recordPayment(world, id, { ...FORM, key: 'l', amount: '5' })).amount
		).to.match(/^That is £5\.00 more/);
	});

	it('net of the deduction expected, or of the one that is stated', async () => {
		const { id } = await contract();
		const at = (more: object) => refusedAt(() => recordPayment(world, id, { ...FORM, ...more }));
		expect(at({ amount: '800.01' }).amount).to.match(/£0\.01 more/);
		expect(at({ amount: '850.01', withheld: '150' }).amount).to.match(/£0\.01 more/);
		expect(at({ withheld: '1000.01' }).withheld).to.equal('More than the whole invoice.');
		expect(at({ amount: '850', withheld: '150' })).to.deep.equal({});
		expect(itemOf(world, id)).to.include({ outstanding: 0, withheld: 150_00 });
	});

	it('has nothing withheld by a household; a firm may turn out to be a contractor', async () => {
		const home = await issued(world, HOUSEHOLD, oneLine('1000'));
		expect(
			refusedAt(() => recordPayment(world, home.id, { ...FORM, withheld: '1' }))
		).to.deep.equal({ withheld: 'A household deducts nothing.' });
		const { id } = await firm();
		const told = { ...FORM, key: 'f', amount: '1000', withheld: '200' };
		expect(refusedAt(() => recordPayment(world, id, told))).to.deep.equal({});
		expect(itemOf(world, id)).to.include({ state: 'paid', withheld: 200_00, deduction: 0 });
	});

	it('needs its invoice', () => {
		expect(() => recordPayment(world, 99, FORM)).to.throw(NotFoundError);
	});

	it('shows with its way and words, trimmed, without what was undone', async () => {
		const { id } = await firm();
		const kept = recordPayment(world, id, { ...FORM, way: 'cheque', reference: ' 1234 ' });
		const wrong = recordPayment(world, id, { ...FORM, key: 'w' });
		undoPayment(world, wrong, 'r'.repeat(400));
		expect(paymentsOf(world, id)).to.deep.equal([
			{
				id: kept,
				date: '2026-11-24',
				amount: 10_00n,
				way: 'cheque',
				reference: '1234',
				fee: 0n,
				sterling: 1000,
				byProcessor: false
			}
		]);
		expect(world.db.select().from(paymentReversals).get()!.reason).to.have.length(300);
		expect(paymentsOfPayer(world.db, itemOf(world, id).payerId).map((one) => one.id)).to.deep.equal(
			[kept]
		);
	});

	it('leaves its word: how much by which way, and what was withheld with it', async () => {
		const [plain, contractor] = [await firm(), await issued(world, CONTRACTOR, oneLine('1000'))];
		recordPayment(world, plain.id, { ...FORM, way: 'cheque', amount: '7' });
		recordPayment(world, contractor.id, { ...FORM, key: 'c', amount: '400' });
		const words = world.db
			.select()
			.from(trail)
			.all()
			.filter(({ what }) => what === 'paid')
			.map(({ who, detail }) => [who, detail]);
		expect(words).to.deep.equal([
			['you', '£7.00 by cheque'],
			['you', '£400.00 by bank, £100.00 withheld']
		]);
	});

	it('brings a receipt where it is asked for, once', async () => {
		const { id } = await firm();
		recordPayment(world, id, { ...FORM, receipt: true });
		recordPayment(world, id, { ...FORM, receipt: true });
		recordPayment(world, id, { ...FORM, key: 'quiet' });
		const sent = world.db.select().from(mails).where(eq(mails.kind, 'receipt')).all();
		expect(sent.map((mail) => mail.to)).to.deep.equal([FIRM.email]);
	});
});

describe('a payment typed for a payer', () => {
	const pay = (payerId: number, more: Partial<PayerPaymentForm>) =>
		recordForPayer(world, payerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '100',
			way: 'bank',
			reference: '',
			...more
		});

	it('goes to what is due first, and what is over stays in hand', async () => {
		const first = await issued(world, FIRM, { ...oneLine('100'), dueDate: '2026-12-10' });
		const second = await another(world, first.customerId, '50', { dueDate: '2026-12-01' });
		pay(first.customerId, { amount: '200' });
		expect(itemOf(world, second.id).outstanding).to.equal(0);
		expect(itemOf(world, first.id).outstanding).to.equal(0);
		// 120.00 and 60.00 were owed.
		expect(inHandForDraft(world, first.id)).to.equal(20_00);
	});

	it('is shared out as typed: to the penny of what each can take', async () => {
		const first = await issued(world, FIRM, oneLine('100'));
		const { customerId, id } = first;
		const other = (await another(world, customerId, '50')).id;
		const at = (more: Partial<PayerPaymentForm>) => refusedAt(() => pay(customerId, more));
		expect(at({ amount: '200', shares: { [id]: '120.01' } })).to.deep.equal({
			[`shares.${id}`]: 'At most £120.00; the rest stays as credit.'
		});
		expect(at({ shares: { [id]: '60', [other]: '40.01' } }).amount).to.match(
			/^£100\.01 is shared out/
		);
		expect(at({ shares: { 99: '1' } })).to.have.property('shares.99');
		expect(at({ shares: { [id]: 'x' } })).to.have.property(`shares.${id}`);
		expect(at({ shares: { [id]: '60', [other]: '40' } })).to.deep.equal({});
		expect(itemOf(world, id).outstanding).to.equal(60_00);
		expect(itemOf(world, other).outstanding).to.equal(20_00);
		expect(
			world.db
				.select()
				.from(allocations)
				.all()
				.map((one) => one.amount)
				.sort()
		).to.deep.equal([40_00, 60_00]);
	});

	it('of which nothing is shared out stays in hand as a whole', async () => {
		const { customerId, id } = await firm();
		pay(customerId, { shares: { [id]: '' } });
		expect(itemOf(world, id).outstanding).to.equal(1200_00);
		expect(inHandForDraft(world, id)).to.equal(100_00);
	});

	it('states what was withheld from which: never more than is open, nor where none is expected', async () => {
		const { customerId, id } = await contract();
		const at = (withheld: Record<string, string>, amount = '100') =>
			refusedAt(() => pay(customerId, { withheld, amount }));
		expect(at({ [id]: '1000.01' })).to.deep.equal({
			[`withheld.${id}`]: 'More than is open on it.'
		});
		expect(at({ 99: '1' })).to.deep.equal({ 'withheld.99': 'This invoice is not open any more.' });
		expect(at({ [id]: ' ' }, '0')).to.have.property('amount');
		expect(at({ [id]: '150' }, '850')).to.deep.equal({});
		expect(itemOf(world, id)).to.include({ outstanding: 0, withheld: 150_00 });
		const home = await issued(world, { ...HOUSEHOLD, name: 'Home' }, oneLine('1000'));
		expect(
			refusedAt(() => pay(home.customerId, { key: 'q', withheld: { [home.id]: '1' } }))
		).to.deep.equal({ [`withheld.${home.id}`]: 'A household deducts nothing.' });
	});

	it('pressed twice is one; of nobody it is none', async () => {
		const { customerId } = await firm();
		expect(pay(customerId, {})).to.equal(pay(customerId, { amount: '999' }));
		expect(world.db.select().from(payments).all()).to.have.length(1);
		expect(() => pay(999, { key: 'n' })).to.throw(NotFoundError);
	});
});

describe('a payment undone', () => {
	it('once; not where it went back already, nor where a card paid', async () => {
		const { customerId, id } = await firm();
		const payment = recordForPayer(world, customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '1300',
			way: 'cash',
			reference: ''
		});
		returnInHand(world, payment, { ...FORM, key: 'r', amount: '100' });
		expect(() => undoPayment(world, payment, 'x')).to.throw(RefusedError, /given back already/);
		const other = payByHand(world, id, '5');
		undoPayment(world, other, 'x');
		const after = entries();
		undoPayment(world, other, 'x');
		expect(entries()).to.equal(after);
		expect(() => undoPayment(world, 999, 'x')).to.throw(NotFoundError);
	});

	it('by card is refused: that is given back', async () => {
		const { id } = await firm();
		await openCheckout(world, documentDetail(world, id).link.split('/').at(-1)!, 'card:1', 100_00);
		receive(world, settledEvent(world.checkouts[0]!.id, 100_00));
		const card = world.db.select().from(payments).get()!;
		expect(() => undoPayment(world, card.id, 'x')).to.throw(RefusedError, /refund/);
		expect(itemOf(world, id).cash).to.equal(100_00);
	});
});

describe('money given back', () => {
	it('by hand: up to what came in, by any way but the card, once for each press', async () => {
		const { id } = await firm();
		payByHand(world, id, '100');
		const at = (more: object) => refusedAt(() => refundByHand(world, id, { ...FORM, ...more }));
		expect(at({ amount: '100.01' }).amount).to.equal('At most £100.00 came in for it.');
		expect(at({ way: 'card' })).to.have.property('way');
		expect(at({ date: '2026-11-25' })).to.have.property('date');
		expect(at({ amount: '100' })).to.deep.equal({});
		expect(at({ amount: '100' }), 'the same press').to.deep.equal({});
		expect(at({ key: 'next', amount: '0.01' }).amount).to.match(/At most £0\.00/);
		expect(world.db.select().from(refunds).all()).to.have.length(1);
		expect(itemOf(world, id)).to.include({ cash: 0, outstanding: 1200_00, state: 'open' });
		expect(() => refundByHand(world, 99, { ...FORM, key: 'z' })).to.throw(NotFoundError);
	});

	it('by card: up to what is left of that payment', async () => {
		const { id } = await firm();
		await openCheckout(world, documentDetail(world, id).link.split('/').at(-1)!, 'card:1', 100_00);
		receive(world, settledEvent(world.checkouts[0]!.id, 100_00));
		const card = world.db.select().from(payments).get()!;
		const refused = async (amount: number) => {
			try {
				await refundCard(world, card.id, amount, `r${amount}`);
			} catch (problem) {
				if (problem instanceof FieldError) return problem.fields.amount;
				throw problem;
			}
			return null;
		};
		expect(await refused(0)).to.match(/above zero/);
		expect(await refused(0.5)).to.match(/above zero/);
		expect(await refused(100_01)).to.equal('At most £100.00 of it is left to give back.');
		expect(await refused(100_00)).to.equal(null);
		receive(world, {
			id: 'evt-r',
			type: 'refund.settled',
			refund: 'ref-1',
			checkout: world.checkouts[0]!.id,
			amount: 60_00,
			fee: 0
		});
		expect(await refused(40_01)).to.equal('At most £40.00 of it is left to give back.');
		expect(await refused(40_00)).to.equal(null);
		const byHand = payByHand(world, id, '5');
		await refundCard(world, byHand, 1, 'x').then(
			() => expect.fail('was not refused'),
			(problem) => expect(problem).to.be.instanceOf(NotFoundError)
		);
	});

	it('out of what is in hand: up to what is left of that payment, once', async () => {
		const { customerId, id } = await firm();
		const payment = recordForPayer(world, customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '1250',
			way: 'bank',
			reference: ''
		});
		const at = (more: object) =>
			refusedAt(() => returnInHand(world, payment, { ...FORM, ...more }));
		expect(at({ amount: '50.01' }).amount).to.equal('At most £50.00 of it is left.');
		expect(at({ amount: '30' })).to.deep.equal({});
		expect(at({ amount: '30' })).to.deep.equal({});
		expect(at({ key: 'l', amount: '20.01' }).amount).to.equal('At most £20.00 of it is left.');
		expect(world.db.select().from(creditReturns).all()).to.have.length(1);
		expect(inHandForDraft(world, id)).to.equal(20_00);
		expect(() => returnInHand(world, 999, { ...FORM, key: 'm' })).to.throw(NotFoundError);
	});
});

describe('money in hand', () => {
	it('is used up to what is open or what there is, the press counted once', async () => {
		const first = await firm();
		const { customerId } = first;
		recordForPayer(world, customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '1300',
			way: 'bank',
			reference: ''
		});
		const small = await another(world, customerId, '50');
		expect(useInHand(world, small.id, 'use')).to.equal(60_00);
		expect(useInHand(world, small.id, 'use')).to.equal(0);
		expect(() => useInHand(world, small.id, 'more')).to.throw(
			RefusedError,
			/Nothing is left to pay/
		);
		const large = await another(world, customerId, '500');
		expect(useInHand(world, large.id, 'rest')).to.equal(40_00);
		expect(itemOf(world, large.id).outstanding).to.equal(560_00);
		expect(() => useInHand(world, large.id, 'none')).to.throw(RefusedError, /no credit/);
		expect(() => useInHand(world, 999, 'x')).to.throw(NotFoundError);
	});

	it('is used for all that is open, the one due first, first', async () => {
		const first = await firm();
		const { customerId } = first;
		expect(() => useAllInHand(world, customerId, 'a')).to.throw(RefusedError, /no credit/);
		recordForPayer(world, customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '1290',
			way: 'bank',
			reference: ''
		});
		expect(() => useAllInHand(world, customerId, 'b')).to.throw(RefusedError, /Nothing is open/);
		const later = await another(world, customerId, '100', { dueDate: '2026-12-20' });
		const sooner = await another(world, customerId, '50', { dueDate: '2026-12-01' });
		expect(useAllInHand(world, customerId, 'c')).to.equal(90_00);
		expect(itemOf(world, sooner.id).outstanding).to.equal(0);
		expect(itemOf(world, later.id).outstanding).to.equal(90_00);
	});
});

describe('a debt given up', () => {
	it('needs a reason, and something that is open; once for each press', async () => {
		const { id } = await firm();
		payByHand(world, id, '200');
		const at = (reason: string) => refusedAt(() => writeOff(world, id, reason, 'w'));
		expect(at('  ')).to.have.property('reason');
		expect(at('x'.repeat(301))).to.have.property('reason');
		expect(at('x'.repeat(300))).to.deep.equal({});
		writeOff(world, id, 'again', 'w');
		expect(
			world.db
				.select()
				.from(writeOffs)
				.all()
				.map((one) => one.amount)
		).to.deep.equal([1000_00]);
		expect(itemOf(world, id)).to.include({
			state: 'writtenOff',
			outstanding: 0,
			writtenOff: 1000_00
		});
		expect(() => writeOff(world, id, 'more', 'v')).to.throw(RefusedError, /Nothing is open/);
		expect(() => writeOff(world, 999, 'x', 'u')).to.throw(NotFoundError);
	});

	it('is taken up again as a whole, once', async () => {
		const { id } = await firm();
		undoWriteOff(world, id, 'nothing was given up');
		expect(world.db.select().from(writeOffs).all()).to.deep.equal([]);
		writeOff(world, id, 'Gone', 'w');
		undoWriteOff(world, id, 'back');
		undoWriteOff(world, id, 'back');
		expect(itemOf(world, id)).to.include({ state: 'open', outstanding: 1200_00, writtenOff: 0 });
		expect(
			world.db
				.select()
				.from(writeOffs)
				.all()
				.map((one) => one.amount)
		).to.deep.equal([1200_00, -1200_00]);
		expect(() => undoWriteOff(world, 999, 'x')).to.throw(NotFoundError);
	});
});
