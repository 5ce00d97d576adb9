// Who may sign in: one owner with a password, sessions, and a brake on guessing.
import { hash, verify } from '@node-rs/argon2';
import { and, desc, eq, gt, like, lt, ne, or, sql } from 'drizzle-orm';
import { writeAtOnce } from '../../db/connection';
import { knownBrowsers, owners, sessions, signInFailures } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, RefusedError } from '../../../core/refusals';
import { isEasyToGuess } from './guessing';
import { newToken, sha256 } from './keys';

/** A session ends after so long, however much it is used … */
export const SESSION_SECONDS = 30 * 24 * 60 * 60;
/** … and when it has rested for so long. */
const REST_SECONDS = 7 * 24 * 60 * 60;
/** Its last use is written down to so much. */
const SEEN_EVERY = 5 * 60 * 1000;
const FAILURE_WINDOW = 15 * 60 * 1000;
const FAILURES_ALLOWED = 5;
/** From all strange browsers together: many that guess at once are slowed down too. */
const FAILURES_ALLOWED_IN_ALL = 50;

/** @throws FieldError where the password is too easy to guess. */
export function checkPassword(password: unknown): string {
	if (typeof password !== 'string' || password.length < 10)
		throw new FieldError({ password: 'At least ten characters.' });
	if (password.length > 200) throw new FieldError({ password: 'At most 200 characters.' });
	if (isEasyToGuess(password))
		throw new FieldError({
			password:
				'That is among the first that are tried. Three or four words of your own are better.'
		});
	return password;
}

export async function setPassword(world: World, password: string): Promise<void> {
	const passwordHash = await hash(checkPassword(password));
	world.db
		.insert(owners)
		.values({ id: 1, passwordHash })
		.onConflictDoUpdate({ target: owners.id, set: { passwordHash } })
		.run();
}

export function hasOwner(world: World): boolean {
	return world.db.select({ id: owners.id }).from(owners).get() !== undefined;
}

/** Where a guess comes from. */
export interface Guesser {
	/** The address of the machine it came from. */
	source: string;
	/** What the browser carries since the owner signed in with it. */
	browser?: string | undefined;
	device?: string;
}

/**
 * Checks the password and opens a session.
 * @returns what its cookies carry: the session's token, and what the browser is known by from now on.
 * @throws RefusedError after too many failures, FieldError for a wrong password.
 */
export async function signIn(
	world: World,
	password: string,
	guesser: Guesser
): Promise<{ session: string; browser: string }> {
	await guess(world, password, guesser, 'password');
	return {
		session: openSession(world, guesser.device),
		browser: knowBrowser(world, guesser.browser)
	};
}

/** Addresses of one line: of the new kind everybody has a great many, which count as one. */
const placeOf = (source: string): string =>
	source.includes(':') && !source.includes('.') ? source.split(':').slice(0, 4).join(':') : source;

/**
 * A guess at the password, counted before it is looked at: guesses beside one another cannot overtake the brake. A browser the owner has used has a
 * count of its own, so that strangers who guess lock nobody out of it.
 */
async function guess(
	world: World,
	password: string,
	guesser: Guesser,
	box: 'password' | 'current'
): Promise<void> {
	const now = world.clock.now();
	const known = guesser.browser !== undefined && isKnownBrowser(world, guesser.browser);
	const source = known ? `browser ${sha256(guesser.browser!)}` : placeOf(guesser.source);
	const id = writeAtOnce(world.db, (tx) => {
		tx.delete(signInFailures)
			.where(lt(signInFailures.at, now - FAILURE_WINDOW))
			.run();
		const counts = tx
			.select({
				strange: sql<number>`coalesce(sum(${signInFailures.source} not like 'browser %'), 0)`,
				own: sql<number>`coalesce(sum(${signInFailures.source} = ${source}), 0)`
			})
			.from(signInFailures)
			.get()!;
		if (counts.own >= FAILURES_ALLOWED || (!known && counts.strange >= FAILURES_ALLOWED_IN_ALL))
			throw new RefusedError('Too many wrong passwords. Wait a quarter of an hour and try again.');
		return tx.insert(signInFailures).values({ source, at: now }).returning().get().id;
	});
	const owner = world.db.select().from(owners).get();
	const right =
		owner !== undefined && password.length <= 200 && (await verify(owner.passwordHash, password));
	if (!right) throw new FieldError({ [box]: 'That is not the password.' });
	world.db
		.delete(signInFailures)
		.where(or(eq(signInFailures.source, source), eq(signInFailures.id, id)))
		.run();
}

/** Asks for the password again, before something that matters. @throws FieldError at `current`, RefusedError after too many wrong ones */
export const confirmPassword = (world: World, password: string, guesser: Guesser): Promise<void> =>
	guess(world, password, guesser, 'current');

function isKnownBrowser(world: World, token: string): boolean {
	const hash = sha256(token);
	return (
		world.db.select().from(knownBrowsers).where(eq(knownBrowsers.tokenHash, hash)).get() !==
		undefined
	);
}

/** So many browsers are remembered; the one not used for longest is forgotten first. */
const MOST_BROWSERS = 20;

function knowBrowser(world: World, carried: string | undefined): string {
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

export function openSession(world: World, device = ''): string {
	const token = newToken();
	const now = world.clock.now();
	world.db.delete(sessions).where(lt(sessions.expiresAt, now)).run();
	world.db
		.insert(sessions)
		.values({
			tokenHash: sha256(token),
			createdAt: now,
			seenAt: now,
			expiresAt: now + SESSION_SECONDS * 1000,
			device: device.slice(0, 60)
		})
		.run();
	return token;
}

export function isSignedIn(world: World, token: string | undefined): boolean {
	if (!token) return false;
	const now = world.clock.now();
	const tokenHash = sha256(token);
	const found = world.db
		.select({ seenAt: sessions.seenAt })
		.from(sessions)
		.where(
			and(
				eq(sessions.tokenHash, tokenHash),
				gt(sessions.expiresAt, now),
				gt(sessions.seenAt, now - REST_SECONDS * 1000)
			)
		)
		.get();
	if (found && now - found.seenAt > SEEN_EVERY)
		world.db.update(sessions).set({ seenAt: now }).where(eq(sessions.tokenHash, tokenHash)).run();
	return found !== undefined;
}

/** Where the owner is signed in, the one used last first. */
export function openSessions(world: World, current: string | undefined) {
	const now = world.clock.now();
	const own = current ? sha256(current) : '';
	return world.db
		.select()
		.from(sessions)
		.where(and(gt(sessions.expiresAt, now), gt(sessions.seenAt, now - REST_SECONDS * 1000)))
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
			'name' in which
				? and(
						like(sessions.tokenHash, `${which.name.replace(/[^0-9a-f]/g, '')}%`),
						sql`length(${which.name}) = 16`
					)
				: ne(sessions.tokenHash, sha256(which.others))
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

/**
 * Changes the password; every session ends, and no browser is known any longer.
 * @throws FieldError, RefusedError after too many wrong ones
 */
export async function changePassword(
	world: World,
	current: string,
	next: string,
	guesser: Guesser
): Promise<void> {
	checkPassword(next);
	await guess(world, current, guesser, 'current');
	await setPassword(world, next);
	world.db.delete(sessions).run();
	world.db.delete(knownBrowsers).run();
}
