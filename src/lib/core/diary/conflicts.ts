// What stands in the way of a visit where it is planned: said while it is planned, never forbidden.
import { displayDate } from '../calendar/conversion';
import { addDays } from '../calendar/manipulation';
import { isWorkingDay } from '../calendar/holidays';
import type { PlainDate } from '../calendar/types';
import { counted } from '../words';
import type { DiaryBlock, DiaryVisit, WorkingDay } from './types';

type Planned = Pick<
	DiaryVisit,
	| 'id'
	| 'title'
	| 'date'
	| 'endDate'
	| 'weekend'
	| 'from'
	| 'to'
	| 'people'
	| 'needs'
	| 'mayBegin'
	| 'lookAt'
	| 'done'
	| 'address'
	| 'travel'
	| 'awaited'
>;

/** Minutes from the first to the last, within one day. */
function span({ from, to }: Pick<DiaryVisit, 'from' | 'to'>): [number, number] {
	const minutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
	if (from === '') return [0, 24 * 60];
	const start = minutes(from);
	const end = to === '' ? start + 60 : minutes(to);
	return [start, end > start ? end : start + 60];
}

/** Whether a visit takes place on a day: one over several days leaves out the weekend and holidays, unless it goes on over them. */
export const takesDay = (
	{ date, endDate, weekend }: Pick<DiaryVisit, 'date' | 'endDate' | 'weekend'>,
	day: PlainDate
): boolean =>
	day >= date &&
	day <= endDate &&
	(weekend || day === date || day === endDate || isWorkingDay(day));

/** Whether a visit takes place on one of the days that are one's own. */
function meets(visit: Planned, { from, to }: DiaryBlock): boolean {
	const last = visit.endDate < to ? visit.endDate : to;
	for (let day = visit.date > from ? visit.date : from; day <= last; day = addDays(day, 1))
		if (takesDay(visit, day)) return true;
	return false;
}

const overlap = (a: Planned, b: Planned): boolean => {
	if (a.date > b.endDate || b.date > a.endDate) return false;
	// Over several days, or without a time, each whole day counts only where both are so.
	if (a.from === '' || b.from === '') return a.from === '' && b.from === '' && a.date === b.date;
	const [[aFrom, aTo], [bFrom, bTo]] = [span(a), span(b)];
	return aFrom < bTo && bFrom < aTo;
};

/**
 * The visit of one person that comes before another on its day, and so where that person comes from; undefined for the first one.
 * Whoever goes to the same place again does not travel.
 */
export function travelTo<T extends Planned>(
	visit: T,
	visits: readonly T[]
): { from: T; minutes: number } | undefined {
	if (visit.from === '' || visit.done) return undefined;
	const from = visits
		.filter(
			(one) =>
				one.id !== visit.id &&
				one.from !== '' &&
				one.date === visit.date &&
				one.endDate === visit.date &&
				one.from < visit.from &&
				one.people.some((who) => who !== 0 && visit.people.includes(who))
		)
		.sort((a, b) => (a.from < b.from ? 1 : -1))[0];
	return from && from.address !== visit.address && visit.travel > 0
		? { from, minutes: visit.travel }
		: undefined;
}

/** What will not be there on the day of a visit, in words; empty where all is, or is to come by then. */
export function awaitedWords(
	awaited: DiaryVisit['awaited'],
	on: PlainDate,
	today: PlainDate
): string {
	const late = awaited.filter(
		({ expectedOn }) => expectedOn === null || expectedOn > on || expectedOn < today
	);
	if (late.length === 0) return '';
	const names = late.map(({ what, expectedOn }) =>
		expectedOn === null
			? what
			: `${what} (${expectedOn < today ? 'was to come' : 'to come'} ${displayDate(expectedOn)})`
	);
	return `not there yet: ${names.slice(0, 3).join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;
}

/** Each visit with what stands in its way, in words; a visit that is done is not asked about. */
export function conflictsOf(
	visits: readonly Planned[],
	blocks: readonly DiaryBlock[],
	day: WorkingDay,
	today: PlainDate
): Map<number, string[]> {
	const found = new Map<number, string[]>();
	const say = (id: number, words: string) => {
		const said = found.get(id) ?? [];
		if (!said.includes(words)) found.set(id, [...said, words]);
	};
	for (const [index, visit] of visits.entries()) {
		if (visit.done) continue;
		for (const other of visits.slice(index + 1)) {
			if (other.done || !visit.people.some((who) => who !== 0 && other.people.includes(who)))
				continue;
			if (overlap(visit, other)) {
				say(visit.id, `at the same time as “${other.title}”`);
				say(other.id, `at the same time as “${visit.title}”`);
			}
		}
		const way = travelTo(visit, visits);
		const gap = way ? span(visit)[0] - span(way.from)[1] : 0;
		// One that is still going on then is said above.
		if (way && gap >= 0 && gap < way.minutes)
			say(
				visit.id,
				`${counted(gap, 'minute')} after “${way.from.title}”, ${way.minutes} needed to get there`
			);
		for (const block of blocks)
			if (meets(visit, block) && (block.personId === null || visit.people.includes(block.personId)))
				say(visit.id, `${block.title} on that day`);
		if (visit.from !== '' && (visit.from < day.from || (visit.to !== '' && visit.to > day.to)))
			say(visit.id, `outside ${day.from} to ${day.to}`);
		if (!isWorkingDay(visit.date)) say(visit.id, 'not a working day');
		if (visit.mayBegin && visit.date < visit.mayBegin && !visit.lookAt)
			say(
				visit.id,
				`before ${displayDate(visit.mayBegin)}: they did not ask in writing for an earlier begin`
			);
		const missing = awaitedWords(visit.awaited, visit.date, today);
		if (missing && !visit.lookAt) say(visit.id, missing);
		const going = visit.people.filter((who) => who !== 0).length;
		if (visit.needs > going && going > 0)
			say(
				visit.id,
				`${going === 1 ? 'alone' : counted(going, 'person', 'people')}, ${visit.needs} needed`
			);
	}
	return found;
}

/** `13:00` and 120 minutes: between 13:00 and 15:00, as a customer is told. */
export function arrivalOf(
	from: string,
	minutes: number,
	given: { from: string; to: string }
): string {
	if (given.from && given.to) return `between ${given.from} and ${given.to}`;
	if (from === '') return '';
	const start = Number(from.slice(0, 2)) * 60 + Number(from.slice(3, 5));
	const end = Math.min(start + minutes, 23 * 60 + 59);
	const time = (at: number) =>
		`${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
	return minutes === 0 ? `at ${from}` : `between ${from} and ${time(end)}`;
}
