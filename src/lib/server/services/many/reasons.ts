// Why an action does not fit a row, in words.
import { eq, inArray } from 'drizzle-orm';
import type { Reader } from '../../db/connection';
import { documents, openItems, purchases } from '../../db/schema';
import type { ListName } from '../../../core/lists/types';
import { bearers } from './labels';

export function documentsOf(db: Reader, ids: readonly number[]) {
	return db
		.select({
			id: documents.id,
			kind: documents.kind,
			state: documents.state,
			customerId: documents.customerId,
			sheet: documents.sheet,
			version: documents.version,
			reached: openItems.reached,
			toPay: openItems.toPaySterling,
			currency: documents.currency
		})
		.from(documents)
		.leftJoin(openItems, eq(openItems.documentId, documents.id))
		.where(inArray(documents.id, [...ids]))
		.all();
}

export function reasons(
	db: Reader,
	ids: readonly number[],
	why: (row: ReturnType<typeof documentsOf>[number]) => string | null
): Map<number, string> {
	const rows = new Map(documentsOf(db, ids).map((row) => [row.id, row]));
	return new Map(
		ids.flatMap((id): [number, string][] => {
			const row = rows.get(id);
			const because = row ? why(row) : 'It is not there any more.';
			return because === null ? [] : [[id, because]];
		})
	);
}

export const notIssued = (state: string) =>
	state === 'issued' ? null : state === 'draft' ? 'It is a draft.' : 'It was thrown away.';

export function labelReasons(
	db: Reader,
	list: ListName,
	ids: readonly number[],
	label: string | undefined,
	on: boolean
): Map<number, string> {
	const { there, bear } = bearers(db, list, ids, label ?? '');
	return new Map(
		ids.flatMap((id): [number, string][] => {
			if (!there.has(id)) return [[id, 'It is not there any more.']];
			if (label === undefined || bear.has(id) !== on) return [];
			return [[id, on ? 'It has this label already.' : 'It does not have this label.']];
		})
	);
}

export function costReasons(
	db: Reader,
	ids: readonly number[],
	paid: (row: { paidOn: string | null }) => boolean
): Map<number, string> {
	const rows = new Map(
		db
			.select({ id: purchases.id, paidOn: purchases.paidOn, removedAt: purchases.removedAt })
			.from(purchases)
			.where(inArray(purchases.id, [...ids]))
			.all()
			.map((row) => [row.id, row])
	);
	return new Map(
		ids.flatMap((id): [number, string][] => {
			const row = rows.get(id);
			if (!row || row.removedAt !== null) return [[id, 'It is not there any more.']];
			return paid(row) ? [[id, 'It is paid already.']] : [];
		})
	);
}
