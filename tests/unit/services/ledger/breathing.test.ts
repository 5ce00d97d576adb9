// Breathing spaces of debtors: whose, from when to when, and what is refused (the Debt Respite Scheme's sixty days).
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { NotFoundError } from '../../../../src/lib/core/refusals';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import {
	beginBreathing,
	breathingOf,
	breathingOn,
	endBreathing
} from '../../../../src/lib/server/services/ledger/breathing';
import { FIRM } from '../../../support/money';
import { makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let debtor: number;
let keys = 0;
beforeEach(() => {
	// 24 November 2026.
	world = makeWorld();
	debtor = addCustomer(world, FIRM);
});
afterEach(() => world.end());
const begin = (from: string, note = '', key = `b${keys++}`) =>
	beginBreathing(world, debtor, { key, from, note });
const known = () =>
	(breathingOf(world.db, [debtor]).get(debtor) ?? []).map(({ from, to }) => [from, to]);

describe('breathing spaces', () => {
	it('are of those who are named, or of everybody; who has none is not there', () => {
		const other = addCustomer(world, { ...FIRM, name: 'Orme' });
		begin('2026-11-20', ' DRS-7 ');
		expect([...breathingOf(world.db).keys()]).to.deep.equal([debtor]);
		expect([...breathingOf(world.db, [debtor, other]).keys()]).to.deep.equal([debtor]);
		expect(breathingOf(world.db, [other]).size).to.equal(0);
		expect(breathingOf(world.db, []).size).to.equal(0);
		expect(breathingOn(world.db, debtor, '2026-11-20')).to.include({ note: 'DRS-7' });
		expect(breathingOn(world.db, debtor, '2026-11-19')).to.equal(undefined);
		expect(breathingOn(world.db, other, '2026-11-20')).to.equal(undefined);
	});

	it('may follow one another without a day in common', () => {
		begin('2026-06-01');
		// Sixty days from 1 June: the last is 30 July.
		expect(known()).to.deep.equal([['2026-06-01', '2026-07-30']]);
		expect(() => begin('2026-07-30'))
			.to.throw()
			.with.nested.property('fields.from');
		begin('2026-07-31');
		// And one before them, that ended on 31 May.
		begin('2026-04-02');
		expect(() => begin('2026-02-02'))
			.to.throw()
			.with.nested.property('fields.from');
		expect(known()).to.deep.equal([
			['2026-04-02', '2026-05-31'],
			['2026-06-01', '2026-07-30'],
			['2026-07-31', '2026-09-28']
		]);
	});

	it('are refused at the field: too far ahead, too long a note; and for nobody', () => {
		expect(() => begin('2026-12-02'))
			.to.throw()
			.with.nested.property('fields.from');
		expect(() => begin('2026-11-24', 'x'.repeat(201)))
			.to.throw()
			.with.nested.property('fields.note');
		expect(known()).to.deep.equal([]);
		expect(() => beginBreathing(world, 999, { key: 'k', from: '2026-11-24', note: '' })).to.throw(
			NotFoundError
		);
		begin('2026-12-01', 'x'.repeat(200));
		expect(known()).to.have.length(1);
	});

	it('end yesterday when they are ended, and are none that began today; what is over stays', () => {
		const end = () => endBreathing(world, debtor, breathingOf(world.db).get(debtor)![0]!.id);
		begin('2026-11-24');
		expect(end()).to.include({ from: '2026-11-24' });
		expect(known()).to.deep.equal([]);
		begin('2026-11-23');
		expect(end()).to.include({ from: '2026-11-23' });
		expect(known()).to.deep.equal([['2026-11-23', '2026-11-23']]);
		expect(end()).to.equal(null);
		expect(endBreathing(world, debtor, 999)).to.equal(null);
		expect(endBreathing(world, 999, 1)).to.equal(null);
	});

	it('end on their last day too', () => {
		// 26 September is the first of sixty days of which today is the last.
		begin('2026-09-26');
		expect(known()).to.deep.equal([['2026-09-26', '2026-11-24']]);
		endBreathing(world, debtor, breathingOf(world.db).get(debtor)![0]!.id);
		expect(known()).to.deep.equal([['2026-09-26', '2026-11-23']]);
	});
});
