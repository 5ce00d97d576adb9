// Before court: a debtor's breathing space, the letter of claim and its forms, and debts that grow too old.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { breathingEnd } from '../../../src/lib/core/regimes/gb/breathingSpace';
import { chaseMessages } from '../../../src/lib/server/db/schema';
import { sendNow } from '../../../src/lib/server/services/chasing/chasing';
import { runChasing } from '../../../src/lib/server/services/chasing/tick';
import { claimPage, writeClaim } from '../../../src/lib/server/services/chasing/claimLetter';
import { reminderFits } from '../../../src/lib/server/services/chasing/chosen';
import { letterFile, markPosted } from '../../../src/lib/server/services/chasing/messages';
import { saveChaseSettings } from '../../../src/lib/server/services/chasing/settings';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { noteHandedOver } from '../../../src/lib/server/services/invoices/send';
import {
	beginBreathing,
	breathingOf,
	endBreathing
} from '../../../src/lib/server/services/ledger/breathing';
import { chargeLate, lateCharges } from '../../../src/lib/server/services/owed/lateCharges';
import { pauseInvoice } from '../../../src/lib/server/services/owed/holds';
import { saveRate } from '../../../src/lib/server/services/owed/referenceRates';
import { mergeCustomers } from '../../../src/lib/server/services/customers/merge';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import { payByHand, FIRM, oneLine } from '../../support/money';
import { expectSoundBooks } from '../../support/books';
import { HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
let late: { id: number; number: string; customerId: number };
const at = (day: string) => world.clock.set(londonMoment(`${day}T10:00`));

/** £ 1,200 that a firm owes from 8 December on. */
beforeEach(async () => {
	world = makeWorld();
	saveRate(world, '2026-07-01', '3.75');
	saveChaseSettings(world, { on: true, from: '09:00', to: '17:00', quietHours: 24, gapDays: 4 });
	late = await issued(world, FIRM, oneLine('1000'));
	noteHandedOver(world, late.id, 'handedOver');
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const interestOn = (day: string) => {
	const claim = lateCharges(world.db, [late.id], day).get(late.id)!;
	return 'interest' in claim ? claim.interest : null;
};
const space = (from: string, key = 'b1') =>
	beginBreathing(world, late.customerId, { key, from, note: 'DRS-1' });

describe('a breathing space', () => {
	it('is sixty days, on none of which interest is added', () => {
		expect(breathingEnd('2027-01-08')).to.equal('2027-03-08');
		at('2027-01-08');
		// 1,200 × 11.75 % × 100 / 365, and without the sixty days: 40 of them.
		expect(interestOn('2027-03-18')).to.equal(38_63n);
		space('2027-01-08');
		expect(interestOn('2027-03-18')).to.equal(15_45n);
		expect(interestOn('2027-02-01')).to.equal(interestOn('2027-01-07'));
		space('2027-01-08');
		expect(breathingOf(world.db, [late.customerId]).get(late.customerId)).to.have.length(1);
	});

	it('stops reminders, chosen ones and charges, and they go on the day after', async () => {
		at('2027-01-08');
		space('8 Jan');
		expect(await runChasing(world)).to.equal(0);
		expect(reminderFits(world, world.db, [late.id]).get(late.id)).to.contain('breathing space');
		const words = /breathing space until 8 Mar 2027/;
		const write = {
			why: 'now',
			mark: '',
			subject: 's',
			text: 't',
			channel: 'mail',
			key: 'k'
		} as const;
		expect(() => sendNow(world, late.customerId, write)).to.throw(words);
		expect(() => chargeLate(world, late.id, 'k')).to.throw(words);
		const form = { key: 'c', debtor: 'firm', documents: [late.id], agreed: '' };
		expect(() => writeClaim(world, late.customerId, form)).to.throw(words);
		expect(nextMoves(world).some(({ id }) => id === `late:${late.customerId}`)).to.equal(false);
		at('2027-03-09');
		expect(await runChasing(world)).to.equal(1);
		expect(nextMoves(world).some(({ id }) => id.startsWith('late:'))).to.equal(true);
	});

	it('is refused twice at once, far ahead and without its day; ends early, and moves with its debtor', () => {
		at('2027-01-08');
		space('2027-01-08');
		for (const from of ['2027-03-08', '2026-12-01', '', '2027-02-01'])
			expect(() => space(from, `b-${from}`))
				.to.throw()
				.with.nested.property('fields.from');
		const [known] = breathingOf(world.db, [late.customerId]).get(late.customerId)!;
		at('2027-01-20');
		expect(endBreathing(world, late.customerId, known!.id)).to.deep.equal(known);
		expect(endBreathing(world, late.customerId, known!.id)).to.equal(null);
		// Twelve days, from the 8th to the 19th, were free.
		expect(interestOn('2027-01-30')).to.equal(15_84n);
		payByHand(world, late.id, '1200', { date: '2027-01-20' });
		const other = addCustomer(world, { ...FIRM, name: 'Corvane Creamery' });
		mergeCustomers(world, late.customerId, other);
		expect(breathingOf(world.db).get(other)).to.have.length(1);
	});
});

describe('a letter of claim', () => {
	it('to a firm names what is owed with interest, and fourteen days; nothing is enclosed', async () => {
		at('2027-02-06');
		const { invoices, debtor } = claimPage(world, late.customerId);
		expect(debtor).to.equal('firm');
		// Sixty days of 1,200 at 11.75 %, and the fixed sum of 70; 38.63 pence a day.
		expect(invoices[0]).to.deep.include({ open: 1200_00n, added: 93_18n, daily: 39n, against: '' });
		const form = { key: 'c1', debtor: 'firm', documents: [late.id], agreed: '' };
		const id = writeClaim(world, late.customerId, form);
		expect(writeClaim(world, late.customerId, form)).to.equal(id);
		const row = world.db.select().from(chaseMessages).where(eq(chaseMessages.id, id)).get()!;
		expect([row.amount, row.state, row.claim]).to.deep.equal([1293_18, 'toPost', 'firm']);
		expect(row.text).to.contain('by 20 Feb 2027, fourteen days from today');
		const paper = (await letterFile(world, id)).toString();
		expect(paper).to.contain('Letter before action: £1,293.18');
		expect(paper).to.not.contain('Reply form');
	});

	it('to a person says how it was agreed, gives thirty days, and has sheet, form and statement of means with it', async () => {
		const home = await issued(world, HOUSEHOLD, oneLine('500'));
		at('2027-01-10');
		const form = { key: 'c2', debtor: 'individual', documents: [home.id], agreed: '' };
		expect(() => writeClaim(world, home.customerId, form))
			.to.throw()
			.with.nested.property('fields.agreed');
		expect(() => writeClaim(world, home.customerId, { ...form, documents: [late.id] }))
			.to.throw()
			.with.nested.property('fields.documents');
		const agreed = 'You accepted our quote of 3 June 2026 by e-mail.';
		const id = writeClaim(world, home.customerId, { ...form, agreed });
		const { text, claim } = world.db
			.select()
			.from(chaseMessages)
			.where(eq(chaseMessages.id, id))
			.get()!;
		expect(claim).to.equal('individual');
		expect(text).to.contain(agreed).and.to.contain('answer by 9 Feb 2027');
		// No terms were agreed, so nothing may be added to what a household owes.
		expect(text).to.contain('£600.00').and.to.contain('No interest and no other charge is added.');
		const paper = (await letterFile(world, id)).toString();
		for (const part of [
			'Information sheet',
			'Reply form',
			'Statement of means',
			'I do not know whether I owe it'
		])
			expect(paper).to.contain(part);
		markPosted(world, id);
		const waits = () => nextMoves(world).some((move) => move.id === `claim:${id}`);
		at('2027-02-09');
		expect(waits()).to.equal(false);
		at('2027-02-10');
		expect(waits()).to.equal(true);
		payByHand(world, home.id, '600', { date: '2027-02-10' });
		expect(waits()).to.equal(false);
	});

	it('says what had better stay out of it', () => {
		pauseInvoice(world, late.id, { kind: 'dispute', until: '', note: 'Cracks' });
		at('2027-02-06');
		expect(claimPage(world, late.customerId).invoices[0]!.against).to.equal('it is disputed');
	});
});

describe('an old debt', () => {
	it('is warned of half a year before six years are over, and named when they are', () => {
		const move = () => nextMoves(world).find(({ id }) => id === `old:${late.id}`);
		at('2032-06-10');
		expect(move()).to.equal(undefined);
		at('2032-06-11');
		expect(move()!.detail).to.contain('claim it by 8 Dec 2032');
		at('2032-12-09');
		expect(move()!.title).to.contain('too old for a court');
	});
});
