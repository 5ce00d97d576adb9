// How banks write days, sums and files: each form from both sides of where it stops being one.
// Over 300 lines: tables of what is written, and what it is.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { readCamt053 } from '../../../../src/lib/core/formats/bank/camt053';
import { guessLayout } from '../../../../src/lib/core/formats/bank/columns';
import { readBankFile } from '../../../../src/lib/core/formats/bank/file';
import {
	datePartsOf,
	decimalSignOf,
	isNothing,
	joined,
	readDate,
	readWrittenAmount,
	saysTakenBack,
	type DateOrder,
	type DecimalSign
} from '../../../../src/lib/core/formats/bank/line';
import { ofxEncoding } from '../../../../src/lib/core/formats/bank/ofx';
import { readXml, textOf } from '../../../../src/lib/core/formats/xml';
import { TableError } from '../../../../src/lib/core/formats/table';

const bytes = (text: string) => new TextEncoder().encode(text);

describe('a day on a statement', () => {
	it('says its order itself, or has the one that is given', () => {
		const days: [string, DateOrder, string | null][] = [
			['Tue 24 November 2026', 'mdy', '2026-11-24'],
			['Tuesday, 24th Nov 2026', 'mdy', '2026-11-24'],
			['24Nov2026', 'mdy', '2026-11-24'],
			['24 Sept 26', 'mdy', '2026-09-24'],
			['Nov 24, 2026', 'dmy', '2026-11-24'],
			['November 1st, 26', 'dmy', '2026-11-01'],
			['2026 Nov 24', 'dmy', '2026-11-24'],
			['2026-Nov-4', 'dmy', '2026-11-04'],
			['2026/11/04', 'dmy', '2026-11-04'],
			['26/11/04', 'ymd', '2026-11-04'],
			['04/11/26', 'dmy', '2026-11-04'],
			['11/04/26', 'mdy', '2026-11-04'],
			['4/11/2026', 'ymd', '2026-11-04'],
			['24 No 2026', 'dmy', null],
			['24 Nox 2026', 'dmy', null],
			['123/11/2026', 'dmy', null],
			['24/11/202', 'dmy', null],
			['24/11', 'dmy', null],
			['24/11/1969', 'dmy', null],
			['24/11/2100', 'dmy', null],
			['24/11/2099', 'dmy', '2099-11-24'],
			['18991231', 'dmy', null]
		];
		for (const [typed, order, day] of days)
			expect(readDate(typed, order), `${typed} ${order}`).to.equal(day);
	});

	it('stands with a time behind it in many forms', () => {
		for (const time of [
			'T08:30',
			' 08:30',
			', 08:30:15',
			' at 8:30 am',
			' 8.30pm',
			' 08:30:15.123',
			'T08:30:00+01:00',
			'T08:30:00Z',
			' 08:30 GMT',
			' 08:30 (UTC)'
		])
			expect(readDate(`24/11/2026${time}`, 'dmy'), time).to.equal('2026-11-24');
		for (const odd of [' 830', ' noon', ' 08:3'])
			expect(readDate(`24/11/2026${odd}`, 'dmy'), odd).to.equal(null);
	});

	it('has three numbers to find its order by, unless it says it', () => {
		expect(datePartsOf('Tue 24.11.26 08:30')).to.deep.equal([24, 11, 26]);
		expect(datePartsOf('24 Nov 2026')).to.equal(null);
	});
});

describe('a sum on a statement', () => {
	const pence = (typed: string, decimal?: DecimalSign) => {
		const read = readWrittenAmount(typed, decimal);
		return read && [Number(read.amount), read.currency];
	};
	it('has its currency before or behind, as a sign or a code', () => {
		for (const [typed, amount, currency] of [
			['£12.00', 1200, 'GBP'],
			['12,00 €', 1200, 'EUR'],
			['$1,234.50', 123450, 'USD'],
			['GBP 12.00', 1200, 'GBP'],
			['-EUR12.00', -1200, 'EUR'],
			['12.00 usd', 1200, 'USD'],
			['(12.00 GBP)', -1200, 'GBP'],
			['¥5000', 500000, 'JPY'],
			['12.00 zł', 1200, 'PLN'],
			['12.00', 1200, '']
		] as const)
			expect(pence(typed), typed).to.deep.equal([amount, currency]);
		expect(pence('XYQ 12.00')).to.equal(null);
	});

	it('goes out with a minus on either side, in brackets or with a D', () => {
		for (const typed of [
			'-12.00',
			'12.00-',
			'−12.00',
			'–12.00',
			'(12.00)',
			'12.00DR',
			'12.00 d',
			'12.00Dr.'
		])
			expect(pence(typed), typed).to.deep.equal([-1200, '']);
		for (const typed of ['+12.00', '12.00+', '12.00CR', '12.00 c.', '12.00'])
			expect(pence(typed), typed).to.deep.equal([1200, '']);
		expect(pence('CR12.00')).to.equal(null);
		expect(pence('12.00x')).to.equal(null);
	});

	it('has groups of three, one sign before its pence, and nothing finer than a penny', () => {
		const sums: [string, number | null, DecimalSign?][] = [
			["1'234.50", 123450],
			['1’234.50', 123450],
			['1 234,50', 123450],
			['1\u00a0234\u202f567.00', 123456700],
			['1,234,567.89', 123456789],
			['1.234.567,89', 123456789],
			['12.500', 1250, '.'],
			['.50', 50],
			['12.', 1200],
			['0.001', null],
			['12.501', null, '.'],
			['0.500', 50],
			['1234.500', 123450],
			['1.200', null],
			['1,20,000.00', null],
			['12,34.00', null],
			['1.2.3', null],
			['1.234,5,6', null],
			['1234567890123', null],
			['123456789012', 12345678901200],
			['-', null]
		];
		for (const [text, amount, decimal] of sums) {
			const read = readWrittenAmount(text, decimal);
			expect(read && Number(read.amount), text).to.equal(amount);
		}
	});

	it('shows by its column which sign stands before the pence', () => {
		expect(decimalSignOf(['1.234,50', '12,00', '7'])).to.equal(',');
		expect(decimalSignOf(['1,234.50', '12.00', '7,00'])).to.equal('.');
		expect(decimalSignOf(['12,00', '12.00'])).to.equal('.');
		expect(decimalSignOf(['1,234', '1.234', '7'])).to.equal(null);
		expect(decimalSignOf(['1,234,567'])).to.equal('.');
		expect(decimalSignOf(['12345,678'])).to.equal(',');
		expect(decimalSignOf(['0,678'])).to.equal(',');
	});

	it('is not there in many words', () => {
		for (const typed of ['', ' ', '-', '–', '—', '−−', 'n/a', 'NA', 'nil', 'None', 'null'])
			expect(isNothing(typed), typed).to.equal(true);
		for (const typed of ['0', '0.00', 'nothing', 'n', '+'])
			expect(isNothing(typed), typed).to.equal(false);
	});
});

describe('the words of a line', () => {
	it('stand once each, in their order, within their room', () => {
		expect(joined(['Corvane  Dairy', ' corvane dairy ', '', 'INV-7', 'Dairy'])).to.equal(
			'Corvane Dairy INV-7'
		);
		expect(joined(['a b', 'c'], 4)).to.equal('a b ');
		expect(joined(['x'.repeat(600)])).to.have.length(500);
	});
	it('say that the bank took a payment back', () => {
		for (const words of ['REVERSAL', 'Returned DD', 'recalled', 'Unpaid cheque'])
			expect(saysTakenBack(words), words).to.equal(true);
		expect(saysTakenBack('Refund of deposit')).to.equal(false);
	});
});

describe('the columns of a file', () => {
	const rows = (text: string) =>
		text.split('\n').map((line, n) => ({ line: n + 2, cells: line.split(';') }));
	const layout = (headings: string, body: string) =>
		guessLayout(headings ? headings.split(';') : [], rows(body), ';');

	it('are found without headings: day, sum, the longest words, and the next longest', () => {
		expect(
			layout('', '24/11/2026;-12.00;CARD;CORVANE DAIRY\n25/11/2026;7.50;BACS;BEACON LATHE')
		).to.deep.equal({
			headless: true,
			date: 0,
			amount: 1,
			text: 3,
			more: 2,
			decimal: '.',
			dates: 'dmy'
		});
		// A heading that is there, and says nothing, leaves the rest alone.
		expect(
			layout(
				'Day;Sum;Z1;Z2',
				'24/11/2026;-12.00;CARD;CORVANE DAIRY\n25/11/2026;7.50;BACS;BEACON LATHE'
			)
		).to.deep.equal({ date: 0, amount: 1, text: 3, decimal: '.', dates: 'dmy' });
	});

	it('are what their headings say only where what stands under them can be that', () => {
		// “Money in” full of words is no sum, “Date” without one no day; empty ones are believed.
		expect(layout('Date;Amount;Money in', '24/11/2026;1.00;by card').in).to.equal(undefined);
		expect(layout('Date;Money in;Money out', '24/11/2026;1.00;')).to.include({ in: 1, out: 2 });
		expect(layout('Date;Money in;Money out', '24/11/2026;;1.00')).to.include({ in: 1, out: 2 });
		expect(layout('Posted;Date;Amount', 'yes;24/11/2026;1.00').date).to.equal(1);
		expect(layout('Date;Amount;Status', '24/11/2026;1.00;123').state).to.equal(undefined);
		expect(layout('Date;Amount;Status', '24/11/2026;1.00;Posted').state).to.equal(2);
		expect(layout('Date;Amount;Currency', '24/11/2026;1.00;sterling').currency).to.equal(undefined);
		expect(layout('Date;Amount;Fee', '24/11/2026;1.00;none').fee).to.equal(undefined);
		expect(layout('Date;Amount;Fee', '24/11/2026;1.00;0.20').fee).to.equal(2);
		expect(layout('Date;Net amount;Fee', '24/11/2026;1.00;0.20').fee).to.equal(undefined);
	});

	it('are the owner’s own account where every row has the same name', () => {
		const three = '24/11/2026;1.00;T Orrell\n25/11/2026;2.00;t orrell\n26/11/2026;3.00;T Orrell';
		expect(layout('Date;Amount;Name', three))
			.to.include({ account: 2 })
			.and.not.have.property('payer');
		expect(layout('Date;Amount;Name', three.split('\n').slice(0, 2).join('\n')).payer).to.equal(2);
		expect(layout('Date;Amount;Payer', three).payer).to.equal(2);
	});

	it('have the order of their days by the first that shows it, and most of them', () => {
		const order = (...days: string[]) =>
			layout('Date;Amount', days.map((day) => `${day};1.00`).join('\n')).dates;
		expect(order('01/02/2026')).to.equal('dmy');
		expect(order('12/12/2026', '01/12/2026')).to.equal('dmy');
		expect(order('12/13/2026')).to.equal('mdy');
		expect(order('13/12/2026', '12/13/2026')).to.equal('dmy');
		expect(order('12/13/2026', '12/14/2026', '13/12/2026')).to.equal('mdy');
		expect(order('2026-11-04', '2026-11-05')).to.equal('ymd');
	});

	it('of money are told by the balance they make', () => {
		expect(layout('Z0;Z1;Z2', '24/11/2026;5.00;105.00\n25/11/2026;-7.00;98.00')).to.include({
			amount: 1
		});
		expect(layout('Z0;Z1;Z2', '25/11/2026;98.00;-7.00\n24/11/2026;105.00;5.00')).to.include({
			amount: 2
		});
		expect(
			layout(
				'Z0;Z1;Z2;Z3',
				'24/11/2026;;5.00;105.00\n25/11/2026;7.00;;98.00\n26/11/2026;;2.00;100.00'
			)
		).to.include({ in: 2, out: 1 });
	});

	it('say the way a sum went, by heading and by every cell', () => {
		expect(layout('Date;Amount;Type', '24/11/2026;1.00;CR\n25/11/2026;2.00;DR').direction).to.equal(
			2
		);
		expect(
			layout('Date;Amount;Type', '24/11/2026;1.00;CR\n25/11/2026;2.00;BACS').direction
		).to.equal(undefined);
		expect(layout('Date;Amount;Z2', '24/11/2026;1.00;CR').direction).to.equal(undefined);
		expect(layout('', '24/11/2026;1.00;CR;A\n25/11/2026;2.00;DR;B').direction).to.equal(2);
	});
});

describe('a statement file', () => {
	it('shows its first five rows, whatever their number', () => {
		const of = (count: number) =>
			readBankFile(
				bytes(
					`Date,Description,Amount\n${Array.from({ length: count }, (_, n) => `24/11/2026,Row ${n},1.00`).join('\n')}\n`
				)
			);
		expect(of(7).lines).to.have.length(7);
		expect(of(7).csv!.sample.map(([, text]) => text)).to.deep.equal(
			[0, 1, 2, 3, 4].map((n) => `Row ${n}`)
		);
	});

	it('as camt.053 names account and currency where all its statements share them', () => {
		const statement = (iban: string, currency: string) =>
			`<Stmt><Acct><Id><IBAN>${iban}</IBAN></Id><Ccy>${currency}</Ccy></Acct></Stmt>`;
		const read = (...statements: string[]) => {
			const { account, currency } = readCamt053(
				`<Document><BkToCstmrStmt>${statements.join('')}</BkToCstmrStmt></Document>`
			);
			return [account, currency];
		};
		expect(read(statement('GB1', 'gbp'))).to.deep.equal(['GB1', 'GBP']);
		expect(read(statement('GB1', 'GBP'), statement('GB1', 'GBP'))).to.deep.equal(['GB1', 'GBP']);
		expect(read(statement('GB1', 'GBP'), statement('GB2', 'EUR'))).to.deep.equal(['', '']);
		expect(() => readCamt053('<Document/>')).to.throw(TableError, 'no statement');
	});

	it('as OFX says above its first mark how it is written', () => {
		const encoding = (head: string) => ofxEncoding(bytes(`OFXHEADER:100\n${head}\n<OFX>`));
		expect(encoding('ENCODING:USASCII\nCHARSET:1252')).to.equal('windows-1252');
		expect(encoding('CHARSET: 1250')).to.equal('windows-1250');
		expect(encoding('ENCODING:UTF-8\nCHARSET:1252')).to.equal('utf-8');
		expect(encoding('encoding:utf8')).to.equal('utf-8');
		expect(encoding('CHARSET:8859-1')).to.equal('iso-8859-1');
		expect(encoding('CHARSET:ISO-8859-1')).to.equal('iso-8859-1');
		expect(encoding('CHARSET:NONE')).to.equal('');
		expect(encoding('CHARSET:12521')).to.equal('');
		expect(ofxEncoding(bytes('CHARSET:1252'))).to.equal('');
	});
});

describe('XML from outside', () => {
	it('is read as text alone, its entities replaced by what they stand for', () => {
		const node = (inner: string) =>
			textOf((readXml(`<x:a xmlns:x="u">${inner}</x:a>`) as Record<string, unknown>)['a']);
		expect(node('007')).to.equal('007');
		expect(node(' true ')).to.equal('true');
		expect(node('&lt;a &amp; b&gt; &quot;c&quot; &apos;d&apos;')).to.equal(`<a & b> "c" 'd'`);
		expect(node('&#163;&#xA3;&#x1F600;')).to.equal('££😀');
		expect(node('&#7;|&#31;|&#32;|&#x110000;')).to.equal(' | | | ');
		for (const other of ['&euro;', '&constructor;', '&toString;'])
			expect(node(other)).to.equal(other);
		const [value] = [(readXml('<a b="007">1</a>') as { a: Record<string, string> }).a];
		expect(value).to.deep.equal({ '#text': '1', '@b': '007' });
	});
	it('is refused where it declares something of its own, breaks off or is too large', () => {
		for (const text of ['<!DOCTYPE a><a/>', '<!doctype a [<!ENTITY x "y">]><a>&x;</a>'])
			expect(() => readXml(text)).to.throw(TableError, 'declares entities');
		for (const text of ['<a>', '<a></b>'])
			expect(() => readXml(text), text).to.throw(TableError, 'cut off');
		expect(() => readXml(' '.repeat(25 * 1024 * 1024 + 1))).to.throw(TableError, '25 MB');
	});
});
