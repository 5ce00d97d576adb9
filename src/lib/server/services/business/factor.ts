// The second factor: a code that changes every half minute (RFC 6238), and recovery codes for the day the phone is gone.
import { eq } from 'drizzle-orm';
import { Secret, TOTP } from 'otpauth';
import { writeAtOnce } from '../../db/connection';
import { people } from '../../db/schema';
import { keepSecret, secretOf } from '../../db/secrets';
import type { World } from '../../world';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { newToken, sha256 } from './keys';

type Person = typeof people.$inferSelect;

const RECOVERY_CODES = 8;
const PERIOD = 30;
/** Clocks differ: the code before and the one after hold too. */
const WINDOW = 1;

/** Under which name the secret of somebody lies, sealed. */
const nameOf = (personId: number): string => `factor of ${personId}`;

const totp = (secret: string, label: string): TOTP =>
	new TOTP({ issuer: 'Axiometer', label, period: PERIOD, secret: Secret.fromBase32(secret) });

/** What an app on a phone is set up with, before it counts. */
export function proposeFactor(label: string): { secret: string; address: string } {
	const secret = new Secret({ size: 20 }).base32;
	return { secret, address: totp(secret, label || 'you').toString() };
}

/** As it is read aloud: `h7k2-9mpq`. */
function recoveryCode(): string {
	const letters = sha256(newToken()).slice(0, 8);
	return `${letters.slice(0, 4)}-${letters.slice(4)}`;
}

const plain = (code: string): string => code.toLowerCase().replace(/[^0-9a-z]/g, '');

/**
 * The factor counts from now on, once a code of it was typed.
 * @returns the recovery codes, which are shown this once @throws FieldError, NotFoundError
 */
export function turnOnFactor(
	world: World,
	personId: number,
	secret: string,
	code: string
): string[] {
	const person = world.db.select().from(people).where(eq(people.id, personId)).get();
	if (!person) throw new NotFoundError('This person');
	if (!/^[A-Z2-7]{16,64}$/.test(secret)) throw new RefusedError('Begin again, please.');
	const step = stepOf(world, secret, code);
	if (step === null)
		throw new FieldError({
			code: 'That is not the code it shows now. Look at the clock of your phone.'
		});
	const codes = Array.from({ length: RECOVERY_CODES }, recoveryCode);
	writeAtOnce(world.db, (tx) => {
		keepSecret(world.db, nameOf(personId), Buffer.from(secret));
		tx.update(people)
			.set({
				factor: nameOf(personId),
				factorStep: step,
				recovery: codes.map((one) => sha256(plain(one)))
			})
			.where(eq(people.id, personId))
			.run();
	});
	return codes;
}

/** It counts no more: by its owner, or on the console when all is lost. */
export function turnOffFactor(world: World, personId: number): void {
	writeAtOnce(world.db, (tx) => {
		keepSecret(world.db, nameOf(personId), null);
		tx.update(people)
			.set({ factor: null, factorStep: null, recovery: [] })
			.where(eq(people.id, personId))
			.run();
	});
}

/** The half minute a code belongs to; null where it is none of this secret. */
function stepOf(world: World, secret: string, code: string): number | null {
	const typed = code.replace(/\s/g, '');
	if (!/^\d{6}$/.test(typed)) return null;
	const timestamp = world.clock.now();
	const delta = totp(secret, 'x').validate({ token: typed, timestamp, window: WINDOW });
	return delta === null ? null : Math.floor(timestamp / 1000 / PERIOD) + delta;
}

/** Takes a code of the factor or a recovery code; neither holds a second time. @returns whether it held */
export function takeCode(world: World, person: Person, code: string): boolean {
	const secret = secretOf(world.db, nameOf(person.id))?.toString();
	return writeAtOnce(world.db, (tx) => {
		const now = tx.select().from(people).where(eq(people.id, person.id)).get();
		if (!now) return false;
		const step = secret ? stepOf(world, secret, code) : null;
		if (step !== null && step > (now.factorStep ?? -1)) {
			tx.update(people).set({ factorStep: step }).where(eq(people.id, person.id)).run();
			return true;
		}
		const hash = sha256(plain(code));
		if (!now.recovery.includes(hash)) return false;
		tx.update(people)
			.set({ recovery: now.recovery.filter((one) => one !== hash) })
			.where(eq(people.id, person.id))
			.run();
		return true;
	});
}
