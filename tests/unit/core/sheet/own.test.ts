// What is otherwise on one document alone, and what a sheet that is used again says on its day.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import { fillText, sheetOn, wordsOn } from '../../../../src/lib/core/sheet/occasion';
import { customerFor, readOwn, sellerFor, waysOf } from '../../../../src/lib/core/sheet/own';
import type { Sheet } from '../../../../src/lib/core/sheet/types';
import { lineOf } from '../../../support/sheets';

const sheet = (own: Sheet['own']): Sheet => ({ ...blankSheet(), ...(own ? { own } : {}) });
const bank = { accountName: 'T Orrell', sortCode: '12-34-56', accountNumber: '12345678' };
const stops = (own: Sheet['own']) => {
	const found: string[] = [];
	readOwn(sheet(own), (path) => found.push(path));
	return found;
};

describe('what is otherwise on one document', () => {
	it('is short enough, has an account that can be one, and leaves a way to pay', () => {
		expect(stops(undefined)).to.deep.equal([]);
		expect(stops({ address: 'x'.repeat(1000), contact: 'x'.repeat(200), bank })).to.deep.equal([]);
		expect(stops({ address: 'x'.repeat(1001) })).to.deep.equal(['own.address']);
		expect(stops({ contact: 'x'.repeat(201) })).to.deep.equal(['own.contact']);
		expect(stops({ bank: { ...bank, accountName: 'x'.repeat(101) } })).to.deep.equal([
			'own.bank.accountName'
		]);
		expect(stops({ bank: { ...bank, sortCode: '12-34-5' } })).to.deep.equal(['own.bank.sortCode']);
		expect(stops({ bank: { ...bank, accountNumber: '1234567' } })).to.deep.equal([
			'own.bank.accountNumber'
		]);
		// Nothing in any of its boxes is no account.
		expect(stops({ bank: { accountName: ' ', sortCode: '', accountNumber: '' } })).to.deep.equal(
			[]
		);
		expect(stops({ ways: { card: false, bank: false, transfer: false } })).to.deep.equal([
			'own.ways'
		]);
		expect(stops({ ways: { card: false, bank: false, transfer: true } })).to.deep.equal([]);
	});

	it('takes the place of what is elsewhere, and of nothing more', () => {
		const seller = {
			ownerName: 'Tamsin',
			bank: { ...bank, accountName: 'Lime & Plaster' }
		} as never;
		expect(sellerFor(seller, sheet(undefined))).to.equal(seller);
		expect(sellerFor(seller, sheet({ bank: { ...bank, accountName: ' ' } })).bank).to.deep.equal({
			...bank,
			accountName: 'Lime & Plaster'
		});
		const customer = { name: 'Corvane', address: 'Old', billTo: null } as never;
		expect(customerFor(customer, sheet({ address: ' ' }))).to.equal(customer);
		expect(customerFor(customer, sheet({ address: ' New ' }))).to.deep.include({ address: 'New' });
		const agent = { name: 'Corvane', address: 'Old', billTo: { name: 'Agent', address: 'Theirs' } };
		expect(customerFor(agent as never, sheet({ address: 'New' }))).to.deep.equal({
			...agent,
			billTo: { name: 'Agent', address: 'New' }
		});
	});

	it('is paid as it says itself, else as its customer may, else in every way; other money by transfer', () => {
		const [all, none] = [
			{ card: true, bank: true, transfer: true },
			{ card: false, bank: false, transfer: true }
		];
		const card = { card: true, bank: false, transfer: false };
		expect(waysOf({}, null)).to.deep.equal(all);
		expect(waysOf({}, { ways: card })).to.deep.equal(card);
		expect(waysOf({ own: { ways: all } }, { ways: card })).to.deep.equal(all);
		expect(waysOf({ own: { ways: all }, currency: 'EUR' }, null)).to.deep.equal(none);
	});
});

describe('a sheet that is used again', () => {
	it('says the month, the quarter and the year of its day', () => {
		expect(wordsOn('2026-11-24')).to.deep.equal({
			month: 'November 2026',
			'next month': 'December 2026',
			quarter: 'October to December 2026',
			year: '2026',
			date: '24 Nov 2026'
		});
		expect(wordsOn('2026-12-31')['next month']).to.equal('January 2027');
		expect(wordsOn('2027-01-31')).to.include({
			'next month': 'February 2027',
			quarter: 'January to March 2027'
		});
		expect(
			[1, 3, 4, 6, 7, 9, 10, 12].map(
				(month) => wordsOn(`2026-${String(month).padStart(2, '0')}-15`).quarter.split(' ')[0]
			)
		).to.deep.equal(['January', 'January', 'April', 'April', 'July', 'July', 'October', 'October']);
	});

	it('has its words in braces filled in, and what else stands in braces left', () => {
		expect(fillText('Care in { Month } and {next month}, {gate} {month', '2026-11-24')).to.equal(
			'Care in November 2026 and December 2026, {gate} {month'
		);
		expect(fillText('{constructor} {year}', '2026-11-24')).to.equal('{constructor} 2026');
		const again = sheetOn(
			{
				...blankSheet(),
				dueDate: '1 Jan 2020',
				reference: '{year}',
				note: 'For {month}',
				rows: [
					{ id: 'h', type: 'heading', text: '{quarter}' } as never,
					lineOf({ description: 'Care, {month}' })
				]
			},
			'2026-11-24'
		);
		expect(again).to.include({
			issueDate: '2026-11-24',
			workFinished: '2026-11-24',
			dueDate: '',
			reference: '2026',
			note: 'For November 2026'
		});
		expect(
			again.rows.map((row) =>
				row.type === 'line' ? row.description : (row as { text: string }).text
			)
		).to.deep.equal(['October to December 2026', 'Care, November 2026']);
	});
});
