// Earned by money and by invoice, by hand and as a property; the periods of a report.
import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import {
	earnedByCash,
	earnedByInvoice,
	type EarnedInvoice
} from '../../../src/lib/core/reports/income';
import { boxRows } from '../../../src/lib/core/reports/boxes';
import {
	periodsOf,
	taxYearOf,
	vatPeriodsOf,
	type Stagger
} from '../../../src/lib/core/reports/periods';

const YEAR = { from: '2026-04-06', to: '2027-04-05' };
const invoice = (more: Partial<EarnedInvoice> = {}): EarnedInvoice => ({
	id: 1,
	issued: '2026-05-01',
	net: 100_00n,
	total: 120_00n,
	credits: [],
	entries: [],
	...more
});
const paid = (date: string, amount: bigint, withheld = 0n) => ({
	date,
	type: 'payment' as const,
	amount,
	withheld
});
const back = (date: string, amount: bigint) => ({
	date,
	type: 'refund' as const,
	amount,
	withheld: 0n
});
const rows = (earned: { date: string; amount: bigint }[]) =>
	earned.map(({ date, amount }) => `${date} ${amount}`);

describe('earned by the money that came in', () => {
	it('is its share without VAT, with what was withheld, on the day it came', () => {
		const one = invoice({ entries: [paid('2026-06-01', 60_00n), paid('2027-04-06', 60_00n)] });
		expect(rows(earnedByCash([one], YEAR))).to.deep.equal(['2026-06-01 5000']);
		// 100 net under the reverse charge, 20 withheld: 80 came, 100 are earned.
		const contractor = invoice({ total: 100_00n, entries: [paid('2026-06-01', 80_00n, 20_00n)] });
		expect(rows(earnedByCash([contractor], YEAR))).to.deep.equal(['2026-06-01 10000']);
	});

	it('counts nothing beyond the invoice, and takes back what was given back', () => {
		const over = invoice({ entries: [paid('2026-06-01', 150_00n), back('2026-06-02', 90_00n)] });
		expect(rows(earnedByCash([over], YEAR))).to.deep.equal([
			'2026-06-01 10000',
			'2026-06-02 -5000'
		]);
		const credited = invoice({
			credits: [{ id: 2, issued: '2026-06-05', net: 50_00n, total: 60_00n }],
			entries: [paid('2026-06-01', 120_00n), back('2026-06-09', 60_00n)]
		});
		// The credit makes half of it money in hand, and giving that back changes nothing more.
		expect(rows(earnedByCash([credited], YEAR))).to.deep.equal([
			'2026-06-01 10000',
			'2026-06-05 -5000'
		]);
	});

	it('adds up to the net of an invoice that is paid, however it is paid', () => {
		fc.assert(
			fc.property(
				fc.bigInt({ min: 1n, max: 1_000_000n }),
				fc.bigInt({ min: 0n, max: 200_000n }),
				fc.array(fc.bigInt({ min: 1n, max: 400_000n }), { maxLength: 8 }),
				(net, vat, parts) => {
					const total = net + vat;
					let left = total;
					const entries = parts.map((part, n) => {
						const amount = part < left ? part : left;
						left -= amount;
						return paid(`2026-06-${String(n + 1).padStart(2, '0')}`, amount);
					});
					entries.push(paid('2026-07-01', left));
					const earned = earnedByCash([invoice({ net, total, entries })], YEAR);
					return earned.reduce((sum, { amount }) => sum + amount, 0n) === net;
				}
			),
			{ seed: 11, numRuns: 200 }
		);
	});
});

describe('earned by invoice', () => {
	it('is each invoice and credit note on its day, within the period', () => {
		const one = invoice({ credits: [{ id: 2, issued: '2026-06-05', net: 30_00n, total: 36_00n }] });
		const before = invoice({ id: 3, issued: '2026-04-05' });
		expect(rows(earnedByInvoice([one, before], YEAR))).to.deep.equal([
			'2026-05-01 10000',
			'2026-06-05 -3000'
		]);
	});
});

describe('the periods of a report', () => {
	it('are the tax year from 6 April, cumulative to its quarters, the calendar’s, and months', () => {
		expect(taxYearOf('2026-04-05')).to.deep.equal({ from: '2025-04-06', to: '2026-04-05' });
		expect(taxYearOf('2026-04-06')).to.deep.equal({ from: '2026-04-06', to: '2027-04-05' });
		const of = (today: string) =>
			Object.fromEntries(periodsOf(today).map(({ key, from, to }) => [key, `${from} ${to}`]));
		expect(of('2026-11-27')).to.deep.equal({
			year: '2026-04-06 2027-04-05',
			quarter: '2026-04-06 2027-01-05',
			calendar: '2026-10-01 2026-12-31',
			lastCalendar: '2026-07-01 2026-09-30',
			month: '2026-11-01 2026-11-30',
			lastMonth: '2026-10-01 2026-10-31',
			lastYear: '2025-04-06 2026-04-05'
		});
		expect(
			['2026-07-05', '2026-07-06', '2026-10-05', '2027-01-06', '2027-04-05'].map(
				(day) => of(day).quarter
			)
		).to.deep.equal([
			'2026-04-06 2026-07-05',
			'2026-04-06 2026-10-05',
			'2026-04-06 2026-10-05',
			'2026-04-06 2027-04-05',
			'2026-04-06 2027-04-05'
		]);
	});
});

describe('the rows of the return', () => {
	it('stand in the order of their boxes, what card processors kept beside the bank’s own', () => {
		const costs = [
			{ category: 'professional', amount: 450_00n },
			{ category: 'charges', amount: 12_00n },
			{ category: 'goods', amount: 99n }
		] as const;
		expect(boxRows(costs, 1_50n).map(({ name, amount }) => [name, amount])).to.deep.equal([
			['17 Goods and materials', 99n],
			['26 Bank and card charges', 12_00n],
			['26 Kept by card processors', 1_50n],
			['28 Accountant and other fees', 450_00n]
		]);
		expect(boxRows([], 0n)).to.deep.equal([]);
	});
});

describe('VAT periods', () => {
	const of = (today: string, stagger: Stagger) =>
		vatPeriodsOf(today, stagger).map(({ from, to }) => `${from} ${to}`);
	it('are three months by their stagger, each side of their ends', () => {
		expect(of('2026-11-24', 'march')).to.deep.equal([
			'2026-10-01 2026-12-31',
			'2026-07-01 2026-09-30',
			'2026-04-01 2026-06-30',
			'2025-10-01 2025-12-31'
		]);
		expect(of('2026-11-24', 'april')[0]).to.equal('2026-11-01 2027-01-31');
		expect(of('2026-10-31', 'april')[0]).to.equal('2026-08-01 2026-10-31');
		expect(of('2026-11-24', 'may')[0]).to.equal('2026-09-01 2026-11-30');
		expect(of('2026-12-01', 'may')[0]).to.equal('2026-12-01 2027-02-28');
		expect(of('2027-01-31', 'april')[0]).to.equal('2026-11-01 2027-01-31');
		expect(of('2028-02-29', 'may')[0]).to.equal('2027-12-01 2028-02-29');
	});
	it('are months where it is so, and calendar quarters where nothing is known', () => {
		expect(of('2026-01-15', 'monthly')).to.deep.equal([
			'2026-01-01 2026-01-31',
			'2025-12-01 2025-12-31',
			'2025-11-01 2025-11-30',
			'2025-01-01 2025-01-31'
		]);
		expect(of('2026-11-24', '')).to.deep.equal(of('2026-11-24', 'march'));
	});
});
