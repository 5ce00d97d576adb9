// Chasing from the plan to the last letter. Over 300 lines: all of it walks the same two months of one world's clock.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { addDays } from '../../../src/lib/core/calendar/manipulation';
import {
	chaseDone,
	chaseMessages,
	documents,
	mails,
	texts
} from '../../../src/lib/server/db/schema';
import { expectSoundBooks } from '../../support/books';
import {
	letterFile,
	markPosted,
	noteReminderOpened,
	sentReminders
} from '../../../src/lib/server/services/chasing/messages';
import {
	archivePlan,
	restorePlan,
	choosers,
	loadPlans,
	savePlan
} from '../../../src/lib/server/services/chasing/plans';
import { payerChasing, savePayerChasing } from '../../../src/lib/server/services/chasing/payers';
import { saveChaseSettings } from '../../../src/lib/server/services/chasing/settings';
import {
	messageFor,
	saveWording,
	sendNow,
	skipMessage
} from '../../../src/lib/server/services/chasing/chasing';
import { runChasing } from '../../../src/lib/server/services/chasing/tick';
import { chaseDayPage } from '../../../src/lib/server/services/chasing/day';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import { deliverDue } from '../../../src/lib/server/clockwork/delivery';
import {
	beginInvoice,
	loadDraft,
	saveDraft
} from '../../../src/lib/server/services/invoices/drafts';
import {
	ConflictError,
	FieldError,
	NotFoundError,
	RefusedError
} from '../../../src/lib/core/refusals';
import { sendTextAgain } from '../../../src/lib/server/services/messages/outbox';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import { pauseInvoice } from '../../../src/lib/server/services/owed/holds';
import { issueInvoice } from '../../../src/lib/server/services/invoices/issue';
import { chargeByPlan } from '../../../src/lib/server/services/chasing/chargeByPlan';
import { lateChargeOf } from '../../../src/lib/server/services/owed/lateCharges';
import { saveLateTerms } from '../../../src/lib/server/services/owed/lateTerms';
import { recordPayment } from '../../../src/lib/server/services/money/payments';
import { noteHandedOver } from '../../../src/lib/server/services/invoices/send';
import { paperTrail } from '../../../src/lib/server/services/trail/documents';
import { payReminder, reminderPage } from '../../../src/lib/server/services/chasing/reminderPage';
import {
	HOUSEHOLD,
	line,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../support/world';

const SETTINGS = { on: true, from: '09:00', to: '17:00', quietHours: 24, gapDays: 2 };
const FIRM = {
	...HOUSEHOLD,
	name: 'Corvane Dairy Ltd',
	kind: 'business' as const,
	email: 'accounts@corvane.example',
	phone: '07700 900123'
};

let world: TestWorld;
beforeEach(() => {
	world = makeWorld({ phone: '01632 960001' });
	saveChaseSettings(world, SETTINGS);
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

/** Refused, with the message at that field. */
const refusedAt = async (field: string, press: Promise<unknown>) => {
	const error = await press.then(
		() => null,
		(one) => one
	);
	expect(error).to.be.instanceOf(FieldError);
	expect(Object.keys((error as FieldError).fields)).to.deep.equal([field]);
};

let count = 0;
/** An invoice of 120.00 that was handed over today; the terms are 14 days. */
async function owed(customer: object | number = FIRM, sent = true): Promise<number> {
	const customerId = typeof customer === 'number' ? customer : addCustomer(world, customer);
	const id = beginInvoice(world, `chased-${count++}`, customerId);
	const { version } = saveDraft(world, id, 1, {
		...loadDraft(world.db, id).sheet,
		rows: [line('a', 'Render', '100')]
	});
	await issueInvoice(world, id, version);
	if (sent) noteHandedOver(world, id, 'handedOver');
	return id;
}
const payerOf = (id: number) =>
	world.db.select().from(documents).where(eq(documents.id, id)).get()!.customerId!;
/** Due on 2026-12-08, a Tuesday. */
const at = (day: string, time = '09:30') => world.clock.set(londonMoment(`${day}T${time}`));
async function tick(): Promise<void> {
	await runChasing(world);
	await deliverDue(world);
}
async function through(from: string, to: string, time = '09:30'): Promise<void> {
	for (let day = from; day <= to; day = addDays(day, 1)) {
		at(day, time);
		await tick();
	}
}
const subjects = () => world.sent.map((mail) => mail.subject);
const pay = (id: number, amount: string) =>
	recordPayment(world, id, {
		key: `pay-${count++}`,
		date: world.clock.today(),
		amount,
		withheld: '',
		way: 'bank',
		reference: '',
		allowOverpaid: true
	});

describe('chasing, day by day', () => {
	it('sends each step once, in order, growing firmer, and stops when it is paid', async () => {
		const id = await owed();
		await through('2026-11-25', '2026-12-30');
		expect(subjects()).to.deep.equal([
			'Due on 8 Dec 2026: £120.00',
			'Still open: £120.00',
			'£120.00 is 21 days late'
		]);
		expect(world.texts.map((text) => [text.to, text.text.split(' See')[0]])).to.deep.equal([
			['07700 900123', 'Tamsin Orrell here: £120.00 for invoice INV-0007 is open, 10 days late.']
		]);
		const firm = world.sent.at(-1)!;
		expect(firm.text).to.include('Late Payment of Commercial Debts (Interest) Act 1998');
		expect(firm.attachments.map((one) => one.filename)).to.have.length(1);
		pay(id, '120');
		await through('2026-12-31', '2027-02-28');
		expect(world.sent).to.have.length(3);
		const reminded = paperTrail(world, id).filter((entry) => entry.what === 'reminded');
		expect(reminded.map((entry) => entry.detail.split(' to')[0])).to.deep.equal([
			'by e-mail',
			'by e-mail',
			'by text',
			'by e-mail'
		]);
	});

	it('says nothing before it is turned on, outside the hours, on weekends, or twice a day', async () => {
		await owed();
		saveChaseSettings(world, { ...SETTINGS, on: false });
		at('2026-12-11');
		await tick();
		saveChaseSettings(world, SETTINGS);
		at('2026-12-11', '08:59');
		await tick();
		at('2026-12-11', '17:00');
		await tick();
		at('2026-12-12', '10:00');
		await tick();
		expect(world.sent).to.have.length(0);
		at('2026-12-14', '09:00');
		await tick();
		at('2026-12-14', '12:00');
		await tick();
		expect(world.sent).to.have.length(1);
	});

	it('goes by the clock on the wall on the days on which the clocks change', async () => {
		saveChaseSettings(world, { ...SETTINGS, from: '00:00', to: '23:59' });
		await owed();
		at('2027-03-25', '23:58');
		await tick();
		expect(world.sent).to.have.length(1);
		const [plan] = loadPlans(world.db);
		const later = { ...plan!.steps[0]!, id: 'new', offset: 111 };
		savePlan(world, plan!.id, 1, { ...plan!, steps: [later] });
		// Due on Easter Monday 2027, so on the 30th: summer time by then, midnight is 23:00 in universal time.
		world.clock.set(Date.parse('2027-03-29T22:59:00Z'));
		await tick();
		expect(world.sent).to.have.length(1);
		world.clock.set(Date.parse('2027-03-29T23:00:00Z'));
		await tick();
		expect(world.sent).to.have.length(2);
		// The last Sunday of October: at 23:30 in universal time it is still Sunday again.
		savePlan(world, plan!.id, 2, { ...plan!, steps: [{ ...later, id: 'autumn', offset: 328 }] });
		world.clock.set(Date.parse('2027-10-31T23:30:00Z'));
		await tick();
		expect(world.sent).to.have.length(2);
		world.clock.set(Date.parse('2027-11-01T00:00:00Z'));
		await tick();
		expect(world.sent).to.have.length(3);
	});

	it('writes once about several late invoices of a customer, with a link for each', async () => {
		const first = await owed();
		const second = await owed(payerOf(first));
		at('2026-12-11');
		await tick();
		expect(world.sent).to.have.length(1);
		expect(subjects()).to.deep.equal(['Still open: £240.00']);
		expect(world.sent[0]!.text).to.include('INV-0007').and.include('INV-0008');
		expect(world.sent[0]!.html.match(/<a href="http[^"]+\?r=/g)).to.have.length(2);
		// One button leads to both.
		expect(world.sent[0]!.html.match(/style="display:inline-block/g)).to.have.length(1);
		const [, token = ''] = /\/r\/([\w-]{32})/.exec(world.sent[0]!.text)!;
		const third = await owed(payerOf(first));
		expect(reminderPage(world, token)).to.deep.include({
			toPay: 240_00,
			asked: 2,
			payer: FIRM.name,
			pending: false
		});
		const paying = (chosen: number[], amount?: number) =>
			payReminder(world, token, `pay ${chosen.join()} ${amount}`, chosen, amount);
		await refusedAt('invoices', paying([third]));
		await refusedAt('amount', paying([first, second], 240_01));
		await paying([first, second], 150_00);
		receive(world, settledEvent(world.checkouts[0]!.id, 150_00));
		const left = reminderPage(world, token);
		expect(left.open.map((one) => [one.documentId, one.toPay])).to.deep.equal([[second, 90_00]]);
		expect(left.last).to.include({ state: 'settled', amount: 150_00 });
		expect(() => reminderPage(world, `${token.slice(1)}x`)).to.throw(NotFoundError);
		expect(paperTrail(world, second).some((entry) => entry.what === 'reminded')).to.equal(true);
	});

	it('holds what is promised, and takes it up again the day after the promise', async () => {
		const id = await owed();
		at('2026-12-10');
		pauseInvoice(world, id, { kind: 'promise', until: '2026-12-16', note: '' });
		await through('2026-12-10', '2026-12-16');
		expect(world.sent).to.have.length(0);
		expect(chaseDayPage(world).held.map((one) => [one.because, one.until])).to.deep.equal([
			['promised', '2026-12-16']
		]);
		await through('2026-12-17', '2026-12-18');
		expect(subjects()).to.deep.equal(['Still open: £120.00']);
		expect(world.texts).to.have.length(0);
	});

	it('leaves out who is never chased, on hold, or has not been sent the invoice', async () => {
		const never = await owed();
		const onHold = await owed({ ...FIRM, name: 'On hold Ltd' });
		await owed({ ...FIRM, name: 'Unsent Ltd' }, false);
		const like = { planId: null, never: false, onHold: false, note: '' };
		savePayerChasing(world, payerOf(never), { ...like, never: true });
		savePayerChasing(world, payerOf(onHold), { ...like, onHold: true });
		at('2026-12-11');
		await tick();
		expect(world.sent).to.have.length(0);
		expect(chaseDayPage(world).held.map((one) => one.because)).to.have.members([
			'customerOnHold',
			'notSent'
		]);
	});

	it('says nothing within a day of a payment, and then asks for what is left', async () => {
		const id = await owed();
		at('2026-12-11', '09:00');
		pay(id, '50');
		await tick();
		expect(world.sent).to.have.length(0);
		at('2026-12-14');
		await tick();
		expect(subjects()).to.deep.equal(['Still open: £70.00']);
	});
});

describe('a reminder that waits for the mail server', () => {
	beforeEach(() => (world.mailAnswer = () => ({ state: 'later', reason: 'down' })));

	it('is taken back when it is paid before it goes', async () => {
		const id = await owed();
		at('2026-12-11');
		await tick();
		expect(world.db.select().from(mails).all()).to.have.length(1);
		pay(id, '120');
		world.mailAnswer = () => ({ state: 'sent' });
		at('2026-12-11', '10:30');
		await tick();
		expect(world.sent).to.have.length(0);
		expect(sentReminders(world.db, {})[0]!.state).to.equal('withdrawn');
		expect(world.db.select().from(chaseDone).all()).to.have.length(0);
	});

	it('after days off goes once, as the step that is due then', async () => {
		await owed();
		await through('2026-12-11', '2026-12-16');
		await through('2026-12-17', '2026-12-18', '16:30');
		world.mailAnswer = () => ({ state: 'sent' });
		await through('2026-12-19', '2026-12-23');
		expect(subjects()).to.deep.equal([]);
		expect(world.texts).to.have.length(1);
		await through('2026-12-24', '2026-12-30');
		expect(subjects()).to.deep.equal(['£120.00 is 21 days late']);
	});

	it('is decided anew where it lies overnight, and never goes at night', async () => {
		await owed();
		at('2026-12-11', '16:50');
		await tick();
		world.mailAnswer = () => ({ state: 'sent' });
		at('2026-12-11', '20:00');
		await tick();
		expect(world.sent).to.have.length(0);
		at('2026-12-14');
		await tick();
		expect(subjects()).to.deep.equal(['Still open: £120.00']);
		expect(world.sent[0]!.text).to.include('6 days late');
	});
});

describe('tomorrow’s messages', () => {
	it('are seen today, can be changed for once, and go as changed', async () => {
		await owed();
		at('2026-12-10');
		const [planned] = chaseDayPage(world).next;
		expect(planned).to.include({ day: '2026-12-11', payer: FIRM.name, to: FIRM.email });
		expect(planned!.text).to.include('3 days late');
		const { why, mark, wording, channel, payerId } = planned!;
		saveWording(world, payerId, {
			why,
			mark,
			channel,
			...wording,
			text: 'Dear all, {amount} please'
		});
		expect(() =>
			saveWording(world, payerId, { why, mark, channel, ...wording, text: '{nonsense}' })
		).to.throw(FieldError);
		await through('2026-12-11', '2026-12-18');
		expect(world.sent[0]!.text).to.match(/^Dear all, £120\.00 please\n\nhttp/);
		expect(loadPlans(world.db)[0]!.steps[1]!.text).to.include('{invoices}');
	});

	it('can be left out: the step counts as dealt with', async () => {
		await owed();
		at('2026-12-10');
		const { payerId, why, mark } = chaseDayPage(world).next[0]!;
		skipMessage(world, payerId, { why, mark });
		await through('2026-12-11', '2026-12-17');
		expect(world.sent).to.have.length(0);
		await through('2026-12-18', '2026-12-18');
		expect(world.texts).to.have.length(1);
	});

	it('can be sent now, once for a press; a press on what has changed since is refused', async () => {
		const id = await owed();
		at('2026-12-10', '20:00');
		const { payerId, why, mark, wording, channel } = chaseDayPage(world).next[0]!;
		const form = { why, mark, channel, ...wording, key: 'press' };
		expect(sendNow(world, payerId, form)).to.equal(sendNow(world, payerId, form));
		await deliverDue(world);
		expect(world.sent).to.have.length(1);
		pay(id, '20');
		expect(() => sendNow(world, payerId, { ...form, key: 'again' })).to.throw(ConflictError);
		await through('2026-12-11', '2026-12-16');
		expect(world.sent).to.have.length(1);
	});

	it('on a Saturday are Monday’s; who paid on Friday afternoon is among them', async () => {
		const id = await owed();
		at('2026-12-11', '15:00');
		pay(id, '50');
		at('2026-12-12', '11:00');
		expect(chaseDayPage(world).now).to.deep.equal([]);
		expect(chaseDayPage(world).next.map((one) => one.day)).to.deep.equal(['2026-12-14']);
		expect(messageFor(world, payerOf(id))).to.include({ why: 'planned', day: '2026-12-14' });
	});

	it('can be written at any time, also where no step is due', async () => {
		const id = await owed();
		const composed = messageFor(world, payerOf(id));
		expect(composed).to.include({ why: 'now', amount: 120_00n });
		expect(() => messageFor(world, 999)).to.throw(NotFoundError);
	});
});

describe('the last letter', () => {
	it('waits for a person, states the law, and is printed and posted', async () => {
		const id = await owed();
		await through('2026-12-05', '2027-01-20');
		expect(world.sent).to.have.length(3);
		const [last] = chaseDayPage(world).toDecide;
		expect(last).to.include({ channel: 'letter', why: 'decide' });
		expect(last!.text).to.include('Pre-Action Protocol for Debt Claims');
		const { why, mark, wording, channel, payerId } = last!;
		const letter = sendNow(world, payerId, { why, mark, channel, ...wording, key: 'letter' });
		const pdf = await letterFile(world, letter);
		expect(pdf.subarray(0, 4).toString()).to.equal('%PDF');
		markPosted(world, letter);
		markPosted(world, letter);
		expect(sentReminders(world.db, { id: letter })[0]!.state).to.equal('posted');
		expect(paperTrail(world, id).filter((one) => one.what === 'letterPosted')).to.have.length(1);
		expect(chaseDayPage(world).toDecide).to.have.length(0);
	});

	it('tells a household of a letter of claim and 30 days, and nothing of the Act', async () => {
		await owed(HOUSEHOLD);
		await through('2026-12-05', '2027-01-20');
		const [last] = chaseDayPage(world).toDecide;
		expect(last!.text).to.include('30 days to answer').and.not.include('1998');
	});
});

describe('a chase plan', () => {
	const plan = (more: object = {}) => ({
		name: 'Firm',
		standard: false,
		labels: ['firm'],
		chargeAfter: null,
		steps: [
			{
				id: '',
				offset: 1,
				channel: 'text',
				tone: 'firm',
				subject: '',
				text: '{what}: {amount}',
				byHand: false
			}
		],
		...more
	});

	it('goes by the customer’s own choice, then its label, then the standard one', async () => {
		const labelled = await owed({ ...FIRM, name: 'Labelled Ltd', labels: ['firm'] });
		const other = await owed({ ...FIRM, name: 'Other Ltd' });
		savePlan(world, null, 0, plan());
		expect(messageFor(world, payerOf(labelled)).planName).to.equal('Firm');
		expect(messageFor(world, payerOf(other)).planName).to.equal('Polite, then plain');
		const firm = loadPlans(world.db).at(-1)!.id;
		savePayerChasing(world, payerOf(other), {
			planId: firm,
			never: false,
			onHold: false,
			note: ''
		});
		expect(messageFor(world, payerOf(other)).planName).to.equal('Firm');
	});

	it('changed midway does not begin again from the kind words', async () => {
		const id = await owed();
		await through('2026-12-18', '2026-12-18');
		expect(world.texts).to.have.length(1);
		const firm = savePlan(world, null, 0, plan({ labels: [] }));
		savePayerChasing(world, payerOf(id), { planId: firm, never: false, onHold: false, note: '' });
		await through('2026-12-21', '2026-12-24');
		expect(world.texts).to.have.length(1);
	});

	it('put away, leaves its payers to their label or the standard one; the standard one stays', async () => {
		const id = await owed();
		const firm = savePlan(world, null, 0, plan({ labels: [] }));
		savePayerChasing(world, payerOf(id), { planId: firm, never: false, onHold: false, note: '' });
		expect(choosers(world.db).get(firm)).to.equal(1);
		const [standard] = loadPlans(world.db);
		expect(() => archivePlan(world, standard!.id)).to.throw(RefusedError);
		const { name, labels, chargeAfter, steps } = standard!;
		const without = { name, labels, chargeAfter, steps, standard: false };
		expect(() => savePlan(world, standard!.id, 1, without)).to.throw(RefusedError);
		archivePlan(world, firm);
		expect(payerChasing(world.db, payerOf(id)).planId).to.equal(null);
		expect(messageFor(world, payerOf(id)).planName).to.equal(name);
		expect(() => archivePlan(world, firm)).to.throw(NotFoundError);
		// Taken back, it is whose it was.
		restorePlan(world, firm);
		expect(payerChasing(world.db, payerOf(id)).planId).to.equal(firm);
		archivePlan(world, firm);
		// Another one becomes the standard one, and the first is it no longer.
		savePlan(world, null, 0, plan({ standard: true }));
		expect(loadPlans(world.db).map((one) => one.standard)).to.deep.equal([false, true]);
	});

	it('changed in two tabs is not overwritten', () => {
		const [standard] = loadPlans(world.db);
		savePlan(world, standard!.id, 1, { ...standard!, name: 'First' });
		expect(() => savePlan(world, standard!.id, 1, { ...standard!, name: 'Second' })).to.throw(
			ConflictError
		);
		expect(loadPlans(world.db)[0]!.name).to.equal('First');
	});

	it('refuses fields that do not exist, two steps on a day, and what no text can carry', () => {
		const problems = (more: object) => {
			try {
				savePlan(world, null, 0, plan(more));
				return {};
			} catch (error) {
				return (error as FieldError).fields;
			}
		};
		const [step] = plan().steps;
		expect(problems({ steps: [] })).to.have.keys('steps');
		expect(problems({ steps: [{ ...step, text: '{price}' }] })).to.have.keys('steps.0.text');
		expect(problems({ steps: [step, step] })).to.have.keys('steps.1.offset');
		expect(problems({ steps: [{ ...step, text: 'x'.repeat(301) }] })).to.have.keys('steps.0.text');
		expect(problems({ steps: [{ ...step, channel: 'mail' }] })).to.have.keys('steps.0.subject');
	});

	it('charges for lateness by itself where the owner has set that, once', async () => {
		const [standard] = loadPlans(world.db);
		savePlan(world, standard!.id, 1, { ...standard!, chargeAfter: 30 });
		world.db.$client.exec(
			"insert or replace into reference_rates (\"from\", rate) values ('2026-07-01', '3.75')"
		);
		const id = await owed();
		at('2027-01-06');
		expect(await chargeByPlan(world)).to.equal(0);
		at('2027-01-07');
		expect(await chargeByPlan(world)).to.equal(1);
		await deliverDue(world);
		at('2027-01-08');
		expect(await chargeByPlan(world)).to.equal(0);
		const charge = world.db
			.select()
			.from(documents)
			.where(eq(documents.key, `late:${id}:plan`))
			.get()!;
		// 30 days at 11.75 % on 120.00, and 40.00.
		expect([charge.state, charge.total]).to.deep.equal(['issued', 41_16]);
		expect(lateChargeOf(world, charge.id)).to.equal(null);
	});
});

describe('a contract’s own terms for late payment', () => {
	it('stand in place of the Act, also for a household', async () => {
		const id = await owed(HOUSEHOLD);
		at('2026-12-22');
		expect(lateChargeOf(world, id)).to.equal(null);
		const terms = {
			fee: '15',
			rate: '10',
			afterDays: '7',
			terms: '£15, and 10 % a year after a week'
		};
		saveLateTerms(world, payerOf(id), terms);
		at('2026-12-15');
		expect(lateChargeOf(world, id)).to.include({ interest: 0n, compensation: 0n });
		at('2026-12-22');
		// Seven days after the week of grace: 120.00 × 10 % × 7 ÷ 365.
		expect(lateChargeOf(world, id)).to.include({
			interest: 23n,
			compensation: 15_00n,
			terms: terms.terms
		});
		expect(() => saveLateTerms(world, payerOf(id), { ...terms, terms: '' })).to.throw(FieldError);
		saveLateTerms(world, payerOf(id), { fee: '', rate: '', afterDays: '', terms: '' });
		expect(lateChargeOf(world, id)).to.equal(null);
	});
});

describe('the next moves', () => {
	const titles = () => nextMoves(world).map((move) => `${move.title} (${move.action})`);

	it('ask about a last letter instead of another reminder, and then for its stamp', async () => {
		const id = await owed();
		await through('2026-12-05', '2027-01-20');
		expect(titles()).to.include('A last letter to Corvane Dairy Ltd? (Read and decide)');
		expect(titles().join()).not.to.include('days late (Remind)');
		const { why, mark, wording, channel, payerId } = messageFor(world, payerOf(id), 'decide');
		const letter = sendNow(world, payerId, { why, mark, channel, ...wording, key: 'letter' });
		expect(titles()).to.include('Print and post the letter to Corvane Dairy Ltd (Print it)');
		markPosted(world, letter);
		expect(titles().join()).not.to.include('letter');
		expect(titles().join()).to.include('(Remind)');
	});

	it('tell of reminders that did not reach anybody, by mail or by text', async () => {
		await owed();
		world.mailAnswer = () => ({ state: 'refused', reason: 'no such box' });
		world.textAnswer = { state: 'refused', reason: 'the text gateway answered 422' };
		await through('2026-12-11', '2026-12-18');
		expect(titles()).to.include.members([
			'A reminder did not reach accounts@corvane.example (Check it and send again)',
			'A reminder did not reach 07700 900123 (Check it and send again)'
		]);
		expect(sentReminders(world.db, {}).map((one) => one.state)).to.deep.equal(['failed', 'failed']);
		// A refused text goes again when the owner asks, as long as it still stands.
		world.textAnswer = { state: 'sent' };
		sendTextAgain(world, sentReminders(world.db, {})[0]!.id);
		await deliverDue(world);
		expect(world.texts).to.have.length(1);
		// The same payer is written to by the next step all the same.
		world.mailAnswer = () => ({ state: 'sent' });
		await through('2026-12-29', '2026-12-29');
		expect(subjects().at(-1)).to.equal('£120.00 is 21 days late');
	});
});

describe('a payer who can be reached one way only', () => {
	it('gets a letter where there is no address for mail, and nothing where there is none at all', async () => {
		const noMail = await owed({ ...FIRM, name: 'Paper Ltd', email: '', phone: '' });
		await owed({ ...FIRM, name: 'Nowhere Ltd', email: '', phone: '', address: '' }).catch(() => 0);
		at('2026-12-11');
		await tick();
		expect(sentReminders(world.db, {}).map((one) => [one.payer, one.channel])).to.deep.equal([
			['Paper Ltd', 'letter']
		]);
		expect(messageFor(world, payerOf(noMail)).detour).to.include('as a letter');
		// Where a text would be due, paper says what a letter says.
		at('2026-12-18');
		const instead = messageFor(world, payerOf(noMail));
		expect(instead.step.channel).to.equal('text');
		expect(instead).to.include({ channel: 'letter', to: `Paper Ltd\n${FIRM.address}` });
		expect(instead.text)
			.to.match(
				/^To Paper Ltd\n\n£120\.00 for invoice INV-0007 is still open: it is 10 days late\./
			)
			.and.to.contain('Yours sincerely\nTamsin Orrell')
			.and.not.to.match(/http|\{/);
		const household = await owed({ ...HOUSEHOLD, name: 'Quiet', email: '', address: '' });
		at('2026-12-29');
		const composed = messageFor(world, payerOf(household));
		expect(composed.to).to.equal('');
		const { why, mark, wording, channel, payerId } = composed;
		expect(() =>
			sendNow(world, payerId, { why, mark, channel, ...wording, key: 'nowhere' })
		).to.throw(RefusedError, 'neither an e-mail address nor a postal address');
	});
});

describe('a reminder’s link', () => {
	it('shows that it was opened, once; a wrong mark is no fault', async () => {
		const id = await owed();
		at('2026-12-11');
		await tick();
		const token = /\?r=([\w-]{32})/.exec(world.sent[0]!.text)![1]!;
		noteReminderOpened(world, 'x');
		noteReminderOpened(world, token);
		noteReminderOpened(world, token);
		expect(sentReminders(world.db, {})[0]!.openedAt).to.equal(world.clock.now());
		expect(paperTrail(world, id).filter((one) => one.what === 'reminderOpened')).to.have.length(1);
		expect(world.db.select().from(chaseMessages).all()).to.have.length(1);
		expect(world.db.select().from(texts).all()).to.have.length(0);
	});
});
