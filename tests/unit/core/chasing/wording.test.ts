import { expect } from 'chai';
import { describe, it } from 'mocha';
import { fieldProblem } from '../../../../src/lib/core/wordings/fill';
import {
	fillWording,
	FIRST_PLAN,
	MERGE_FIELDS,
	type ChaseFacts
} from '../../../../src/lib/core/chasing/wording';

const invoice = (number: string, dueDate: string, toPay: bigint, leftToDeduct = 0n) => ({
	number,
	dueDate,
	toPay,
	leftToDeduct,
	link: `https://bills.example/p/${number}`
});
const FACTS: ChaseFacts = {
	together: '',
	salutation: '',
	customer: 'Corvane Dairy Ltd',
	household: false,
	today: '2026-11-24',
	invoices: [
		invoice('OLP-1', '2026-11-03', 120_00n),
		invoice('OLP-2', '2026-11-24', 80_00n, 20_00n)
	],
	right: { kind: 'act', rate: '11.75', claim: 40_81n, charged: 0n },
	owner: 'Tamsin Orrell',
	business: 'Orrell Lime & Plaster',
	phone: '',
	bank: ''
};
const filled = (text: string, more: Partial<ChaseFacts> = {}) =>
	fillWording({ subject: '', text }, { ...FACTS, ...more }).text;

describe('the wording of a reminder', () => {
	it('fills its fields with what is owed, by whom, since when', () => {
		expect(filled('{customer}: {what}, {amount}, due {due}, {late}, by {deadline}')).to.equal(
			'Corvane Dairy Ltd: 2 invoices, £200.00, due 3 Nov 2026, 21 days late, by 8 Dec 2026'
		);
		expect(filled('for {what}', { invoices: [FACTS.invoices[0]!] })).to.equal('for invoice OLP-1');
		expect(filled('{link}')).to.equal('https://bills.example/p/OLP-1');
		expect(filled('{link}', { together: 'https://bills.example/r/x' })).to.equal(
			'https://bills.example/r/x'
		);
		expect(filled('{invoices}').split('\n')).to.deep.equal([
			'OLP-1: £120.00, due 3 Nov 2026 (21 days late)',
			'https://bills.example/p/OLP-1',
			'OLP-2: £80.00 after your deduction of £20.00, due 24 Nov 2026 (due today)',
			'https://bills.example/p/OLP-2'
		]);
	});

	it('greets as the customer is greeted, or with a plain word', () => {
		expect(filled('{greeting},')).to.equal('Hello,');
		expect(filled('{greeting},', { salutation: 'Dear Mrs Varden' })).to.equal('Dear Mrs Varden,');
	});

	it('leaves out a paragraph that comes out empty, and a field nobody typed in', () => {
		expect(filled('A\n\n{bank}\n\n{law}\n\nB\n{phone}', { right: { kind: 'none' } })).to.equal(
			'A\n\nB'
		);
		// What a customer is called is no field.
		expect(filled('{customer}', { customer: '{amount}' })).to.equal('{amount}');
	});

	it('states the Act for a business, the contract where there is one, nothing for a household', () => {
		expect(filled('{law}')).to.include('interest at 11.75 % a year').and.include('£40.81');
		const unknown = { kind: 'act', rate: null, claim: null, charged: 0n } as const;
		expect(filled('{law}', { right: unknown })).to.include('8 % a year above the Bank of England');
		const contract = {
			kind: 'contract',
			terms: '£15 after a week',
			claim: 15_00n,
			charged: 0n
		} as const;
		expect(filled('{law}', { right: contract })).to.include('Under our terms (£15 after a week)');
		expect(filled('{law}', { right: contract })).to.include('we may add £15.00 as of today');
		expect(filled('{law}', { right: { ...contract, claim: 0n } })).to.equal(
			'Under our terms a late payment may cost you more: £15 after a week.'
		);
		expect(filled('{law}', { right: { ...contract, charged: 10_00n } })).to.include(
			'Of that £10.00 has been charged already.'
		);
		const act = { ...FACTS.right, charged: 40_81n } as typeof FACTS.right;
		expect(filled('{law}')).to.include('We have not added it yet.');
		expect(filled('{law}', { right: act })).to.include('Of that £40.81 has been charged already.');
		expect(filled('{law}', { right: act })).not.to.include('not added');
		expect(filled('{law}', { right: contract })).not.to.include('1998');
		expect(filled('{law}', { right: { kind: 'none' } })).to.equal('');
	});

	it('announces a claim only as the law allows it', () => {
		expect(filled('{next}', { household: true })).to.include('This letter is not that one');
		expect(filled('{next}'))
			.to.include('county court')
			.and.include('If you trade as an individual');
	});

	it('knows its fields: those of the first plan, and no others', () => {
		const texts = FIRST_PLAN.steps.flatMap((step) => [step.subject, step.text]);
		for (const words of texts) expect(fieldProblem(words, MERGE_FIELDS), words).to.equal(null);
		expect(fieldProblem('{amount} {price}', MERGE_FIELDS)).to.include('{price} is no field');
	});
});
