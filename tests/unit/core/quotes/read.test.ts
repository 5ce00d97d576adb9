// What stands on a quote, each limit from both sides; what a page may choose; and how a range is said.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { FiguresError } from '../../../../src/lib/core/figures/types';
import { readQuote } from '../../../../src/lib/core/quotes/read';
import { checkPicked } from '../../../../src/lib/core/quotes/chosen';
import { blankQuote, blankTerms, quoteName } from '../../../../src/lib/core/quotes/terms';
import { rangeWords } from '../../../../src/lib/core/quotes/wording';
import type { QuoteTerms, Sheet, SheetLine } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, SELLER } from '../../../support/sheets';

const row = (id: string, more: Partial<SheetLine> = {}) => lineOf({ id, ...more });
const of = (option: string, group = 'Ceiling') => ({ choice: { group, option } });
/** Where something stops it. */
function stops(
	terms: Partial<QuoteTerms>,
	sheet: Partial<Sheet> = {},
	who = customerOf('household') as ReturnType<typeof customerOf> | null
) {
	const quote = { ...blankTerms(), title: 'Ceiling', ...terms };
	return readQuote(
		{ ...blankQuote(), customerId: 1, rows: [row('a')], ...sheet, quote },
		{ seller: SELLER, customer: who, today: '2026-11-24' }
	)
		.problems.filter(({ level }) => level === 'stop')
		.map(({ path }) => path)
		.filter((path) => path !== 'customerId');
}
const stage = (percent: string, title = 'Then') => ({ title, percent });

describe('the terms of a quote', () => {
	it('hold for 1 to 999 days, and no text is endless', () => {
		for (const [days, wrong] of [
			['1', []],
			['999', []],
			['0', ['quote.validDays']],
			['1000', ['quote.validDays']],
			['a week', ['quote.validDays']],
			['', ['quote.validDays']]
		] as const)
			expect(stops({ validDays: days }), days).to.deep.equal(wrong);
		expect(stops({ title: 'x'.repeat(200) })).to.deep.equal([]);
		expect(stops({ title: 'x'.repeat(201) })).to.deep.equal(['quote.title']);
		expect(stops({ begin: 'x'.repeat(201), duration: 'x'.repeat(200) })).to.deep.equal([
			'quote.begin'
		]);
		for (const name of ['before', 'notIncluded', 'assumed', 'guarantee', 'terms'] as const) {
			expect(stops({ [name]: 'x'.repeat(10_000) }), name).to.deep.equal([]);
			expect(stops({ [name]: 'x'.repeat(10_001) }), name).to.deep.equal([`quote.${name}`]);
		}
	});

	it('are in pounds; of a contractor they say what the contract is about', () => {
		expect(stops({}, { currency: 'GBP' })).to.deep.equal([]);
		expect(stops({}, { currency: 'EUR' })).to.include('currency');
		const contractor = customerOf('contractor', FULL);
		expect(stops({}, { contract: null }, contractor)).to.include('contract');
		expect(stops({}, { contract: 'construction' }, contractor)).to.deep.equal([]);
		expect(stops({}, { contract: null }, null)).to.not.include('contract');
	});

	it('name a choice and at least two ways of it; what may be added is no choice', () => {
		const rows = (...all: SheetLine[]) => stops({}, { rows: all });
		expect(rows(row('a', of('boards')), row('b', of(' laths ', ' Ceiling ')))).to.deep.equal([]);
		expect(rows(row('a', of('boards')))).to.deep.equal(['rows.a.choice']);
		expect(rows(row('a', of('')), row('b', of('laths')))).to.include('rows.a.choice');
		expect(rows(row('a', of('boards', '')), row('b', of('laths', '')))).to.include('rows.a.choice');
		expect(rows(row('a', { ...of('boards'), extra: true }), row('b', of('laths')))).to.include(
			'rows.a.extra'
		);
		expect(rows(row('a'), row('b', { extra: true, most: '6' }))).to.deep.equal([]);
		expect(rows(row('a'), row('b', { extra: true, most: ' ' }))).to.deep.equal([]);
		expect(rows(row('a'), row('b', { extra: true, most: 'six' }))).to.deep.equal(['rows.b.most']);
	});

	it('have stages with a name that leave something for the last', () => {
		expect(stops({ stages: [stage('40'), stage('59.99%'), stage('')] })).to.deep.equal([]);
		expect(stops({ stages: [stage('40'), stage('60'), stage('')] })).to.deep.equal([
			'quote.stages'
		]);
		expect(stops({ stages: [stage('0'), stage('')] })).to.deep.equal(['quote.stages.0.percent']);
		expect(stops({ stages: [stage('0.01'), stage('')] })).to.deep.equal([]);
		expect(stops({ stages: [stage('100'), stage('')] })).to.deep.equal(['quote.stages']);
		expect(stops({ stages: [stage('100.01'), stage('')] })).to.include('quote.stages.0.percent');
		expect(stops({ stages: [stage('some'), stage('')] })).to.deep.equal(['quote.stages.0.percent']);
		expect(stops({ stages: [stage('40', ' '), stage('', '')] })).to.deep.equal([
			'quote.stages.0.title',
			'quote.stages.1.title'
		]);
	});

	it('take off what there is to take off, and no more', () => {
		expect(stops({}, { discount: '100' })).to.deep.equal([]);
		expect(stops({}, { discount: '100.01' })).to.deep.equal(['discount']);
	});

	it('are a quote, or an estimate', () =>
		expect([true, false].map((binding) => quoteName({ binding }))).to.deep.equal([
			'Quote',
			'Estimate'
		]));
});

describe('what a page may choose', () => {
	const rows = [row('a'), row('b', { extra: true }), row('c', { extra: true, most: '6' })];
	const refused = (extras: Record<string, string>) => {
		try {
			checkPicked(rows, { options: {}, extras });
		} catch (problem) {
			return (problem as FiguresError).path;
		}
		return null;
	};
	it('is an extra of this quote, above nothing and up to what is offered', () => {
		expect(refused({})).to.equal(null);
		expect(refused({ b: '' })).to.equal(null);
		expect(refused({ a: '' })).to.equal('extras.a');
		expect(refused({ x: '' })).to.equal('extras.x');
		expect(refused({ c: '6' })).to.equal(null);
		expect(refused({ c: '0.5' })).to.equal(null);
		for (const wrong of ['6.01', '7', '0', '-1', '', 'all'])
			expect(refused({ c: wrong }), wrong).to.equal('extras.c');
	});
});

describe('a range', () => {
	const said = (lowest: bigint | null, highest: bigint | null) =>
		rangeWords({ figures: { total: 500_00n }, lowest, highest } as never);
	it('is said where there is one; else what it comes to', () => {
		expect(said(2400_00n, 3612_00n)).to.equal('£2,400.00 to £3,612.00');
		expect(said(500_00n, 500_00n)).to.equal('£500.00');
		expect(said(null, 600_00n)).to.equal('£500.00');
		expect(said(400_00n, null)).to.equal('£500.00');
	});
});
