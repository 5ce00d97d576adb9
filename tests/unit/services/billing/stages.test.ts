// Stages of a contract: what is typed, what becomes of it on the draft, and a deposit that comes to what was asked for.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { RefusedError } from '../../../../src/lib/core/refusals';
import { depositStage } from '../../../../src/lib/server/services/billing/depositStage';
import { billStage, previewStage } from '../../../../src/lib/server/services/billing/stages';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { jobTrail } from '../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { FIRM } from '../../../support/money';
import { refusedAt } from '../../../support/refused';
import { HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

let keys = 0;
const line = (description: string, unitPrice: string, more: object = {}) => ({
	kind: 'labour',
	description,
	quantity: '1',
	unitPrice,
	...more
});
const jobOf = (lines: object[], more: object = {}) =>
	addJob(world, `j${keys++}`, {
		title: 'West gable',
		customerId: addCustomer(world, FIRM),
		pricesIncludeVat: false,
		lines,
		...more
	});
const stage = (by: string, more: object = {}) => ({
	kind: 'stage',
	by,
	percent: '',
	amount: '',
	...more
});
const lineIds = (job: number) =>
	world.db.$client
		.prepare('select id from job_lines where job_id = ? order by position')
		.pluck()
		.all(job) as number[];

describe('a stage', () => {
	it('is refused at the field where it is wrong', () => {
		const job = jobOf([line('Render', '100'), line('Lime', '50')]);
		const [first, second] = lineIds(job) as [number, number];
		const at = (typed: object) => refusedAt(() => previewStage(world.db, job, typed));
		const percent = 'A percentage from 0 to 100, such as 45.';
		expect(at(stage('percent', { percent: '100.0001' }))).to.deep.equal({ percent });
		expect(at(stage('percent', { percent: '100' }))).to.deep.equal({});
		expect(at(stage('toDate', { percent: 'half' }))).to.deep.equal({ percent });
		expect(at(stage('amount', { amount: '1.234' }))).to.have.keys('amount');
		expect(at(stage('amount', { amount: '150.01' }))).to.have.keys('amount');
		expect(at(stage('amount', { amount: '150' }))).to.deep.equal({});
		// A box left empty says nothing of its line.
		expect(at(stage('lines', { done: { [first]: '40', [second]: ' ' } }))).to.deep.equal({});
		expect(at(stage('lines', { done: { [first]: '40', [second]: '101' } }))).to.deep.equal({
			[`done.${second}`]: percent
		});
	});

	it('needs lines that are agreed and billed in no other way', () => {
		const nothing = jobOf([]);
		expect(() => previewStage(world.db, nothing, stage('rest')))
			.to.throw(RefusedError)
			.with.property('message')
			.that.includes('Nothing is agreed');
		const whole = jobOf([line('Render', '100')]);
		moveJob(world, whole, 'finished', '2026-11-20');
		billJob(world, whole, 'lines', 'whole');
		expect(() => previewStage(world.db, whole, stage('rest')))
			.to.throw(RefusedError)
			.with.property('message')
			.that.includes('billed whole');
	});

	it('is a draft of its parts, each with its line, its cost and the job; pressed twice it is one', () => {
		const job = jobOf([
			line('Render', '1000', { cost: '400' }),
			line('Lime', '200', { kind: 'materials' })
		]);
		const [render, lime] = lineIds(job) as [number, number];
		const draft = billStage(world, job, 'a', stage('percent', { percent: '30' }));
		expect(billStage(world, job, 'a', stage('percent', { percent: '30' }))).to.equal(draft);
		const { sheet, origin } = loadDraft(world.db, draft);
		expect(origin).to.equal('stage');
		expect(sheet).to.include({ reference: 'J-0001: West gable', pricesIncludeVat: false });
		expect(sheet.deposit).to.equal(undefined);
		expect([sheet.retention, sheet.retentionDue, sheet.workFinished]).to.deep.equal(['', '', '']);
		expect(sheet.note).to.equal(
			'Contract £1,200.00 · billed before £0.00 · this invoice £360.00 · left £840.00'
		);
		expect(
			world.db
				.select()
				.from(jobTrail)
				.all()
				.filter(({ what }) => what === 'invoiced')
				.map(({ detail }) => detail)
		).to.deep.equal(['Stage payment, 30 % of £1,200.00']);
		const [heading, ...parts] = sheet.rows;
		expect(heading).to.include({ id: 'stage', type: 'heading' });
		expect(
			parts.map((row) =>
				row.type === 'line'
					? [row.id, row.kind, row.quantity, row.unitPrice, row.cost, row.jobId, row.stageLineId]
					: row.type
			)
		).to.deep.equal([
			['s1', 'labour', '1', '300.00', '120.00', job, render],
			['s2', 'materials', '1', '60.00', '', job, lime]
		]);
		// What is left counts from there: 840 of 1,200.
		const { before, after } = previewStage(world.db, job, stage('rest'));
		expect([before.billed, before.left]).to.deep.equal([360_00n, 840_00n]);
		expect([after.billed, after.left]).to.deep.equal([1200_00n, 0n]);
		const rest = loadDraft(world.db, billStage(world, job, 'b', stage('rest')));
		expect(rest.sheet.rows.flatMap((row) => (row.type === 'line' ? row.unitPrice : []))).to.eql([
			'700.00',
			'140.00'
		]);
	});

	it('says what is extra, holds back as the job does, and cuts a long title', () => {
		const job = jobOf([line('Render', '1000'), line('Sill', '100', { extra: true })], {
			title: 'x'.repeat(200),
			retention: '5',
			retentionDue: '2027-05-01'
		});
		const { sheet } = loadDraft(
			world.db,
			billStage(world, job, 'a', stage('percent', { percent: '33.3333' }))
		);
		expect(sheet.note).to.equal(
			'Contract £1,000.00 · extras £100.00 · billed before £0.00 · this invoice £366.67 · left £733.33'
		);
		expect(sheet).to.include({ retention: '5', retentionDue: '2027-05-01' });
		expect(sheet.reference).to.equal(`J-0001: ${'x'.repeat(192)}`);
		expect(
			refusedAt(() => previewStage(world.db, job, stage('percent', { percent: '33.33333' })))
		).to.have.keys('percent');
	});

	it('that bills a deposit says so on its draft', () => {
		const job = jobOf([line('Render', '1000')]);
		const typed = { ...stage('amount', { amount: '250' }), kind: 'deposit' };
		expect(loadDraft(world.db, billStage(world, job, 'd', typed)).sheet.deposit).to.equal(true);
	});
});

describe('a deposit that was asked for', () => {
	const net = (job: number, asked: bigint) => depositStage(world.db, job, asked, '2026-11-24');

	it('comes to the penny, where rounding moves it by one', () => {
		// 333.33 and a fifth of it are 400.00; 83.33 and 16.67 are 100.00.
		expect(net(jobOf([line('Render', '333.33')]), 100_00n)).to.deep.equal({
			net: 83_33n,
			keptBack: 0n
		});
		// Two rates: 57.97 with 11.59 and 28.98 with 1.45 would be 99.99, so it is a penny more.
		const two = jobOf([line('Render', '200'), line('Insulation', '100', { vat: 'reduced' })]);
		expect(net(two, 100_00n).net).to.equal(86_96n);
	});

	it('is the whole contract at most, and never nothing', () => {
		const job = jobOf([line('Render', '100')]);
		expect(net(job, 120_00n).net).to.equal(100_00n);
		expect(net(job, 1n).net).to.equal(1n);
	});

	it('is what it is where prices are with VAT', () => {
		const job = addJob(world, 'household', {
			title: 'Ceiling',
			customerId: addCustomer(world, HOUSEHOLD),
			pricesIncludeVat: true,
			lines: [line('Skim', '480')]
		});
		expect(net(job, 100_00n)).to.deep.equal({ net: 100_00n, keptBack: 0n });
	});
});
