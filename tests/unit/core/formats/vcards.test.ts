// Cards as phones of every age write them: each odd thing costs itself alone, the preferred comes first.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { readCards } from '../../../../src/lib/core/formats/vcard';

const card = (...rows: string[]) => ['BEGIN:VCARD', ...rows, 'END:VCARD'].join('\r\n');
const person = (...rows: string[]) => readCards(card('FN:Odile', ...rows)).people[0]!;

describe('a card', () => {
	it('names somebody: in full, in parts, as a firm, or as they are called', () => {
		const name = (...rows: string[]) => readCards(card(...rows)).people[0]?.name;
		expect(name('FN:Odile Brancaster', 'N:X;Y')).to.equal('Odile Brancaster');
		expect(name('N:Brancaster;Odile;May;Dr;')).to.equal('Dr Odile May Brancaster');
		expect(name('FN:', 'ORG:Corvane Dairy;Accounts')).to.equal('Corvane Dairy, Accounts');
		expect(name('X-COMPANY:Corvane')).to.equal('Corvane');
		expect(name('NICKNAME:Odi')).to.equal('Odi');
		expect(name('ORG:Corvane', 'NICKNAME:Odi')).to.equal('Corvane');
	});

	it('is left out with its reason where it names nobody, is a group, or breaks off', () => {
		const { people, leftOut } = readCards(
			`${card('TEL:1')}\n${card('FN:Team', 'KIND:Group')}\n${card('FN:A')}\nBEGIN:VCARD\nFN:B`
		);
		expect(people.map(({ row, name }) => [row, name])).to.deep.equal([[3, 'A']]);
		expect(leftOut).to.deep.equal([
			{ row: 1, why: 'It names nobody.' },
			{ row: 2, why: 'A group of others, nobody itself.' },
			{ row: 4, why: 'The card is cut off: its end is missing.' }
		]);
	});

	it('has its addresses and numbers in the order of what is preferred, each once', () => {
		expect(
			person(
				'TEL:1',
				'TEL;PREF=3:3',
				'TEL;TYPE=home,pref:tel:2',
				'item1.TEL;PREF=1:TEL:4',
				'TEL;VOICE:1',
				'EMAIL;type=pref:mailto:a@post.example',
				'EMAIL:hotel:b@post.example'
			)
		).to.deep.include({
			phones: ['2', '4', '3', '1'],
			emails: ['a@post.example', 'hotel:b@post.example']
		});
		expect(
			person('ADR:;;1 Lane;Harrowmere;;ZZ1;', 'ADR;TYPE=pref:;Rear;2 Lane;Castle Orme;;;Wales')
				.address
		).to.equal('Rear\n2 Lane\nCastle Orme\nWales');
		expect(person('ADR:;;1 Lane;;;;', 'ADR:;;2 Lane;;;;').address).to.equal('1 Lane');
	});

	it('keeps escapes, folds, groups and notes as they were meant', () => {
		expect(
			person(
				'NOTE:One\\, two\\; three\\nfour \\\\',
				'NOTE:Rings',
				' twice',
				'CATEGORIES:Trade,Old\\, good'
			)
		).to.deep.include({
			note: 'One, two; three\nfour \\\nRingstwice',
			labels: ['Trade', 'Old, good']
		});
	});

	it('is read where its text is quoted, over lines, in the letters it names', () => {
		expect(
			person('NOTE;ENCODING=QUOTED-PRINTABLE;CHARSET=ISO-8859-1:Caf=E9 =', 'au lait').note
		).to.equal('Café au lait');
		expect(person('NOTE;QUOTED-PRINTABLE;CHARSET=nonsense:Caf=C3=A9').note).to.equal('Café');
		expect(person('NOTE;ENCODING=QUOTED-PRINTABLE:One=0D=0Atwo=0Athree').note).to.equal(
			'One\ntwo\nthree'
		);
	});

	it('loses an odd line alone, and one nobody needs', () => {
		const { name, phones } = person(
			'TEL',
			':x',
			'PHOTO:abc',
			`NOTE:${'x'.repeat(100_001)}`,
			'TEL:1'
		);
		expect([name, phones]).to.deep.equal(['Odile', ['1']]);
		expect(person(`NOTE:${'x'.repeat(100_001)}`).note).to.equal('');
		expect(person(`NOTE:${'x'.repeat(99_995)}`).note).to.have.length(99_995);
	});
});
