// What is otherwise on one document alone, and how it or its customer may pay: on paper, on its page, and when it is paid.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { frozenView } from '../../../../src/lib/core/documents/view';
import { FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import type { Sheet } from '../../../../src/lib/core/sheet/types';
import { customers, documents } from '../../../../src/lib/server/db/schema';
import {
	addCustomer,
	customerDetail,
	saveCustomer
} from '../../../../src/lib/server/services/customers/customers';
import { copyAsDraft, loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { payPage } from '../../../../src/lib/server/services/money/payPage';
import { buildStatement } from '../../../../src/lib/server/services/owed/statements';
import { howPaid } from '../../../../src/lib/server/services/owed/howPaid';
import { payTogether, openTogether } from '../../../../src/lib/server/services/owed/together';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, oneLine } from '../../../support/money';
import { customerOf, readWith } from '../../../support/sheets';
import { HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const OWN = {
	address: 'Site hut\nMill Yard',
	contact: 'Perpetua Dunn',
	bank: { accountName: '', sortCode: '11-22-33', accountNumber: '87654321' }
};
const rowOf = (id: number) => world.db.select().from(documents).where(eq(documents.id, id)).get()!;
const viewOf = (id: number) => {
	const { frozen, number } = rowOf(id);
	return frozenView(frozen!, number!, 'issued');
};
const tokenOf = (id: number) => rowOf(id).token!;

describe('one invoice', () => {
	it('goes to its own address, for somebody’s attention, into its own account, and touches nothing else', async () => {
		const { id, customerId } = await issued(world, FIRM, { ...oneLine('100'), own: OWN });
		const { customer, bank } = viewOf(id);
		expect(customer).to.deep.equal([
			FIRM.name,
			'For the attention of Perpetua Dunn',
			'Site hut',
			'Mill Yard'
		]);
		expect(bank).to.include({ sortCode: '11-22-33', accountNumber: '87654321' });
		expect(customerDetail(world, customerId).address).to.equal(FIRM.address);
		const next = await another(world, customerId, '50');
		expect(viewOf(next.id).customer).to.deep.equal([FIRM.name, ...FIRM.address.split('\n')]);
		expect(viewOf(next.id).bank).to.include({ accountNumber: '00012345' });
		// A copy is an invoice like any other.
		expect(loadDraft(world.db, copyAsDraft(world, id, 'copy')).sheet.own).to.equal(undefined);
	});

	it('goes to its own address at whoever gets the bill', async () => {
		const agent = addCustomer(world, { ...FIRM, name: 'Agent Ltd' });
		const tenant = { ...HOUSEHOLD, billToId: agent };
		const { id } = await issued(world, tenant, { ...oneLine('100'), own: OWN });
		const { customer, billTo } = viewOf(id);
		expect(billTo).to.deep.equal([
			HOUSEHOLD.name,
			'c/o Agent Ltd',
			'For the attention of Perpetua Dunn',
			'Site hut',
			'Mill Yard'
		]);
		expect(customer).to.deep.equal([HOUSEHOLD.name, ...HOUSEHOLD.address.split('\n')]);
	});

	it('says at its box what is no account, and that some way to pay must stay', () => {
		const stops = (own: Sheet['own']) =>
			readWith(customerOf('business'), own ? { own } : {})
				.problems.filter(({ level, path }) => level === 'stop' && path.startsWith('own'))
				.map(({ path }) => path);
		expect(stops(OWN)).to.deep.equal([]);
		expect(stops({ bank: { accountName: '', sortCode: '', accountNumber: '' } })).to.deep.equal([]);
		expect(stops({ bank: { ...OWN.bank, sortCode: '11-22' } })).to.deep.equal([
			'own.bank.sortCode'
		]);
		expect(stops({ bank: { ...OWN.bank, accountNumber: '1' } })).to.deep.equal([
			'own.bank.accountNumber'
		]);
		expect(stops({ ways: { card: false, bank: false, transfer: false } })).to.deep.equal([
			'own.ways'
		]);
		expect(stops({ ways: { card: false, bank: false, transfer: true } })).to.deep.equal([]);
		expect(stops({ address: 'x'.repeat(1001), contact: 'x'.repeat(201) })).to.deep.equal([
			'own.address',
			'own.contact'
		]);
	});
});

describe('the ways to pay', () => {
	const NO_CARD = { card: false, bank: true, transfer: true };
	const refused = async (press: Promise<unknown>) =>
		expect(await press.then(() => null).catch((error) => error)).to.be.instanceOf(RefusedError);

	it('are the customer’s, unless the invoice says otherwise, as they were when it was issued', async () => {
		const { id, customerId } = await issued(world, { ...FIRM, payWays: NO_CARD }, oneLine('100'));
		expect(payPage(world, tokenOf(id)).ways).to.deep.equal(NO_CARD);
		await refused(openCheckout(world, tokenOf(id), 'press'));
		await openCheckout(world, tokenOf(id), 'press', undefined, { way: 'bank' });
		const ways = { card: true, bank: false, transfer: false };
		const own = await another(world, customerId, '50', { own: { ways } });
		expect(payPage(world, tokenOf(own.id)).ways).to.deep.equal(ways);
		expect(viewOf(own.id).bank).to.equal(null);
		expect([viewOf(id).online, viewOf(own.id).online]).to.deep.equal(['from your bank', 'by card']);
		await refused(openCheckout(world, tokenOf(own.id), 'own', undefined, { way: 'bank' }));
		await openCheckout(world, tokenOf(own.id), 'own');

		// Together they can be paid only as both can be.
		const link = {
			payerId: customerId,
			documentIds: new Set([id, own.id]),
			path: '/s/x',
			of: { statementId: 0 }
		};
		expect(openTogether(world, link).ways).to.deep.equal({
			card: false,
			bank: false,
			transfer: false
		});
		await refused(payTogether(world, link, 'both', [id, own.id]));
		await refused(payTogether(world, link, 'both', [id, own.id], undefined, 'bank'));
	});

	it('into one account only where all of several name the same', async () => {
		const { id, customerId } = await issued(world, FIRM, { ...oneLine('100'), own: OWN });
		/** What the statement says. */
		const said = () =>
			buildStatement(world, customerId, {
				style: 'openItems',
				asOf: world.clock.today(),
				from: null,
				ageing: 'dueDate',
				withLines: false
			}).view.bank?.accountNumber ?? null;
		expect(said()).to.equal('87654321');
		const usual = await another(world, customerId, '50');
		expect(said()).to.equal(null);
		const account = (...ids: number[]) => howPaid(world.db, ids).bank?.accountNumber ?? null;
		expect(account(usual.id)).to.equal('00012345');
		expect(account(id)).to.equal('87654321');
		expect(account(id, usual.id)).to.equal(null);
		const cardOnly = { ways: { card: true, bank: false, transfer: false } };
		const card = await another(world, customerId, '60', { own: cardOnly });
		expect(account(usual.id, card.id)).to.equal(null);
	});

	it('of a customer are kept where one is missing; all of them are nothing to keep', () => {
		const id = addCustomer(world, { ...FIRM, payWays: { card: true, bank: true, transfer: true } });
		const kept = () => world.db.select().from(customers).where(eq(customers.id, id)).get()!.payWays;
		expect(kept()).to.equal(null);
		const save = (payWays: object) =>
			saveCustomer(world, id, customerDetail(world, id).version, { ...FIRM, payWays });
		save(NO_CARD);
		expect(kept()).to.deep.equal(NO_CARD);
		expect(() => save({ card: false, bank: false, transfer: false })).to.throw(FieldError);
	});
});
