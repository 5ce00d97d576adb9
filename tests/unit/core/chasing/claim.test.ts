// The letter before court: the days it gives, what it comes to, and what is enclosed for an individual alone.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	claimDeadline,
	claimLetter,
	claimSum,
	enclosuresOf,
	type ClaimFacts
} from '../../../../src/lib/core/chasing/claim';

const FACTS: ClaimFacts = {
	debtor: 'individual',
	customer: 'Odile Brancaster',
	today: '2026-11-24',
	invoices: [
		{
			number: 'INV-0007',
			issued: '2026-09-01',
			due: '2026-09-15',
			about: 'Mill Yard',
			open: 100_00n,
			added: 0n,
			daily: 0n
		},
		{
			number: 'INV-0009',
			issued: '2026-10-01',
			due: '2026-10-15',
			about: '',
			open: 50_50n,
			added: 0n,
			daily: 0n
		}
	],
	agreed: ' It was agreed by e-mail. ',
	business: 'Orrell Lime & Plaster',
	owner: 'Tamsin Orrell',
	address: ['Kiln Cottage', 'Harrowmere'],
	phone: '07700 900123',
	email: 'tamsin@orrell-lime.example',
	bank: 'sort code 00-00-00, account 00012345',
	ground: ''
} as ClaimFacts;
const letter = (more: Partial<ClaimFacts> = {}) => claimLetter({ ...FACTS, ...more });

describe('the letter of claim', () => {
	it('gives an individual thirty days and a firm fourteen, from the day at its top', () => {
		expect(claimDeadline({ debtor: 'individual', today: '2026-11-24' })).to.equal('2026-12-24');
		expect(claimDeadline({ debtor: 'firm', today: '2026-11-24' })).to.equal('2026-12-08');
	});

	it('says who owes what to whom, by when and how it is paid', () => {
		expect(claimSum(FACTS)).to.equal(150_50n);
		const { text } = letter();
		for (const words of [
			'Dear Odile Brancaster,',
			'You owe Orrell Lime & Plaster £150.50. This is our letter of claim under the Pre-Action Protocol for Debt Claims: please read it, and answer by 24 Dec 2026.',
			'INV-0007',
			'INV-0009',
			'\n\nIt was agreed by e-mail.\n\n',
			'No interest and no other charge is added.',
			'Please pay £150.50 by bank transfer to sort code 00-00-00, account 00012345, with the invoice number as the reference.',
			'talk to us: 07700 900123 or tamsin@orrell-lime.example.'
		])
			expect(text).to.contain(words);
		expect(letter({ business: '' }).text).to.contain('You owe Tamsin Orrell');
		expect(letter({ bank: '' }).text).to.not.contain('bank transfer');
		expect(letter({ phone: '', email: '' }).text).to.contain('talk to us. We');
		expect(letter({ phone: '' }).text).to.contain('talk to us: tamsin@');
	});

	it('to a firm is a letter before action, with what the Act adds and goes on adding', () => {
		const invoices = FACTS.invoices.map((one, n) => ({
			...one,
			added: 40_00n,
			daily: n ? 5n : 0n
		}));
		const { text } = letter({ debtor: 'firm', invoices, ground: 'the Act' });
		expect(text).to.contain(
			'You owe Orrell Lime & Plaster £230.50. This is our letter before action'
		);
		expect(text).to.contain(
			'£80.00 of it is interest and compensation to today (the Act). £0.05 is added for each further day.'
		);
		expect(text).to.contain('answer by 8 Dec 2026');
		expect(text).to.not.contain('No interest');
		const still = letter({
			debtor: 'firm',
			invoices: invoices.map((one) => ({ ...one, daily: 0n })),
			ground: 'the Act'
		});
		expect(still.text).to.not.contain('each further day');
		expect(letter({ debtor: 'firm' }).text).to.not.contain('of it is interest');
	});

	it('has a sheet, a form and a statement of means enclosed, for an individual alone', () => {
		const enclosed = (debtor: 'individual' | 'firm') =>
			enclosuresOf({ ...FACTS, debtor, sum: 150_50n });
		expect(enclosed('firm')).to.deep.equal([]);
		const all = enclosed('individual');
		expect(all.map(({ title, parts }) => [title, parts.length])).to.deep.equal([
			['Information sheet', 13],
			['Reply form', 24],
			['Statement of means', 21]
		]);
		expect(all[2]!.parts.flatMap((part) => ('head' in part ? [part.head] : []))).to.include.members(
			['What goes out']
		);
		const words = JSON.stringify(all);
		expect(words)
			.to.contain('Orrell Lime & Plaster says that you owe £150.50.')
			.and.to.contain('send it back by 24 Dec 2026');
		expect(words).to.contain('To Orrell Lime & Plaster, Kiln Cottage, Harrowmere.');
		// Each part is one thing: words, a heading, a box to tick, or a line to write on, with room for it.
		for (const { parts } of all)
			for (const part of parts) {
				const [kind, ...more] = Object.keys(part).filter((one) => one !== 'rows');
				expect(more).to.deep.equal([]);
				expect((part as Record<string, string>)[kind!]).to.not.equal('');
			}
		expect(
			all
				.flatMap(({ parts }) => parts)
				.filter((part) => 'rows' in part)
				.map((part) => (part as { rows: number }).rows)
		).to.deep.equal([2, 3, 2, 2, 3, 1]);
	});
});
