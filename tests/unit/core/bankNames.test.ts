// How a bank writes who paid and for what: what of it is a name, what is remembered, and how scores tell apart.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { Matcher } from '../../../src/lib/core/bank/match';
import { deletions, learnedName, squeezed, wordsOf } from '../../../src/lib/core/bank/names';
import { findSubset } from '../../../src/lib/core/bank/subset';
import { amountReason, bestOf, proposal, sameShares } from '../../../src/lib/core/bank/proposal';
import type { OpenInvoice, Proposal, ToMatch } from '../../../src/lib/core/bank/types';

const invoice = (documentId: number, more: Partial<OpenInvoice> = {}): OpenInvoice => ({
	documentId,
	payerId: 1,
	payer: 'Corvane Dairy Ltd',
	number: `OLP-0${300 + documentId}`,
	references: [],
	dueDate: '2026-11-10',
	toPay: 100_00n,
	outstanding: 100_00n,
	...more
});
const line = (amount: bigint, text = '', payer = ''): ToMatch => ({
	id: 1,
	date: '2026-11-24',
	amount,
	text,
	payer
});

describe('names on bank lines', () => {
	it('are compared without case, spaces and signs', () => {
		expect(squeezed(' C. D.-Accounts 7 ')).to.equal('cdaccounts7');
		expect(squeezed('&–/')).to.equal('');
	});

	it('are words of four letters at least that say something', () => {
		expect(wordsOf('The Corvane Dairy Ltd and Mr Oak, payment from 2026 INVOICE')).to.deep.equal([
			'corvane',
			'dairy'
		]);
		expect(wordsOf('abc abcd')).to.deep.equal(['abcd']);
	});

	it('are remembered as the payer, or as the text without its numbers', () => {
		expect(learnedName({ payer: 'C D Accounts', text: 'INV 7' })).to.equal('cdaccounts');
		expect(learnedName({ payer: '', text: 'CORVANE 2026-11 INV0007 7' })).to.equal('corvaneinv7');
		expect(learnedName({ payer: 'x'.repeat(80), text: '' })).to.have.length(60);
	});

	it('one slip away share what is left when a sign is taken out', () => {
		expect(deletions('abc')).to.deep.equal(['bc', 'ac', 'ab']);
		expect(deletions('')).to.deep.equal([]);
	});
});

describe('what is proposed', () => {
	it('goes to what is due first, then to what was issued first; the rest is over', () => {
		const late = invoice(2, { dueDate: '2026-11-01' });
		const twin = invoice(1);
		const other = invoice(3);
		const found = proposal(line(250_00n), [other, twin, late], 50, []);
		expect(found.shares.map((one) => [one.documentId, one.amount])).to.deep.equal([
			[2, 100_00n],
			[1, 100_00n],
			[3, 50_00n]
		]);
		expect(found.over).to.equal(0n);
		expect(proposal(line(350_00n), [other, twin, late], 50, []).over).to.equal(50_00n);
		// What gets nothing is not named.
		expect(proposal(line(100_00n), [other, twin, late], 50, []).shares).to.have.length(1);
	});

	it('is net of the deduction, unless the whole came to the penny', () => {
		const contract = invoice(1, { toPay: 80_00n, outstanding: 100_00n });
		expect(proposal(line(80_00n), [contract], 50, []).shares[0]).to.include({
			amount: 80_00n,
			withheld: null
		});
		expect(proposal(line(100_00n), [contract], 50, []).shares[0]).to.include({
			amount: 100_00n,
			withheld: 0n
		});
		expect(proposal(line(99_99n), [contract], 50, [])).to.deep.include({ over: 19_99n });
		// Beside it one that deducts nothing: its share stays as it is.
		const both = proposal(
			line(150_00n),
			[contract, invoice(2, { toPay: 50_00n, outstanding: 50_00n })],
			50,
			[]
		);
		expect(both.shares.map((one) => one.withheld)).to.deep.equal([0n, null]);
	});

	it('never scores above a hundred', () => {
		expect(proposal(line(1n), [invoice(1)], 140, []).score).to.equal(100);
	});

	it('says which amount it is', () => {
		const contract = invoice(1, { toPay: 80_00n, outstanding: 100_00n });
		expect(amountReason(line(80_00n), contract)).to.equal(
			'the amount of OLP-0301 less the £20.00 they deduct'
		);
		expect(amountReason(line(100_00n), contract)).to.equal(
			'the whole amount of OLP-0301, without the deduction'
		);
		expect(amountReason(line(100_00n), invoice(2))).to.equal('the exact amount of OLP-0302');
	});

	it('of those that propose the same keeps the best, the best first', () => {
		const of = (score: number, ids: number[]): Proposal =>
			proposal(
				line(100_00n * BigInt(ids.length)),
				ids.map((id) => invoice(id)),
				score,
				[]
			);
		const best = bestOf([of(40, [1]), of(60, [2]), of(70, [1]), of(65, [1])]);
		expect(best.map((one) => [one.score, one.shares[0]!.documentId])).to.deep.equal([
			[70, 1],
			[60, 2]
		]);
		expect(sameShares(of(1, [1]), of(99, [1]))).to.equal(true);
		expect(sameShares(of(1, [1]), of(1, [2]))).to.equal(false);
	});
});

describe('the scores of a line', () => {
	const scores = (
		book: OpenInvoice[],
		amount: bigint,
		text: string,
		payer = '',
		learned: [string, number][] = []
	) =>
		new Matcher(book, new Map(learned)).propose(line(amount, text, payer)).map((one) => one.score);

	it('add up what is known: number, name, amount', () => {
		const book = [invoice(1), invoice(2, { toPay: 70_00n, outstanding: 70_00n })];
		// A number is 60, the exact amount 35 more; a name adds at most 15 of its own.
		expect(scores(book, 100_00n, 'OLP-0301')[0]).to.equal(95);
		expect(scores(book, 100_00n, 'OLP-0301', 'Corvane Dairy')[0]).to.equal(100);
		expect(scores(book, 55_00n, 'OLP-0301')[0]).to.equal(60);
		// Digits alone are 45, with a slip 35.
		expect(scores(book, 55_00n, '0301')[0]).to.equal(45);
		expect(scores(book, 55_00n, 'OLP-03011')[0]).to.equal(35);
		// The whole name is 35, half of it 28; with an exact amount 50 more.
		expect(scores(book, 55_00n, '', 'Corvane Dairy')[0]).to.equal(35);
		// 28 alone is below the 30 from which anything is proposed.
		expect(scores(book, 55_00n, '', 'Dairy')).to.deep.equal([]);
		expect(scores(book, 100_00n, '', 'Dairy')[0]).to.equal(28 + 50);
		// A name it paid under before is 42.
		expect(scores(book, 55_00n, '', 'C D Accounts', [['cdaccounts', 1]])[0]).to.equal(42);
		// An amount alone is 45 where one has it, and 32 where more have.
		expect(scores(book, 70_00n, '')[0]).to.equal(45);
		expect(scores([...book, invoice(3)], 100_00n, '')).to.deep.equal([32, 32]);
	});

	it('are sure from 80 on, 15 ahead of the next', () => {
		const sure = (book: OpenInvoice[], amount: bigint, text: string, payer = '') =>
			new Matcher(book, new Map()).propose(line(amount, text, payer))[0]!.sure;
		const alone = [invoice(1)];
		expect(sure(alone, 100_00n, '', 'Corvane Dairy'), '85').to.equal(true);
		expect(sure(alone, 100_00n, '', 'Dairy'), '78').to.equal(false);
		expect(sure(alone, 100_00n, 'OLP-0301')).to.equal(true);
		expect(
			sure([invoice(1), invoice(2)], 100_00n, '', 'Corvane Dairy'),
			'two of one amount'
		).to.equal(false);
	});

	it('take a number that stands there for itself, not for its neighbour with a slip', () => {
		const found = new Matcher([invoice(1), invoice(2)], new Map()).propose(
			line(55_00n, 'OLP 0301')
		);
		expect(found.map((one) => one.shares.map((share) => share.documentId))).to.deep.equal([[1]]);
	});

	it('ask nobody of whom a word of the name says nothing', () => {
		const many = Array.from({ length: 13 }, (_, n) =>
			invoice(n + 1, {
				payerId: n + 1,
				payer: `Dairy ${n}`,
				toPay: BigInt(1000 + n),
				outstanding: BigInt(1000 + n)
			})
		);
		expect(scores(many, 55_00n, '', 'Dairy')).to.deep.equal([]);
		expect(scores(many.slice(0, 12), 55_00n, '', 'Dairy')).to.have.length(4);
	});
});

describe('what makes a proposal one', () => {
	const propose = (book: OpenInvoice[], amount: bigint, text: string, payer = '') =>
		new Matcher(book, new Map()).propose(line(amount, text, payer));

	it('says by how much it is less or more than is to pay', () => {
		const book = [invoice(1)];
		expect(propose(book, 70_00n, 'OLP-0301')[0]!.reasons.join()).to.include(
			'£30.00 less than is to pay'
		);
		expect(propose(book, 130_00n, 'OLP-0301')[0]!.reasons.join()).to.include(
			'£30.00 more than is to pay'
		);
	});

	it('counts an invoice once, although its amount fits besides its number', () => {
		const found = propose([invoice(1)], 100_00n, 'OLP-0301');
		expect(found).to.have.length(1);
		expect(found[0]!.reasons.join()).not.to.include('no other open invoice');
	});

	it('is sure only as far ahead of the next as 15', () => {
		const other = invoice(2, { payerId: 2, payer: 'Thrupp Brothers' });
		// 95 by number and amount, against 45 by nothing but the amount.
		expect(propose([invoice(1), other], 100_00n, 'OLP-0301')[0]).to.include({ sure: true });
		const both = propose([invoice(1), other], 100_00n, 'OLP-0301 OLP-0302');
		expect(both[0]!.score - both[1]!.score).to.be.below(15);
		expect(both[0]!.sure).to.equal(false);
	});

	it('takes the invoices that add up in the order in which they stand', () => {
		expect(findSubset([30n, 5n, 20n, 10n], 40n)).to.deep.equal([0, 3]);
		expect(findSubset([5n, 5n], 0n)).to.equal(null);
		expect(findSubset([], 0n)).to.equal(null);
	});

	it('knows a number without digits at its end, and a slip only in what can be one', () => {
		const odd = invoice(1, { number: 'KILNA' });
		expect(propose([odd], 5_00n, 'kilna')[0]!.score).to.equal(60);
		// A word of letters alone is no number with a slip.
		expect(propose([invoice(1, { number: 'KILN12' })], 5_00n, 'kilns')).to.deep.equal([]);
		expect(propose([invoice(1, { number: 'KILN12' })], 5_00n, 'kiln1')[0]!.score).to.equal(35);
	});

	it('does not call a deduction left out where nothing was to be deducted', () => {
		const [plain] = propose([invoice(1)], 100_00n, 'OLP-0301');
		expect(plain!.shares[0]!.withheld).to.equal(null);
	});

	it('remembers a payer by its name without the numbers that change', () => {
		expect(learnedName({ payer: '', text: 'BGC 4711XY Corvane 99/2' })).to.equal('bgccorvane');
		expect(wordsOf('42nd street, 2026')).to.deep.equal(['42nd', 'street']);
	});
});

describe('pounds for an invoice in other money', () => {
	// € 1,000 at 0.85: 850 pounds are to come.
	const euro = invoice(1, {
		payerId: 7,
		payer: 'Atelier Marais-Lune SARL',
		toPay: 1000_00n,
		outstanding: 1000_00n,
		currency: 'EUR',
		toPaySterling: 850_00n
	});
	const pounds = invoice(2, { toPay: 850_00n, outstanding: 850_00n });
	const propose = (amount: bigint, text: string) =>
		new Matcher([euro, pounds], new Map()).propose(line(amount, text));

	it('are told by its number, all of them against all of it, and never surely', () => {
		const [best] = propose(843_10n, 'ATELIER MARAIS LUNE OLP-0301');
		expect(best!.shares).to.deep.equal([
			{ documentId: 1, number: 'OLP-0301', amount: 1000_00n, currency: 'EUR', withheld: null }
		]);
		expect([best!.over, best!.sure]).to.deep.equal([0n, false]);
		expect(best!.reasons.at(-1)).to.equal(
			'€1,000.00 is to pay: the bank would have given 0.8431 pounds for one euro'
		);
	});

	it('are told by who paid and about how much, and by the amount alone never', () => {
		expect(propose(860_00n, 'ATELIER MARAIS LUNE')[0]!.shares[0]!.documentId).to.equal(1);
		expect(propose(500_00n, 'ATELIER MARAIS LUNE')).to.deep.equal([]);
		expect(propose(500_00n, 'OLP-0301')).to.deep.equal([]);
		expect(propose(850_00n, 'BGC').map(({ shares }) => shares[0]!.documentId)).to.deep.equal([2]);
	});
});
