// Credit notes of an invoice, one after the other: what each takes, what is left after it, what more would be. Sums worked out by hand.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	freezeCredit,
	leftAfter,
	readCredit,
	type CreditWishes
} from '../../../../src/lib/core/documents/credit';
import type { Frozen } from '../../../../src/lib/core/documents/types';
import { customerOn, sellerOn } from '../../../../src/lib/core/parties';
import { FieldError } from '../../../../src/lib/core/refusals';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import type { Sheet, SheetRow } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, readWith, SELLER } from '../../../support/sheets';

const ON = '2026-11-24';
/** 3 × 100.33 at 20 % and 50.00 at nothing. */
const ROWS: SheetRow[] = [
	lineOf({ id: 'a', quantity: '3', unitPrice: '100.33' }),
	lineOf({ id: 'b', unitPrice: '50', vat: 'exempt', vatReason: 'x' })
];
function invoice(rows = ROWS, who = customerOf('business'), more: Partial<Sheet> = {}): Frozen {
	const sheet: Sheet = { ...blankSheet(), customerId: 1, contract: 'construction', rows, ...more };
	const { dates } = readWith(who, sheet);
	return {
		kind: 'invoice',
		seller: sellerOn(SELLER, ON),
		customer: customerOn(who, ON),
		sheet,
		issueDate: ON,
		taxPoint: dates.taxPoint.date,
		workFinished: ON,
		dueDate: dates.dueDate,
		contract: 'construction',
		corrects: null
	};
}
const typed = (of: object): CreditWishes => ({
	wishes: readCredit({ way: 'lines', off: '', take: {}, quantity: {}, amount: {}, ...of }),
	again: false
});
const ALL: CreditWishes = { wishes: null, again: false };
const lines = (...positions: number[]) =>
	typed({ take: Object.fromEntries(positions.map((one) => [String(one), 'on'])) });
const units = (position: number, many: string) =>
	typed({ take: { [position]: 'on' }, quantity: { [position]: many } });
/** What each of these credit notes comes to, one after the other, and what is left then. */
function credited(of: Frozen, ...asked: CreditWishes[]) {
	const notes: Frozen[] = [];
	const totals = asked.map((wishes) => {
		const { frozen, figures } = freezeCredit(
			leftAfter('INV-7', of, notes),
			wishes,
			'Wrong',
			'2026-11-25'
		);
		notes.push(frozen);
		return Number(figures.total);
	});
	return { totals, notes, left: leftAfter('INV-7', of, notes) };
}
const refused = (work: () => unknown) => {
	try {
		work();
	} catch (error) {
		return (error as FieldError).fields;
	}
	return null;
};

describe('credit notes of an invoice', () => {
	it('take all of it at once, once', () => {
		const { totals, notes, left } = credited(invoice(), ALL);
		// 300.99 and 60.20 of VAT, and 50.00.
		expect(totals).to.deep.equal([411_19]);
		expect(left.nothing).to.equal(true);
		expect(notes[0]).to.deep.include({ kind: 'creditNote', issueDate: '2026-11-25' });
		expect(notes[0]!.corrects).to.deep.equal({
			number: 'INV-7',
			issueDate: ON,
			reason: 'Wrong',
			reverseCharge: false
		});
		expect(leftAfter('INV-7', invoice(), []).nothing).to.equal(false);
	});

	it('take it in parts, the last of them the penny that is left', () => {
		// A third is 100.33 and 20.07 of VAT; three of them would be 60.21.
		const { totals, notes, left } = credited(
			invoice(),
			units(0, '1'),
			units(0, '1'),
			units(0, '1'),
			lines(1)
		);
		expect(totals).to.deep.equal([120_40, 120_40, 120_39, 50_00]);
		expect(left.nothing).to.equal(true);
		expect(notes[0]!.corrects!.left).to.deep.equal({
			all: false,
			groups: [
				{ treatment: 'standard', net: 300_99, vat: 60_20 },
				{ treatment: 'exempt', net: 50_00, vat: 0 }
			],
			deduction: null
		});
		expect(notes[2]!.corrects!.left).to.deep.include({
			all: false,
			groups: [
				{ treatment: 'standard', net: 100_33, vat: 20_06 },
				{ treatment: 'exempt', net: 50_00, vat: 0 }
			]
		});
		expect(notes[3]!.corrects!.left).to.deep.include({ all: true });
	});

	it('leave what was not taken, for a note that takes all the rest', () => {
		const { totals, left } = credited(invoice(), lines(1), ALL);
		expect(totals).to.deep.equal([50_00, 361_19]);
		expect(left.nothing).to.equal(true);
		expect(credited(invoice(), lines(1)).left.nothing).to.equal(false);
	});

	it('carry a contractor’s deduction, each its share', () => {
		const who = customerOf('contractor', { ...FULL, vatRegistered: false, cisRegistered: false });
		const { notes } = credited(invoice([ROWS[0]!], who), units(0, '1'), units(0, '2'));
		// 20 % of 300.99 are 60.20; of a third 20.07.
		expect(notes.map(({ corrects }) => corrects!.left!.deduction)).to.deep.equal([60_20, 40_13]);
	});

	it('are refused where they take nothing, or more than there is', () => {
		const of = (...asked: CreditWishes[]) => refused(() => credited(invoice(), ...asked));
		expect(of(lines())).to.deep.equal({ take: 'Choose what is credited.' });
		expect(of(units(0, '3.0001'))).to.have.property('quantity.0');
		expect(of(typed({ take: { 1: 'on' }, amount: { 1: '50.01' } }))).to.have.property('amount.1');
		expect(of(typed({ take: { 1: 'on' }, amount: { 1: '50' } }))).to.equal(null);
		expect(of(typed({ way: 'off', off: '350.99' }))).to.equal(null);
		expect(of(typed({ way: 'off', off: '351.00' }))).to.have.property('off');
		expect(of(lines(1), lines(1))).to.deep.equal({ take: 'Choose what is credited.' });
		const below = invoice([ROWS[0]!, lineOf({ id: 'c', quantity: '-1', unitPrice: '100' })]);
		expect(refused(() => credited(below, lines(1)))).to.deep.equal({
			take: 'That comes to nothing. A credit note takes something off.'
		});
		expect(refused(() => credited(below, lines(0)))!['take']).to.include(
			'more than is left of the invoice'
		);
		expect(refused(() => credited(below, lines(0, 1)))).to.equal(null);
	});
});
