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
