// What the pages of repeats show.
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { nextOccurrences, occurrences, type Occurrence } from '../../../core/calendar/recurrence';
import type { PlainDate } from '../../../core/calendar/types';
import { sheetOn } from '../../../core/sheet/occasion';
import { readSheet } from '../../../core/sheet/read';
import type { Database } from '../../db/connection';
import {
	customers,
	documents,
	openItems,
	repeatChanges,
	repeatOccurrences,
	repeats
} from '../../db/schema';
import type { World } from '../../world';
import { turn } from '../../turn';
import { sheetContext } from '../invoices/context';
import { cardOf } from './keptCards';
import { pileOf } from './making';
import { load, laterOf, sheetFor } from './repeats';

/** Everything the page of a repeat shows. */
export async function repeatPage(world: World, id: number) {
	const { db } = world;
	const row = load(db, id);
	const today = world.clock.today();
	const sheet = sheetFor(db, row, today);
	const customer = db.select().from(customers).where(eq(customers.id, row.customerId)).get()!;
	const made = db
		.select({
			nominal: repeatOccurrences.nominal,
			date: repeatOccurrences.date,
			state: repeatOccurrences.state,
			note: repeatOccurrences.note,
			attempts: repeatOccurrences.attempts,
			nextAttemptOn: repeatOccurrences.nextAttemptOn,
			documentId: repeatOccurrences.documentId,
			number: documents.number,
			total: documents.total
		})
		.from(repeatOccurrences)
		.leftJoin(documents, eq(documents.id, repeatOccurrences.documentId))
		.where(eq(repeatOccurrences.repeatId, id))
		.orderBy(desc(repeatOccurrences.date))
		.all();
	const coming: (Occurrence & { skipped: boolean; total: number })[] = [];
	for (const one of occurrencesFrom(row, laterOf(addDays(today, 1), row.madeFrom))) {
		coming.push({
			...one,
			skipped: row.skipped.includes(one.nominal),
			total: totalOn(db, row, one)
		});
		await turn();
	}
	return {
		repeat: row,
		customer: { id: customer.id, name: customer.name, email: customer.email },
		card: cardOf(db, row.customerId),
		changes: db
			.select({ from: repeatChanges.from })
			.from(repeatChanges)
			.where(eq(repeatChanges.repeatId, id))
			.orderBy(asc(repeatChanges.from))
			.all(),
		sheet,
		parties: sheetContext(db, sheet, today),
		made,
		coming,
		pile: row.state === 'asking' ? await pileOf(db, row, today) : null,
		today
	};
}

function occurrencesFrom(row: typeof repeats.$inferSelect, from: PlainDate): Occurrence[] {
	return row.state === 'ended' ? [] : nextOccurrences(row.rule, from, 12);
}

function totalOn(db: Database, row: typeof repeats.$inferSelect, one: Occurrence): number {
	const sheet = sheetOn(sheetFor(db, row, one.nominal), one.date);
	const reading = readSheet(sheet, sheetContext(db, sheet, one.date));
	return Number(reading.figures?.total ?? 0n);
}

/** All repeats: next day, how many were made and for how much, and what failed. */
export function listRepeats(world: World) {
	const rows = world.db
		.select({ repeat: repeats, customer: customers.name })
		.from(repeats)
		.innerJoin(customers, eq(customers.id, repeats.customerId))
		.orderBy(sql`${repeats.state} = 'ended'`, asc(repeats.name))
		.all();
	const sums = new Map(
		world.db
			.select({
				id: repeatOccurrences.repeatId,
				count: sql<number>`count(*)`,
				total: sql<number>`coalesce(sum(${documents.total}), 0)`,
				failed: sql<number>`sum(${repeatOccurrences.state} = 'open' or ${repeatOccurrences.note} <> '')`
			})
			.from(repeatOccurrences)
			.leftJoin(documents, eq(documents.id, repeatOccurrences.documentId))
			.groupBy(repeatOccurrences.repeatId)
			.all()
			.map((row) => [row.id, row])
	);
	const today = world.clock.today();
	return rows.map(({ repeat, customer }) => ({
		id: repeat.id,
		name: repeat.name,
		customer,
		action: repeat.action,
		state: repeat.state,
		next:
			repeat.state === 'active'
				? (occurrencesFrom(repeat, laterOf(addDays(today, 1), repeat.madeFrom)).find(
						(one) => !repeat.skipped.includes(one.nominal)
					)?.date ?? null)
				: null,
		count: sums.get(repeat.id)?.count ?? 0,
		total: sums.get(repeat.id)?.total ?? 0,
		failed: sums.get(repeat.id)?.failed ?? 0
	}));
}

/** How many days before something goes out by itself it is shown among the next moves. */
const FOREWARNED_DAYS = 3;

/** What goes out by itself within days, for the next moves. */
export function aboutToGo(world: World) {
	const today = world.clock.today();
	const rows = world.db
		.select()
		.from(repeats)
		.where(and(eq(repeats.state, 'active'), inArray(repeats.action, ['send', 'charge'])))
		.all();
	return rows.flatMap((row) =>
		[
			...occurrences(
				row.rule,
				laterOf(addDays(today, 1), row.madeFrom),
				addDays(today, FOREWARNED_DAYS)
			)
		]
			.filter((one) => !row.skipped.includes(one.nominal))
			.map((one) => ({
				id: row.id,
				name: row.name,
				date: one.date,
				action: row.action,
				total: totalOn(world.db, row, one)
			}))
	);
}

/** Repeats that need the owner: a pile to decide about, and charges or sendings that failed. */
export function troubledRepeats(world: World) {
	return {
		asking: world.db
			.select({ id: repeats.id, name: repeats.name })
			.from(repeats)
			.where(eq(repeats.state, 'asking'))
			.all(),
		failed: world.db
			.select({
				repeatId: repeatOccurrences.repeatId,
				documentId: repeatOccurrences.documentId,
				note: repeatOccurrences.note,
				number: documents.number,
				customer: documents.customerName,
				outstanding: sql<number>`coalesce(${openItems.outstanding}, ${documents.total})`
			})
			.from(repeatOccurrences)
			.innerJoin(documents, eq(documents.id, repeatOccurrences.documentId))
			.leftJoin(openItems, eq(openItems.documentId, documents.id))
			.where(
				and(
					sql`${repeatOccurrences.note} <> ''`,
					inArray(repeatOccurrences.state, ['open', 'drafted']),
					sql`coalesce(${openItems.state}, 'open') not in ('paid', 'credited')`
				)
			)
			.limit(50)
			.all()
	};
}
