// A deduction travels with its cash: whatever is credited, moved, given up, given back or undone, in whatever order, no
// money and no tax comes of nothing.
// Over 300 lines: a case for each way.
import { expect } from 'chai';
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { addDays } from '../../../../src/lib/core/calendar/manipulation';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { nextMoves } from '../../../../src/lib/server/services/desk/moves';
import { payments } from '../../../../src/lib/server/db/schema';
import { correctAsDraft } from '../../../../src/lib/server/services/invoices/corrections';
import { creditInvoice, creditPart } from '../../../../src/lib/server/services/invoices/creditNote';
import { loadDraft, saveDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueAndSend } from '../../../../src/lib/server/services/money/issueAndSend';
import { inHandOf } from '../../../../src/lib/server/services/ledger/inHand';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { recordPayment } from '../../../../src/lib/server/services/money/payments';
import { refundByHand } from '../../../../src/lib/server/services/money/refunds';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { useAllInHand, useInHand } from '../../../../src/lib/server/services/money/useInHand';
import { writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import {
	buildStatement,
	readStatementOptions
} from '../../../../src/lib/server/services/owed/statements';
import { badDebts, settleRelief } from '../../../../src/lib/server/services/tax/badDebts';
import {
	deductionsByMonth,
	missingStatements,
	saveDeductionStatement
} from '../../../../src/lib/server/services/tax/deductions';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const at = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));
const contract = () => issued(world, CONTRACTOR, oneLine('1000'));
const pay = (id: number, amount: string, more: object = {}) =>
	payByHand(world, id, amount, { date: world.clock.today(), ...more });
const credit = (id: number) => creditInvoice(world, id, 'A mistake', `c${id}`);
const account = (name: string) =>
	world.db.get<{ sum: number }>(
		sql`select coalesce(sum(amount), 0) as sum from journal_lines where account = ${name}`
	)!.sum;
const inHand = (payer: number) =>
	inHandOf(world.db, payer).reduce((sum, one) => sum + one.amount, 0);
const statement = (payer: number) =>
	buildStatement(
		world,
		payer,
		readStatementOptions({
			style: 'activity',
			from: '2026-11-01',
			asOf: world.clock.today(),
			ageing: 'dueDate'
		})
	).balance;
/** Withheld by tax month, in pounds. */
const months = () =>
	deductionsByMonth(world)
		.filter((month) => month.withheld !== 0n)
		.map((month) => [month.monthEnd, Number(month.withheld) / 100]);

describe('an invoice of a contractor, paid and then credited', () => {
	it('leaves in hand what was paid, and takes its deduction to the invoice that replaces it', async () => {
		const { id, customerId } = await contract();
		pay(id, '800');
		expect(months()).to.deep.equal([['2026-12-05', 200]]);
		at('2026-12-10');
		await credit(id);
		expect(inHand(customerId)).to.equal(800_00);
		expect(statement(customerId)).to.equal(-800_00);
		const next = await another(world, customerId, '1000', { contract: 'construction' });
		expect(useInHand(world, next.id, 'u')).to.equal(800_00);
		expect(itemOf(world, next.id)).to.include({ state: 'paid', withheld: 200_00, cash: 800_00 });
		expect(itemOf(world, id)).to.include({ withheld: 0, cash: 0, overpaid: 0 });
		// Withheld once, in the month in which it paid.
		expect(months()).to.deep.equal([['2026-12-05', 200]]);
		expect([account('cisWithheld'), account('bank'), account('receivable')]).to.deep.equal([
			200_00, 800_00, 0
		]);
		expect([inHand(customerId), statement(customerId)]).to.deep.equal([0, 0]);
	});

	it('is nothing any more once the money is given back, in parts or at once', async () => {
		const { id, customerId } = await contract();
		pay(id, '800');
		await credit(id);
		const back = (key: string, amount: string) =>
			refundByHand(world, id, { key, amount, date: '2026-11-24', way: 'bank', reference: '' });
		back('a', '266.67');
		expect(itemOf(world, id)).to.include({ withheld: 133_33, inHand: 533_33 });
		expect(statement(customerId)).to.equal(-533_33);
		back('b', '533.33');
		expect(itemOf(world, id)).to.include({ withheld: 0, cash: 0, overpaid: 0, inHand: 0 });
		for (const name of ['bank', 'cisWithheld', 'receivable', 'sales', 'vatOutput'])
			expect(account(name), name).to.equal(0);
		expect([statement(customerId), months()]).to.deep.equal([0, []]);
		expect(nextMoves(world).filter((move) => move.id.startsWith('overpaid'))).to.deep.equal([]);
	});

	it('pays several others, each with its share of the deduction', async () => {
		const { id, customerId } = await contract();
		pay(id, '800');
		await credit(id);
		const small = await another(world, customerId, '100', { contract: 'construction' });
		const large = await another(world, customerId, '700', { contract: 'construction' });
		expect(useAllInHand(world, customerId, 'all')).to.equal(640_00);
		expect(itemOf(world, small.id)).to.include({ state: 'paid', withheld: 20_00 });
		expect(itemOf(world, large.id)).to.include({ state: 'paid', withheld: 140_00 });
		expect(itemOf(world, id)).to.include({ withheld: 40_00, inHand: 160_00 });
		expect(months()).to.deep.equal([['2026-12-05', 200]]);
		expect(statement(customerId)).to.equal(-160_00);
	});

	it('comes back from three invoices it was used on when its payment is undone', async () => {
		const { id, customerId } = await contract();
		const payment = pay(id, '800');
		await credit(id);
		const others = [];
		for (const price of ['100', '200', '300'])
			others.push(await another(world, customerId, price, { contract: 'construction' }));
		useAllInHand(world, customerId, 'all');
		undoPayment(world, payment, 'Bounced');
		for (const other of others)
			expect(itemOf(world, other.id)).to.include({ state: 'open', cash: 0, withheld: 0 });
		expect(itemOf(world, id)).to.include({ cash: 0, withheld: 0, overpaid: 0, state: 'credited' });
		expect([account('bank'), account('cisWithheld'), months()]).to.deep.equal([0, 0, []]);
		undoPayment(world, payment, 'Twice');
		expect(account('bank')).to.equal(0);
	});

	it('comes back through an invoice that was credited in its turn', async () => {
		const { id, customerId } = await contract();
		const payment = pay(id, '800');
		await credit(id);
		const second = await another(world, customerId, '1000', { contract: 'construction' });
		useInHand(world, second.id, 'a');
		await credit(second.id);
		const third = await another(world, customerId, '999', { contract: 'construction' });
		useInHand(world, third.id, 'b');
		expect(itemOf(world, third.id)).to.include({ state: 'paid', withheld: 199_80 });
		undoPayment(world, payment, 'Bounced');
		expect(itemOf(world, third.id)).to.include({ state: 'open', outstanding: 999_00 });
		expect([account('bank'), account('cisWithheld')]).to.deep.equal([0, 0]);
	});

	it('comes back to nobody twice where its payment was for both invoices', async () => {
		const { id, customerId } = await contract();
		const second = await another(world, customerId, '1000', { contract: 'construction' });
		const payment = recordForPayer(world, customerId, {
			key: 'both',
			date: '2026-11-20',
			amount: '1000',
			way: 'bank',
			reference: '',
			shares: { [id]: '800', [second.id]: '200' }
		});
		at('2026-12-10');
		pay(second.id, '100', { key: 'own' });
		await credit(id);
		useInHand(world, second.id, 'u');
		expect(itemOf(world, second.id)).to.include({ cash: 800_00, withheld: 200_00 });
		undoPayment(world, payment, 'Bounced');
		expect(itemOf(world, second.id)).to.include({ cash: 100_00, withheld: 25_00 });
		expect(months()).to.deep.equal([['2027-01-05', 25]]);
		expect([account('bank'), account('cisWithheld')]).to.deep.equal([100_00, 25_00]);
	});

	it('cannot be undone once some of it was given back: it did come in', async () => {
		const { id } = await contract();
		const payment = pay(id, '800');
		await credit(id);
		refundByHand(world, id, {
			key: 'r',
			amount: '1',
			date: '2026-11-24',
			way: 'bank',
			reference: ''
		});
		expect(() => undoPayment(world, payment, '')).to.throw(RefusedError, /it did come in/);
		expect(itemOf(world, id).cash).to.equal(799_00);
	});
});

describe('a debt that was given up', () => {
	it('and is credited then, puts nothing in favour of a customer who never paid', async () => {
		const { id, customerId } = await issued(world, FIRM, oneLine('1000'));
		writeOff(world, id, 'Gone', 'w');
		await credit(id);
		expect(itemOf(world, id)).to.include({ state: 'credited', writtenOff: 0, overpaid: 0 });
		expect([inHand(customerId), statement(customerId), account('badDebts')]).to.deep.equal([
			0, 0, 0
		]);
		expect([account('sales'), account('vatOutput'), account('receivable')]).to.deep.equal([
			0, 0, 0
		]);
	});

	it('whose VAT was claimed, asks for it back when it is credited', async () => {
		const { id } = await issued(world, FIRM, oneLine('1000'));
		at(addDays(itemOf(world, id).dueDate, 200));
		writeOff(world, id, 'Gone', 'w');
		settleRelief(world, id, 'claim');
		expect(account('vatRelief')).to.equal(200_00);
		await credit(id);
		expect(badDebts(world)[0]).to.include({ state: 'repay', vat: 200_00 });
		settleRelief(world, id, 'repay');
		for (const name of ['vatRelief', 'badDebts', 'vatOutput', 'sales'])
			expect(account(name), name).to.equal(0);
	});

	it('is taken up again by what a contractor pays and what it withholds', async () => {
		const { id, customerId } = await contract();
		writeOff(world, id, 'Gone', 'w');
		expect(account('badDebts')).to.equal(1000_00);
		pay(id, '400');
		expect(itemOf(world, id)).to.include({ writtenOff: 500_00, withheld: 100_00, overpaid: 0 });
		pay(id, '400', { key: 'second' });
		expect(itemOf(world, id)).to.include({ state: 'paid', writtenOff: 0, overpaid: 0 });
		expect([account('badDebts'), account('cisWithheld'), inHand(customerId)]).to.deep.equal([
			0, 200_00, 0
		]);
	});

	it('and paid by a contractor whose VAT was charged: the relief to repay counts the deduction too', async () => {
		const { id } = await issued(
			world,
			{
				...CONTRACTOR,
				standing: {
					...CONTRACTOR.standing,
					endUser: true,
					endUserStatement: 'We use it',
					endUserDate: '2026-01-05'
				}
			},
			oneLine('1000')
		);
		const { deduction, outstanding } = itemOf(world, id);
		expect([deduction, outstanding]).to.deep.equal([200_00, 1200_00]);
		at(addDays(itemOf(world, id).dueDate, 200));
		writeOff(world, id, 'Gone', 'w');
		settleRelief(world, id, 'claim');
		// 250.00 and the 50.00 withheld from it are a quarter of 1,200.00: so is the VAT to repay.
		pay(id, '250');
		expect(itemOf(world, id)).to.include({ writtenOff: 900_00, withheld: 50_00 });
		expect(badDebts(world)[0]).to.include({ state: 'repay', vat: 50_00 });
	});
});

describe('a deduction nobody expected', () => {
	it('is taken from a firm, so that its invoice is paid; a household deducts nothing', async () => {
		const { id, customerId } = await issued(world, FIRM, oneLine('1000'));
		pay(id, '1000');
		expect(itemOf(world, id)).to.include({ state: 'partPaid', outstanding: 200_00 });
		// Told of later, without money.
		pay(id, '0', { key: 'told', withheld: '200' });
		expect(itemOf(world, id)).to.include({ state: 'paid', withheld: 200_00, deduction: 0 });
		expect(months()).to.deep.equal([['2026-12-05', 200]]);
		expect(statement(customerId)).to.equal(0);
		const home = await issued(world, { ...HOUSEHOLD, name: 'Home' }, oneLine('10'));
		expect(() => pay(home.id, '10', { withheld: '2' })).to.throw(FieldError);
		expect(() => pay(home.id, '0')).to.throw(FieldError);
	});
});

describe('the month of a deduction', () => {
	it('is the one in which the contractor paid, not the one in which its money was used', async () => {
		const customerId = addCustomer(world, CONTRACTOR);
		at('2026-11-03');
		recordForPayer(world, customerId, {
			key: 'early',
			date: '2026-11-03',
			amount: '800',
			way: 'bank',
			reference: '',
			shares: {}
		});
		at('2026-12-08');
		const { id } = await another(world, customerId, '1000', { contract: 'construction' });
		useInHand(world, id, 'u');
		expect(itemOf(world, id)).to.include({ state: 'paid', withheld: 200_00 });
		expect(months()).to.deep.equal([['2026-11-05', 200]]);
	});

	it('is asked for by next moves and tax page alike, and by neither once the payment is undone', async () => {
		const { id } = await contract();
		const payment = pay(id, '800');
		const missing = () => [
			missingStatements(world).length,
			deductionsByMonth(world).filter((month) => month.state === 'missing').length
		];
		at('2026-12-20');
		expect(missing()).to.deep.equal([1, 1]);
		undoPayment(world, payment, 'Not ours');
		expect(missing()).to.deep.equal([0, 0]);
		recordPayment(world, id, {
			key: 'late',
			date: '2026-11-05',
			amount: '800',
			withheld: '',
			way: 'bank',
			reference: '',
			allowOverpaid: false
		});
		expect(missing()).to.deep.equal([1, 1]);
		expect(months()).to.deep.equal([['2026-11-05', 200]]);
	});

	it('belongs to the contractor, also where somebody else gets the bill', async () => {
		const payer = addCustomer(world, { ...FIRM, name: 'Head office' });
		const { id, customerId } = await issued(
			world,
			{ ...CONTRACTOR, billToId: payer },
			oneLine('1000')
		);
		pay(id, '800');
		expect(itemOf(world, id).payerId).to.equal(payer);
		const [month] = deductionsByMonth(world);
		expect(month).to.include({ contractorId: customerId, withheld: 200_00n });
		saveDeductionStatement(world, {
			contractor: customerId,
			month: '2026-11-24',
			gross: '1000',
			materials: '',
			deduction: '200',
			reference: ''
		});
		expect(deductionsByMonth(world)[0]!.state).to.equal('agrees');
		expect(statement(payer)).to.equal(0);
	});
});

describe('what a correction and a credit in part leave behind', () => {
	it('is no deduction alone, when a payment whose money moved with the correction is undone', async () => {
		const wrong = await issued(world, CONTRACTOR);
		// 2,300 less 316: of 0.16 and 108.03 together 17.23 is withheld, of the second by itself 17.21.
		pay(wrong.id, '0.16');
		pay(wrong.id, '108.03');
		const draft = correctAsDraft(world, wrong.id, 'k');
		const { sheet, version } = loadDraft(world.db, draft);
		saveDraft(world, draft, version, { ...sheet, about: { ...sheet.about!, reason: 'A slip' } });
		const wish = { sendTo: null, copyToSelf: false, useInHand: false };
		await issueAndSend(world, draft, version + 1, wish);
		undoPayment(world, world.db.select().from(payments).all()[0]!.id, '');
		const { cash, withheld, inHand: back } = itemOf(world, wrong.id);
		expect([cash, withheld, back]).to.deep.equal([108_03, 17_21, 108_03]);
		pay(draft, '1.00');
		expect(account('cisWithheld')).to.equal(17_21 + itemOf(world, draft).withheld);
	});

	it('is the VAT of what was not credited, when the rest of a debt is given up', async () => {
		const { id } = await issued(world, FIRM, {
			rows: [
				line('a', 'Render', '500'),
				line('b', 'New house', '500', { vat: 'zero', vatReason: 'newDwelling' })
			]
		});
		await creditPart(world, id, {
			key: 'part',
			reason: 'Not done',
			again: false,
			wishes: () => [{ position: 1 }]
		});
		at('2027-07-01');
		writeOff(world, id, 'Gone', 'w');
		expect(badDebts(world).map(({ state, vat }) => [state, vat])).to.deep.equal([
			['claimable', 100_00]
		]);
	});
});

describe('a payment made twice, half of which was moved', () => {
	it('leaves no deduction without money when the first is undone after all', async () => {
		const { id, customerId } = await contract();
		const next = await another(world, customerId, '3000', { contract: 'construction' });
		const small = await another(world, customerId, '400', { contract: 'construction' });
		pay(id, '800', { key: 'first' });
		await creditPart(world, id, {
			key: 'half',
			reason: 'Half was done',
			again: false,
			wishes: () => [{ position: 0, amount: 500_00n }]
		});
		useInHand(world, next.id, 'u1');
		pay(id, '800', { key: 'twice' });
		useInHand(world, small.id, 'u2');
		useInHand(world, next.id, 'u3');
		undoPayment(world, world.db.select().from(payments).all()[0]!.id, 'Recorded twice');
		const { cash, withheld } = itemOf(world, id);
		expect(cash === 0 && withheld > 0, 'a deduction without its money').to.equal(false);
		for (const one of [id, next.id, small.id]) {
			await credit(one);
			const { inHand: back } = itemOf(world, one);
			if (back > 0)
				refundByHand(world, one, {
					key: `back-${one}`,
					date: world.clock.today(),
					amount: (back / 100).toFixed(2),
					way: 'bank',
					reference: ''
				});
		}
		expect([account('cisWithheld'), account('receivable')]).to.deep.equal([0, 0]);
	});
});
