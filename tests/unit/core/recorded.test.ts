import { expect } from 'chai';
import { describe, it } from 'mocha';
import { RecordedMatcher, together, type RecordedMoney } from '../../../src/lib/core/bank/recorded';
import type { Proposal } from '../../../src/lib/core/bank/types';

const PAID: RecordedMoney = {
	kind: 'payment',
	id: 7,
	payerId: 1,
	payer: 'Corvane Dairy Ltd',
	date: '2026-11-20',
	amount: 120_00n,
	marks: ['OLP-0301', 'dairy nov']
};
const PAYOUT: RecordedMoney = {
	...PAID,
	kind: 'payout',
	id: 3,
	payerId: 0,
	payer: 'The card processor',
	marks: ['CARDPAY 4107']
};
const propose = (more: { date?: string; amount?: bigint; text?: string; payer?: string } = {}) =>
	new RecordedMatcher([PAID, PAYOUT]).propose({
		id: 1,
		date: '2026-11-21',
		amount: 120_00n,
		text: '',
		payer: '',
		...more
	});

describe('a bank line that shows what is recorded', () => {
	for (const [name, line, kind, sure] of [
		['its number in the text', { text: 'olp 0301' }, 'payment', true],
		['the name of who paid', { payer: 'CORVANE DAIRY' }, 'payment', true],
		['the reference of a payout', { text: 'CARDPAY 4107 FPI' }, 'payout', true],
		['the amount alone', {}, 'payment', false]
	] as const)
		it(`by ${name}${sure ? ' is sure' : ' is a guess'}`, () => {
			const [best] = propose(line);
			expect(best!.recorded!.kind).to.equal(kind);
			expect(best!.sure).to.equal(sure);
			expect(best!.shares).to.deep.equal([]);
		});

	it('is none with another amount, or too many days away', () => {
		expect(propose({ amount: 120_01n })).to.deep.equal([]);
		expect(propose({ date: '2026-11-28' })).to.deep.equal([]);
		expect(propose({ date: '2026-11-13' })).to.have.length(2);
	});

	it('is not sure beside an open invoice that fits as well', () => {
		const fresh: Proposal = {
			payerId: 2,
			payer: 'Other',
			shares: [{ documentId: 9, number: 'OLP-9', amount: 120_00n, withheld: null }],
			over: 0n,
			score: 95,
			sure: true,
			reasons: []
		};
		const both = together([fresh], propose({ text: 'olp 0301' }));
		expect(both.some((one) => one.sure)).to.equal(false);
		expect(together([fresh], [])[0]!.sure).to.equal(true);
		expect(together([{ ...fresh, score: 40 }], propose({ text: 'olp 0301' }))[0]!.sure).to.equal(
			true
		);
	});
});
