// Signing in: passwords, second factors, sessions, and a brake on guessing.
import { hash, verify } from '@node-rs/argon2';
import { and, eq, isNotNull, isNull, lt, or, sql } from 'drizzle-orm';
import { actor } from '../../actor';
import { writeAtOnce, type Reader } from '../../db/connection';
import {
	business,
	knownBrowsers,
	passkeys,
	people,
	sessions,
	signInFailures
} from '../../db/schema';
import type { World } from '../../world';
import { FieldError, RefusedError } from '../../../core/refusals';
import { takeCode } from './factor';
import { isEasyToGuess } from './guessing';
import { newToken, sha256 } from './keys';
import { isKnownBrowser, knowBrowser, openSession, OWNER } from './sessions';

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

/** The owner's own, when the books are set up, or from the console. */
export async function setPassword(world: World, password: string): Promise<void> {
	const passwordHash = await hash(checkPassword(password));
	const { ownerName: name = '', email = '' } =
		world.db
			.select({ ownerName: business.ownerName, email: business.email })
			.from(business)
			.get() ?? {};
	world.db
		.insert(people)
		.values({ id: OWNER, name, email, role: 'owner', passwordHash, createdAt: world.clock.now() })
		.onConflictDoUpdate({ target: people.id, set: { passwordHash } })
		.run();
}

export function hasOwner(world: World): boolean {
	return (
		world.db.select({ id: people.id }).from(people).where(isNotNull(people.passwordHash)).get() !==
		undefined
	);
}

/** Everybody who can sign in, as the page of signing in needs to know it. */
export function signInPage(db: Reader): {
	several: boolean;
	factors: boolean;
	passkeys: boolean;
} {
	const all = db
		.select({ factor: people.factor })
		.from(people)
		.where(and(isNotNull(people.passwordHash), isNull(people.removedAt)))
		.all();
	return {
		several: all.length > 1,
		factors: all.some(({ factor }) => factor !== null),
		passkeys: db.select({ id: passkeys.id }).from(passkeys).limit(1).get() !== undefined
	};
}

/** Where a guess comes from. */
export interface Guesser {
	/** The address of the machine it came from. */
	source: string;
	/** What the browser carries since the owner signed in with it. */
	browser?: string | undefined;
	device?: string;
}

/** What somebody signs in with. */
export interface Credentials {
	password: string;
	/** Needed where several may sign in. */
	email?: string;
	/** Of the second factor, or a recovery code. */
	code?: string;
}

type Person = typeof people.$inferSelect;

/**
 * Checks the password, and the second factor where there is one, and opens a session.
 * @returns what its cookies carry: the session's token, and what the browser is known by from now on.
 * @throws RefusedError after too many failures, FieldError for a wrong password or code.
 */
export async function signIn(
	world: World,
	given: string | Credentials,
	guesser: Guesser
): Promise<{ session: string; browser: string }> {
	const credentials = typeof given === 'string' ? { password: given } : given;
	const person = personNamed(world.db, credentials.email);
	if (person === 'which') throw new FieldError({ email: 'Who are you? Your e-mail address.' });
	const right = await guess(world, credentials.password, guesser, 'password', person ?? null);
	await checkFactor(world, right, credentials.code ?? '', guesser);
	return {
		session: openSession(world, guesser.device, right.id),
		browser: knowBrowser(world, guesser.browser)
	};
}

/** Whoever has this address, or the only one there is; `which`: there are several, and none is named. */
function personNamed(db: Reader, email: string | undefined): Person | 'which' | undefined {
	const active = and(isNotNull(people.passwordHash), isNull(people.removedAt));
	const named = email?.trim();
	if (named)
		return db
			.select()
			.from(people)
			.where(
				and(
					active, // Who set the books up before they said their name has the address of the business.
					sql`lower(coalesce(nullif(${people.email}, ''), (select ${business.email} from ${business}))) = lower(${named})`
				)
			)
			.get();
	const all = db.select().from(people).where(active).limit(2).all();
	return all.length > 1 ? 'which' : all[0];
}

/** @throws FieldError at `code`, RefusedError after too many wrong ones */
async function checkFactor(
	world: World,
	person: Person,
	code: string,
	guesser: Guesser
): Promise<void> {
	if (person.factor === null) return;
	if (code.trim() === '')
		throw new FieldError({ code: 'The code your phone shows, or a recovery code.' });
	const done = countGuess(world, guesser);
	if (!takeCode(world, person, code))
		throw new FieldError({ code: 'That code does not hold: they change every half minute.' });
	done();
}

/** Addresses of one line: of the new kind everybody has a great many, which count as one. */
const placeOf = (source: string): string =>
	source.includes(':') && !source.includes('.') ? source.split(':').slice(0, 4).join(':') : source;

/**
 * Counts a guess before it is looked at: guesses beside one another cannot overtake the brake. A browser that somebody has signed in with has a count of
 * its own, so that strangers who guess lock nobody out of it.
 * @returns what is called when it was right @throws RefusedError after too many
 */
export function countGuess(world: World, guesser: Guesser): () => void {
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
	return () =>
		void world.db
			.delete(signInFailures)
			.where(or(eq(signInFailures.source, source), eq(signInFailures.id, id)))
			.run();
}

/** Of nobody: somebody who is not here takes as long as somebody who is. */
let nobody: Promise<string> | undefined;

async function guess(
	world: World,
	password: string,
	guesser: Guesser,
	box: 'password' | 'current',
	person: Person | null
): Promise<Person> {
	const done = countGuess(world, guesser);
	const passwordHash = person?.passwordHash ?? (await (nobody ??= hash(newToken())));
	const right = password.length <= 200 && (await verify(passwordHash, password));
	if (!right || !person?.passwordHash)
		throw new FieldError({
			[box]: person || box === 'current' ? 'That is not the password.' : 'That is not right.'
		});
	done();
	return person;
}

/** Whoever asks; where nobody does (tests, the console): the owner. */
const self = (db: Reader): Person | null =>
	db
		.select()
		.from(people)
		.where(eq(people.id, actor()?.id ?? OWNER))
		.get() ?? null;

/** Asks for the password again, before something that matters. @throws FieldError at `current`, RefusedError after too many wrong ones */
export async function confirmPassword(
	world: World,
	password: string,
	guesser: Guesser
): Promise<void> {
	await guess(world, password, guesser, 'current', self(world.db));
}

/**
 * Changes the password of whoever asks; all their sessions end, and no browser is known any longer.
 * @throws FieldError, RefusedError after too many wrong ones
 */
export async function changePassword(
	world: World,
	current: string,
	next: string,
	guesser: Guesser
): Promise<void> {
	checkPassword(next);
	const person = await guess(world, current, guesser, 'current', self(world.db));
	const passwordHash = await hash(next);
	world.db.update(people).set({ passwordHash }).where(eq(people.id, person.id)).run();
	world.db.delete(sessions).where(eq(sessions.personId, person.id)).run();
	world.db.delete(knownBrowsers).run();
}

/** The hash a password is kept as. @throws FieldError where it is too easy to guess */
export const hashOf = (password: string): Promise<string> => hash(checkPassword(password));

/** The second factor of whoever asks, and how many recovery codes are left of it; null: none. */
export function ownFactor(db: Reader): { recovery: number } | null {
	const person = self(db);
	return person?.factor ? { recovery: person.recovery.length } : null;
}
