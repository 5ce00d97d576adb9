// What the diary shows of a span of days.
import { addDays, mondayOf } from '../../../core/calendar/manipulation';
import { isPlainDate } from '../../../core/calendar/queries';
import { conflictsOf, takesDay } from '../../../core/diary/conflicts';
import type { World } from '../../world';
import { blocksBetween, dayOfVisit, toBook, visitsBetween } from '../diary/diary';
import { diaryWays } from '../diary/ways';
import { ownFeed } from '../diary/feed';
import { peopleOnSite } from '../people/people';

export const DIARY_VIEWS = ['day', 'week', 'month'] as const;
export type DiaryView = (typeof DIARY_VIEWS)[number];

/** The days that a view of a day shows, both included. */
export function spanOf(view: DiaryView, date: string): { from: string; to: string } {
	if (view === 'day') return { from: date, to: date };
	if (view === 'week') {
		const from = mondayOf(date);
		return { from, to: addDays(from, 6) };
	}
	const first = `${date.slice(0, 7)}-01`;
	const next = addDays(`${addDays(first, 31).slice(0, 7)}-01`, -1);
	return { from: mondayOf(first), to: addDays(mondayOf(next), 6) };
}

export function diaryPage(world: World, url: URL) {
	const today = world.clock.today();
	const asked = url.searchParams.get('on') ?? '';
	const date = isPlainDate(asked)
		? asked
		: (dayOfVisit(world.db, Number(url.searchParams.get('visit')) || 0) ?? today);
	const view = DIARY_VIEWS.find((one) => one === url.searchParams.get('view')) ?? 'week';
	const { from, to } = spanOf(view, date);
	// One over several days is not there on a weekend it leaves out.
	const visits = visitsBetween(world.db, from, to).filter(
		(visit) => view !== 'day' || takesDay(visit, date)
	);
	const blocks = blocksBetween(world.db, from, to);
	const ways = diaryWays(world.db);
	const step = view === 'day' ? 1 : view === 'week' ? 7 : 31;
	return {
		today,
		date,
		view,
		from,
		to,
		before: addDays(view === 'month' ? `${date.slice(0, 7)}-15` : date, -step),
		after: addDays(view === 'month' ? `${date.slice(0, 7)}-15` : date, step),
		// A month shows neither: they are left out of what is sent.
		visits: view === 'month' ? visits.map((one) => ({ ...one, address: '', phone: '' })) : visits,
		blocks,
		ways,
		conflicts: [...conflictsOf(visits, blocks, ways, today)],
		toBook: toBook(world.db, today),
		people: peopleOnSite(world.db).map(({ id, name }) => ({ id, name: name || 'You' })),
		feed: ownFeed(world)
	};
}
