// What the demo business bought: fourteen months of bills, a supplier's credit, driving, a helper, and one receipt as a photo.
import { readFileSync } from 'node:fs';
import { addDays } from '../src/lib/core/calendar/manipulation';
import type { CostCategory } from '../src/lib/core/costs/types';
import { savePurchase } from '../src/lib/server/services/costs/purchases';
import { listSuppliers, saveSupplier } from '../src/lib/server/services/costs/suppliers';
import { addFile } from '../src/lib/server/services/files/files';
import type { Setting, Step } from './work';

const EVERY_MONTH: readonly [
	supplier: string,
	what: string,
	category: CostCategory,
	gross: string,
	vat: string
][] = [
	['Harrowmere Builders Merchants', 'Lime putty, hair, sand', 'goods', '312.48', '52.08'],
	['Lathe Street Fuels', 'Diesel for the van', 'travel', '84.60', '14.10'],
	['Westmarch Telecom', 'Phone and line', 'office', '42.00', '7.00']
];

const ONCE: readonly [
	ago: number,
	supplier: string,
	number: string,
	what: string,
	category: CostCategory,
	gross: string,
	vat: string,
	paid: boolean
][] = [
	[301, 'Westmarch Mutual', 'P-8841', 'Public liability, a year', 'premises', '412.00', '', true],
	[240, 'The Slate Yard', '2291', 'Slate lath and nails', 'goods', '96.00', '16.00', true],
	[152, 'Westmarch Tool Hire', 'H-1107', 'Tower, two weeks', 'goods', '288.00', '48.00', true],
	[96, 'Oakes & Merrow', '4410', 'Accounts and return', 'professional', '540.00', '90.00', true],
	[33, 'Westmarch Tool Hire', 'H-1240', 'Mixer, a week', 'goods', '118.80', '19.80', true],
	[12, 'Staithe Timber & Lime', 'ST-552', 'Laths, limewash', 'goods', '214.20', '35.70', false],
	[
		4,
		'Harrowmere Builders Merchants',
		'HB-9120',
		'Hydraulic lime',
		'goods',
		'156.00',
		'26.00',
		false
	]
];

export function costSteps({ world, today, morning }: Setting): Step[] {
	const steps: Step[] = [];
	const at = (ago: number, minutes: number, run: () => Promise<void> | void) =>
		steps.push({ at: morning(ago, minutes), run: async () => void (await run()) });
	const bill = (key: string, ago: number, values: object) =>
		savePurchase(world, `demo-cost:${key}`, null, 0, {
			kind: 'bill',
			date: addDays(today, -ago),
			paidOn: addDays(today, -ago),
			reclaim: true,
			centre: 'category' in values && values.category === 'travel' ? 'Van' : '',
			...values
		});
	for (let month = 13; month >= 0; month--)
		for (const [index, [supplier, description, category, gross, vat]] of EVERY_MONTH.entries()) {
			const ago = month * 30 + 6 + index * 3;
			// A little more each month, to the penny of a sixth.
			const more = (amount: string) => ((Number(amount) * (112 - month)) / 100).toFixed(2);
			const whole = more(gross);
			at(
				ago,
				240 + index,
				() =>
					void bill(`${month}:${index}`, ago, {
						supplier,
						description,
						category,
						gross: whole,
						vat: vat && (Math.floor((Number(whole) * 100) / 6) / 100).toFixed(2)
					})
			);
		}
	for (const [ago, supplier, number, description, category, gross, vat, paid] of ONCE)
		at(
			ago,
			260,
			() =>
				void bill(`once:${ago}`, ago, {
					supplier,
					number,
					description,
					category,
					gross,
					vat,
					reclaim: vat !== '',
					...(paid ? {} : { paidOn: '' })
				})
		);
	at(
		30,
		262,
		() =>
			void bill('credit', 30, {
				kind: 'credit',
				supplier: 'Harrowmere Builders Merchants',
				number: 'HB-C77',
				description: 'Two bags brought back',
				category: 'goods',
				gross: '31.20',
				vat: '5.20'
			})
	);
	for (const ago of [64, 47, 20, 9])
		at(
			ago,
			263,
			() =>
				void bill(`miles:${ago}`, ago, {
					kind: 'mileage',
					description: 'Harrowmere to Castle Orme and back, to look at a ceiling',
					category: 'travel',
					miles: String(22 + ago),
					reclaim: false
				})
		);
	at(18, 264, () => {
		bill('helper', 18, {
			supplier: 'Joss Amadi',
			description: 'Three days at Mill Yard',
			category: 'subcontractors',
			gross: '420.00',
			vat: '',
			reclaim: false
		});
		const helper = listSuppliers(world.db).find(({ name }) => name === 'Joss Amadi')!;
		saveSupplier(world, helper.id, {
			name: 'Joss Amadi',
			subcontractor: true,
			category: 'subcontractors'
		});
	});
	at(2, 265, async () => {
		const id = bill('photo', 2, {
			supplier: 'Castle Orme Paints',
			description: 'Limewash, scrim',
			category: 'goods',
			gross: '64.80',
			vat: '10.80'
		});
		await addFile(
			world,
			{ to: 'purchase', id },
			'receipt.jpg',
			readFileSync('tests/fixtures/receipts/06.jpg')
		);
	});
	return steps;
}
