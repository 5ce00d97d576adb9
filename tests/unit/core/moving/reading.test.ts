// What a file of open invoices, deposits or repeats says, row by row; expected sums are worked out by hand.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { DEPOSIT_COLUMNS, readHeldMoney } from '../../../../src/lib/core/moving/deposits';
import { INVOICE_COLUMNS, readOpeningInvoices } from '../../../../src/lib/core/moving/invoices';
import { openingSheet } from '../../../../src/lib/core/moving/sheet';
import { readEvery, REPEAT_COLUMNS, readRepeats } from '../../../../src/lib/core/moving/repeats';
import { readFields, TableError } from '../../../../src/lib/core/formats/table';
import { runningOf } from '../../../../src/lib/core/documents/numbers';

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
		for (const words of ['', 'now and then', '0 months', 'every moon'])
			expect(() => readEvery(words), words).to.throw('how often');
	});
});

it('the running number in a number of a pattern, and none in one of another', () => {
	expect(runningOf('INV-{nnnn}', 'INV-0042')).to.equal(42);
	expect(runningOf('INV-{nnnn}', 'inv-10042')).to.equal(10042);
	expect(runningOf('{year}/{n}', '2026/7')).to.equal(7);
	expect(runningOf('INV-{nnnn}', 'INV-42a')).to.equal(null);
	expect(runningOf('A.{n}', 'Ab7')).to.equal(null);
});
