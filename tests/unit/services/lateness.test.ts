// What lateness may cost whom, and what falls with the debt it stands on.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { documents } from '../../../src/lib/server/db/schema';
import { documentDetail } from '../../../src/lib/server/services/desk/documents';
import { creditInvoice } from '../../../src/lib/server/services/invoices/creditNote';
import { loadDraft } from '../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../src/lib/server/services/invoices/issue';
import { chargeLate, lateChargeOf } from '../../../src/lib/server/services/owed/lateCharges';
import { saveRate } from '../../../src/lib/server/services/owed/referenceRates';
import { expectSoundBooks } from '../../support/books';
import { FIRM, itemOf, oneLine, payByHand } from '../../support/money';
import { issued, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => {
	world = makeWorld();
	saveRate(world, '2026-07-01', '3.75');
	saveRate(world, '2027-01-01', '3.75');
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const at = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));
const firm = (more: object = {}) => issued(world, FIRM, { ...oneLine('1000'), ...more });
const claim = (id: number) => {
	const found = lateChargeOf(world, id);
	return found && 'interest' in found ? [found.daysLate, found.interest, found.compensation] : null;
};
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);
const account = (name: string) =>
	world.db.get<{ sum: number }>(
		sql`select coalesce(sum(amount), 0) as sum from journal_lines where account = ${name}`
	)!.sum;

describe('a claim for lateness', () => {
	it('is none on what was credited', async () => {
		const { id } = await firm();
		at('2026-12-18');
		// Due on 8 December: 1,200.00 × 10 days × 11.75 % / 365.
		expect(claim(id)).to.deep.equal([10, 3_86n, 70_00n]);
		await creditInvoice(world, id, 'A mistake', 'c');
		expect(claim(id)).to.equal(null);
	});

	it('counts what was withheld as paid, expected or not, and what went back as owed', async () => {
		const { id } = await firm();
		payByHand(world, id, '1000', { withheld: '200', date: '2026-11-24' });
		at('2026-12-18');
		// Paid in time: there is nothing to say of it either.
		expect(claim(id)).to.equal(null);
	});

	it('never runs before the work was done', async () => {
		const { id } = await firm({ workFinished: '2026-12-20' });
		at('2026-12-20');
		expect(claim(id)).to.equal(null);
		at('2026-12-21');
		expect(claim(id)![0]).to.equal(1);
	});

	it('leaves who got a back-dated invoice as long to pay as it says', async () => {
		const { id } = await firm({ issueDate: '2026-10-24' });
		expect(itemOf(world, id).dueDate).to.equal('2026-11-07');
		expect(claim(id)).to.equal(null);
		at('2026-12-08');
		expect(claim(id)).to.equal(null);
		at('2026-12-09');
		expect(claim(id)![0]).to.equal(1);
	});
});

describe('a charge for lateness', () => {
	it('is no VAT invoice and no sale, and falls with the debt it stands on', async () => {
		const { id, number } = await firm();
		at('2026-12-18');
		const draft = chargeLate(world, id, 'k');
		const charge = await issue(draft);
		expect(documentDetail(world, charge.id).view.title).to.equal('Late payment charge');
		expect([account('sales'), account('lateCharges')]).to.deep.equal([-1000_00, -73_86]);
		at('2026-12-28');
		const more = chargeLate(world, id, 'l');
		await creditInvoice(world, id, 'A mistake', 'c');
		const credited = world.db
			.select()
			.from(documents)
			.where(eq(documents.correctsId, charge.id))
			.get()!;
		expect(credited.frozen!.corrects!.reason).to.equal(`${number} was credited`);
		expect(itemOf(world, charge.id).state).to.equal('credited');
		expect(world.db.select().from(documents).where(eq(documents.id, more)).get()!.state).to.equal(
			'discarded'
		);
		for (const name of ['sales', 'vatOutput', 'lateCharges', 'receivable'])
			expect(account(name), name).to.equal(0);
		await creditInvoice(world, id, 'A mistake', 'c');
		expect(account('lateCharges')).to.equal(0);
	});
});
