// The owner's pattern of numbers: what is wrong with it, what it makes, and what is read back out of a number.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	explainNumberPattern,
	formatNumber,
	runningOf
} from '../../../../src/lib/core/documents/numbers';

describe('a pattern of numbers', () => {
	it('has the running number once, few signs, and at most thirty of them', () => {
		const right = ['{n}', 'INV-{nnnn}', '{year}/{nnn}', 'A b.c_d-e/f {nn}', `${'x'.repeat(27)}{n}`];
		for (const pattern of right) expect(explainNumberPattern(pattern), pattern).to.equal(null);
		for (const pattern of ['INV', '', '{n}{n}', 'INV-{year}', '{}'])
			expect(explainNumberPattern(pattern), pattern).to.equal(
				'Put {n} where the running number goes, once: INV-{nnnn} gives INV-0001.'
			);
		for (const pattern of ['#{n}', '{n}{x}', 'É{n}', '{n}\n'])
			expect(explainNumberPattern(pattern), pattern).to.equal(
				'Only letters, digits, spaces and - / . _ besides {n} and {year}.'
			);
		expect(explainNumberPattern(`${'x'.repeat(28)}{n}`)).to.equal('At most 30 characters.');
	});

	it('fills up with noughts, never cuts, and takes the year wherever it stands', () => {
		expect(formatNumber('INV-{nnnn}', 7, '2026')).to.equal('INV-0007');
		expect(formatNumber('{n}', 7, '2026')).to.equal('7');
		expect(formatNumber('INV-{nnn}', 12345, '2026')).to.equal('INV-12345');
		expect(formatNumber('{year}-{nn}-{year}', 3, '2026')).to.equal('2026-03-2026');
	});

	it('is found again in a number, whatever its case, and in no other', () => {
		expect(runningOf('INV-{nnnn}', ' inv-0042 ')).to.equal(42);
		expect(runningOf('{year}/{nnn}', '2026/007')).to.equal(7);
		expect(runningOf('A.{n}', 'A.9')).to.equal(9);
		expect(runningOf('INV-{n}', `INV-${'1'.repeat(15)}`)).to.equal(111_111_111_111_111);
		for (const [pattern, number] of [
			['INV-{nnnn}', 'INV-'],
			['INV-{nnnn}', 'XINV-7'],
			['INV-{nnnn}', 'INV-7x'],
			['{year}/{nnn}', '26/007'],
			['A.{n}', 'Ax9'],
			['INV-{n}', `INV-${'1'.repeat(16)}`]
		] as const)
			expect(runningOf(pattern, number), number).to.equal(null);
	});
});
