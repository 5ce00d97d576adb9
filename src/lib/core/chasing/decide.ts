// Which message is due to whom about what: decided for a day, the same however often it is asked.
import { isWorkingDay, toWorkingDay } from '../calendar/holidays';
import { addDays } from '../calendar/manipulation';
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import type {
	ChaseDay,
	ChaseItem,
	ChasePayer,
	ChaseSettings,
	ChaseStep,
	DueMessage,
	HeldBecause
} from './types';

const HOUR = 3_600_000;

/** Whether messages may go out at all: a working day, within the chosen hours. `minutes` after midnight in London. */
export function mayGoOut(day: PlainDate, minutes: number, { hours }: ChaseSettings): boolean {
	return isWorkingDay(day) && minutes >= hours.from && minutes < hours.to;
}

/** The day a step goes out: its own, or the working day after it. */
export function stepDay(dueDate: PlainDate, step: ChaseStep): PlainDate {
	const day = addDays(dueDate, step.offset);
	return toWorkingDay(day, 1) ?? day;
}

/** The messages of a day, one for each payer at most, and what is held back and why. */
export function decideChasing(
	payers: readonly ChasePayer[],
	day: PlainDate,
	now: number,
	settings: ChaseSettings
): ChaseDay {
	const messages: DueMessage[] = [];
	const held: ChaseDay['held'] = [];
	for (const payer of payers) {
		if (!payer.plan) continue;
		const steps = [...payer.plan.steps].sort((a, b) => a.offset - b.offset);
		const asked: { item: ChaseItem; due: ChaseStep[] }[] = [];
		for (const item of payer.items) {
			if (item.toPay <= 0) continue;
			const due = dueSteps(item, steps, day);
			const because = heldBecause(payer, item, day, now, settings, due.length > 0);
			if (because === null) asked.push({ item, due });
			else if (due.length > 0)
				held.push({ documentId: item.documentId, payerId: payer.payerId, because });
		}
		const message = messageOf(payer.payerId, asked, day);
		if (message) messages.push(message);
	}
	return { messages, held };
}

/** Steps whose day has come and that were not dealt with. Those before the due day end with it. */
function dueSteps(item: ChaseItem, steps: readonly ChaseStep[], day: PlainDate): ChaseStep[] {
	return steps.filter(
		(step) =>
			!item.done.has(step.id) &&
			stepDay(item.dueDate, step) <= day &&
			(step.offset >= 0 || day < item.dueDate)
	);
}

function heldBecause(
	payer: ChasePayer,
	item: ChaseItem,
	day: PlainDate,
	now: number,
	{ quietHours, gapDays }: ChaseSettings,
	due: boolean
): HeldBecause | null {
	if (payer.onHold) return 'customerOnHold';
	if (item.hold?.kind === 'dispute') return 'disputed';
	// A promise holds through its day; when it has passed the plan is taken up where it stands.
	if (item.hold?.kind === 'promise' && (item.hold.until ?? '') >= day) return 'promised';
	if (!item.sent) return 'notSent';
	if (item.paymentPending) return 'paymentPending';
	if (item.bankLineWaiting) return 'bankLineWaiting';
	if (!due) return null;
	if (payer.lastPaidAt !== null && now - payer.lastPaidAt < quietHours * HOUR) return 'paidJustNow';
	if (payer.lastMessageOn !== null && daysBetween(payer.lastMessageOn, day) < gapDays)
		return 'writtenJustNow';
	return null;
}

/**
 * One message with the firmest step that is due; it takes in every late invoice of the payer. Where several steps of an
 * invoice have come due (the machine was off, a promise passed), only the last of them counts, and the others are
 * overtaken: nobody gets three reminders at once.
 */
function messageOf(
	payerId: number,
	asked: readonly { item: ChaseItem; due: ChaseStep[] }[],
	day: PlainDate
): DueMessage | null {
	const speaking = asked.filter(({ due }) => due.length > 0);
	const steps = speaking.map(({ due }) => due.at(-1)!);
	const step = steps.reduce<ChaseStep | null>(
		(firmest, one) => (firmest === null || one.offset > firmest.offset ? one : firmest),
		null
	);
	if (step === null) return null;
	const items = asked
		.filter(({ item, due }) => due.length > 0 || item.dueDate < day)
		.map(({ item }) => item)
		.sort((a, b) =>
			a.dueDate === b.dueDate ? a.documentId - b.documentId : a.dueDate < b.dueDate ? -1 : 1
		);
	return {
		payerId,
		step,
		items,
		covers: speaking.flatMap(({ item, due }) =>
			due.map((one) => ({
				documentId: item.documentId,
				stepId: one.id,
				reached: one === due.at(-1)
			}))
		)
	};
}
