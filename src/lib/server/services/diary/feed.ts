// The link by which a phone subscribes to somebody's visits, and the file with them.
import { eq } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { writeCalendar } from '../../../core/formats/icalendar';
import { NotFoundError } from '../../../core/refusals';
import { actor, must } from '../../actor';
import type { Reader } from '../../db/connection';
import { diaryFeeds, people } from '../../db/schema';
import type { World } from '../../world';
import { isToken, newToken } from '../business/keys';
import { visitsBetween } from './diary';

/** So far back and ahead a calendar has them. */
const BACK_DAYS = 60;
const AHEAD_DAYS = 400;

const me = (): number => actor()?.id ?? 1;

/** One's own link; null where there is none. */
export const ownFeed = (world: World): string | null => {
	const row = world.db.select().from(diaryFeeds).where(eq(diaryFeeds.personId, me())).get();
	return row ? `${world.origin}/c/${row.token}` : null;
};

/** Makes one's own link, or another: the old one opens nothing any more. */
export function renewFeed(world: World): void {
	must('site', 'work');
	// Nobody signs in yet: there is nobody whose visits they were.
	if (!stillHere(world.db, me())) throw new NotFoundError('Whose calendar it is');
	const set = { token: newToken(), createdAt: world.clock.now() };
	world.db
		.insert(diaryFeeds)
		.values({ personId: me(), ...set })
		.onConflictDoUpdate({ target: diaryFeeds.personId, set })
		.run();
}

export function revokeFeed(world: World): void {
	must('site', 'work');
	world.db.delete(diaryFeeds).where(eq(diaryFeeds.personId, me())).run();
}

/** A visit's name in every calendar, however often it moves. */
export const visitUid = (world: Pick<World, 'origin'>, id: number): string =>
	`visit-${id}@${new URL(world.origin).hostname}`;

/** @throws NotFoundError for a link that is not exactly right, or whose owner is gone */
export function feedFile(world: World, token: string): string {
	const row = isToken(token)
		? world.db.select().from(diaryFeeds).where(eq(diaryFeeds.token, token)).get()
		: undefined;
	if (!row || !stillHere(world.db, row.personId)) throw new NotFoundError('This calendar');
	const today = world.clock.today();
	const visits = visitsBetween(
		world.db,
		addDays(today, -BACK_DAYS),
		addDays(today, AHEAD_DAYS),
		// The owner sees all, everybody else their own.
		row.personId === 1 ? null : row.personId
	);
	return writeCalendar(
		visits.map((visit) => ({
			uid: visitUid(world, visit.id),
			title: `${visit.pencil ? '(pencilled in) ' : ''}${visit.title}`,
			place: [visit.place, visit.address].filter(Boolean).join(', '),
			note: [visit.customer, visit.phone, visit.arrival, visit.note].filter(Boolean).join('\n'),
			date: visit.date,
			endDate: visit.endDate,
			from: visit.from,
			to: visit.to,
			sequence: visit.sequence,
			writtenAt: world.clock.now()
		}))
	);
}

const stillHere = (db: Reader, personId: number): boolean =>
	db.select({ removedAt: people.removedAt }).from(people).where(eq(people.id, personId)).get()
		?.removedAt === null;
