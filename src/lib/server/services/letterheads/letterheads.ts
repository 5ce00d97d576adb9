// Letterheads: made, copied, renamed, changed, archived. What was issued keeps the look it was issued with.
import { must } from '../../actor';
import { and, asc, count, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { lookProblems } from '../../../core/letterheads/law';
import { lookForm, readLook, STANDARD_LOOK, type Look } from '../../../core/letterheads/look';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { sellerOn } from '../../../core/parties';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { customers, letterheads, workKinds } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { sellerRecord } from '../business/settings';
import { logoName } from './logos';

const MOST = 60;

const nameForm = z.object({
	name: z.string().trim().min(1, 'Give it a name.').max(60, 'At most 60 characters.')
});

export interface Letterhead {
	id: number;
	name: string;
	look: Look;
	standard: boolean;
	archived: boolean;
	version: number;
	updatedAt: number;
}

const read = (row: typeof letterheads.$inferSelect): Letterhead => ({
	id: row.id,
	name: row.name,
	look: readLook(row.look),
	standard: row.standard,
	archived: row.archivedAt !== null,
	version: row.version,
	updatedAt: row.updatedAt
});

/** @throws NotFoundError */
export function loadLetterhead(db: Reader, id: number): Letterhead {
	const row = db.select().from(letterheads).where(eq(letterheads.id, id)).get();
	if (!row) throw new NotFoundError('This letterhead');
	return read(row);
}

/** All of them with what uses them: the standard first, archived ones last. */
export function listLetterheads(db: Reader) {
	const rows = db
		.select()
		.from(letterheads)
		.orderBy(
			sql`${letterheads.archivedAt} is not null`,
			desc(letterheads.standard),
			asc(sql`lower(${letterheads.name})`)
		)
		.all();
	const users = (table: typeof customers | typeof workKinds) =>
		new Map(
			db
				.select({ id: table.letterheadId, n: count() })
				.from(table)
				.where(and(sql`${table.letterheadId} is not null`, isNull(table.archivedAt)))
				.groupBy(table.letterheadId)
				.all()
				.map(({ id, n }) => [id!, n])
		);
	const [byCustomers, byKinds] = [users(customers), users(workKinds)];
	return rows.map((row) => ({
		...read(row),
		customers: byCustomers.get(row.id) ?? 0,
		kinds: byKinds.get(row.id) ?? 0
	}));
}

/** Those that can be chosen, by name. */
export const letterheadsInUse = (db: Reader): { id: number; name: string }[] =>
	db
		.select({ id: letterheads.id, name: letterheads.name })
		.from(letterheads)
		.where(isNull(letterheads.archivedAt))
		.orderBy(asc(sql`lower(${letterheads.name})`))
		.all();

/** A name that nothing has yet: “Heritage work 2”. */
function freeName(db: Reader, wished: string): string {
	const taken = new Set(
		db
			.select({ name: letterheads.name })
			.from(letterheads)
			.all()
			.map(({ name }) => name.toLowerCase())
	);
	for (let n = 1; ; n++) {
		const name = n === 1 ? wished : `${wished.slice(0, 56)} ${n}`;
		if (!taken.has(name.toLowerCase())) return name;
	}
}

/**
 * A new one, as the standard is or as another one is. The first of all becomes the standard. The same key again makes nothing.
 * @throws NotFoundError, RefusedError
 */
export function makeLetterhead(world: World, key: string, from: number | null): number {
	must('settings');
	return writeAtOnce(world.db, (tx) => make(tx, world, key, from));
}

/** @param name as it is wished; null: as that one it is made from */
function make(
	tx: Transaction,
	world: World,
	key: string,
	from: number | null,
	name: string | null = null
): number {
	const made = tx.select().from(letterheads).where(eq(letterheads.key, key)).get();
	if (made) return made.id;
	const all = tx
		.select({ id: letterheads.id, archivedAt: letterheads.archivedAt })
		.from(letterheads)
		.all();
	if (all.length >= MOST)
		throw new RefusedError(`There are ${MOST} letterheads. Change one of those.`);
	const source = from === null ? undefined : loadLetterhead(tx, from);
	const first = !all.some(({ archivedAt }) => archivedAt === null);
	const at = world.clock.now();
	return tx
		.insert(letterheads)
		.values({
			key,
			name: freeName(tx, name ?? source?.name ?? (first ? 'Standard' : 'New letterhead')),
			look: source?.look ?? STANDARD_LOOK,
			// What one customer has is nobody else's standard.
			standard: first && name === null && standardOf(tx) === undefined,
			createdAt: at,
			updatedAt: at
		})
		.returning()
		.get().id;
}

/**
 * A letterhead for one customer alone: a copy of what its documents are written on, by its name. Where it has one that nobody else uses,
 * that one.
 * @returns the letterhead @throws NotFoundError, RefusedError
 */
export function lookOfItsOwn(world: World, customerId: number): number {
	must('settings');
	return writeAtOnce(world.db, (tx) => {
		const customer = tx.select().from(customers).where(eq(customers.id, customerId)).get();
		if (!customer) throw new NotFoundError('This customer');
		const has = customer.letterheadId;
		if (has !== null) {
			const { customers: users, kinds } = usersOf(tx, has);
			if (users.length === 1 && kinds.length === 0 && !loadLetterhead(tx, has).standard) return has;
		}
		const id = make(
			tx,
			world,
			`of customer ${customerId}: ${has ?? ''}`,
			has ?? standardOf(tx)?.id ?? null,
			customer.name.slice(0, 56)
		);
		tx.update(customers).set({ letterheadId: id }).where(eq(customers.id, customerId)).run();
		return id;
	});
}

/** What is written on where nothing else is chosen; undefined as long as there is none of the owner's own. */
export const standardOf = (db: Reader): Letterhead | undefined => {
	const row = db.select().from(letterheads).where(eq(letterheads.standard, true)).get();
	return row && read(row);
};

/** What is wrong with a look, by the field it is about; the look where nothing is. */
export function checkLook(
	db: Reader,
	today: string,
	typed: unknown
): { look: Look } | { problems: Record<string, string> } {
	const parsed = lookForm.safeParse(typed);
	if (!parsed.success)
		return {
			problems: Object.fromEntries(
				parsed.error.issues.map((issue) => [issue.path.join('.'), issue.message])
			)
		};
	const look = parsed.data;
	const problems = lookProblems(look, sellerOn(sellerRecord(db), today));
	if (look.logo !== null && logoName(db, look.logo) === null)
		problems.logo = 'This picture is gone. Bring it in again.';
	return Object.keys(problems).length ? { problems } : { look };
}

/**
 * Keeps a look as it was changed.
 * @returns its new version
 * @throws FieldError, NotFoundError; ConflictError where another tab was first
 */
export function saveLook(world: World, id: number, version: number, typed: unknown): number {
	must('settings');
	const checked = checkLook(world.db, world.clock.today(), typed);
	if ('problems' in checked) throw new FieldError(checked.problems);
	return writeAtOnce(world.db, (tx) => {
		if (loadLetterhead(tx, id).version !== version) throw new ConflictError();
		tx.update(letterheads)
			.set({ look: checked.look, version: version + 1, updatedAt: world.clock.now() })
			.where(eq(letterheads.id, id))
			.run();
		return version + 1;
	});
}

/** @throws FieldError, NotFoundError */
export function renameLetterhead(world: World, id: number, typed: string): void {
	must('settings');
	const { name } = parseForm(nameForm, { name: typed });
	writeAtOnce(world.db, (tx) => {
		loadLetterhead(tx, id);
		const same = tx
			.select({ id: letterheads.id })
			.from(letterheads)
			.where(sql`lower(${letterheads.name}) = lower(${name})`)
			.get();
		if (same && same.id !== id) throw new FieldError({ name: 'There is one of this name.' });
		tx.update(letterheads).set({ name }).where(eq(letterheads.id, id)).run();
	});
}

/** It is used from now on where nothing else is chosen. @throws NotFoundError, RefusedError */
export function makeStandard(world: World, id: number): void {
	must('settings');
	writeAtOnce(world.db, (tx) => {
		if (loadLetterhead(tx, id).archived)
			throw new RefusedError('It is archived. Take it back into use first.');
		tx.update(letterheads).set({ standard: false }).where(eq(letterheads.standard, true)).run();
		tx.update(letterheads).set({ standard: true }).where(eq(letterheads.id, id)).run();
	});
}

/**
 * Archived ones are offered no more: who was to be written to on one gets the next that applies. The standard has to stay
 * as long as there is another that could be.
 * @throws NotFoundError, RefusedError
 */
export function archiveLetterhead(world: World, id: number, archived: boolean): void {
	must('settings');
	writeAtOnce(world.db, (tx) => {
		const { standard } = loadLetterhead(tx, id);
		const others = tx
			.select({ n: count() })
			.from(letterheads)
			.where(and(isNull(letterheads.archivedAt), sql`${letterheads.id} <> ${id}`))
			.get()!.n;
		if (archived && standard && others > 0)
			throw new RefusedError('Make another one the standard first.');
		tx.update(letterheads)
			.set({
				archivedAt: archived ? world.clock.now() : null,
				// The last one of all: documents look again as they came.
				...(archived ? { standard: false } : others === 0 ? { standard: true } : {})
			})
			.where(eq(letterheads.id, id))
			.run();
	});
}

/** The names of those customers and kinds of work that are written to on it, the first few of them. */
export function usersOf(db: Reader, id: number): { customers: string[]; kinds: string[] } {
	const names = (table: typeof customers | typeof workKinds) =>
		db
			.select({ name: table.name })
			.from(table)
			.where(and(inArray(table.letterheadId, [id]), isNull(table.archivedAt)))
			.orderBy(asc(table.name))
			.limit(50)
			.all()
			.map(({ name }) => name);
	return { customers: names(customers), kinds: names(workKinds) };
}
