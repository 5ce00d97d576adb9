// The page of chasing: what goes today and tomorrow, what is paused, what waits for a decision.
import { compare } from '../../../core/money/decimal';
import type { Minor } from '../../../core/money/types';
import type { PlainDate } from '../../../core/calendar/types';
import type { DueMessage, HeldBecause } from '../../../core/chasing/types';
import type { World } from '../../world';
import { chasePayers } from './facts';
import { chaseContext } from './context';
import {
	type Why,
	type Composed,
	nextWorkingDay,
	sumOf,
	stillToday,
	decide,
	compose
} from './compose';

export interface HeldItem {
	payerId: number;
	payer: string;
	documentId: number;
	number: string;
	because: HeldBecause;
	until: PlainDate | null;
}

export interface ChaseDayPage {
	today: PlainDate;
	/** Where today's messages have gone or nothing may go any more: the next working day. */
	tomorrow: PlainDate;
	/** Still to go today; the largest of them, as all these lists. */
	now: Composed[];
	next: Composed[];
	toDecide: Composed[];
	held: HeldItem[];
	/** How many there are of each in all. */
	counts: { now: number; next: number; toDecide: number; held: number };
}

/** So many of each list are shown; the others have their turn when these are gone. */
const MOST_SHOWN = 30;

/** What goes out today and on the next working day, what waits for a decision, and what is held back and why. */
export function chaseDayPage(world: World): ChaseDayPage {
	const payers = chasePayers(world.db);
	const byId = new Map(payers.map((payer) => [payer.payerId, payer]));
	const today = world.clock.today();
	const tomorrow = nextWorkingDay(today);
	const ahead = stillToday(world);
	const ofToday = decide(world, payers, today);
	const all = (messages: DueMessage[], day: PlainDate, why: Why) => {
		const shown = [...messages].sort((a, b) => compare(sumOf(b), sumOf(a))).slice(0, MOST_SHOWN);
		const found = shown.map((message) => ({
			payer: byId.get(message.payerId)!,
			message,
			day,
			why
		}));
		const context = chaseContext(
			world.db,
			found.map(({ payer }) => payer),
			day
		);
		return found.map((one) => compose(world.origin, context, one));
	};
	// What goes today is not due tomorrow any more.
	const gone = new Set(ahead ? ofToday.messages.map((message) => message.payerId) : []);
	const ofTomorrow = decide(
		world,
		payers.filter((payer) => !gone.has(payer.payerId)),
		tomorrow
	);
	return {
		today,
		tomorrow,
		now: ahead ? all(ofToday.messages, today, 'planned') : [],
		next: all(ofTomorrow.messages, tomorrow, 'planned'),
		toDecide: all(ofToday.toDecide, today, 'decide'),
		counts: {
			now: ahead ? ofToday.messages.length : 0,
			next: ofTomorrow.messages.length,
			toDecide: ofToday.toDecide.length,
			held: ofToday.held.length
		},
		held: ofToday.held.slice(0, MOST_SHOWN * 2).map(({ documentId, payerId, because }) => {
			const payer = byId.get(payerId)!;
			const item = payer.items.find((one) => one.documentId === documentId)!;
			return {
				payerId,
				payer: payer.payer,
				documentId,
				number: item.number,
				because,
				until: item.hold?.until ?? null
			};
		})
	};
}

/** Payers whose last letter waits for a decision. */
export function lastLetters(world: World): { payerId: number; payer: string; amount: Minor }[] {
	const payers = chasePayers(world.db);
	const names = new Map(payers.map((payer) => [payer.payerId, payer.payer]));
	return decide(world, payers, world.clock.today()).toDecide.map((message) => ({
		payerId: message.payerId,
		payer: names.get(message.payerId)!,
		amount: sumOf(message)
	}));
}
