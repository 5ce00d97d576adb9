// What a customer is told of a visit, word for word.
import { displayWeekday } from '../../../core/calendar/conversion';
import { sender, type Message } from '../../../core/documents/wording';
import { fillWords, type Values } from '../../../core/wordings/fill';
import { greetingOf, wordsOf, type Voice, type WordingKind } from '../../../core/wordings/kinds';
import { arrivalOf } from '../../../core/diary/conflicts';
import type { Reader } from '../../db/connection';
import { type ToldKind, visits } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { diaryWays } from '../diary/ways';
import { voiceFor } from '../wordings/voice';

export type Visit = typeof visits.$inferSelect;
export interface Job {
	id: number;
	title: string;
	customerId: number;
	customer: string;
	household: boolean;
	place: string;
	/** Who is told: whoever is at the site, where that is another. */
	greeted: string | null;
}

const WORDING: Readonly<Record<ToldKind, WordingKind>> = {
	booked: 'visitBooked',
	moved: 'visitMoved',
	cancelled: 'visitCancelled',
	dayBefore: 'visitDayBefore',
	onTheWay: 'visitOnTheWay',
	finished: 'visitFinished'
};

/** What a text says: the same news in a line. */
export const textFor = (
	world: World,
	visit: Visit,
	job: Job,
	kind: ToldKind,
	minutes: number
): string => {
	const voice = voiceFor(world.db, job.customerId);
	const values = valuesFor(world, voice, visit, job, minutes);
	const news = fillWords({ subject: '', text: NEWS[kind] }, values).text;
	return fillWords(wordsOf(voice, 'visitText'), { ...values, news }).text;
};

/** The news itself, in few words. */
const NEWS: Readonly<Record<ToldKind, string>> = {
	booked: 'we come on {date}, {arrival}',
	moved: 'we now come on {date}, {arrival}',
	cancelled: 'we do not come on {date} after all',
	dayBefore: 'we come tomorrow, {date}, {arrival}',
	onTheWay: 'we are on the way, with you in about {minutes} minutes',
	finished: 'we have finished what we came for today'
};

export function wordsFor(
	world: World,
	visit: Visit,
	job: Job,
	kind: ToldKind,
	minutes: number
): Message {
	const voice = voiceFor(world.db, job.customerId);
	return fillWords(wordsOf(voice, WORDING[kind]), valuesFor(world, voice, visit, job, minutes));
}

/** Between when and when somebody comes, as the customer is told. */
export const arrivalFor = (db: Reader, { from, arriveFrom, arriveTo }: Visit): string =>
	arrivalOf(from, diaryWays(db).arrivalMinutes, { from: arriveFrom, to: arriveTo });

function valuesFor(world: World, voice: Voice, visit: Visit, job: Job, minutes: number): Values {
	const { db } = world;
	return {
		...sender(loadBusiness(db)),
		greeting:
			job.greeted === null
				? greetingOf(voice, job.household, job.customer)
				: job.greeted === ''
					? 'Hello'
					: `Hello ${job.greeted}`,
		customer: job.customer,
		title: job.title,
		place: job.place,
		date: displayWeekday(visit.date),
		arrival: arrivalFor(db, visit),
		who: visit.person,
		minutes: String(minutes)
	};
}
