// What is typed on a sheet, read: percentages and rates to their last decimal, texts to their last letter, each refusal at its place.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { quickLine, quickWords } from '../../../../src/lib/core/quick';
import { FiguresError } from '../../../../src/lib/core/figures/types';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import { readDiscount } from '../../../../src/lib/core/sheet/discount';
import { decideExchange, rateOn, readRate } from '../../../../src/lib/core/sheet/exchange';
import { explainFiguresError } from '../../../../src/lib/core/sheet/explain';
import { sheetForm } from '../../../../src/lib/core/sheet/form';
import type { Problem, Sheet, SheetLine } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, problemAt, readWith, SELLER } from '../../../support/sheets';

const stops = (problems: Problem[]) =>
	problems.filter(({ level }) => level === 'stop').map(({ path }) => path);

describe('a discount as it is typed', () => {
	const read = (typed: string) => {
		const said: string[] = [];
		const found = readDiscount(typed, 'discount', (path, message) =>
			said.push(`${path}: ${message}`)
		);
		return said[0] ?? found;
	};
	it('is a percentage to four decimals up to 100, or an amount to the penny', () => {
		expect(read('  ')).to.equal(null);
		expect(read(' 5 % ')).to.deep.equal({ percent: { units: 5n, scale: 0 } });
		expect(read('33.3333%')).to.deep.equal({ percent: { units: 333333n, scale: 4 } });
		expect(read('100%')).to.deep.equal({ percent: { units: 100n, scale: 0 } });
		expect(read('£1,250.50')).to.deep.equal({ amount: 1250_50n });
		expect(read('0')).to.deep.equal({ amount: 0n });
		for (const typed of ['100.0001%', '33.33333%', '-1%', '%', 'five %'])
			expect(read(typed), typed).to.equal(
				'discount: A percentage from 0 to 100, such as 5%, or an amount.'
			);
		for (const typed of ['1.005', '-1', 'five'])
			expect(read(typed), typed).to.equal(
				'discount: An amount such as 25.00, or a percentage such as 5%.'
			);
	});
});

describe('what one unit of other money is worth', () => {
	const rates = [
		{ currency: 'EUR', from: '2026-11-01', to: '2026-11-30', rate: '0.85', source: 'the table' },
		{ currency: 'USD', from: '2026-11-01', to: '2026-11-30', rate: '0.75', source: 'the table' }
	] as never as NonNullable<Parameters<typeof rateOn>[0]>;
	const decide = (sheet: Partial<Sheet>, more: object = {}, day = '2026-11-24') => {
		const problems: Problem[] = [];
		const found = decideExchange(
			{ ...blankSheet(), ...sheet },
			{ seller: SELLER, customer: null, today: day, rates, ...more } as never,
			day,
			problems
		);
		return [found, ...problems.map(({ path, message }) => `${path}: ${message}`)];
	};
	it('is nobody’s question in pounds', () => {
		expect(decide({})).to.deep.equal([null]);
		expect(decide({ currency: 'GBP', exchange: { rate: '2', source: '' } })).to.deep.equal([null]);
	});
	it('is as typed, to six decimals, or by the table on its day, from the first to the last', () => {
		expect(decide({ currency: 'EUR' })).to.deep.equal([{ rate: '0.85', source: 'the table' }]);
		expect(decide({ currency: 'EUR' }, {}, '2026-11-01')[0]).to.include({ rate: '0.85' });
		expect(decide({ currency: 'EUR' }, {}, '2026-11-30')[0]).to.include({ rate: '0.85' });
		for (const day of ['2026-10-31', '2026-12-01'])
			expect(decide({ currency: 'EUR' }, {}, day)[0], day).to.equal(null);
		expect(decide({ currency: 'EUR' }, {}, '2026-12-01')[1]).to.equal(
			'exchange.rate: What was one euro worth in pounds on 1 Dec 2026? No rate is known for that day.'
		);
		expect(decide({ currency: 'USD' })[0]).to.include({ rate: '0.75' });
		expect(
			decide({ currency: 'EUR', exchange: { rate: ' 0.861234 ', source: ' ' } })
		).to.deep.equal([{ rate: '0.861234', source: 'as typed on the document' }]);
		expect(
			decide({ currency: 'EUR', exchange: { rate: '0.9', source: ' the bank ' } })
		).to.deep.equal([{ rate: '0.9', source: 'the bank' }]);
		expect(decide({ currency: 'EUR', exchange: { rate: '  ', source: '' } })[0]).to.include({
			rate: '0.85'
		});
		// Once issued it stays as it was.
		expect(
			decide({ currency: 'EUR' }, { exchange: { rate: '0.8', source: 'then' } })
		).to.deep.equal([{ rate: '0.8', source: 'then' }]);
	});
	it('is refused where it is none, its source too long, or what is billed is in pounds alone', () => {
		expect(readRate('0')).to.deep.equal({ wrong: 'A rate above zero: pounds for one of it.' });
		expect(readRate('0.000001')).to.deep.equal({ rate: '0.000001' });
		expect(readRate('0.0000001')).to.have.property('wrong');
		expect(readRate('1234567890')).to.have.property('wrong');
		expect(decide({ currency: 'EUR', exchange: { rate: '-1', source: '' } })[0]).to.equal(null);
		expect(
			decide({ currency: 'EUR', exchange: { rate: '1', source: 'x'.repeat(201) } })[1]
		).to.equal('exchange.source: At most 200 characters.');
		expect(
			decide({ currency: 'EUR', exchange: { rate: '1', source: 'x'.repeat(200) } })
		).to.have.length(1);
		expect(decide({ currency: 'EUR', stageId: 3 })[1]).to.equal(
			'currency: A stage is billed in the money of its contract: in pounds.'
		);
		expect(decide({ currency: 'EUR', charge: 'late' })[1]).to.equal(
			'currency: A charge for lateness is worked out in pounds.'
		);
		expect(decide({ stageId: 3 })).to.deep.equal([null]);
	});
});

describe('what the figures refuse', () => {
	const said = (path: string, message = 'no such thing') => {
		const {
			path: at,
			level,
			message: words,
			fix
		} = explainFiguresError(new FiguresError(message, path), [
			lineOf({ id: 'x' }),
			lineOf({ id: 'y' })
		]);
		expect(level).to.equal('stop');
		return [at, words, fix && 'field' in fix ? fix.field : undefined];
	};
	it('is said at the place of the sheet where it can be put right', () => {
		expect(said('pricesIncludeVat')).to.deep.equal([
			'pricesIncludeVat',
			'This customer accounts for the VAT itself, so prices cannot include it.',
			'pricesIncludeVat'
		]);
		expect(said('vatRounding')).to.deep.equal([
			'roundVatDown',
			'VAT may be rounded down only between businesses, on prices without VAT.',
			'roundVatDown'
		]);
		expect(said('cisRate')[0]).to.equal('currency');
		expect(said('retention')[2]).to.equal('retention');
		expect(said('discount')[2]).to.equal('discount');
		expect(said('date')).to.deep.equal(['workFinished', 'No such thing.', undefined]);
		expect(said('lines.1.vat')).to.deep.equal(['rows.y.vat', 'No such thing.', undefined]);
		expect(said('lines.0.unitPrice')[0]).to.equal('rows.x.unitPrice');
		expect(said('lines.2.vat')[0]).to.equal('lines.2.vat');
		expect(said('something.else')[0]).to.equal('something.else');
	});
});

describe('the texts of a sheet', () => {
	const long = (count: number) => 'x'.repeat(count);
	it('have room for so much, and no letter more', () => {
		const places: [string, number, (words: string) => Partial<Sheet>][] = [
			['reference', 200, (reference) => ({ reference })],
			['orderNumber', 200, (orderNumber) => ({ orderNumber })],
			['note', 10_000, (note) => ({ note })],
			['contractReason', 500, (contractReason) => ({ contractReason })],
			['rows.a.description', 10_000, (description) => ({ rows: [lineOf({ description })] })],
			['rows.a.unit', 30, (unit) => ({ rows: [lineOf({ unit })] })],
			['rows.h.text', 500, (text) => ({ rows: [{ id: 'h', type: 'heading', text }, lineOf()] })]
		];
		for (const [path, most, sheet] of places) {
			expect(
				stops(readWith(customerOf('household'), sheet(long(most))).problems),
				path
			).to.not.include(path);
			expect(
				problemAt(readWith(customerOf('household'), sheet(long(most + 1))).problems, path)!.message
			).to.equal(
				`At most ${most.toLocaleString('en-GB')} characters here; these are ${(most + 1).toLocaleString('en-GB')}.`
			);
		}
	});
	it('are on at most a thousand lines', () => {
		const rows = (count: number) =>
			Array.from({ length: count }, (_, n) => lineOf({ id: `r${n}`, unitPrice: '1' }));
		expect(stops(readWith(customerOf('household'), { rows: rows(1000) }).problems)).to.deep.equal(
			[]
		);
		expect(stops(readWith(customerOf('household'), { rows: rows(1001) }).problems)).to.include(
			'rows'
		);
	});
});

describe('the lines and days of a sheet', () => {
	const at = (line: Partial<SheetLine>, who = customerOf('household')) =>
		stops(readWith(who, { rows: [lineOf(line)] }).problems);
	it('take no discount larger than the line, none on less than nothing, no cost where there is none', () => {
		expect(at({ quantity: '2', discount: '200' })).to.not.include('rows.a.discount');
		expect(at({ quantity: '2', discount: '200.01' })).to.deep.equal(['rows.a.discount']);
		expect(at({ quantity: '-1', discount: '5%' })).to.include('rows.a.discount');
		expect(at({ quantity: '0.0001' })).to.not.include('rows.a.quantity');
		expect(at({ quantity: '0.00001' })).to.include('rows.a.quantity');
		expect(at({ unitPrice: '0.00001' })).to.include('rows.a.unitPrice');
		expect(at({ unitPrice: '-1' })).to.include('rows.a.unitPrice');
		expect(at({ cost: '10.001' })).to.include('rows.a.cost');
		const contractor = customerOf('contractor', FULL);
		expect(at({ kind: 'levy', cost: '10' }, contractor)).to.include('rows.a.cost');
		expect(at({ vat: 'noSupply', cost: '10' }, contractor)).to.include('rows.a.cost');
		expect(at({ kind: 'materials', cost: '10' }, contractor)).to.deep.equal([]);
	});
	it('are due by the terms of the customer, of the sheet, or on a day, and not before they are issued', () => {
		const due = (
			sheet: Partial<Sheet>,
			terms: { days: number; endOfMonth: boolean } | null = null
		) => readWith(customerOf('household', {}, { terms }), sheet).dates.dueDate;
		expect(due({})).to.equal('2026-12-08');
		expect(due({}, { days: 30, endOfMonth: false })).to.equal('2026-12-24');
		expect(due({ termsDays: '7' }, { days: 30, endOfMonth: true })).to.equal('2026-12-01');
		expect(due({ termsDays: ' 0 ' })).to.equal('2026-11-24');
		expect(due({ termsDays: '999' })).to.equal('2029-08-19');
		expect(due({ termsDays: '7', dueDate: '3 Dec' })).to.equal('2026-12-03');
		const problems = (sheet: Partial<Sheet>) =>
			stops(readWith(customerOf('household'), sheet).problems);
		for (const termsDays of ['1000', '-1', '1.5', 'soon'])
			expect(problems({ termsDays }), termsDays).to.include('termsDays');
		expect(problems({ dueDate: '23 Nov 2026' })).to.include('dueDate');
		expect(problems({ dueDate: '24 Nov 2026' })).to.not.include('dueDate');
		expect(problems({ dueDate: 'soon' })).to.include('dueDate');
		expect(problems({ issueDate: 'soon' })).to.include('issueDate');
	});
	it('say that it would be late on the day it goes out, and date it today', () => {
		const late = (sheet: Partial<Sheet>) =>
			problemAt(readWith(customerOf('household'), sheet).problems, 'dueDate');
		expect(late({ issueDate: '1 Nov 2026', dueDate: '23 Nov 2026' })).to.deep.include({
			level: 'warning',
			fix: { label: 'Date it today', type: 'set', field: 'issueDate', value: '' }
		});
		expect(late({ issueDate: '1 Nov 2026', dueDate: '24 Nov 2026' })).to.equal(undefined);
	});
});

describe('a sheet as it is kept', () => {
	const kept = (line: object) =>
		sheetForm.safeParse({ ...blankSheet(), rows: [{ ...lineOf(), ...line }] }).success;
	it('has choices, measures and list prices whole, and nothing it does not know', () => {
		expect(kept({})).to.equal(true);
		expect(kept({ choice: { group: 'Ceiling', option: 'boards' } })).to.equal(true);
		expect(kept({ choice: { group: 'Ceiling' } })).to.equal(false);
		expect(kept({ choice: { group: 'Ceiling', option: 'boards', price: '1' } })).to.equal(false);
		const measured = { length: '2', width: '3', height: '', off: [{ width: '1', height: '2' }] };
		expect(kept({ measured })).to.equal(true);
		expect(kept({ measured: { ...measured, off: [{ width: '1' }] } })).to.equal(false);
		expect(kept({ measured: { ...measured, off: Array(51).fill(measured.off[0]) } })).to.equal(
			false
		);
		expect(kept({ measured: { ...measured, depth: '1' } })).to.equal(false);
		expect(kept({ listPrice: { price: '1', withVat: false } })).to.equal(true);
		expect(kept({ listPrice: { price: '1' } })).to.equal(false);
		expect(kept({ extra: false })).to.equal(false);
		expect(kept({ provisional: true, extra: true, most: '6' })).to.equal(true);
		expect(kept({ kind: 'gold' })).to.equal(false);
		expect(kept({ income: 'x'.repeat(61) })).to.equal(false);
		expect(kept({ anything: 1 })).to.equal(false);
	});
});

describe('a line that begins an invoice or a job', () => {
	const line = (typed: string) => {
		const { quantity, unit, description, unitPrice } = quickLine(
			'invoice',
			typed.split(' ').filter(Boolean)
		);
		return [quantity, unit, description, unitPrice];
	};
	it('says first what is begun', () => {
		expect(quickWords(' Bill corvane 3 h ')).to.deep.equal({
			what: 'invoice',
			words: ['corvane', '3', 'h']
		});
		expect(quickWords('JOB x')?.what).to.equal('job');
		expect(quickWords('invoice')).to.equal(null);
		expect(quickWords('quote x')).to.equal(null);
		expect(quickWords('constructor x')).to.equal(null);
	});
	it('has how many, of what, and for how much', () => {
		expect(line('3 h repair of eaves 45')).to.deep.equal(['3', 'hour', 'Repair of eaves', '45']);
		expect(line('2.5h repair @ £45.50')).to.deep.equal(['2.5', 'hour', 'Repair', '45.50']);
		expect(line('12m² render at 18.4025')).to.deep.equal(['12', 'm²', 'Render', '18.4025']);
		expect(line('12m2 render')).to.deep.equal(['12', 'm²', 'Render', '']);
		expect(line('render 18.40251')).to.deep.equal(['1', '', 'Render 18.40251', '']);
		expect(line('3 windows 20')).to.deep.equal(['3', '', 'Windows', '20']);
		expect(line('render')).to.deep.equal(['1', '', 'Render', '']);
		expect(line('45')).to.deep.equal(['1', '', '', '45']);
		expect(line('')).to.deep.equal(['1', '', '', '']);
		for (const [typed, unit] of [
			['hr', 'hour'],
			['hrs', 'hour'],
			['hours', 'hour'],
			['d', 'day'],
			['days', 'day'],
			['m', 'm'],
			['lot', 'lot'],
			['visits', 'visit'],
			['bag', 'bag'],
			['bags', 'bag']
		] as const)
			expect(line(`2 ${typed} lime`), typed).to.deep.equal(['2', unit, 'Lime', '']);
	});
});
