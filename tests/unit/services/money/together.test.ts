// Several invoices paid at once through a link: declined is nothing, settled is shared out, told twice is once; and what tests and forms of money let pass.
// Over 300 lines: one payment for several invoices, through everything.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError } from '../../../../src/lib/core/refusals';
import { checkouts, mails, trials } from '../../../../src/lib/server/db/schema';
import { tryOut } from '../../../../src/lib/server/services/invoices/trial';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { inHandOf } from '../../../../src/lib/server/services/ledger/inHand';
import { disputesOf, receiveDispute } from '../../../../src/lib/server/services/money/cardDisputes';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { readMoved } from '../../../../src/lib/server/services/money/form';
import { oddNewsMoves, setAsideUnknown } from '../../../../src/lib/server/services/money/oddNews';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { takeShared } from '../../../../src/lib/server/services/money/taking';
import { recordPayment } from '../../../../src/lib/server/services/money/payments';
import { advancesFor } from '../../../../src/lib/server/services/money/useInHand';
import { payTogether } from '../../../../src/lib/server/services/owed/together';
import {
	startStatements,
	continueStatements
} from '../../../../src/lib/server/services/owed/statementRuns';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	draftOf,
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
const count = (table: string) =>
	world.db.$client.prepare(`select count(*) from ${table}`).pluck().get();

describe('several invoices paid at once', () => {
	let first: Awaited<ReturnType<typeof issued>>;
	let second: { id: number };
	beforeEach(async () => {
		first = await issued(world, HOUSEHOLD, oneLine('100'));
		second = await another(world, first.customerId, '200');
		startStatements(world, 'run', { asOf: '2026-11-24' }, [first.customerId], 'make');
		await continueStatements(world);
		const statementId = world.db.$client
			.prepare('select id from statements')
			.pluck()
			.get() as number;
		await payTogether(
			world,
			{
				payerId: first.customerId,
				documentIds: new Set([first.id, second.id]),
				path: '/s/x',
				of: { statementId }
			},
			'both',
			[first.id, second.id]
		);
	});
	const state = () => world.db.select().from(checkouts).get()!.state;

	it('declined: nothing is booked, and the page may be paid again', () => {
		receive(world, { ...settledEvent('chk-1', 360_00), type: 'payment.pending' });
		expect(state()).to.equal('pending');
		receive(world, { ...settledEvent('chk-1', 360_00), type: 'payment.declined' });
		expect([state(), count('payments')]).to.deep.equal(['declined', 0]);
	});

	it('settled: each gets its share, told twice it is once, and what was paid meanwhile is credit', () => {
		payByHand(world, first.id, '120');
		receive(world, settledEvent('chk-1', 360_00, 'a'));
		receive(world, settledEvent('chk-1', 360_00, 'b'));
		expect([state(), count('payments')]).to.deep.equal(['settled', 2]);
		expect([
			itemOf(world, first.id).outstanding,
			itemOf(world, second.id).outstanding
		]).to.deep.equal([0, 0]);
		const settles = world.db.$client
			.prepare('select document_id, amount from allocations where amount = 24000')
			.all();
		expect(settles).to.deep.equal([{ document_id: second.id, amount: 240_00 }]);
	});

	const back = (amount: number, refund: string, id = `event ${refund} ${amount}`) =>
		receive(world, { ...settledEvent('chk-1', amount, id), type: 'refund.settled', refund });
	const open = () => [
		itemOf(world, first.id).outstanding,
		itemOf(world, second.id).outstanding,
		inHandOf(world.db, first.customerId).reduce((sum, one) => sum + one.amount, 0)
	];
	const lastPostings = () =>
		world.db.$client
			.prepare(
				'select account, amount, document_id from journal_lines where entry_id = (select max(id) from journal_entries) order by account, amount'
			)
			.all();

	it('given back in part: what none of them used first, then of the last; told again it is the same', () => {
		payByHand(world, first.id, '120');
		// What another payment has in hand is not this card's.
		const more = { way: 'cash' as const, reference: '', shares: {}, date: '2026-11-24' };
		recordForPayer(world, first.customerId, { key: 'other', amount: '500', ...more });
		receive(world, settledEvent('chk-1', 360_00, 'a'));
		expect(open()).to.deep.equal([0, 0, 620_00]);
		back(50_00, 'one');
		expect(open()).to.deep.equal([0, 0, 570_00]);
		expect(lastPostings()).to.deep.equal([
			{ account: 'cardClearing', amount: -50_00, document_id: null },
			{ account: 'customerCredit', amount: 50_00, document_id: null }
		]);
		// Under another id it is the same refund.
		back(50_00, 'one', 'again');
		expect(open()).to.deep.equal([0, 0, 570_00]);
		back(100_00, 'two');
		expect(open()).to.deep.equal([0, 30_00, 500_00]);
		back(100_00, 'two', 'once more');
		expect(open()).to.deep.equal([0, 30_00, 500_00]);
		back(210_00, 'three');
		expect(open()).to.deep.equal([0, 240_00, 500_00]);
	});

	it('given back as a whole, each is open again, the last first', () => {
		receive(world, settledEvent('chk-1', 360_00, 'a'));
		back(250_00, 'most');
		expect(open()).to.deep.equal([10_00, 240_00, 0]);
		expect(count('credit_returns')).to.equal(0);
		expect(
			world.db.$client.prepare('select document_id, amount, way from refunds order by id').all()
		).to.deep.equal([
			{ document_id: second.id, amount: 240_00, way: 'card' },
			{ document_id: first.id, amount: 10_00, way: 'card' }
		]);
		back(110_00, 'rest');
		expect(open()).to.deep.equal([120_00, 240_00, 0]);
	});

	it('disputed and lost, it is about the first of them, and both are open', () => {
		receive(world, settledEvent('chk-1', 360_00, 'a'));
		receiveDispute(
			world,
			{
				id: 'd',
				type: 'dispute.lost',
				checkout: 'chk-1',
				dispute: 'dsp',
				amount: 360_00,
				reason: '',
				respondBy: '2026-12-01'
			},
			'{}'
		);
		expect(open()).to.deep.equal([120_00, 240_00, 0]);
		expect(disputesOf(world.db, first.id)).to.have.length(1);
		expect(disputesOf(world.db, first.id)[0]).to.include({ state: 'lost', amount: 360_00 });
		expect(disputesOf(world.db, second.id)).to.deep.equal([]);
	});
});

describe('a test that is paid in play', () => {
	it('is paid once it settled, not before, and its receipt comes once', async () => {
		const { link } = await tryOut(world, draftOf(world, HOUSEHOLD).id, 'r');
		await openCheckout(world, link.split('/').at(-1)!, 'k');
		receive(world, { ...settledEvent('chk-1', 2760_00), type: 'payment.declined' });
		expect(world.db.select().from(trials).get()!.paidAt).to.equal(null);
		receive(world, settledEvent('chk-1', 2760_00, 'a'));
		receive(world, settledEvent('chk-1', 2760_00, 'b'));
		expect(world.db.select().from(trials).get()!.paidAt).to.equal(world.clock.now());
		expect(receipts()).to.equal(1);
		expect(world.db.select().from(checkouts).get()!.state).to.equal('settled');
		const mail = world.db
			.select()
			.from(mails)
			.all()
			.find(({ key }) => key.startsWith('trial-receipt'))!;
		expect(mail.subject).to.match(/^Test · /);
		expect(mail.text).to.contain(link);
		// Paid in play is paid once: a later word of it changes nothing.
		const paidAt = world.clock.now();
		world.clock.set(paidAt + 60_000);
		receive(world, settledEvent('chk-1', 2760_00, 'c'));
		expect(world.db.select().from(trials).get()!.paidAt).to.equal(paidAt);
	});
	const receipts = () =>
		world.db
			.select()
			.from(mails)
			.all()
			.filter(({ key }) => key.startsWith('trial-receipt')).length;
});

describe('money typed by hand', () => {
	const form = {
		key: 'k',
		date: '2026-11-24',
		amount: '10',
		withheld: '',
		way: 'bank',
		reference: '',
		allowOverpaid: false
	};

	it('comes in the ways there are, into the account of each', async () => {
		expect(readMoved(world, { ...form, way: 'barter' }, 'in').problems).to.have.property('way');
		const { id } = await issued(world, HOUSEHOLD, oneLine('100'));
		for (const [way, account] of [
			['bank', 'bank'],
			['cheque', 'bank'],
			['cash', 'cash'],
			['card', 'cardClearing']
		] as const) {
			if (readMoved(world, { ...form, way }, 'in').problems.way) continue;
			recordPayment(world, id, { ...form, key: way, way });
			const accounts = world.db.$client
				.prepare(
					'select l.account from journal_lines l where l.entry_id = (select max(id) from journal_entries) and l.amount = 1000'
				)
				.pluck()
				.all();
			expect(accounts, way).to.deep.equal([account]);
		}
		expect(count('payments')).to.be.greaterThan(2);
	});

	it('is given back by every way but the card, and read without the spaces around it', async () => {
		const way = (one: string) => readMoved(world, { ...form, way: one }, 'back').problems.way;
		expect(['bank', 'cheque', 'cash'].map(way)).to.deep.equal([undefined, undefined, undefined]);
		expect(way('card')).to.equal('Choose how you gave it back.');
		expect(readMoved(world, { ...form, way: '' }, 'in').problems.way).to.equal(
			'Choose how it was paid.'
		);
		const { id } = await issued(world, CONTRACTOR);
		expect(() => recordPayment(world, id, { ...form, amount: ' ', withheld: '5' })).to.throw(
			FieldError
		);
	});

	it('for a payer is read without spaces, and each box has its own answer', async () => {
		const { id, customerId } = await issued(world, CONTRACTOR, oneLine('1000'));
		const pay = (more: object) => {
			try {
				recordForPayer(world, customerId, {
					...form,
					key: 'p',
					reference: ' BACS 7 ',
					withheld: {},
					shares: {},
					...more
				});
			} catch (problem) {
				return Object.keys((problem as FieldError).fields);
			}
			return null;
		};
		expect(pay({ withheld: { [id]: 'x' } })).to.deep.equal([`withheld.${id}`]);
		expect(pay({ withheld: { [id]: '1000.01' } })).to.deep.equal([`withheld.${id}`]);
		expect(pay({ withheld: { 99: '1' } })).to.deep.equal(['withheld.99']);
		expect(pay({ shares: { [id]: 'x' } })).to.include(`shares.${id}`);
		expect(pay({ shares: { 99: '1' } })).to.include('shares.99');
		expect(count('payments')).to.equal(0);
		expect(pay({ shares: { [id]: ' ', 99: ' ' }, withheld: { [id]: ' ' } })).to.equal(null);
		expect(world.db.$client.prepare('select reference, amount from payments').get()).to.deep.equal({
			reference: 'BACS 7',
			amount: 10_00
		});
	});

	it('is nothing only where a deduction comes without money', async () => {
		const { id } = await issued(world, CONTRACTOR);
		const fields = (more: object) => {
			try {
				recordPayment(world, id, { ...form, ...more });
			} catch (error) {
				return Object.keys((error as FieldError).fields);
			}
			return [];
		};
		expect(fields({ amount: '0' })).to.deep.equal(['amount']);
		expect(fields({ amount: '', withheld: '5' })).to.deep.equal(['amount']);
		expect(fields({ amount: '0', withheld: '5' })).to.deep.equal([]);
	});

	it('is an advance of nobody where no customer is chosen, and of no invoice in other money', () => {
		expect(advancesFor(world.db, blankSheet())).to.deep.equal([]);
		const customerId = addCustomer(world, FIRM);
		const more = { way: 'cash' as const, reference: '', shares: {} };
		for (const [key, date, amount] of [
			['b', '2026-11-21', '30'],
			['a', '2026-11-20', '20']
		] as const)
			recordForPayer(world, customerId, { key, date, amount, ...more });
		const sheet = { ...blankSheet(), customerId };
		const both = [
			{ date: '2026-11-20', amount: 20_00n },
			{ date: '2026-11-21', amount: 30_00n }
		];
		expect(advancesFor(world.db, sheet)).to.deep.equal(both);
		expect(advancesFor(world.db, { ...sheet, currency: 'GBP' })).to.deep.equal(both);
		expect(advancesFor(world.db, { ...sheet, currency: 'EUR' })).to.deep.equal([]);
	});

	it('pressed again with a box that is wrong is still refused, not taken for the press before', async () => {
		const { id } = await issued(world, HOUSEHOLD, oneLine('100'));
		recordPayment(world, id, form);
		expect(() => recordPayment(world, id, { ...form, way: 'shells' })).to.throw(FieldError);
		expect(() => recordPayment(world, id, { ...form, amount: '1 x' })).to.throw(FieldError);
		expect(recordPayment(world, id, form)).to.equal(1);
	});

	it('is whole: never shared out beyond itself, nor in other money with a fee', () => {
		const take = (more: object) =>
			world.db.transaction((tx) =>
				takeShared(tx, world, {
					key: 'w',
					payerId: addCustomer(world, FIRM),
					date: '2026-11-24',
					amount: 10_00,
					way: 'bank',
					source: 'hand',
					reference: '',
					fee: 0,
					who: 'you',
					shares: [{ documentId: 1, amount: 10_01, withheld: null }],
					...more
				})
			);
		expect(() => take({})).to.throw('shared out beyond');
	});
});

it('news that do not fit are asked about on Today', () => {
	setAsideUnknown(world, { id: 'e', type: 'payment.settled', amount: 99_00 }, '{}');
	expect(oddNewsMoves(world)).to.deep.equal([
		{
			id: 'odd-news',
			amount: 99_00n,
			late: false,
			title: 'A message of the card processor does not fit your books',
			detail:
				'It is of a payment that was begun after the backup: £99.00. Record it by hand, with the invoice it is for.',
			action: 'Decide',
			href: '/money/payouts#odd'
		}
	]);
});
