// Sessions: opened when somebody signs in, known by their token, listed and ended; and browsers that were signed in before.
import { and, desc, eq, gt, isNull, like, lt, ne, sql } from 'drizzle-orm';
import { actor, type Actor } from '../../actor';
import { knownBrowsers, people, sessions } from '../../db/schema';
import type { World } from '../../world';
import { newToken, sha256 } from './keys';

/** Who set the books up. */
export const OWNER = 1;

/** A session ends after so long, however much it is used … */
export const SESSION_SECONDS = 30 * 24 * 60 * 60;
/** … and when it has rested for so long. */
const REST_SECONDS = 7 * 24 * 60 * 60;
/** Its last use is written down to so much. */
const SEEN_EVERY = 5 * 60 * 1000;

export function isKnownBrowser(world: World, token: string): boolean {
	const hash = sha256(token);
	return (
		world.db.select().from(knownBrowsers).where(eq(knownBrowsers.tokenHash, hash)).get() !==
		undefined
	);
}

/** So many browsers are remembered; the one not used for longest is forgotten first. */
const MOST_BROWSERS = 20;

export function knowBrowser(world: World, carried: string | undefined): string {
	const token = carried && isKnownBrowser(world, carried) ? carried : newToken();
	const usedAt = world.clock.now();
	world.db
		.insert(knownBrowsers)
		.values({ tokenHash: sha256(token), usedAt })
		.onConflictDoUpdate({ target: knownBrowsers.tokenHash, set: { usedAt } })
		.run();
	world.db.run(
		sql`delete from known_browsers where token_hash not in (select token_hash from known_browsers order by used_at desc limit ${MOST_BROWSERS})`
	);
	return token;
}

export function openSession(world: World, device = '', personId = OWNER): string {
	const token = newToken();
	const now = world.clock.now();
	world.db.delete(sessions).where(lt(sessions.expiresAt, now)).run();
	world.db
		.insert(sessions)
		.values({
			tokenHash: sha256(token),
			personId,
			createdAt: now,
			seenAt: now,
			expiresAt: now + SESSION_SECONDS * 1000,
			device: device.slice(0, 60)
		})
		.run();
	return token;
}

/** Who is signed in with this token; null where nobody is any more. */
export function whoIsSignedIn(world: World, token: string | undefined): Actor | null {
	if (!token) return null;
	const now = world.clock.now();
	const tokenHash = sha256(token);
	const found = world.db
		.select({
			seenAt: sessions.seenAt,
			id: people.id,
			name: people.name,
			role: people.role,
			seesPrices: people.seesPrices
		})
		.from(sessions)
		.innerJoin(people, eq(people.id, sessions.personId))
		.where(
			and(
				eq(sessions.tokenHash, tokenHash),
				isNull(people.removedAt),
				gt(sessions.expiresAt, now),
				gt(sessions.seenAt, now - REST_SECONDS * 1000)
			)
		)
		.get();
	if (!found) return null;
	if (now - found.seenAt > SEEN_EVERY)
		world.db.update(sessions).set({ seenAt: now }).where(eq(sessions.tokenHash, tokenHash)).run();
	const { seenAt: _, ...who } = found;
	return who;
}

export const isSignedIn = (world: World, token: string | undefined): boolean =>
	whoIsSignedIn(world, token) !== null;

/** Where whoever asks is signed in, the one used last first. */
export function openSessions(world: World, current: string | undefined) {
	const now = world.clock.now();
	const own = current ? sha256(current) : '';
	return world.db
		.select()
		.from(sessions)
		.where(
			and(
				eq(sessions.personId, actor()?.id ?? OWNER),
				gt(sessions.expiresAt, now),
				gt(sessions.seenAt, now - REST_SECONDS * 1000)
			)
		)
		.orderBy(desc(sessions.seenAt))
		.all()
		.map(({ tokenHash, device, createdAt, seenAt }) => ({
			// As much of the hash as names it among the others; it opens nothing.
			name: tokenHash.slice(0, 16),
			device,
			createdAt,
			seenAt,
			current: tokenHash === own
		}));
}

/** Ends a session by its name in the list; `others`: all but this one. */
export function endSession(world: World, which: { name: string } | { others: string }): void {
	world.db
		.delete(sessions)
		.where(
			and(
				eq(sessions.personId, actor()?.id ?? OWNER),
				'name' in which
					? and(
							like(sessions.tokenHash, `${which.name.replace(/[^0-9a-f]/g, '')}%`),
							sql`length(${which.name}) = 16`
						)
					: ne(sessions.tokenHash, sha256(which.others))
			)
		)
		.run();
}

export function signOut(world: World, token: string | undefined): void {
	if (token)
		world.db
			.delete(sessions)
			.where(eq(sessions.tokenHash, sha256(token)))
			.run();
}
