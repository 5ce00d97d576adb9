// Margins against sums done by hand: what was billed by the journal, what came in, what it cost.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { saveWorkKind } from '../../../../src/lib/server/services/business/workKinds';
import { saveCost } from '../../../../src/lib/server/services/jobs/costs';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { marginReport, marginsOf } from '../../../../src/lib/server/services/jobs/margins';
import { saveTime } from '../../../../src/lib/server/services/jobs/time';
import { expectSoundBooks } from '../../../support/books';
import { payByHand } from '../../../support/money';
import { CONTRACTOR, HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

let keys = 0;
/** Labour of 400.00, and materials of 100.00 that cost 80.00. */
const LINES = [
	{ kind: 'labour', description: 'Render', quantity: '10', unit: 'hour', unitPrice: '40' },
	{ kind: 'materials', description: 'Lime', quantity: '1', unitPrice: '100', cost: '80' }
];
const job = (customerId: number, more: object = {}) =>
	addJob(world, `job-${keys++}`, {
		title: 'Gable',
		customerId,
		contract: 'construction',
		pricesIncludeVat: false,
		lines: LINES,
		...more
	});
const bill = async (id: number) => {
	const draft = billJob(world, id, 'lines', `bill-${keys++}`);
	return issueInvoice(world, draft, loadDraft(world.db, draft).version);
};
const margin = (id: number) => marginsOf(world, [id]).get(id)!;

describe('the margin of a job', () => {
	it('before anything is billed: what is agreed against what it cost so far', () => {
		const id = job(addCustomer(world, CONTRACTOR));
		saveTime(world, id, 'time', null, {
			date: '2026-11-20',
			person: '',
			hours: '6:30',
			rate: '',
			hourlyCost: '18',
			chargeable: false,
			note: ''
		});
		saveCost(world, id, 'cost', null, {
			date: '2026-11-20',
			kind: 'other',
			description: 'Skip',
			quantity: '1',
			unit: '',
			unitCost: '45.50',
			markUp: '',
			unitPrice: '',
			chargeable: false
		});
		const shown = margin(id);
		expect(shown.agreed).to.equal(500_00n);
		// 6.5 hours at 18.00, a skip at 45.50; the lime is still to be bought, at 80.00.
		expect(shown.spent).to.equal(117_00n + 45_50n + 80_00n);
		expect(shown.expected).to.equal(80_00n);
		expect(shown.billed).to.equal(0n);
		expect(shown.received).to.equal(0n);
	});

	it('billed and paid net: sales from the journal, money and deduction in the proportion of the net', async () => {
		const customer = addCustomer(world, CONTRACTOR);
		const id = job(customer);
		moveJob(world, id, 'finished', '2026-11-20');
		const invoice = await bill(id);
		// Reverse charge: 500.00 without VAT; labour 400.00 + the margin on materials count, 20 % of 420.00 … of labour less
		// materials at cost: 500.00 − 80.00 = 420.00, deduction 84.00.
		payByHand(world, invoice.id, '416.00', { withheld: '84.00' });
		const shown = margin(id);
		expect(shown.billed).to.equal(500_00n);
		expect(shown.received).to.equal(416_00n);
		expect(shown.withheld).to.equal(84_00n);
	});

	it('takes the VAT out of a household’s prices', () => {
		const id = job(addCustomer(world, HOUSEHOLD), {
			pricesIncludeVat: true,
			lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '120' }]
		});
		expect(margin(id).agreed).to.equal(100_00n);
	});

	it('gives back what a credit note takes', async () => {
		const id = job(addCustomer(world, CONTRACTOR));
		moveJob(world, id, 'finished', '2026-11-20');
		const invoice = await bill(id);
		await creditInvoice(world, invoice.id, 'Wrong gable', 'credit');
		expect(margin(id).billed).to.equal(0n);
	});

	it('answers for more than one statement takes, and for none that is not there', () => {
		const customer = addCustomer(world, CONTRACTOR);
		const ids = Array.from({ length: 501 }, () => job(customer, { lines: LINES.slice(0, 1) }));
		const all = marginsOf(world, [...ids, 999_999]);
		expect(all.size).to.equal(501);
		expect([...all.values()].every((one) => one.agreed === 400_00n)).to.equal(true);
	});
});

describe('the margins of many jobs', () => {
	it('are those of the days, the customer and the label asked for, and add up', () => {
		const one = addCustomer(world, CONTRACTOR);
		const other = addCustomer(world, HOUSEHOLD);
		const early = job(one, { labels: ['lime'] });
		const late = job(one);
		const theirs = job(other, { labels: ['lime'] });
		job(one, { title: 'Only asked', lines: [] });
		moveJob(world, early, 'finished', '2026-11-01');
		moveJob(world, late, 'finished', '2026-11-20');
		const ids = (filter: object) =>
			marginReport(world, filter)
				.rows.map((row) => row.id)
				.filter((id) => [early, late, theirs].includes(id))
				.sort((a, b) => a - b);
		expect(ids({})).to.deep.equal([early, late, theirs]);
		expect(ids({ customerId: one })).to.deep.equal([early, late]);
		expect(ids({ label: 'lime' })).to.deep.equal([early, theirs]);
		// Both days are included; what is not finished has no day.
		expect(ids({ from: '2026-11-01', to: '2026-11-01' })).to.deep.equal([early]);
		expect(ids({ from: '2026-11-02' })).to.deep.equal([late]);
		const { rows, total } = marginReport(world, { customerId: one });
		expect(total.agreed).to.equal(rows.reduce((sum, row) => sum + row.margin.agreed, 0n));
		expect(total.agreed).to.equal(1_000_00n);
	});

	it('leave out what is only asked for, or dropped', () => {
		const customer = addCustomer(world, CONTRACTOR);
		const dropped = job(customer);
		moveJob(world, dropped, 'dropped');
		addJob(world, 'enquiry', { title: 'Perhaps', customerId: customer, lines: [] }, 'enquiry');
		expect(marginReport(world).rows).to.deep.equal([]);
	});
});

it('margins by kind of work are those of its jobs together, and open into them', async () => {
	const customerId = addCustomer(world, HOUSEHOLD);
	const damp = saveWorkKind(world, null, { name: 'Damp' });
	const [one, two, bare] = [
		job(customerId, { workKindId: damp }),
		job(customerId, { workKindId: damp }),
		job(customerId)
	];
	for (const id of [one, two, bare]) await bill(id);
	// 500.00 each without VAT, of which 80.00 was spent.
	const { kinds, total } = marginReport(world, {});
	expect(
		kinds.map(({ name, count, margin: own }) => [name, count, own.margin]).sort()
	).to.deep.equal([
		['', 1, 420_00n],
		['Damp', 2, 840_00n]
	]);
	expect(total.margin).to.equal(1260_00n);
	const of = (workKindId: number) => marginReport(world, { workKindId }).rows.map((row) => row.id);
	expect([of(damp), of(0)]).to.deep.equal([[two, one], [bare]]);
});
