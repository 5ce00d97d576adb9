// Views of lists that somebody kept by a name.
import { and, asc, count, eq } from 'drizzle-orm';
import { z } from 'zod';
import type { ListName } from '../../../core/lists/types';
import { FieldError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { listViews } from '../../db/schema';
import { toBin } from './bin';
import type { World } from '../../world';
import { parseForm } from './fields';

/** More than fit on a screen are found by nobody. */
const MOST = 30;

const form = z.object({
	name: z.string().trim().min(1, 'Give it a name.').max(40, 'At most 40 characters.')
});

export const viewsOf = (db: Reader, list: ListName) =>
	db
		.select({ id: listViews.id, name: listViews.name, address: listViews.address })
		.from(listViews)
		.where(eq(listViews.list, list))
		.orderBy(asc(listViews.id))
		.all();

/** Keeps a view by a name; one of this name is changed. @throws FieldError */
export function keepView(world: World, list: ListName, typed: string, address: string): void {
	const { name } = parseForm(form, { name: typed });
	writeAtOnce(world.db, (tx) => {
		const { n } = tx.select({ n: count() }).from(listViews).where(eq(listViews.list, list)).get()!;
		const same = tx
			.update(listViews)
			.set({ address })
			.where(and(eq(listViews.list, list), eq(listViews.name, name)))
			.run();
		if (same.changes) return;
		if (n >= MOST)
			throw new FieldError({ name: `At most ${MOST} views: take one away that nobody uses.` });
		tx.insert(listViews).values({ list, name, address, createdAt: world.clock.now() }).run();
	});
}

/** @returns by what it is brought back; null where it was not there */
export function removeView(world: World, list: ListName, id: number): number | null {
	return writeAtOnce(world.db, (tx) => {
		const row = tx
			.delete(listViews)
			.where(and(eq(listViews.list, list), eq(listViews.id, id)))
			.returning()
			.get();
		return row ? toBin(tx, world, 'listView', row) : null;
	});
}
