// A quote on its page and on paper: what stands there, what choosing does, when it is reminded of. Sums worked out by hand.
// Over 300 lines: one quote, looked at from every side.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import type { Frozen } from '../../../../src/lib/core/documents/types';
import { customerOn, sellerOn } from '../../../../src/lib/core/parties';
import { frozenAsChosen } from '../../../../src/lib/core/quotes/frozen';
import { dueStep } from '../../../../src/lib/core/quotes/plan';
import { publicFigures, publicQuote } from '../../../../src/lib/core/quotes/public';
import { missingToSend, readQuote } from '../../../../src/lib/core/quotes/read';
import { addsOf, agreedLines, NOTHING_PICKED } from '../../../../src/lib/core/quotes/chosen';
import { blankQuote, blankTerms } from '../../../../src/lib/core/quotes/terms';
import { quoteView } from '../../../../src/lib/core/quotes/view';
import type { QuoteTerms, Sheet, SheetLine, SheetRow } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, SELLER } from '../../../support/sheets';

const ON = '2026-11-24';
const row = (id: string, more: Partial<SheetLine> = {}) => lineOf({ id, ...more });
const heading = (id: string, text: string): SheetRow => ({ id, type: 'heading', text });
/** 100.00 of rendering; boards for 200.00 or laths for 260.00; a rose for 50.00 that may be added; up to six hooks at 4.00. */
const ROWS: SheetRow[] = [
	heading('h1', ' Hall '),
	row('a'),
	row('b', {
		description: 'Ceiling',
		unitPrice: '200',
		choice: { group: 'Ceiling', option: 'boards' }
	}),
	row('c', {
		description: 'Ceiling',
		unitPrice: '260',
		choice: { group: 'Ceiling', option: 'laths' }
	}),
	heading('h2', 'Extras'),
	row('d', { description: ' Rose ', unitPrice: '50', cost: '20', extra: true }),
	row('e', {
		description: 'Hook',
		quantity: '2',
		unitPrice: '4',
		cost: '3',
		extra: true,
		most: '6'
	}),
	heading('h3', '  ')
];
const household = customerOf('household');

function read(
	terms: Partial<QuoteTerms> = {},
	sheet: Partial<Sheet> = {},
	who = household,
	picked = NOTHING_PICKED
) {
	const whole = {
		...blankQuote(),
		customerId: 1,
		contract: 'construction' as const,
		rows: ROWS,
		...sheet,
		quote: { ...blankTerms(), title: ' Ceiling ', ...terms }
	};
	return {
		sheet: whole,
		reading: readQuote(whole, { seller: SELLER, customer: who, today: ON }, picked)
	};
}
function frozen(
	terms: Partial<QuoteTerms> = {},
	sheet: Partial<Sheet> = {},
	who = household
): Frozen {
	const { sheet: whole, reading } = read(terms, sheet, who);
	return {
		kind: 'invoice',
		seller: sellerOn(SELLER, ON),
		customer: customerOn(who, ON),
		sheet: whole,
		issueDate: ON,
		taxPoint: ON,
		workFinished: ON,
		dueDate: reading.validUntil,
		contract: 'construction',
		corrects: null
	};
}
const paper = { number: 'Q-7', version: 1, validUntil: '2026-12-22' };

describe('a quote on its page', () => {
	it('has its headings and lines without what they cost, and words without their margins', () => {
		const quote = publicQuote(
			frozen(
				{
					before: ' Dear Odile ',
					notIncluded: '\n Painting\n',
					assumed: ' ',
					begin: ' in March ',
					duration: '2 days ',
					guarantee: ' ten years',
					terms: ' Ours. '
				},
				{ note: ' See you ' }
			)
		);
		expect(
			quote.rows.map((one) => ('heading' in one ? one.heading : [one.index, one.line.id]))
		).to.deep.equal(['Hall', [0, 'a'], [1, 'b'], [2, 'c'], 'Extras', [3, 'd'], [4, 'e']]);
		expect(quote.texts).to.deep.equal([
			{ title: '', words: 'Dear Odile' },
			{ title: 'Not included', words: 'Painting' },
			{ title: 'When it could begin', words: 'in March' },
			{ title: 'How long it takes', words: '2 days' },
			{ title: 'Guarantee and insurance', words: 'ten years' },
			{ title: '', words: 'See you' }
		]);
		expect(quote).to.deep.include({
			name: 'Quote',
			title: 'Ceiling',
			terms: 'Ours.',
			begin: 'in March',
			includesVat: false,
			contractor: false,
			site: ''
		});
		expect(JSON.stringify(quote)).to.not.match(/"cost":("|\{|\d)/);
		expect((quote.rows[6] as { line: object }).line).to.deep.include({
			extra: true,
			most: '6',
			provisional: false
		});
		expect((quote.rows[1] as { line: object }).line).to.not.have.any.keys(
			'extra',
			'most',
			'choice',
			'cost'
		);
	});

	it('comes to what is chosen, with 20 % of VAT', () => {
		const quote = publicQuote(frozen());
		const total = (options: Record<string, string>, extras: Record<string, string>) =>
			publicFigures(quote, { options, extras }).quote.figures.total;
		expect(total({}, {})).to.equal(360_00n);
		expect(total({ Ceiling: 'laths' }, {})).to.equal(432_00n);
		expect(total({}, { d: '' })).to.equal(420_00n);
		expect(total({}, { e: '5' })).to.equal(384_00n);
		expect(total({}, { e: '' })).to.equal(369_60n);
		expect(total({ Ceiling: 'laths' }, { d: '', e: '1' })).to.equal(496_80n);
	});
});

describe('a quote on paper', () => {
	it('says what may be chosen instead and added, what it costs more, and how it is paid', () => {
		const { statements } = quoteView(
			frozen({
				deposit: '25%',
				stages: [
					{ title: 'First coat', percent: '50' },
					{ title: 'The rest', percent: '' }
				],
				notIncluded: ' Painting '
			}),
			paper
		);
		expect(statements.slice(0, 5)).to.deep.equal([
			'Ceiling: laths instead of boards, £72.00 more.',
			'If you wish: Rose, £60.00 more.',
			'If you wish: Hook, £9.60 more.',
			'Paid so: On acceptance: deposit £90.00; First coat £180.00; The rest £90.00.',
			'Not included: Painting'
		]);
		expect(statements.at(-1)).to.equal('This is no VAT invoice.');
		const rows = (unitPrice: string) => [
			row('b', { unitPrice: '200', choice: { group: 'Ceiling', option: 'boards' } }),
			row('c', { unitPrice, choice: { group: 'Ceiling', option: 'laths' } })
		];
		const first = (unitPrice: string) =>
			quoteView(frozen({}, { rows: rows(unitPrice) }), paper).statements[0];
		expect(first('200')).to.equal('Ceiling: laths instead of boards, at the same price.');
		expect(first('150')).to.equal('Ceiling: laths instead of boards, less £60.00.');
	});

	it('once accepted says what was chosen and by whom, and no more what might have been', () => {
		const accepted = {
			picked: { options: { Ceiling: 'laths' }, extras: { d: '' } },
			name: 'Odile',
			on: '25 Nov 2026',
			way: 'on its page'
		};
		const view = quoteView(frozen(), { ...paper, version: 2, accepted });
		expect(view.banner).to.equal('Accepted by Odile on 25 Nov 2026, on its page');
		expect(view.statements[0]).to.not.contain('instead');
		expect(view.payable).to.deep.equal({ label: 'In all', amount: '492.00' });
		expect(
			view.sections.flatMap(({ rows }) => rows.map(({ description }) => description))
		).to.deep.equal(['Render', 'laths: Ceiling', 'Rose']);
		expect(view.facts.map(({ label, value }) => [label, value])).to.deep.include.members([
			['Holds until', '22 Dec 2026'],
			['Version', '2']
		]);
	});

	it('says what it is while it is none, or binds nobody', () => {
		const banner = (more: object, terms: Partial<QuoteTerms> = {}) =>
			quoteView(frozen(terms), { ...paper, ...more }).banner;
		expect(banner({})).to.equal('');
		expect(banner({ draft: true })).to.equal('Draft: this is no quote yet');
		expect(banner({ draft: true }, { binding: false })).to.equal('Draft: this is no estimate yet');
		expect(banner({ trial: true, draft: true })).to.equal(
			'Test: nothing here counts, and nothing is agreed'
		);
		expect(banner({}, { binding: false })).to.equal(
			'An estimate: a best guess, which does not bind'
		);
		expect(quoteView(frozen(), paper).facts.some(({ label }) => label === 'Version')).to.equal(
			false
		);
		expect(quoteView(frozen({ binding: false }), paper).title).to.equal('Estimate');
	});

	it('shows each line, sums alone, or what it all comes to', () => {
		const two = [
			heading('h1', 'Hall'),
			row('a', { quantity: '2' }),
			heading('h2', 'Stairs'),
			row('b')
		];
		const shown = (detail: QuoteTerms['detail']) => {
			const view = quoteView(frozen({ detail }, { rows: two }), paper);
			return [
				view.columns.some(({ id }) => id === 'price'),
				view.columns.some(({ id }) => id === 'amount'),
				view.sections.map(({ sum }) => sum),
				view.sections.flatMap(({ rows }) =>
					rows.map(({ amount, unitPrice }) => [unitPrice, amount])
				)
			];
		};
		const none = [
			['', ''],
			['', '']
		];
		expect(shown('all')).to.deep.equal([
			true,
			true,
			['200.00', '100.00'],
			[
				['100.00', '200.00'],
				['100.00', '100.00']
			]
		]);
		expect(shown('sections')).to.deep.equal([false, true, ['200.00', '100.00'], none]);
		expect(shown('total')).to.deep.equal([false, true, ['', ''], none]);
	});

	it('drops a heading with nothing chosen under it', () => {
		const rows = (extras: Record<string, string>) =>
			frozenAsChosen(frozen(), { options: {}, extras }).sheet.rows.map((one) => one.id);
		expect(rows({})).to.deep.equal(['h1', 'a', 'b']);
		expect(rows({ d: '' })).to.deep.equal(['h1', 'a', 'b', 'h2', 'd']);
	});
});

describe('what is agreed', () => {
	it('has what came off the whole on each line, as many as were chosen, and their cost', () => {
		const { reading } = read({}, { discount: '10%' }, household, {
			options: {},
			extras: { e: '3' }
		} as never);
		const lines = agreedLines(reading.lines, reading.asked!, reading.quote!);
		// 100, 200 and 3 × 4, a tenth off each; a hook costs 1.50.
		expect(
			lines.map(({ description, quantity, discount, cost }) => [
				description,
				quantity,
				discount,
				cost
			])
		).to.deep.equal([
			['Render', '1', '10', ''],
			['boards: Ceiling', '1', '20', ''],
			['Hook', '3', '1.2', '4.5']
		]);
	});

	it('leaves a margin once a cost is known, of as many as are chosen', () => {
		const margin = (extras: Record<string, string>) => {
			const { reading } = read({}, {}, household, { options: {}, extras } as never);
			const { net, cost, margin } = reading.margin ?? {};
			return reading.margin && [net, cost, margin];
		};
		expect(margin({})).to.equal(null);
		expect(margin({ d: '' })).to.deep.equal([350_00n, 20_00n, 330_00n]);
		expect(margin({ e: '2' })).to.deep.equal([308_00n, 3_00n, 305_00n]);
		expect(margin({ e: '6' })).to.deep.equal([324_00n, 9_00n, 315_00n]);
		const none = read(
			{},
			{
				rows: [
					row('a'),
					row('e', { quantity: '0', unitPrice: '4', cost: '3', extra: true, most: '6' })
				]
			},
			household,
			{
				options: {},
				extras: { e: '2' }
			} as never
		);
		expect(none.reading.margin?.cost).to.equal(3_00n);
	});

	it('says of each choice and extra what it makes of the total, whatever else is chosen', () => {
		const { reading } = read({}, {}, household, {
			options: { Ceiling: 'laths' },
			extras: { d: '' }
		} as never);
		expect(addsOf(reading.asked!, reading.quote!)).to.deep.equal({
			options: [
				{
					group: 'Ceiling',
					taken: 'laths',
					options: [
						{ option: 'boards', total: 420_00n, adds: -72_00n },
						{ option: 'laths', total: 492_00n, adds: 0n }
					]
				}
			],
			extras: [
				{ index: 3, isIn: true, adds: 60_00n },
				{ index: 4, isIn: false, adds: 9_60n }
			]
		});
	});
});

describe('what cannot be worked out on a quote', () => {
	const found = (sheet: Partial<Sheet>, terms: Partial<QuoteTerms> = {}, who = household) => {
		const { reading } = read(terms, sheet, who);
		return [
			reading.problems
				.filter(({ level }) => level === 'stop')
				.map(({ path, message }) => `${path}: ${message}`),
			reading.quote && Number(reading.quote.figures.total)
		];
	};
	it('is said at its place, and the rest is worked out without it', () => {
		expect(found({ rows: [row('a')] }, { deposit: '120.01' })).to.deep.equal([
			['quote.deposit: At most what it comes to.'],
			12_000
		]);
		expect(found({ rows: [row('a')], discount: '100.01' })).to.deep.equal([
			['discount: The discount is larger than the lines it is taken from.'],
			12_000
		]);
		// With all that may be chosen it would do; with what is chosen first it does not.
		expect(found({ discount: '300.01' })).to.deep.equal([
			['discount: The discount is larger than what is chosen first comes to.'],
			36_000
		]);
		expect(found({ rows: [row('d', { extra: true })] })).to.deep.equal([
			[': Everything on it is optional: without a choice there is nothing on it.'],
			null
		]);
	});
	it('stops it from going out: no customer, nothing on it, no title, no words, no address', () => {
		const missing = (
			sheet: Partial<Sheet>,
			terms: Partial<QuoteTerms> = {},
			who: typeof household | null = household,
			address = 'Kiln Cottage'
		) => {
			const whole = {
				...blankQuote(),
				customerId: 1,
				rows: [row('a')],
				...sheet,
				quote: { ...blankTerms(), title: 'x', ...terms }
			};
			const reading = readQuote(whole, {
				seller: { ...SELLER, address },
				customer: who,
				today: ON
			});
			return missingToSend(whole, reading).map(({ path, level, atIssue }) => [
				path,
				level,
				atIssue
			]);
		};
		const stop = (path: string) => [[path, 'stop', true]];
		expect(missing({})).to.deep.equal([]);
		expect(missing({}, {}, null)).to.deep.equal(stop('customer'));
		expect(missing({ rows: [] })).to.deep.equal(stop(''));
		expect(missing({}, { title: ' ' })).to.deep.equal(stop('quote.title'));
		expect(missing({ rows: [row('a', { description: ' ' })] })).to.deep.equal(
			stop('rows.a.description')
		);
		expect(missing({}, {}, household, ' ')).to.deep.equal(stop('seller.address'));
		expect(missing({}, {}, customerOf('contractor', FULL), ' ')).to.deep.equal([]);
	});
});

describe('a quote that is out', () => {
	const due = (
		today: string,
		plan = { after: [7, 14], before: [7] },
		sentOn = '2026-11-01',
		until = '2026-11-30'
	) => {
		const step = dueStep(plan, sentOn, until, today);
		return step && `${step.days} ${step.when} ${step.on}`;
	};
	it('is reminded of by the latest step that is due, until it expires', () => {
		expect(due('2026-11-07')).to.equal(null);
		expect(due('2026-11-08')).to.equal('7 after 2026-11-08');
		expect(due('2026-11-14')).to.equal('7 after 2026-11-08');
		expect(due('2026-11-15')).to.equal('14 after 2026-11-15');
		expect(due('2026-11-22')).to.equal('14 after 2026-11-15');
		expect(due('2026-11-23')).to.equal('7 before 2026-11-23');
		expect(due('2026-11-30')).to.equal('7 before 2026-11-23');
		expect(due('2026-12-01')).to.equal(null);
	});
	it('says that it expires where both fall on one day, and nothing of what went out just now', () => {
		const both = { after: [22], before: [7] };
		expect(due('2026-11-23', both)).to.equal('7 before 2026-11-23');
		expect(due('2026-11-23', { after: [7], before: [7, 3] }, '2026-11-16')).to.equal(
			'7 before 2026-11-23'
		);
		expect(due('2026-11-23', { after: [], before: [7] }, '2026-11-20')).to.equal(
			'7 before 2026-11-23'
		);
		expect(due('2026-11-23', { after: [], before: [7] }, '2026-11-21')).to.equal(null);
		expect(due('2026-11-24', { after: [], before: [7] }, '2026-11-21')).to.equal(
			'7 before 2026-11-23'
		);
	});
});
