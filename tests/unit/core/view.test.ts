// Over 300 lines: one case for each part of a document.
import { wordsOf } from '../../support/world';
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { customerOn, sellerOn, type CustomerRecord } from '../../../src/lib/core/parties';
import type { Frozen, TaxStanding } from '../../../src/lib/core/documents/types';
import { viewDocument } from '../../../src/lib/core/documents/view';
import { type DocumentView, type Marking } from '../../../src/lib/core/documents/viewTypes';
import {
	chargeFailedMessage,
	documentMessage,
	documentText,
	paidNotice,
	receiptMessage,
	receiptOf
} from '../../../src/lib/core/documents/wording';
import { decideRate } from '../../../src/lib/core/regimes/gb/decisions';
import { blankLine, blankSheet } from '../../../src/lib/core/sheet/blank';
import { readSheet } from '../../../src/lib/core/sheet/read';
import type { Sheet, SheetLine } from '../../../src/lib/core/sheet/types';
import { customerOf, FULL, SELLER } from '../../support/sheets';

const seller = {
	...SELLER,
	tradingName: 'Orrell Lime & Plaster',
	address: 'Kiln Cottage\nHarrowmere',
	utr: '2234567890',
	bank: { accountName: 'T Orrell', sortCode: '00-00-00', accountNumber: '00012345' }
};
const customer = (
	kind: CustomerRecord['kind'],
	standing: Partial<TaxStanding> = {},
	more: Partial<CustomerRecord> = {}
) =>
	customerOf(kind, standing, {
		name: 'Beacon & Lathe',
		address: 'Foundry House\nCastle Orme',
		sites: [{ id: 5, name: 'Mill Yard', address: 'Harrowmere' }],
		...more
	});

const line = (id: string, more: Partial<SheetLine>): SheetLine => ({
	...blankLine(id),
	description: `Line ${id}`,
	unitPrice: '100',
	...more
});

function view(
	who: CustomerRecord,
	change: Partial<Sheet>,
	marking: Marking = 'issued',
	by = seller,
	corrects: Frozen['corrects'] = null
): DocumentView {
	const sheet: Sheet = {
		...blankSheet(),
		customerId: 1,
		contract: 'construction',
		rows: [line('a', {})],
		...change
	};
	const reading = readSheet(sheet, { seller: by, customer: who, today: '2026-11-24' });
	const frozen: Frozen = {
		kind: corrects ? 'creditNote' : 'invoice',
		seller: sellerOn(by, '2026-11-24'),
		customer: customerOn(who, '2026-11-24'),
		sheet,
		issueDate: reading.dates.issueDate,
		taxPoint: reading.dates.taxPoint.date,
		workFinished: reading.dates.workFinished,
		dueDate: reading.dates.dueDate,
		contract: 'construction',
		corrects
	};
	return viewDocument(frozen, reading.figures!, 'INV-0007', marking);
}
const fact = (shown: DocumentView, label: string) =>
	shown.facts.find((one) => one.label === label)?.value;
const labels = (shown: DocumentView) => shown.totals.map((row) => `${row.label} ${row.amount}`);

describe('what a document shows (VAT Regulations 1995 reg. 14)', () => {
	it('number, dates, both parties, VAT number, and for each line quantity, price, rate and amount', () => {
		const shown = view(customer('household'), {
			rows: [line('a', { quantity: '2.5', unit: 'day', unitPrice: '1180' })]
		});
		expect([
			shown.title,
			shown.number,
			fact(shown, 'Invoice date'),
			fact(shown, 'Due')
		]).to.deep.equal(['VAT invoice', 'INV-0007', '24 Nov 2026', '8 Dec 2026']);
		expect(shown.seller.lines).to.include.members(['Tamsin Orrell', 'VAT number GB 444 4444 54']);
		expect(shown.customer).to.deep.equal(['Beacon & Lathe', 'Foundry House', 'Castle Orme']);
		expect(shown.sections[0]?.rows[0]).to.include({
			quantity: '2.5',
			unit: 'day',
			unitPrice: '1,180.00',
			vat: '20 %',
			amount: '2,950.00'
		});
		expect(labels(shown)).to.deep.equal([
			'Total without VAT 2,950.00',
			'VAT at 20 % 590.00',
			'Total 3,540.00'
		]);
		expect(shown.bank?.reference).to.equal('INV-0007');
	});

	it('a line that is all in words has neither picture nor code', () => {
		const [row] = view(customer('household'), {}).sections[0]!.rows;
		expect([row!.picture, row!.code, row!.discount]).to.deep.equal([null, '', '']);
	});

	it('the tax point where it is not the issue date', () => {
		expect(fact(view(customer('household'), { workFinished: '1 Nov 2026' }), 'Tax point')).to.equal(
			'1 Nov 2026'
		);
		expect(
			fact(view(customer('household'), { workFinished: '20 Nov 2026' }), 'Tax point')
		).to.equal(undefined);
	});

	it('under the reverse charge: the lines, the VAT for each rate outside the total, and the reference', () => {
		const shown = view(customer('contractor', FULL), {});
		expect(shown.sections[0]?.rows[0]?.vat).to.equal('20 % r.c.');
		expect(shown.statements[0]).to.equal(
			'Reverse charge: customer to account for VAT to HMRC (VATA 1994 s.55A): £20.00 at 20 %.'
		);
		expect(labels(shown)).to.deep.equal([
			'Total without VAT 100.00',
			'VAT charged 0.00',
			'Total 100.00'
		]);
		expect([fact(shown, 'Our UTR'), fact(shown, 'Your VAT number')]).to.deep.equal([
			'2234567890',
			'GB 123 4567 82'
		]);
	});

	it('the deduction as arithmetic anyone can follow', () => {
		const shown = view(customer('contractor', FULL), {
			rows: [
				line('a', { unitPrice: '1000' }),
				line('b', { kind: 'materials', unitPrice: '500', cost: '400' })
			]
		});
		expect(shown.deduction.map((row) => row.amount)).to.deep.equal([
			'1,500.00',
			'−400.00',
			'1,100.00',
			'−220.00'
		]);
		expect(shown.payable).to.deep.equal({ label: 'To pay after deduction', amount: '1,280.00' });
	});

	it('why a rate is not the standard one', () => {
		const shown = view(customer('household'), {
			rows: [line('a', { vat: 'reduced', vatReason: 'mobilityAid' })]
		});
		expect(shown.statements[0]).to.contain('Sch. 7A group 10');
	});

	it('prices including VAT with each amount without it beside, adding up to the net', () => {
		const shown = view(customer('household'), {
			pricesIncludeVat: true,
			rows: [line('a', { unitPrice: '950' }), line('b', { unitPrice: '149.99' })]
		});
		expect(shown.columns.slice(-2).map(({ title }) => title)).to.deep.equal([
			'Without VAT, £',
			'Amount incl. VAT, £'
		]);
		expect(shown.sections[0]?.rows.map((row) => row.withoutVat)).to.deep.equal([
			'791.67',
			'124.99'
		]);
		expect(labels(shown)[0]).to.equal('Total without VAT 916.66');
	});

	it('discount and retention before the totals', () => {
		const shown = view(customer('contractor', FULL), {
			discount: '10%',
			retention: '5',
			rows: [line('a', { unitPrice: '1000', discount: '100' })]
		});
		expect(labels(shown).slice(0, 3)).to.deep.equal([
			'Sum of the lines 900.00',
			'Discount −90.00',
			'Retention, invoiced when it is released −40.50'
		]);
		expect(shown.sections[0]?.rows[0]?.discount).to.equal('−100.00');
	});

	it('lines under headings, or by kind, with their sums', () => {
		const rows = [
			{ id: 'h', type: 'heading' as const, text: 'Vestry' },
			line('a', { unitPrice: '10' }),
			line('b', { kind: 'materials', unitPrice: '20' }),
			{ id: 'i', type: 'heading' as const, text: 'Aisle' },
			line('c', { unitPrice: '30' })
		];
		const sections = (shown: DocumentView) =>
			shown.sections.map((section) => [section.heading, section.rows.length, section.sum]);
		expect(sections(view(customer('household'), { rows }))).to.deep.equal([
			['Vestry', 2, '30.00'],
			['Aisle', 1, '30.00']
		]);
		expect(sections(view(customer('household'), { rows, grouping: 'kinds' }))).to.deep.equal([
			['Labour', 2, '40.00'],
			['Materials', 1, '20.00']
		]);
	});

	it('three roles: the bill-to gets the bill, the customer is named, and the site is where the work is', () => {
		const landlord = customer(
			'household',
			{},
			{
				name: 'Mr and Mrs Vanterpool',
				billTo: { id: 2, name: 'Staithe Lettings', address: '11 Staithe Street', email: '' }
			}
		);
		const shown = view(landlord, { siteId: 5 });
		expect([shown.billTo, shown.customer[0], shown.site]).to.deep.equal([
			['Mr and Mrs Vanterpool', 'c/o Staithe Lettings', '11 Staithe Street'],
			'Mr and Mrs Vanterpool',
			['Mill Yard', 'Harrowmere']
		]);
	});

	it('a draft and a trial say what they are, and carry no number', () => {
		expect([
			view(customer('household'), {}, 'draft').banner,
			view(customer('household'), {}, 'draft').number
		]).to.deep.equal(['Draft: this is not a VAT invoice', '']);
		expect(view(customer('household'), {}, 'trial').banner).to.contain('nothing here counts');
	});

	it('a credit note names what it corrects and why, and asks for no money', () => {
		const shown = view(customer('household'), {}, 'issued', seller, {
			number: 'INV-0001',
			issueDate: '2026-11-01',
			reason: 'Wrong house',
			reverseCharge: false
		});
		expect([
			shown.title,
			fact(shown, 'Corrects invoice'),
			fact(shown, 'Reason'),
			shown.bank,
			shown.due
		]).to.deep.equal(['Credit note', 'INV-0001 of 1 Nov 2026', 'Wrong house', null, '']);
	});

	it('a record of what somebody else wrote says so, and asks for no money', () => {
		const banner = (change: Partial<Sheet>, marking: Marking = 'issued') =>
			view(customer('household'), change, marking).banner;
		const opening = { number: '0012', taxPoint: '2026-11-24', returned: false };
		expect(banner({ opening })).to.match(/^Our record of an invoice you have already/);
		const selfBilled = { number: 'SB-1', agreedOn: '1 Nov 2026' };
		expect(banner({ selfBilled } as Partial<Sheet>)).to.match(/^Our record of what Beacon & Lathe/);
		expect(banner({}, 'copy')).to.equal('Copy of a document sent before');
		expect(banner({})).to.equal('');
		expect(view(customer('household'), {}, 'copy').number).to.equal('INV-0007');
		const shown = view(customer('household'), { selfBilled } as Partial<Sheet>);
		expect([shown.bank, shown.online, shown.payWords]).to.deep.equal([null, '', '']);
	});

	it('how it can be paid: what the seller takes, and where a transfer goes', () => {
		const shown = view(customer('household'), {});
		expect(shown.bank).to.deep.include({ accountNumber: '00012345', reference: 'INV-0007' });
		// Abroad the account of their kind alone; only where a transfer is one of the ways.
		const both = { ...seller, bank: { ...seller.bank, iban: 'GB00TEST', bic: 'TESTGB' } };
		expect(view(customer('household'), { currency: 'EUR' }, 'issued', both).bank).to.deep.include({
			iban: 'GB00TEST',
			bic: 'TESTGB',
			sortCode: '',
			accountNumber: ''
		});
		expect(view(customer('household'), {}, 'issued', both).bank).to.not.have.property('iban');
		const own = { ways: { transfer: false, card: true, bank: true } };
		const without = view(customer('household'), { own });
		expect([without.bank, without.online]).to.deep.equal([null, 'by card or from your bank']);
		const bare = { ...seller, bank: { accountName: '', sortCode: '', accountNumber: '' } };
		expect(view(customer('household'), {}, 'issued', bare).bank).to.equal(null);
		expect(view(customer('household'), {}, 'trial').bank?.reference).to.equal('the invoice number');
	});

	it('the terms it was issued on, and none on a draft or a credit note', () => {
		const terms = (change: Partial<Sheet>, marking: Marking = 'issued') =>
			view(customer('household'), change, marking).terms;
		expect(terms({})).to.match(/^Terms: .*14 days.*\. Due 8 Dec 2026\.$/);
		expect(terms({ termsDays: '30' })).to.match(/^Terms: .*30 days.*\. Due 24 Dec 2026\.$/);
		expect(terms({ dueDate: '1 Dec 2026' })).to.equal('Terms: as agreed. Due 1 Dec 2026.');
		expect(terms({}, 'draft')).to.equal('');
	});

	it('a seller that is not registered shows neither rate nor number of VAT', () => {
		const shown = view(customer('household'), {}, 'issued', { ...seller, vatStatuses: [] });
		expect(wordsOf(shown)).to.not.contain('VAT');
		expect(labels(shown)).to.deep.equal(['Total 100.00']);
	});
});

describe('messages about a document', () => {
	const frozen = {
		kind: 'invoice',
		seller: sellerOn(seller, '2026-11-24'),
		customer: { kind: 'business', name: 'Corvane Dairy Ltd', sites: [], billTo: null },
		sheet: { ...blankSheet(), orderNumber: 'BL-1' },
		dueDate: '2026-12-08',
		corrects: null
	} as unknown as Frozen;
	it('greet people by name, and no firm', () => {
		const greeting = (customer: object) =>
			documentMessage({ ...frozen, customer } as Frozen, 'INV-0007', 1n).text.split('\n')[0];
		expect(greeting({ ...frozen.customer, kind: 'household', name: 'Odile Brancaster' })).to.equal(
			'Hello Odile Brancaster'
		);
		expect(greeting(frozen.customer)).to.equal('Hello');
	});
	it('say how much is due by when, with the order number and the link', () => {
		const { subject, text } = documentMessage(frozen, 'INV-0007', 198400n);
		expect(subject).to.equal(
			'Invoice INV-0007 from Orrell Lime & Plaster: £1,984.00, due 8 Dec 2026'
		);
		expect(text).to.contain('your order BL-1').and.contain('{link}');
	});
	it('say what is left of it, what it stands in place of, and what a credit note corrects', () => {
		const part = documentMessage(frozen, 'INV-0007', 198400n, 98400n);
		expect(part.subject).to.match(/: £984\.00 still to pay$/);
		expect(part.text)
			.to.contain('Of its £1,984.00, £984.00 is still to pay; it is due by 8 Dec 2026.')
			.and.contain('See it and pay here: {link}');
		const settled = documentMessage(frozen, 'INV-0007', 198400n, 0n);
		expect(settled.subject).to.match(/: settled$/);
		expect(settled.text)
			.to.contain('It is settled: nothing is left to pay.')
			.and.contain('See it here: {link}');
		const about = { number: 'INV-0003', issueDate: '2026-11-01', reason: 'two doors, not one' };
		const text = (as: 'replacement' | 'debit') =>
			documentMessage({ ...frozen, about: { as, ...about } } as Frozen, 'INV-0007', 1n).text;
		expect(text('replacement')).to.contain(
			'. It stands in place of INV-0003, which the credit note that goes with it takes back: two doors, not one. £0.01 is due'
		);
		expect(text('debit')).to.contain('. It adds to INV-0003: two doors, not one. £0.01 is due');
		const credit = { ...frozen, kind: 'creditNote', corrects: { number: 'INV-0003' } } as Frozen;
		expect(documentMessage(credit, 'CN-1', 500n)).to.deep.equal({
			subject: 'Credit note CN-1 from Orrell Lime & Plaster',
			text: 'Hello\n\nHere is credit note CN-1 for £5.00, which corrects invoice INV-0003.\n\nSee it here: {link}\n\nKind regards\nTamsin Orrell'
		});
		expect(documentText(credit, 'CN-1', 500n)).to.equal(
			'Credit note CN-1 from Orrell Lime & Plaster: £5.00. {link}'
		);
		expect(documentText(frozen, 'INV-0007', 500n, 200n)).to.contain(': £2.00 still to pay. {link}');
		expect(documentText(frozen, 'INV-0007', 500n)).to.contain(': £5.00, due 8 Dec 2026. {link}');
	});
	it('tell the owner who paid how, what the fee was, and what is left', () => {
		expect(paidNotice(frozen, 'INV-0007', 500n, 12n, 0n)).to.deep.equal({
			subject: 'Corvane Dairy Ltd paid £5.00',
			text: 'Corvane Dairy Ltd paid £5.00 by card for invoice INV-0007. It is paid in full.\n\nThe card fee is £0.12.\n\nSee it here: {link}'
		});
		expect(paidNotice(frozen, 'INV-0007', 500n, 0n, 300n, 'bank').text).to.equal(
			'Corvane Dairy Ltd paid £5.00 from their bank for invoice INV-0007. £3.00 is still open.\n\nSee it here: {link}'
		);
		expect(chargeFailedMessage(frozen, 'INV-0007', 500n).text).to.contain(
			'Your card could not be charged for invoice INV-0007. £5.00 is still open, due 8 Dec 2026.'
		);
	});
	it('count invoices that one payment settled, by number while they are few', () => {
		const said = (numbers: string[], more: object = {}) =>
			receiptMessage({
				seller: frozen.seller,
				customer: null,
				paid: 500n,
				numbers,
				left: 0n,
				one: false,
				linked: true,
				...more
			});
		expect(said(['A', 'B', 'C']).subject).to.equal('Receipt: £5.00 for A, B, C');
		expect(said(['A', 'B', 'C', 'D']).subject).to.equal('Receipt: £5.00 for 4 invoices');
		expect(said([]).subject).to.equal('Receipt: £5.00 on account');
		expect(said(['A', 'B']).text)
			.to.contain('Nothing else is open.')
			.and.contain('{link}');
		expect(said([], { linked: false, left: 100n }).text)
			.to.contain('£1.00 is still open.')
			.and.not.contain('See it');
	});
	it('say what is left after a part payment, and that nothing is', () => {
		expect(receiptMessage(receiptOf(frozen, 'INV-0007', 100n, 50n)).text).to.contain(
			'£0.50 is still open'
		);
		expect(receiptMessage(receiptOf(frozen, 'INV-0007', 100n, 0n)).text).to.contain('paid in full');
	});
});

describe('why a rate is what it is', () => {
	it('by the table, on the tax point', () => {
		expect(decideRate('standard', '2010-12-31').conclusion)
			.to.contain('17.5 %')
			.and.contain('31 Dec 2010');
		expect(decideRate('standard', '2026-11-24').reasons.at(-1)?.text).to.equal(
			'20 % holds from 4 Jan 2011'
		);
		expect(decideRate('exempt', '2026-11-24').conclusion).to.contain('No rate applies');
	});
});
