// Income categories and cost centres: from the price list, the job and the line into reports, lists and the pack, to the penny.
import { expect } from 'chai';
import Papa from 'papaparse';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { spread, spreadByTag } from '../../../../src/lib/core/reports/tags';
import { FieldError } from '../../../../src/lib/core/refusals';
import { readView } from '../../../../src/lib/core/lists/address';
import { INVOICES } from '../../../../src/lib/core/lists/invoices';
import { billLines, billablesOf } from '../../../../src/lib/core/jobs/billing';
import {
	addLineTag,
	archiveLineTag,
	lineTagsInUse
} from '../../../../src/lib/server/services/business/lineTags';
import { savePurchase } from '../../../../src/lib/server/services/costs/purchases';
import { readList } from '../../../../src/lib/server/services/desk/lists/engine';
import { INVOICE_LIST } from '../../../../src/lib/server/services/desk/lists/invoices';
import { accountantPack } from '../../../../src/lib/server/services/reports/pack';
import { profitOf } from '../../../../src/lib/server/services/reports/reports';
import { payByHand } from '../../../support/money';
import { unzip } from '../../../support/unzip';
import { HOUSEHOLD, issued, line, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const YEAR = { from: '2026-01-01', to: '2026-12-31' };
const firm = { ...HOUSEHOLD, name: 'Corvane Dairy Ltd', kind: 'business' as const };

describe('an amount spread by weights', () => {
	it('adds up to the penny, each part within a penny of its share, weights below zero too', () => {
		fc.assert(
			fc.property(
				fc.bigInt({ min: -1_000_000n, max: 1_000_000n }),
				fc.array(fc.bigInt({ min: -50_000n, max: 100_000n }), { minLength: 1, maxLength: 12 }),
				(amount, weights) => {
					const parts = spread(amount, weights);
					const whole = weights.reduce((a, b) => a + b, 0n);
					expect(parts.reduce((a, b) => a + b, 0n)).to.equal(amount);
					if (whole === 0n) return;
					parts.forEach((part, index) => {
						const exact = (Number(amount) * Number(weights[index]!)) / Number(whole);
						expect(Math.abs(Number(part) - exact)).to.be.at.most(1 + Math.abs(exact) * 1e-9);
					});
				}
			),
			{ seed: 11 }
		);
		expect([...spreadByTag(0n, [])]).to.deep.equal([]);
	});
});

describe('the lists themselves', () => {
	it('take each name once, bring back what was archived, and offer the others', () => {
		const id = addLineTag(world, 'income', { name: ' Repairs ' });
		addLineTag(world, 'centre', { name: 'repairs' });
		expect(() => addLineTag(world, 'income', { name: 'REPAIRS' })).to.throw(FieldError);
		expect(() => addLineTag(world, 'income', { name: '' })).to.throw(FieldError);
		archiveLineTag(world, id, true);
		archiveLineTag(world, id, true);
		expect(lineTagsInUse(world.db)).to.deep.equal({ income: [], centre: ['repairs'] });
		expect(addLineTag(world, 'income', { name: 'repairs' })).to.equal(id);
		expect(lineTagsInUse(world.db).income).to.deep.equal(['Repairs']);
		expect(() => archiveLineTag(world, 99, true)).to.throw(/not here/);
	});
});

describe('what lines say', () => {
	const rows = [
		{ ...line('a', 'Cornice', '100'), income: 'New work', centre: 'Workshop' },
		{ ...line('b', 'Patch', '33.33'), income: 'Repairs' },
		line('c', 'Tea', '10')
	];

	it('is what was earned by category and by centre, less its costs; nothing is lost of what says nothing', async () => {
		const { id } = await issued(world, firm, { rows, discount: '10%' });
		await issued(world, HOUSEHOLD, { rows: [line('x', 'Plain', '50')] });
		savePurchase(world, 'k', null, 0, {
			kind: 'bill',
			description: 'Bench',
			date: '2026-11-02',
			paidOn: '2026-11-02',
			category: 'goods',
			centre: 'Workshop',
			gross: '120',
			vat: '20',
			reclaim: true
		});
		const byInvoice = await profitOf(world, YEAR, 'invoice');
		expect(byInvoice.byIncome.map(({ name, amount }) => [name, amount])).to.deep.equal([
			['New work', 90_00n],
			['', 50_00n + 9_00n],
			['Repairs', 30_00n]
		]);
		expect(byInvoice.byCentre).to.deep.equal([
			{ name: 'Workshop', income: 90_00n, costs: 100_00n },
			{ name: '', income: 89_00n, costs: 0n }
		]);
		// A third of 154.80 with VAT: 43.00 without.
		payByHand(world, id, '51.60');
		const byMoney = await profitOf(world, YEAR, 'cash');
		expect(byMoney.income).to.equal(43_00n);
		expect(byMoney.byIncome.map(({ name, amount }) => [name, amount])).to.deep.equal([
			['New work', 30_00n],
			['Repairs', 10_00n],
			['', 3_00n]
		]);
	});

	it('is found in the list of invoices, and stands on each line of the pack, which adds up', async () => {
		await issued(world, firm, { rows, discount: '10%' });
		await issued(world, HOUSEHOLD, { rows: [line('x', 'Plain', '50')] });
		const view = readView(INVOICES, new URLSearchParams('f=income.has.repairs&c=income,centre'));
		const { rows: found } = readList(world, INVOICE_LIST, view, null);
		expect(found).to.have.length(1);
		const files = await unzip(
			Buffer.from(await new Response(await accountantPack(world, YEAR, 'invoice')).arrayBuffer())
		);
		const { data } = Papa.parse<Record<string, string>>(files.get('sales-lines.csv')!.toString(), {
			header: true,
			skipEmptyLines: true
		});
		expect(
			data.map((row) => [row['Line'], row['Income category'], row['Cost centre'], row['Net']])
		).to.deep.equal([
			['1', 'New work', 'Workshop', '90.00'],
			['2', 'Repairs', '', '30.00'],
			['3', '', '', '9.00'],
			['1', '', '', '50.00']
		]);
	});

	it('goes with a job’s lines onto its bill: one line for all of them says what they agree on', () => {
		const agreed = (id: number, income: string, centre: string) => ({
			id,
			kind: 'labour' as const,
			description: 'Work',
			quantity: '1',
			unit: '',
			unitPrice: '10',
			vat: 'standard' as const,
			vatReason: '',
			discount: '',
			cost: '',
			extra: false,
			income,
			centre
		});
		const billables = billablesOf({
			lines: [agreed(1, 'Repairs', 'Van'), agreed(2, 'Repairs', '')],
			time: [],
			costs: []
		});
		const made = (shape: 'lines' | 'single') =>
			billLines(billables, shape, { jobId: 1, newId: () => 'a', workDone: null, label: () => 'J' });
		expect(made('lines').map(({ income, centre }) => [income, centre])).to.deep.equal([
			['Repairs', 'Van'],
			['Repairs', undefined]
		]);
		expect(made('single')[0]).to.include({ income: 'Repairs' }).and.not.have.property('centre');
	});
});
