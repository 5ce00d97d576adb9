// The owner's own kinds of work: damp, cornices, repairs. On jobs, repeats and documents; neither line kind nor income category.
import { must } from '../../actor';
import { asc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { letterheads, workKinds } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from './fields';

/** More than can be looked through are no list any more. */
const MOST = 200;

const form = z.object({
	name: z.string().trim().min(1, 'Give it a name.').max(60, 'At most 60 characters.'),
	letterheadId: z.number().int().positive().nullable().catch(null).default(null)
});

export interface WorkKind {
	id: number;
	name: string;
	letterheadId: number | null;
	archived: boolean;
}

/** All of them, those in use first, by name. */
export const listWorkKinds = (db: Reader): WorkKind[] =>
	db
		.select()
		.from(workKinds)
		.orderBy(sql`${workKinds.archivedAt} is not null`, asc(sql`lower(${workKinds.name})`))
		.all()
		.map(({ archivedAt, ...kind }) => ({ ...kind, archived: archivedAt !== null }));

/** Those that can be chosen. */
export const workKindsInUse = (db: Reader): { id: number; name: string }[] =>
	db
		.select({ id: workKinds.id, name: workKinds.name })
		.from(workKinds)
		.where(isNull(workKinds.archivedAt))
		.orderBy(asc(sql`lower(${workKinds.name})`))
		.all();

export const workKindById = (db: Reader, id: number | null | undefined) =>
	id === null || id === undefined
		? undefined
		: db.select().from(workKinds).where(eq(workKinds.id, id)).get();

/** Adds one, or changes it. One of this name that was archived comes back. @throws FieldError, NotFoundError */
export function saveWorkKind(world: World, id: number | null, typed: unknown): number {
	must('settings');
	const { name, letterheadId } = parseForm(form, typed);
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select()
			.from(workKinds)
			.where(sql`lower(${workKinds.name}) = lower(${name})`)
			.get();
		if (same && same.id !== id && (same.archivedAt === null || id !== null))
			throw new FieldError({
				name:
					same.archivedAt === null ? 'There is one of this name.' : 'An archived one has this name.'
			});
		if (letterheadId !== null) {
			const known = tx.select().from(letterheads).where(eq(letterheads.id, letterheadId)).get();
			if (!known)
				throw new FieldError({ letterheadId: 'This letterhead is gone. Choose another.' });
		}
		if (id !== null) {
			const { changes } = tx
				.update(workKinds)
				.set({ name, letterheadId })
				.where(eq(workKinds.id, id))
				.run();
			if (!changes) throw new NotFoundError('This kind of work');
			return id;
		}
		if (same) {
			tx.update(workKinds).set({ archivedAt: null }).where(eq(workKinds.id, same.id)).run();
			return same.id;
		}
		if (tx.select({ id: workKinds.id }).from(workKinds).all().length >= MOST)
			throw new FieldError({ name: `At most ${MOST} kinds of work.` });
		return tx.insert(workKinds).values({ name, letterheadId }).returning().get().id;
	});
}

/** What it was used for keeps it; it is offered no more, or again. @throws NotFoundError */
export function archiveWorkKind(world: World, id: number, archived: boolean): void {
	must('settings');
	const { changes } = world.db
		.update(workKinds)
		.set({ archivedAt: archived ? world.clock.now() : null })
		.where(eq(workKinds.id, id))
		.run();
	if (!changes) throw new NotFoundError('This kind of work');
}
