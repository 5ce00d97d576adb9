import { expect } from 'chai';
import { describe, it } from 'mocha';
import { readDeductionFile } from '../../../src/lib/core/formats/deductionFile';
import { TableError } from '../../../src/lib/core/formats/table';

const read = (text: string) => readDeductionFile(new TextEncoder().encode(text));
const HEAD = 'Contractor name,Month end,Gross amount,Materials,Tax deducted';

describe('payment and deduction statements in a CSV file', () => {
	it('are found by headings of many kinds; a day belongs to the tax month that ends on the next 5th', () => {
		const { rows, problems } = read(`${HEAD}\nBeacon Ltd,06/11/2026,"1,200.50",200,200.10\n`);
		expect(problems).to.deep.equal([]);
		expect(rows).to.deep.equal([
			{
				line: 2,
				contractor: 'Beacon Ltd',
				monthEnd: '2026-12-05',
				gross: 1200_50n,
				materials: 200_00n,
				deduction: 200_10n,
				reference: ''
			}
		]);
	});

	for (const [name, row, words] of [
		['no contractor', ',05/11/2026,100,0,20', 'the contractor is missing'],
		['no day', 'Beacon,soon,100,0,20', 'is no day in a tax month'],
		['no amount paid', 'Beacon,05/11/2026,lots,0,20', 'is no amount paid'],
		['an amount below zero', 'Beacon,05/11/2026,-100,0,20', 'is no amount paid'],
		['no deduction', 'Beacon,05/11/2026,100,0,', 'is no amount deducted'],
		['odd materials', 'Beacon,05/11/2026,100,some,20', 'is no cost of materials'],
		['more deducted than paid', 'Beacon,05/11/2026,100,0,100.01', 'more was deducted than paid']
	] as const)
		it(`with ${name} are left out, with the line and why`, () => {
			const { rows, problems } = read(`${HEAD}\n${row}\nGood,05/11/2026,100,0,20`);
			expect(rows.map((one) => one.contractor)).to.deep.equal(['Good']);
			expect(problems).to.have.length(1);
			expect(problems[0]!.line).to.equal(2);
			expect(problems[0]!.message).to.include(words);
		});

	it('without a column that is needed are refused, with what is needed', () => {
		expect(() => read('Contractor,Month end,Materials\nBeacon,05/11/2026,1')).to.throw(
			TableError,
			'Paid before the deduction'
		);
		expect(() => read('')).to.throw(TableError);
	});
});
