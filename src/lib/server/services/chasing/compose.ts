// A reminder as it would go: what it asks for, by which way, in which words.
import type { Minor } from '../../../core/money/types';
import { londonMoment } from '../../../core/calendar/conversion';
import { isWorkingDay, toWorkingDay } from '../../../core/calendar/holidays';
import { addDays } from '../../../core/calendar/manipulation';
import type { PlainDate } from '../../../core/calendar/types';
import { decideChasing } from '../../../core/chasing/decide';
import type { Channel, ChaseStep, DueMessage } from '../../../core/chasing/types';
import { fillWording, LETTER_FOR_TEXT, type ChaseFacts } from '../../../core/chasing/wording';
import type { World } from '../../world';
import type { KnownPayer } from './facts';
import { factsOf, wordingKey, type ChaseContext, type Reach } from './context';
import { minutesNow } from './messages';
import { loadChaseSettings } from './settings';
import { sha256 } from '../business/keys';

/** `planned`: goes by itself. `decide`: waits for a person. `now`: nothing is due, the owner wants to write. */
export type Why = 'planned' | 'decide' | 'now';

export interface Composed {
	payerId: number;
	payer: string;
	why: Why;
	/** The day it is for. */
	day: PlainDate;
	planId: number | null;
	planName: string;
	step: ChaseStep;
	channel: Channel;
	/** Why it goes another way than the plan says; empty: it does not. */
	detour: string;
	/** Where it goes; empty: nowhere. */
	to: string;
	subject: string;
	text: string;
	/** Its words before the fields are filled, changed ones included. */
	wording: { subject: string; text: string; changed: boolean };
	items: { documentId: number; number: string; dueDate: PlainDate; toPay: Minor }[];
	amount: Minor;
	/** What it is about, so that a press on an old page is noticed. */
	mark: string;
}

/** The working day after a day. */
export function nextWorkingDay(day: PlainDate): PlainDate {
	const next = addDays(day, 1);
	return toWorkingDay(next, 1) ?? next;
}

/** What a message asks for. */
export const sumOf = ({ items }: Pick<DueMessage, 'items'>) =>
	items.reduce((sum, item) => sum + item.toPay, 0n);

export const markOf = ({ step, items, covers }: DueMessage) =>
	sha256(
		JSON.stringify([
			step.id,
			items.map((item) => [item.documentId, Number(item.toPay)]),
			covers.map((one) => [one.documentId, one.stepId])
		])
	).slice(0, 24);

/** Now, or the last moment of a later day at which something may still go out: what is quiet until then goes that day. */
function momentOf(world: World, day: PlainDate): number {
	if (day <= world.clock.today()) return world.clock.now();
	const { to } = loadChaseSettings(world.db).hours;
	return londonMoment(`${day}T00:00`) + (to - 1) * 60_000;
}

/** Whether something may still go out today. */
export function stillToday(world: World): boolean {
	const today = world.clock.today();
	return isWorkingDay(today) && minutesNow(world) < loadChaseSettings(world.db).hours.to;
}

export function decide(world: World, payers: readonly KnownPayer[], day: PlainDate) {
	return decideChasing(payers, day, momentOf(world, day), loadChaseSettings(world.db));
}

/** A message that is due to a payer, or that the owner wants to write. */
export interface Found {
	payer: KnownPayer;
	message: DueMessage;
	day: PlainDate;
	why: Why;
}

export function compose(
	origin: string,
	context: ChaseContext,
	{ payer, message, day, why }: Found,
	token = '',
	words?: { subject: string; text: string; channel: Channel }
): Composed {
	const { step } = message;
	const changed = context.wordings.get(wordingKey(payer.payerId, step.id));
	const ids = message.items.map((item) => item.documentId);
	const way = wayOf(words?.channel ?? step.channel, context.reach.get(payer.payerId)!);
	const standard = step.channel === 'text' && way.channel === 'letter' ? LETTER_FOR_TEXT : step;
	const { subject, text } = words ?? changed ?? standard;
	const wording = { subject, text, changed: changed !== undefined };
	const facts = onPaper(factsOf(origin, context, payer, ids, day, token), way.channel);
	const known = new Map(payer.items.map((item) => [item.documentId, item.number]));
	return {
		payerId: payer.payerId,
		payer: payer.payer,
		why,
		day,
		planId: payer.plan?.id ?? null,
		planName: payer.planName,
		step,
		...way,
		...fillWording(wording, facts),
		wording,
		items: message.items.map(({ documentId, dueDate, toPay }) => ({
			documentId,
			number: known.get(documentId)!,
			dueDate,
			toPay
		})),
		amount: sumOf(message),
		mark: markOf(message)
	};
}

/** Nobody types a long link from paper. */
export const onPaper = (facts: ChaseFacts, channel: Channel): ChaseFacts =>
	channel === 'letter'
		? { ...facts, together: '', invoices: facts.invoices.map((one) => ({ ...one, link: '' })) }
		: facts;

/** A text needs a mobile, a mail an address; who has neither gets a letter. */
export function wayOf(
	channel: Channel,
	reach: Reach
): { channel: Channel; to: string; detour: string } {
	if (channel === 'text' && reach.mobile) return { channel, to: reach.mobile, detour: '' };
	if (channel !== 'letter' && reach.mail)
		return {
			channel: 'mail',
			to: reach.mail,
			detour: channel === 'text' ? 'by e-mail, because there is no mobile number' : ''
		};
	return {
		channel: 'letter',
		to: reach.post,
		detour: channel === 'letter' ? '' : 'as a letter, because there is no e-mail address'
	};
}
