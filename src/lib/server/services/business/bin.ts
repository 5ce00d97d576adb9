// The way back after something was removed: its row stands here for some hours, for whoever removed it.
import { and, eq, lt, sql } from 'drizzle-orm';
import type { SQLiteTable } from 'drizzle-orm/sqlite-core';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { actor } from '../../actor';
import { writeAtOnce, type Transaction } from '../../db/connection';
import {
	bin,
	BIN_THINGS,
	deductionStatements,
	jobCosts,
	kitParts,
	listViews,
	priceItems,
	pricePictures,
	startingPoints,
	timeEntries,
	visits
} from '../../db/schema';
import type { World } from '../../world';

type Thing = (typeof BIN_THINGS)[number];

const TABLES: Readonly<Record<Exclude<Thing, 'priceEntry'>, SQLiteTable>> = {
	visit: visits,
	time: timeEntries,
	jobCost: jobCosts,
	startingPoint: startingPoints,
	listView: listViews,
	deductionStatement: deductionStatements
};

/** An entry of the price list comes back with its parts, its picture, and the words it is found by. */
export interface KeptEntry extends Record<string, unknown> {
	entry: typeof priceItems.$inferSelect;
	parts: (typeof kitParts.$inferSelect)[];
	/** In base64. */
	picture: { type: string; content: string } | null;
	words: string;
}

function entryBack(tx: Transaction, { entry, parts, picture, words }: KeptEntry): void {
	tx.insert(priceItems).values(entry).run();
	if (parts.length) tx.insert(kitParts).values(parts).run();
	if (picture)
		tx.insert(pricePictures)
			.values({ ...picture, itemId: entry.id, content: Buffer.from(picture.content, 'base64') })
			.run();
	tx.run(sql`insert into price_search (rowid, words) values (${entry.id}, ${words})`);
}

/** Longer than anybody still sees “Undo”. */
const KEPT_MS = 12 * 3_600_000;

const person = (): number => actor()?.id ?? 0;

/** Keeps a row that is about to be removed, in the caller's transaction. @returns by what it is brought back */
export function toBin(
	tx: Transaction,
	world: World,
	what: Thing,
	row: Record<string, unknown>
): number {
	const at = world.clock.now();
	tx.delete(bin)
		.where(lt(bin.at, at - KEPT_MS))
		.run();
	return tx
		.insert(bin)
		.values({ what, row, personId: person(), at })
		.returning({ id: bin.id })
		.get().id;
}

/**
 * Brings back what this person removed. A second press changes nothing.
 * @throws NotFoundError for what somebody else removed, or too long ago; RefusedError where it fits no more
 */
export function bringBack(world: World, id: number): void {
	writeAtOnce(world.db, (tx) => {
		const kept = tx
			.select()
			.from(bin)
			.where(and(eq(bin.id, id), eq(bin.personId, person())))
			.get();
		if (!kept) throw new NotFoundError('What was removed');
		tx.delete(bin).where(eq(bin.id, id)).run();
		try {
			if (kept.what === 'priceEntry') entryBack(tx, kept.row as KeptEntry);
			else tx.insert(TABLES[kept.what]).values(kept.row).run();
		} catch (error) {
			// Its job is gone, or something of its name stands in its place.
			if (error instanceof Error && /constraint/i.test(error.message))
				throw new RefusedError('It fits no more: what it belonged to has changed since.');
			throw error;
		}
	});
}
