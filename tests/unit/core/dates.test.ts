import { expect } from 'chai';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';
import { isWorkingDay } from '../../../src/lib/core/calendar/holidays';
import { readDatesInput, writeDates } from '../../../src/lib/core/calendar/json';
import { nextOccurrences, REPEAT_UNITS } from '../../../src/lib/core/calendar/recurrence';
import { FiguresError } from '../../../src/lib/core/figures/types';

interface Case {
	name: string;
	input: object;
	output: object;
}
const dates = (input: unknown) => writeDates(readDatesInput(input)).dates;
const MONTHLY = {
	start: '2026-01-31',
	every: 1,
	unit: 'month',
	end: { never: true },
	from: '2026-01-01',
	to: '2026-12-31'
};

describe('when something repeats', () => {
	for (const { name, input, output } of JSON.parse(
		readFileSync('tests/cases/dates.json', 'utf8')
	) as Case[])
		it(name, () => expect(writeDates(readDatesInput(input))).to.deep.equal(output));

	it('knows substitute and one-off bank holidays from 2020 on, and none before', () => {
		const off = [
			'2020-05-08',
			'2020-12-28',
			'2022-06-03',
			'2022-09-19',
			'2023-05-08',
			'2027-12-28'
		];
		const on = ['2020-05-04', '2019-12-25', '2018-01-01', '2026-12-29'];
		expect(off.filter(isWorkingDay)).to.deep.equal([]);
		expect(on.filter((day) => !isWorkingDay(day))).to.deep.equal([]);
	});

	it('lists two occurrences moved to the same day both', () => {
		const daily = { ...MONTHLY, start: '2026-11-27', unit: 'day', weekend: 'nextWorkingDay' };
		expect(dates({ ...daily, from: '2026-11-28', to: '2026-11-30' })).to.deep.equal([
			'2026-11-30',
			'2026-11-30',
			'2026-11-30'
		]);
	});

	it('tests the end on the nominal day, and from and to on the moved one', () => {
		const rule = { ...MONTHLY, weekend: 'nextWorkingDay', end: { on: '2026-01-31' } };
		expect(dates({ ...rule, from: '2026-02-01' })).to.deep.equal(['2026-02-02']);
		expect(dates({ ...rule, to: '2026-01-31' })).to.deep.equal([]);
	});

	it('ends with the year 9999, and is empty where from is after to', () => {
		const far = { ...MONTHLY, from: '9999-11-15', to: '9999-12-31' };
		expect(dates(far)).to.deep.equal(['9999-11-30', '9999-12-31']);
		expect(dates({ ...far, every: 10 ** 15 })).to.deep.equal([]);
		expect(dates({ ...MONTHLY, from: '2026-02-02', to: '2026-02-01' })).to.deep.equal([]);
		expect(
			dates({ ...far, unit: 'day', weekend: 'nextWorkingDay', from: '9999-12-30' })
		).to.deep.equal(['9999-12-30', '9999-12-31']);
	});

	const wrong: [object, string][] = [
		[{ ...MONTHLY, start: '2026-02-30' }, 'start'],
		[{ ...MONTHLY, every: 0 }, 'every'],
		[{ ...MONTHLY, every: 1.5 }, 'every'],
		[{ ...MONTHLY, unit: 'hour' }, 'unit'],
		[{ ...MONTHLY, end: {} }, 'end'],
		[{ ...MONTHLY, end: { never: true, after: 2 } }, 'end'],
		[{ ...MONTHLY, end: { after: 0 } }, 'end.after'],
		[{ ...MONTHLY, weekend: 'never' }, 'weekend'],
		[{ ...MONTHLY, more: 1 }, 'more'],
		[{ ...MONTHLY, to: undefined }, 'to']
	];
	for (const [input, path] of wrong)
		it(`refuses ${JSON.stringify(input).slice(0, 60)}… at ${path}`, () => {
			const attempt = () => dates(JSON.parse(JSON.stringify(input)));
			expect(attempt).to.throw(FiguresError).with.property('path', path);
		});

	it('gives the same days whatever window they are looked at through', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 40 }),
				fc.constantFrom(...REPEAT_UNITS),
				fc.constantFrom('asIs' as const, 'nextWorkingDay' as const, 'previousWorkingDay' as const),
				fc.date({ min: new Date('2019-06-01'), max: new Date('2030-01-01'), noInvalidDate: true }),
				fc.integer({ min: 0, max: 400 }),
				(every, unit, weekend, day, later) => {
					const start = day.toISOString().slice(0, 10);
					const rule = { start, every, unit, weekend, end: { never: true as const } };
					const from = new Date(day.getTime() + later * 86_400_000).toISOString().slice(0, 10);
					const all = nextOccurrences(rule, '0001-01-01', later + 20);
					const seen = nextOccurrences(rule, from, 5);
					expect(seen).to.deep.equal(all.filter((one) => one.date >= from).slice(0, 5));
				}
			),
			{ numRuns: 40 }
		);
	});
});
