// Views of lists that somebody kept by a name.
import { and, asc, count, eq, or } from 'drizzle-orm';
import { z } from 'zod';
import type { ListName } from '../../../core/lists/types';
import { FieldError } from '../../../core/refusals';
import { actor, may } from '../../actor';
import { writeAtOnce, type Reader } from '../../db/connection';
import { listViews, people } from '../../db/schema';
import { toBin } from './bin';
import type { World } from '../../world';
import { parseForm } from './fields';

/** More than fit on a screen are found by nobody. */
const MOST = 30;

const form = z.object({
	name: z.string().trim().min(1, 'Give it a name.').max(40, 'At most 40 characters.')
});

/** The owner, where nobody is signed in: the house itself. */
const me = (): number => actor()?.id ?? 1;

export interface KeptView {
	id: number;
	name: string;
	address: string;
	/** By whom, where it is somebody else's; empty: one's own. */
	by: string;
	/** It may be taken away by who looks at it. */
	mine: boolean;
}

/** One's own views, and those that others share. */
export const viewsOf = (db: Reader, list: ListName): KeptView[] =>
	db
		.select({
			id: listViews.id,
			name: listViews.name,
			address: listViews.address,
			personId: listViews.personId,
			by: people.name
		})
		.from(listViews)
		.leftJoin(people, eq(people.id, listViews.personId))
		.where(
			and(eq(listViews.list, list), or(eq(listViews.personId, me()), eq(listViews.shared, true)))
		)
		.orderBy(asc(listViews.id))
		.all()
		.map(({ personId, by, ...view }) => ({
			...view,
			by: personId === me() ? '' : (by ?? ''),
			mine: personId === me() || may('owner')
		}));

/** Keeps a view by a name; one's own of this name is changed. @throws FieldError */
export function keepView(
	world: World,
	list: ListName,
	typed: string,
	address: string,
	shared = false
): void {
	const { name } = parseForm(form, { name: typed });
	const personId = me();
	writeAtOnce(world.db, (tx) => {
		const own = and(eq(listViews.list, list), eq(listViews.personId, personId));
		const { n } = tx.select({ n: count() }).from(listViews).where(own).get()!;
		const same = tx
			.update(listViews)
			.set({ address, shared })
			.where(and(own, eq(listViews.name, name)))
			.run();
		if (same.changes) return;
		if (n >= MOST)
			throw new FieldError({ name: `At most ${MOST} views: take one away that nobody uses.` });
		tx.insert(listViews)
			.values({ list, name, address, personId, shared, createdAt: world.clock.now() })
			.run();
	});
}

/** Takes one's own view away; the owner, any that is shared. @returns by what it is brought back; null where it was not there */
export function removeView(world: World, list: ListName, id: number): number | null {
	return writeAtOnce(world.db, (tx) => {
		const row = tx
			.delete(listViews)
			.where(
				and(
					eq(listViews.list, list),
					eq(listViews.id, id),
					may('owner')
						? or(eq(listViews.personId, me()), eq(listViews.shared, true))
						: eq(listViews.personId, me())
				)
			)
			.returning()
			.get();
		return row ? toBin(tx, world, 'listView', row) : null;
	});
}
