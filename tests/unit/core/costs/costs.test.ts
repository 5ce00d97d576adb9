// Reading receipts from the letters a machine saw, driving at the flat rates, and what a cost means. Expected values from the
// receipts as they were made, and by hand.
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { meaningsOf } from '../../../../src/lib/core/costs/meaning';
import { mileageCost, taxYearStart } from '../../../../src/lib/core/costs/mileage';
import { readReceipt } from '../../../../src/lib/core/costs/receipt';

interface Made {
	name: string;
	date: string;
	total: number;
	vat: number | null;
	/** What the machine saw on its photo. */
	text: string;
}
const RECEIPTS = JSON.parse(
	readFileSync('tests/fixtures/receipts/expected.json', 'utf8')
) as Made[];
const TODAY = '2026-11-27';

describe('a receipt', () => {
	it('turned, creased, faded, of two rates, with change given: sum and date right in 24 of 30, none wrong for certain', () => {
		expect(RECEIPTS.length).to.be.at.least(30);
		let right = 0;
		let sure = 0;
		for (const { name, date, total, vat, text } of RECEIPTS) {
			const read = readReceipt(text, TODAY);
			if (read.total?.value === total && read.date?.value === date) right += 1;
			if (read.total?.sure) {
				expect(read.total.value, name).to.equal(total);
				sure += 1;
			}
			if (read.date?.sure) expect(read.date.value, name).to.equal(date);
			if (read.vat?.sure) expect(read.vat.value, name).to.equal(vat);
		}
		expect(right).to.be.at.least(24);
		// Not by being sure of nothing.
		expect(sure).to.be.at.least(15);
	});

	const read = (...lines: string[]) => readReceipt(lines.join('\n'), TODAY);

	it('is certain of a sum only where two things on it agree', () => {
		expect(read('TOTAL 12.50').total).to.deep.equal({ value: 1250, sure: false });
		expect(read('TOTAL 12.50', 'VISA 12.50').total).to.deep.equal({ value: 1250, sure: true });
		expect(read('TOTAL 12.50', 'CASH 20.00', 'CHANGE 7.50').total?.sure).to.equal(true);
		expect(read('TOTAL 12.50', 'CASH 20.00', 'CHANGE 7.00').total?.sure).to.equal(false);
		expect(read('Subtotal 10.00', 'VAT 2.00', 'Total 12.00').total).to.deep.equal({
			value: 1200,
			sure: true
		});
		// Two totals that each have something for them: neither is certain.
		expect(
			read('TOTAL 12.00', 'VISA 12.00', 'TOTAL 21.00', 'MASTERCARD 21.00').total?.sure
		).to.equal(false);
		expect(read('Total savings 3.00', 'Total 9.00').total?.value).to.equal(900);
		expect(read('TOTAL', '12.50').total?.value).to.equal(1250);
	});

	it('goes by what is called the total before what was paid, by how much agrees, then by what is more', () => {
		expect(read('TOTAL 12.50', 'VISA 20.00').total?.value).to.equal(1250);
		expect(read('TOTAL 9.00', 'TOTAL 12.50').total?.value).to.equal(1250);
		expect(read('TOTAL 12.50', 'TOTAL 9.00', 'VISA 9.00').total?.value).to.equal(900);
		expect(read('VISA 7.00', 'MASTERCARD 9.00').total).to.deep.equal({ value: 900, sure: false });
	});

	it('has VAT of at most a sixth, summed over its rates, and no VAT number taken for it', () => {
		expect(read('VAT No 123 45', 'Total 12.00').vat).to.equal(null);
		expect(read('VAT 20% 2.00', 'VAT 5% 0.50', 'Total 30.00').vat?.value).to.equal(250);
		expect(read('Total 12.00', 'VAT 2.01').vat?.value).to.equal(201);
		expect(read('Total 12.00', 'VAT 3.00').vat).to.equal(null);
	});

	it('is of a day that was, however it is written, and certain only where nothing contradicts', () => {
		const dated = (text: string) => read(text).date;
		for (const text of ['3/11/26', '03.11.2026', '3 Nov 2026', '3rd November 2026', '2026-11-03'])
			expect(dated(text)?.value, text).to.equal('2026-11-03');
		expect(dated('Date 3/11/26')).to.deep.equal({ value: '2026-11-03', sure: true });
		expect(dated('3/11/26 14:22')?.sure).to.equal(true);
		expect(dated('3/11/26')?.sure).to.equal(false);
		expect(read('Date 3/11/26', 'Return until 1/11/26').date?.sure).to.equal(false);
		for (const text of ['28/11/26', '31/02/26', '3/11/23', 'Tel 01632 960001', ''])
			expect(dated(text), text).to.equal(null);
		expect(read('a cat on a wall').total).to.equal(null);
	});
});

describe('driving', () => {
	it('is 45p for the first 10,000 miles of a tax year, 25p after', () => {
		expect(mileageCost('100')).to.equal(45_00n);
		expect(mileageCost('12.5')).to.equal(563n);
		expect(mileageCost('100', '9950')).to.equal(50n * 45n + 50n * 25n);
		expect(mileageCost('10', '10000')).to.equal(250n);
		expect(mileageCost('10', '20000.5')).to.equal(250n);
	});

	it('belongs to the tax year that begins on 6 April', () => {
		expect(
			['2026-04-05', '2026-04-06', '2026-12-31', '2027-01-01'].map(taxYearStart)
		).to.deep.equal(['2025-04-06', '2026-04-06', '2026-04-06', '2026-04-06']);
	});
});

describe('what a cost means', () => {
	const helper = { subcontractor: true, vatNumber: '' };
	const none = { gross: 500_00, vat: 0, reclaim: false };
	const taxed = { gross: 250_01, vat: 41_66, reclaim: true };
	it('is said of a helper under CIS, of the reverse charge, and of VAT without a number', () => {
		const references = (...given: Parameters<typeof meaningsOf>) =>
			meaningsOf(...given).map(({ reference }) => reference.slice(0, 14));
		expect(references(helper, { vatRegistered: true }, none)).to.deep.equal(['Finance Act 20']);
		expect(
			references({ ...helper, vatNumber: 'GB123456782' }, { vatRegistered: true }, none)
		).to.deep.equal(['Finance Act 20', 'VATA 1994 s.55']);
		expect(
			references({ ...helper, vatNumber: 'GB123456782' }, { vatRegistered: false }, none)
		).to.deep.equal(['Finance Act 20']);
		const shop = { subcontractor: false, vatNumber: '' };
		expect(references(shop, { vatRegistered: true }, taxed)).to.deep.equal(['VAT Regulation']);
		expect(references(shop, { vatRegistered: true }, { ...taxed, reclaim: false })).to.deep.equal(
			[]
		);
		expect(references(shop, { vatRegistered: true }, { ...taxed, gross: 250_00 })).to.deep.equal(
			[]
		);
		expect(references(null, { vatRegistered: true }, none)).to.deep.equal([]);
	});
});
