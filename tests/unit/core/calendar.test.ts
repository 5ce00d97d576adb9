import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	displayDate,
	londonDate,
	londonMoment,
	londonTime,
	readTypedDate
} from '../../../src/lib/core/calendar/conversion';
import {
	statementDeadline,
	taxMonthEnd,
	taxYearEnd
} from '../../../src/lib/core/calendar/manipulation';
import { isPlainDate } from '../../../src/lib/core/calendar/queries';
import { dueDate } from '../../../src/lib/core/calendar/terms';
import { decideTaxPoint } from '../../../src/lib/core/regimes/gb/taxPoint';

describe('dates', () => {
	const today = '2026-11-24';
	const typed: [string, string | null][] = [
		['24/11/2026', '2026-11-24'],
		['3.2.26', '2026-02-03'],
		['24 nov', '2026-11-24'],
		['5 January', '2027-01-05'],
		['3 Nov 2026', '2026-11-03'],
		['today', '2026-11-24'],
		['+14', '2026-12-08'],
		['-1', '2026-11-23'],
		['31/11/2026', null],
		['soon', null]
	];
	for (const [text, date] of typed)
		it(`“${text}” is ${date ?? 'no day'}`, () => expect(readTypedDate(text, today)).to.equal(date));

	it('exist or do not', () => {
		expect(
			['2024-02-29', '2026-02-29', '2000-02-29', '1900-02-29', '0000-01-01', '2026-13-01'].map(
				isPlainDate
			)
		).to.deep.equal([true, false, true, false, false, false]);
	});
	it('are shown and read back as the same day', () =>
		expect(readTypedDate(displayDate('2026-09-07'), today)).to.equal('2026-09-07'));
	it('are London’s, on the last Sunday of March and of October', () => {
		for (const text of [
			'2026-03-28T23:59',
			'2026-03-29T03:30',
			'2026-10-25T00:30',
			'2026-10-25T23:59'
		]) {
			const moment = londonMoment(text);
			expect(`${londonDate(moment)}T${londonTime(moment)}`).to.equal(text);
		}
	});
	it('make a due date at the end of the month those days fall in', () => {
		expect(dueDate('2026-01-31', { days: 30, endOfMonth: true })).to.equal('2026-03-31');
		expect(dueDate('2026-11-24', { days: 45, endOfMonth: false })).to.equal('2027-01-08');
	});
});

describe('tax point (VATA 1994 s.6)', () => {
	const cases: [string, string, string, string][] = [
		['2026-11-10', '2026-11-24', '2026-11-24', 's.6(5)'],
		['2026-11-09', '2026-11-24', '2026-11-09', 's.6(3)'],
		['2026-12-01', '2026-11-24', '2026-11-24', 's.6(4)']
	];
	const always = () => true;
	it('is never moved by 14 days where the contract has stages, or holds something back', () => {
		for (const [rule, reference] of [
			['stages', 'reg. 93'],
			['retention', 'reg. 89'],
			['continuous', 'reg. 90']
		] as const) {
			const billed = { rule, workFinished: '2026-01-05', issued: '2026-11-24' };
			expect(decideTaxPoint(billed, always)).to.deep.include({
				date: '2026-11-24',
				because: 'invoice',
				lastDayInTime: null,
				reference: `VAT Regulations 1995 ${reference}`
			});
			expect(decideTaxPoint({ ...billed, paidOn: '2026-11-20' }, always)).to.include({
				date: '2026-11-20',
				because: 'payment'
			});
		}
	});
	it('stays with the work where the seller was not registered on both days', () => {
		const billed = { rule: 'work' as const, workFinished: '2026-11-10', issued: '2026-11-20' };
		const point = (isRegistered: (day: string) => boolean) => decideTaxPoint(billed, isRegistered);
		expect(point((day) => day >= '2026-11-15').date).to.equal('2026-11-10');
		expect(point((day) => day <= '2026-11-15').date).to.equal('2026-11-10');
		expect(point(always).date).to.equal('2026-11-20');
		expect(point((day) => day <= '2026-11-15').reason).to.match(/not registered on both days/);
	});
	for (const [workFinished, issued, date, section] of cases) {
		it(`finished ${workFinished}, issued ${issued}: ${date}`, () => {
			const point = decideTaxPoint({ rule: 'work', workFinished, issued }, always);
			expect([point.date, point.reference]).to.deep.equal([date, `VATA 1994 ${section}`]);
		});
	}
});

describe('payment and deduction statement', () => {
	it('is due by the 19th after the tax month of the payment', () => {
		expect(['2026-11-05', '2026-11-06', '2026-12-31'].map(statementDeadline)).to.deep.equal([
			'2026-11-19',
			'2026-12-19',
			'2027-01-19'
		]);
	});
});

describe('a day as people type it', () => {
	it('has any of the usual signs between its parts, and several', () => {
		for (const typed of [
			'3 Nov, 2026',
			'3. nov. 2026',
			'3 - 11 - 26',
			'03/11/2026',
			'3 november 26'
		])
			expect(readTypedDate(typed, '2026-11-24'), typed).to.equal('2026-11-03');
		for (const typed of ['3 Nov,', '32 Nov 2026', '3 13 2026', '3 xyz 2026', 'Nov 3', '3'])
			expect(readTypedDate(typed, '2026-11-24'), typed).to.equal(null);
	});
	it('without a year is the closest, a weekday the one that comes', () => {
		expect(readTypedDate('3 jan', '2026-11-24')).to.equal('2027-01-03');
		expect(readTypedDate('3 jul', '2026-11-24')).to.equal('2026-07-03');
		expect(readTypedDate('29 feb', '2026-11-24')).to.equal(null);
		expect(readTypedDate('29 feb', '2027-11-24')).to.equal('2028-02-29');
		expect(readTypedDate('tue', '2026-11-24')).to.equal('2026-11-24');
		expect(readTypedDate('Monday', '2026-11-24')).to.equal('2026-11-30');
		expect(readTypedDate('yesterday', '2026-11-24')).to.equal('2026-11-23');
		expect(readTypedDate('- 3', '2026-11-24')).to.equal('2026-11-21');
		expect(readTypedDate('+14', '2026-11-24')).to.equal('2026-12-08');
	});
});

describe('the tax year and its months', () => {
	it('end on the 5th, of April and of each month', () => {
		expect(['2026-04-05', '2026-04-06', '2026-12-31', '2027-01-01'].map(taxYearEnd)).to.deep.equal([
			'2026-04-05',
			'2027-04-05',
			'2027-04-05',
			'2027-04-05'
		]);
		expect(['2026-11-05', '2026-11-06', '2026-12-06'].map(taxMonthEnd)).to.deep.equal([
			'2026-11-05',
			'2026-12-05',
			'2027-01-05'
		]);
	});
});
