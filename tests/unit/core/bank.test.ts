import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { Matcher } from '../../../src/lib/core/bank/match';
import { learnedName } from '../../../src/lib/core/bank/names';
import { findSubset } from '../../../src/lib/core/bank/subset';
import type { OpenInvoice } from '../../../src/lib/core/bank/types';
import { readBankFile } from '../../../src/lib/core/formats/bank/file';
import { readAmount, readDate } from '../../../src/lib/core/formats/bank/line';
import { TableError } from '../../../src/lib/core/formats/table';

const bytes = (text: string) => new TextEncoder().encode(text);
const simple = (text: string) =>
	readBankFile(bytes(text)).lines.map(({ date, amount, text: words, payer }) => [
		date,
		String(amount),
		words,
		payer
	]);

describe('what banks write', () => {
	for (const [typed, pence] of [
		['1,234.56', '123456'],
		['1.234,56', '123456'],
		['1234', '123400'],
		['£12.5', '1250'],
		['-7.00', '-700'],
		['(7.00)', '-700'],
		['7.00 DR', '-700'],
		['7.00 CR', '700'],
		['\u2212 7,00', '-700'],
		['7.005', 'null'],
		['', 'null'],
		['abc', 'null'],
		['1e5', 'null']
	] as const)
		it(`the amount ${typed || '(nothing)'}`, () =>
			expect(String(readAmount(typed))).to.equal(pence));

	for (const [typed, order, date] of [
		['24/11/2026', 'dmy', '2026-11-24'],
		['11/24/2026', 'mdy', '2026-11-24'],
		['24 Nov 26', 'dmy', '2026-11-24'],
		['2026-11-24T08:30:00Z', 'dmy', '2026-11-24'],
		['20261124', 'ymd', '2026-11-24'],
		['24.11.2026', 'dmy', '2026-11-24'],
		['31/02/2026', 'dmy', null],
		['balance', 'dmy', null]
	] as const)
		it(`the date ${typed}`, () => expect(readDate(typed, order)).to.equal(date));
});

describe('a bank statement file', () => {
	it('as CSV, columns found by heading, comma decimals, money in and out apart', () => {
		expect(
			simple(
				'Date;Description;Paid out;Paid in\n24/11/2026;INV-7 Corvane;;1.200,00\n25/11/2026;Rent;50,00;\n'
			)
		).to.deep.equal([
			['2026-11-24', '120000', 'INV-7 Corvane', ''],
			['2026-11-25', '-5000', 'Rent', '']
		]);
	});

	it('as CSV without helpful headings, columns found by what stands in them', () => {
		const file = readBankFile(
			bytes('A,B,C\n2026-11-24,Corvane INV-7,1200.00\n2026-11-25,Rent,-50.00\n')
		);
		expect(file.csv!.layout).to.include({ date: 0, amount: 2, dates: 'ymd' });
	});

	it('says which rows it could not read, and reads the rest', () => {
		const file = readBankFile(
			bytes('Date,Text,Amount\n24/11/2026,a,1.00\nsoon,b,2.00\n25/11/2026,c,lots\n')
		);
		expect([file.lines.length, file.leftOut.map((one) => one.row)]).to.deep.equal([1, [3, 4]]);
	});

	it('as OFX in its old form', () => {
		expect(
			simple(`OFXHEADER:100\nDATA:OFXSGML\n\n<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>GBP
<BANKACCTFROM><BANKID>000000<ACCTID>00012345<ACCTTYPE>CHECKING</BANKACCTFROM>
<BANKTRANLIST><STMTTRN><TRNTYPE>CREDIT<DTPOSTED>20261124120000<TRNAMT>120.00<FITID>1<NAME>BEACON & LATHE<MEMO>INV-7</STMTTRN>
<STMTTRN><TRNTYPE>DEBIT<DTPOSTED>20261125<TRNAMT>-5.10<FITID>2<NAME>Tea</STMTTRN></BANKTRANLIST></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`)
		).to.deep.equal([
			['2026-11-24', '12000', 'INV-7', 'BEACON & LATHE'],
			['2026-11-25', '-510', 'Tea', 'Tea']
		]);
	});

	const camt = (entries: string, before = '') =>
		`<?xml version="1.0"?>${before}<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt><Acct><Id><IBAN>GB00TEST</IBAN></Id></Acct>${entries}</Stmt></BkToCstmrStmt></Document>`;
	const entry = (amount: string, sign: string, more = '') =>
		`<Ntry><Amt Ccy="GBP">${amount}</Amt><CdtDbtInd>${sign}</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>2026-11-24</Dt></BookgDt>${more}</Ntry>`;

	it('as camt.053: booked entries, debits, a reversed payment, a batch told apart', () => {
		const details = (name: string, amount: string) =>
			`<TxDtls><Refs><EndToEndId>NOTPROVIDED</EndToEndId></Refs><Amt Ccy="GBP">${amount}</Amt><RltdPties><Dbtr><Pty><Nm>${name}</Nm></Pty></Dbtr></RltdPties><RmtInf><Ustrd>INV-7 &amp; more</Ustrd></RmtInf></TxDtls>`;
		const file = readBankFile(
			bytes(
				camt(
					entry(
						'300.00',
						'CRDT',
						`<NtryDtls>${details('A', '100.00')}${details('B', '200.00')}</NtryDtls>`
					) +
						entry('40.00', 'DBIT', '<RvslInd>true</RvslInd><AddtlNtryInf>Returned</AddtlNtryInf>') +
						entry('9.00', 'CRDT').replace('BOOK', 'PDNG')
				)
			)
		);
		expect(
			file.lines
				.filter((one) => !one.pending)
				.map((one) => [String(one.amount), one.payer, one.text, one.reversal])
		).to.deep.equal([
			['10000', 'A', 'INV-7 & more', false],
			['20000', 'B', 'INV-7 & more', false],
			['-4000', '', 'Returned', true]
		]);
		expect(file.lines[0]!.account).to.equal('GB00TEST');
	});

	for (const [what, text, words] of [
		[
			'entities that point outside',
			camt(entry('1', 'CRDT'), '<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]>'),
			/declares entities/
		],
		['entities that grow', camt('', '<!DOCTYPE x [<!ENTITY a "aaaa">]>'), /declares entities/],
		['XML that is cut off', camt(entry('1', 'CRDT')).slice(0, -30), /cut off/],
		['XML of something else', '<?xml version="1.0"?><stock></stock>', /no bank statement/],
		['a heading alone', 'Date,Amount\n', /nothing under it/],
		['no dates', 'Name,Amount\na,1.00\nb,2.00\n', /dates/],
		['nothing', '', /empty/]
	] as const)
		it(`refuses ${what} in words`, () =>
			expect(() => readBankFile(bytes(text))).to.throw(TableError, words));
});

const invoice = (n: number, more: Partial<OpenInvoice> = {}): OpenInvoice => ({
	documentId: n,
	payerId: 1,
	payer: 'Beacon & Lathe Construction Ltd',
	number: `OLP-0${270 + n}`,
	references: [],
	dueDate: `2026-11-${String(10 + (n % 19)).padStart(2, '0')}`,
	toPay: BigInt(n) * 100_11n,
	outstanding: BigInt(n) * 100_11n,
	...more
});
const line = (amount: bigint, text: string, payer = '') => ({
	id: 1,
	date: '2026-11-24',
	amount,
	text,
	payer
});

describe('money that arrived', () => {
	const other = { payerId: 2, payer: 'Corvane Dairy Ltd' };
	const book = [
		invoice(1, { outstanding: 125_14n }),
		invoice(2),
		invoice(3),
		invoice(4, other),
		invoice(5, { ...other, references: ['PO 77812'] })
	];
	const best = (amount: bigint, text: string, payer = '', learned: [string, number][] = []) =>
		new Matcher(book, new Map(learned)).propose(line(amount, text, payer))[0];
	const ids = (found: ReturnType<typeof best>) => found?.shares.map((share) => share.documentId);

	it('finds its invoice by number and amount, however the number is written', () => {
		for (const text of ['OLP-0272', 'olp 0272 thanks', 'INV OLP0272', 'payment 0272']) {
			const found = best(200_22n, text);
			expect(ids(found), text).to.deep.equal([2]);
			expect(found!.sure, text).to.equal(true);
		}
	});

	it('by a number with a slip, and says so', () => {
		const found = best(200_22n, 'OLP-0227 OLP0772');
		expect(ids(best(200_22n, 'OLP-02772'))).to.deep.equal([2]);
		expect(ids(found)).to.deep.equal([2]);
		expect(best(200_22n, 'OLP-02772')!.reasons.join()).to.match(/with a slip/);
	});

	it('by the amount less the deduction, or the whole without it', () => {
		const net = best(100_11n, 'BEACON LATHE CONSTRUCTION');
		expect(ids(net)).to.deep.equal([1]);
		expect(net!.reasons.join()).to.match(/less the £25\.03 they deduct/);
		const whole = best(125_14n, 'OLP-0271');
		expect(whole!.shares[0]).to.include({ amount: 125_14n, withheld: 0n });
	});

	it('by several of one payer together', () => {
		const found = best(500_55n, 'Beacon & Lathe');
		expect(ids(found)).to.deep.equal([2, 3]);
		expect(found!.reasons.join()).to.match(/2 of their open invoices/);
		expect(ids(best(300_33n + 100_11n, 'OLP-0271 and OLP-0273'))).to.have.members([1, 3]);
	});

	it('by the name a payer paid under before, and by their own reference', () => {
		const learned: [string, number][] = [[learnedName(line(1n, '', 'C D ACCOUNTS')), 2]];
		const found = best(400_44n, 'bank credit', 'C D ACCOUNTS', learned);
		expect([ids(found), found!.sure]).to.deep.equal([[4], true]);
		expect(ids(best(500_55n, 'PO77812'))).to.deep.equal([5]);
	});

	it('an amount alone is proposed and is not sure; nothing that fits is not proposed', () => {
		const found = best(400_44n, 'faster payment');
		expect([ids(found), found!.sure]).to.deep.equal([[4], false]);
		expect(best(1_23n, 'cashback')).to.equal(undefined);
	});

	it('less or more than is to pay is proposed as that, and is not sure', () => {
		expect(best(50_00n, 'OLP-0272')).to.deep.include({ sure: false, over: 0n });
		expect(best(250_22n, 'OLP-0272')).to.deep.include({ sure: false, over: 50_00n });
	});

	it('two equal candidates make neither sure', () => {
		const twins = [invoice(1), invoice(2, { toPay: 100_11n, outstanding: 100_11n })];
		const [first] = new Matcher(twins, new Map()).propose(
			line(100_11n, 'Beacon Lathe Construction')
		);
		expect(first!.sure).to.equal(false);
	});
});

describe('a sum of several invoices', () => {
	it('is found where there is one, and adds up', () => {
		fc.assert(
			fc.property(
				fc.array(fc.bigInt({ min: 1n, max: 500_000n }), { minLength: 1, maxLength: 14 }),
				fc.array(fc.boolean(), { minLength: 14, maxLength: 14 }),
				(amounts, chosen) => {
					const sum = amounts.filter((_, index) => chosen[index]).reduce((a, b) => a + b, 0n);
					const found = findSubset(amounts, sum);
					if (found)
						expect(found.reduce((total, index) => total + amounts[index]!, 0n)).to.equal(sum);
					else if (sum > 0) expect(amounts.length).to.be.above(8);
				}
			)
		);
	});

	it('ends in time with 200 invoices that cannot add up', () => {
		const amounts = Array.from({ length: 200 }, (_, index) => 200_00n + BigInt(index * 2));
		const before = Date.now();
		expect(findSubset(amounts, 4_000_01n)).to.equal(null);
		expect(Date.now() - before).to.be.below(1000);
	});
});
