// Jobs begun in one press, copied, brought in from a file; how they stand until they are paid; and what of them is unbilled.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError } from '../../../../src/lib/core/refusals';
import { unbilledOf, billJob } from '../../../../src/lib/server/services/billing/toBill';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { beginJob, copyJob } from '../../../../src/lib/server/services/jobs/begin';
import { importJobs, previewJobs } from '../../../../src/lib/server/services/jobs/file';
import { saveJob, loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { jobCounts, listJobs } from '../../../../src/lib/server/services/jobs/list';
import { saveTime } from '../../../../src/lib/server/services/jobs/time';
import { saveVisit, visitsOn } from '../../../../src/lib/server/services/jobs/visits';
import { jobWork } from '../../../../src/lib/server/services/jobs/work';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, payByHand } from '../../../support/money';
import { CONTRACTOR, HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let customerId: number;
beforeEach(() => {
	world = makeWorld();
	customerId = addCustomer(world, HOUSEHOLD);
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const begin = (more: object = {}, key = 'press') =>
	beginJob(world, key, { title: 'Hall ceiling', customerId, ...more });
const standing = (id: number) => listJobs(world).rows.find((row) => row.id === id)!.standing;
const bill = async (id: number) => {
	moveJob(world, id, 'finished');
	const draft = billJob(world, id, 'lines', `bill ${id}`);
	return issueInvoice(world, draft, loadDraft(world.db, draft).version);
};

describe('a job in one press', () => {
	it('has its visit and its price from the start, and pressing again makes no second one', () => {
		const id = begin({ day: '2026-11-26', from: '8.30', price: '480' });
		expect(begin({ title: 'Another', day: '2026-11-27' })).to.equal(id);
		expect(visitsOn(world, '2026-11-26')).to.deep.include.members([
			{ ...visitsOn(world, '2026-11-26')[0], jobId: id, from: '08:30', standing: 'booked' }
		]);
		expect(visitsOn(world, '2026-11-27')).to.deep.equal([]);
		const [line, ...more] = jobWork(world.db, id).lines;
		expect(more).to.deep.equal([]);
		expect(line).to.include({ description: 'Hall ceiling', quantity: '1', unitPrice: '480' });
		// A household is quoted with VAT, a firm without.
		expect(loadJob(world.db, id).pricesIncludeVat).to.equal(true);
		const firm = begin({ customerId: addCustomer(world, FIRM) }, 'firm');
		expect(loadJob(world.db, firm).pricesIncludeVat).to.equal(false);
	});

	it('says what is wrong at its box', () => {
		const wrong = (more: object) => {
			try {
				begin(more, JSON.stringify(more));
				return [];
			} catch (error) {
				return Object.keys((error as FieldError).fields);
			}
		};
		expect(wrong({ price: 'much' })).to.deep.equal(['price']);
		expect(wrong({ day: 'soon' })).to.deep.equal(['day']);
		expect(wrong({ from: '25:00' })).to.deep.equal(['from']);
		expect(wrong({ title: ' ' })).to.deep.equal(['title']);
		expect(listJobs(world).rows).to.deep.equal([]);
	});
});

describe('how a job stands', () => {
	it('is booked once it has a visit, and paid once its bills are; a payment undone opens it again', async () => {
		const id = begin({ price: '120' });
		expect(standing(id)).to.equal('toBook');
		saveVisit(world, id, null, { date: '2026-11-25', from: '', to: '', person: '', note: '' });
		expect(standing(id)).to.equal('booked');
		const invoice = await bill(id);
		expect(standing(id)).to.equal('billed');
		const payment = payByHand(world, invoice.id, '119.99');
		expect(standing(id)).to.equal('billed');
		payByHand(world, invoice.id, '0.01');
		expect(standing(id)).to.equal('paid');
		expect(jobCounts(world.db)).to.include({ paid: 1, billed: 0, booked: 0, toBook: 0 });
		expect(listJobs(world, { standing: 'paid' }).rows.map((row) => row.id)).to.deep.equal([id]);
		expect(listJobs(world, { standing: 'billed' }).rows).to.deep.equal([]);
		undoPayment(world, payment, 'Taken for another');
		expect(standing(id)).to.equal('billed');
	});

	it('is not paid while something is held back', async () => {
		const contractor = addCustomer(world, CONTRACTOR);
		const held = { retention: '5', contract: 'construction' };
		const id = begin({ customerId: contractor, price: '100', ...held });
		const invoice = await bill(id);
		// 95.00 without VAT by the reverse charge, 20 % of it deducted: 76.00.
		payByHand(world, invoice.id, '76.00', { withheld: '19.00' });
		expect(standing(id)).to.equal('billed');
	});
});

describe('a copy of a job', () => {
	it('has what was agreed, and neither what was done nor what was decided for the old one', () => {
		const id = begin({ price: '250', day: '2026-11-26', privateNote: 'Key under the pot' });
		const { version } = loadJob(world.db, id);
		const lines = [
			{ description: 'Skim', quantity: '2', unit: 'room', unitPrice: '90', cost: '12' },
			{ description: 'Coving', quantity: '1', unitPrice: '70', extra: true }
		];
		const { title, hourlyRate } = loadJob(world.db, id);
		saveJob(world, id, version, {
			title,
			hourlyRate,
			customerId,
			privateNote: 'Key under the pot',
			pricesIncludeVat: false,
			lines
		});
		moveJob(world, id, 'finished');
		const copy = copyJob(world, id, 'copy');
		expect(copyJob(world, id, 'copy')).to.equal(copy);
		expect(loadJob(world.db, copy)).to.include({
			title: 'Hall ceiling',
			state: 'booked',
			finishedOn: null,
			pricesIncludeVat: false,
			privateNote: 'Key under the pot'
		});
		expect(standing(copy)).to.equal('toBook');
		expect(
			jobWork(world.db, copy).lines.map(({ description, quantity, unitPrice, cost, extra }) => [
				description,
				quantity,
				unitPrice,
				cost,
				extra
			])
		).to.deep.equal([
			['Skim', '2', '90', '12', false],
			['Coving', '1', '70', '', false]
		]);
		expect(loadJob(world.db, copy).number).not.to.equal(loadJob(world.db, id).number);
	});
});

describe('jobs from a file', () => {
	const file = (...rows: string[]) =>
		Buffer.from(['Client;Job;Date;Amount;Site', ...rows].join('\n'));
	const told = (rows: ReturnType<typeof previewJobs>) =>
		rows.map(({ line, outcome, detail }) => `${line} ${outcome}: ${detail}`);

	it('are looked at first, every odd row with its reason, and the same file again brings none', () => {
		addCustomer(world, { ...HOUSEHOLD, name: 'Twice' });
		addCustomer(world, { ...HOUSEHOLD, name: 'Twice' });
		const name = HOUSEHOLD.name.toUpperCase();
		const bytes = file(
			`${name};Patch the hall;26/11/2026;1,240.50;`,
			`${name};Patch the hall;26/11/2026;1,240.50;`,
			'Twice;Skim;;;',
			'Nobody;Skim;;;',
			`${name};;;;`,
			`${name};Skim;soon;;`,
			`${name};Skim;;lots;`,
			`${name};Skim;;;Barn`
		);
		expect(told(previewJobs(world, bytes, false))).to.deep.equal([
			`2 new: ${name}`,
			`3 new: ${name}`,
			'4 wrong: 2 customers are called “Twice”.',
			'5 wrong: Nobody here is called “Nobody”.',
			'6 wrong: It has no title.',
			'7 wrong: “soon” is no day. Write it as 3 Nov 2026.',
			'8 wrong: “lots” is no price.',
			`9 wrong: ${name} has no site called “Barn”.`
		]);
		expect(listJobs(world).rows).to.deep.equal([]);
		importJobs(world, bytes, false);
		const jobs = listJobs(world).rows;
		expect(jobs.map((job) => [job.title, job.customerId, job.standing])).to.deep.equal([
			['Patch the hall', customerId, 'booked'],
			['Patch the hall', customerId, 'booked']
		]);
		expect(jobWork(world.db, jobs[0]!.id).lines[0]!.unitPrice).to.equal('1240.50');
		expect(visitsOn(world, '2026-11-26')).to.have.length(2);
		const again = importJobs(world, bytes, false);
		expect(again.filter((row) => row.outcome === 'same')).to.have.length(2);
		expect(listJobs(world).rows).to.have.length(2);
	});

	it('bring their customers and sites along where that is wanted, each once', () => {
		const bytes = file('Odo Marl;Skim;;;Barn', 'odo  marl;Render;;;Barn');
		importJobs(world, bytes, true);
		const jobs = listJobs(world).rows;
		expect(jobs.map((job) => [job.customer, job.site])).to.deep.equal([
			['Odo Marl', 'Barn'],
			['Odo Marl', 'Barn']
		]);
		expect(new Set(jobs.map((job) => job.customerId)).size).to.equal(1);
	});

	it('need a column of customers and one of titles', () => {
		const refused = (text: string) => () => previewJobs(world, Buffer.from(text), true);
		expect(refused('Job;Price\nSkim;1')).to.throw(FieldError, /customer/);
		expect(refused('Client;Price\nOdo;1')).to.throw(FieldError, /title/);
	});
});

describe('what is not billed yet', () => {
	it('stands ready for an invoice, finished work whole and open work with its hours, until it is taken', async () => {
		const done = begin({ price: '300' });
		moveJob(world, done, 'finished', '2026-11-20');
		const open = begin({ price: '500', hourlyRate: '40', fixedPrice: false }, 'open');
		saveTime(world, open, 'time', null, {
			date: '2026-11-23',
			person: '',
			hours: '2',
			rate: '40',
			hourlyCost: '',
			chargeable: true,
			note: 'Mixing'
		});
		begin({ customerId: addCustomer(world, FIRM), price: '9' }, 'other');
		const offers = unbilledOf(world, customerId);
		expect(
			offers.map(({ id, amount, finishedOn, sheet }) => [
				id,
				amount,
				finishedOn,
				sheet.workFinished,
				sheet.rows.map((row) => row.type === 'line' && [row.quantity, row.unitPrice, row.bills])
			])
		).to.deep.equal([
			[done, 300_00, '2026-11-20', '2026-11-20', [['1', '300', [{ type: 'line', id: 1 }]]]],
			[open, 80_00, null, '', [['2', '40', [{ type: 'time', id: 1 }]]]]
		]);
		billJob(world, done, 'lines', 'press');
		expect(unbilledOf(world, customerId).map(({ id }) => id)).to.deep.equal([open]);
	});
});
