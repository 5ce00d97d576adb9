// Who may use these books: invited by mail, with a role, removed at once. The last owner cannot go.
import { and, asc, count, eq, gt, isNotNull, isNull, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { ROLE_NAMES, ROLES } from '../../../core/people/roles';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { must } from '../../actor';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { passkeys, people, sessions, visits } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, required } from '../business/fields';
import { newToken, sha256 } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { hashOf } from '../business/signIn';
import { queueMail } from '../messages/outbox';

const DAY = 86_400_000;
/** So long an invitation holds. */
const HOLDS = 7 * DAY;
const MOST = 100;

const invitation = z.object({
	name: required(100, 'Who is it?'),
	email: z.string().trim().max(200).pipe(z.email('That is no e-mail address.')),
	role: z.enum(ROLES, 'Choose what they may do.'),
	seesPrices: z.boolean().default(false)
});

export interface PersonShown {
	id: number;
	name: string;
	email: string;
	role: (typeof ROLES)[number];
	seesPrices: boolean;
	state: 'active' | 'invited' | 'lapsed';
	factor: boolean;
}

const stateOf = (
	row: { passwordHash: string | null; invitedUntil: number | null },
	now: number
): PersonShown['state'] =>
	row.passwordHash !== null ? 'active' : (row.invitedUntil ?? 0) > now ? 'invited' : 'lapsed';

/** Everybody who is here, owners first. */
export function listPeople(world: World): PersonShown[] {
	must('owner');
	return world.db
		.select()
		.from(people)
		.where(isNull(people.removedAt))
		.orderBy(sql`${people.role} <> 'owner'`, asc(people.id))
		.all()
		.map((row) => ({
			id: row.id,
			name: row.name,
			email: row.email,
			role: row.role,
			seesPrices: row.seesPrices,
			state: stateOf(row, world.clock.now()),
			factor: row.factor !== null
		}));
}

/** Those who can be sent to a visit: all who sign in but the accountant. */
export const peopleOnSite = (db: Reader): { id: number; name: string }[] =>
	db
		.select({ id: people.id, name: people.name })
		.from(people)
		.where(and(isNull(people.removedAt), ne(people.role, 'accountant')))
		.orderBy(asc(people.id))
		.all();

function mailInvitation(
	tx: Transaction,
	world: World,
	person: { id: number; name: string; email: string; role: (typeof ROLES)[number] },
	token: string
): void {
	const { tradingName, ownerName } = loadBusiness(tx);
	const from = tradingName || ownerName;
	queueMail(tx, world, {
		key: `invite:${sha256(token)}`,
		kind: 'notice',
		to: person.email,
		subject: `${from} asks you to join`,
		text: `Hello ${person.name},\n\n${from} keeps its jobs and invoices with Axiometer and has made a place for you in it: ${ROLE_NAMES[person.role].may}.\n\nChoose a password of your own here; the link holds for seven days and opens once:\n{link}\n\nIf you did not expect this, let it lie: nothing happens.`,
		link: `${world.origin}/join/${token}`
	});
}

/** Invites somebody; their link holds for seven days. @throws FieldError */
export function invite(world: World, typed: unknown): number {
	must('owner');
	const values = parseForm(invitation, typed);
	const token = newToken();
	return writeAtOnce(world.db, (tx) => {
		refuseTwice(tx, values.email, null);
		const { n } = tx.select({ n: count() }).from(people).where(isNull(people.removedAt)).get()!;
		if (n >= MOST) throw new FieldError({ name: `At most ${MOST} people.` });
		const person = tx
			.insert(people)
			.values({
				...values,
				seesPrices: values.role === 'onSite' && values.seesPrices,
				invitedHash: sha256(token),
				invitedUntil: world.clock.now() + HOLDS,
				createdAt: world.clock.now()
			})
			.returning()
			.get();
		mailInvitation(tx, world, person, token);
		return person.id;
	});
}

function refuseTwice(tx: Reader, email: string, own: number | null): void {
	const same = tx
		.select({ id: people.id })
		.from(people)
		.where(
			and(
				isNull(people.removedAt),
				sql`lower(${people.email}) = lower(${email})`,
				own === null ? undefined : ne(people.id, own)
			)
		)
		.get();
	if (same) throw new FieldError({ email: 'Somebody here has this address already.' });
}

function load(db: Reader, id: number) {
	const row = db
		.select()
		.from(people)
		.where(and(eq(people.id, id), isNull(people.removedAt)))
		.get();
	if (!row) throw new NotFoundError('This person');
	return row;
}

/** A new link, mailed once more; the one before opens nothing. @throws NotFoundError, RefusedError */
export function inviteAgain(world: World, id: number): void {
	must('owner');
	const token = newToken();
	writeAtOnce(world.db, (tx) => {
		const person = load(tx, id);
		if (person.passwordHash !== null) throw new RefusedError('They have joined already.');
		tx.update(people)
			.set({ invitedHash: sha256(token), invitedUntil: world.clock.now() + HOLDS })
			.where(eq(people.id, id))
			.run();
		mailInvitation(tx, world, person, token);
	});
}

/** Whose invitation a link is; null where it opens nothing (any more). */
export function invitedBy(world: World, token: string): { id: number; name: string } | null {
	return (
		world.db
			.select({ id: people.id, name: people.name })
			.from(people)
			.where(
				and(
					eq(people.invitedHash, sha256(token)),
					gt(people.invitedUntil, world.clock.now()),
					isNull(people.removedAt),
					isNull(people.passwordHash)
				)
			)
			.get() ?? null
	);
}

/** Takes an invitation with a password of one's own; the link opens nothing afterwards. @throws FieldError, NotFoundError */
export async function join(world: World, token: string, password: string): Promise<number> {
	const passwordHash = await hashOf(password);
	return writeAtOnce(world.db, (tx) => {
		const person = invitedBy(world, token);
		if (!person) throw new NotFoundError('This invitation');
		tx.update(people)
			.set({ passwordHash, invitedHash: null, invitedUntil: null })
			.where(eq(people.id, person.id))
			.run();
		return person.id;
	});
}

const OWNERS = and(
	eq(people.role, 'owner'),
	isNull(people.removedAt),
	isNotNull(people.passwordHash)
);

function keepAnOwner(tx: Reader, id: number, words: string): void {
	const { n } = tx
		.select({ n: count() })
		.from(people)
		.where(and(OWNERS, ne(people.id, id)))
		.get()!;
	if (n === 0) throw new RefusedError(words);
}

/** Another role, at once: pages they have open answer by it from their next press on. @throws NotFoundError, RefusedError */
export function changeRole(
	world: World,
	id: number,
	typed: { role: unknown; seesPrices: boolean }
): void {
	must('owner');
	const role = z.enum(ROLES).safeParse(typed.role);
	if (!role.success) throw new FieldError({ role: 'Choose what they may do.' });
	writeAtOnce(world.db, (tx) => {
		const person = load(tx, id);
		if (person.role === 'owner' && role.data !== 'owner')
			keepAnOwner(tx, id, 'There has to be an owner. Make somebody else one first.');
		tx.update(people)
			.set({ role: role.data, seesPrices: role.data === 'onSite' && typed.seesPrices })
			.where(eq(people.id, id))
			.run();
	});
}

/**
 * Loses access at once. What they did stays in the trails; visits that are still to come wait to be booked anew.
 * @throws NotFoundError, RefusedError
 */
export function removePerson(world: World, id: number): void {
	must('owner');
	writeAtOnce(world.db, (tx) => {
		const person = load(tx, id);
		if (person.role === 'owner') keepAnOwner(tx, id, 'The last owner cannot go.');
		const now = world.clock.now();
		tx.update(people)
			.set({ removedAt: now, passwordHash: null, invitedHash: null, factor: null, recovery: [] })
			.where(eq(people.id, id))
			.run();
		tx.delete(sessions).where(eq(sessions.personId, id)).run();
		tx.delete(passkeys).where(eq(passkeys.personId, id)).run();
		tx.update(visits)
			.set({ personId: null, person: '' })
			.where(
				and(
					eq(visits.personId, id),
					eq(visits.done, false),
					sql`${visits.date} >= ${world.clock.today()}`
				)
			)
			.run();
	});
}
