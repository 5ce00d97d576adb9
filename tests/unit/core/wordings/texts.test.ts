// Texts: what one costs, and what is said by answering one.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { stopWord, textCost, textSize } from '../../../../src/lib/core/wordings/texts';

describe('a text', () => {
	it('says what its parts cost, to the tenth of a penny; without a price nothing', () => {
		expect(textCost(2, '0.045')).to.equal('9p');
		expect(textCost(3, '0.045')).to.equal('13.5p');
		expect(textCost(1, '1')).to.equal('100p');
		expect(textCost(5, '0.0401')).to.equal('20.05p');
		expect(textCost(2, '')).to.equal('');
		expect(textSize('x'.repeat(161), '0.05')).to.equal('2 parts, about 10p');
		expect(textSize('Hello', '')).to.equal('1 part');
	});

	it('is a word for no more of them only where it is nothing else', () => {
		for (const said of ['STOP', ' stop. ', 'Stop!', 'stop all', 'UNSUBSCRIBE'])
			expect(stopWord(said), said).to.equal('stop');
		for (const said of ['START', 'unstop']) expect(stopWord(said), said).to.equal('start');
		for (const said of ['Please stop at the shop', 'end', 'cancel', 'yes', ''])
			expect(stopWord(said), said).to.equal(null);
	});
});
