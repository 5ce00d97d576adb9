// Over 300 lines: one case for each thing that repeats.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { fillText } from '../../../src/lib/core/sheet/occasion';
import { documents, openItems, repeatOccurrences } from '../../../src/lib/server/db/schema';
import { expectSoundBooks } from '../../support/books';
import { openCheckout } from '../../../src/lib/server/services/money/checkouts';
import { receiveCardEvent } from '../../../src/lib/server/services/money/cardEvents';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import { discardDraft } from '../../../src/lib/server/services/invoices/drafts';
import { FieldError } from '../../../src/lib/core/refusals';
import { addJob } from '../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../src/lib/server/services/jobs/states';
import {
	addRepeat,
	changeRepeat,
	saveRepeat,
	setRepeatState,
	skipOccurrence
} from '../../../src/lib/server/services/repeats/repeats';
import { aboutToGo, listRepeats, repeatPage } from '../../../src/lib/server/services/repeats/page';
import { answerPile, runRepeats } from '../../../src/lib/server/services/repeats/making';
import { cardOf, revokeCard } from '../../../src/lib/server/services/repeats/keptCards';
import { jobAsPattern, toBill } from '../../../src/lib/server/services/billing/toBill';
import { HOUSEHOLD, issued, line, makeWorld, receive, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const on = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));
const MONTHLY = { name: 'Care plan', start: '2026-12-01', every: 1, unit: 'month', action: 'send' };
const CARE = { rows: [line('a', 'Care plan for {month}', '25.00')] };

async function repeat(more: object = {}) {
	const first = await issued(world, HOUSEHOLD, CARE);
	const id = addRepeat(world, 'press', first.id, { ...MONTHLY, ...more });
	expect(addRepeat(world, 'press', first.id, MONTHLY)).to.equal(id);
	return { id, first };
}
const made = () =>
	world.db
		.select({
			date: repeatOccurrences.date,
			state: repeatOccurrences.state,
			number: documents.number,
			sheet: documents.sheet,
			documentId: documents.id
		})
		.from(repeatOccurrences)
		.leftJoin(documents, eq(documents.id, repeatOccurrences.documentId))
		.orderBy(repeatOccurrences.date)
		.all();
const days = () => made().map((one) => one.date);

describe('a repeat', () => {
	it('makes each occurrence once, with its own date and words, and sends it', async () => {
		const { id } = await repeat();
		await runRepeats(world);
		expect(days()).to.deep.equal([]);
		on('2026-12-01');
		await Promise.all([runRepeats(world), runRepeats(world)]);
		await runRepeats(world);
		const [one, ...more] = made();
		expect(more).to.deep.equal([]);
		expect([one!.state, one!.sheet!.rows[0]]).to.deep.equal([
			'sent',
			{ ...CARE.rows[0], description: 'Care plan for December 2026' }
		]);
		expect(
			world.db.select().from(documents).where(eq(documents.id, one!.documentId!)).get()
		).to.include({ issueDate: '2026-12-01', taxPoint: '2026-12-01' });
		expect(listRepeats(world)[0]).to.deep.include({
			next: '2027-01-01',
			count: 1,
			total: 30_00,
			failed: 0
		});
		expect((await repeatPage(world, id)).coming).to.have.length(12);
	});

	it('on 31 January keeps the 31st; a clock that jumps back makes nothing twice', async () => {
		await repeat({ start: '2027-01-31', action: 'draft' });
		for (const day of ['2027-01-31', '2027-02-28', '2027-02-10', '2027-03-31']) {
			on(day);
			await runRepeats(world);
		}
		expect(days()).to.deep.equal(['2027-01-31', '2027-02-28', '2027-03-31']);
	});

	for (const [answer, expected] of [
		['all', ['2026-12-01', '2027-01-01', '2027-02-01']],
		['latest', ['2027-02-01']],
		['none', []]
	] as const)
		it(`after weeks of downtime asks before it sends a pile: ${answer}`, async () => {
			const { id } = await repeat();
			on('2027-02-10');
			await runRepeats(world);
			expect(days()).to.deep.equal([]);
			expect((await repeatPage(world, id)).pile!.count).to.equal(3);
			await answerPile(world, id, answer);
			await runRepeats(world);
			await runRepeats(world);
			expect(days()).to.deep.equal(expected);
			expect(made().every((one) => one.state === 'sent')).to.equal(true);
		});

	it('leaves out what is skipped and what fell into a pause', async () => {
		const { id } = await repeat({ action: 'draft' });
		skipOccurrence(world, id, '2026-12-01', true);
		on('2026-12-15');
		await runRepeats(world);
		setRepeatState(world, id, 'paused');
		on('2027-01-15');
		await runRepeats(world);
		setRepeatState(world, id, 'active');
		on('2027-02-01');
		await runRepeats(world);
		expect(days()).to.deep.equal(['2027-02-01']);
	});

	it('changes one occurrence alone, and goes on as it was, whatever is changed after it', async () => {
		const { id } = await repeat({ action: 'draft' });
		const { sheet } = await repeatPage(world, id);
		const priced = (price: string) => ({ ...sheet, rows: [line('a', 'Care plan', price)] });
		const totals = async () =>
			(await repeatPage(world, id)).coming.slice(0, 4).map((one) => one.total / 120);
		changeRepeat(world, id, '2027-01-01', priced('40'), true);
		expect(await totals()).to.deep.equal([25, 40, 25, 25]);
		// Changed again, it is still that one alone.
		changeRepeat(world, id, '2027-01-01', priced('50'), true);
		expect(await totals()).to.deep.equal([25, 50, 25, 25]);
		changeRepeat(world, id, '2027-02-01', priced('30'));
		expect(await totals()).to.deep.equal([25, 50, 30, 30]);
		expect(() => changeRepeat(world, id, '2027-01-02', priced('9'), true)).to.throw(FieldError);
		expect(await totals()).to.deep.equal([25, 50, 30, 30]);
	});

	it('changes its lines from a day on, and its rhythm from today', async () => {
		const { id } = await repeat({ action: 'draft' });
		const { sheet, repeat: row } = await repeatPage(world, id);
		changeRepeat(world, id, '2027-01-01', {
			...sheet,
			rows: [line('a', 'Care plan for {month}', '30.00')]
		});
		expect((await repeatPage(world, id)).coming.slice(0, 3).map((one) => one.total)).to.deep.equal([
			30_00, 36_00, 36_00
		]);
		expect(() =>
			changeRepeat(world, id, '2027-01-01', { ...sheet, rows: [line('a', 'x', 'much')] })
		).to.throw(FieldError);
		expect(() => changeRepeat(world, id, '2027-01-01', { ...sheet, discount: '120%' })).to.throw(
			FieldError
		);
		on('2026-12-02');
		saveRepeat(world, id, row.version, {
			...MONTHLY,
			action: 'draft',
			unit: 'week',
			start: '2026-12-01'
		});
		await runRepeats(world);
		on('2026-12-08');
		await runRepeats(world);
		expect(days()).to.deep.equal(['2026-12-08']);
	});

	it('ends after so many, and says so', async () => {
		await repeat({ action: 'draft', ends: 'after', after: 2 });
		for (const day of ['2026-12-01', '2027-01-01', '2027-02-01']) {
			on(day);
			await runRepeats(world);
		}
		expect(days()).to.have.length(2);
		expect(listRepeats(world)[0]!.state).to.equal('ended');
	});

	it('is announced days before it goes out by itself', async () => {
		await repeat();
		on('2026-11-28');
		expect(aboutToGo(world)).to.deep.include.members([
			{ id: 1, name: 'Care plan', date: '2026-12-01', action: 'send', total: 30_00 }
		]);
	});

	const wrong: [object, string][] = [
		[{ name: '' }, 'name'],
		[{ start: '2026-02-30' }, 'start'],
		[{ every: 0 }, 'every'],
		[{ ends: 'after' }, 'after'],
		[{ ends: 'on', on: '2026-01-01' }, 'on']
	];
	for (const [more, field] of wrong)
		it(`refuses ${JSON.stringify(more)} at ${field}`, async () => {
			const { id } = await issued(world, HOUSEHOLD, CARE);
			expect(() => addRepeat(world, 'k', id, { ...MONTHLY, ...more }))
				.to.throw(FieldError)
				.with.nested.property(`fields.${field}`);
		});
});

describe('a repeat of a job', () => {
	it('begins from what is agreed, and bills nothing of the job itself', async () => {
		const customerId = addCustomer(world, HOUSEHOLD);
		const job = addJob(world, 'j', {
			title: 'Gutters',
			customerId,
			lines: [{ description: 'Gutters cleared', quantity: '1', unitPrice: '40' }]
		});
		const draft = jobAsPattern(world, job, 'press');
		expect(jobAsPattern(world, job, 'press')).to.equal(draft);
		addRepeat(world, 'r', draft, MONTHLY);
		discardDraft(world, draft, true);
		await runRepeats(world);
		on('2026-12-01');
		await runRepeats(world);
		expect(made()).to.have.length(1);
		expect(JSON.stringify(made()[0]!.sheet))
			.to.contain('Gutters cleared')
			.and.not.contain('"bills"');
		moveJob(world, job, 'finished');
		expect(toBill(world).map((one) => one.id)).to.deep.equal([job]);
	});
});

describe('a repeat charged to a kept card', () => {
	/** The customer pays the first invoice and lets the card be kept. */
	async function withCard() {
		const { id, first } = await repeat({ action: 'charge' });
		const { token } = world.db.select().from(documents).where(eq(documents.id, first.id)).get()!;
		await openCheckout(world, token!, 'first', undefined, { keepCard: true });
		const event = {
			id: 'evt-first',
			type: 'payment.settled' as const,
			checkout: world.checkouts[0]!.id,
			amount: 30_00,
			fee: 62,
			card: { token: 'crd_1', lastDigits: '0001' }
		};
		receive(world, event);
		receive(world, event);
		return { id, customerId: first.customerId };
	}
	const say = (n: number, type: 'payment.settled' | 'payment.declined') =>
		receiveCardEvent(
			world,
			{ id: `evt-${n}-${type}`, type, checkout: `chg-${n}`, amount: 30_00, fee: 62 },
			'{}'
		);
	const state = () => made().at(-1)!.state;

	it('is issued, charged once, and paid when the processor says so', async () => {
		const { customerId } = await withCard();
		expect(cardOf(world.db, customerId)!.lastDigits).to.equal('0001');
		on('2026-12-01');
		world.cardDown = true;
		await runRepeats(world);
		expect([state(), world.charges.length]).to.deep.equal(['charging', 0]);
		world.cardDown = false;
		await Promise.all([runRepeats(world), runRepeats(world)]);
		await runRepeats(world);
		expect(world.charges).to.have.length(1);
		say(1, 'payment.settled');
		say(1, 'payment.settled');
		expect(state()).to.equal('paid');
	});

	it('declined is tried again days later, and in the end is an ordinary open invoice with a message', async () => {
		await withCard();
		world.chargeState = 'declined';
		for (const [n, day] of ['2026-12-01', '2026-12-04', '2026-12-08'].entries()) {
			on(day);
			await runRepeats(world);
			await runRepeats(world);
			expect(world.charges).to.have.length(n + 1);
			say(n + 1, 'payment.declined');
		}
		on('2026-12-20');
		await runRepeats(world);
		expect([state(), world.charges.length]).to.deep.equal(['open', 3]);
		const item = world.db
			.select()
			.from(openItems)
			.where(eq(openItems.documentId, made().at(-1)!.documentId!))
			.get()!;
		expect(item).to.include({ state: 'open', outstanding: 30_00 });
		const told = world.db.$client
			.prepare("select subject from mails where key like 'charge-failed:%'")
			.pluck()
			.all();
		expect(told).to.have.length(1);
	});

	it('revoked is not charged any more: the invoice goes out as any other', async () => {
		const { customerId } = await withCard();
		await revokeCard(world, customerId, 'customer');
		on('2026-12-01');
		await runRepeats(world);
		expect([state(), world.charges.length]).to.deep.equal(['sent', 0]);
	});
});

describe('words in braces', () => {
	for (const [text, filled] of [
		['Care plan for {month}', 'Care plan for November 2026'],
		['{quarter}, {Year}', 'October to December 2026, 2026'],
		['until {next month}; {date}', 'until December 2026; 24 Nov 2026'],
		['{other} {} {constructor}', '{other} {} {constructor}']
	] as const)
		it(text, () => expect(fillText(text, '2026-11-24')).to.equal(filled));
});
