// What is known of payers and their open invoices, as the core decides about chasing, and what reminders say of them.
import { howPaid, type HowPaid } from '../owed/howPaid';
import { accountWords } from '../../../core/documents/account';
import { BOOKS, type Currency } from '../../../core/money/currencies';
import type { Minor } from '../../../core/money/types';
import { inArray, sql, type SQL } from 'drizzle-orm';
import type { ChaseItem, ChasePayer } from '../../../core/chasing/types';
import type { ChaseFacts, LateRight } from '../../../core/chasing/wording';
import type { PlainDate } from '../../../core/calendar/types';
import { writeRate } from '../../../core/regimes/gb/latePayment';
import type { Reader } from '../../db/connection';
import { chaseWordings, contacts, customers } from '../../db/schema';
import { loadBusiness } from '../business/settings';
import { planPicker } from './plans';
import { chargedFor, lateCharges, type Claim } from '../owed/lateCharges';
import { allLateTerms, type LateTerms } from '../owed/lateTerms';
import { isMobile } from '../../../core/regimes/gb/checks';
import { inOrderOfUse } from '../customers/parts';
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

/** What is known of a number of payers, read once for all of them, to write to each. */
export interface ChaseContext {
	owner: ReturnType<typeof loadBusiness>;
	charges: Map<number, Claim>;
	/** What was charged for it already, by documents of its own. */
	charged: Map<number, Minor>;
	terms: Map<number, LateTerms>;
	reach: Map<number, Reach>;
	/** Where the money for these invoices goes; null where they name different accounts, or no transfer is wanted. */
	accountFor: (documentIds: readonly number[]) => HowPaid['bank'];
	/** Words that were changed for the next message of a step, by payer and step. */
	wordings: Map<string, { subject: string; text: string }>;
}

export const wordingKey = (payerId: number, stepId: string) => `${payerId} ${stepId}`;

/** Reads what messages to these payers are made of, as of a day. */
export function chaseContext(
	db: Reader,
	payers: readonly KnownPayer[],
	day: PlainDate
): ChaseContext {
	const ids = payers.map((payer) => payer.payerId);
	const late = payers
		.flatMap((payer) => payer.items)
		.filter((item) => item.dueDate < day)
		.map((item) => item.documentId);
	return {
		owner: loadBusiness(db),
		accountFor: (documentIds) => howPaid(db, documentIds).bank,
		charges: lateCharges(db, late, day),
		charged: chargedFor(db, late, true),
		terms: allLateTerms(db),
		reach: reachOf(db, ids),
		wordings: new Map(
			db
				.select()
				.from(chaseWordings)
				.where(inArray(chaseWordings.payerId, ids))
				.all()
				.map((row) => [wordingKey(row.payerId, row.stepId), row])
		)
	};
}

/** Where several invoices are paid together; before it is written the page has no address yet. */
export const reminderLink = (origin: string, token: string): string =>
	`${origin}/r/${token || '…'}`;

/** What the words of a message are filled with. `mark` is put on its links. */
export function factsOf(
	origin: string,
	context: ChaseContext,
	payer: KnownPayer,
	documentIds: readonly number[],
	day: PlainDate,
	mark: string
): ChaseFacts {
	const items = payer.items.filter((item) => documentIds.includes(item.documentId));
	const { owner } = context;
	const account = context.accountFor(items.map((item) => item.documentId));
	const bank = account ? `Bank transfer: ${account.accountName}, ${accountWords(account)}` : '';
	return {
		salutation: context.reach.get(payer.payerId)?.salutation ?? '',
		customer: payer.payer,
		household: items.every((item) => item.household),
		today: day,
		invoices: items.map(({ number, dueDate, toPay, own, leftToDeduct, token }) => ({
			number,
			dueDate,
			toPay: own?.amount ?? toPay,
			...(own ? { currency: own.currency } : {}),
			leftToDeduct,
			link: `${origin}/p/${token}${mark ? `?r=${mark}` : ''}`
		})),
		together: items.length > 1 ? reminderLink(origin, mark) : '',
		right: rightOf(context, items, day),
		owner: owner.ownerName,
		business: owner.tradingName,
		phone: owner.phone,
		bank
	};
}

/** What their lateness lets us charge: the contract's own terms, or the Act for businesses. */
function rightOf(
	{ charges, charged, terms }: ChaseContext,
	items: readonly KnownItem[],
	day: PlainDate
): LateRight {
	const found = items.flatMap((item) =>
		item.dueDate < day ? (charges.get(item.documentId) ?? []) : []
	);
	const known = found.flatMap((one) => ('interest' in one ? [one] : []));
	const claim = known.reduce((sum, one) => sum + one.interest + one.compensation, 0n);
	const billed = items.reduce((sum, item) => sum + (charged.get(item.documentId) ?? 0n), 0n);
	const agreed = items.flatMap((item) => terms.get(item.customerId) ?? [])[0];
	if (agreed) return { kind: 'contract', terms: agreed.terms, claim, charged: billed };
	if (items.every((item) => item.household)) return { kind: 'none' };
	const rates = new Set(known.map((one) => (one.rate ? writeRate(one.rate) : '')));
	const whole = found.length > 0 && known.length === found.length;
	return {
		kind: 'act',
		rate: whole && rates.size === 1 ? [...rates][0]! : null,
		claim: whole ? claim : null,
		charged: billed
	};
}

/** Where a payer is reached; empty where it is not. */
export interface Reach {
	mail: string;
	/** A mobile, for texts. */
	mobile: string;
	/** Name and address on a letter. */
	post: string;
	/** How it is greeted; empty: as everybody. */
	salutation: string;
}

function reachOf(db: Reader, payerIds: readonly number[]): Map<number, Reach> {
	const rows = db
		.select()
		.from(customers)
		.where(inArray(customers.id, [...payerIds]))
		.all();
	const ids = [...new Set(rows.flatMap((row) => [row.id, row.billToId ?? row.id]))];
	const people = db.select().from(contacts).where(inArray(contacts.customerId, ids)).all();
	const firms = db
		.select({ id: customers.id, email: customers.email })
		.from(customers)
		.where(inArray(customers.id, ids))
		.all();
	return new Map(
		rows.map((row) => {
			const own = people.filter((person) => person.customerId === row.id);
			const order = row.billToId === null ? [row.id] : [row.billToId, row.id];
			const addresses = inOrderOfUse(order, firms, people);
			const mobile = [row.phone, ...own.map((one) => one.phone)].find(isMobile);
			return [
				row.id,
				{
					mail: addresses[0] ?? '',
					mobile: mobile ?? '',
					post: row.address ? `${row.name}\n${row.address}` : '',
					salutation: row.salutation
				}
			];
		})
	);
}
