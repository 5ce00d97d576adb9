// What a file of open invoices, deposits or repeats says, row by row; expected sums are worked out by hand.
// Over 300 lines: one refusal after the other, of each kind of file.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { DEPOSIT_COLUMNS, readHeldMoney } from '../../../../src/lib/core/moving/deposits';
import { readOpeningInvoices } from '../../../../src/lib/core/moving/invoices';
import { INVOICE_COLUMNS } from '../../../../src/lib/core/moving/columns';
import { openingSheet } from '../../../../src/lib/core/moving/sheet';
import { readEvery, REPEAT_COLUMNS, readRepeats } from '../../../../src/lib/core/moving/repeats';
import {
	readDay,
	readSum,
	readYes,
	RowError,
	within
} from '../../../../src/lib/core/moving/reading';
import { readFields, TableError } from '../../../../src/lib/core/formats/table';

const TODAY = '2026-11-24';
const bytes = (text: string) => new TextEncoder().encode(text);

function read(text: string, registered = true) {
	const { rows } = readFields(bytes(text), INVOICE_COLUMNS);
	return readOpeningInvoices(rows, TODAY, () => registered);
}
const HEAD = 'Number,Customer,Issued';
const one = (more: string, cells: string, registered = true) =>
	read(`${HEAD},${more}\nA-1,Corvane Dairy,3 Oct 2026,${cells}`, registered)[0]!;

describe('an open invoice out of a file', () => {
	it('has net, VAT and total from whichever two are there', () => {
		const sums = (more: string, cells: string) => {
			const { invoice } = one(more, cells);
			return invoice && [invoice.groups[0]!.treatment, invoice.net, invoice.vat, invoice.total];
		};
		const whole = ['standard', 1000_00n, 200_00n, 1200_00n];
		expect(sums('Net,VAT,Total', '"1,000.00",200.00,£1200.00')).to.deep.equal(whole);
		expect(sums('Net,VAT', '1000,200')).to.deep.equal(whole);
		expect(sums('VAT,Total', '200,1200')).to.deep.equal(whole);
		expect(sums('Net,Total', '1000,1200')).to.deep.equal(whole);
		expect(sums('Net,VAT rate', '1000,20%')).to.deep.equal(whole);
		expect(sums('Total,VAT rate', '1200,20')).to.deep.equal(whole);
		expect(sums('Total,VAT rate', '1050,reduced')).to.deep.equal([
			'reduced',
			1000_00n,
			50_00n,
			1050_00n
		]);
		expect(sums('Net,VAT', '1000,50')).to.deep.equal(['reduced', 1000_00n, 50_00n, 1050_00n]);
		expect(sums('Net,VAT', '1000,0')).to.deep.equal(['zero', 1000_00n, 0n, 1000_00n]);
		expect(sums('Net,VAT rate', '1000,exempt')).to.deep.equal(['exempt', 1000_00n, 0n, 1000_00n]);
	});

	it('keeps the VAT that other books rounded otherwise, and refuses VAT at no rate', () => {
		const near = one('Net,VAT', '1000.03,200.03').invoice!;
		expect(near.vat).to.equal(200_03n);
		const sheet = openingSheet(near, {
			customerId: 1,
			contractor: false,
			cisRate: null,
			jobId: null
		});
		expect(sheet.opening!.vat).to.deep.equal({ standard: '200.03' });
		expect(one('Net,VAT,VAT rate', '1000,202,20').why).to.equal(
			'VAT at 20 % on £1,000.00 is £200.00, not £202.00.'
		);
		expect(one('Net,VAT', '1000,120').why).to.include('at no rate that was in force');
	});

	it('has rows of one number as one, a rate each, and says where they differ', () => {
		const [both] = read(
			`${HEAD},Net,VAT rate,Paid\nA-1,Corvane,3 Oct 2026,1000,20,100\na-1,Corvane,3 Oct 2026,500,5,`
		);
		expect(both!.invoice).to.deep.include({
			net: 1500_00n,
			vat: 225_00n,
			paid: 100_00n,
			lines: [2, 3]
		});
		const [apart] = read(
			`${HEAD},Net,VAT rate\nA-1,Corvane,3 Oct 2026,1000,20\nA-1,Corvane,4 Oct 2026,500,5`
		);
		expect(apart!.why).to.equal('Its rows differ in “Issued”: 3 Oct 2026 and 4 Oct 2026.');
	});

	it('is open by what was paid, or paid by what is open', () => {
		expect(one('Total,VAT rate,Still open', '1200,20,800').invoice!.paid).to.equal(400_00n);
		expect(one('Total,VAT rate,Paid', '1200,20,400').invoice!.paid).to.equal(400_00n);
		expect(one('Total,VAT rate,Paid,Still open', '1200,20,400,700').why).to.equal(
			'What was paid leaves £800.00 open, not £700.00.'
		);
		expect(one('Total,VAT rate,Paid', '1200,20,1200').why).to.include('It is paid.');
		expect(one('Total,VAT rate,Paid', '1200,20,1200.01').why).to.include('More was paid');
		expect(one('Total,VAT rate,Still open', '1200,20,1200.01').why).to.include('More is open');
	});

	it('expects a deduction, and is paid once what is left of it came', () => {
		const sums = 'Net,VAT rate,Reverse charge,Expected deduction,Paid';
		expect(one(sums, '1000,20,yes,200,799.99').invoice).to.deep.include({
			net: 1000_00n,
			vat: 0n,
			total: 1000_00n,
			deduction: 200_00n
		});
		expect(one(sums, '1000,20,yes,200,800').why).to.include('It is paid.');
		expect(one(sums, '1000,20,yes,1000.01,0').why).to.include('More would be deducted');
	});

	it('is refused with its reason: no number, no customer, days that cannot be, sums below zero', () => {
		const why = (text: string) => read(text)[0]!.why;
		const row = (cells: string) => why(`${HEAD},Due,Net,VAT rate\n${cells}`);
		expect(row(',Corvane,3 Oct 2026,,10,20')).to.equal('It has no number.');
		expect(row('A-1,,3 Oct 2026,,10,20')).to.equal('It names no customer.');
		expect(row('A-1,Corvane,,,10,20')).to.equal('It does not say when it was issued.');
		expect(row('A-1,Corvane,31/2/2026,,10,20')).to.include('is no day');
		expect(row('A-1,Corvane,25 Nov 2026,,10,20')).to.include('in the future');
		expect(row('A-1,Corvane,3 Oct 2026,2 Oct 2026,10,20')).to.include('due before it was issued');
		expect(row('A-1,Corvane,3 Oct 2026,,-10,20')).to.include('below zero');
		expect(row('A-1,Corvane,3 Oct 2026,,0,20')).to.equal('It comes to nothing.');
		expect(row('A-1,Corvane,3 Oct 2026,,10,')).to.include('does not say its VAT');
		expect(row('A-1,Corvane,3 Oct 2026,,ten,20')).to.include('is no sum');
		expect(one('Net,VAT', '10,2', false).why).to.include('you were not registered on 3 Oct 2026');
		expect(one('Net,Currency', '10,JPN').why).to.include('no currency');
	});

	it('needs its columns, and names the one that is missing', () => {
		expect(() => read('Number,Customer\nA,B')).to.throw(TableError, '“issued”');
	});
});

describe('the sheet of an opening invoice', () => {
	const parties = { customerId: 1, contractor: true, cisRate: '20', jobId: 7 };

	it('has materials behind its deduction, whatever is held back', () => {
		// 1,000 net, 80 to be deducted at 20 %: 400 is labour, 600 materials.
		const { invoice } = one('Net,VAT rate,Expected deduction', '1000,20,80');
		const sheet = openingSheet(invoice!, parties);
		expect(
			sheet.rows.map((row) => row.type === 'line' && [row.unitPrice, row.cost, row.jobId])
		).to.deep.equal([['1000.00', '600.00', 7]]);
		// 950 was due of 1,000 with 5 % held back; of a cost of 600 then 570 counts, and 20 % of 380 are 76.
		const held = one('Net,VAT rate,Expected deduction,Retention', '950,20,76,50').invoice!;
		const own = openingSheet(held, parties);
		expect([own.retention, own.rows[0]!.type === 'line' && own.rows[0]!.cost]).to.deep.equal([
			'5',
			'600.00'
		]);
	});

	it('refuses a deduction that no rate of the contractor makes', () => {
		const { invoice } = one('Net,VAT rate,Expected deduction', '1000,20,201');
		expect(() => openingSheet(invoice!, parties)).to.throw('At 20 % at most £200.00 is deducted');
		expect(() => openingSheet(invoice!, { ...parties, cisRate: null })).to.throw('deducts nothing');
	});
});

describe('money held, out of a file', () => {
	const held = (more: string, cells: string, registered = true) => {
		const { rows } = readFields(
			bytes(`Customer,Amount,Date,${more}\nVarden,300,3 Oct 2026,${cells}`),
			DEPOSIT_COLUMNS
		);
		return readHeldMoney(rows, TODAY, () => registered)[0]!;
	};
	it('is in hand without an invoice, and its deposit invoice with one', () => {
		expect(held('For', 'Kitchen').held).to.deep.include({
			amount: 300_00n,
			invoice: null,
			reference: 'Kitchen'
		});
		const { invoice } = held('Deposit invoice,VAT rate', 'DEP-4,20').held!;
		expect(invoice).to.deep.include({
			number: 'DEP-4',
			net: 250_00n,
			vat: 50_00n,
			paid: 300_00n,
			deposit: true
		});
	});
	it('asks for the invoice in whose return its VAT stands', () => {
		expect(held('VAT returned', 'yes').why).to.include('give the number of the deposit invoice');
		expect(held('VAT returned', 'yes', false).held?.amount).to.equal(300_00n);
		expect(held('VAT returned', 'maybe').why).to.include('yes or no');
	});
});

describe('a repeat out of a file', () => {
	const repeat = (cells: string) => {
		const { rows } = readFields(
			bytes(`Customer,Name,Price,Every,Next,Ends\n${cells}`),
			REPEAT_COLUMNS
		);
		return readRepeats(rows, TODAY)[0]!;
	};
	it('begins at its next day, not before today', () => {
		expect(repeat('Varden,Boiler care,12.50,monthly,1 Dec 2026,').repeat).to.deep.include({
			every: 1,
			unit: 'month',
			next: '2026-12-01',
			treatment: 'standard',
			price: '12.50'
		});
		expect(repeat('Varden,Boiler care,12.50,monthly,24 Nov 2026,').repeat?.next).to.equal(TODAY);
		expect(repeat('Varden,Boiler care,12.50,monthly,23 Nov 2026,').why).to.include('has passed');
		expect(repeat('Varden,Boiler care,12.50,monthly,1 Dec 2026,30 Nov 2026').why).to.include(
			'end before'
		);
		expect(repeat('Varden,Boiler care,a lot,monthly,1 Dec 2026,').why).to.include('no price');
	});
	it('says how often in many ways, and nothing else', () => {
		const ways: [string, number, string][] = [
			['Weekly', 1, 'week'],
			['every 2 weeks', 2, 'week'],
			['fortnightly', 2, 'week'],
			['quarterly', 3, 'month'],
			['2 quarters', 6, 'month'],
			['3 months', 3, 'month'],
			['Year', 1, 'year']
		];
		for (const [words, every, unit] of ways)
			expect(readEvery(words), words).to.deep.equal({ every, unit });
		for (const words of ['', 'now and then', '0 months', 'every moon', 'constructor'])
			expect(() => readEvery(words), words).to.throw('how often');
	});
});

describe('a cell', () => {
	it('is a sum, nothing, or refused by its name', () => {
		expect(['', '-', '–', '0', '1,234.5', '£7'].map((cell) => readSum(cell, 'Net'))).to.deep.equal([
			null,
			null,
			null,
			0n,
			1234_50n,
			7_00n
		]);
		expect(() => readSum('-1', 'Net')).to.throw(
			RowError,
			'Net is below zero. A credit is brought in'
		);
		expect(() => readSum('ten', 'Net')).to.throw(RowError, 'Net: “ten” is no sum.');
		expect(() => readSum('x'.repeat(41), 'Net')).to.throw(RowError, `“${'x'.repeat(40)}”`);
	});
	it('is a day, with a time behind it or not', () => {
		for (const cell of ['3 Nov 2026', '2026-11-03', '3/11/2026 14:05', '2026-11-03T14:05:06.123Z'])
			expect(readDay(cell, 'Due', TODAY), cell).to.equal('2026-11-03');
		expect(readDay('', 'Due', TODAY)).to.equal(null);
		expect(() => readDay('soon', 'Due', TODAY)).to.throw(
			'Due: “soon” is no day. Write it as 3 Nov 2026.'
		);
	});
	it('is yes, no, nothing, or refused', () => {
		for (const cell of ['yes', 'Y', 'TRUE', '1', 'x'])
			expect(readYes(cell, 'R'), cell).to.equal(true);
		for (const cell of ['no', 'N', 'False', '0']) expect(readYes(cell, 'R'), cell).to.equal(false);
		expect(readYes('', 'R')).to.equal(null);
		expect(() => readYes('perhaps', 'Returned')).to.throw('Returned is yes or no, not “perhaps”.');
	});
	it('has room for so much and no more', () => {
		expect(within('abc', 'It', 3)).to.equal('abc');
		expect(() => within('abcd', 'It', 3)).to.throw('It is longer than 3 characters.');
	});
});

describe('what does not fit together in an open invoice', () => {
	const why = (more: string, cells: string) => one(more, cells).why;
	it('is said by its own words', () => {
		const sums = 'Net,VAT rate,Reverse charge,Expected deduction,Withheld,Paid';
		expect(why(sums, '1000,20,yes,200,200.01,0')).to.equal(
			'More was withheld than is expected to be deducted.'
		);
		expect(why(sums, '1000,20,yes,,0.01,0')).to.equal(
			'More was withheld than is expected to be deducted.'
		);
		expect(why(sums, '1000,20,yes,200,-1,0')).to.include('Withheld is below zero');
		expect(one(sums, '1000,20,yes,200,50,700').invoice).to.deep.include({
			withheld: 50_00n,
			paid: 700_00n
		});
		expect(why(sums, '1000,20,yes,200,50,950.01')).to.include('More was paid than it comes to');
		expect(why(sums, '1000,20,yes,200,50,950')).to.include('It is paid.');
		expect(why('Net,VAT rate,Currency,Retention', '1000,20,EUR,50')).to.equal(
			'What is held back or deducted is in pounds alone.'
		);
		expect(why('Net,VAT rate,Currency,Expected deduction', '1000,20,EUR,50')).to.equal(
			'What is held back or deducted is in pounds alone.'
		);
		expect(one('Net,VAT rate,Currency,Exchange rate', '1000,20,€,0.85').invoice).to.deep.include({
			currency: 'EUR',
			exchange: '0.85'
		});
		expect(why('Net,VAT rate,Currency,Exchange rate', '1000,20,EUR,0')).to.include(
			'Exchange rate: A rate above zero'
		);
		expect(why('Net,VAT,Total', '1000,200,1201')).to.equal(
			'Net and VAT come to £1,200.00, and the total says £1,201.00.'
		);
		expect(why('Net,VAT,VAT rate', '1000,1,zero')).to.equal(
			'VAT at 0 % on £1,000.00 is £0.00, not £1.00.'
		);
		expect(why('Net,VAT,VAT rate', '1000,1,exempt')).to.equal(
			'VAT on £1,000.00 is £0.00, not £1.00.'
		);
		expect(why('Net,VAT rate', '1000,17.5')).to.equal('“17.5” is no rate of VAT on 3 Oct 2026.');
		expect(why('Tax point,Net,VAT rate', '25 Nov 2026,1000,20')).to.equal(
			'Its tax point would be in the future.'
		);
		expect(why('Paid on,Net,VAT rate', '25 Nov 2026,1000,20')).to.equal(
			'It would have been paid in the future.'
		);
	});
	it('is a penny more, not a penny less', () => {
		// Other books may round by line: up to a pound.
		expect(why('Net,VAT,VAT rate', '1000,201,20')).to.equal('');
		expect(why('Net,VAT,VAT rate', '1000,201.01,20')).to.include('not £201.01');
		expect(why('Net,VAT,VAT rate', '1000,199,20')).to.equal('');
		expect(why('Net,VAT,VAT rate', '1000,198.99,20')).to.include('not £198.99');
		expect(why('Net,Retention,VAT rate,Paid', '1000,50,20,1200')).to.equal('');
	});
	it('is none where nothing but what is held back is open', () =>
		expect(one('Net,Retention,VAT rate,Paid', '1000,50,20,1200').invoice).to.deep.include({
			retention: 50_00n,
			paid: 1200_00n
		}));
});

describe('the sheet of an opening invoice', () => {
	it('has a line for each rate, in order, what is held back shared over them', () => {
		const { invoice } = read(
			`${HEAD},Net,VAT rate,Retention,Description\nA-1,Corvane,3 Oct 2026,950,20,75,\nA-1,Corvane,3 Oct 2026,475,5,,`
		)[0]!;
		const sheet = openingSheet(invoice!, {
			customerId: 1,
			contractor: false,
			cisRate: null,
			jobId: null
		});
		expect(sheet).to.deep.include({ retention: '5', contract: null, issueDate: '2026-10-03' });
		expect(
			sheet.rows.map(
				(row) => row.type === 'line' && [row.id, row.unitPrice, row.vat, row.description, row.cost]
			)
		).to.deep.equal([
			['r1', '1000.00', 'standard', 'As invoiced on 3 Oct 2026', ''],
			['r2', '500.00', 'reduced', 'As invoiced on 3 Oct 2026', '']
		]);
		expect(sheet.opening).to.deep.equal({ number: 'A-1', taxPoint: '2026-10-03', returned: false });
	});
	it('in other money has its rate, and holds nothing back where nothing is held', () => {
		const { invoice } = one('Net,VAT rate,Currency,Exchange rate', '1000,20,EUR,0.85');
		const sheet = openingSheet(invoice!, {
			customerId: 1,
			contractor: false,
			cisRate: null,
			jobId: null
		});
		expect(sheet.exchange).to.deep.equal({
			rate: '0.85',
			source: 'as brought in from other books'
		});
		expect([sheet.currency, sheet.retention, sheet.retentionDue]).to.deep.equal([
			'EUR',
			'',
			undefined
		]);
	});
});

describe('money held that cannot be', () => {
	const why = (cells: string) => {
		const { rows } = readFields(
			bytes(`Customer,Amount,Date,Deposit invoice,VAT rate,Reference\n${cells}`),
			DEPOSIT_COLUMNS
		);
		const [read] = readHeldMoney(rows, TODAY, () => true);
		return [read!.name, read!.why];
	};
	it('says why, by its customer or its line', () => {
		expect(why(',300,3 Oct 2026,,,')).to.deep.equal(['line 2', 'It names no customer.']);
		expect(why('Varden,,3 Oct 2026,,,')).to.deep.equal(['Varden', 'It has no amount.']);
		expect(why('Varden,0,3 Oct 2026,,,')).to.deep.equal(['Varden', 'It has no amount.']);
		expect(why('Varden,300,,,,')).to.deep.equal(['Varden', 'It does not say when the money came.']);
		expect(why('Varden,300,25 Nov 2026,,,')).to.deep.equal([
			'Varden',
			'It would have come in the future.'
		]);
		expect(why('Varden,300,24 Nov 2026,,,')).to.deep.equal(['Varden', '']);
		expect(why('Varden,300,3 Oct 2026,D-1,,')).to.deep.equal([
			'Varden',
			'It does not say its VAT, nor the rate.'
		]);
		expect(why(`Varden,300,3 Oct 2026,,,${'x'.repeat(201)}`)).to.deep.equal([
			'Varden',
			'Its reference is longer than 200 characters.'
		]);
		expect(why(`${'x'.repeat(301)},300,3 Oct 2026,,,`)[1]).to.equal(
			'The customer’s name is longer than 300 characters.'
		);
	});
});
