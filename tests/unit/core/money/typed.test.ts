// Numbers as people type them, amounts at their edges, and the numbers that stand on papers.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	accountFor,
	accountLine,
	accountWords,
	formatIban
} from '../../../../src/lib/core/documents/account';
import {
	explainNumberPattern,
	formatNumber,
	runningOf
} from '../../../../src/lib/core/documents/numbers';
import {
	absolute,
	compare,
	formatDecimal,
	formatMoney,
	max,
	min,
	parseDecimal,
	parseMoney
} from '../../../../src/lib/core/money/decimal';
import { explainTypedNumber, readTypedNumber } from '../../../../src/lib/core/money/typed';

describe('a number as it is typed', () => {
	const read = (
		typed: string,
		limits = { decimals: 2 } as Parameters<typeof readTypedNumber>[1]
	) => {
		const result = readTypedNumber(typed, limits);
		return result.ok ? result.text : result.reason;
	};
	it('is read without what stands around it', () => {
		for (const [typed, text] of [
			['12.50', '12.50'],
			[' £ 1 234.50 ', '1234.50'],
			['1,234', '1234'],
			['1,234,567.89', '1234567.89'],
			['+5', '5'],
			['.5', '0.5'],
			['5.', '5'],
			['12.500', '12.50'],
			['12.0000', '12.00'],
			['007', '007']
		] as const)
			expect(read(typed), typed).to.equal(text);
	});

	it('is none, or too much of one, and says which', () => {
		for (const [typed, reason] of [
			['', 'empty'],
			[' £ ', 'empty'],
			['1,5', 'notANumber'],
			['12,34,567', 'notANumber'],
			['1,2345', 'notANumber'],
			['a', 'notANumber'],
			['1e5', 'notANumber'],
			['--1', 'notANumber'],
			['12.505', 'tooManyDecimals'],
			['-1', 'negative'],
			['−1', 'negative'],
			['(1)', 'negative'],
			['1000000000', 'tooLarge']
		] as const)
			expect(read(typed), typed).to.equal(reason);
		expect(read('999999999.99')).to.equal('999999999.99');
		expect(read('1000', { decimals: 2, digits: 3 })).to.equal('tooLarge');
		expect(read('999', { decimals: 2, digits: 3 })).to.equal('999');
		expect(read('0.001', { decimals: 3 })).to.equal('0.001');
		expect(read('5.0', { decimals: 0 })).to.equal('5');
		expect(read('5.5', { decimals: 0 })).to.equal('tooManyDecimals');
		for (const typed of ['-1.5', '(1.50)', '–1.5'])
			expect(read(typed, { decimals: 2, negative: true }), typed).to.match(/^-1\.50?$/);
		expect(read('-.5', { decimals: 2, negative: true })).to.equal('-0.5');
	});

	it('is asked for in plain words', () => {
		const words = (
			reason: 'empty' | 'notANumber' | 'tooManyDecimals' | 'negative' | 'tooLarge',
			digits?: number
		) =>
			explainTypedNumber({ ok: false, reason }, 'a price', {
				decimals: 2,
				...(digits ? { digits } : {})
			});
		expect(words('empty')).to.equal('Give a price.');
		expect(words('notANumber')).to.equal('Write a price as a plain number, such as 12.50.');
		expect(words('tooManyDecimals')).to.equal('At most 2 decimals here.');
		expect(words('negative')).to.equal('This cannot be below zero.');
		expect(words('tooLarge')).to.contain('at most 9 digits');
		expect(words('tooLarge', 4)).to.contain('at most 4 digits');
	});
});

describe('an amount', () => {
	it('is the larger, the smaller, before or after, and without its sign', () => {
		expect([max(1n, 2n), max(2n, 1n), max(-1n, -2n), max(3n, 3n)]).to.deep.equal([2n, 2n, -1n, 3n]);
		expect([min(1n, 2n), min(2n, 1n), min(-1n, -2n), min(3n, 3n)]).to.deep.equal([1n, 1n, -2n, 3n]);
		expect([compare(1n, 2n), compare(2n, 1n), compare(2n, 2n)]).to.deep.equal([-1, 1, 0]);
		expect([absolute(-5n), absolute(5n), absolute(0n)]).to.deep.equal([5n, 5n, 0n]);
	});

	it('is written with two decimals, and a decimal without the zeros it does not need', () => {
		expect([0n, 5n, -5n, 100n, -12345n].map(formatMoney)).to.deep.equal([
			'0.00',
			'0.05',
			'-0.05',
			'1.00',
			'-123.45'
		]);
		const written = (text: string) => formatDecimal(parseDecimal(text)!);
		expect(['17.50', '17.00', '100', '0.10', '-2.500', '10', '1000.0'].map(written)).to.deep.equal([
			'17.5',
			'17',
			'100',
			'0.1',
			'-2.5',
			'10',
			'1000'
		]);
		expect(['1', '1.5', '1.55', '1.555', '', '-2.10', 'x'].map(parseMoney)).to.deep.equal([
			100n,
			150n,
			155n,
			null,
			null,
			-210n,
			null
		]);
	});
});

describe('the number of a paper', () => {
	it('is put into the owner’s own pattern, and found in it again', () => {
		expect(formatNumber('INV-{nnnn}', 7, '2026')).to.equal('INV-0007');
		expect(formatNumber('{year}/{n}', 12, '2026')).to.equal('2026/12');
		expect(formatNumber('{nn}', 123, '2026')).to.equal('123');
		expect(runningOf('INV-{nnnn}', 'INV-0007')).to.equal(7);
		expect(runningOf('INV-{nnnn}', ' inv-123456 ')).to.equal(123456);
		expect(runningOf('{year}/{n}', '2025/12')).to.equal(12);
		expect(runningOf('A.{n}', 'AB7')).to.equal(null);
		expect(runningOf('INV-{nnnn}', 'INV-0007a')).to.equal(null);
		expect(runningOf('INV-{nnnn}', 'XINV-0007')).to.equal(null);
		expect(runningOf('{n}', '1'.repeat(15))).to.equal(111_111_111_111_111);
		expect(runningOf('{n}', '1'.repeat(16))).to.equal(null);
	});

	it('needs a pattern with the running number in it once, of plain signs', () => {
		for (const right of ['INV-{nnnn}', '{n}', '{year} A/b._-{nn}', `${'x'.repeat(27)}{n}`])
			expect(explainNumberPattern(right), right).to.equal(null);
		for (const [wrong, words] of [
			[`${'x'.repeat(28)}{n}`, 'At most 30'],
			['INV', 'Put {n}'],
			['{n}{n}', 'Put {n}'],
			['INV-{n}#', 'Only letters'],
			['#INV-{n}', 'Only letters'],
			['Ä{n}', 'Only letters']
		] as const)
			expect(explainNumberPattern(wrong), wrong).to.contain(words);
	});
});

describe('where a transfer goes', () => {
	const britain = { accountName: 'T Orrell', sortCode: '00-00-00', accountNumber: '00012345' };
	const both = { ...britain, iban: 'gb33bukb20201555555555', bic: 'BUKBGB22' };
	it('is sort code and account in pounds, and IBAN and BIC in other money, where they are known', () => {
		expect(formatIban('gb33 bukb20201555555555')).to.equal('GB33 BUKB 2020 1555 5555 55');
		expect(formatIban('GB33BUKB20201555')).to.equal('GB33 BUKB 2020 1555');
		expect(accountLine(both)).to.equal('Sort code 00-00-00 · account 00012345');
		expect(accountWords(both)).to.equal('sort code 00-00-00, account 00012345');
		const abroad = accountFor(both, true);
		expect(abroad).to.deep.equal({ ...both, sortCode: '', accountNumber: '' });
		expect(accountLine(abroad)).to.equal('IBAN GB33 BUKB 2020 1555 5555 55 · BIC BUKBGB22');
		expect(accountWords(abroad)).to.equal('IBAN GB33 BUKB 2020 1555 5555 55, BIC BUKBGB22');
		expect(accountLine({ ...abroad, bic: '' })).to.equal('IBAN GB33 BUKB 2020 1555 5555 55');
		expect(accountFor(both, false)).to.deep.equal(britain);
		expect(accountFor(britain, true)).to.deep.equal(britain);
	});
});
