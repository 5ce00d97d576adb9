// What is left of a line, and what a part of it comes to: every bound from both sides, every amount by hand.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { computeInvoice } from '../../../../src/lib/core/figures/invoice';
import { formatDecimal, parseDecimal } from '../../../../src/lib/core/money/decimal';
import { FieldError } from '../../../../src/lib/core/refusals';
import { GB } from '../../../../src/lib/core/regimes/gb';
import {
	amountOff,
	creditParts,
	creditSheet,
	leftOnLines,
	takesAll,
	type CreditWish,
	type LeftLine
} from '../../../../src/lib/core/sheet/credit';
import type { CreditedPart } from '../../../../src/lib/core/documents/types';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';
import type { Sheet, SheetRow } from '../../../../src/lib/core/sheet/types';
import { customerOf, FULL, lineOf, readWith } from '../../../support/sheets';

const sheetOf = (rows: SheetRow[], more: Partial<Sheet> = {}): Sheet => ({
	...blankSheet(),
	...more,
	rows
});
function leftOf(
	rows: SheetRow[],
	more: Partial<Sheet> = {},
	earlier: CreditedPart[] = []
): LeftLine[] {
	const { input } = readWith(customerOf('contractor', FULL), { rows, ...more });
	const figures = computeInvoice(input!, GB);
	return leftOnLines({ sheet: sheetOf(rows, more) }, input!, figures, earlier);
}
const units = (quantity: string, position = 0): CreditWish => ({
	position,
	quantity: parseDecimal(quantity)!
});
const part = (of: Partial<CreditedPart>): CreditedPart => ({
	position: 0,
	quantity: null,
	net: 0,
	retention: 0,
	taxable: 0,
	cost: null,
	again: true,
	...of
});
const wrong = (work: () => unknown): Record<string, string> => {
	try {
		work();
		return {};
	} catch (error) {
		return (error as FieldError).fields;
	}
};

describe('what is left of a line', () => {
	it('is what it was less each part, whatever the decimals of their quantities', () => {
		const [left] = leftOf([lineOf({ quantity: '10', unitPrice: '40' })], {}, [
			part({ quantity: '2.5', net: 100_00, taxable: 100_00 }),
			part({ net: 50_00, taxable: 50_00 }),
			part({ position: 1, quantity: '1', net: 9_00, taxable: 9_00 })
		]);
		expect([formatDecimal(left!.quantity), left!.net, left!.taxable]).to.deep.equal([
			'7.5',
			250_00n,
			250_00n
		]);
		const [fine] = leftOf([lineOf({ quantity: '0.75' })], {}, [part({ quantity: '0.5' })]);
		expect(formatDecimal(fine!.quantity)).to.equal('0.25');
	});

	it('counts of its cost what does not wait for the release of what is held back', () => {
		const rows = [lineOf({ kind: 'materials', cost: '33.33' })];
		expect(
			leftOf(rows, { retention: '5' }).map(({ cost, retention, taxable }) => [
				cost,
				retention,
				taxable
			])
		).to.deep.equal([[31_66n, 5_00n, 95_00n]]);
		expect(leftOf(rows, { retention: '5' }, [part({ cost: 10_00 })])[0]!.cost).to.equal(21_66n);
		expect(leftOf([lineOf()])[0]!.cost).to.equal(null);
	});

	it('is nothing only where net and what was due are taken', () => {
		const left = leftOf([lineOf(), lineOf({ id: 'b' })], { discount: '200' });
		expect(left.map(({ net, taxable }) => [net, taxable])).to.deep.equal([
			[100_00n, 0n],
			[100_00n, 0n]
		]);
		const all = [part({ net: 100_00 }), part({ position: 1, net: 100_00 })];
		expect(takesAll(left, all)).to.equal(true);
		expect(takesAll(left, all.slice(1))).to.equal(false);
		expect(takesAll(leftOf([lineOf()]), [part({ net: 100_00, taxable: 99_99 })])).to.equal(false);
	});
});

describe('a part of a line', () => {
	const ten = () => leftOf([lineOf({ quantity: '10', unitPrice: '33.33' })]);

	it('is at most what is left, above nothing, and of its sign', () => {
		for (const quantity of ['0', '-1', '10.0001', '11'])
			expect(
				Object.keys(wrong(() => creditParts(ten(), [units(quantity)], true))),
				quantity
			).to.deep.equal(['quantity.0']);
		expect(wrong(() => creditParts(ten(), [units('11')], true))['quantity.0']).to.match(
			/to 10: so many are left/
		);
		for (const quantity of ['0.0001', '10'])
			expect(
				wrong(() => creditParts(ten(), [units(quantity)], true)),
				quantity
			).to.deep.equal({});
		const negative = leftOf([
			lineOf({ id: 'big', unitPrice: '900' }),
			lineOf({ quantity: '-4', unitPrice: '25' })
		]);
		expect(creditParts(negative, [units('-1', 1)], true)[0]).to.include({
			net: -25_00,
			taxable: -25_00,
			quantity: '-1'
		});
		for (const quantity of ['1', '-4.1', '0'])
			expect(
				Object.keys(wrong(() => creditParts(negative, [units(quantity, 1)], true)))
			).to.deep.equal(['quantity.1']);
		expect(
			wrong(() => creditParts(negative, [{ position: 1, amount: 1n }], true))['amount.1']
		).to.match(/whole line/);
	});

	it('by units takes its share of everything, and goes back to its job where that is said', () => {
		const left = leftOf(
			[lineOf({ kind: 'materials', quantity: '3', unitPrice: '33.33', cost: '50' })],
			{ discount: '10%', retention: '5' }
		);
		// 99.99 less 10.00 less 4.50: 85.49; a third of each, the cost 50 less 2.50.
		expect(creditParts(left, [units('1')], false)).to.deep.equal([
			{
				position: 0,
				quantity: '1',
				net: 33_33,
				retention: 1_50,
				taxable: 28_50,
				cost: 15_83,
				again: false
			}
		]);
		expect(creditParts(left, [{ position: 0 }], true)[0]).to.include({
			quantity: '3',
			net: 99_99,
			taxable: 85_49,
			cost: 47_50,
			again: true
		});
	});

	it('by an amount takes no units and no cost, and never goes back', () => {
		const left = leftOf(
			[lineOf({ kind: 'materials', quantity: '3', unitPrice: '100', cost: '50' })],
			{ retention: '5' }
		);
		expect(creditParts(left, [{ position: 0, amount: 28_50n }], true)).to.deep.equal([
			{
				position: 0,
				quantity: null,
				net: 30_00,
				retention: 1_50,
				taxable: 28_50,
				cost: 0,
				again: false
			}
		]);
		for (const amount of [0n, -1n, 285_01n])
			expect(
				Object.keys(wrong(() => creditParts(left, [{ position: 0, amount }], true)))
			).to.deep.equal(['amount.0']);
		expect(wrong(() => creditParts(left, [{ position: 0, amount: 285_00n }], true))).to.deep.equal(
			{}
		);
	});

	it('of a line of which nothing is left, or that is none, is left out', () => {
		const left = leftOf([lineOf()], {}, [part({ quantity: '1', net: 100_00, taxable: 100_00 })]);
		expect(creditParts(left, [{ position: 0 }, { position: 7 }], true)).to.deep.equal([]);
	});

	it('of an amount off the whole is shared by what is left, and never of a line below zero', () => {
		const left = leftOf([
			lineOf({ unitPrice: '300' }),
			lineOf({ id: 'b', quantity: '-1', unitPrice: '50' }),
			lineOf({ id: 'c', unitPrice: '100' })
		]);
		expect(amountOff(left, 100_00n)).to.deep.equal([
			{ position: 0, amount: 75_00n },
			{ position: 2, amount: 25_00n }
		]);
		expect(wrong(() => amountOff(left, 350_01n))).to.have.keys('off');
		expect(wrong(() => amountOff(left, 350_00n))).to.deep.equal({});
		expect(wrong(() => amountOff(left, 0n))).to.have.keys('off');
	});
});

describe('the sheet of a credit note', () => {
	const rows: SheetRow[] = [
		{ id: 'h1', type: 'heading', text: 'Hall' },
		lineOf({
			quantity: '3',
			unit: 'm',
			unitPrice: '0.333',
			jobId: 4,
			bills: [{ type: 'line', id: 9 }],
			stageLineId: 9
		}),
		{ id: 'h2', type: 'heading', text: 'Attic' },
		lineOf({ id: 'b', unitPrice: '100', discount: '5%' })
	];
	const credited = (...wishes: CreditWish[]) => {
		const left = leftOf(rows);
		return creditSheet(
			sheetOf(rows, { discount: '1', retention: '5' }),
			left,
			creditParts(left, wishes, true)
		);
	};

	it('keeps the headings over what is left under them, and bills nothing', () => {
		const sheet = credited(units('3'));
		expect(sheet.rows.map(({ id }) => id)).to.deep.equal(['h1', 'a']);
		expect([sheet.discount, sheet.retention]).to.deep.equal(['', '']);
		expect(sheet.rows[1]).to.deep.equal(
			lineOf({ quantity: '3', unit: 'm', unitPrice: '0.333', jobId: 4 })
		);
		expect(credited({ position: 1 }).rows.map(({ id }) => id)).to.deep.equal(['h2', 'b']);
	});

	it('shows a discount where the price is not all that was due, and one at its sum where no price fits', () => {
		expect(credited({ position: 1 }).rows[1]).to.include({
			quantity: '1',
			unitPrice: '100',
			discount: '5.00'
		});
		// Two of three at 0.333 are 0.67 at their price, and 0.67 of 1.00 that is left.
		expect(credited(units('2')).rows[1]).to.include({
			quantity: '2',
			unitPrice: '0.333',
			discount: ''
		});
		const left = leftOf([lineOf({ quantity: '3', unit: 'm', unitPrice: '0.335' })]);
		// 1.01 for three: one is 0.34, and 0.335 rounds to 0.34 too; of the two left 0.67, which no two prices make.
		const [first] = creditParts(left, [units('1')], true);
		const rest = leftOf([lineOf({ quantity: '3', unit: 'm', unitPrice: '0.335' })], {}, [
			{ ...first!, taxable: 33, net: 33 }
		]);
		const sheet = creditSheet(
			sheetOf([lineOf({ quantity: '3', unit: 'm', unitPrice: '0.335' })]),
			rest,
			creditParts(rest, [units('1')], true)
		);
		expect(sheet.rows[0]).to.include({ quantity: '1', unitPrice: '0.335', discount: '' });
		const last = creditSheet(
			sheetOf([lineOf({ quantity: '3', unit: 'm', unitPrice: '0.335' })]),
			rest,
			creditParts(rest, [units('2')], true)
		);
		expect(last.rows[0]).to.include({
			description: 'Render (2 of 3 m)',
			quantity: '1',
			unit: '',
			unitPrice: '0.68'
		});
	});

	it('says of a lower price that it is one', () => {
		expect(credited({ position: 1, amount: 20_00n }).rows[1]).to.include({
			description: 'Reduction: Render',
			quantity: '1',
			unit: '',
			unitPrice: '20.00',
			discount: '',
			cost: ''
		});
	});
});
