// What is typed onto a sheet: terms for paying in time, pasted headings, one line from words, and money there is.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { CURRENCIES, OTHER_CURRENCIES } from '../../../../src/lib/core/money/currencies';
import { formatDecimal } from '../../../../src/lib/core/money/decimal';
import { quickLine } from '../../../../src/lib/core/quick';
import { linesFromCells } from '../../../../src/lib/core/sheet/paste';
import { readPrompt } from '../../../../src/lib/core/sheet/prompt';
import { likelyWords, slipsBetween } from '../../../../src/lib/core/spelling';

describe('terms for paying in time', () => {
	function read(percent: string, days: string) {
		const stops: string[] = [];
		const terms = readPrompt({ prompt: { percent, days } }, (path) => stops.push(path));
		return terms ? `${formatDecimal(terms.percent)} in ${terms.days}` : stops.join(' ');
	}
	it('are a percentage above 0 and below 100 within 1 to 365 days; both, or none', () => {
		expect(readPrompt({})).to.equal(null);
		expect(read('', '')).to.equal('');
		expect(read(' ', ' ')).to.equal('');
		expect(read('2', '')).to.equal('prompt.days');
		expect(read('', '7')).to.equal('prompt.percent');
		expect(read('2%', '7')).to.equal('2 in 7');
		expect(read('0', '7')).to.equal('prompt.percent');
		expect(read('0.01', '1')).to.equal('0.01 in 1');
		expect(read('99.99', '365')).to.equal('99.99 in 365');
		expect(read('100', '7')).to.equal('prompt.percent');
		expect(read('x', '366')).to.equal('prompt.percent prompt.days');
		expect(read('2', '0')).to.equal('prompt.days');
		expect(read('2', '7 days')).to.equal('prompt.days');
	});
});

describe('a pasted table', () => {
	let id = 0;
	const paste = (text: string) =>
		linesFromCells(text, () => `n${id++}`)?.map((line) => [
			line.description,
			line.quantity,
			line.unit,
			line.unitPrice
		]);
	it('has its columns by their headings, totals left out, with and without a pound', () => {
		for (const total of ['Total', 'Amount', 'Net £', 'Sum, £', 'TOTAL£'])
			expect(paste(`Item\tQty\t${total}\tPrice £\nRender\t3\t135.00\t45.00`), total).to.deep.equal([
				['Render', '3', '', '45.00']
			]);
		expect(paste('What\tHours\tPer\tRate\nRepair\t2\thour\t40')).to.deep.equal([
			['Repair', '2', 'hour', '40']
		]);
		expect(paste('only text')).to.equal(undefined);
	});
});

describe('one line of words', () => {
	const line = (words: string) => {
		const { quantity, unit, description, unitPrice } = quickLine('invoice', words.split(' '));
		return [quantity, unit, description, unitPrice].join('|');
	};
	it('has a quantity with its unit first, a price last, and words between with a capital', () => {
		expect(line('3 h repair of coving 45')).to.equal('3|hour|Repair of coving|45');
		expect(line('3h repair at 45')).to.equal('3|hour|Repair|45');
		expect(line('2 bags lime @ £12.50')).to.equal('2|bag|Lime|12.50');
		expect(line('repair 60')).to.equal('1||Repair|60');
		expect(line('repair')).to.equal('1||Repair|');
		expect(line('4 doors')).to.equal('4||Doors|');
	});
});

describe('two words', () => {
	it('are so many slips apart: one changed, left out, added, or swapped with its neighbour', () => {
		const slips = (a: string, b: string) => slipsBetween(a, b, 4);
		expect(slips('lime', 'lime')).to.equal(0);
		expect(slips('lime', 'line')).to.equal(1);
		expect(slips('lime', 'ime')).to.equal(1);
		expect(slips('lime', 'limey')).to.equal(1);
		expect(slips('lime', 'ilme')).to.equal(1);
		expect(slips('lime', 'liem')).to.equal(1);
		// What is swapped with no neighbour is two.
		expect(slips('ab', 'ba')).to.equal(1);
		expect(slips('abc', 'cba')).to.equal(2);
		expect(slips('a', 'b')).to.equal(1);
		expect(slips('lime', 'sand')).to.equal(4);
		expect(slipsBetween('lime', 'sand', 2)).to.equal(3);
		expect(slipsBetween('lime', 'limestone', 2)).to.equal(3);
		expect(likelyWords('corvnae', ['corvane', 'beacon'])).to.deep.equal(['corvane']);
		expect(likelyWords('abc', ['abd'])).to.deep.equal([]);
	});
});

describe('money there is', () => {
	it('is pounds, and what needs a rate', () => {
		expect(CURRENCIES[0]).to.equal('GBP');
		expect([...OTHER_CURRENCIES].sort()).to.deep.equal(
			['AUD', 'CAD', 'CHF', 'DKK', 'EUR', 'NOK', 'NZD', 'PLN', 'SEK', 'USD'].sort()
		);
	});
});
