// The owner's own income categories and cost centres, for who wants them: on lines and costs, in reports, never on paper.
import { must } from '../../actor';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { LINE_TAG_SORTS, lineTags } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from './fields';

/** More than can be looked through are no list any more. */
const MOST = 200;

const form = z.object({
	name: z.string().trim().min(1, 'Give it a name.').max(60, 'At most 60 characters.')
});

export type LineTagSort = (typeof LINE_TAG_SORTS)[number];

export interface LineTag {
	id: number;
	sort: LineTagSort;
	name: string;
	archived: boolean;
}

/** All of them, those in use first, by name. */
export const listLineTags = (db: Reader): LineTag[] =>
	db
		.select()
		.from(lineTags)
		.orderBy(sql`${lineTags.archivedAt} is not null`, asc(sql`lower(${lineTags.name})`))
		.all()
		.map(({ archivedAt, ...tag }) => ({ ...tag, archived: archivedAt !== null }));

/** The names that can be chosen. */
export function lineTagsInUse(db: Reader): Record<LineTagSort, string[]> {
	const rows = db
		.select({ sort: lineTags.sort, name: lineTags.name })
		.from(lineTags)
		.where(isNull(lineTags.archivedAt))
		.orderBy(asc(sql`lower(${lineTags.name})`))
		.all();
	const of = (sort: LineTagSort) => rows.filter((row) => row.sort === sort).map(({ name }) => name);
	return { income: of('income'), centre: of('centre') };
}

/** Adds one; one of this name that was archived comes back. @throws FieldError */
export function addLineTag(world: World, sort: LineTagSort, typed: unknown): number {
	must('settings');
	const { name } = parseForm(form, typed);
	return writeAtOnce(world.db, (tx) => {
		const all = tx.select().from(lineTags).where(eq(lineTags.sort, sort)).all();
		const same = all.find((tag) => tag.name.toLowerCase() === name.toLowerCase());
		if (same && same.archivedAt === null)
			throw new FieldError({ name: 'There is one of this name.' });
		if (same) {
			tx.update(lineTags).set({ archivedAt: null }).where(eq(lineTags.id, same.id)).run();
			return same.id;
		}
		if (all.length >= MOST) throw new FieldError({ name: `At most ${MOST} of them.` });
		return tx.insert(lineTags).values({ sort, name }).returning().get().id;
	});
}

/** What has it keeps it; it is offered no more, or again. @throws NotFoundError */
export function archiveLineTag(world: World, id: number, archived: boolean): void {
	must('settings');
	const { changes } = world.db
		.update(lineTags)
		.set({ archivedAt: archived ? world.clock.now() : null })
		.where(
			and(
				eq(lineTags.id, id),
				archived ? isNull(lineTags.archivedAt) : sql`archived_at is not null`
			)
		)
		.run();
	if (!changes && !world.db.select().from(lineTags).where(eq(lineTags.id, id)).get())
		throw new NotFoundError('This name');
}
