// What files really hold, at its limits: sizes, separators that are said, quotation marks, and what a calendar is.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { readDate } from '../../../../src/lib/core/formats/bank/line';
import { directionOf, stateOf } from '../../../../src/lib/core/formats/bank/headings';
import { readOfx } from '../../../../src/lib/core/formats/bank/ofx';
import { readDeductionFile } from '../../../../src/lib/core/formats/deductionFile';
import { writeCalendar } from '../../../../src/lib/core/formats/icalendar';
import { LARGEST_FILE, readRecords, TableError } from '../../../../src/lib/core/formats/table';
import { decode } from '../../../../src/lib/core/formats/text';
import { readCards, writeCard } from '../../../../src/lib/core/formats/vcard';
import { textOf } from '../../../../src/lib/core/formats/xml';

const bytes = (text: string) => new TextEncoder().encode(text);
const cells = (text: string) => readRecords(bytes(text)).rows.map((row) => row.cells.join('|'));

describe('a table in a file', () => {
	it('may say what separates its cells, at its very beginning alone', () => {
		expect(cells('sep=;\na;b,c')).to.deep.equal(['a|b,c']);
		expect(cells('\ufeffSEP=|\na|b')).to.deep.equal(['a|b']);
		expect(cells('"sep=;"\na;b')).to.deep.equal(['a|b']);
		expect(cells('a,b\nsep=;,c\nd,e')).to.deep.equal(['a|b', 'sep=;|c', 'd|e']);
		// Its place counts as a line.
		expect(readRecords(bytes('sep=;\na;b')).rows[0]!.line).to.equal(2);
	});

	it('is refused where it is empty, too large, no text, or never ends', () => {
		for (const [text, why] of [
			['', 'The file is empty.'],
			['a,"b\nc,d', 'a quotation mark is not closed'],
			['a,\0b', 'This is no text file']
		] as const)
			expect(() => cells(text)).to.throw(TableError, why);
		expect(() => readRecords(new Uint8Array(LARGEST_FILE + 1))).to.throw(
			TableError,
			'The file has 26 MB. At most 25 MB'
		);
		expect(() => readRecords(new Uint8Array(LARGEST_FILE * 2))).to.throw(TableError, 'has 50 MB');
		const rows = (count: number) => bytes('a,\n'.repeat(count));
		expect(() => readRecords(rows(200_002))).to.throw(TableError, 'At most 200,000 rows');
		expect(readRecords(rows(200_001)).rows).to.have.length(200_001);
	});

	it('is known by where its nothings are, where it is written in two bytes', () => {
		const wide = (text: string, little: boolean) =>
			Uint8Array.from(
				[...text].flatMap((one) => (little ? [one.charCodeAt(0), 0] : [0, one.charCodeAt(0)]))
			);
		expect(decode(wide('Date,Amount', true)).text).to.equal('Date,Amount');
		expect(decode(wide('Date,Amount', false)).text).to.equal('Date,Amount');
	});
});

describe('what banks write', () => {
	it('is money out, money in, or neither', () => {
		for (const word of ['-', 'DR', 'Dr.', 'debit', 'OUT', 'paid out', 'DBIT'])
			expect(directionOf(word), word).to.equal(-1);
		for (const word of ['CR', 'credit', 'in', 'paid in', 'CRDT', '+'])
			expect(directionOf(word), word).to.equal(1);
		expect(directionOf('transfer')).to.equal(null);
		expect(stateOf('Completed')).to.equal('booked');
		expect(stateOf('PENDING')).to.equal('pending');
		expect(stateOf('Reverted')).to.equal('void');
	});

	it('is a day of this century or the last where it is eight digits', () => {
		expect(readDate('20261124', 'dmy')).to.equal('2026-11-24');
		expect(readDate('19991231', 'dmy')).to.equal('1999-12-31');
		expect(readDate('11202026', 'dmy')).to.equal(null);
		expect(readDate('24  11 - 2026', 'dmy')).to.equal('2026-11-24');
		expect(readDate('3 - 4 / 2026', 'dmy')).to.equal('2026-04-03');
	});

	it('is of one account and one currency, or of none', () => {
		const file = (...accounts: [string, string][]) =>
			readOfx(
				`<OFX><BANKMSGSRSV1>${accounts
					.map(
						([account, currency]) =>
							`<STMTTRNRS><STMTRS><CURDEF>${currency}</CURDEF><BANKACCTFROM><ACCTID>${account}</ACCTID></BANKACCTFROM><BANKTRANLIST><STMTTRN><TRNTYPE>CREDIT</TRNTYPE><DTPOSTED>20261124</DTPOSTED><TRNAMT>5.00</TRNAMT><FITID>1${account}</FITID><NAME>A</NAME></STMTTRN></BANKTRANLIST></STMTRS></STMTTRNRS>`
					)
					.join('')}</BANKMSGSRSV1></OFX>`
			);
		expect(file(['123', 'GBP'])).to.include({ account: '123', currency: 'GBP' });
		expect(file(['123', 'GBP'], ['456', 'EUR'])).to.include({ account: '', currency: '' });
	});

	it('is text with its signs', () => {
		expect(textOf('Lime &amp; Plaster &lt;1&gt; &quot;a&quot; &apos;b&apos;')).to.equal(
			'Lime & Plaster <1> "a" \'b\''
		);
		expect(textOf('&#65;&#x42;&#x1F4A1;&#0;&nope;')).to.equal('AB\u{1F4A1} &nope;');
		expect(textOf({ '#text': 5 })).to.equal('5');
		expect(textOf({})).to.equal('');
	});
});

describe('statements of deductions', () => {
	it('are read with spaces around each cell, and say what was paid', () => {
		const { rows, problems } = readDeductionFile(
			bytes(
				'Contractor name,Month end,Gross amount,Materials,Tax deducted\n" Beacon ", 05/11/2026 , 100 , , 20 '
			)
		);
		expect(problems).to.deep.equal([]);
		expect(rows[0]).to.include({ contractor: 'Beacon', gross: 100_00n, materials: 0n });
	});
});

describe('people and days', () => {
	it('are read from cards with marks of every age', () => {
		const card = (...rows: string[]) =>
			readCards(['BEGIN:VCARD', 'VERSION:2.1', ...rows, 'END:VCARD', ''].join('\r\n'));
		const { people } = card(
			'N:Brancaster;Odile',
			'EMAIL;PREF;INTERNET:first@example.com',
			'EMAIL:second@example.com',
			'NOTE;QUOTED-PRINTABLE:a =3D b',
			'ORG;ENCODING=QUOTED-PRINTABLE;CHARSET=utf-8:Caf=C3=A9'
		);
		expect(people[0]).to.deep.include({ note: 'a = b', organisation: 'Café' });
		expect(people[0]!.emails[0]).to.equal('first@example.com');
	});

	it('are written as a calendar that holds nothing else', () => {
		const text = writeCalendar([], 'PUBLISH');
		expect(text.split('\r\n').filter(Boolean)).to.deep.equal([
			'BEGIN:VCALENDAR',
			'VERSION:2.0',
			'PRODID:-//Axiometer//Visits//EN',
			'METHOD:PUBLISH',
			'END:VCALENDAR'
		]);
	});

	it('are written into a calendar: to their time, for an hour, whole days, fallen away', () => {
		const written = (more: object) =>
			writeCalendar([
				{
					uid: 'u',
					title: 'Render',
					place: '',
					note: '',
					date: '2026-11-24',
					from: '',
					to: '',
					writtenAt: 0,
					...more
				}
			])
				.split('\r\n')
				.filter((row) => /^(DTSTART|DTEND|STATUS|SEQUENCE|LOCATION|METHOD)/.test(row));
		expect(written({ from: '09:00', to: '11:30' })).to.deep.equal([
			'DTSTART:20261124T090000',
			'DTEND:20261124T113000'
		]);
		for (const to of ['', '09:00', '08:00'])
			expect(written({ from: '09:00', to })[1], to).to.match(/^DTEND:20261124T(10|09)0000$/);
		expect(written({ from: '09:00', to: '' })[1]).to.equal('DTEND:20261124T100000');
		expect(written({ from: '09:00', to: '17:00', endDate: '2026-11-26' })[1]).to.equal(
			'DTEND:20261126T170000'
		);
		expect(written({})[0]).to.equal('DTSTART;VALUE=DATE:20261124');
		expect(written({ endDate: '2026-11-25' })[1]).to.equal('DTEND;VALUE=DATE:20261126');
		expect(
			written({ cancelled: true, sequence: 2, place: 'Mill Yard\nHarrowmere' })
		).to.include.members(['STATUS:CANCELLED', 'SEQUENCE:2', 'LOCATION:Mill Yard\\, Harrowmere']);
	});

	it('are written as cards, and read from them again', () => {
		const card = {
			firm: true,
			name: 'Lime, Sand & Co',
			contact: 'A. Orme',
			email: 'a@orme.example',
			phone: '07700 900123',
			address: 'Mill Lane\nHarrowmere'
		};
		const text = writeCard(card);
		expect(text.split('\r\n')).to.include.members([
			'KIND:org',
			'FN:A. Orme',
			'TEL:07700 900123',
			'EMAIL:a@orme.example'
		]);
		expect(readCards(text).people[0]).to.deep.include({
			name: 'A. Orme',
			organisation: 'Lime, Sand & Co',
			emails: ['a@orme.example'],
			phones: ['07700 900123']
		});
		const bare = writeCard({
			...card,
			firm: false,
			contact: '',
			email: '',
			phone: '',
			address: ''
		}).split('\r\n');
		expect(bare).to.deep.equal([
			'BEGIN:VCARD',
			'VERSION:4.0',
			'KIND:individual',
			'FN:Lime\\, Sand & Co',
			'END:VCARD',
			''
		]);
	});
});
