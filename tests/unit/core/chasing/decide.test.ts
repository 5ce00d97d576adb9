import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { isWorkingDay } from '../../../../src/lib/core/calendar/holidays';
import { addDays } from '../../../../src/lib/core/calendar/manipulation';
import {
	decideChasing,
	mayGoOut,
	messageNow,
	stepDay
} from '../../../../src/lib/core/chasing/decide';
import type {
	ChaseItem,
	ChasePayer,
	ChaseSettings,
	ChaseStep
} from '../../../../src/lib/core/chasing/types';

const step = (id: string, offset: number, more: Partial<ChaseStep> = {}): ChaseStep => ({
	id,
	offset,
	channel: 'mail',
	tone: 'plain',
	subject: '',
	text: '',
	byHand: false,
	...more
});
const PLAN = {
	id: 1,
	steps: [step('firm', 21), step('before', -3), step('first', 3), step('second', 10)]
};
const SETTINGS: ChaseSettings = {
	hours: { from: 9 * 60, to: 17 * 60 },
	quietHours: 24,
	gapDays: 3
};
// Due on a Monday.
const DUE = '2026-11-02';
const item = (more: Partial<ChaseItem> = {}): ChaseItem => ({
	documentId: 1,
	payerId: 1,
	dueDate: DUE,
	toPay: 100_00n,
	sent: true,
	hold: null,
	paymentPending: false,
	bankLineWaiting: false,
	done: new Set(),
	reached: null,
	...more
});
const payer = (items: ChaseItem[], more: Partial<ChasePayer> = {}): ChasePayer => ({
	payerId: 1,
	plan: PLAN,
	onHold: false,
	lastPaidAt: null,
	lastMessageOn: null,
	items,
	...more
});
const NOW = 1_000_000_000_000;
const decide = (day: string, ...payers: ChasePayer[]) => decideChasing(payers, day, NOW, SETTINGS);
const stepOn = (day: string, items = [item()], more: Partial<ChasePayer> = {}) =>
	decide(day, payer(items, more)).messages[0]?.step.id ?? null;
const because = (more: Partial<ChaseItem>, of: Partial<ChasePayer> = {}, day = '2026-11-05') =>
	decide(day, payer([item(more)], of)).held[0]?.because ?? null;

describe('a chase plan', () => {
	it('takes its steps by their offset to the due day, on working days', () => {
		expect(stepOn('2026-10-29')).to.equal(null);
		// Three days before is a Friday.
		expect(stepOn('2026-10-30')).to.equal('before');
		expect(stepOn('2026-11-02', [item({ done: new Set(['before']) })])).to.equal(null);
		expect(stepOn('2026-11-05')).to.equal('first');
		expect(stepDay('2026-11-05', step('x', 2))).to.equal('2026-11-09');
		// Christmas Day and Boxing Day (on a Saturday, so the Monday after it too) are no days to write.
		expect(stepDay('2026-12-22', step('x', 3))).to.equal('2026-12-29');
	});

	it('goes out within the chosen hours of working days only', () => {
		expect(mayGoOut('2026-11-05', 9 * 60, SETTINGS)).to.equal(true);
		expect(mayGoOut('2026-11-05', 9 * 60 - 1, SETTINGS)).to.equal(false);
		expect(mayGoOut('2026-11-05', 17 * 60, SETTINGS)).to.equal(false);
		expect(mayGoOut('2026-11-07', 12 * 60, SETTINGS)).to.equal(false);
		expect(mayGoOut('2026-12-25', 12 * 60, SETTINGS)).to.equal(false);
	});

	it('after days off sends the last step that is due, once, and counts the others as overtaken', () => {
		const [message] = decide('2026-11-25', payer([item()])).messages;
		expect(message!.step.id).to.equal('firm');
		expect(message!.covers).to.have.deep.members([
			{ documentId: 1, stepId: 'first', offset: 3, reached: false },
			{ documentId: 1, stepId: 'second', offset: 10, reached: false },
			{ documentId: 1, stepId: 'firm', offset: 21, reached: true }
		]);
	});

	it('writes one message about everything late, in the firmest tone of its invoices', () => {
		const old = item({ done: new Set(['before', 'first']) });
		const newer = item({ documentId: 2, dueDate: '2026-11-09' });
		const quiet = item({ documentId: 3, dueDate: '2026-11-11', done: new Set(['first']) });
		const early = item({ documentId: 4, dueDate: '2026-12-30' });
		const { messages } = decide('2026-11-12', payer([early, quiet, newer, old]));
		expect(messages).to.have.length(1);
		expect(messages[0]!.step.id).to.equal('second');
		expect(messages[0]!.items.map((one) => one.documentId)).to.deep.equal([1, 2, 3]);
		expect(messages[0]!.covers.map((one) => one.documentId)).to.have.members([1, 2]);
	});

	it('holds what must not be asked for, and says why', () => {
		expect(because({ hold: { kind: 'dispute', until: null } })).to.equal('disputed');
		expect(because({ hold: { kind: 'promise', until: '2026-11-05' } })).to.equal('promised');
		expect(because({ sent: false })).to.equal('notSent');
		expect(because({ paymentPending: true })).to.equal('paymentPending');
		expect(because({ bankLineWaiting: true })).to.equal('bankLineWaiting');
		expect(because({}, { onHold: true })).to.equal('customerOnHold');
		expect(because({}, { lastPaidAt: NOW - 3_600_000 })).to.equal('paidJustNow');
		expect(because({}, { lastMessageOn: '2026-11-03' })).to.equal('writtenJustNow');
		expect(because({}, { lastMessageOn: '2026-11-02' })).to.equal(null);
		expect(because({ toPay: 0n })).to.equal(null);
		expect(stepOn('2026-11-05', [item()], { plan: null })).to.equal(null);
	});

	it('lets a person decide about a step by hand, and goes on with the other invoices meanwhile', () => {
		const plan = { id: 1, steps: [...PLAN.steps, step('last', 35, { byHand: true })] };
		const old = item({ reached: 21 });
		const newer = item({ documentId: 2, dueDate: '2026-12-04' });
		const { messages, toDecide } = decide('2026-12-08', payer([old, newer], { plan }));
		expect(toDecide.map((one) => [one.step.id, one.covers.length])).to.deep.equal([['last', 1]]);
		expect(messages.map((one) => [one.step.id, one.items.length])).to.deep.equal([['first', 2]]);
	});

	it('goes on from the day it had reached, whatever its steps are called now', () => {
		expect(stepOn('2026-11-12', [item({ reached: 10 })])).to.equal(null);
		expect(stepOn('2026-11-23', [item({ reached: 10 })])).to.equal('firm');
	});

	it('written when the owner wants to, takes the next step, or the last one again', () => {
		const now = (items: ChaseItem[]) => messageNow(payer(items), '2026-11-06');
		expect(now([item({ reached: 3 })])).to.deep.include({ step: PLAN.steps[3] });
		expect(now([item({ reached: 21 })])!.covers).to.deep.equal([]);
		expect(now([item({ sent: false })])).to.equal(null);
		// What is not late is left alone while something is.
		const two = now([item(), item({ documentId: 2, dueDate: '2026-12-01' })]);
		expect(two!.items.map((one) => one.documentId)).to.deep.equal([1]);
	});

	it('takes a promise up again when its day has passed', () => {
		const promised = item({ hold: { kind: 'promise', until: '2026-11-12' } });
		expect(stepOn('2026-11-12', [promised])).to.equal(null);
		expect(stepOn('2026-11-13', [promised])).to.equal('second');
	});

	it('run day by day, reminds of each step once at most, never two days running, in order', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 1, maxLength: 5 }),
				fc.array(fc.integer({ min: 0, max: 70 }), { maxLength: 15 }),
				(dues, off) => {
					const done = dues.map(() => new Set<string>());
					let lastMessageOn: string | null = null;
					const gone: { day: number; covers: string[] }[] = [];
					for (let n = 0; n <= 75; n++) {
						const day = addDays('2026-10-26', n);
						// Days on which the machine is off.
						if (off.includes(n) || !isWorkingDay(day)) continue;
						const items = dues.map((due, index) =>
							item({ documentId: index, dueDate: addDays('2026-11-01', due), done: done[index]! })
						);
						const [message] = decide(day, payer(items, { lastMessageOn })).messages;
						if (!message) continue;
						lastMessageOn = day;
						gone.push({
							day: n,
							covers: message.covers.map((one) => `${one.documentId}:${one.stepId}`)
						});
						for (const { documentId, stepId } of message.covers) done[documentId]!.add(stepId);
					}
					const all = gone.flatMap((one) => one.covers);
					expect(new Set(all).size).to.equal(all.length);
					for (const [index, one] of gone.entries())
						if (index > 0) expect(one.day - gone[index - 1]!.day).to.be.at.least(SETTINGS.gapDays);
				}
			),
			{ numRuns: 40 }
		);
	});
});
