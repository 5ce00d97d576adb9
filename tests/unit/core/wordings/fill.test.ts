// Merge fields: filled once, empty ones leave no gap, and what is no field is refused at its place.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { fieldProblem, fillWords } from '../../../../src/lib/core/wordings/fill';
import { EXAMPLE, WORDINGS, WORDING_KINDS } from '../../../../src/lib/core/wordings/kinds';

const filled = (text: string, values: Record<string, string>) =>
	fillWords({ subject: text, text }, values);

describe('words with fields', () => {
	it('are filled once: a name that looks like a field stays a name, and the link’s place is nobody’s', () => {
		expect(filled('{a} and {b}', { a: '{b}', b: 'x' }).text).to.equal('{b} and x');
		expect(filled('{a}: {link}', { a: 'Mr {link}', link: '{link}' }).text).to.equal(
			'Mr (link): {link}'
		);
		expect(filled('{constructor}', {}).text).to.equal('{constructor}');
	});

	it('leave no gap where a field is empty, and no paragraph of empty fields', () => {
		expect(filled('See it {pay} here', { pay: '' }).text).to.equal('See it here');
		expect(filled('A\n\n{a}\n{b}\n\nB\n{a}\n\n\nC', { a: '', b: ' ' }).text).to.equal(
			'A\n\nB\n\nC'
		);
		expect(filled('A\n\nSee it here: {link}\n\nB', { link: '' }).text).to.equal('A\n\nB');
		expect(filled('one\r\n\r\ntwo', {}).text).to.equal('one\n\ntwo');
	});

	it('begin with a capital letter where they begin with a field, and a subject is one line', () => {
		expect(filled('{a} 7', { a: 'invoice' }).subject).to.equal('Invoice 7');
		expect(filled('iPad for {a}', { a: 'x' }).subject).to.equal('iPad for x');
		expect(filled('a {b}', { b: 'c\n d' }).subject).to.equal('a c d');
	});

	it('are refused with the line where something in braces is no field', () => {
		const fields = { amount: '', due: '' };
		expect(fieldProblem('{amount}, {due}', fields)).to.equal(null);
		expect(fieldProblem('a\nb {price}', fields)).to.equal(
			'{price} in line 2 is no field: it would go out as it stands.'
		);
		expect(fieldProblem('{constructor}', fields)).to.match(/^\{constructor\} is no field/);
		// A field within a field, half of one, and one with a space in it.
		for (const text of ['{amo{due}unt}', 'a }', 'a {', '{ due }', '{Due}', '{}'])
			expect(fieldProblem(text, fields), text).to.be.a('string');
	});

	for (const kind of WORDING_KINDS)
		it(`the standard words of ${kind} have no field that is not offered, and none comes out as it stands`, () => {
			const { fields, standard } = WORDINGS[kind];
			for (const words of Object.values(standard))
				expect(fieldProblem(words, fields), words).to.equal(null);
			expect(Object.keys(fields).filter((name) => !(name in EXAMPLE))).to.deep.equal([]);
			const out = fillWords(standard, EXAMPLE);
			expect(`${out.subject}${out.text}`.replaceAll('{link}', '')).to.not.match(/[{}]/);
			expect(out.text).to.include('{link}');
		});
});
