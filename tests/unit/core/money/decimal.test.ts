import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import {
	divideRounded,
	formatMoney,
	parseDecimal,
	parseMoney
} from '../../../../src/lib/core/money/decimal';
import { displayAmount, displayPounds } from '../../../../src/lib/core/money/display';
import { shareOut } from '../../../../src/lib/core/money/sharing';
import { readTypedNumber } from '../../../../src/lib/core/money/typed';

describe('money', () => {
	it('rounds half away from zero', () => {
		expect([5n, -5n, 4n, -4n, 15n].map((n) => divideRounded(n, 10n))).to.deep.equal([
			1n,
			-1n,
			0n,
			0n,
			2n
		]);
	});

	it('never writes minus nothing', () =>
		expect(formatMoney(parseMoney('-0.00')!)).to.equal('0.00'));

	it('writes what it reads', () => {
		fc.assert(
			fc.property(
				fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }),
				(minor) => parseMoney(formatMoney(minor)) === minor
			)
		);
	});

	it('shares an amount out so that the parts add up to it, each within a penny of its due', () => {
		fc.assert(
			fc.property(
				fc.bigInt({ min: 0n, max: 10n ** 9n }),
				fc.array(fc.bigInt({ min: 0n, max: 10n ** 6n }), { minLength: 1, maxLength: 20 }),
				(amount, weights) => {
					const whole = weights.reduce((sum, weight) => sum + weight, 0n);
					fc.pre(whole > 0n);
					const parts = shareOut(amount, weights);
					expect(parts.reduce((sum, part) => sum + part, 0n)).to.equal(amount);
					for (const [index, part] of parts.entries())
						expect(
							part * whole - amount * weights[index]! < whole &&
								part * whole - amount * weights[index]! > -whole
						).to.equal(true);
				}
			)
		);
	});

	it('gives what is left over to the earlier line on a tie', () =>
		expect(shareOut(1n, [1n, 1n])).to.deep.equal([1n, 0n]));

	it('is shown as in Britain', () => {
		expect(displayPounds(123450)).to.equal('£1,234.50');
		expect(displayAmount(-123456789n)).to.equal('−1,234,567.89');
	});
});

describe('numbers as people type and paste them', () => {
	const read = (typed: string) => {
		const result = readTypedNumber(typed, { decimals: 2, negative: true });
		return result.ok ? result.text : result.reason;
	};
	const typed: [string, string][] = [
		['£1,234.50', '1234.50'],
		[' 1 234.5 ', '1234.5'],
		['\u00a312.00\u00a0', '12.00'],
		['−5', '-5'],
		['(12.50)', '-12.50'],
		['.5', '0.5'],
		['7.', '7'],
		['12.5000', '12.50'],
		['', 'empty'],
		['1,5', 'notANumber'],
		['12,34', 'notANumber'],
		['1e12', 'notANumber'],
		['1/3', 'notANumber'],
		['12.345', 'tooManyDecimals'],
		['1000000000000', 'tooLarge']
	];
	for (const [text, expected] of typed)
		it(`“${text}” is ${expected}`, () => expect(read(text)).to.equal(expected));

	it('what it accepts is always a decimal', () => {
		fc.assert(
			fc.property(fc.string(), (text) => {
				const result = readTypedNumber(text, { decimals: 4, negative: true });
				if (result.ok) expect(parseDecimal(result.text)).to.not.equal(null);
			})
		);
	});
});
