// Services at the edge of their own rules: exactly two missed dates, a reminder overtaken, rates that changed, answers kept.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { deliverDue } from '../../../src/lib/server/clockwork/delivery';
import { whileUnchanged } from '../../../src/lib/server/db/unchanged';
import {
	chaseMessages,
	customers,
	documents,
	jobs,
	repeats
} from '../../../src/lib/server/db/schema';
import { planBillRun } from '../../../src/lib/server/services/billing/runPlan';
import { saveChaseSettings } from '../../../src/lib/server/services/chasing/settings';
import { messageFor, sendNow } from '../../../src/lib/server/services/chasing/chasing';
import { runChasing } from '../../../src/lib/server/services/chasing/tick';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { noteHandedOver, sendByMail } from '../../../src/lib/server/services/invoices/send';
import { addJob } from '../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../src/lib/server/services/jobs/states';
import { acceptSure } from '../../../src/lib/server/services/money/bank/accept';
import { bringIn } from '../../support/bank';
import { matchLines } from '../../../src/lib/server/services/money/bank/matching';
import { issueAndSend } from '../../../src/lib/server/services/money/issueAndSend';
import { recordForPayer } from '../../../src/lib/server/services/money/payerPayments';
import { pauseInvoice } from '../../../src/lib/server/services/owed/holds';
import { customerAccount } from '../../../src/lib/server/services/owed/customerAccount';
import { addRepeat } from '../../../src/lib/server/services/repeats/repeats';
import { runRepeats } from '../../../src/lib/server/services/repeats/making';
import { writeOff } from '../../../src/lib/server/services/money/writeOffs';
import { expectSoundBooks } from '../../support/books';
import { FIRM, itemOf, oneLine, payByHand } from '../../support/money';
import { draftOf, HOUSEHOLD, issued, line, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const at = (moment: string) => world.clock.set(londonMoment(moment));

describe('a repeat that missed', () => {
	const missed = async (day: string) => {
		const first = await issued(world, HOUSEHOLD, oneLine('25'));
		addRepeat(world, 'r', first.id, {
			name: 'Care',
			start: '2026-12-01',
			every: 1,
			unit: 'month',
			action: 'send'
		});
		at(`${day}T09:00`);
		await runRepeats(world);
		return world.db.select().from(repeats).get()!.state;
	};
	it('one date sends it within three days', async () =>
		expect(await missed('2026-12-04')).to.equal('active'));
	it('asks on the fourth', async () => expect(await missed('2026-12-05')).to.equal('asking'));
	it('exactly two dates asks first', async () =>
		expect(await missed('2027-01-01')).to.equal('asking'));
});

describe('a reminder in the outbox', () => {
	const written = async () => {
		const one = await issued(world, FIRM, oneLine('100'));
		noteHandedOver(world, one.id, 'handedOver');
		saveChaseSettings(world, { on: true, from: '9', to: '17:00', quietHours: 0, gapDays: 1 });
		at('2026-12-14T10:00');
		const { mark, why, subject, text, channel } = messageFor(world, one.customerId);
		sendNow(world, one.customerId, { mark, why, subject, text, channel, key: 'press' });
		return one;
	};
	it('goes as long as what it asks for is open', async () => {
		await written();
		await deliverDue(world);
		expect(world.sent).to.have.length(1);
	});
	it('is taken back when the amount it asks for has changed by a penny', async () => {
		const { id } = await written();
		payByHand(world, id, '0.01', { date: '2026-12-14' });
		await deliverDue(world);
		expect(world.sent).to.have.length(0);
		expect(world.db.select().from(chaseMessages).get()!.state).to.equal('withdrawn');
	});
	it('is taken back when the invoice is disputed meanwhile', async () => {
		const { id } = await written();
		pauseInvoice(world, id, { kind: 'dispute', until: '', note: 'Wrong wall' });
		await deliverDue(world);
		expect(world.sent).to.have.length(0);
	});
});

describe('chasing by itself', () => {
	it('writes to many in one go, each once, and to nobody it cannot reach', async () => {
		saveChaseSettings(world, { on: true, from: '09:00', to: '17:00', quietHours: 0, gapDays: 1 });
		for (let n = 0; n < 23; n++) {
			const one = await issued(
				world,
				{ ...FIRM, name: `Firm ${n}`, ...(n === 5 ? { email: '', address: '' } : {}) },
				{ rows: [line('a', 'Patch', '10')] }
			).catch(() => null);
			if (one) noteHandedOver(world, one.id, 'handedOver');
		}
		at('2026-12-14T10:00');
		const first = await runChasing(world);
		at('2026-12-14T10:02');
		expect([first, await runChasing(world)]).to.deep.equal([22, 0]);
		const payers = world.db.all<{ n: number }>(
			sql`select count(distinct payer_id) as n from chase_messages`
		)[0]!.n;
		expect(payers).to.equal(22);
	});
	it('begins with the first minute of its hours and ends before the last', async () => {
		saveChaseSettings(world, { on: true, from: '09:00', to: '17:00', quietHours: 0, gapDays: 1 });
		const one = await issued(world, FIRM, oneLine('100'));
		noteHandedOver(world, one.id, 'handedOver');
		at('2026-12-14T08:59');
		expect(await runChasing(world)).to.equal(0);
		at('2026-12-14T17:00');
		expect(await runChasing(world)).to.equal(0);
		at('2026-12-15T09:00');
		expect(await runChasing(world)).to.equal(1);
	});
});

describe('a bill run', () => {
	const job = (customerId: number, title: string, vat: string, finished: string) => {
		const id = addJob(world, title, {
			title,
			customerId,
			lines: [
				{
					kind: 'labour',
					description: title,
					quantity: '1',
					unitPrice: '100',
					vat,
					vatReason: vat === 'zero' ? 'energyZero' : ''
				}
			]
		});
		moveJob(world, id, 'booked');
		moveJob(world, id, 'underWay');
		moveJob(world, id, 'finished', finished);
		return id;
	};
	it('keeps jobs of one customer together whatever rates they use, while no rate changed', () => {
		const customerId = addCustomer(world, HOUSEHOLD);
		job(customerId, 'Plaster', 'standard', '2026-11-20');
		job(customerId, 'Insulation', 'zero', '2026-11-22');
		expect(planBillRun(world, {}).invoices).to.have.length(1);
	});
	it('looked through twice, it is worked out once; a change of a job is noticed', () => {
		const customerId = addCustomer(world, HOUSEHOLD);
		const id = job(customerId, 'Plaster', 'standard', '2026-11-20');
		const before = planBillRun(world, {}).total;
		world.db.update(jobs).set({ title: 'Other' }).where(eq(jobs.id, id)).run();
		expect(planBillRun(world, {}).invoices[0]!.jobs[0]!.title).to.equal('Other');
		expect(planBillRun(world, {}).total).to.equal(before);
	});
});

describe('an answer that is kept', () => {
	it('holds until any row changes, by itself or by another question', () => {
		let asked = 0;
		const ask = (key: string) => whileUnchanged(world.db, key, () => ++asked);
		expect([ask('a'), ask('a'), ask('b')]).to.deep.equal([1, 1, 2]);
		addCustomer(world, HOUSEHOLD);
		expect([ask('a'), ask('a')]).to.deep.equal([3, 3]);
		world.db.update(customers).set({ phone: '1' }).run();
		expect(ask('a')).to.equal(4);
	});
});

describe('issuing with all that goes with it', () => {
	it('is one change: number, money in hand used, and the mail', async () => {
		const paid = await issued(world, FIRM, oneLine('10'));
		recordForPayer(world, paid.customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '100',
			way: 'bank',
			reference: ''
		});
		const draft = draftOf(world, { ...FIRM, name: 'Other' }, oneLine('100'));
		world.db
			.update(documents)
			.set({
				sheet: sql`json_set(sheet, '$.customerId', ${paid.customerId})`,
				customerId: paid.customerId
			})
			.where(eq(documents.id, draft.id))
			.run();
		const issuedNow = await issueAndSend(world, draft.id, draft.version, {
			sendTo: 'accounts@corvane.example',
			copyToSelf: false,
			useInHand: true
		});
		// 100.00 less 12.00 on the first invoice is in hand.
		expect(itemOf(world, issuedNow.id)).to.include({ cash: 88_00, toPay: 32_00, reached: true });
		await deliverDue(world);
		expect(world.sent.map((mail) => mail.to)).to.deep.equal(['accounts@corvane.example']);
	});
	it('takes no number where the address is wrong', async () => {
		const draft = draftOf(world, FIRM, oneLine('100'));
		const wish = { sendTo: 'not an address', copyToSelf: false, useInHand: false };
		await issueAndSend(world, draft.id, draft.version, wish).then(
			() => expect.fail('issued'),
			(error: Error) => expect(error.message).to.match(/no e-mail address/)
		);
		expect(
			world.db.get<{ next: number }>(sql`select next from number_series where kind = 'invoice'`)!
				.next
		).to.equal(7);
	});
});

describe('next moves', () => {
	it('name what was never sent, and drop it the moment it is', async () => {
		const { id, number } = await issued(world, FIRM, oneLine('100'));
		const unsent = () => nextMoves(world).filter((move) => move.id.startsWith('unsent'));
		expect(unsent()[0]).to.include({
			amount: 120_00n,
			title: `Send ${number} to Corvane Dairy Ltd`
		});
		noteHandedOver(world, id, 'linkCopied');
		expect(unsent()).to.deep.equal([]);
	});
	it('name a late payer once, with all that is late, and leave out what is disputed', async () => {
		const one = await issued(world, FIRM, oneLine('100'));
		await issued(world, { ...HOUSEHOLD, name: 'Later' }, oneLine('10'));
		at('2026-12-20T09:00');
		const late = () => nextMoves(world).filter((move) => move.id.startsWith('late'));
		expect(late().map((move) => move.amount)).to.deep.equal([120_00n, 12_00n]);
		pauseInvoice(world, one.id, { kind: 'dispute', until: '', note: 'Wrong wall' });
		expect(late().map((move) => move.amount)).to.deep.equal([12_00n]);
	});
	it('say what of the bank waits, but not of a document that got lost and is paid', async () => {
		const one = await issued(world, FIRM, oneLine('100'));
		world.mailAnswer = () => ({ state: 'refused', reason: 'no such box' });
		sendByMail(world, one.id, {
			to: 'gone@post.example',
			subject: 's',
			text: 't {link}',
			copyToSelf: false,
			key: 'k'
		});
		await deliverDue(world);
		const lost = () => nextMoves(world).filter((move) => move.id.startsWith('mail:'));
		expect(lost()[0]).to.include({ amount: 120_00n, brings: `invoice:${one.id}` });
		const csv = `Date,Description,Amount\n24/11/2026,${one.number} CORVANE DAIRY,120.00\n24/11/2026,fee,-4.00\n`;
		bringIn(world, 'bank.csv', new TextEncoder().encode(csv));
		await matchLines(world);
		const bank = () => nextMoves(world).find((move) => move.id === 'bank');
		expect(bank()).to.include({
			amount: 120_00n,
			title: 'Look at 1 line from the bank',
			detail: 'it is sure: one press takes it',
			late: false
		});
		expect(bank()).not.to.have.property('brings');
		await acceptSure(world);
		expect(bank()).to.equal(undefined);
		expect(lost()).to.deep.equal([]);
	});
	it('say which promise was broken, from the day after it', async () => {
		const one = await issued(world, FIRM, oneLine('100'));
		at('2026-12-20T09:00');
		pauseInvoice(world, one.id, { kind: 'promise', until: '2026-12-22', note: '' });
		const late = () => nextMoves(world).filter((move) => move.id.startsWith('late'));
		at('2026-12-22T09:00');
		expect(late()).to.deep.equal([]);
		at('2026-12-23T09:00');
		expect(late()[0]!.detail).to.equal(`${one.number} was promised by 22 Dec 2026`);
	});
});

describe('a customer’s account', () => {
	it('says in words what every event was', async () => {
		const { id, customerId } = await issued(world, FIRM, oneLine('100'));
		writeOff(world, id, 'Gone', 'w');
		expect(customerAccount(world, customerId).map((row) => row.what)).to.deep.equal([
			'Invoice INV-0007',
			'Written off INV-0007'
		]);
	});
});
