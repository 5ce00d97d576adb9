import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	displayDate,
	londonDate,
	londonMoment,
	londonTime,
	readTypedDate
} from '../../../src/lib/core/calendar/conversion';
import { statementDeadline } from '../../../src/lib/core/calendar/manipulation';
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
		['2026-11-10', '2026-11-24', '2026-11-24', 'invoiceInTime'],
		['2026-11-09', '2026-11-24', '2026-11-09', 'workFinished'],
		['2026-12-01', '2026-11-24', '2026-11-24', 'invoiceFirst']
	];
	for (const [finished, issued, date, basis] of cases) {
		it(`finished ${finished}, issued ${issued}: ${date}`, () => {
			const point = decideTaxPoint(finished, issued);
			expect([point.date, point.basis]).to.deep.equal([date, basis]);
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
