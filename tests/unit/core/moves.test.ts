import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	lateMoney,
	moneyOf,
	mostMoneyFirst,
	worthOf,
	type Move
} from '../../../src/lib/core/moves';

const move = (id: string, amount: bigint | null, brings?: string): Move => ({
	id,
	amount,
	...(brings === undefined ? {} : { brings }),
	late: false,
	title: '',
	detail: '',
	action: '',
	href: ''
});

describe('what the next moves are worth', () => {
	it('counts each sum once, the largest that is named of it, and nothing that brings nothing in', () => {
		expect(
			worthOf([
				move('late', 2_848_00n, lateMoney(5)),
				move('letter', 1_902_18n, lateMoney(5)),
				move('other payer', 100_00n, lateMoney(6)),
				move('draft', 648_00n, 'draft:1'),
				move('bank', 7_541_28n),
				move('details', null, 'details')
			])
		).to.equal(2_848_00n + 100_00n + 648_00n);
		expect(worthOf([])).to.equal(0n);
	});

	it('takes an open invoice for part of what its payer is late with from the day after it is due', () => {
		const one = { payerId: 5, documentId: 12, dueDate: '2026-11-24' };
		expect(moneyOf(one, '2026-11-24')).to.equal('invoice:12');
		expect(moneyOf(one, '2026-11-25')).to.equal(lateMoney(5));
	});

	it('puts most money first, and what is not about money last', () => {
		const ids = mostMoneyFirst([move('a', null), move('b', 1n), move('c', 5n), move('d', 0n)]);
		expect(ids.map(({ id }) => id)).to.deep.equal(['c', 'b', 'd', 'a']);
	});
});
