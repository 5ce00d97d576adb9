// The workings of one invoice that has everything, as an accountant reads them: every label, every figure it leads to.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { computeInvoice } from '../../../../src/lib/core/figures/invoice';
import { readInvoiceInput } from '../../../../src/lib/core/figures/input';
import type { Working } from '../../../../src/lib/core/figures/types';
import { checkWorking } from '../../../../src/lib/core/figures/workings';
import { formatDecimal, formatMoney } from '../../../../src/lib/core/money/decimal';
import { GB } from '../../../../src/lib/core/regimes/gb';

const { workings } = computeInvoice(
	readInvoiceInput({
		regime: 'GB',
		date: '2026-11-02',
		currency: 'GBP',
		seller: { vatRegistered: true },
		customer: { kind: 'contractor', vatRegistered: true, cisRegistered: true, endUser: true },
		cisRate: '20',
		discount: { percent: '10' },
		retention: { percent: '5' },
		lines: [
			{
				kind: 'labour',
				quantity: '10',
				unitPrice: '45',
				vat: 'standard',
				discount: { amount: '50' }
			},
			{ kind: 'materials', quantity: '1', unitPrice: '200', vat: 'standard', cost: '150' },
			{ kind: 'fuel', quantity: '2', unitPrice: '10', vat: 'standard' },
			{ kind: 'levy', quantity: '1', unitPrice: '3', vat: 'standard' }
		]
	}),
	GB
);
const written = (path: string): string => {
	const { label, value, operation, operands } = workings.get(path)!;
	const parts = operands.map((one) =>
		one.as === 'money'
			? `${one.sign === -1 ? '−' : ''}${one.label} ${formatMoney(one.value)}${one.figure ? ` (${one.figure})` : ''}`
			: `${one.label} ${formatDecimal(one.value)}`
	);
	return `${label} ${formatMoney(value)}: ${operation} ${parts.join('; ')}`.trim();
};

describe('the workings of an invoice', () => {
	for (const [path, words] of [
		['lines.0.extension', 'Line 1, before discount 450.00: product Quantity 10; Unit price 45'],
		[
			'lines.0.net',
			'Line 1, net 400.00: sum Before discount 450.00 (lines.0.extension); −less the discount 50.00 (lines.0.lineDiscount)'
		],
		[
			'linesTotal',
			'Sum of the lines 623.00: sum Line 1 400.00 (lines.0.net); Line 2 200.00 (lines.1.net); Line 3 20.00 (lines.2.net); Line 4 3.00 (lines.3.net)'
		],
		[
			'lines.1.taxable',
			'Line 2, taxed now 171.00: sum Net of the line 200.00 (lines.1.net); −less its share of the discount 20.00 (lines.1.documentDiscount); −less its share of what is held back 9.00 (lines.1.retention)'
		],
		['lines.0.lineDiscount', 'Line 1, its discount 50.00: given'],
		['lines.1.lineDiscount', 'Line 2, its discount 0.00: given'],
		[
			'discount',
			'Discount on the whole 62.00: percent Line 1 400.00 (lines.0.net); Line 2 200.00 (lines.1.net); Line 3 20.00 (lines.2.net); Discount 10'
		],
		[
			'lines.1.documentDiscount',
			'Line 2, its share of the discount 20.00: share To share 62.00 (discount); This line 200.00; All lines 620.00'
		],
		['lines.3.documentDiscount', 'Line 4, its share of the discount 0.00: given'],
		[
			'lines.2.retention',
			'Line 3, its share of what is held back 0.90: share To share 27.90 (retention); This line 18.00; All lines 558.00'
		],
		['lines.3.retention', 'Line 4, its share of what is held back 0.00: given'],
		['lines.1.withoutVat', 'Line 2, without VAT 171.00: sum Taxed now 171.00 (lines.1.taxable)'],
		['lines.3.taxable', 'Line 4, taxed now 3.00: sum Net of the line 3.00 (lines.3.net)'],
		['net', 'Net, without VAT 533.10: sum Net at standard 533.10 (vat.standard.net)'],
		['vatCharged', 'VAT charged 106.62: sum VAT at standard 106.62 (vat.standard.vat)'],
		['total', 'Total 639.72: sum Net 533.10 (net); VAT charged 106.62 (vatCharged)'],
		[
			'cis.gross',
			'Without VAT and levy 530.10: limit Net of this document 533.10 (net); −less the levy on line 4 3.00 (lines.3.withoutVat)'
		],
		[
			'cis.materials',
			'Materials, at what they cost you 159.60: limit Line 2, what it cost you 142.50; Line 3, its own price: cost not given 17.10'
		],
		[
			'cis.base',
			'What the deduction is taken from 370.50: sum Without VAT and levy 530.10 (cis.gross); −less materials, at what they cost you 159.60 (cis.materials)'
		],
		[
			'payable',
			'They pay you 565.62: sum Total 639.72 (total); −less the CIS deduction 74.10 (cis.deduction)'
		]
	] as const)
		it(`say how ${path} comes about`, () => expect(written(path)).to.equal(words));

	it('share discount and retention over the lines by what each has, and name whence', () => {
		const source = (path: string) => {
			const [first] = workings.get(path)!.operands;
			return first!.as === 'money' ? first!.figure : undefined;
		};
		expect([
			source('lines.0.documentDiscount'),
			source('lines.0.retention'),
			workings.get('lines.0.retention')!.rule,
			workings.get('lines.0.documentDiscount')!.rule,
			workings.get('lines.3.retention')!.rule
		]).to.deep.equal(['discount', 'retention', 'retention', 'documentDiscount', 'passedOn']);
	});

	it('are found wrong by the check that evaluates them, whatever they say they do', () => {
		const wrong = (path: string, change: Partial<Working> = {}) => {
			const working = workings.get(path)!;
			return checkWorking({ ...working, ...change });
		};
		for (const [path, working] of workings) {
			expect(checkWorking(working), path).to.equal(true);
			if (working.operation === 'given' || working.operation === 'share') continue;
			expect(wrong(path, { value: working.value + 1n }), `${path} a penny off`).to.equal(false);
		}
		expect(wrong('cis.gross', { limits: { atLeast: 600_00n } })).to.equal(false);
		expect(wrong('cis.gross', { limits: { atMost: 1n } })).to.equal(false);
	});
});

describe('the workings of a household’s bill, prices with VAT', () => {
	const { workings: own, figures } = (() => {
		const figures = computeInvoice(
			readInvoiceInput({
				regime: 'GB',
				date: '2026-11-02',
				currency: 'GBP',
				pricesIncludeVat: true,
				seller: { vatRegistered: true },
				customer: { kind: 'household' },
				lines: [
					{
						kind: 'labour',
						quantity: '1',
						unitPrice: '10',
						vat: 'standard',
						discount: { percent: '10' }
					},
					{ kind: 'labour', quantity: '1', unitPrice: '10', vat: 'exempt' },
					{ kind: 'labour', quantity: '1', unitPrice: '10.01', vat: 'standard' }
				]
			}),
			GB
		);
		return { workings: figures.workings, figures };
	})();
	const said = (path: string) => {
		const { label, value, operation, operands } = own.get(path)!;
		return `${label} ${formatMoney(value)}: ${operation} ${operands
			.map(
				(one) =>
					`${one.label} ${one.as === 'money' ? formatMoney(one.value) : formatDecimal(one.value)}`
			)
			.join('; ')}`;
	};
	it('take the VAT off a running sum of each rate, and leave what has none as it is', () => {
		expect(figures.lines.map(({ withoutVat }) => Number(withoutVat))).to.deep.equal([
			750, 1000, 834
		]);
		expect(said('lines.0.lineDiscount')).to.equal(
			'Line 1, its discount 1.00: percent Before discount 10.00; Discount 10'
		);
		expect(said('lines.0.withoutVat')).to.equal(
			'Line 1, without VAT 7.50: sum This rate so far, without VAT 7.50; less the lines before 0.00'
		);
		expect(said('lines.1.withoutVat')).to.equal('Line 2, without VAT 10.00: sum Taxed now 10.00');
		expect(said('lines.2.withoutVat')).to.equal(
			'Line 3, without VAT 8.34: sum This rate so far, without VAT 15.84; less the lines before 7.50'
		);
	});
});

it('VAT rounded down is a penny off at most, or its check says so', () => {
	const working = (value: bigint): Working =>
		({
			path: 'vat.standard.vat',
			label: '',
			rule: '',
			operation: 'roundedDown',
			value,
			operands: [
				{ as: 'money', label: '', value: 10_03n, sign: 1 },
				{ as: 'percent', label: '', value: { units: 20n, scale: 0 } }
			]
		}) as never;
	// 20 % of 10.03 are 2.006.
	expect([199n, 200n, 201n, 202n, 203n].map((value) => checkWorking(working(value)))).to.deep.equal(
		[false, true, true, true, false]
	);
});
