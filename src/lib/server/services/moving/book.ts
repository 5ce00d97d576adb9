// What was carried over from other books, file by file, and what is left of it.
import { desc, eq, sql } from 'drizzle-orm';
import { readFields, TableError, type Column, type Fields } from '../../../core/formats/table';
import { FieldError } from '../../../core/refusals';
import type { Reader, Transaction } from '../../db/connection';
import { movedRows, movings, type MOVED_THINGS, type MovingKind } from '../../db/schema';
import type { World } from '../../world';

/** What a row of a file brings, or why nothing. */
export interface MovedRow {
	line: number;
	name: string;
	outcome: 'new' | 'same' | 'wrong';
	detail: string;
}

export interface Looked {
	rows: MovedRow[];
	/** What is worth knowing of the file as a whole. */
	notes: string[];
}

export interface MovingForm {
	/** Names the press of the button. */
	key: string;
	/** The file's name. */
	name: string;
	/** Whoever is no customer yet becomes one. */
	addCustomers: boolean;
}

/** @throws FieldError at `file` where it cannot be read by its headings */
export function fieldsOf<Field extends string>(
	bytes: Uint8Array,
	columns: readonly Column<Field>[]
): Fields<Field> {
	try {
		return readFields(bytes, columns);
	} catch (error) {
		if (error instanceof TableError) throw new FieldError({ file: error.message });
		throw error;
	}
}

export const unreadNote = (unread: readonly string[]): string[] =>
	unread.length === 0
		? []
		: [`Nothing is read from: ${unread.map((heading) => `“${heading.slice(0, 40)}”`).join(', ')}.`];

/** The file of this press; null where it was brought in before. */
export function beginMoving(
	tx: Transaction,
	world: World,
	kind: MovingKind,
	{ key, name }: MovingForm
): number | null {
	const same = tx.select({ id: movings.id }).from(movings).where(eq(movings.key, key)).get();
	if (same) return null;
	return tx
		.insert(movings)
		.values({ key, kind, name: name.slice(0, 200), createdAt: world.clock.now() })
		.returning({ id: movings.id })
		.get().id;
}

export function noteMoved(
	tx: Transaction,
	movingId: number,
	what: (typeof MOVED_THINGS)[number],
	rowId: number
): void {
	tx.insert(movedRows).values({ movingId, what, rowId }).onConflictDoNothing().run();
}

/** The files that were brought in and are here still, the newest first. */
export function movingsPage({ db }: { db: Reader }) {
	return db
		.select({
			id: movings.id,
			kind: movings.kind,
			name: movings.name,
			createdAt: movings.createdAt,
			left: sql<number>`sum(${movedRows.what} <> 'job')`
		})
		.from(movings)
		.innerJoin(movedRows, eq(movedRows.movingId, movings.id))
		.groupBy(movings.id)
		.having(sql`sum(${movedRows.what} <> 'job') > 0`)
		.orderBy(desc(movings.id))
		.all();
}
