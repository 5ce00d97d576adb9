// Credit notes for a part: lines, units or amounts, never more than is left, and together the invoice to the penny.
// Over 300 lines: what is credited, what goes back to its job, and the property over both.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { frozenFigures } from '../../../../src/lib/core/documents/frozen';
import { checkWorking } from '../../../../src/lib/core/figures/workings';
import { parseDecimal } from '../../../../src/lib/core/money/decimal';
import { FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { amountOff, type CreditWish, type LeftLine } from '../../../../src/lib/core/sheet/credit';
import { documents, retentions } from '../../../../src/lib/server/db/schema';
import { retentionsOf } from '../../../../src/lib/server/services/billing/retentions';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { jobPage } from '../../../../src/lib/server/services/desk/jobPage';
import {
	creditInvoice,
	creditPart,
	leftOfInvoice
} from '../../../../src/lib/server/services/invoices/creditNote';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { addJob, loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { expectSoundBooks } from '../../../support/books';
import { itemOf, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const frozen = (id: number) =>
	world.db.select().from(documents).where(eq(documents.id, id)).get()!.frozen!;
let presses = 0;
const take = (
	id: number,
	wishes: CreditWish[] | ((left: readonly LeftLine[]) => CreditWish[]),
	again = true
) =>
	creditPart(world, id, {
		key: `press-${presses++}`,
		reason: 'Less was done',
		wishes: typeof wishes === 'function' ? wishes : () => wishes,
		again
	});
const units = (position: number, quantity: string): CreditWish => ({
	position,
	quantity: parseDecimal(quantity)!
});
const sums = (id: number) => {
	const { net, vatCharged, vatReverseCharged, total, cis } = frozenFigures(frozen(id));
	return [net, vatCharged, vatReverseCharged, total, cis?.deduction ?? null];
};

describe('a credit note for a part', () => {
	it('rounds within what is left: three thirds are the whole, VAT and deduction too', async () => {
		const one = await issued(
			world,
			{
				...CONTRACTOR,
				standing: {
					...CONTRACTOR.standing,
					endUser: true,
					endUserStatement: 'We use it',
					endUserDate: '2026-11-01'
				}
			},
			{
				rows: [line('a', 'Render', '33.33', { quantity: '3', unit: 'm²' })]
			}
		);
		// 99.99, VAT 20.00, deduction 20.00.
		const parts = [];
		for (let n = 0; n < 3; n++) parts.push(sums((await take(one.id, [units(0, '1')])).id));
		expect(parts).to.deep.equal([
			[33_33n, 6_67n, 0n, 40_00n, 6_67n],
			[33_33n, 6_67n, 0n, 40_00n, 6_67n],
			[33_33n, 6_66n, 0n, 39_99n, 6_66n]
		]);
		expect(itemOf(world, one.id)).to.include({ state: 'credited', outstanding: 0, deduction: 0 });
		const more = await take(one.id, [units(0, '1')]).catch((error: unknown) => error);
		expect(more).to.be.instanceOf(RefusedError);
	});

	it('takes a line’s share of the discount and of what was held back along', async () => {
		const one = await issued(world, CONTRACTOR, {
			discount: '10%',
			retention: '5',
			rows: [
				line('a', 'Render', '100', { quantity: '10', unit: 'm²' }),
				line('b', 'Lime', '500', { kind: 'materials', cost: '400' })
			]
		});
		// Line 1: 1,000 less 100 less 45 held: 855; its deduction 171.00. Line 2: 427.50, cost 400 less 20 held.
		const note = await take(one.id, [units(0, '4')]);
		expect(sums(note.id)).to.deep.equal([342_00n, 0n, 68_40n, 342_00n, 68_40n]);
		expect(frozen(note.id).sheet.rows).to.deep.equal([
			line('a', 'Render', '100', { quantity: '4', unit: 'm²', discount: '58.00' })
		]);
		expect(
			world.db
				.select()
				.from(retentions)
				.all()
				.map(({ amount }) => amount)
		).to.deep.equal([49_50]);
		const left = leftOfInvoice(world.db, one.id).lines;
		expect(left.map((row) => [row.net, row.retention, row.taxable, row.cost])).to.deep.equal([
			[600_00n, 27_00n, 513_00n, null],
			[500_00n, 22_50n, 427_50n, 380_00n]
		]);
	});

	it('by an amount leaves the units and what the materials cost', async () => {
		const one = await issued(world, CONTRACTOR, {
			rows: [line('b', 'Lime', '500', { kind: 'materials', cost: '400' })]
		});
		// 500 less 400: 20.00 would be deducted.
		const note = await take(one.id, [{ position: 0, amount: 50_00n }]);
		expect(sums(note.id)).to.deep.equal([50_00n, 0n, 10_00n, 50_00n, 10_00n]);
		expect(frozen(note.id).sheet.rows[0]).to.include({
			description: 'Reduction: Lime',
			quantity: '1'
		});
		expect(leftOfInvoice(world.db, one.id).lines[0]).to.deep.include({
			taxable: 450_00n,
			cost: 400_00n
		});
		// All of the deduction goes before all of the price does: 60 more take no more than the 10.00 that are left.
		const next = await take(one.id, [{ position: 0, amount: 60_00n }]);
		expect(sums(next.id)[4]).to.equal(10_00n);
		const { workings } = frozenFigures(frozen(next.id));
		expect([...workings.values()].every(checkWorking)).to.equal(true);
		expect(workings.get('cis.deduction')!.rule).to.equal('creditLeft');
	});

	it('shares an amount off the whole over its lines, and asks at the box for less where it is too much', async () => {
		const one = await issued(world, HOUSEHOLD, {
			pricesIncludeVat: true,
			rows: [line('a', 'Ceiling', '600'), line('b', 'Cornice', '300')]
		});
		await take(one.id, (left) => amountOff(left, 100_00n));
		expect(leftOfInvoice(world.db, one.id).lines.map((row) => row.taxable)).to.deep.equal([
			533_33n,
			266_67n
		]);
		for (const [wish, path] of [
			[{ position: 0, amount: 533_34n }, 'amount.0'],
			[{ position: 1, amount: 0n }, 'amount.1'],
			[units(0, '1.0001'), 'quantity.0'],
			[units(0, '0'), 'quantity.0'],
			[units(0, '-1'), 'quantity.0']
		] as const) {
			const problem = await take(one.id, [wish]).catch((error: unknown) => error);
			expect(problem, path).to.be.instanceOf(FieldError);
			expect((problem as FieldError).fields).to.have.keys(path);
		}
		const off = await take(one.id, (left) => amountOff(left, 800_01n)).catch(
			(error: unknown) => error
		);
		expect((off as FieldError).fields).to.have.keys('off');
		const nothing = await take(one.id, []).catch((error: unknown) => error);
		expect((nothing as FieldError).fields).to.have.keys('take');
	});

	it('of a line that is paired with one below zero is never more than the invoice', async () => {
		const one = await issued(world, HOUSEHOLD, {
			rows: [line('a', 'Ceiling', '500'), line('b', 'Less your deposit', '400', { quantity: '-1' })]
		});
		const much = await take(one.id, [{ position: 0 }]).catch((error: unknown) => error);
		expect((much as FieldError).fields).to.have.keys('take');
		const both = await take(one.id, [{ position: 0 }, { position: 1 }]);
		expect(sums(both.id)[3]).to.equal(120_00n);
	});

	it('of what was paid becomes money in hand, with the deduction that came with it', async () => {
		const one = await issued(world, CONTRACTOR, {
			rows: [line('a', 'Render', '100', { quantity: '10' })]
		});
		payByHand(world, one.id, '800.00');
		await take(one.id, [units(0, '5')]);
		expect(itemOf(world, one.id)).to.include({
			state: 'paid',
			overpaid: 500_00,
			inHand: 400_00,
			credited: 500_00
		});
	});

	it('pressed twice is one note, and two at once of the last part are one and a refusal', async () => {
		const one = await issued(world, HOUSEHOLD, { rows: [line('a', 'Ceiling', '500')] });
		const form = {
			key: 'same',
			reason: 'x',
			wishes: () => [{ position: 0, amount: 300_00n }],
			again: true
		};
		const twice = await Promise.all([
			creditPart(world, one.id, form),
			creditPart(world, one.id, form)
		]);
		expect(twice[0]).to.deep.equal(twice[1]);
		const last = () =>
			take(one.id, [{ position: 0, amount: 200_00n }]).catch((error: unknown) => error);
		const both = await Promise.all([last(), last()]);
		expect(both.filter((result) => result instanceof RefusedError)).to.have.length(1);
		expect(documentDetail(world, one.id).creditedBy).to.have.length(2);
	});

	it('then all that is left is credited as a whole', async () => {
		const one = await issued(world, CONTRACTOR);
		await take(one.id, [{ position: 1, amount: 123_45n }]);
		const rest = await creditInvoice(world, one.id, 'Wrong customer', 'rest');
		expect(sums(rest.id)[3]).to.equal(2300_00n - 123_45n);
		expect(itemOf(world, one.id)).to.include({ state: 'credited', deduction: 0 });
	});
});

describe('work that a credit note in part takes back', () => {
	const jobOf = (lines: object[], more: object = {}) =>
		addJob(world, 'job', {
			title: 'Mill',
			customerId: addCustomer(world, CONTRACTOR),
			contract: 'construction',
			pricesIncludeVat: false,
			lines,
			...more
		});
	const billed = async (job: number) => {
		moveJob(world, job, 'finished', '2026-11-20');
		const draft = billJob(world, job, 'lines', 'bill');
		return issueInvoice(world, draft, loadDraft(world.db, draft).version);
	};
	const agreed = (job: number) =>
		jobPage(world, job).work.lines.map(({ quantity, unitPrice, discount, cost }) => [
			quantity,
			unitPrice,
			discount,
			cost
		]);

	it('goes back to be billed, a whole line as it is', async () => {
		const job = jobOf([
			{ kind: 'labour', description: 'Render', quantity: '10', unitPrice: '45' },
			{ kind: 'labour', description: 'Paint', quantity: '1', unitPrice: '300' }
		]);
		const one = await billed(job);
		expect(loadJob(world.db, job).state).to.equal('billed');
		await take(one.id, [{ position: 1 }]);
		expect(loadJob(world.db, job).state).to.equal('finished');
		const draft = billJob(world, job, 'lines', 'again');
		expect(loadDraft(world.db, draft).total).to.equal(300_00);
	});

	it('goes back in part: so many units are a line of their own, and what was agreed stays', async () => {
		const job = jobOf(
			[
				{
					kind: 'materials',
					description: 'Lime',
					quantity: '3',
					unit: 'bag',
					unitPrice: '33.33',
					discount: '10',
					cost: '50'
				}
			],
			{ contract: 'none' }
		);
		const one = await billed(job);
		await take(one.id, [units(0, '1')]);
		// 89.99 agreed: 2 × 33.33 less 6.67 is 59.99, and 30.00 is left of it.
		expect(agreed(job)).to.deep.equal([
			['2', '33.33', '6.67', '33.33'],
			['1', '33.33', '3.33', '16.67']
		]);
		expect(loadDraft(world.db, billJob(world, job, 'lines', 'again')).net).to.equal(30_00);
	});

	it('stays billed where only the price goes down, or where it is not to be billed again', async () => {
		const job = jobOf([{ kind: 'labour', description: 'Render', quantity: '10', unitPrice: '45' }]);
		const one = await billed(job);
		await take(one.id, [{ position: 0, amount: 45_00n }]);
		await take(one.id, [units(0, '2')], false);
		expect(loadJob(world.db, job).state).to.equal('billed');
	});

	it('of a stage gives back what it billed and what it held, and no more', async () => {
		const job = jobOf(
			[{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '10000' }],
			{ retention: '5' }
		);
		const stage = { kind: 'stage', by: 'percent', percent: '40', amount: '', done: {} };
		const draft = billStage(world, job, 'a', stage);
		const one = await issueInvoice(world, draft, loadDraft(world.db, draft).version);
		await take(one.id, [units(0, '0.25')]);
		expect(jobPage(world, job).position!.left).to.equal(7000_00n);
		expect(retentionsOf(world.db, job).map(({ amount }) => amount)).to.deep.equal([150_00]);
		await take(one.id, [{ position: 0, amount: 95_00n }]);
		// A lower price is no work that can be billed again, and nothing is held back of it any more.
		expect(jobPage(world, job).position!.left).to.equal(7000_00n);
		expect(retentionsOf(world.db, job).map(({ amount }) => amount)).to.deep.equal([145_00]);
		await creditInvoice(world, one.id, 'A mistake', 'rest');
		expect(jobPage(world, job).position!.left).to.equal(10_000_00n);
		expect(retentionsOf(world.db, job)).to.deep.equal([]);
	});
});

describe('whatever parts are credited, in whatever order', () => {
	it('together they are the invoice: net, VAT, deduction, every line', async function () {
		this.timeout(60_000);
		const price = fc.integer({ min: 1, max: 99_999 }).map((pence) => (pence / 100).toFixed(2));
		const row = fc.record({
			unitPrice: price,
			quantity: fc.integer({ min: 1, max: 999 }).map((n) => (n / 10).toFixed(1)),
			kind: fc.constantFrom('labour' as const, 'materials' as const),
			vat: fc.constantFrom(
				['standard', ''] as const,
				['reduced', 'emptyHome'] as const,
				['zero', 'newDwelling'] as const
			),
			discount: fc.constantFrom('', '7.5%'),
			cost: fc.constantFrom('', '0.37')
		});
		const part = fc.record({
			of: fc.nat(2),
			tenths: fc.integer({ min: 1, max: 10 }),
			amount: fc.boolean()
		});
		await fc.assert(
			fc.asyncProperty(
				fc.array(row, { minLength: 1, maxLength: 3 }),
				fc.constantFrom('', '3.3%', '0.05'),
				fc.constantFrom('', '5'),
				fc.boolean(),
				fc.array(part, { maxLength: 5 }),
				async (rows, discount, retention, household, parts) => {
					const one = await issued(world, household ? HOUSEHOLD : CONTRACTOR, {
						contract: household ? null : 'construction',
						pricesIncludeVat: household,
						discount,
						retention: household ? '' : retention,
						rows: rows.map(({ vat, ...more }, index) =>
							line(`r${index}`, `Line ${index}`, more.unitPrice, {
								...more,
								vat: vat[0],
								vatReason: vat[1]
							})
						)
					}).catch(() => null);
					if (!one) return;
					for (const { of, tenths, amount } of parts)
						await take(one.id, (left) => {
							const row = left[of % left.length]!;
							return [
								amount
									? { position: row.position, amount: (row.taxable * BigInt(tenths)) / 10n }
									: {
											position: row.position,
											quantity: {
												units: row.quantity.units * BigInt(tenths),
												scale: row.quantity.scale + 1
											}
										}
							];
						}).catch((error: unknown) => {
							if (!(error instanceof FieldError || error instanceof RefusedError)) throw error;
						});
					await creditInvoice(world, one.id, 'All', `all-${one.id}`).catch((error: unknown) => {
						if (!(error instanceof RefusedError || error instanceof FieldError)) throw error;
					});
					const notes = documentDetail(world, one.id).creditedBy.map(({ id }) =>
						frozenFigures(frozen(id))
					);
					const whole = frozenFigures(frozen(one.id));
					const added = (read: (figures: typeof whole) => bigint) =>
						notes.reduce((sum, note) => sum + read(note), 0n);
					expect(added((f) => f.total)).to.equal(whole.total);
					expect(added((f) => f.vatCharged)).to.equal(whole.vatCharged);
					expect(added((f) => f.vatReverseCharged)).to.equal(whole.vatReverseCharged);
					expect(added((f) => f.cis?.deduction ?? 0n)).to.equal(whole.cis?.deduction ?? 0n);
					for (const note of notes) {
						expect([...note.workings.values()].every(checkWorking)).to.equal(true);
						expect(note.lines.reduce((sum, row) => sum + row.withoutVat, 0n)).to.equal(note.net);
					}
				}
			),
			{ numRuns: 60, seed: 7 }
		);
	});
});
