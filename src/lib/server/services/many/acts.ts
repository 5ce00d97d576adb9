// What each action does with rows, and which rows it does not fit. An action says why in words, and marks each row in the
// transaction in which it happens.
import { eq, inArray, sql } from 'drizzle-orm';
import type { ManyActionId } from '../../../core/lists/actions';
import { RefusedError } from '../../../core/refusals';
import type { Reader, Transaction } from '../../db/connection';
import { documents, openItems } from '../../db/schema';
import type { World } from '../../world';
import { remindAbout, reminderFits } from '../chasing/chosen';
import { mailAddresses } from '../customers/parts';
import { discardInTransaction } from '../invoices/drafts';
import { queueIssued } from '../invoices/send';
import { note } from '../trail/documents';

/** So many payers are written to in one transaction: few enough that nobody waits for it. */
const PAYERS = 10;

export interface Act {
	/** Of these rows those it does not fit, each with the reason. */
	leftOut(world: World, db: Reader, ids: readonly number[]): Map<number, string>;
	/** Does it with rows that fit, in the caller's transaction. `key` names the run. */
	work(
		world: World,
		tx: Transaction,
		ids: readonly number[],
		key: string
	): Map<number, string> | void;
	/** The next rows that wait, where some belong together; else they come by their numbers. */
	next?(db: Reader, runId: number): number[];
}

function documentsOf(db: Reader, ids: readonly number[]) {
	return db
		.select({
			id: documents.id,
			kind: documents.kind,
			state: documents.state,
			customerId: documents.customerId,
			sheet: documents.sheet,
			reached: openItems.reached
		})
		.from(documents)
		.leftJoin(openItems, eq(openItems.documentId, documents.id))
		.where(inArray(documents.id, [...ids]))
		.all();
}

function reasons(
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

const notIssued = (state: string) =>
	state === 'issued' ? null : state === 'draft' ? 'It is a draft.' : 'It was thrown away.';

export const ACTS: Readonly<Record<ManyActionId, Act>> = {
	remind: {
		leftOut: (world, db, ids) => {
			const first = reasons(db, ids, ({ state, kind }) =>
				kind === 'creditNote' && state === 'issued'
					? 'A credit note asks for nothing.'
					: notIssued(state)
			);
			const rest = ids.filter((id) => !first.has(id));
			return new Map([...first, ...reminderFits(world, db, rest)]);
		},
		// All of a payer's together: one message asks for them.
		next: (db, runId) =>
			db
				.all<{ id: number }>(
					sql`select r.row_id as id from many_rows r join open_items o on o.document_id = r.row_id
						where r.run_id = ${runId} and r.state = 'waiting' and o.payer_id in (
							select distinct o2.payer_id from many_rows r2 join open_items o2 on o2.document_id = r2.row_id
							where r2.run_id = ${runId} and r2.state = 'waiting' order by o2.payer_id limit ${PAYERS})`
				)
				.map((row) => row.id),
		work: (world, tx, ids, key) => remindAbout(world, tx, ids, key)
	},
	send: {
		leftOut: (_world, db, ids) =>
			reasons(
				db,
				ids,
				({ state, customerId, sheet }) =>
					notIssued(state) ??
					(sheet.selfBilled
						? 'They wrote it themselves.'
						: mailAddresses(db, customerId!, sheet).length === 0
							? 'There is no e-mail address.'
							: null)
			),
		work: (world, tx, ids, key) => {
			for (const id of ids) queueIssued(tx, world, id, { key: `${key}:${id}`, who: 'you' });
		}
	},
	markSent: {
		leftOut: (_world, db, ids) =>
			reasons(
				db,
				ids,
				({ state, reached }) => notIssued(state) ?? (reached ? 'They have it already.' : null)
			),
		work: (world, tx, ids) => {
			const at = world.clock.now();
			for (const documentId of ids) note(tx, { documentId, at, who: 'you', what: 'handedOver' });
		}
	},
	discard: {
		leftOut: (_world, db, ids) =>
			reasons(db, ids, ({ state }) =>
				state === 'draft'
					? null
					: state === 'issued'
						? 'It is issued: credit it instead.'
						: 'It was thrown away already.'
			),
		work: (world, tx, ids) => {
			const refused = new Map<number, string>();
			for (const id of ids)
				try {
					discardInTransaction(tx, world, id, true);
				} catch (error) {
					if (!(error instanceof RefusedError)) throw error;
					refused.set(id, error.message);
				}
			return refused;
		}
	}
};
