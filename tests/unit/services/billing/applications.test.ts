// Applications for payment: asked, approved in whole or in part, withdrawn; what of the contract each leaves.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import { documents, stageParts, stages } from '../../../../src/lib/server/db/schema';
import {
	applicationView,
	applyForPayment,
	approveApplication,
	withdrawApplication
} from '../../../../src/lib/server/services/billing/applications';
import {
	releaseRetention,
	retentionsOf
} from '../../../../src/lib/server/services/billing/retentions';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { jobPage } from '../../../../src/lib/server/services/desk/jobPage';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import {
	makeLetterhead,
	saveLook
} from '../../../../src/lib/server/services/letterheads/letterheads';
import { STANDARD_LOOK } from '../../../../src/lib/core/letterheads/look';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { expectSoundBooks } from '../../../support/books';
import { CONTRACTOR, makeWorld, wordsOf, type TestWorld } from '../../../support/world';

let world: TestWorld;
let jobId: number;
/** 1,000.00: labour of 600.00, and materials of 400.00 that cost 300.00. */
beforeEach(() => {
	world = makeWorld();
	jobId = addJob(world, 'job', {
		title: 'Mill gable',
		customerId: addCustomer(world, CONTRACTOR),
		contract: 'construction',
		pricesIncludeVat: false,
		retention: '5',
		lines: [
			{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '600' },
			{ kind: 'materials', description: 'Lime', quantity: '1', unitPrice: '400', cost: '300' }
		]
	});
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const HALF = { kind: 'valuation', by: 'toDate', percent: '50', amount: '', done: {} };
const apply = (key = 'a', more: object = {}) =>
	applyForPayment(world, jobId, key, { ...HALF, ...more });
const stage = (id: number) => world.db.select().from(stages).where(eq(stages.id, id)).get()!;
const position = () => jobPage(world, jobId).position;
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);
const refused = (work: () => unknown): string[] => {
	try {
		work();
	} catch (problem) {
		if (problem instanceof FieldError) return Object.keys(problem.fields);
		throw problem;
	}
	return [];
};

describe('an application for payment', () => {
	it('takes its part of the contract and a number of its own, once for each press', () => {
		const id = apply();
		expect(apply()).to.equal(id);
		expect(stage(id)).to.include({
			state: 'applied',
			amount: 500_00,
			applicationNumber: 'A-0001',
			appliedOn: '2026-11-24'
		});
		expect(position()).to.include({ billed: 500_00n, left: 500_00n });
		expect(stage(apply('b', { by: 'rest' }))).to.include({
			amount: 500_00,
			applicationNumber: 'A-0002'
		});
	});

	it('says that it is no VAT invoice, for what and by when it asks', () => {
		const id = apply();
		const view = applicationView(world, jobId, id);
		expect(view.title).to.equal('Application for payment');
		expect(view.number).to.equal('A-0001');
		expect(view.banner).to.contain('not a VAT invoice');
		expect(view.facts.slice(0, 3)).to.deep.equal([
			{ id: 'issued', label: 'Applied on', value: '24 Nov 2026' },
			{ id: 'due', label: 'Due date', value: '24 Nov 2026' },
			// 45 days for this contractor.
			{ id: 'final', label: 'Final date for payment', value: '8 Jan 2027' }
		]);
		// Each of them once, and of an invoice’s own facts all but its days.
		expect(view.facts.slice(3).map(({ label }) => label)).to.deep.equal([
			'Reference',
			'Your VAT number',
			'Our UTR'
		]);
		// 500.00, less 5 % held back; nothing of the deduction, which is made from the payment.
		expect(view.statements[0]).to.match(/^The sum applied for is £\d+\.\d\d\. Basis: /);
		expect(wordsOf(view)).to.contain('A-0001');
		expect(() => applicationView(world, jobId, 99)).to.throw(NotFoundError);
		expect(() => applicationView(world, jobId + 1, id)).to.throw(NotFoundError);
	});

	it('keeps its day, and has the letterhead’s words, its own before those of all', () => {
		const id = apply();
		const head = makeLetterhead(world, 'head', null);
		saveLook(world, head, 1, {
			...STANDARD_LOOK,
			above: ' Of all ',
			conditions: 'Our terms',
			words: {
				application: { title: ' Valuation ', above: ' Of this kind ', below: ' Thank you ' }
			}
		});
		world.clock.set(londonMoment('2026-12-01T09:00'));
		const view = applicationView(world, jobId, id);
		expect(view.title).to.equal('Valuation');
		expect(view.above).to.deep.equal(['Of this kind', 'Of all']);
		expect(view.below).to.deep.equal(['Thank you', 'Our terms']);
		expect(view.facts[0]).to.include({ value: '24 Nov 2026' });
	});

	it('approved as a whole becomes its invoice, once', async () => {
		const id = apply();
		const draft = approveApplication(world, id, { amount: '', paidOn: '' });
		expect(approveApplication(world, id, { amount: '1', paidOn: '' })).to.equal(draft);
		const invoice = await issue(draft);
		expect(stage(id)).to.include({ state: 'invoiced', amount: 500_00, documentId: draft });
		const row = world.db.select().from(documents).where(eq(documents.id, invoice.id)).get()!;
		// 5 % is held back: it has no tax point yet.
		expect(row.net).to.equal(475_00);
		expect(stage(id).basis).to.contain('(application A-0001)');
	});

	it('approved in part leaves the rest in the contract, lines and costs in proportion', () => {
		const id = apply();
		approveApplication(world, id, { amount: '250', paidOn: '' });
		expect(stage(id)).to.include({ amount: 250_00 });
		expect(stage(id).basis).to.equal('£250.00 approved of application A-0001');
		expect(
			world.db
				.select({ amount: stageParts.amount, cost: stageParts.cost })
				.from(stageParts)
				.where(eq(stageParts.stageId, id))
				.all()
		).to.deep.equal([
			{ amount: 150_00, cost: null },
			// A quarter of the materials, and of the 300.00 they cost.
			{ amount: 100_00, cost: 75_00 }
		]);
		expect(position()).to.include({ billed: 250_00n, left: 750_00n });
	});

	it('is approved from a penny to what was applied for', () => {
		const id = apply();
		const at = (amount: string) =>
			refused(() => approveApplication(world, id, { amount, paidOn: '' }));
		expect(at('0')).to.deep.equal(['amount']);
		expect(at('500.01')).to.deep.equal(['amount']);
		expect(at('much')).to.deep.equal(['amount']);
		expect(at('500.00')).to.deep.equal([]);
		expect(() => approveApplication(world, 99, { amount: '', paidOn: '' })).to.throw(NotFoundError);
	});

	it('paid already: that day is its tax point, and none to come', () => {
		const id = apply();
		expect(
			refused(() => approveApplication(world, id, { amount: '', paidOn: '2026-11-25' }))
		).to.deep.equal(['paidOn']);
		const draft = approveApplication(world, id, { amount: '', paidOn: '2026-11-20' });
		expect(loadDraft(world.db, draft).sheet.paidOn).to.equal('2026-11-20');
	});

	it('paid today needs no other day', () => {
		const draft = approveApplication(world, apply(), { amount: '', paidOn: '2026-11-24' });
		const { sheet } = loadDraft(world.db, draft);
		expect(sheet.workFinished).not.to.equal('2026-11-24');
		expect(sheet.paidOn).not.to.equal('2026-11-24');
	});

	it('withdrawn gives its part of the contract back; an invoice stays', async () => {
		const id = apply();
		withdrawApplication(world, id);
		expect(stage(id).state).to.equal('dropped');
		expect(position()).to.include({ billed: 0n, left: 1000_00n });
		expect(() => approveApplication(world, id, { amount: '', paidOn: '' })).to.throw(
			RefusedError,
			/withdrawn/
		);
		const other = apply('b');
		approveApplication(world, other, { amount: '', paidOn: '' });
		withdrawApplication(world, other);
		expect(stage(other).state).to.equal('invoiced');
	});
});

describe('what is held back', () => {
	it('of each invoice is released together, with the kinds and costs it came from', async () => {
		for (const key of ['a', 'b'])
			await issue(
				billStage(world, jobId, key, { ...HALF, ...(key === 'b' ? { by: 'rest' } : {}) })
			);
		const held = retentionsOf(world.db, jobId);
		expect(held.map((one) => one.amount)).to.deep.equal([25_00, 25_00]);
		const draft = releaseRetention(world, jobId, 'r');
		expect(releaseRetention(world, jobId, 'r')).to.equal(draft);
		const { sheet } = loadDraft(world.db, draft);
		expect(sheet.releases).to.deep.equal(held.map((one) => one.documentId));
		const lines = sheet.rows.flatMap((row) =>
			row.type === 'line' ? [[row.kind, row.unitPrice, row.cost]] : []
		);
		// 5 % of 300.00 and of 200.00, twice; of the materials’ cost 5 % of 150.00.
		expect(lines.sort()).to.deep.equal([
			['labour', '15.00', ''],
			['labour', '15.00', ''],
			['materials', '10.00', '7.50'],
			['materials', '10.00', '7.50']
		]);
		const invoice = await issue(draft);
		expect(
			world.db.select().from(documents).where(eq(documents.id, invoice.id)).get()!.net
		).to.equal(50_00);
		expect(retentionsOf(world.db, jobId).every((one) => one.releasedById === invoice.id)).to.equal(
			true
		);
		expect(() => releaseRetention(world, jobId, 's')).to.throw(
			RefusedError,
			/Nothing is held back/
		);
	});
});
