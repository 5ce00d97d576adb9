// The page of what is owed: every payer with open invoices, filtered, in the order of a call's worth.
import { BOOKS, type Currency } from '../../../core/money/currencies';
import type { Minor } from '../../../core/money/types';
import { eq, inArray, sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import {
	byWorth,
	habitOf,
	isHeld,
	likelyDay,
	markCap,
	summarise,
	sumsByAge,
	type Habit,
	type OwedItem,
	type OwedPayer
} from '../../../core/settlement/owed';
import { customers, documents } from '../../db/schema';
import type { World } from '../../world';
import { callsOf } from './holds';
import { paymentsOfPayer } from '../money/payerPayments';
import { inHandOf } from '../ledger/inHand';
import { currenciesOf, mayDeduct, openOf } from '../ledger/openInvoices';
import { mailAddresses } from '../customers/parts';
import { NotFoundError } from '../../../core/refusals';
import { lateCharges } from './lateCharges';
import { missingRate } from './referenceRates';
import { leftToDeduct } from '../ledger/position';

export interface OwedFilter {
	/** Only what is late. */
	late: boolean;
	/** Payers that owe more than this. */
	above: Minor;
	label: string;
	hold: '' | 'dispute' | 'promise';
	typed: string;
	page: number;
}

export const PAYERS_PER_PAGE = 50;

export interface OpenRow extends OwedItem {
	payerId: number;
	payer: string;
	labels: string;
	customerId: number;
	total: Minor;
}

export interface OwedRow extends OwedPayer {
	payer: string;
	habit: Habit | null;
	/** What the Act lets claim today, interest and fixed sums together. */
	claim: Minor;
}

/** Open invoices with what is known of each, of one payer or of all; one query. */
function openRows(world: World, payerId?: number): OpenRow[] {
	return world.db
		.all<{
			documentId: number;
			number: string;
			dueDate: string;
			toPay: number;
			pence: number;
			currency: Currency;
			total: number;
			payerId: number;
			customerId: number;
			payer: string;
			labels: string;
			hold: 'dispute' | 'promise' | null;
			until: string | null;
		}>(
			sql`select o.document_id as documentId, d.number, o.due_date as dueDate, o.to_pay as toPay, o.to_pay_sterling as pence,
				o.currency, o.total_sterling as total, o.payer_id as payerId, o.customer_id as customerId, c.name as payer, c.labels, h.kind as hold, h.until
			from open_items o join documents d on d.id = o.document_id join customers c on c.id = o.payer_id
			left join holds h on h.document_id = o.document_id and h.ended_at is null
			where o.state in ('open', 'partPaid') ${payerId === undefined ? sql`` : sql`and o.payer_id = ${payerId}`} order by o.due_date, o.document_id`
		)
		.flatMap(({ hold, until, toPay, pence, currency, total, ...row }) =>
			toPay > 0
				? [
						{
							...row,
							total: BigInt(total),
							toPay: BigInt(pence),
							...(currency === BOOKS ? {} : { own: { amount: BigInt(toPay), currency } }),
							hold: hold ? { kind: hold, until } : null
						}
					]
				: []
		);
}

/** Every open invoice with what is still to come for it. */
export const openInvoices = (world: World): OpenRow[] => openRows(world);

/** How payers have paid, out of each one's last 24 settled invoices. */
export function habits(world: World, payerIds: readonly number[]): Map<number, Habit> {
	const found = new Map<number, Habit>();
	for (let start = 0; start < payerIds.length; start += 500) {
		const ids = sql.join(
			payerIds.slice(start, start + 500).map((id) => sql`${id}`),
			sql`, `
		);
		const rows = world.db.all<{ payer: number; days: number }>(sql`
			select payer, days from (
				select payer_id as payer, cast(julianday(settled_on) - julianday(due_date) as integer) as days,
					row_number() over (partition by payer_id order by settled_on desc) as n
				from open_items where payer_id in (${ids}) and state = 'paid' and settled_on is not null)
			where n <= 24`);
		const days = new Map<number, number[]>();
		for (const row of rows) {
			const list = days.get(row.payer) ?? [];
			list.push(row.days);
			days.set(row.payer, list);
		}
		for (const [payer, list] of days) found.set(payer, habitOf(list)!);
	}
	return found;
}

/** Money that is likely to come within this many days is summed up. */
const AHEAD = 14;

/** Everything the page shows. */
export function owedPage(world: World, filter: OwedFilter) {
	const today = world.clock.today();
	const all = openRows(world);
	const words = filter.typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
	const byPayer = new Map<number, OpenRow[]>();
	for (const row of all) {
		const rows = byPayer.get(row.payerId);
		if (rows) rows.push(row);
		else byPayer.set(row.payerId, [row]);
	}
	const known = habits(world, [...byPayer.keys()]);
	const payers = [...byPayer]
		.map(([payerId, rows]) => summarise(payerId, rows, today))
		.filter(({ items, owed, late }) => {
			const first = items[0]!;
			return (
				(!filter.late || late > 0n) &&
				owed > filter.above &&
				(filter.label === '' || (JSON.parse(first.labels) as string[]).includes(filter.label)) &&
				(filter.hold === '' ||
					items.some((item) => item.hold?.kind === filter.hold && isHeld(item, today))) &&
				words.every(
					(word) =>
						first.payer.toLowerCase().includes(word) ||
						items.some((item) => item.number.toLowerCase().includes(word))
				)
			);
		})
		.sort(byWorth);
	const start = (filter.page - 1) * PAYERS_PER_PAGE;
	const shown = payers.slice(start, start + PAYERS_PER_PAGE);
	const claims = lateCharges(
		world.db,
		shown.flatMap(({ items }) => items.map((item) => item.documentId)),
		today
	);
	const until = addDays(today, AHEAD);
	const likely = all.reduce((sum, item) => {
		const day = likelyDay(item, known.get(item.payerId) ?? null, today);
		return day && day <= until ? sum + item.toPay : sum;
	}, 0n);
	return {
		today,
		pages: Math.max(1, Math.ceil(payers.length / PAYERS_PER_PAGE)),
		owed: all.reduce((sum, item) => sum + item.toPay, 0n),
		late: payersLate(all, today),
		invoices: all.length,
		payers: byPayer.size,
		matching: payers.length,
		ages: sumsByAge(all, today),
		likely,
		likelyBy: until,
		labels: [...new Set(all.flatMap((row) => JSON.parse(row.labels) as string[]))].sort(),
		missingRate: missingRate(world),
		cap: markCap(shown.flatMap(({ items }) => items.map((item) => item.toPay))),
		rows: shown.map(({ items, ...row }): OwedRow => ({
			...row,
			payer: items[0]!.payer,
			items: items.map(({ documentId, number, dueDate, toPay, own, hold }) => ({
				documentId,
				number,
				dueDate,
				toPay,
				...(own ? { own } : {}),
				hold
			})),
			habit: known.get(row.payerId) ?? null,
			claim: items.reduce((sum, item) => {
				const claim = claims.get(item.documentId);
				return claim && 'interest' in claim ? sum + claim.interest + claim.compensation : sum;
			}, 0n)
		}))
	};
}

function payersLate(rows: readonly OwedItem[], today: string): Minor {
	return rows.reduce((sum, row) => (row.dueDate < today ? sum + row.toPay : sum), 0n);
}

/** Everything about one payer's money. */
export function payerPage(world: World, payerId: number) {
	const record = world.db.select().from(customers).where(eq(customers.id, payerId)).get();
	if (!record) throw new NotFoundError('This payer');
	const today = world.clock.today();
	const open = currenciesOf(world.db, payerId).flatMap((one) => openOf(world.db, payerId, one));
	const rows = openRows(world, payerId);
	const holdsOf = new Map(rows.map((row) => [row.documentId, row.hold]));
	const claims = lateCharges(
		world.db,
		open.map((item) => item.documentId),
		today
	);
	const names = new Map(
		open.length
			? world.db
					.select({ id: documents.id, customer: documents.customerName })
					.from(documents)
					.where(
						inArray(
							documents.id,
							open.map((item) => item.documentId)
						)
					)
					.all()
					.map((row) => [row.id, row.customer])
			: []
	);
	const deducting = mayDeduct(
		world.db,
		open.map((item) => item.documentId)
	);
	return {
		today,
		payer: {
			id: payerId,
			name: record.name,
			email: mailAddresses(world.db, payerId)[0] ?? '',
			phone: record.phone,
			privateNote: record.privateNote
		},
		summary: (({ items: _items, ...sums }) => sums)(summarise(payerId, rows, today)),
		habit: habits(world, [payerId]).get(payerId) ?? null,
		open: open.map((item) => {
			const claim = claims.get(item.documentId);
			return {
				documentId: item.documentId,
				number: item.number,
				customer: names.get(item.documentId) ?? '',
				issueDate: item.issueDate,
				dueDate: item.dueDate,
				currency: item.currency,
				total: BigInt(item.total),
				toPay: BigInt(item.toPay),
				/** The same in pence, at the document's rate. */
				toPaySterling: BigInt(item.toPaySterling ?? item.toPay),
				outstanding: BigInt(item.outstanding),
				leftToDeduct: BigInt(leftToDeduct(item)),
				deducts: item.deduction !== null || deducting.has(item.documentId),
				hold: holdsOf.get(item.documentId) ?? null,
				claim: claim && 'interest' in claim ? claim.interest + claim.compensation : 0n
			};
		}),
		credit: inHandOf(world.db, payerId),
		payments: paymentsOfPayer(world.db, payerId),
		calls: callsOf(world, payerId)
	};
}
