// Figures of an invoice. Over 300 lines: the list of what is refused and where, one line a field.
import { expect } from 'chai';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';
import { computeInvoice } from '../../../src/lib/core/figures/invoice';
import { readInvoiceInput } from '../../../src/lib/core/figures/input';
import { writeInvoiceFigures } from '../../../src/lib/core/figures/output';
import { FiguresError, LINE_KINDS, type InvoiceFigures } from '../../../src/lib/core/figures/types';
import { checkWorking } from '../../../src/lib/core/figures/workings';
import { GB } from '../../../src/lib/core/regimes/gb';

interface Case {
	name: string;
	input: Record<string, unknown>;
	output?: object;
	error?: { path: string };
}
const cases = ['invoice', 'currency'].flatMap(
	(name) => JSON.parse(readFileSync(`tests/cases/${name}.json`, 'utf8')) as Case[]
);

function compute(input: unknown): InvoiceFigures {
	return computeInvoice(readInvoiceInput(input), GB);
}

function pathOf(input: unknown): string {
	try {
		compute(input);
	} catch (error) {
		if (error instanceof FiguresError) return error.path;
		throw error;
	}
	return 'no error';
}

const household = {
	regime: 'GB',
	date: '2026-11-02',
	currency: 'GBP',
	seller: { vatRegistered: true },
	customer: { kind: 'household' },
	lines: [{ kind: 'labour', quantity: '1', unitPrice: '100', vat: 'standard' }]
};
const contractor = {
	...household,
	customer: { kind: 'contractor', vatRegistered: true, cisRegistered: true },
	cisRate: '20'
};

describe('figures of an invoice', () => {
	describe('computed examples', () => {
		for (const { name, input, output, error } of cases) {
			it(name, () => {
				if (error) expect(pathOf(input)).to.equal(error.path);
				else expect(writeInvoiceFigures(compute(input))).to.deep.equal(output);
			});
		}
	});

	describe('input that is refused, and where', () => {
		const line = household.lines[0]!;
		const refused: [string, unknown, string][] = [
			['no object', 'twelve', ''],
			['a missing field', { ...household, date: undefined }, 'date'],
			['an unknown field', { ...household, colour: 'red' }, 'colour'],
			[
				'an unknown field deep inside',
				{ ...household, lines: [{ ...line, discount: { percent: '5', why: '' } }] },
				'lines.0.discount.why'
			],
			['a day that does not exist', { ...household, date: '2026-02-29' }, 'date'],
			['no lines', { ...household, lines: [] }, 'lines'],
			[
				'a number instead of a string',
				{ ...household, lines: [{ ...line, quantity: 2 }] },
				'lines.0.quantity'
			],
			[
				'an exponent',
				{ ...household, lines: [{ ...line, unitPrice: '1e3' }] },
				'lines.0.unitPrice'
			],
			[
				'a line break after the digits',
				{ ...household, lines: [{ ...line, quantity: '2\n' }] },
				'lines.0.quantity'
			],
			[
				'digits of another script',
				{ ...household, lines: [{ ...line, quantity: '٢' }] },
				'lines.0.quantity'
			],
			[
				'five decimals, zeros though they are',
				{ ...household, lines: [{ ...line, quantity: '1.00000' }] },
				'lines.0.quantity'
			],
			[
				'a negative price',
				{ ...household, lines: [{ ...line, unitPrice: '-1' }] },
				'lines.0.unitPrice'
			],
			[
				'a percentage above 100',
				{ ...household, retention: { percent: '100.01' } },
				'retention.percent'
			],
			['a retention without its percentage', { ...household, retention: {} }, 'retention.percent'],
			['a discount of neither kind', { ...household, discount: {} }, 'discount'],
			[
				'a discount on a negative quantity, be it 0',
				{ ...household, lines: [{ ...line, quantity: '-1', discount: { amount: '0' } }] },
				'lines.0.discount'
			],
			[
				'a cost on a levy',
				{ ...contractor, lines: [{ ...line, kind: 'levy', cost: '1' }] },
				'lines.0.cost'
			],
			[
				'no VAT treatment of a registered seller',
				{ ...household, lines: [{ ...line, vat: null }] },
				'lines.0.vat'
			],
			[
				'a retention on prices including VAT',
				{ ...household, pricesIncludeVat: true, retention: { percent: '5' } },
				'retention'
			],
			[
				'a discount where the lines are below zero',
				{ ...household, lines: [{ ...line, quantity: '-1' }], discount: { amount: '0' } },
				'discount'
			],
			[
				'prices including VAT of a seller that is not registered',
				{ ...household, seller: { vatRegistered: false }, pricesIncludeVat: true },
				'pricesIncludeVat'
			],
			[
				'reverse charge of a seller that is not registered',
				{ ...contractor, seller: { vatRegistered: false }, reverseCharge: true },
				'reverseCharge'
			],
			[
				'an end user that is no contractor',
				{ ...household, customer: { kind: 'business', endUser: true } },
				'customer.kind'
			]
		];
		for (const [name, input, path] of refused)
			it(`${name}: at ${path || 'the whole'}`, () => expect(pathOf(input)).to.equal(path));
	});

	it('takes null for an optional field as absent', () => {
		const nulls = {
			pricesIncludeVat: null,
			vatRounding: null,
			contract: null,
			cisRate: null,
			reverseCharge: null,
			discount: null,
			retention: null
		};
		expect(writeInvoiceFigures(compute({ ...household, ...nulls }))).to.deep.equal(
			writeInvoiceFigures(compute(household))
		);
	});

	it('reads a line as large as one likes, exactly', () => {
		const huge = {
			...household,
			lines: [
				{
					kind: 'labour',
					quantity: '123456789012345678901234567890',
					unitPrice: '0.0001',
					vat: 'zero'
				}
			]
		};
		expect(writeInvoiceFigures(compute(huge)).total).to.equal('12345678901234567890123456.79');
	});

	describe('rounding VAT down', () => {
		const down = (lines: [string, string][]) =>
			writeInvoiceFigures(
				compute({
					...household,
					customer: { kind: 'business' },
					vatRounding: 'down',
					lines: lines.map(([unitPrice, vat]) => ({
						kind: 'labour',
						quantity: '1',
						unitPrice,
						vat
					}))
				})
			);
		it('gives the penny of the total to the rate that lost most', () => {
			expect(
				down([
					['0.04', 'standard'],
					['0.19', 'reduced']
				]).vat.map((group) => group.vat)
			).to.deep.equal(['0.00', '0.01']);
		});
		it('never exceeds the exact VAT', () =>
			expect(down([['0.04', 'standard']]).vatCharged).to.equal('0.00'));
	});

	describe('decisions', () => {
		it('say why the reverse charge applies, and what would turn it', () => {
			const { reverseCharge } = compute(contractor).decisions;
			expect(reverseCharge.answer).to.equal(true);
			expect(reverseCharge.reasons.every((reason) => reason.holds)).to.equal(true);
			expect(reverseCharge.wouldChange).to.not.equal([]);
		});
		it('name the first condition that fails', () => {
			const { reverseCharge } = compute({
				...contractor,
				customer: { ...contractor.customer, endUser: true }
			}).decisions;
			expect(reverseCharge.conclusion).to.contain('end user');
			expect(reverseCharge.reasons.filter((reason) => !reason.holds)).to.have.length(1);
		});
		it('call a deduction without a known rate likely, not absent', () => {
			const { deduction } = compute({ ...contractor, cisRate: null }).decisions;
			expect(deduction.answer).to.equal(false);
			expect(deduction.conclusion).to.contain('rate is not known');
		});
	});
});

/** Any invoice whose input does not contradict itself. */
const anyInput = fc
	.record({
		kind: fc.constantFrom('household', 'business', 'contractor'),
		registered: fc.boolean(),
		/** Millionths of a pound for one euro; null in sterling. */
		rate: fc.option(fc.integer({ min: 1, max: 2_000_000 })),
		vatRegistered: fc.boolean(),
		cisRegistered: fc.boolean(),
		endUser: fc.boolean(),
		cisRate: fc.constantFrom('0', '20', '30', null),
		contract: fc.constantFrom('construction', 'minor', 'none'),
		includes: fc.boolean(),
		down: fc.boolean(),
		discount: fc.option(fc.integer({ min: 0, max: 100 })),
		retention: fc.option(fc.integer({ min: 0, max: 100 })),
		lines: fc.array(
			fc.record({
				kind: fc.constantFrom(...LINE_KINDS),
				quantity: fc.integer({ min: 0, max: 10_000_000 }).map((n) => (n / 10_000).toFixed(4)),
				unitPrice: fc.integer({ min: 0, max: 100_000_000 }).map((n) => (n / 10_000).toFixed(4)),
				vat: fc.constantFrom('standard', 'reduced', 'zero', 'exempt', 'outside', 'noSupply'),
				percent: fc.option(fc.integer({ min: 0, max: 100 })),
				cost: fc.option(fc.integer({ min: 0, max: 10_000_000 }))
			}),
			{ minLength: 1, maxLength: 12 }
		)
	})
	.map((given) => {
		const contractor = given.kind === 'contractor';
		const household = given.kind === 'household';
		const reversed =
			contractor &&
			given.vatRegistered &&
			given.cisRegistered &&
			!given.endUser &&
			given.contract === 'construction';
		const includes = given.registered && given.includes && !reversed;
		return {
			regime: 'GB',
			date: '2026-11-02',
			currency: given.rate === null ? 'GBP' : 'EUR',
			sterlingRate: given.rate === null ? null : (given.rate / 1e6).toFixed(6),
			seller: { vatRegistered: given.registered },
			customer: {
				kind: given.kind,
				vatRegistered: !household && given.vatRegistered,
				cisRegistered: !household && given.cisRegistered,
				endUser: contractor && given.endUser
			},
			contract: given.contract,
			cisRate: contractor && given.rate === null ? given.cisRate : null,
			pricesIncludeVat: includes,
			vatRounding: given.down && !includes && !household ? 'down' : 'nearest',
			discount: given.discount === null ? null : { percent: String(given.discount) },
			retention: given.retention === null || includes ? null : { percent: String(given.retention) },
			lines: given.lines.map(({ kind, quantity, unitPrice, vat, percent, cost }) => ({
				kind,
				quantity,
				unitPrice,
				vat,
				discount: percent === null ? null : { percent: String(percent) },
				cost:
					cost === null || kind === 'levy' || vat === 'noSupply' ? null : (cost / 100).toFixed(2)
			}))
		};
	});

const sum = (amounts: bigint[]) => amounts.reduce((total, amount) => total + amount, 0n);

describe('properties of every invoice', () => {
	it('its parts add up to its totals, to the penny', () => {
		fc.assert(
			fc.property(anyInput, (input) => {
				const figures = compute(input);
				const { lines, vat } = figures;
				expect(sum(lines.map((line) => line.net))).to.equal(figures.linesTotal);
				expect(sum(lines.map((line) => line.documentDiscount))).to.equal(figures.discount);
				expect(sum(lines.map((line) => line.retention))).to.equal(figures.retention);
				expect(sum(lines.map((line) => line.withoutVat))).to.equal(figures.net);
				if (input.seller.vatRegistered)
					expect(sum(vat.map((group) => group.net))).to.equal(figures.net);
				expect(sum(vat.filter((group) => !group.reverseCharge).map((group) => group.vat))).to.equal(
					figures.vatCharged
				);
				expect(figures.net + figures.vatCharged).to.equal(figures.total);
				expect(figures.payable + (figures.cis?.deduction ?? 0n)).to.equal(figures.total);
			})
		);
	});

	it('each amount has workings that give it when they are evaluated again', () => {
		fc.assert(
			fc.property(anyInput, (input) => {
				const figures = compute(input);
				const paths = [
					...figures.lines.flatMap((_, index) =>
						[
							'extension',
							'lineDiscount',
							'net',
							'documentDiscount',
							'retention',
							'taxable',
							'withoutVat'
						].map((field) => `lines.${index}.${field}`)
					),
					...figures.vat.flatMap(({ treatment }) => [
						`vat.${treatment}.net`,
						`vat.${treatment}.vat`
					]),
					...[
						'linesTotal',
						'discount',
						'retention',
						'net',
						'vatCharged',
						'vatReverseCharged',
						'total',
						'payable'
					],
					...(figures.sterling
						? ['sterling.net', 'sterling.vatCharged', 'sterling.vatReverseCharged']
						: []),
					...(figures.cis ? ['cis.gross', 'cis.materials', 'cis.base', 'cis.deduction'] : [])
				];
				for (const path of paths) expect(figures.workings.has(path), path).to.equal(true);
				for (const [path, working] of figures.workings) {
					expect(checkWorking(working), path).to.equal(true);
					expect(GB.rules[working.rule], working.rule).to.not.equal(undefined);
					for (const operand of working.operands) {
						if (operand.as === 'money' && operand.figure)
							expect(figures.workings.get(operand.figure)?.value, operand.figure).to.equal(
								operand.value
							);
					}
				}
			})
		);
	});

	it('without discounts, retention and prices including VAT the order of lines changes no total', () => {
		fc.assert(
			fc.property(anyInput, fc.integer(), (input, seed) => {
				const plain = {
					...input,
					discount: null,
					retention: null,
					pricesIncludeVat: false,
					lines: input.lines.map((line) => ({ ...line, discount: null }))
				};
				const shuffled = {
					...plain,
					lines: [...plain.lines].sort(
						(a, b) =>
							((a.unitPrice.length * 31 + Number(a.quantity) * 7 + seed) % 5) -
							((b.unitPrice.length * 31 + Number(b.quantity) * 7 + seed) % 5)
					)
				};
				const { lines: _, ...totals } = writeInvoiceFigures(compute(plain));
				const { lines: __, ...again } = writeInvoiceFigures(compute(shuffled));
				expect(again).to.deep.equal(totals);
			})
		);
	});

	it('a credit of everything takes exactly everything back', () => {
		fc.assert(
			fc.property(anyInput, (input) => {
				const invoice = compute(input);
				const reverseCharge = input.seller.vatRegistered
					? invoice.decisions.reverseCharge.answer
					: null;
				const credit = compute({ ...input, reverseCharge });
				expect(writeInvoiceFigures(credit)).to.deep.equal(writeInvoiceFigures(invoice));
			})
		);
	});

	it('ten times the price is ten times the money: nothing depends on floating point', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 1e9 }),
				fc.integer({ min: 1, max: 1e6 }),
				(price, quantity) => {
					const at = (unitPrice: string) =>
						compute({
							...household,
							lines: [{ kind: 'labour', quantity: String(quantity), unitPrice, vat: 'zero' }]
						}).total;
					const cents = BigInt(price) * BigInt(quantity);
					expect(at(`${BigInt(price) / 100n}.${String(price % 100).padStart(2, '0')}`)).to.equal(
						cents
					);
				}
			)
		);
	});
});
