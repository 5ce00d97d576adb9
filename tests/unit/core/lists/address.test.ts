// A view in an address and back, what may be typed as a filter, and how it reads.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	readFilterValue,
	readView,
	writeView,
	fieldOf
} from '../../../../src/lib/core/lists/address';
import { INVOICES } from '../../../../src/lib/core/lists/invoices';
import { HOWS, type How } from '../../../../src/lib/core/lists/types';
import { filterWords } from '../../../../src/lib/core/lists/words';

const read = (query: string) => readView(INVOICES, new URLSearchParams(query));
const round = (query: string) => writeView(INVOICES, read(query)).toString();

describe('a view in an address', () => {
	it('comes back as it was written, and says nothing of what a list begins with', () => {
		expect(round('')).to.equal('');
		expect(round('sort=-issued&c=customer&c=number&c=issued&c=total&c=settled&c=state')).to.equal(
			''
		);
		for (const query of [
			'q=lime+mill',
			'f=late.least.7&f=open.most.20000',
			'f=customer.has.a.b%26c%3Dd',
			'f=state.is.open%2Cpaid&f=sent.no',
			'sort=due',
			'sort=-total&c=total&c=customer'
		])
			expect(round(query), query).to.equal(query);
	});

	it('leaves out and names what is no filter; columns and orders that are none are as at first', () => {
		const view = read(
			'f=late.has.7&f=nothing.is.1&f=state.is.sold&f=settled.has.1&f=issued.from.2026-02-30&f=total.least.1.5&f=sent.yes.1&f=late.least.2&c=label&c=label&c=selfBilled&c=x&sort=state'
		);
		expect(view.filters).to.deep.equal([{ field: 'late', how: 'least', value: '2' }]);
		expect(view.wrong).to.have.length(7);
		expect(view.columns).to.deep.equal(['label']);
		expect(view.sort).to.deep.equal({ field: 'issued', down: true });
	});

	it('with a name begins with that one’s filters and order, and written out says them', () => {
		expect(read('view=late')).to.deep.include({
			named: 'late',
			sort: { field: 'due', down: false }
		});
		expect(round('view=late')).to.equal('f=state.is.open%2CpartPaid&f=late.least.1&sort=due');
		expect(round('view=late&f=sent.yes&sort=-total')).to.equal(
			'f=state.is.open%2CpartPaid&f=late.least.1&f=sent.yes&sort=-total'
		);
		expect(read('view=poem').named).to.equal(null);
	});

	it('of every list has columns, orders and views that are of its fields', () => {
		for (const id of [...INVOICES.columns, INVOICES.sort.field])
			expect(fieldOf(INVOICES, id), id).to.not.equal(undefined);
		for (const view of INVOICES.views) {
			const written = writeView(INVOICES, read(`view=${view.id}`));
			expect(readView(INVOICES, written).filters, view.id).to.deep.equal(view.filters);
			expect(readView(INVOICES, written).wrong, view.id).to.deep.equal([]);
		}
	});
});

describe('a filter that is typed', () => {
	const cases: [string, How, string, string | null][] = [
		['total', 'least', '£1,250', '125000'],
		['total', 'least', '0.05', '5'],
		['total', 'most', '-3.10', '-310'],
		['total', 'most', '3.105', null],
		['late', 'least', '7', '7'],
		['late', 'least', '7.5', null],
		['late', 'least', 'seven', null],
		['issued', 'from', '3/11', '2026-11-03'],
		['issued', 'from', '- 7', '-7'],
		['issued', 'to', 'Today', 'today'],
		['issued', 'to', 'once', null],
		['state', 'is', 'open,sold,paid', 'open,paid'],
		['state', 'is', 'constructor', null],
		['customer', 'has', ' Mill. ', 'Mill.'],
		['customer', 'has', '  ', null],
		['customer', 'has', 'x'.repeat(201), null],
		['sent', 'no', 'whatever', '']
	];
	for (const [id, how, typed, expected] of cases)
		it(`${id} ${how} “${typed.slice(0, 20)}” is ${expected}`, () =>
			expect(readFilterValue(fieldOf(INVOICES, id)!, how, typed, '2026-11-24')).to.equal(expected));

	it('reads as a sentence', () => {
		const words = (query: string) =>
			read(`f=${query}`).filters.map((filter) => filterWords(INVOICES, filter).join(' '));
		expect(
			[
				'late.least.7',
				'total.most.125000',
				'issued.from.-7',
				'issued.to.2026-11-03',
				'due.to.%2B1',
				'state.is.open,partPaid',
				'disputed.no',
				'sent.yes',
				'customer.has.Mill'
			].flatMap(words)
		).to.deep.equal([
			'days late at least 7',
			'amount at most £1,250.00',
			'issued from 7 days ago',
			'issued until 3 Nov 2026',
			'due until 1 day from now',
			'state is open or part paid',
			'not disputed',
			' sent',
			'customer has “Mill”'
		]);
	});

	it('has a question for each type', () =>
		expect(Object.values(HOWS).every((hows) => hows.length > 0)).to.equal(true));
});
