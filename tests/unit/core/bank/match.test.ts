// Edges of matching: how far ahead is sure, what says nothing, and how long ago is another payment.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { Matcher } from '../../../../src/lib/core/bank/match';
import { learnedName, wordsOf } from '../../../../src/lib/core/bank/names';
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
});
