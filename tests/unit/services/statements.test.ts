// Over 300 lines: one case for each thing a statement says.
import { pauseInvoice, resumeInvoice } from '../../../src/lib/server/services/owed/holds';
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { mails, statements } from '../../../src/lib/server/db/schema';
import { recordForPayer } from '../../../src/lib/server/services/money/payerPayments';
import {
	useAllInHand,
	useInHand,
	returnInHand
} from '../../../src/lib/server/services/money/useInHand';
import { inHandOf } from '../../../src/lib/server/services/ledger/inHand';
import { payerAccounts } from '../../../src/lib/server/services/owed/payerAccounts';
import { expectSoundBooks } from '../../support/books';
import { creditInvoice } from '../../../src/lib/server/services/invoices/creditNote';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import { FieldError, NotFoundError, RefusedError } from '../../../src/lib/core/refusals';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { deliverDue } from '../../../src/lib/server/clockwork/delivery';
import { sendAgain } from '../../../src/lib/server/services/messages/outbox';
import { payStatement, statementPage } from '../../../src/lib/server/services/owed/statementPage';
import {
	buildStatement,
	readStatementOptions,
	statementList,
	statementOverview
} from '../../../src/lib/server/services/owed/statements';
import {
	continueStatements,
	startStatements,
	statementRun
} from '../../../src/lib/server/services/owed/statementRuns';
import { writeOff } from '../../../src/lib/server/services/money/writeOffs';
import {
	another as anotherOf,
	FIRM,
	itemOf,
	oneLine as rows,
	payByHand
} from '../../support/money';
import {
	CONTRACTOR,
	issued,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const TODAY = { asOf: '2026-11-24' };
const options = (more: object = {}) => readStatementOptions({ ...TODAY, ...more });
const item = (id: number) => itemOf(world, id);

const another = (customerId: number, price: string) => anotherOf(world, customerId, price);
const paid = (documentId: number, amount: string, key?: string) =>
	payByHand(world, documentId, amount, key ? { key } : {});

describe('a statement', () => {
	it('comes to what the open items come to, whatever happened to them', async () => {
		const a = await issued(world, FIRM, rows('100'));
		const b = await another(a.customerId, '200');
		const c = await another(a.customerId, '300');
		const d = await another(a.customerId, '400');
		paid(a.id, '150');
		paid(b.id, '40');
		useInHand(world, b.id, 'use');
		await creditInvoice(world, c.id, 'Wrong', 'credit');
		writeOff(world, d.id, 'Gone', 'off');
		const id = recordForPayer(world, a.customerId, {
			key: 'on account',
			date: '2026-11-24',
			amount: '75',
			way: 'bank',
			reference: '',
			shares: {}
		});
		returnInHand(world, id, {
			key: 'back',
			date: '2026-11-24',
			amount: '25',
			way: 'bank',
			reference: ''
		});
		const open = [a, b, c, d].reduce(
			(sum, one) => sum + item(one.id).outstanding - item(one.id).overpaid,
			0
		);
		const inHand = inHandOf(world.db, a.customerId).reduce((sum, one) => sum + one.amount, 0);
		for (const style of [{}, { style: 'activity', from: '2026-11-01' }])
			expect(buildStatement(world, a.customerId, options(style)).balance).to.equal(open - inHand);
		expect(statementList(world, options())[0]).to.include({ unapplied: 50_00, usable: true });
	});

	it('has its credit used for all that is open in one press, the one due first, first', async () => {
		const a = await issued(world, FIRM, rows('100'));
		const b = await another(a.customerId, '200');
		expect(() => useAllInHand(world, a.customerId, 'none')).to.throw(RefusedError);
		recordForPayer(world, a.customerId, {
			key: 'ahead',
			date: '2026-11-24',
			amount: '200',
			way: 'bank',
			reference: '',
			shares: {}
		});
		expect(useAllInHand(world, a.customerId, 'all')).to.equal(200_00);
		expect([item(a.id).outstanding, item(b.id).outstanding]).to.deep.equal([0, 160_00]);
	});

	it('says what a contractor deducts, and asks for the rest', async () => {
		const a = await issued(world, CONTRACTOR);
		paid(a.id, '500');
		const { view, balance } = buildStatement(world, a.customerId, options());
		const left = item(a.id);
		expect(balance).to.equal(left.outstanding);
		expect(view.notes.join()).to.match(/CIS deduction you are expected to make/);
		const types = payerAccounts(world.db, [a.customerId])
			.get(a.customerId)!
			.map((entry) => entry.type);
		expect(types).to.include('withholding');
	});

	it('says how much a day in the past hides, and shows the lines of invoices where asked', async () => {
		const a = await issued(world, FIRM, rows('100'));
		expect(statementList(world, options({ asOf: '2026-11-01' }), { zero: true })[0]).to.include({
			balance: 0,
			hidden: 1
		});
		expect(statementOverview(world, options({ asOf: '2026-11-01' }))).to.deep.equal({
			rows: [],
			hidden: 1
		});
		const { view } = buildStatement(world, a.customerId, options({ withLines: true }));
		expect(view.rows[0]!.details.join()).to.match(/Render {2}100\.00/);
	});

	it('is made for those with a balance; zero and archived only where asked', async () => {
		const a = await issued(world, FIRM, rows('100'));
		addCustomer(world, { ...FIRM, name: 'Nothing yet' });
		const b = await issued(world, { ...FIRM, name: 'All paid' }, rows('100'));
		paid(b.id, '120');
		expect(statementList(world, options()).map((row) => row.payerId)).to.deep.equal([a.customerId]);
		expect(statementList(world, options(), { zero: true })).to.have.length(2);
	});
	it('say of which invoices a payer disputes something, as long as it does', async () => {
		const { id, customerId, number } = await issued(world, FIRM);
		const disputed = () =>
			statementList(world, options())
				.filter((row) => row.payerId === customerId)
				.map((row) => row.disputed);
		pauseInvoice(world, id, { kind: 'promise', until: '2026-12-24', note: '' });
		expect(disputed()).to.deep.equal([[]]);
		pauseInvoice(world, id, { kind: 'dispute', until: '', note: 'The coving' });
		expect(disputed()).to.deep.equal([[number]]);
		resumeInvoice(world, id);
		expect(disputed()).to.deep.equal([[]]);
	});

	for (const [what, input, field] of [
		['a day that is none', { asOf: '2026-02-30' }, 'asOf'],
		['activity from nowhere', { ...TODAY, style: 'activity' }, 'from'],
		['a first day after the last', { ...TODAY, style: 'activity', from: '2026-11-25' }, 'from']
	] as const)
		it(`refuses ${what} at its field`, () =>
			expect(() => readStatementOptions(input))
				.to.throw(FieldError)
				.with.nested.property(`fields.${field}`));
});

describe('a run of statements', () => {
	it('sends each once, with its PDF, whatever runs at once; who has no address is said', async () => {
		const payers = [];
		for (let n = 0; n < 5; n++)
			payers.push(
				(
					await issued(
						world,
						{ ...FIRM, name: `Firm ${n}`, email: n ? `f${n}@firm.example` : '' },
						rows('10')
					)
				).customerId
			);
		const run = startStatements(world, 'press', TODAY, payers, 'send');
		expect(startStatements(world, 'press', TODAY, payers, 'send')).to.equal(run);
		await Promise.all([continueStatements(world), continueStatements(world)]);
		await deliverDue(world);
		const { rows: made, run: after } = statementRun(world, run);
		expect(after.state).to.equal('done');
		expect(made.map((row) => row.state)).to.deep.equal(['skipped', 'sent', 'sent', 'sent', 'sent']);
		expect(made[0]!.note).to.match(/no e-mail address/);
		expect(world.sent).to.have.length(4);
		expect(world.sent[0]!.attachments[0]!.content.subarray(0, 4).toString()).to.equal('%PDF');
	});

	it('whose mail is refused is among the next moves, and can be sent again', async () => {
		const a = await issued(world, FIRM, rows('10'));
		world.mailAnswer = () => ({ state: 'refused', reason: 'no such box' });
		startStatements(world, 'press', TODAY, [a.customerId], 'send');
		await continueStatements(world);
		await deliverDue(world);
		const move = () => nextMoves(world).find((one) => one.title.startsWith('A statement did not'));
		expect(move()!.href).to.match(/statements\/\d+$/);
		world.mailAnswer = () => ({ state: 'sent' });
		sendAgain(world, world.db.select().from(mails).all().at(-1)!.id);
		await deliverDue(world);
		expect(move()).to.equal(undefined);
	});

	it('that broke off goes on with what is left', async () => {
		const a = await issued(world, FIRM, rows('10'));
		const b = await issued(world, { ...FIRM, name: 'Other' }, rows('10'));
		const run = startStatements(world, 'press', TODAY, [a.customerId, b.customerId], 'send');
		await continueStatements(world);
		// As a crash would leave it: the second one was not made, and its mail not written.
		const second = statementRun(world, run).rows[1]!.id;
		world.db.delete(mails).where(eq(mails.statementId, second)).run();
		world.db
			.update(statements)
			.set({ state: 'waiting', token: null, view: null, pdf: null, madeAt: null })
			.where(eq(statements.id, second))
			.run();
		world.db.$client.exec("update statement_runs set state = 'running'");
		await continueStatements(world);
		await deliverDue(world);
		expect(world.sent.map((mail) => mail.to)).to.have.length(2);
	});
});

describe('the page of a statement', () => {
	async function page() {
		const a = await issued(world, FIRM, rows('100'));
		const b = await another(a.customerId, '200');
		startStatements(world, 'press', TODAY, [a.customerId], 'send');
		await continueStatements(world);
		const { token } = world.db.select().from(statements).get()!;
		return { a, b, token: token! };
	}

	it('shows its own payer only, and what is open now', async () => {
		const { a, b, token } = await page();
		const later = await another(a.customerId, '300');
		expect(statementPage(world, token).toPay).to.equal(360_00);
		paid(b.id, '40');
		expect(statementPage(world, token).toPay).to.equal(320_00);
		expect(statementPage(world, token).open.map((one) => one.documentId)).not.to.include(later.id);
		const last = token.endsWith('_') ? '-' : '_';
		for (const wrong of ['x', token.slice(0, -1), token.slice(0, -1) + last, ''])
			expect(() => statementPage(world, wrong)).to.throw(NotFoundError);
	});

	it('takes all, some, or a part by card, recorded once, with a receipt', async () => {
		const { a, b, token } = await page();
		await payStatement(world, token, 'one', [b.id]);
		const event = settledEvent('chk-1', 240_00);
		receive(world, event);
		receive(world, event);
		expect([item(a.id).state, item(b.id).state]).to.deep.equal(['open', 'paid']);
		await payStatement(world, token, 'two', [a.id], 50_00);
		receive(world, settledEvent('chk-2', 50_00));
		expect(item(a.id).outstanding).to.equal(70_00);
		for (const [chosen, amount] of [
			[[a.id], 70_01],
			[[b.id], undefined],
			[[], undefined],
			[[a.id], 0]
		] as const)
			expect(
				await payStatement(world, token, 'wrong', chosen, amount).catch((error: unknown) => error)
			).to.be.instanceOf(FieldError);
		await deliverDue(world);
		expect(world.sent.filter((mail) => mail.subject.startsWith('Receipt'))).to.have.length(2);
	});

	it('paid twice in two tabs, the second is credit; given back, it is gone', async () => {
		const { a, token } = await page();
		await payStatement(world, token, 'one', [a.id]);
		await payStatement(world, token, 'two', [a.id]);
		receive(world, settledEvent('chk-1', 120_00));
		receive(world, settledEvent('chk-2', 120_00));
		expect(inHandOf(world.db, a.customerId).map((one) => one.amount)).to.deep.equal([120_00]);
		const refund = { type: 'refund.settled' as const, fee: 0 };
		receive(world, { ...refund, id: 'r1', checkout: 'chk-2', amount: 120_00, refund: 'r1' });
		expect(inHandOf(world.db, a.customerId)).to.deep.equal([]);
		receive(world, { ...refund, id: 'r2', checkout: 'chk-1', amount: 20_00, refund: 'r2' });
		expect(item(a.id).outstanding).to.equal(20_00);
	});

	it('news of a refund before that of its payment is sent again later', async () => {
		const { a, token } = await page();
		await payStatement(world, token, 'one', [a.id]);
		const refund = {
			id: 'r1',
			type: 'refund.settled' as const,
			checkout: 'chk-1',
			amount: 20_00,
			fee: 0,
			refund: 'r1'
		};
		expect(() => receive(world, refund)).to.throw(NotFoundError);
		receive(world, settledEvent('chk-1', 120_00));
		receive(world, refund);
		expect(item(a.id).outstanding).to.equal(20_00);
	});
});
