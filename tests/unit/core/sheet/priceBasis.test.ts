import { expect } from 'chai';
import { describe, it } from 'mocha';
import { sellingPrice } from '../../../../src/lib/core/jobs/billing';
import { parseDecimal } from '../../../../src/lib/core/money/decimal';
import { fromList, onBasis, priceOn } from '../../../../src/lib/core/sheet/priceBasis';
import { lineOf } from '../../../support/sheets';

const rate = (text: string) => parseDecimal(text);
const TWENTY = () => rate('20');

describe('a price of the list on a document that takes prices the other way', () => {
	it('has VAT put into it or taken out of it, to four decimals', () => {
		// Price, with VAT on the list, with VAT here, rate, what it must be: worked out by hand.
		for (const [price, from, to, percent, expected] of [
			['100', false, true, '20', '120.00'],
			['100', true, false, '20', '83.3333'],
			['12.34', false, true, '20', '14.808'],
			['12.35', false, true, '5', '12.9675'],
			['1.0001', false, true, '5', '1.0501'],
			['1.25', true, false, '5', '1.1905'],
			['-60', true, false, '20', '-50.00'],
			['0', true, false, '20', '0.00'],
			['99.99', true, true, '20', '99.99'],
			['99.99', false, false, '20', '99.99'],
			['about 5', false, true, '20', 'about 5'],
			['', true, false, '20', '']
		] as const)
			expect(priceOn(price, from, to, rate(percent)), `${price} ${from} ${to}`).to.equal(expected);
		expect(priceOn('80', true, false, null)).to.equal('80');
	});

	it('keeps what it was on the list beside it, as long as it is still that price', () => {
		const listed = { ...lineOf({ unitPrice: '100' }), listPrice: { price: '100', withVat: false } };
		const here = onBasis(listed, true, TWENTY);
		expect(here.unitPrice).to.equal('120.00');
		expect(fromList({ ...here, unitPrice: '120' }, true, TWENTY)).to.deep.include({
			price: '100',
			withVat: false
		});
		expect(fromList({ ...here, unitPrice: '121' }, true, TWENTY)).to.equal(null);
		expect(fromList(here, false, TWENTY)).to.equal(null);
		expect(fromList(here, true, () => null)).to.equal(null);
		// Where nothing is converted, nothing stays to be explained.
		expect(onBasis(listed, false, TWENTY)).to.deep.equal(lineOf({ unitPrice: '100' }));
		expect(onBasis(listed, true, () => null)).to.deep.equal(lineOf({ unitPrice: '100' }));
	});

	it('cost and mark-up have VAT on top where a job’s prices include it', () => {
		const cost = { unitCost: '100', markUp: '20', unitPrice: '' };
		expect(sellingPrice(cost)).to.equal('120.00');
		expect(sellingPrice({ ...cost, plusVat: '20' })).to.equal('144.00');
		expect(sellingPrice({ ...cost, markUp: '', plusVat: '5' })).to.equal('105.00');
		expect(sellingPrice({ ...cost, unitPrice: '150', plusVat: '20' })).to.equal('150');
	});
});
