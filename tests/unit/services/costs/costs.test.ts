// Costs: their sums, the same bill twice, what they are on a job, private shares, credits, mileage, and photos read here.
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { after, afterEach, beforeEach, describe, it } from 'mocha';
import sharp from 'sharp';
import { eq } from 'drizzle-orm';
import { ConflictError, FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { jobCosts } from '../../../../src/lib/server/db/schema';
import { stopReading } from '../../../../src/lib/server/reading/reader';
import {
	loadPurchase,
	markPaid,
	purchaseForm,
	removePurchase,
	savePurchase
} from '../../../../src/lib/server/services/costs/purchases';
import { inputTax, ownCost } from '../../../../src/lib/server/services/costs/amounts';
import { proposeFrom } from '../../../../src/lib/server/services/costs/receipts';
import {
	archiveSupplier,
	listSuppliers,
	saveSupplier,
	suppliersInUse
} from '../../../../src/lib/server/services/costs/suppliers';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { expectSoundBooks } from '../../../support/books';
import { HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
after(() => stopReading());

let keys = 0;
const BILL = {
	kind: 'bill',
	supplier: 'Harrowmere Builders Merchants',
	number: 'HB-1',
	description: 'Lime putty',
	date: '2026-11-20',
	paidOn: '2026-11-20',
	gross: '120',
	vat: '20',
	reclaim: true,
	category: 'goods'
};
const keep = (more: object = {}, id: number | null = null, version = 0) =>
	savePurchase(world, `k${keys++}`, id, version, { ...BILL, ...more });
const wrong = (work: () => unknown): string[] => {
	try {
		work();
	} catch (error) {
		if (error instanceof FieldError) return Object.keys(error.fields);
		throw error;
	}
	return [];
};
const job = (title = 'Hall') =>
	addJob(world, `j${keys++}`, {
		title,
		customerId: addCustomer(world, { ...HOUSEHOLD, name: `C${keys}` }),
		fixedPrice: false
	});
const onJob = (jobId: number) =>
	world.db
		.select({
			cost: jobCosts.unitCost,
			quantity: jobCosts.quantity,
			chargeable: jobCosts.chargeable
		})
		.from(jobCosts)
		.where(eq(jobCosts.jobId, jobId))
		.all();

describe('a cost', () => {
	it('is split into net and VAT; what of it is its owner’s depends on reclaim and private share', () => {
		const row = (more: object) => loadPurchase(world.db, keep({ ...more, another: true }));
		const all = [
			row({}),
			row({ reclaim: false }),
			row({ privateShare: '25' }),
			row({ reclaim: false, privateShare: '12.5' }),
			row({ kind: 'credit' })
		];
		expect(all.map((one) => [one.net, one.vat, ownCost(one), inputTax(one)])).to.deep.equal([
			[100_00, 20_00, 100_00, 20_00],
			[100_00, 20_00, 120_00, 0],
			[100_00, 20_00, 75_00, 15_00],
			[100_00, 20_00, 105_00, 0],
			[-100_00, -20_00, -100_00, -20_00]
		]);
	});

	it('is refused where it cannot be', () => {
		expect(wrong(() => keep({ gross: '' }))).to.deep.equal(['gross']);
		expect(wrong(() => keep({ gross: '0' }))).to.deep.equal(['gross']);
		expect(wrong(() => keep({ vat: '20.11' }))).to.deep.equal(['vat']);
		expect(wrong(() => keep({ vat: '20.10' }))).to.deep.equal([]);
		expect(wrong(() => keep({ date: '2026-11-25' }))).to.deep.equal(['date']);
		expect(wrong(() => keep({ description: ' ' }))).to.deep.equal(['description']);
		expect(wrong(() => keep({ kind: 'mileage', miles: '' }))).to.deep.equal(['miles']);
		expect(wrong(() => keep({ jobId: job(), privateShare: '5' }))).to.deep.equal(['privateShare']);
		world.end();
		world = makeWorld({ vatRegistered: false, vatNumber: '' });
		expect(wrong(() => keep())).to.deep.equal(['reclaim']);
	});

	it('that is the same bill twice is noticed, by number or by day and sum; ticked, it is another', () => {
		const first = keep();
		expect(wrong(() => keep({ date: '2026-11-19', gross: '5', vat: '' }))).to.deep.equal([
			'another'
		]);
		expect(wrong(() => keep({ number: 'HB-2' }))).to.deep.equal(['another']);
		expect(wrong(() => keep({ number: 'HB-2', gross: '121' }))).to.deep.equal([]);
		expect(wrong(() => keep({ supplier: 'Another' }))).to.deep.equal([]);
		expect(wrong(() => keep({ another: true }))).to.deep.equal([]);
		// Its own change is no other bill; another tab's older state is refused.
		keep({ description: 'Changed', another: true }, first, 1);
		expect(() => keep({ another: true }, first, 1)).to.throw(ConflictError);
		expect(loadPurchase(world.db, first)).to.include({ description: 'Changed', version: 2 });
		const key = 'twice';
		const once = savePurchase(world, key, null, 0, {
			...BILL,
			number: 'HB-9',
			gross: '9',
			vat: ''
		});
		expect(savePurchase(world, key, null, 0, { ...BILL, number: 'HB-9' })).to.equal(once);
	});

	it('is on its job at what it costs, charged on or not; it moves, goes, and comes back with it', () => {
		const [hall, stairs] = [job('Hall'), job('Stairs')] as [number, number];
		const id = keep({ jobId: hall, chargeable: true, markUp: '15' });
		expect(onJob(hall)).to.deep.equal([{ cost: '100.00', quantity: '1', chargeable: true }]);
		keep({ jobId: hall, chargeable: true, markUp: '15', reclaim: false }, id, 1);
		expect(onJob(hall)[0]!.cost).to.equal('120.00');
		keep({ jobId: stairs }, id, 2);
		expect([onJob(hall).length, onJob(stairs).length]).to.deep.equal([0, 1]);
		removePurchase(world, id, true);
		removePurchase(world, id, true);
		expect(onJob(stairs)).to.deep.equal([]);
		expect(wrong(() => keep())).to.deep.equal([]);
		removePurchase(world, id, false);
		expect(onJob(stairs)).to.have.length(1);
		keep({ jobId: hall, kind: 'credit', number: 'C1', gross: '12', vat: '2' });
		expect(onJob(hall)).to.deep.equal([{ cost: '10.00', quantity: '-1', chargeable: false }]);
	});

	it('stays as it is once its job’s invoice bills it', () => {
		const hall = job();
		const id = keep({ jobId: hall, chargeable: true });
		billJob(world, hall, 'lines', 'bill');
		expect(() => keep({ jobId: hall, chargeable: true, gross: '240', vat: '40' }, id, 1)).to.throw(
			RefusedError
		);
		expect(() => removePurchase(world, id, true)).to.throw(RefusedError);
		expect(loadPurchase(world.db, id)).to.include({ net: 100_00, version: 1, removedAt: null });
	});

	it('of driving counts the miles of its tax year, in the order they were driven', () => {
		const drive = (date: string, miles: string) =>
			loadPurchase(
				world.db,
				keep({
					kind: 'mileage',
					supplier: '',
					number: '',
					gross: '',
					vat: '',
					reclaim: false,
					date,
					miles
				})
			);
		expect(drive('2026-04-05', '9999').net).to.equal(4499_55);
		expect(drive('2026-04-06', '9990').net).to.equal(4495_50);
		expect(drive('2026-05-01', '20').net).to.equal(10 * 45 + 10 * 25);
		expect(drive('2026-04-06', '4').net).to.equal(4 * 45);
	});

	it('is paid on a day, and its form has what was typed', () => {
		const id = keep({ paidOn: '', supplier: ' orme hardware ' });
		expect(purchaseForm(world.db, id)).to.include({
			supplier: 'orme hardware',
			gross: '120.00',
			vat: '20.00',
			paidOn: ''
		});
		markPaid(world, id, '2026-11-22');
		expect(loadPurchase(world.db, id).paidOn).to.equal('2026-11-22');
	});
});

describe('suppliers', () => {
	it('are one of each name, keep what they are usually for, and come back when they are named', () => {
		keep();
		keep({ supplier: 'HARROWMERE builders merchants', number: 'HB-7', gross: '6', vat: '1' });
		const [one] = listSuppliers(world.db);
		expect(one).to.include({ bills: 2, spent: 126_00, category: 'goods' });
		saveSupplier(world, one!.id, { name: 'HBM', vatNumber: 'GB123456782', subcontractor: true });
		expect(
			wrong(() => saveSupplier(world, one!.id, { name: 'HBM', vatNumber: '12' }))
		).to.deep.equal(['vatNumber']);
		archiveSupplier(world, one!.id, true);
		expect(suppliersInUse(world.db)).to.deep.equal([]);
		keep({ supplier: 'hbm', number: 'X', gross: '7', vat: '' });
		expect(suppliersInUse(world.db).map(({ id }) => id)).to.deep.equal([one!.id]);
	});
});

describe('a photo of a receipt', () => {
	it('is read on this machine, straight or turned by seven degrees; a cat is none', async () => {
		const photo = (name: string) => readFileSync(`tests/fixtures/receipts/${name}`);
		const made = JSON.parse(photo('expected.json').toString()) as {
			name: string;
			date: string;
			total: number;
		}[];
		for (const name of ['01.jpg', '06.jpg']) {
			const { date, total } = made.find((one) => one.name === name)!;
			const read = await proposeFrom(world, photo(name));
			expect([read.date?.value, read.total?.value], name).to.deep.equal([date, total]);
		}
		const fur = Buffer.from(
			'<svg xmlns="http://www.w3.org/2000/svg" width="600" height="600"><rect width="600" height="600" fill="#a87"/><circle cx="300" cy="330" r="160" fill="#432"/><path d="M180 220 L200 60 L290 190 Z M420 220 L400 60 L310 190 Z" fill="#432"/></svg>'
		);
		expect(await proposeFrom(world, await sharp(fur).png().toBuffer())).to.deep.equal({
			date: null,
			total: null,
			vat: null,
			nothing: true
		});
		await proposeFrom(world, Buffer.from('not a picture')).then(
			() => expect.fail('read what is no picture'),
			(error) => expect(error).to.be.instanceOf(FieldError)
		);
	}).timeout(60_000);
});
