// What each action does with rows, and which rows it does not fit. An action says why in words, and marks each row in the
// transaction in which it happens.
import { sql } from 'drizzle-orm';
import type { ManyActionId, ManyOptions } from '../../../core/lists/actions';
import { FieldError, RefusedError } from '../../../core/refusals';
import type { Reader, Transaction } from '../../db/connection';
import { displayDate } from '../../../core/calendar/conversion';
import { formatMoney } from '../../../core/money/decimal';
import type { ListName } from '../../../core/lists/types';
import { archiveCustomer } from '../customers/customers';
import { markPaid, removePurchase } from '../costs/purchases';
import { archivePriceItem } from '../prices/prices';
import { BOOKS } from '../../../core/money/currencies';
import { recordPayment } from '../money/payments';
import { messageAgain, messageOf, notAgain } from '../messages/outbox';
import { setLabel } from './labels';
import type { World } from '../../world';
import { remindAbout, reminderFits } from '../chasing/chosen';
import { mailAddresses } from '../customers/parts';
import { discardInTransaction, saveDraft } from '../invoices/drafts';
import { queueIssued } from '../invoices/send';
import { note } from '../trail/documents';
import { documentsOf, reasons, notIssued, labelReasons, costReasons } from './reasons';

/** So many payers are written to in one transaction: few enough that nobody waits for it. */
const PAYERS = 10;

/** What is being done. */
export interface Doing {
	/** Names the run. */
	key: string;
	list: ListName;
	options: ManyOptions;
}

export interface Act {
	/** Of these rows those it does not fit, each with the reason. What it asks for may not be known yet. */
	leftOut(world: World, db: Reader, ids: readonly number[], run: Doing): Map<number, string>;
	/** Does it with rows that fit, in the caller's transaction. */
	work(
		world: World,
		tx: Transaction,
		ids: readonly number[],
		run: Doing
	): Map<number, string> | void;
	/** The next rows that wait, where some belong together; else they come by their numbers. */
	next?(db: Reader, runId: number): number[];
}

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
		work: (world, tx, ids, { key }) => remindAbout(world, tx, ids, key)
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
		work: (world, tx, ids, { key }) => {
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
		work: (world, tx, ids) => oneByOne(ids, (id) => discardInTransaction(tx, world, id, true))
	},
	pay: {
		leftOut: (_world, db, ids) =>
			reasons(
				db,
				ids,
				({ state, kind, toPay, currency }) =>
					notIssued(state) ??
					(kind === 'creditNote'
						? 'A credit note asks for nothing.'
						: !toPay
							? 'There is nothing left to pay on it.'
							: currency === BOOKS
								? null
								: 'It is in other money: record it at the invoice, with what reached your bank.')
			),
		work: (world, tx, ids, { key, options }) => {
			const open = new Map(documentsOf(tx, ids).map(({ id, toPay }) => [id, toPay ?? 0]));
			return oneByOne(ids, (id) =>
				recordPayment(world, id, {
					key: `${key}:${id}`,
					date: options.day ?? '',
					amount: formatMoney(BigInt(open.get(id) ?? 0)),
					withheld: '',
					way: options.way ?? '',
					reference: '',
					allowOverpaid: false
				})
			);
		}
	},
	moveDue: {
		// What is issued keeps its due day: it is printed on it.
		leftOut: (_world, db, ids) =>
			reasons(db, ids, ({ state }) =>
				state === 'draft'
					? null
					: state === 'issued'
						? 'It is issued, and its due day with it.'
						: 'It was thrown away.'
			),
		work: (world, tx, ids, { options }) => {
			const sheets = new Map(documentsOf(tx, ids).map((row) => [row.id, row]));
			return oneByOne(ids, (id) => {
				const { sheet, version } = sheets.get(id)!;
				saveDraft(world, id, version, { ...sheet, dueDate: displayDate(options.day!) });
			});
		}
	},
	label: {
		leftOut: (_world, db, ids, { list, options }) =>
			labelReasons(db, list, ids, options.label, true),
		work: (_world, tx, ids, { list, options }) => setLabel(tx, list, ids, options.label!, true)
	},
	unlabel: {
		leftOut: (_world, db, ids, { list, options }) =>
			labelReasons(db, list, ids, options.label, false),
		work: (_world, tx, ids, { list, options }) => setLabel(tx, list, ids, options.label!, false)
	},
	archive: {
		leftOut: (_world, db, ids, { list }) => archiveReasons(db, list, ids, true),
		work: (world, _tx, ids, { list }) => oneByOne(ids, (id) => setArchived(world, list, id, true))
	},
	bringBack: {
		leftOut: (_world, db, ids, { list }) => archiveReasons(db, list, ids, false),
		work: (world, _tx, ids, { list }) => oneByOne(ids, (id) => setArchived(world, list, id, false))
	},
	costPaid: {
		leftOut: (_world, db, ids) => costReasons(db, ids, ({ paidOn }) => paidOn !== null),
		work: (world, _tx, ids, { options }) => oneByOne(ids, (id) => markPaid(world, id, options.day!))
	},
	removeCost: {
		leftOut: (_world, db, ids) => costReasons(db, ids, () => false),
		work: (world, _tx, ids) => oneByOne(ids, (id) => removePurchase(world, id, true))
	},
	again: {
		leftOut: (_world, db, ids) =>
			new Map(
				ids.flatMap((id): [number, string][] => {
					const why = notAgain(db, messageOf(id));
					return why === null ? [] : [[id, why]];
				})
			),
		work: (world, _tx, ids) => oneByOne(ids, (id) => messageAgain(world, messageOf(id)))
	}
};

/** One after the other, each for itself: what one is refused for says nothing of the others. */
function oneByOne(ids: readonly number[], work: (id: number) => unknown): Map<number, string> {
	const refused = new Map<number, string>();
	for (const id of ids)
		try {
			work(id);
		} catch (error) {
			if (!(error instanceof RefusedError || error instanceof FieldError)) throw error;
			refused.set(id, error.message);
		}
	return refused;
}

const ARCHIVES: Partial<Record<ListName, string>> = {
	customers: 'customers',
	prices: 'price_items'
};

function archiveReasons(db: Reader, list: ListName, ids: readonly number[], archived: boolean) {
	const rows = new Map(
		db
			.all<{ id: number; archived: number }>(
				sql`select id, archived_at is not null as archived from ${sql.identifier(ARCHIVES[list]!)} where id in (${sql.join(
					ids.map((id) => sql`${id}`),
					sql`, `
				)})`
			)
			.map((row) => [row.id, row.archived === 1])
	);
	return new Map(
		ids.flatMap((id): [number, string][] => {
			const now = rows.get(id);
			if (now === undefined) return [[id, 'It is not there any more.']];
			if (now !== archived) return [];
			return [[id, archived ? 'It is archived already.' : 'It is in use.']];
		})
	);
}

function setArchived(world: World, list: ListName, id: number, archived: boolean): void {
	if (list === 'customers') archiveCustomer(world, id, archived);
	else archivePriceItem(world, id, archived);
}
