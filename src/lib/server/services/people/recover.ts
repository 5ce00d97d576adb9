// Getting back in from the console of the machine: whoever sits there has the data anyway. It leaves its traces: on Today for a
// week, and by mail.
import { eq, isNull } from 'drizzle-orm';
import { NotFoundError } from '../../../core/refusals';
import type { Reader } from '../../db/connection';
import { knownBrowsers, passkeys, people, sessions } from '../../db/schema';
import type { World } from '../../world';
import { turnOffFactor } from '../business/factor';
import { loadBusiness } from '../business/settings';
import { hashOf } from '../business/signIn';
import { OWNER } from '../business/sessions';
import { tell } from '../messages/watched';

export interface Recoverable {
	id: number;
	name: string;
	email: string;
	role: string;
	factor: boolean;
	passkeys: number;
}

/** Everybody who can sign in. */
export function whoCanSignIn(db: Reader): Recoverable[] {
	const keys = db.select({ personId: passkeys.personId }).from(passkeys).all();
	const { ownerName, email } = loadBusiness(db);
	return db
		.select()
		.from(people)
		.where(isNull(people.removedAt))
		.all()
		.filter(({ passwordHash }) => passwordHash !== null)
		.map((row) => ({
			id: row.id,
			name: row.name || (row.id === OWNER ? ownerName : ''),
			email: row.email || (row.id === OWNER ? email : ''),
			role: row.role,
			factor: row.factor !== null,
			passkeys: keys.filter(({ personId }) => personId === row.id).length
		}));
}

/** By name or address, however written; the owner where nobody is named. @throws NotFoundError */
export function recoverable(db: Reader, typed: string): Recoverable {
	const all = whoCanSignIn(db);
	const wanted = typed.trim().toLowerCase();
	const found = all.filter(({ id, name, email }) =>
		wanted === '' ? id === OWNER : name.toLowerCase() === wanted || email.toLowerCase() === wanted
	);
	if (found.length !== 1) throw new NotFoundError(wanted ? `“${typed.trim()}”` : 'An owner');
	return found[0]!;
}

const CONSOLE = { source: 'console', device: 'the console of the machine' };

function signedOut(world: World, personId: number): void {
	world.db.delete(sessions).where(eq(sessions.personId, personId)).run();
	world.db.delete(knownBrowsers).run();
}

/** The second factor and the passkeys count no more; the password does. */
export function recoverFactor(world: World, { id, name }: Recoverable): void {
	turnOffFactor(world, id);
	world.db.delete(passkeys).where(eq(passkeys.personId, id)).run();
	signedOut(world, id);
	tell(world, 'factor', `of ${name}, taken off`, loadBusiness(world.db).email, CONSOLE);
}

/** Another password. @throws FieldError where it is too easy to guess */
export async function recoverPassword(
	world: World,
	{ id, name }: Recoverable,
	next: string
): Promise<void> {
	const passwordHash = await hashOf(next);
	world.db.update(people).set({ passwordHash }).where(eq(people.id, id)).run();
	signedOut(world, id);
	tell(world, 'password', `of ${name}`, loadBusiness(world.db).email, CONSOLE);
}
