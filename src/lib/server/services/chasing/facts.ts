// What is known of payers and their open invoices, as the core decides about chasing, and what reminders say of them.
import { BOOKS, type Currency } from '../../../core/money/currencies';
import type { Minor } from '../../../core/money/types';
import { sql, type SQL } from 'drizzle-orm';
import type { ChaseItem, ChasePayer } from '../../../core/chasing/types';
import type { Reader } from '../../db/connection';
import { planPicker } from './plans';
import { breathingOf } from '../ledger/breathing';
import { leftToDeduct, stillToPay } from '../ledger/position';

/** An open line of the bank that pays it with at least this score holds an invoice. */
const LIKELY = 60;

interface OpenRow {
	documentId: number;
	number: string;
	token: string;
	dueDate: string;
	outstanding: number;
	deduction: number | null;
	withheld: number;
	currency: Currency;
	pence: number;
	payerId: number;
	customerId: number;
	payer: string;
	labels: string;
	kind: string;
	hold: 'dispute' | 'promise' | null;
	until: string | null;
	sent: number;
}

export interface KnownItem extends ChaseItem {
	number: string;
	token: string;
	customerId: number;
	household: boolean;
	leftToDeduct: Minor;
	/** In its own money, where that is not pounds; `toPay` is what it is worth in them. */
	own?: { amount: Minor; currency: Currency };
}

export interface KnownPayer extends Omit<ChasePayer, 'items'> {
	payer: string;
	planName: string;
	items: KnownItem[];
}

/** Payers with open invoices and how they are chased: all of them, or some. */
export function chasePayers(db: Reader, payerIds?: readonly number[]): KnownPayer[] {
	const among = (column: SQL) =>
		payerIds === undefined
			? sql``
			: sql`and ${column} in (${sql.join(
					payerIds.map((id) => sql`${id}`),
					sql`, `
				)})`;
	const only = among(sql`o.payer_id`);
	const rows = db.all<OpenRow>(sql`
		select o.document_id as documentId, d.number, coalesce((select l.now from links l where l.token = d.token), d.token) as token, o.due_date as dueDate, o.outstanding, o.deduction,
			o.withheld, o.currency, o.to_pay_sterling as pence, o.payer_id as payerId, o.customer_id as customerId, c.name as payer, c.labels, k.kind,
			h.kind as hold, h.until,
			o.reached as sent
		from open_items o join documents d on d.id = o.document_id
		join customers c on c.id = o.payer_id join customers k on k.id = o.customer_id
		left join holds h on h.document_id = o.document_id and h.ended_at is null
		where o.state in ('open', 'partPaid') ${only} order by o.payer_id, o.due_date, o.document_id`);
	if (rows.length === 0) return [];
	const done = stepsDone(db, only);
	const pending = pendingPayments(db);
	const waiting = waitingAtBank(db);
	const whose = among(sql`payer_id`);
	const paid = lastByPayer(
		db,
		sql`select p.payer_id as payer, max(p.recorded_at) as last from payments p where p.payer_id is not null and p.source <> 'opening' ${whose}
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id) group by 1`
	);
	const written = lastByPayer<string>(
		db,
		sql`select payer_id as payer, max(day) as last from chase_messages where state <> 'withdrawn' ${whose} group by 1`
	);
	const pick = planPicker(db);
	const spaces = breathingOf(db, payerIds);
	const payers = new Map<number, KnownPayer>();
	for (const row of rows) {
		let payer = payers.get(row.payerId);
		if (!payer) {
			const { plan, onHold } = pick(row.payerId, JSON.parse(row.labels) as string[]);
			payer = {
				payerId: row.payerId,
				payer: row.payer,
				planName: plan?.name ?? '',
				plan: plan ? { id: plan.id, steps: plan.steps } : null,
				onHold,
				pauses: spaces.get(row.payerId) ?? [],
				lastPaidAt: paid.get(row.payerId) ?? null,
				lastMessageOn: written.get(row.payerId) ?? null,
				items: []
			};
			payers.set(row.payerId, payer);
		}
		const steps = done.get(row.documentId);
		payer.items.push({
			documentId: row.documentId,
			payerId: row.payerId,
			number: row.number,
			token: row.token,
			customerId: row.customerId,
			household: row.kind === 'household',
			dueDate: row.dueDate,
			toPay: row.currency === BOOKS ? BigInt(stillToPay(row)) : BigInt(row.pence),
			...(row.currency === BOOKS
				? {}
				: { own: { amount: BigInt(stillToPay(row)), currency: row.currency } }),
			leftToDeduct: BigInt(leftToDeduct(row)),
			sent: row.sent === 1,
			hold: row.hold ? { kind: row.hold, until: row.until } : null,
			paymentPending: pending.has(row.documentId),
			bankLineWaiting: waiting.has(row.documentId),
			done: new Set(steps?.map((step) => step.id)),
			reached: steps ? Math.max(...steps.map((step) => step.offset)) : null
		});
	}
	return [...payers.values()];
}

function stepsDone(db: Reader, only: SQL): Map<number, { id: string; offset: number }[]> {
	const rows = db.all<{ documentId: number; id: string; offset: number }>(sql`
		select s.document_id as documentId, s.step_id as id, s."offset" from chase_done s
		join open_items o on o.document_id = s.document_id
		where o.state in ('open', 'partPaid') ${only}`);
	const found = new Map<number, { id: string; offset: number }[]>();
	for (const { documentId, ...step } of rows)
		found.set(documentId, [...(found.get(documentId) ?? []), step]);
	return found;
}

/** Invoices a payment by card or from the bank is on its way for. */
function pendingPayments(db: Reader): Set<number> {
	const rows = db.all<{ id: number | null }>(sql`
		select document_id as id from checkouts where state = 'pending' and document_id is not null
		union select json_extract(value, '$.documentId') from checkouts, json_each(checkouts.shares) where state = 'pending'`);
	return new Set(rows.flatMap((row) => (row.id === null ? [] : [row.id])));
}

function waitingAtBank(db: Reader): Set<number> {
	const rows = db.all<{ id: number }>(sql`
		select json_extract(value, '$.documentId') as id from bank_lines, json_each(bank_lines.proposal, '$.shares')
		where state = 'open' and amount > 0 and json_extract(proposal, '$.score') >= ${LIKELY}`);
	return new Set(rows.map((row) => row.id));
}

function lastByPayer<T extends number | string = number>(
	db: Reader,
	query: ReturnType<typeof sql>
): Map<number, T> {
	return new Map(db.all<{ payer: number; last: T }>(query).map((row) => [row.payer, row.last]));
}
