// Passkeys: signing in with what a phone, a laptop or a stick keeps, and its owner's finger or PIN. It is both factors in one
// (Web Authentication, level 3).
import {
	generateAuthenticationOptions,
	generateRegistrationOptions,
	verifyAuthenticationResponse,
	verifyRegistrationResponse,
	type AuthenticationResponseJSON,
	type AuthenticatorTransport,
	type RegistrationResponseJSON
} from '@simplewebauthn/server';
import { and, asc, eq, isNotNull, isNull } from 'drizzle-orm';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { actor } from '../../actor';
import { passkeys, people } from '../../db/schema';
import type { World } from '../../world';
import { countGuess, type Guesser } from './signIn';
import { OWNER, knowBrowser, openSession } from './sessions';

/** So long a device may take to answer. */
const HOLDS_MS = 5 * 60_000;
const MOST_KEYS = 20;
const MOST_ASKED = 1_000;

/** What devices were asked and have not answered: each answer counts once, in this process. By the question, for whom and until when. */
const asked = new Map<string, { personId: number | null; until: number }>();

function ask(world: World, challenge: string, personId: number | null): void {
	const now = world.clock.now();
	for (const [question, { until }] of asked) if (until < now) asked.delete(question);
	// A flood pushes out the oldest questions, and nothing grows.
	for (const question of asked.keys()) {
		if (asked.size < MOST_ASKED) break;
		asked.delete(question);
	}
	asked.set(challenge, { personId, until: now + HOLDS_MS });
}

/** @returns whether it was asked, of the same person; it is asked no more */
function wasAsked(world: World, challenge: string, personId: number | null): boolean {
	const question = asked.get(challenge);
	asked.delete(challenge);
	return (
		question !== undefined && question.personId === personId && question.until >= world.clock.now()
	);
}

/** The name a passkey belongs to: the host. @throws RefusedError where browsers take none */
function hostOf({ origin }: World): string {
	const { hostname } = new URL(origin);
	if (/^[\d.]+$/.test(hostname) || hostname.includes(':'))
		throw new RefusedError(
			'Passkeys need a name such as localhost or books.example in the address of this page, not numbers.'
		);
	return hostname;
}

/** Whoever asks; where nobody does, the owner. */
const self = (): number => actor()?.id ?? OWNER;

export const ownPasskeys = ({ db }: Pick<World, 'db'>) =>
	db
		.select({
			id: passkeys.id,
			name: passkeys.name,
			createdAt: passkeys.createdAt,
			usedAt: passkeys.usedAt
		})
		.from(passkeys)
		.where(eq(passkeys.personId, self()))
		.orderBy(asc(passkeys.createdAt))
		.all();

/** What a device is asked to make a key. @throws NotFoundError, RefusedError */
export async function askForPasskey(world: World) {
	const personId = self();
	const person = world.db.select().from(people).where(eq(people.id, personId)).get();
	if (!person) throw new NotFoundError('This person');
	const own = world.db.select().from(passkeys).where(eq(passkeys.personId, personId)).all();
	if (own.length >= MOST_KEYS)
		throw new RefusedError(`At most ${MOST_KEYS} passkeys: remove one you do not use.`);
	const options = await generateRegistrationOptions({
		rpName: 'Axiometer',
		rpID: hostOf(world),
		userName: person.email || person.name || 'owner',
		userDisplayName: person.name,
		userID: new TextEncoder().encode(`axiometer-${personId}`),
		attestationType: 'none',
		excludeCredentials: own.map(({ id, transports }) => ({
			id,
			transports: transports as AuthenticatorTransport[]
		})),
		authenticatorSelection: { residentKey: 'required', userVerification: 'required' }
	});
	ask(world, options.challenge, personId);
	return options;
}

const UNREADABLE = 'That did not come from the device that was asked. Try again.';

/** Keeps the key a device made. @throws RefusedError */
export async function keepPasskey(world: World, answer: unknown, name: string): Promise<void> {
	const personId = self();
	const made = await verifyRegistrationResponse({
		response: answer as RegistrationResponseJSON,
		expectedChallenge: (challenge) => wasAsked(world, challenge, personId),
		expectedOrigin: world.origin,
		expectedRPID: hostOf(world),
		requireUserVerification: true
	}).catch(() => null);
	if (!made?.verified || !made.registrationInfo) throw new RefusedError(UNREADABLE);
	const { id, publicKey, counter, transports = [] } = made.registrationInfo.credential;
	world.db
		.insert(passkeys)
		.values({
			id,
			personId,
			name: name.trim().slice(0, 100) || 'A device',
			publicKey: Buffer.from(publicKey),
			counter,
			transports,
			createdAt: world.clock.now()
		})
		.onConflictDoNothing()
		.run();
}

export function removePasskey({ db }: World, id: string): void {
	db.delete(passkeys)
		.where(and(eq(passkeys.id, id), eq(passkeys.personId, self())))
		.run();
}

/** What any device is asked to sign in. @throws RefusedError */
export async function askToSignIn(world: World) {
	const options = await generateAuthenticationOptions({
		rpID: hostOf(world),
		userVerification: 'required'
	});
	ask(world, options.challenge, null);
	return options;
}

/**
 * Opens a session for whoever's key has answered.
 * @returns as `signIn` @throws RefusedError where it is nobody's key, no answer to what was asked, or after too many failures
 */
export async function signInByPasskey(
	world: World,
	answer: unknown,
	guesser: Guesser
): Promise<{ session: string; browser: string }> {
	const done = countGuess(world, guesser);
	const response = answer as AuthenticationResponseJSON;
	const key = world.db
		.select({ key: passkeys, personId: people.id })
		.from(passkeys)
		.innerJoin(people, eq(people.id, passkeys.personId))
		.where(
			and(
				eq(passkeys.id, typeof response?.id === 'string' ? response.id : ''),
				isNull(people.removedAt),
				isNotNull(people.passwordHash)
			)
		)
		.get();
	if (!key) throw new RefusedError('This passkey is not known here. Sign in with the password.');
	const { id, publicKey, counter, transports } = key.key;
	const signed = await verifyAuthenticationResponse({
		response,
		expectedChallenge: (challenge) => wasAsked(world, challenge, null),
		expectedOrigin: world.origin,
		expectedRPID: hostOf(world),
		credential: {
			id,
			publicKey: new Uint8Array(publicKey),
			counter,
			transports: transports as AuthenticatorTransport[]
		},
		requireUserVerification: true
	}).catch(() => null);
	if (!signed?.verified) throw new RefusedError(UNREADABLE);
	done();
	world.db
		.update(passkeys)
		.set({ counter: signed.authenticationInfo.newCounter, usedAt: world.clock.now() })
		.where(eq(passkeys.id, id))
		.run();
	return {
		session: openSession(world, guesser.device, key.personId),
		browser: knowBrowser(world, guesser.browser)
	};
}
