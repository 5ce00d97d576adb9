import { expect } from 'chai';
import { describe, it } from 'mocha';
import { readMinor, writeMinor } from '../../../../src/lib/core/money/json';

describe('money in JSON', () => {
	it('is written so that no program rounds it', () => {
		expect(JSON.stringify({ total: -12_345_678_901_234_567_890n, n: 1 }, writeMinor)).to.equal(
			'{"total":{"minor":"-12345678901234567890"},"n":1}'
		);
	});
	it('is money again where it is read, and nothing else is', () => {
		const text = '[{"minor":"-5"},{"minor":5},{"minor":"5","more":1},null,"5"]';
		expect(JSON.parse(text, readMinor)).to.deep.equal([
			-5n,
			{ minor: 5 },
			{ minor: '5', more: 1 },
			null,
			'5'
		]);
	});
});
