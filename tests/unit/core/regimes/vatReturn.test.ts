// The boxes of a VAT period: the computed examples, what is refused and where, and sums that must hold whatever happens.
// Over 300 lines: a case each side of every limit, and what holds whatever happens.
import { expect } from 'chai';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';
import { addDays } from '../../../../src/lib/core/calendar/manipulation';
import { FiguresError } from '../../../../src/lib/core/figures/types';
import { readReturnInput, writeReturn } from '../../../../src/lib/core/regimes/gb/json';
import {
	vatReturn,
	type ReturnInput,
	type ReturnInvoice
} from '../../../../src/lib/core/regimes/gb/vatReturn';

interface Case {
	name: string;
	input: object;
	output?: object;
	error?: { path: string };
}
const cases = JSON.parse(readFileSync('tests/cases/vat.json', 'utf8')) as Case[];
const run = (input: unknown) => writeReturn(vatReturn(readReturnInput(input)));
function pathOf(input: unknown): string {
	try {
		run(input);
	} catch (error) {
		if (error instanceof FiguresError) return error.path;
		throw error;
	}
	return 'no error';
}

const GROUP = { treatment: 'standard', net: '100', vat: '20' };
const INVOICE = {
	id: 'A',
	type: 'invoice',
	taxPoint: '2026-08-05',
	issued: '2026-08-05',
	due: '2026-08-19',
	groups: [GROUP]
};
const CREDIT = { id: 'C', type: 'credit', against: 'A', issued: '2026-09-01', groups: [GROUP] };
const PERIOD = { basis: 'invoice', from: '2026-08-01', to: '2026-10-31' };

describe('the boxes of a VAT period', () => {
	for (const { name, input, output, error } of cases)
		it(name, () => {
			if (error) expect(pathOf(input)).to.equal(error.path);
			else expect(run(input)).to.deep.equal(output);
		});

	const refused: [string, object, string][] = [
		['an end before the beginning', { ...PERIOD, to: '2026-07-31', documents: [] }, 'to'],
		[
			'cash since when, on the other basis',
			{ ...PERIOD, cashFrom: '2026-08-01', documents: [] },
			'cashFrom'
		],
		['an id twice', { ...PERIOD, documents: [INVOICE, INVOICE] }, 'documents.1.id'],
		['no id', { ...PERIOD, documents: [{ ...INVOICE, id: '' }] }, 'documents.0.id'],
		['no group', { ...PERIOD, documents: [{ ...INVOICE, groups: [] }] }, 'documents.0.groups'],
		[
			'a treatment twice',
			{ ...PERIOD, documents: [{ ...INVOICE, groups: [GROUP, GROUP] }] },
			'documents.0.groups.1.treatment'
		],
		[
			'VAT on what is exempt',
			{ ...PERIOD, documents: [{ ...INVOICE, groups: [{ ...GROUP, treatment: 'exempt' }] }] },
			'documents.0.groups.0.vat'
		],
		[
			'reverse charge at the zero rate',
			{
				...PERIOD,
				documents: [
					{ ...INVOICE, groups: [{ treatment: 'zero', net: '1', vat: '0', reverseCharge: true }] }
				]
			},
			'documents.0.groups.0.reverseCharge'
		],
		[
			'a negative total',
			{ ...PERIOD, documents: [{ ...INVOICE, groups: [{ ...GROUP, net: '-20.01' }] }] },
			'documents.0.groups'
		],
		[
			'a credit of nothing',
			{
				...PERIOD,
				documents: [INVOICE, { ...CREDIT, groups: [{ ...GROUP, net: '0', vat: '0' }] }]
			},
			'documents.1.groups'
		],
		[
			'no tax point',
			{ ...PERIOD, documents: [{ ...INVOICE, taxPoint: null }] },
			'documents.0.taxPoint'
		],
		['no due date', { ...PERIOD, documents: [{ ...INVOICE, due: null }] }, 'documents.0.due'],
		[
			'an invoice against one',
			{ ...PERIOD, documents: [{ ...INVOICE, against: 'A' }] },
			'documents.0.against'
		],
		[
			'a credit against none',
			{ ...PERIOD, documents: [INVOICE, { ...CREDIT, against: null }] },
			'documents.1.against'
		],
		[
			'a credit against a credit',
			{ ...PERIOD, documents: [INVOICE, { ...CREDIT, against: 'C' }] },
			'documents.1.against'
		],
		[
			'a credit with a due date',
			{ ...PERIOD, documents: [INVOICE, { ...CREDIT, due: '2026-09-01' }] },
			'documents.1.due'
		],
		[
			'a credit before its invoice',
			{ ...PERIOD, documents: [INVOICE, { ...CREDIT, issued: '2026-08-04' }] },
			'documents.1.issued'
		],
		[
			'a treatment the invoice has not',
			{
				...PERIOD,
				documents: [INVOICE, { ...CREDIT, groups: [{ ...GROUP, reverseCharge: true }] }]
			},
			'documents.1.groups.0.treatment'
		],
		[
			'credits above the invoice, at the last of them',
			{
				...PERIOD,
				documents: [
					INVOICE,
					{ ...CREDIT, issued: '2026-09-02' },
					{ ...CREDIT, id: 'D', groups: [{ ...GROUP, net: '0.01', vat: '0' }] }
				]
			},
			'documents.1.groups'
		],
		[
			'an advance on the day of the tax point',
			{
				...PERIOD,
				documents: [{ ...INVOICE, advances: [{ date: '2026-08-05', amount: '1' }] }]
			},
			'documents.0.advances.0.date'
		],
		[
			'advances above the total',
			{
				...PERIOD,
				documents: [{ ...INVOICE, advances: [{ date: '2026-08-04', amount: '120.01' }] }]
			},
			'documents.0.advances'
		],
		[
			'money for no invoice',
			{
				...PERIOD,
				documents: [INVOICE, CREDIT],
				entries: [{ invoice: 'C', date: '2026-09-01', type: 'payment', amount: '1' }]
			},
			'entries.0.invoice'
		],
		[
			'a negative relief',
			{ ...PERIOD, documents: [], reliefs: [{ date: '2026-09-01', type: 'claim', vat: '-1' }] },
			'reliefs.0.vat'
		]
	];
	for (const [what, input, path] of refused)
		it(`refuse ${what}`, () => expect(pathOf(input)).to.equal(path));
});

const day = fc.integer({ min: 0, max: 400 }).map((n) => addDays('2025-06-01', n));
const pence = fc.bigInt({ min: 1n, max: 90_000n });
const anyInvoice = fc
	.record({
		net: pence,
		vat: fc.bigInt({ min: 0n, max: 20_000n }),
		charged: pence,
		taxPoint: day,
		due: day,
		inAdvance: fc.boolean(),
		credit: fc.option(fc.record({ after: fc.nat(200), part: fc.nat(100) }), { nil: null }),
		entries: fc.array(
			fc.record({
				date: day,
				type: fc.constantFrom('payment' as const, 'refund' as const),
				amount: pence,
				withheld: fc.bigInt({ min: 0n, max: 9_000n })
			}),
			{ maxLength: 6 }
		)
	})
	.map(({ net, vat, charged, credit, ...one }): ReturnInvoice => ({
		id: 'A',
		issued: one.taxPoint,
		advances: [],
		...one,
		groups: [
			{ treatment: 'standard', net, vat, reverseCharge: false },
			{ treatment: 'standard', net: charged, vat: charged / 5n, reverseCharge: true }
		],
		credits:
			credit && credit.part > 0
				? [
						{
							id: 'C',
							issued: addDays(one.taxPoint, credit.after),
							groups: [
								{
									treatment: 'standard',
									net: (net * BigInt(credit.part) + 99n) / 100n,
									vat: (vat * BigInt(credit.part)) / 100n,
									reverseCharge: false
								}
							]
						}
					]
				: []
	}));
const ALL = { from: '2025-01-01', to: '2030-12-31', reliefs: [], costs: [], cashFrom: null };

describe('any invoice, in the periods it touches', () => {
	const sums = (input: ReturnInput) => {
		const { box1, rows } = vatReturn(input);
		return [box1, rows.reduce((sum, row) => sum + row.net, 0n)];
	};

	it('comes to the same in one long period and in the quarters it is cut into', () => {
		fc.assert(
			fc.property(
				anyInvoice,
				fc.constantFrom('invoice' as const, 'cash' as const),
				day,
				(invoice, basis, cut) => {
					const input = { ...ALL, basis, invoices: [invoice] };
					const [first, second] = [
						sums({ ...input, to: cut }),
						sums({ ...input, from: addDays(cut, 1) })
					];
					expect([first[0]! + second[0]!, first[1]! + second[1]!]).to.deep.equal(sums(input));
				}
			)
		);
	});

	it('credited in full and with its money given back, leaves nothing on either basis', () => {
		fc.assert(
			fc.property(
				anyInvoice,
				fc.constantFrom('invoice' as const, 'cash' as const),
				(invoice, basis) => {
					const got = invoice.entries.reduce(
						(sum, one) =>
							one.type === 'payment'
								? sum + one.amount + one.withheld
								: sum - one.amount - one.withheld,
						0n
					);
					const back: ReturnInvoice = {
						...invoice,
						credits: [{ id: 'C', issued: invoice.issued, groups: invoice.groups }],
						entries: [
							...invoice.entries,
							...(got > 0n
								? [{ date: '2029-01-01', type: 'refund' as const, amount: got, withheld: 0n }]
								: [])
						]
					};
					expect(sums({ ...ALL, basis, invoices: [back] })).to.deep.equal([0n, 0n]);
				}
			)
		);
	});

	it('on the cash basis counts its VAT once it is paid, to the penny, and not before', () => {
		fc.assert(
			fc.property(pence, pence, fc.bigInt({ min: 0n, max: 20_000n }), (part, net, vat) => {
				const total = net + vat;
				const first = part < total ? part : total;
				const pay = (date: string, amount: bigint) => ({
					date,
					type: 'payment' as const,
					amount,
					withheld: 0n
				});
				const invoice: ReturnInvoice = {
					id: 'A',
					taxPoint: '2026-01-05',
					issued: '2026-01-05',
					due: '2026-02-05',
					inAdvance: false,
					advances: [],
					credits: [],
					groups: [{ treatment: 'standard', net, vat, reverseCharge: false }],
					entries: [
						pay('2026-03-01', first),
						...(total > first ? [pay('2026-04-01', total - first)] : [])
					]
				};
				const input: ReturnInput = { ...ALL, basis: 'cash', invoices: [invoice] };
				expect(sums({ ...input, to: '2026-02-28' })).to.deep.equal([0n, 0n]);
				expect(sums(input)).to.deep.equal([vat, net]);
				// In between, the share of what came, rounded half up: worked out in doubled whole numbers.
				const [half] = sums({ ...input, to: '2026-03-31' });
				expect(half).to.equal((2n * vat * first + total) / (2n * total));
			})
		);
	});
});

describe('the edges of a period', () => {
	const boxes = (more: object) =>
		run({ ...PERIOD, documents: [], ...more }) as never as Record<string, string>;
	it('may be one day, and have what is on it', () => {
		const day = { basis: 'invoice', from: '2026-08-05', to: '2026-08-05' };
		expect(boxes({ ...day, documents: [INVOICE] })['box1']).to.equal('20.00');
		expect(
			boxes({ ...day, from: '2026-08-06', to: '2026-08-06', documents: [INVOICE] })['box1']
		).to.equal('0.00');
	});
	it('count a cost on the cash basis when it is paid, from the day it began', () => {
		const cost = (date: string, paid: string | null) =>
			boxes({
				basis: 'cash',
				cashFrom: '2026-08-10',
				costs: [{ date, paid, net: '100', vat: '20' }]
			})['box4'];
		// By its day before the change, whenever it was paid.
		expect(cost('2026-08-09', null)).to.equal('20.00');
		expect(cost('2026-08-09', '2026-11-01')).to.equal('20.00');
		expect(cost('2026-08-10', null)).to.equal('0.00');
		expect(cost('2026-08-10', '2026-10-31')).to.equal('20.00');
		expect(cost('2026-08-10', '2026-11-01')).to.equal('0.00');
	});
});
