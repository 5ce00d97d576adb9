// The law and our own rules at the very edge of each threshold: the last case on one side, the first on the other.
// Over 300 lines: one pair of cases for each threshold there is.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { RecordedMatcher, together } from '../../../src/lib/core/bank/recorded';
import type { ToMatch } from '../../../src/lib/core/bank/types';
import { readTypedDate } from '../../../src/lib/core/calendar/conversion';
import { readTypedTime } from '../../../src/lib/core/calendar/times';
import { decideChasing } from '../../../src/lib/core/chasing/decide';
import type { ChasePayer, ChaseStep } from '../../../src/lib/core/chasing/types';
import { computeInvoice } from '../../../src/lib/core/figures/invoice';
import { readInvoiceInput } from '../../../src/lib/core/figures/input';
import { writeInvoiceFigures } from '../../../src/lib/core/figures/output';
import { pageOf, readCursor } from '../../../src/lib/core/paging';
import { GB } from '../../../src/lib/core/regimes/gb';
import { decideTaxPoint } from '../../../src/lib/core/regimes/gb/taxPoint';
import { leftToDeduct, stillToPay } from '../../../src/lib/core/settlement/position';
import { settle } from '../../../src/lib/core/settlement/settle';
import { blankLine, blankSheet } from '../../../src/lib/core/sheet/blank';
import { readSheet } from '../../../src/lib/core/sheet/read';
import type { Sheet } from '../../../src/lib/core/sheet/types';
import { counted, withinSentence } from '../../../src/lib/core/words';
import { customerOf, SELLER } from '../../support/sheets';

const figures = (input: object) =>
	writeInvoiceFigures(
		computeInvoice(
			readInvoiceInput({
				regime: 'GB',
				date: '2026-11-02',
				currency: 'GBP',
				seller: { vatRegistered: true },
				customer: { kind: 'business' },
				...input
			}),
			GB
		)
	);
const REVERSED = {
	customer: { kind: 'contractor', vatRegistered: true, cisRegistered: true },
	cisRate: '20'
};
const line = (unitPrice: string, more: object = {}) => ({
	kind: 'labour',
	quantity: '1',
	unitPrice,
	vat: 'standard',
	...more
});

describe('figures at the edge', () => {
	it('the reverse charge covers the reduced rate as well, and nothing else', () => {
		const { vat, vatCharged, vatReverseCharged } = figures({
			...REVERSED,
			lines: [line('100'), line('100', { vat: 'reduced' }), line('100', { vat: 'zero' })]
		});
		expect(vat.map((group) => [group.treatment, group.reverseCharge, group.vat])).to.deep.equal([
			['standard', true, '20.00'],
			['reduced', true, '5.00'],
			['zero', false, '0.00']
		]);
		expect([vatCharged, vatReverseCharged]).to.deep.equal(['0.00', '25.00']);
	});

	it('the cost on a line with a negative quantity counts negatively', () => {
		const { cis } = figures({
			...REVERSED,
			lines: [
				line('1000', { cost: '300' }),
				line('200', { kind: 'materials', quantity: '-1', cost: '50' })
			]
		});
		// 800 gross, 300 less 50 of materials: 550 liable, 20 % of it.
		expect(cis).to.include({
			gross: '800.00',
			materials: '250.00',
			base: '550.00',
			deduction: '110.00'
		});
	});

	it('a discount of the whole line leaves nothing, one of a penny more is refused', () => {
		const whole = figures({
			lines: [line('100', { discount: { percent: '100' } }), line('1')]
		});
		expect(whole.lines[0]).to.include({ lineDiscount: '100.00', net: '0.00', taxable: '0.00' });
		expect(
			figures({ lines: [line('100', { discount: { amount: '100' } }), line('1')] }).net
		).to.equal('1.00');
		expect(() => figures({ lines: [line('100', { discount: { amount: '100.01' } })] })).to.throw();
		expect(() =>
			figures({ lines: [line('100', { discount: { percent: '100.0001' } })] })
		).to.throw();
	});

	it('the standard rate changed on 4 January 2011', () => {
		const rateOn = (date: string) => figures({ date, lines: [line('100')] }).vat[0]!.rate;
		expect([rateOn('2011-01-03'), rateOn('2011-01-04')]).to.deep.equal(['17.5', '20']);
	});

	it('the reverse charge began on 1 March 2021', () => {
		const reversed = (date: string) =>
			figures({ ...REVERSED, date, lines: [line('100')] }).vat[0]!.reverseCharge;
		expect([reversed('2021-02-28'), reversed('2021-03-01')]).to.deep.equal([false, true]);
	});

	it('the 14th day after the work still moves the tax point, the 15th does not', () => {
		const on = (issued: string) =>
			decideTaxPoint({ rule: 'work', workFinished: '2026-11-02', issued }, () => true).date;
		expect(on('2026-11-16')).to.equal('2026-11-16');
		expect(on('2026-11-17')).to.equal('2026-11-02');
		expect(on('2026-11-01')).to.equal('2026-11-01');
	});
});

describe('settlement at the edge', () => {
	const pay = (amount: bigint, withheld: bigint | null = null) => ({
		date: '2026-11-20',
		type: 'payment' as const,
		amount,
		withheld,
		deduction: null
	});

	it('never withholds below zero, however much was stated before', () => {
		const { entries, withheld } = settle({
			total: 1000_00n,
			deduction: 200_00n,
			entries: [pay(100_00n, 150_00n), pay(100_00n)]
		});
		// 200 of cash earns 50: 150 is withheld already, so nothing more and nothing back.
		expect(entries.map((one) => one.withheld)).to.deep.equal([150_00n, 0n]);
		expect(withheld).to.equal(150_00n);
	});

	it('a credit of the whole leaves nothing to withhold', () => {
		const { outstanding, overpaid, withheld } = settle({
			total: 1000_00n,
			deduction: 200_00n,
			entries: [
				{ ...pay(1000_00n), type: 'credit', deduction: 200_00n },
				{ ...pay(1n), date: '2026-11-21' }
			]
		});
		expect([outstanding, overpaid, withheld]).to.deep.equal([0n, 1n, 0n]);
	});

	it('what is still to pay is what is outstanding less what may be deducted, never below zero', () => {
		const position = { outstanding: 120_00n, deduction: 20_00n, withheld: 5_00n };
		expect([leftToDeduct(position), stillToPay(position)]).to.deep.equal([15_00n, 105_00n]);
		expect(stillToPay({ ...position, outstanding: 10_00n })).to.equal(0n);
		expect(leftToDeduct({ deduction: 20_00n, withheld: 25_00n })).to.equal(0n);
		expect(stillToPay({ outstanding: 120_00n, deduction: null, withheld: 0n })).to.equal(120_00n);
	});
});

const household = (address: string) => customerOf('household', {}, { name: 'Odile', address });

describe('what the law asks of a sheet', () => {
	const problems = (unitPrice: string, more: Partial<Sheet> = {}, address = '') =>
		readSheet(
			{
				...blankSheet(),
				customerId: 1,
				pricesIncludeVat: true,
				rows: [{ ...blankLine('a'), description: 'Patch', quantity: '1', unitPrice }],
				...more
			},
			{ seller: SELLER, customer: household(address), today: '2026-11-24' }
		).problems.map((one) => one.path);

	it('an address above £250 with VAT, and none at £250 exactly', () => {
		expect(problems('250.00')).to.not.include('customer.address');
		expect(problems('250.01')).to.include('customer.address');
		expect(problems('250.01', {}, 'Lantern House')).to.not.include('customer.address');
	});

	it('an invoice may be dated today, not tomorrow', () => {
		expect(problems('1', { issueDate: '2026-11-24' })).to.not.include('issueDate');
		expect(problems('1', { issueDate: '2026-11-25' })).to.include('issueDate');
	});

	it('something to pay: a penny will do', () => {
		expect(problems('0.01')).to.not.include('total');
		expect(problems('0.00')).to.include('total');
	});
});

describe('chasing at the edge', () => {
	const step: ChaseStep = {
		id: 's',
		offset: 3,
		channel: 'mail',
		tone: 'plain',
		subject: '',
		text: '',
		byHand: false
	};
	const HOUR = 3_600_000;
	const now = Date.UTC(2026, 10, 24, 9);
	const due = (more: Partial<ChasePayer>) => {
		const payer: ChasePayer = {
			payerId: 1,
			plan: { id: 1, steps: [step] },
			onHold: false,
			lastPaidAt: null,
			lastMessageOn: null,
			items: [
				{
					documentId: 1,
					payerId: 1,
					dueDate: '2026-11-09',
					toPay: 1n,
					sent: true,
					hold: null,
					paymentPending: false,
					bankLineWaiting: false,
					done: new Set(),
					reached: null
				}
			],
			...more
		};
		const settings = { hours: { from: 540, to: 1020 }, quietHours: 24, gapDays: 3 };
		return decideChasing([payer], '2026-11-24', now, settings).messages.length;
	};

	it('a payment keeps quiet for 24 hours, not a moment longer', () => {
		expect(due({ lastPaidAt: now - 24 * HOUR + 1 })).to.equal(0);
		expect(due({ lastPaidAt: now - 24 * HOUR })).to.equal(1);
	});

	it('messages keep a distance of three days', () => {
		expect(due({ lastMessageOn: '2026-11-22' })).to.equal(0);
		expect(due({ lastMessageOn: '2026-11-21' })).to.equal(1);
	});
});

describe('bank lines at the edge', () => {
	const toMatch = (text: string, date: string): ToMatch => ({
		id: 1,
		date,
		amount: 120_00n,
		text,
		payer: ''
	});
	const recorded = new RecordedMatcher([
		{
			kind: 'payment',
			id: 7,
			payerId: 3,
			payer: 'Corvane Dairy Ltd',
			date: '2026-11-20',
			amount: 120_00n,
			marks: ['INV-0007']
		}
	]);

	it('a payment recorded seven days apart may be this one, eight days apart is another', () => {
		expect(recorded.propose(toMatch('INV-0007', '2026-11-27'))).to.have.length(1);
		expect(recorded.propose(toMatch('INV-0007', '2026-11-28'))).to.have.length(0);
	});

	it('a score of 80 is sure where nothing else comes near, one of 79 is not', () => {
		const [one] = recorded.propose(toMatch('INV-0007', '2026-11-20'));
		const sure = (score: number) =>
			together([], [{ ...one!, score }]).map((proposal) => proposal.sure);
		expect([sure(80), sure(79)]).to.deep.equal([[true], [false]]);
	});
});

describe('a day as it is typed', () => {
	// A Tuesday.
	const today = '2026-11-24';
	for (const [typed, day] of [
		['3/11', '2026-11-03'],
		['3 nov', '2026-11-03'],
		['03.11.2026', '2026-11-03'],
		['3 November 26', '2026-11-03'],
		['2026-11-03', '2026-11-03'],
		['31/1', '2027-01-31'],
		['1 jun', '2026-06-01'],
		['+14', '2026-12-08'],
		['-1', '2026-11-23'],
		['today', '2026-11-24'],
		['tomorrow', '2026-11-25'],
		['yesterday', '2026-11-23'],
		['fri', '2026-11-27'],
		['Tuesday', '2026-11-24'],
		['mon', '2026-11-30'],
		['29/2', '2028-02-29'],
		['31/2', null],
		['11/24/2026', null],
		['soon', null],
		['', null]
	] as const)
		it(`${typed || '(nothing)'} is ${day ?? 'none'}`, () => {
			if (typed === '29/2') expect(readTypedDate(typed, '2027-12-01')).to.equal(day);
			else expect(readTypedDate(typed, today)).to.equal(day);
		});
});

describe('a time as it is typed', () => {
	for (const [typed, time] of [
		['9', '09:00'],
		['9:30', '09:30'],
		['9.30', '09:30'],
		['0930', '09:30'],
		['930', '09:30'],
		['2pm', '14:00'],
		['12 am', '00:00'],
		['12pm', '12:00'],
		['23:59', '23:59'],
		['', ''],
		['24:00', null],
		['9:60', null],
		['13pm', null],
		['noon', null]
	] as const)
		it(`${typed || '(nothing)'} is ${time ?? 'none'}`, () =>
			expect(readTypedTime(typed)).to.equal(time));
});

describe('paging by key', () => {
	const rows = [9, 8, 7, 6, 5, 4, 3, 2, 1].map((id) => ({ id, key: `k${id}` }));
	/** The list as the database would read it from a place on, one row more than a page. */
	const read = (address: string) => {
		const cursor = readCursor(new URLSearchParams(address));
		const from =
			cursor === null
				? rows
				: cursor.way === 'after'
					? rows.filter((row) => row.id < cursor.id)
					: rows.filter((row) => row.id > cursor.id).reverse();
		return pageOf(from.slice(0, 4), 3, cursor, (row) => row);
	};

	it('walks to the end and back, and says where there is nothing beyond', () => {
		const ids = (page: ReturnType<typeof read>) => page.rows.map((row) => row.id);
		const first = read('');
		expect([ids(first), first.before, first.after]).to.deep.equal([[9, 8, 7], null, 'k7_7']);
		const second = read(`after=${first.after}`);
		expect([ids(second), second.before, second.after]).to.deep.equal([[6, 5, 4], 'k6_6', 'k4_4']);
		const last = read(`after=${second.after}`);
		expect([ids(last), last.before, last.after]).to.deep.equal([[3, 2, 1], 'k3_3', null]);
		const back = read(`before=${second.before}`);
		expect([ids(back), back.before, back.after]).to.deep.equal([[9, 8, 7], null, 'k7_7']);
	});

	it('takes what is no place for the beginning', () => {
		for (const address of ['after=', 'after=17', 'before=x_y', 'after=a_-1', 'page=3'])
			expect(readCursor(new URLSearchParams(address)), address).to.equal(null);
	});
});

describe('words', () => {
	it('count one and many, and lose their capital within a sentence unless they are a name', () => {
		expect([counted(1, 'day'), counted(1204, 'day'), counted(2, 'entry', 'entries')]).to.deep.equal(
			['1 day', '1,204 days', '2 entries']
		);
		expect(['Plant hire', 'CITB levy', '0 %'].map(withinSentence)).to.deep.equal([
			'plant hire',
			'CITB levy',
			'0 %'
		]);
	});
});
