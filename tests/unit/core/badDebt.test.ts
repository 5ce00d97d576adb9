import { expect } from 'chai';
import { describe, it } from 'mocha';
import { badDebtRelief, type BadDebt } from '../../../src/lib/core/regimes/gb/badDebt';

const DEBT: BadDebt = {
	taxPoint: '2026-08-31',
	dueDate: '2026-08-15',
	total: 120_00n,
	vatCharged: 20_00n,
	writtenOff: 120_00n,
	claimed: 0n
};
const on = (day: string, more: Partial<BadDebt> = {}) => {
	const { state, vat } = badDebtRelief({ ...DEBT, ...more }, day);
	return [state, Number(vat)];
};

describe('VAT bad-debt relief (VATA 1994 s.36)', () => {
	it('waits six months from the later of due date and tax point, and ends four years after that', () => {
		expect(badDebtRelief(DEBT, '2026-11-24')).to.include({
			from: '2027-02-28',
			until: '2031-02-28'
		});
		expect(on('2027-02-27')).to.deep.equal(['waiting', 20_00]);
		expect(on('2027-02-28')).to.deep.equal(['claimable', 20_00]);
		expect(on('2031-02-28')).to.deep.equal(['claimable', 20_00]);
		expect(on('2031-03-01')).to.deep.equal(['expired', 20_00]);
		expect(on('2027-03-10', { dueDate: '2026-09-15' })).to.deep.equal(['waiting', 20_00]);
	});

	it('is the VAT within what is lost: what was paid or withheld keeps its own', () => {
		expect(on('2027-06-01', { writtenOff: 40_00n })).to.deep.equal(['claimable', 6_67]);
		expect(on('2027-06-01', { vatCharged: 0n })).to.deep.equal(['none', 0]);
		expect(on('2027-06-01', { writtenOff: 0n })).to.deep.equal(['none', 0]);
	});

	it('is claimed once, and repaid as far as they pay after all', () => {
		expect(on('2027-06-01', { claimed: 20_00n })).to.deep.equal(['claimed', 0]);
		expect(on('2027-06-01', { claimed: 20_00n, writtenOff: 60_00n })).to.deep.equal([
			'repay',
			10_00
		]);
		expect(on('2032-01-01', { claimed: 20_00n, writtenOff: 0n })).to.deep.equal(['repay', 20_00]);
	});
});
