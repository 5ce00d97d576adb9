// Which message is due to whom about what: decided for a day, the same however often it is asked.
import { isWorkingDay, toWorkingDay } from '../calendar/holidays';
import { addDays } from '../calendar/manipulation';
import { daysBetween } from '../calendar/queries';
import { runsOn } from '../regimes/gb/breathingSpace';
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
	const toDecide: DueMessage[] = [];
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
		// A last letter that waits for its decision does not keep other invoices from their first reminder.
		const message = messageOf(payer.payerId, asked, day, (step) => !step.byHand);
		if (message) messages.push(message);
		const last = messageOf(payer.payerId, asked, day, (step) => step.byHand);
		if (last) toDecide.push(last);
	}
	return { messages, toDecide, held };
}

/** What is written when the owner wants to write now: the next step of the plan, or its last one again. */
export function messageNow(
	payer: ChasePayer,
	day: PlainDate,
	/** About all of its invoices: somebody chose them. Else about what is late, where anything is. */
	all = false
): DueMessage | null {
	const steps = [...(payer.plan?.steps ?? [])].sort((a, b) => a.offset - b.offset);
	const items = payer.items.filter((item) => item.toPay > 0 && item.sent);
	const late = items.filter((item) => item.dueDate < day);
	const about = late.length > 0 && !all ? late : items;
	if (about.length === 0 || steps.length === 0) return null;
	const open = (item: ChaseItem) =>
		steps.filter(
			(step) => !isDone(item, step) && (step.offset >= 0 || day < item.dueDate) && !step.byHand
		);
	const ahead = about.flatMap((item) => open(item).slice(0, 1));
	const ordinary = steps.filter((step) => !step.byHand);
	const step = firmestOf(ahead) ?? ordinary.at(-1) ?? steps.at(-1)!;
	return {
		payerId: payer.payerId,
		step,
		items: inOrder(about),
		covers: about.flatMap((item) =>
			coversOf(
				item,
				steps.filter((one) => one.offset <= step.offset && !isDone(item, one))
			)
		)
	};
}

/** Why an invoice is better not asked for now, whatever is due by the plan; null: nothing speaks against it. */
export const notNow = (
	payer: ChasePayer,
	item: ChaseItem,
	day: PlainDate,
	now: number,
	settings: ChaseSettings
): HeldBecause | null => heldBecause(payer, item, day, now, settings, true);

/** Steps whose day has come and that were not dealt with. Those before the due day end with it. */
function dueSteps(item: ChaseItem, steps: readonly ChaseStep[], day: PlainDate): ChaseStep[] {
	return steps.filter(
		(step) =>
			!isDone(item, step) &&
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
	if (runsOn(payer.pauses ?? [], day)) return 'breathingSpace';
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

const isDone = (item: ChaseItem, step: ChaseStep) =>
	item.done.has(step.id) || (item.reached !== null && step.offset <= item.reached);

const firmestOf = (steps: readonly ChaseStep[]) =>
	steps.reduce<ChaseStep | null>(
		(firmest, one) => (firmest === null || one.offset > firmest.offset ? one : firmest),
		null
	);

const inOrder = (items: readonly ChaseItem[]) =>
	[...items].sort((a, b) =>
		a.dueDate === b.dueDate ? a.documentId - b.documentId : a.dueDate < b.dueDate ? -1 : 1
	);

const coversOf = ({ documentId }: ChaseItem, steps: readonly ChaseStep[]) =>
	steps.map((step) => ({
		documentId,
		stepId: step.id,
		offset: step.offset,
		reached: step === steps.at(-1)
	}));

/**
 * One message with the firmest step that is due; it takes in every late invoice of the payer. Where several steps of an
 * invoice have come due (the machine was off, a promise passed), only the last of them counts, and the others are
 * overtaken: nobody gets three reminders at once.
 */
function messageOf(
	payerId: number,
	asked: readonly { item: ChaseItem; due: ChaseStep[] }[],
	day: PlainDate,
	counts: (step: ChaseStep) => boolean
): DueMessage | null {
	const speaking = asked
		.map(({ item, due }) => ({ item, due: due.filter(counts) }))
		.filter(({ due }) => due.length > 0);
	const step = firmestOf(speaking.map(({ due }) => due.at(-1)!));
	if (step === null) return null;
	const about = new Set(speaking.map(({ item }) => item));
	const items = inOrder(
		asked.map(({ item }) => item).filter((item) => about.has(item) || item.dueDate < day)
	);
	return {
		payerId,
		step,
		items,
		covers: speaking.flatMap(({ item, due }) => coversOf(item, due))
	};
}
