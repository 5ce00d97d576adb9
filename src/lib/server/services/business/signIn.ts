// Who may sign in: one owner with a password, sessions, and a brake on guessing.
import { hash, verify } from '@node-rs/argon2';
import { and, eq, gt, lt, sql } from 'drizzle-orm';
import { owners, sessions, signInFailures } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, RefusedError } from '../../../core/refusals';
import { newToken, sha256 } from './keys';

export const SESSION_SECONDS = 30 * 24 * 60 * 60;
const FAILURE_WINDOW = 15 * 60 * 1000;
const FAILURES_ALLOWED = 5;
/** From all sources together: many sources guessing at once are slowed down too. */
const FAILURES_ALLOWED_IN_ALL = 50;

/** @throws FieldError where the password is too easy to guess. */
export function checkPassword(password: unknown): string {
	if (typeof password !== 'string' || password.length < 10)
		throw new FieldError({ password: 'At least ten characters.' });
	if (password.length > 200) throw new FieldError({ password: 'At most 200 characters.' });
	if (new Set(password).size < 5) throw new FieldError({ password: 'That is too easy to guess.' });
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

/**
 * Checks the password and opens a session.
 * @returns the session's token, for the cookie.
 * @throws RefusedError after too many failures, FieldError for a wrong password.
 */
export async function signIn(world: World, password: string, source: string): Promise<string> {
	const now = world.clock.now();
	refuseGuessing(world, source, now);
	const owner = world.db.select().from(owners).get();
	const right =
		owner !== undefined && password.length <= 200 && (await verify(owner.passwordHash, password));
	if (!right) {
		world.db.insert(signInFailures).values({ source, at: now }).run();
		throw new FieldError({ password: 'That is not the password.' });
	}
	world.db.delete(signInFailures).where(eq(signInFailures.source, source)).run();
	return openSession(world);
}

function refuseGuessing(world: World, source: string, now: number): void {
	world.db
		.delete(signInFailures)
		.where(lt(signInFailures.at, now - FAILURE_WINDOW))
		.run();
	const counts = world.db
		.select({
			all: sql<number>`count(*)`,
			own: sql<number>`coalesce(sum(${signInFailures.source} = ${source}), 0)`
		})
		.from(signInFailures)
		.get();
	if ((counts?.own ?? 0) >= FAILURES_ALLOWED || (counts?.all ?? 0) >= FAILURES_ALLOWED_IN_ALL) {
		throw new RefusedError('Too many wrong passwords. Wait a quarter of an hour and try again.');
	}
}

export function openSession(world: World): string {
	const token = newToken();
	const now = world.clock.now();
	world.db.delete(sessions).where(lt(sessions.expiresAt, now)).run();
	world.db
		.insert(sessions)
		.values({ tokenHash: sha256(token), createdAt: now, expiresAt: now + SESSION_SECONDS * 1000 })
		.run();
	return token;
}

export function isSignedIn(world: World, token: string | undefined): boolean {
	if (!token) return false;
	const found = world.db
		.select({ hash: sessions.tokenHash })
		.from(sessions)
		.where(and(eq(sessions.tokenHash, sha256(token)), gt(sessions.expiresAt, world.clock.now())))
		.get();
	return found !== undefined;
}

export function signOut(world: World, token: string | undefined): void {
	if (token)
		world.db
			.delete(sessions)
			.where(eq(sessions.tokenHash, sha256(token)))
			.run();
}

/** Changes the password and ends every other session. */
export async function changePassword(world: World, current: string, next: string): Promise<void> {
	const owner = world.db.select().from(owners).get();
	if (!owner || !(await verify(owner.passwordHash, current)))
		throw new FieldError({ current: 'That is not the password.' });
	await setPassword(world, next);
	world.db.delete(sessions).run();
}
