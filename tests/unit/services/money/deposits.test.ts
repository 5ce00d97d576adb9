// Money that came before there was anything to pay: whether VAT is due on it, and the invoice over it.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { NotFoundError } from '../../../../src/lib/core/refusals';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import {
	depositDraft,
	depositMoves,
	taxedInHand
} from '../../../../src/lib/server/services/money/deposits';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, payAhead } from '../../../support/money';
import { CONTRACTOR, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const paid = (payerId: number, amount: string, on?: string) => payAhead(world, payerId, amount, on);
const sheetOf = (id: number) => loadDraft(world.db, id).sheet;

describe('money in hand on which VAT is due', () => {
	it('becomes one draft, whatever is pressed again, of what is left and of its day', () => {
		const [firm, other] = [addCustomer(world, FIRM), addCustomer(world, { ...FIRM, name: 'Orme' })];
		const [first, second] = [paid(firm, '120'), paid(firm, '60', '2026-11-21')];
		const theirs = paid(other, '36');
		expect(taxedInHand(world.db, firm)).to.deep.equal(new Set([first, second]));
		expect(taxedInHand(world.db, other)).to.deep.equal(new Set([theirs]));
		const draft = depositDraft(world, second, 'a');
		expect(depositDraft(world, second, 'b')).to.equal(draft);
		expect(depositDraft(world, first, 'c')).not.to.equal(draft);
		const sheet = sheetOf(draft);
		expect(sheet).to.include({
			customerId: firm,
			contract: null,
			pricesIncludeVat: true,
			deposit: true,
			paidOn: '2026-11-21'
		});
		// With VAT, as it came.
		expect(sheet.rows).to.have.length(1);
		expect(sheet.rows[0]).to.include({
			unitPrice: '60.00',
			description: 'Deposit, paid on 21 Nov 2026'
		});
		const moves = depositMoves(world).toSorted((a, b) => a.id.localeCompare(b.id));
		expect(moves.map(({ amount }) => amount)).to.have.members([120_00n, 60_00n, 36_00n]);
		expect(moves.find(({ amount }) => amount === 36_00n)).to.deep.equal({
			id: `deposit:${theirs}`,
			amount: 36_00n,
			late: false,
			title: 'Orme paid £36.00 that is on no invoice',
			detail: 'If it is for work to come, VAT on it is due from 20 Nov 2026',
			action: 'See',
			href: `/owed/${other}`
		});
		expect(() => depositDraft(world, 999, 'd')).to.throw(NotFoundError);
	});

	it('of a contractor is what stood before the deduction, without the VAT it accounts for itself', () => {
		// 800.00 came of labour at 20 % deducted: 1,000.00; VAT is reverse charged and was never part of it.
		const draft = depositDraft(world, paid(addCustomer(world, CONTRACTOR), '800'), 'a');
		expect(sheetOf(draft)).to.include({ pricesIncludeVat: false, contract: 'construction' });
		expect(sheetOf(draft).rows[0]).to.include({ unitPrice: '1000.00' });
	});

	it('of a contractor that deducts nothing is what came, without VAT', () => {
		const end = { ...CONTRACTOR, standing: { ...CONTRACTOR.standing, cisRate: null } };
		const draft = depositDraft(world, paid(addCustomer(world, end), '120'), 'a');
		expect(sheetOf(draft).rows[0]).to.include({ unitPrice: '120.00' });
	});

	it('is none of who charges no VAT', () => {
		world.end();
		world = makeWorld({ vatRegistered: false, vatNumber: '' });
		const firm = addCustomer(world, FIRM);
		const id = paid(firm, '120');
		expect(taxedInHand(world.db, firm).size).to.equal(0);
		expect(depositMoves(world)).to.deep.equal([]);
		expect(() => depositDraft(world, id, 'a')).to.throw(NotFoundError);
	});
});
