// Tax points as records: one for each day on which a part of a document's supply took place, posted to that day.
import { expect } from 'chai';
import { asc, eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { taxPoints } from '../../../../src/lib/server/db/schema';
import {
	loadDraft,
	beginInvoice,
	saveDraft
} from '../../../../src/lib/server/services/invoices/drafts';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { saveBusiness } from '../../../../src/lib/server/services/business/settings';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { nextMoves } from '../../../../src/lib/server/services/desk/moves';
import { creditInvoice, creditPart } from '../../../../src/lib/server/services/invoices/creditNote';
import { depositDraft, taxedInHand } from '../../../../src/lib/server/services/money/deposits';
import { issueAndSend } from '../../../../src/lib/server/services/money/issueAndSend';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { NotFoundError } from '../../../../src/lib/core/refusals';
import type { SheetLine } from '../../../../src/lib/core/sheet/types';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, itemOf } from '../../../support/money';
import {
	BUSINESS,
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

const records = (id: number) =>
	world.db
		.select()
		.from(taxPoints)
		.where(eq(taxPoints.documentId, id))
		.orderBy(asc(taxPoints.date))
		.all()
		.map(({ date, because, net, vatCharged, vatReverseCharged }) => [
			date,
			because,
			net,
			vatCharged,
			vatReverseCharged
		]);
const posted = () =>
	world.db
		.all<{ day: string; amount: number }>(
			sql`select tax_point as day, -sum(amount) as amount from journal_lines where account = 'vatOutput' group by 1 order by 1`
		)
		.map(({ day, amount }) => [day, amount]);
const came = (payerId: number, amount: string, date: string) =>
	recordForPayer(world, payerId, {
		key: `${payerId}-${date}`,
		date,
		amount,
		way: 'bank',
		reference: '',
		shares: {}
	});
const withHand = async (customerId: number, sheet: object) => {
	const id = beginInvoice(world, `i-${customerId}`, customerId);
	const { version } = saveDraft(world, id, 1, { ...loadDraft(world.db, id).sheet, ...sheet });
	return issueAndSend(world, id, version, { sendTo: null, copyToSelf: false, useInHand: true });
};

describe('the tax points of a document', () => {
	it('are those of its lines, each with the VAT of its own', async () => {
		const { id } = await issued(world, FIRM, {
			rows: [
				line('a', 'Old', '100', { workDone: '2026-10-20' }),
				line('b', 'Old, new house', '50', {
					workDone: '2026-10-20',
					vat: 'zero',
					vatReason: 'newDwelling'
				}),
				line('c', 'Now', '10')
			]
		});
		expect(records(id)).to.deep.equal([
			['2026-10-20', 'work', 150_00, 20_00, 0],
			['2026-11-24', 'invoice', 10_00, 2_00, 0]
		]);
		expect(posted()).to.deep.equal([
			['2026-10-20', 20_00],
			['2026-11-24', 2_00]
		]);
		await creditPart(world, id, {
			key: 'p',
			reason: 'x',
			again: false,
			wishes: () => [{ position: 0, amount: 40_00n }]
		});
		expect(posted()).to.deep.equal([
			['2026-10-20', 12_00],
			['2026-11-24', 2_00]
		]);
		await creditInvoice(world, id, 'All', 'all');
		expect(posted()).to.deep.equal([
			['2026-10-20', 0],
			['2026-11-24', 0]
		]);
	});

	it('are earlier for what was paid before the work was done, and the paper says so', async () => {
		const payer = addCustomer(world, FIRM);
		came(payer, '600.00', '2026-11-10');
		const { id } = await withHand(payer, { rows: [line('a', 'Render', '1000')] });
		expect(records(id)).to.deep.equal([
			['2026-11-10', 'payment', 500_00, 100_00, 0],
			['2026-11-24', 'invoice', 500_00, 100_00, 0]
		]);
		expect(posted()).to.deep.equal([
			['2026-11-10', 100_00],
			['2026-11-24', 100_00]
		]);
		expect(documentDetail(world, id).view.facts).to.deep.include({
			id: 'taxPoint',
			label: 'Tax point',
			value: '10 Nov 2026 for £600.00, 24 Nov 2026 for £600.00'
		});
		await creditInvoice(world, id, 'All', 'all');
		expect(posted()).to.deep.equal([
			['2026-11-10', 0],
			['2026-11-24', 0]
		]);
	});

	it('are the day of payment alone where all of it was paid before; what came after the work makes none', async () => {
		const early = addCustomer(world, FIRM);
		came(early, '1200.00', '2026-11-10');
		const all = await withHand(early, { rows: [line('a', 'Render', '1000')] });
		expect(records(all.id)).to.deep.equal([['2026-11-10', 'payment', 1000_00, 200_00, 0]]);
		const late = addCustomer(world, { ...FIRM, name: 'Late' });
		came(late, '600.00', '2026-11-20');
		const done = await withHand(late, {
			workFinished: '18 Nov 2026',
			rows: [line('a', 'Render', '1000')]
		});
		expect(records(done.id)).to.deep.equal([['2026-11-24', 'invoice', 1000_00, 200_00, 0]]);
	});

	it('count what a contractor withheld with what it paid', async () => {
		const payer = addCustomer(world, CONTRACTOR);
		came(payer, '400.00', '2026-11-10');
		const { id } = await withHand(payer, {
			contract: 'construction',
			rows: [line('a', 'Render', '1000')]
		});
		expect(records(id)).to.deep.equal([
			['2026-11-10', 'payment', 500_00, 0, 100_00],
			['2026-11-24', 'invoice', 500_00, 0, 100_00]
		]);
	});
});

describe('money that came before work or invoice', () => {
	const moves = () => nextMoves(world).filter(({ id }) => id.startsWith('deposit:'));

	it('is said to bear VAT at once, and its deposit invoice is offered and settled by it', async () => {
		const payer = addCustomer(world, HOUSEHOLD);
		const payment = came(payer, '600.00', '2026-11-10');
		expect(moves().map(({ title, detail }) => [title, detail])).to.deep.equal([
			[
				'Odile Brancaster paid £600.00 that is on no invoice',
				'If it is for work to come, VAT on it is due from 10 Nov 2026'
			]
		]);
		const draft = depositDraft(world, payment, 'd');
		expect(depositDraft(world, payment, 'd')).to.equal(draft);
		const { version } = loadDraft(world.db, draft);
		await issueAndSend(world, draft, version, { sendTo: null, copyToSelf: false, useInHand: true });
		expect(itemOf(world, draft)).to.include({ total: 600_00, state: 'paid' });
		expect(records(draft)).to.deep.equal([['2026-11-10', 'payment', 500_00, 100_00, 0]]);
		expect(documentDetail(world, draft).view.title).to.equal('VAT invoice for a deposit');
		expect([moves(), [...taxedInHand(world.db, payer)]]).to.deep.equal([[], []]);
		expect(() => depositDraft(world, payment, 'd')).to.throw(NotFoundError);
	});

	it('billed for more than came by a deposit invoice of that day is one record', async () => {
		const payer = addCustomer(world, HOUSEHOLD);
		const first = came(payer, '600.00', '2026-11-10');
		const draft = depositDraft(world, first, 'd');
		const { sheet, version } = loadDraft(world.db, draft);
		const rows = sheet.rows.map((row) => ({ ...row, unitPrice: '900' }) as SheetLine);
		saveDraft(world, draft, version, { ...sheet, rows });
		await issueAndSend(world, draft, version + 1, {
			sendTo: null,
			copyToSelf: false,
			useInHand: true
		});
		expect(records(draft)).to.deep.equal([['2026-11-10', 'payment', 750_00, 150_00, 0]]);
	});

	it('from a contractor is what its deduction left, with VAT charged and without', async () => {
		const total = (customer: object) => {
			const payer = addCustomer(world, customer as typeof CONTRACTOR);
			return loadDraft(
				world.db,
				depositDraft(world, came(payer, '800.00', '2026-11-10'), `d-${payer}`)
			).total;
		};
		expect(total(CONTRACTOR)).to.equal(1000_00);
		// 800 and 20 % VAT of 800: 960 less 160 is what came.
		expect(
			total({
				...CONTRACTOR,
				standing: {
					...CONTRACTOR.standing,
					endUser: true,
					endUserStatement: 'We use it',
					endUserDate: '2026-01-01'
				}
			})
		).to.equal(960_00);
	});

	it('bears none where nobody is registered', () => {
		saveBusiness(world, { ...BUSINESS, vatRegistered: false, vatFrom: '2026-11-01' });
		const payer = addCustomer(world, HOUSEHOLD);
		const payment = came(payer, '600.00', '2026-11-10');
		expect([moves(), taxedInHand(world.db, payer).size]).to.deep.equal([[], 0]);
		expect(() => depositDraft(world, payment, 'd')).to.throw(NotFoundError);
	});
});
