// What a letterhead may change and what the law keeps, on the page itself. Contrasts by the formula of WCAG 2.2, computed by hand.
// Over 300 lines: one case for each thing that can be set.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import fc from 'fast-check';
import { frozenFigures } from '../../../../src/lib/core/documents/frozen';
import type { Frozen } from '../../../../src/lib/core/documents/types';
import { viewDocument } from '../../../../src/lib/core/documents/view';
import { contrastOnWhite, darkEnough } from '../../../../src/lib/core/letterheads/contrast';
import {
	ALWAYS,
	columnRule,
	lookProblems,
	titleProblem
} from '../../../../src/lib/core/letterheads/law';
import {
	COLUMNS,
	lookForm,
	readLook,
	STANDARD_LOOK,
	type Look
} from '../../../../src/lib/core/letterheads/look';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import { readSheet } from '../../../../src/lib/core/sheet/read';
import type { Sheet } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, SELLER } from '../../../support/sheets';

const UNREGISTERED = {
	...SELLER,
	vatStatuses: [{ from: '0001-01-01', registered: false, number: '' }]
};
const look = (more: Partial<Look>): Look => ({ ...STANDARD_LOOK, ...more });
const hideColumns = (...hidden: string[]) =>
	STANDARD_LOOK.columns.map((one) => ({ ...one, shown: one.shown && !hidden.includes(one.id) }));

function pageOf(more: Partial<Look>, change: Partial<Sheet> = {}, by = SELLER) {
	const who = customerOf('contractor', FULL, {
		sites: [{ id: 5, name: 'Mill Yard', address: 'Mill Lane' }]
	});
	const sheet: Sheet = {
		...blankSheet(),
		customerId: 1,
		contract: 'construction',
		orderNumber: 'PO 7',
		siteId: 5,
		rows: [lineOf()],
		...change
	};
	const { seller, customer, dates } = readSheet(sheet, {
		seller: by,
		customer: who,
		today: '2026-11-24'
	});
	const frozen: Frozen = {
		kind: 'invoice',
		seller,
		customer: customer!,
		sheet,
		issueDate: dates.issueDate,
		taxPoint: dates.taxPoint.date,
		workFinished: dates.workFinished,
		dueDate: dates.dueDate,
		contract: 'construction',
		corrects: null,
		look: look(more),
		codes: { 3: 'LP-1' }
	};
	return viewDocument(frozen, frozenFigures(frozen), 'INV-0007', 'issued');
}
const titles = (page: ReturnType<typeof pageOf>) => page.columns.map(({ title }) => title);

describe('a colour of one’s own', () => {
	it('is six digits, dark enough on white paper', () => {
		const read = (accent: string) => lookForm.safeParse({ accent }).success;
		expect(['#1f5d57', '#1F5D57', '#000000'].every(read)).to.equal(true);
		for (const wrong of ['#1f5d577', '#1f5d5', '1f5d57', '#ffffff', '#1f5d5g', 'x#1f5d57'])
			expect(read(wrong), wrong).to.equal(false);
	});

	it('and what the law keeps, with its place in the law', () => {
		expect(
			ALWAYS.map(({ reference }) => reference.replace('VAT Regulations 1995 reg. 14(1)', '§'))
		).to.deep.equal([
			'§(a)',
			'§(b), (c)',
			'§(d); Companies Act 2006 s.1202',
			'§(d)',
			'§(e)',
			'§(g), (l)',
			'§(n) to (r)'
		]);
		const letters = (vatRegistered: boolean) =>
			Object.fromEntries(
				COLUMNS.map((column) => [
					column,
					columnRule(column, { vatRegistered })?.reference.slice(-3) ?? ''
				])
			);
		expect(letters(true)).to.include({
			description: '(g)',
			amount: '(g)',
			quantity: '(g)',
			price: '(m)',
			vat: '(g)',
			withoutVat: '(g)',
			discount: '(i)',
			unit: ''
		});
		expect(letters(false)).to.include({
			description: '(g)',
			amount: '(g)',
			quantity: '',
			price: ''
		});
	});
});

describe('the colour of a letterhead', () => {
	it('has its contrast told as WCAG computes it, and is refused below 4.5', () => {
		expect(contrastOnWhite('#000000')).to.equal(21);
		expect(contrastOnWhite('#ffffff')).to.equal(1);
		// The well-known edge: #767676 is the palest grey that passes, #777777 fails.
		expect(contrastOnWhite('#767676').toFixed(2)).to.equal('4.54');
		expect(contrastOnWhite('#777777').toFixed(2)).to.equal('4.48');
		const tried = (accent: string) => lookForm.safeParse({ accent });
		expect(tried('#767676').success).to.equal(true);
		expect(tried('#777777').error?.issues[0]?.message).to.contain('Too pale');
		expect(tried('red').error?.issues[0]?.message).to.contain('#1f5d57');
	});

	it('is made only as much darker as it must be, and stays the same where it is dark enough', () => {
		expect(darkEnough('#1f5d57')).to.equal('#1f5d57');
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 0xffffff }), (number) => {
				const dark = darkEnough(`#${number.toString(16).padStart(6, '0')}`);
				return contrastOnWhite(dark) >= 4.5;
			}),
			{ seed: 5, numRuns: 200 }
		);
	});
});

describe('what the law keeps on a letterhead', () => {
	it('are the columns of a VAT invoice; who is not registered may leave them out', () => {
		const wish = look({ columns: hideColumns('price', 'unit', 'quantity', 'vat') });
		expect(Object.keys(lookProblems(wish, { vatRegistered: true }))).to.deep.equal([
			'columns.quantity',
			'columns.price',
			'columns.vat'
		]);
		expect(lookProblems(wish, { vatRegistered: false })).to.deep.equal({});
		const kept = look({ columns: hideColumns('description', 'amount') });
		expect(Object.keys(lookProblems(kept, { vatRegistered: false }))).to.have.length(2);
	});

	it('come back by themselves for who registers later', () => {
		const wish = { columns: hideColumns('quantity', 'unit', 'price') };
		expect(titles(pageOf(wish, {}, UNREGISTERED))).to.deep.equal(['Description', 'Amount, £']);
		expect(titles(pageOf(wish))).to.deep.equal([
			'Description',
			'Quantity',
			'Price, £',
			'VAT',
			'Amount, £'
		]);
	});

	it('are a title that leaves no doubt', () => {
		const seller = { vatRegistered: false };
		expect(titleProblem('invoice', 'VAT bill', seller)).to.contain('not registered');
		expect(titleProblem('invoice', 'VAT bill', { vatRegistered: true })).to.equal(null);
		expect(titleProblem('creditNote', 'Refund', seller)).to.contain('reg. 15C');
		expect(titleProblem('creditNote', 'Credit', seller)).to.equal(null);
		expect(titleProblem('application', 'Invoice', seller)).to.contain('no invoice');
		expect(titleProblem('invoice', 'Receipt', seller)).to.contain('no doubt');
		expect(titleProblem('invoice', ' ', seller)).to.equal(null);
	});

	it('are margins between which there is room, and terms', () => {
		const margins = { top: 80, right: 60, bottom: 61, left: 51 };
		expect(Object.keys(lookProblems(look({ margins }), { vatRegistered: true }))).to.deep.equal([
			'margins.right',
			'margins.bottom'
		]);
		const edge = look({ margins: { top: 80, right: 60, bottom: 60, left: 50 } });
		expect(lookProblems(edge, { vatRegistered: true })).to.deep.equal({});
		expect(
			Object.keys(lookProblems(look({ hidden: ['terms'] }), { vatRegistered: true }))
		).to.deep.equal(['hidden.terms']);
	});
});

describe('a page on a letterhead', () => {
	it('has its columns in the wished order under the wished names, codes where there are any', () => {
		const columns = [
			{ id: 'amount', shown: true, title: 'Sum' },
			{ id: 'code', shown: true, title: '' },
			{ id: 'description', shown: true, title: 'What was done' }
		] as const;
		const wish = { columns: lookForm.parse({ columns }).columns };
		const page = pageOf(wish, { rows: [lineOf({ itemId: 3 })] });
		expect(titles(page).slice(0, 3)).to.deep.equal(['Sum, £', 'Code', 'What was done']);
		expect(page.sections[0]!.rows[0]!.code).to.equal('LP-1');
		// What was not named comes after, once each.
		expect(wish.columns.map(({ id }) => id).sort()).to.deep.equal([...COLUMNS].sort());
	});

	it('leaves out what is not to show, and nothing else', () => {
		const whole = pageOf({});
		const bare = pageOf({ hidden: ['order', 'site', 'utr', 'bank', 'due'] });
		const ids = (page: typeof whole) => page.facts.map(({ id }) => id);
		expect(ids(whole)).to.deep.equal(['issued', 'due', 'order', 'vatNumber', 'utr']);
		expect(ids(bare)).to.deep.equal(['issued', 'vatNumber']);
		expect([whole.site.length, bare.site.length, bare.bank]).to.deep.equal([2, 0, null]);
		expect(bare.terms).to.contain('Due 8 Dec 2026');
	});

	it('bears the owner’s titles and words, those of its kind before those of all', () => {
		const page = pageOf({
			above: 'As agreed.',
			below: 'Heat gently.',
			conditions: 'Our conditions.',
			payTitle: 'Paying',
			tradeBody: 'Guild 118',
			words: { invoice: { title: 'Bill', above: 'Here it is.', below: 'Thank you.' } }
		});
		expect(page.title).to.equal('Bill');
		expect(page.above).to.deep.equal(['Here it is.', 'As agreed.']);
		expect(page.below).to.deep.equal(['Thank you.', 'Heat gently.', 'Our conditions.']);
		expect([page.payTitle, page.seller.lines.at(-1)]).to.deep.equal(['Paying', 'Guild 118']);
	});

	const rows = [
		{ id: 'h', type: 'heading' as const, text: 'Hall' },
		lineOf({ id: 'a', description: 'Plaster', unitPrice: '100' }),
		lineOf({ id: 'b', description: 'Lime', kind: 'materials', unitPrice: '50', quantity: '2' }),
		lineOf({
			id: 'c',
			description: 'New house',
			unitPrice: '40',
			vat: 'zero',
			vatReason: 'newDwelling'
		})
	];
	const told = (lines: Look['lines']) =>
		pageOf({ lines }, { rows }).sections.flatMap((section) =>
			section.rows.map((row) => [row.description, row.vat, row.amount])
		);

	it('tells sums instead of lines, a row for each rate, with what was done', () => {
		expect(told('headings')).to.deep.equal([
			['Hall', '20 % r.c.', '200.00'],
			['Hall', '0 %', '40.00']
		]);
		expect(told('kinds')).to.deep.equal([
			['Labour\nPlaster', '20 % r.c.', '100.00'],
			['Labour\nNew house', '0 %', '40.00'],
			['Materials\nLime', '20 % r.c.', '100.00']
		]);
		expect(told('total')).to.deep.equal([
			['Plaster; Lime', '20 % r.c.', '200.00'],
			['New house', '0 %', '40.00']
		]);
		expect(told('lines').map(([, , amount]) => amount)).to.deep.equal([
			'100.00',
			'100.00',
			'40.00'
		]);
	});
});

describe('a look that was kept', () => {
	it('has the standard for what was added since, and stands as it came where it cannot be read', () => {
		expect(readLook({ accent: '#17212b' })).to.deep.equal(look({ accent: '#17212b' }));
		expect(readLook({ size: 'huge' })).to.deep.equal(STANDARD_LOOK);
		expect(readLook(null)).to.deep.equal(STANDARD_LOOK);
	});

	it('comes as documents have looked from the beginning', () => {
		// Documents issued before there were letterheads are drawn with it: it never changes.
		const { columns, ...rest } = STANDARD_LOOK;
		expect(columns.filter(({ shown }) => !shown).map(({ id }) => id)).to.deep.equal([
			'picture',
			'code'
		]);
		expect(rest).to.deep.equal({
			logo: null,
			logoPlace: 'right',
			logoWidth: 30,
			accent: '#1f5d57',
			typeface: 'grotesque',
			size: 'normal',
			margins: { top: 19, right: 17, bottom: 22, left: 17 },
			window: 'none',
			preprinted: false,
			hidden: [],
			lines: 'lines',
			above: '',
			below: '',
			conditions: '',
			payTitle: '',
			payWords: '',
			tradeBody: '',
			insurance: '',
			slip: false,
			draftAcross: false,
			words: {}
		});
	});
});
