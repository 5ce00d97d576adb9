// Pages as wholes: every text and amount of a rich invoice, of one at a household's price, and of statements, by hand.
// Over 300 lines: a page has many texts, and each is written out.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { frozenFigures } from '../../../../src/lib/core/documents/frozen';
import { readCredit, type TypedCredit } from '../../../../src/lib/core/documents/credit';
import { differences } from '../../../../src/lib/core/documents/differences';
import {
	viewStatement,
	type AccountEntry,
	type StatementOptions
} from '../../../../src/lib/core/documents/statementView';
import type { Frozen } from '../../../../src/lib/core/documents/types';
import { viewDocument } from '../../../../src/lib/core/documents/view';
import { statementMessage } from '../../../../src/lib/core/documents/wording';
import { sellerOn, type CustomerRecord, type SellerRecord } from '../../../../src/lib/core/parties';
import { FieldError } from '../../../../src/lib/core/refusals';
import type { Statement } from '../../../../src/lib/core/settlement/statement';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import type { Sheet } from '../../../../src/lib/core/sheet/types';
import { readSheet } from '../../../../src/lib/core/sheet/read';
import { customerOf, FULL, lineOf, SELLER } from '../../../support/sheets';

const OWNER: SellerRecord = {
	...SELLER,
	tradingName: 'Orrell Lime',
	address: 'Kiln Cottage\n Harrowmere ',
	phone: '01632 960001',
	email: 'tamsin@orrell.example',
	utr: '2234567890',
	bank: { accountName: 'T Orrell', sortCode: '00-00-00', accountNumber: '00012345' }
};

function frozenOf(who: CustomerRecord, change: Partial<Sheet>, by = OWNER): Frozen {
	const sheet: Sheet = { ...blankSheet(), customerId: 1, contract: 'construction', ...change };
	const { seller, customer, dates } = readSheet(sheet, {
		seller: by,
		customer: who,
		today: '2026-11-24'
	});
	return {
		kind: 'invoice',
		seller,
		customer: customer!,
		sheet,
		issueDate: dates.issueDate,
		taxPoint: dates.taxPoint.date,
		workFinished: dates.workFinished,
		dueDate: dates.dueDate,
		contract: 'construction',
		corrects: null
	};
}

const SENDER = { tradingName: '', ownerName: 'Tamsin', phone: '' };
const PAYER = { name: 'Beacon & Lathe', household: false };

describe('a rich invoice to a contractor', () => {
	const frozen = frozenOf(
		customerOf(
			'contractor',
			{ ...FULL, verificationNumber: 'V1234567890' },
			{
				address: 'Foundry House\n\nCastle Orme',
				sites: [{ id: 5, name: 'Mill Yard', address: 'Mill Lane' }],
				terms: { days: 30, endOfMonth: true }
			}
		),
		{
			siteId: 5,
			workFinished: '20 Nov 2026',
			orderNumber: ' PO 7 ',
			reference: ' Unit 4 ',
			note: ' Thank you. ',
			discount: '10%',
			retention: '5',
			rows: [
				{ id: 'h', type: 'heading', text: ' Hall ' },
				lineOf({ quantity: '10', unit: ' m² ', unitPrice: '12.345', discount: '3.45' }),
				{ id: 'i', type: 'heading', text: 'Attic', single: true },
				lineOf({
					id: 'b',
					description: 'Lime\nhydraulic',
					kind: 'materials',
					unitPrice: '80',
					cost: '60'
				}),
				lineOf({
					id: 'c',
					description: 'New house',
					unitPrice: '40',
					vat: 'zero',
					vatReason: 'newDwelling'
				})
			]
		}
	);
	// 123.45 less 3.45 is 120.00; 80.00; 40.00: 240.00. Less 24.00 is 216.00, less 10.80 held is 205.20.
	// Standard: 120 − 12 − 5.40 + 80 − 8 − 3.60 = 171.00, VAT 34.20 theirs. Zero: 40 − 4 − 1.80 = 34.20.
	// CIS: 205.20 less 60 − 3 = 57.00 is 148.20; 20 % is 29.64.
	const view = viewDocument(frozen, frozenFigures(frozen), 'INV-0007', 'issued');

	it('says who, whose, where and when', () => {
		const { title, banner, number, seller, customer, billTo, site, facts, note, terms, due, bank } =
			view;
		expect({
			title,
			banner,
			number,
			seller,
			customer,
			billTo,
			site,
			facts,
			note,
			terms,
			due,
			bank
		}).to.deep.equal({
			title: 'VAT invoice',
			banner: '',
			number: 'INV-0007',
			seller: {
				name: 'Orrell Lime',
				lines: [
					'Tamsin Orrell',
					'Kiln Cottage',
					'Harrowmere',
					'01632 960001',
					'tamsin@orrell.example',
					'VAT number GB 444 4444 54'
				]
			},
			customer: ['Beacon', 'Foundry House', 'Castle Orme'],
			billTo: [],
			site: ['Mill Yard', 'Mill Lane'],
			facts: [
				{ id: 'issued', label: 'Invoice date', value: '24 Nov 2026' },
				{ id: 'workFinished', label: 'Work finished', value: '20 Nov 2026' },
				{ id: 'due', label: 'Due', value: '31 Dec 2026' },
				{ id: 'order', label: 'Your order', value: 'PO 7' },
				{ id: 'reference', label: 'Reference', value: 'Unit 4' },
				{ id: 'vatNumber', label: 'Your VAT number', value: 'GB 123 4567 82' },
				{ id: 'utr', label: 'Our UTR', value: '2234567890' },
				{ id: 'verification', label: 'CIS verification', value: 'V1234567890' }
			],
			note: 'Thank you.',
			terms: 'Terms: 30 days, end of month. Due 31 Dec 2026.',
			due: '31 Dec 2026',
			bank: {
				accountName: 'T Orrell',
				sortCode: '00-00-00',
				accountNumber: '00012345',
				reference: 'INV-0007'
			}
		});
	});

	it('has every line, sum, rate and step of the deduction', () => {
		const { columns, sections, totals, vatTable, deduction, payable, statements } = view;
		expect({
			columns: columns.map(({ title, right }) => (right ? `> ${title}` : title)),
			totals,
			vatTable,
			deduction,
			payable,
			statements
		}).to.deep.equal({
			columns: [
				'Description',
				'> Quantity',
				'Unit',
				'> Price, £',
				'> Discount, £',
				'> VAT',
				'> Amount, £'
			],
			totals: [
				{ label: 'Sum of the lines', amount: '240.00' },
				{ label: 'Discount', amount: '−24.00' },
				{ label: 'Retention, invoiced when it is released', amount: '−10.80' },
				{ label: 'Total without VAT', amount: '205.20' },
				{ label: 'VAT at 0 %', amount: '0.00' },
				{ label: 'Total', amount: '205.20', strong: true }
			],
			vatTable: [
				{ rate: '20 % reverse charge', net: '171.00', vat: '34.20' },
				{ rate: '0 %', net: '34.20', vat: '0.00' }
			],
			deduction: [
				{ label: 'Amount without VAT and levy', amount: '205.20' },
				{ label: 'less materials, at cost', amount: '−57.00' },
				{ label: 'Labour and all else, liable to deduction', amount: '148.20' },
				{ label: 'CIS deduction at 20 %', amount: '−29.64', strong: true }
			],
			payable: { label: 'To pay after deduction', amount: '175.56' },
			statements: [
				'Reverse charge: customer to account for VAT to HMRC (VATA 1994 s.55A): £34.20 at 20 %.',
				'Zero-rated: construction of a new dwelling (VATA 1994 Sch. 8 group 5).'
			]
		});
		expect(sections).to.deep.equal([
			{
				heading: 'Hall',
				sum: '120.00',
				rows: [
					{
						picture: null,
						code: '',
						description: 'Render',
						quantity: '10',
						unit: 'm²',
						unitPrice: '12.345',
						vat: '20 % r.c.',
						discount: '−3.45',
						withoutVat: '102.60',
						amount: '120.00',
						minor: 120_00n
					}
				]
			},
			{
				heading: '',
				sum: '',
				rows: [
					{
						picture: null,
						code: '',
						description: 'Attic',
						quantity: '1',
						unit: '',
						unitPrice: '120.00',
						vat: '20 % r.c., 0 %',
						discount: '',
						withoutVat: '102.60',
						amount: '120.00',
						minor: 120_00n
					}
				]
			}
		]);
	});

	it('as a draft and as a test asks for nothing, and says what it is', () => {
		const draft = viewDocument(frozen, frozenFigures(frozen), 'INV-0007', 'draft');
		expect([draft.number, draft.banner, draft.terms, draft.bank!.reference]).to.deep.equal([
			'',
			'Draft: this is not a VAT invoice',
			'',
			'the invoice number'
		]);
		expect(draft.facts[0]!.value).to.equal('on the day it is issued');
		const trial = viewDocument(frozen, frozenFigures(frozen), 'INV-0007', 'trial');
		expect([trial.number, trial.banner]).to.deep.equal([
			'',
			'Test: nothing here counts, and nothing is owed'
		]);
	});
});

describe('an invoice at a household’s price', () => {
	it('shows what is without VAT beside it, and neither deduction nor reverse charge', () => {
		const frozen = frozenOf(
			customerOf(
				'household',
				{},
				{ billTo: { id: 2, name: 'Agent', address: '1 Staithe\nOrme', email: '' } }
			),
			{
				contract: null,
				pricesIncludeVat: true,
				discount: '20',
				rows: [lineOf({ unitPrice: '140' })]
			}
		);
		const view = viewDocument(frozen, frozenFigures(frozen), 'INV-1', 'issued');
		expect(view.billTo).to.deep.equal(['Beacon', 'c/o Agent', '1 Staithe', 'Orme']);
		expect([view.columns.map(({ title }) => title), view.deduction, view.payable]).to.deep.equal([
			[
				'Description',
				'Quantity',
				'Unit',
				'Price, £',
				'VAT',
				'Without VAT, £',
				'Amount incl. VAT, £'
			],
			[],
			{ label: 'To pay', amount: '120.00' }
		]);
		expect(view.totals).to.deep.equal([
			{ label: 'Sum of the lines, including VAT', amount: '140.00' },
			{ label: 'Discount', amount: '−20.00' },
			{ label: 'Total without VAT', amount: '100.00' },
			{ label: 'VAT at 20 %', amount: '20.00' },
			{ label: 'Total', amount: '120.00', strong: true }
		]);
		expect(view.sections).to.have.length(1);
		expect(view.sections[0]!.sum).to.equal('');
	});

	it('that is all exempt says that no VAT is charged', () => {
		const frozen = frozenOf(customerOf('business'), {
			rows: [lineOf({ vat: 'exempt', vatReason: 'exempt' })]
		});
		expect(viewDocument(frozen, frozenFigures(frozen), 'I', 'issued').totals).to.deep.equal([
			{ label: 'Total without VAT', amount: '100.00' },
			{ label: 'VAT charged', amount: '0.00' },
			{ label: 'Total', amount: '100.00', strong: true }
		]);
	});
});

describe('a statement as a page', () => {
	const seller = sellerOn(OWNER, '2026-11-24');
	const item = (
		id: string,
		type: 'invoice' | 'payment',
		date: string,
		amount: bigint,
		left: bigint
	) => ({
		item: {
			id,
			type,
			date,
			amount: amount < 0n ? -amount : amount,
			...(type === 'invoice' ? { due: '2026-12-08' } : {})
		},
		amount,
		left
	});
	const result = (
		balance: bigint,
		unapplied: bigint,
		rows: ReturnType<typeof item>[],
		opening: bigint | null = null
	) =>
		({
			rows,
			opening,
			balance,
			ageing: {
				notDue: balance - unapplied,
				'1-30': 0n,
				'31-60': 0n,
				'61-90': 0n,
				over90: 0n,
				unapplied
			}
		}) as unknown as Statement;
	const entries = new Map([
		[
			'a',
			{ what: 'Invoice INV-1', documentId: 4, leftToDeduct: 20_00n } as unknown as AccountEntry
		],
		['b', { what: 'Payment', documentId: null, leftToDeduct: 0n } as unknown as AccountEntry]
	]);
	const page = (of: Statement, style: StatementOptions['style']) =>
		viewStatement(
			of,
			entries,
			{
				style,
				asOf: '2026-11-24',
				from: style === 'activity' ? '2026-11-01' : null,
				withLines: true,
				ageing: 'dueDate'
			},
			seller,
			{ name: 'Beacon & Lathe Construction', address: 'Foundry House\n\nCastle Orme' },
			(id) => [`line of ${id}`],
			seller.bank
		);

	it('lists what is open, what of it will be deducted, and how to pay the rest', () => {
		const view = page(
			result(100_00n, -5_00n, [
				item('a', 'invoice', '2026-11-24', 105_00n, 105_00n),
				item('b', 'payment', '2026-11-20', -5_00n, -5_00n)
			]),
			'openItems'
		);
		expect(view).to.deep.equal({
			kind: 'statement',
			title: 'Statement',
			seller: {
				name: 'Orrell Lime',
				lines: [
					'Tamsin Orrell',
					'Kiln Cottage',
					' Harrowmere ',
					'01632 960001',
					'tamsin@orrell.example'
				]
			},
			payer: ['Beacon & Lathe Construction', 'Foundry House', 'Castle Orme'],
			facts: [
				{ label: 'As of', value: '24 Nov 2026' },
				{ label: 'Balance', value: '£100.00' }
			],
			columns: ['Amount, £', 'Open, £'],
			opening: null,
			rows: [
				{
					date: '24 Nov 2026',
					what: 'Invoice INV-1',
					due: '8 Dec 2026',
					amount: '105.00',
					left: '105.00',
					details: ['line of 4'],
					documentId: 4
				},
				{
					date: '20 Nov 2026',
					what: 'Payment',
					due: '',
					amount: '−5.00',
					left: '−5.00',
					details: [],
					documentId: null
				}
			],
			balance: '100.00',
			toPay: '£80.00',
			ages: [
				{ label: 'Not due', amount: '105.00' },
				{ label: '1–30 days', amount: '0.00' },
				{ label: '31–60 days', amount: '0.00' },
				{ label: '61–90 days', amount: '0.00' },
				{ label: 'Over 90 days', amount: '0.00' },
				{ label: 'Not yet applied', amount: '−5.00' }
			],
			notes: [
				'£20.00 of the balance is the CIS deduction you are expected to make; £80.00 is left to pay.'
			],
			bank: {
				accountName: 'T Orrell',
				sortCode: '00-00-00',
				accountNumber: '00012345',
				reference: 'Beacon & Lathe'
			}
		});
		expect(statementMessage(view, SENDER, PAYER).text).to.include('£80.00 is to pay.');
		expect(statementMessage(view, SENDER, PAYER).subject).to.equal(
			`Statement from Tamsin as of ${view.facts.find((fact) => fact.label === 'As of')!.value}`
		);
	});

	it('with nothing open, or something in favour, asks for nothing', () => {
		const even = page(result(0n, 0n, []), 'activity');
		expect([even.toPay, even.bank, even.notes, even.opening, even.ages.length]).to.deep.equal([
			'Nothing',
			null,
			[],
			null,
			5
		]);
		expect(even.facts[1]).to.deep.equal({ label: 'From', value: '1 Nov 2026' });
		expect(even.columns).to.deep.equal(['Amount, £', 'Balance, £']);
		const over = page(result(-7_00n, -7_00n, [], 3_00n), 'activity');
		expect([over.toPay, over.bank, over.opening]).to.deep.equal([
			'Nothing: £7.00 is in your favour',
			null,
			'3.00'
		]);
		expect(statementMessage(over, SENDER, PAYER).text).to.include('Nothing is to pay.');
	});

	it('of what happened leaves the deduction out of what is to pay', () => {
		expect(
			page(result(100_00n, 0n, [item('a', 'invoice', '2026-11-24', 100_00n, 100_00n)]), 'activity')
				.toPay
		).to.equal('£100.00');
	});
});

describe('what differs between an invoice and its correction', () => {
	const who = customerOf(
		'business',
		{},
		{
			sites: [{ id: 5, name: 'Mill Yard', address: '' }],
			billTo: { id: 2, name: 'Agent', address: 'A', email: '' }
		}
	);
	const before = frozenOf(who, {
		contract: null,
		reference: 'Old',
		orderNumber: 'PO 1',
		siteId: 5,
		discount: '5%',
		rows: [lineOf({ cost: '' })]
	});
	const compare = (change: Partial<Sheet>, now: CustomerRecord = who) => {
		const sheet = { ...before.sheet, ...change };
		return differences(
			before,
			sheet,
			readSheet(sheet, { seller: OWNER, customer: now, today: '2026-11-24' })
		).map((one) => [one.what, one.before, one.now]);
	};

	it('is each fact by itself', () => {
		expect(compare({})).to.deep.equal([]);
		expect(compare({ reference: ' Old ' })).to.deep.equal([]);
		expect(compare({ reference: 'New' })).to.deep.equal([['Reference', 'Old', 'New']]);
		expect(compare({ orderNumber: '' })).to.deep.equal([['Their order', 'PO 1', '']]);
		expect(compare({ siteId: null })).to.deep.equal([['Site', 'Mill Yard', '']]);
		expect(compare({ dueDate: '1 Dec 2026' })).to.deep.equal([['Due', '8 Dec 2026', '1 Dec 2026']]);
		expect(compare({ workFinished: '20 Nov 2026' })).to.deep.equal([
			['Work finished', '24 Nov 2026', '20 Nov 2026']
		]);
		expect(compare({}, { ...who, name: 'Other', address: 'One\nTwo', billTo: null })).to.deep.equal(
			[
				['Customer', 'Beacon', 'Other'],
				['Address', 'Foundry House', 'One, Two'],
				['Bill to', 'Agent', '']
			]
		);
		expect(compare({ rows: [lineOf({ cost: ' 3 ' })] })).to.deep.equal([
			[
				'Line 1',
				'Render · 1 × 100 · Labour · VAT Standard · £100.00',
				'Render · 1 × 100 · Labour · VAT Standard · cost 3 · £100.00'
			]
		]);
		expect(compare({ discount: '' })[0]).to.deep.equal(['Discount', '5%', '']);
		expect(compare({ retention: '10' })[0]).to.deep.equal(['Held back', '', '10']);
	});
});

describe('the boxes of a credit note', () => {
	const typed = (of: Partial<TypedCredit>): TypedCredit => ({
		way: 'lines',
		off: '',
		take: {},
		quantity: {},
		amount: {},
		...of
	});
	const wishes = (of: Partial<TypedCredit>) => readCredit(typed(of))?.([]);
	const wrong = (of: Partial<TypedCredit>) => {
		try {
			wishes(of);
			return {};
		} catch (error) {
			return (error as FieldError).fields;
		}
	};

	it('ask for all of it, for lines, for units, or for money', () => {
		expect(readCredit(typed({ way: 'all' }))).to.equal(null);
		expect(
			wishes({
				take: { 2: 'on', 4: 'on', 5: 'on' },
				quantity: { 4: ' 1.5 ', 5: '3' },
				amount: { 5: '£1,200.00', 2: ' ' }
			})
		).to.deep.equal([
			{ position: 2 },
			{ position: 4, quantity: { units: 15n, scale: 1 } },
			{ position: 5, amount: 1200_00n }
		]);
		// A line that is not ticked is none, whatever stands in its boxes.
		expect(wishes({ amount: { 1: '5' } })).to.deep.equal([]);
	});

	it('say at each box what is no number', () => {
		expect(
			wrong({ take: { 0: 'on', 1: 'on' }, quantity: { 0: 'two' }, amount: { 1: '1.234' } })
		).to.have.keys('quantity.0', 'amount.1');
		expect(wrong({ way: 'off', off: '' })).to.deep.equal({ off: 'Give an amount.' });
		expect(wrong({ way: 'off', off: 'ten' })).to.have.keys('off');
	});
});
