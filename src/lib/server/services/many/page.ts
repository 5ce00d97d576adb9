// A run over many rows as its page shows it.
import { asc, count, eq, sql } from 'drizzle-orm';
import type { ListName } from '../../../core/lists/types';
import { NotFoundError } from '../../../core/refusals';
import { manyRows } from '../../db/schema';
import type { World } from '../../world';
import { load, type Checked, EXAMPLES } from './runs';

/** A run with how far it is. @throws NotFoundError */
export function manyRun(world: World, id: number) {
	const run = load(world.db, id);
	const counts = new Map(
		world.db
			.select({ state: manyRows.state, n: count() })
			.from(manyRows)
			.where(eq(manyRows.runId, id))
			.groupBy(manyRows.state)
			.all()
			.map((row) => [row.state, row.n])
	);
	const done = counts.get('done') ?? 0;
	const leftOut = counts.get('leftOut') ?? 0;
	const waiting = counts.get('waiting') ?? 0;
	return { ...run, all: done + leftOut + waiting, done, leftOut, waiting };
}

/** Of a run that was begun, why rows were left out, the most first, with some of them. */
export function leftOutOf(world: World, id: number): Checked['leftOut'] {
	return world.db
		.all<{ why: string; count: number; ids: string }>(
			sql`select why, count(*) as count, json_group_array(row_id) as ids from many_rows
				where run_id = ${id} and state = 'leftOut' group by why order by 2 desc`
		)
		.map((row) => ({ ...row, ids: (JSON.parse(row.ids) as number[]).slice(0, EXAMPLES) }));
}

/** The rows that were chosen, for what goes on with them elsewhere. @throws NotFoundError */
export function chosenRows(world: World, id: number, list: ListName): number[] {
	if (load(world.db, id).list !== list) throw new NotFoundError('This choice');
	return world.db
		.select({ rowId: manyRows.rowId })
		.from(manyRows)
		.where(eq(manyRows.runId, id))
		.orderBy(asc(manyRows.rowId))
		.all()
		.map(({ rowId }) => rowId);
}
