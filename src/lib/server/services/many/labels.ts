// Labels put on many rows, or taken off them.
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { ListName } from '../../../core/lists/types';
import { RefusedError } from '../../../core/refusals';
import type { Reader, Transaction } from '../../db/connection';
import { documentLabels, documents } from '../../db/schema';

/** Lists whose rows keep their labels themselves. */
const IN_THE_ROW: Partial<Record<ListName, string>> = { jobs: 'jobs', customers: 'customers' };

function tableOf(list: ListName): string {
	const table = IN_THE_ROW[list];
	if (!table) throw new RefusedError('These have no labels.');
	return table;
}

/** Of these rows those that bear the label already, and those that are there. */
export function bearers(
	db: Reader,
	list: ListName,
	ids: readonly number[],
	label: string
): { there: Set<number>; bear: Set<number> } {
	const all = [...ids];
	if (list === 'invoices') {
		const there = db
			.select({ id: documents.id })
			.from(documents)
			.where(and(inArray(documents.id, all), sql`${documents.state} <> 'discarded'`))
			.all();
		const bear = db
			.select({ id: documentLabels.documentId })
			.from(documentLabels)
			.where(and(inArray(documentLabels.documentId, all), eq(documentLabels.label, label)))
			.all();
		return { there: new Set(there.map(({ id }) => id)), bear: new Set(bear.map(({ id }) => id)) };
	}
	const rows = db.all<{ id: number; bears: number }>(
		sql`select id, exists (select 1 from json_each(labels) e where e.value = ${label}) as bears
			from ${sql.identifier(tableOf(list))} where id in (${sql.join(
				all.map((id) => sql`${id}`),
				sql`, `
			)})`
	);
	return {
		there: new Set(rows.map(({ id }) => id)),
		bear: new Set(rows.filter(({ bears }) => bears).map(({ id }) => id))
	};
}

/** Puts a label on rows, or takes it off them. */
export function setLabel(
	tx: Transaction,
	list: ListName,
	ids: readonly number[],
	label: string,
	on: boolean
): void {
	if (ids.length === 0) return;
	if (list === 'invoices') {
		if (on)
			tx.insert(documentLabels)
				.values(ids.map((documentId) => ({ documentId, label })))
				.onConflictDoNothing()
				.run();
		else
			tx.delete(documentLabels)
				.where(and(inArray(documentLabels.documentId, [...ids]), eq(documentLabels.label, label)))
				.run();
		return;
	}
	const change = on
		? sql`json_insert(labels, '$[#]', ${label})`
		: sql`(select json_group_array(e.value) from json_each(labels) e where e.value <> ${label})`;
	tx.run(
		sql`update ${sql.identifier(tableOf(list))} set labels = ${change}, version = version + 1 where id in (${sql.join(
			ids.map((id) => sql`${id}`),
			sql`, `
		)})`
	);
}
