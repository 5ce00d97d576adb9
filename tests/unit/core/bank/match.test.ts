// Edges of matching: how far ahead is sure, what says nothing, and how long ago is another payment.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { Matcher } from '../../../../src/lib/core/bank/match';
import { isNamed, learnedName, wordsOf } from '../../../../src/lib/core/bank/names';
import { otherMoney } from '../../../../src/lib/core/bank/otherMoney';
import { findSubset } from '../../../../src/lib/core/bank/subset';
import { PaidAlready } from '../../../../src/lib/core/bank/twice';
import { addDays } from '../../../../src/lib/core/calendar/manipulation';

const line = (more: object = {}) => ({
	id: 1,
	date: '2026-11-30',
	amount: 120_00n,
	text: 'CORVANE DAIRY LTD',
	payer: '',
	...more
});

describe('a name in a bank line', () => {
	it('is its words without those that every line has', () => {
		for (const word of ['bgc', 'fpi', 'ltd', 'limited', 'payment', 'faster', 'from', 'invoice'])
			expect(wordsOf(`${word} Corvane ${word}`), word).to.deep.equal(['corvane']);
		expect(learnedName({ payer: '', text: 'CD Accounts 24NOV 1234' })).to.equal('cdaccounts');
		expect(learnedName({ payer: 'C. Dairy', text: 'x' })).to.equal('cdairy');
	});
});

describe('a payer', () => {
	it('is named by half of the words of its name, and never where it has none', () => {
		const words = (text: string) => new Set(wordsOf(text));
		expect(isNamed('Corvane Dairy Ltd', words('CORVANE 24NOV'))).to.equal(true);
		expect(isNamed('Corvane Dairy Farms Ltd', words('CORVANE 24NOV'))).to.equal(false);
		expect(isNamed('Oak & Co', words('CORVANE'))).to.equal(false);
		expect(isNamed('Oak & Co', words('oak co'))).to.equal(false);
	});
});

describe('amounts that add up', () => {
	it('are the first ones in order before any others, and then the fewest', () => {
		expect(findSubset([50n, 50n, 100n], 100n)).to.deep.equal([0, 1]);
		expect(findSubset([50n, 60n, 40n, 100n, 10n], 100n)).to.deep.equal([3]);
		expect(findSubset([30n, 90n, 60n, 10n], 100n)).to.deep.equal([1, 3]);
		expect(findSubset([30n, 90n], 100n)).to.equal(null);
		expect(findSubset([30n, 90n], 0n)).to.equal(null);
	});
});

describe('pounds for an invoice in other money', () => {
	/** 1,000 euro, worth £850. */
	const abroad = (more: object = {}) => ({
		documentId: 1,
		payerId: 4,
		payer: 'Corvane Dairy Ltd',
		number: 'INV-0007',
		references: [],
		dueDate: '2026-11-01',
		toPay: 1000_00n,
		outstanding: 1000_00n,
		currency: 'EUR' as const,
		toPaySterling: 850_00n,
		...more
	});
	const said = (amount: bigint, more: object = {}, byNumber = false, text?: string) => {
		const invoice = abroad(more);
		const numbers = new Map(byNumber ? [[invoice, { score: 60, reason: 'its number' }]] : []);
		return otherMoney(line({ amount, ...(text ? { text } : {}) }), [invoice], numbers as never);
	};
	it('are proposed for all of it, never surely, with what the bank would have given for one', () => {
		expect(said(850_00n)).to.deep.equal([
			{
				payerId: 4,
				payer: 'Corvane Dairy Ltd',
				shares: [
					{
						documentId: 1,
						number: 'INV-0007',
						amount: 1000_00n,
						currency: 'EUR',
						withheld: null
					}
				],
				over: 0n,
				score: 45,
				sure: false,
				reasons: [
					'Corvane Dairy Ltd stands in it',
					'€1,000.00 is to pay: the bank would have given 0.85 pounds for one euro'
				]
			}
		]);
		expect(said(850_00n, {}, true)[0]).to.include({ score: 75 });
		expect(said(850_00n, {}, true, 'x')[0]).to.include({ score: 75 });
		// A quarter off, by its number alone.
		expect(said(1062_50n, {}, true, 'x')[0]).to.include({ score: 60 });
	});
	it('are about the same within six per cent by the name, within twenty-five by the number', () => {
		for (const [amount, byName, byNumber] of [
			[901_00n, 1, 1],
			[901_01n, 0, 1],
			[799_00n, 1, 1],
			[798_99n, 0, 1],
			[1062_51n, 0, 0],
			[637_50n, 0, 1],
			[637_49n, 0, 0]
		] as const) {
			expect(said(amount), String(amount)).to.have.length(byName);
			expect(said(amount, {}, true, 'x'), String(amount)).to.have.length(byNumber);
		}
	});
	it('are nothing for what is in pounds, paid, or worth nothing', () => {
		expect(said(850_00n, { currency: undefined })).to.deep.equal([]);
		expect(said(850_00n, { toPay: 0n })).to.deep.equal([]);
		expect(said(850_00n, { toPaySterling: 0n })).to.deep.equal([]);
		expect(said(850_00n, { toPaySterling: undefined })).to.deep.equal([]);
	});
});

describe('what was paid already', () => {
	const settled = (more: object = {}) => ({
		number: 'INV-0007',
		payerId: 4,
		payer: 'Corvane Dairy Ltd',
		payable: 120_00n,
		paidOn: '2026-11-30',
		how: 'by card',
		...more
	});
	const propose = (more: object, of: object = {}) =>
		new PaidAlready([settled(of)]).propose(line(more));
	it('is thought of for sixty days before and after, and not for one more', () => {
		for (const [days, times] of [
			[0, 1],
			[60, 1],
			[61, 0],
			[-60, 1],
			[-61, 0]
		] as const)
			expect(propose({ date: addDays('2026-11-30', days) }), String(days)).to.have.length(times);
	});

	it('says why, never surely, and more by its number than by the name', () => {
		expect(propose({ text: 'inv 0007' })).to.deep.equal([
			{
				payerId: 4,
				payer: 'Corvane Dairy Ltd',
				shares: [],
				over: 120_00n,
				score: 72,
				sure: false,
				reasons: [
					'INV-0007 stands in it',
					'INV-0007 was paid by card on 30 Nov 2026 already: perhaps they paid twice, and want it back'
				]
			}
		]);
		const [byName] = propose({}, { how: '' });
		expect(byName).to.include({ score: 48 });
		expect(byName!.reasons).to.deep.equal([
			'Corvane Dairy Ltd stands in it',
			'INV-0007 was paid on 30 Nov 2026 already: perhaps they paid twice, and want it back'
		]);
		expect(propose({ amount: 119_99n })).to.deep.equal([]);
		expect(propose({ text: 'BEACON' })).to.deep.equal([]);
	});
});

describe('a proposal', () => {
	const invoice = (documentId: number, number: string, references: string[] = []) => ({
		documentId,
		payerId: documentId,
		payer: `Payer ${documentId}`,
		number,
		references,
		dueDate: '2026-11-01',
		toPay: 120_00n,
		outstanding: 120_00n
	});
	/** One whose number and amount are right (95), and another that comes near by its own. */
	const best = (other: ReturnType<typeof invoice>) =>
		new Matcher([invoice(1, 'INV-0007'), other], new Map())
			.propose(line({ text: 'INV-0007 0123' }))
			.map(({ payerId, score, sure }) => [payerId, score, sure]);
	it('is sure fifteen ahead of the next, and not ten', () => {
		// The digits of its number stand there too: 80.
		expect(best(invoice(2, 'XY-0123'))).to.deep.equal([
			[1, 95, true],
			[2, 80, false]
		]);
		// Their own reference does: 85.
		expect(best(invoice(2, 'INV-0009', ['0123']))).to.deep.equal([
			[1, 95, false],
			[2, 85, false]
		]);
	});

	it('is made for an amount alone where few invoices have it, and each says less', () => {
		const scores = (count: number) =>
			new Matcher(
				Array.from({ length: count }, (_, n) => invoice(n + 1, `OLP-${n}`)),
				new Map()
			)
				.propose(line({ text: 'x' }))
				.map(({ score }) => score);
		expect(scores(1)).to.deep.equal([45]);
		expect(scores(2)).to.deep.equal([32, 32]);
		expect(scores(6)).to.deep.equal([32, 32, 32, 32]);
	});
});
