// What the charts of money show, and the documents behind each of their bars. Amounts in pence.
import { sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { daysBetween } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import { monthEnds, openOn, owedOverTime, type DebtChange } from '../../../core/settlement/history';
import { likelyDay } from '../../../core/settlement/owed';
import { AGES, type Age } from '../../../core/settlement/statement';
import type { World } from '../../world';
import { NotFoundError } from '../../../core/refusals';
import { cameInByMonth } from '../ledger/cameIn';
import { habits, openInvoices } from '../owed/owed';

/** Everything that changed what is owed on invoices that stood open at or after a day. */
function debtChanges(world: World, since: PlainDate): DebtChange[] {
	return world.db
		.all<Omit<DebtChange, 'amount'> & { amount: number }>(
			sql`
		select o.document_id as documentId, o.due_date as dueDate, e.date, sum(l.sterling) as amount
		from open_items o join documents d on d.id = o.document_id or d.corrects_id = o.document_id
		join journal_lines l on l.document_id = d.id and l.account = 'receivable'
		join journal_entries e on e.id = l.entry_id
		where o.settled_on is null or o.settled_on >= ${since}
		group by o.document_id, e.date`
		)
		.map((row) => ({ ...row, amount: BigInt(row.amount) }));
}

const WEEKS = 8;
const MOST_PAYERS = 15;

/** The Monday a day's week begins on. */
function mondayOf(day: PlainDate): PlainDate {
	// 5 January 1970 was one.
	return addDays(day, -(((daysBetween('1970-01-05', day) % 7) + 7) % 7));
}

/** What the open invoices are likely to bring, week by week, as their payers usually pay. */
function likelyItems(world: World) {
	const today = world.clock.today();
	const open = openInvoices(world);
	const known = habits(world, [...new Set(open.map((item) => item.payerId))]);
	return open.map((item) => {
		const day = likelyDay(item, known.get(item.payerId) ?? null, today);
		return { ...item, week: day ? mondayOf(day) : null };
	});
}

export function chartsPage(world: World) {
	const today = world.clock.today();
	const ends = monthEnds(today);
	const months = ends.map((day) => day.slice(0, 7));
	const first = `${months[0]}-01`;
	const billed = new Map(
		world.db
			.all<{ month: string; amount: number }>(
				sql`
			select substr(issue_date, 1, 7) as month, sum(case kind when 'invoice' then total_sterling else -total_sterling end) as amount
			from documents where state = 'issued' and issue_date >= ${first} group by 1`
			)
			.map((row) => [row.month, row.amount])
	);
	const came = new Map(cameInByMonth(world.db, first).map((row) => [row.month, row]));
	const payers = world.db.all<{ id: number; name: string }>(sql`
		select o.payer_id as id, c.name from open_items o join customers c on c.id = o.payer_id
		where o.state = 'paid' group by o.payer_id order by sum(o.total_sterling) desc limit ${MOST_PAYERS}`);
	const known = habits(
		world,
		payers.map((payer) => payer.id)
	);
	const likely = likelyItems(world);
	const monday = mondayOf(today);
	const weeks = Array.from({ length: WEEKS }, (_, n) => addDays(monday, n * 7));
	return {
		today,
		ends,
		owed: owedOverTime(debtChanges(world, first), ends),
		months: months.map((month) => ({
			month,
			billed: billed.get(month) ?? 0,
			received: came.get(month)?.received ?? 0,
			withheld: came.get(month)?.withheld ?? 0
		})),
		payers: payers
			.flatMap(({ id, name }) => {
				const habit = known.get(id);
				return habit ? [{ id, name, ...habit }] : [];
			})
			.sort((a, b) => b.median - a.median),
		likely: weeks.map((week) => ({
			week,
			amount: likely.reduce((sum, item) => (item.week === week ? sum + item.toPay : sum), 0n)
		})),
		unsaid: likely.reduce((sum, item) => (item.week === null ? sum + item.toPay : sum), 0n)
	};
}

/** Which bar was opened. */
export type Behind =
	| { of: 'owed'; on: PlainDate; age: Age }
	| { of: 'billed' | 'received' | 'withheld'; month: string }
	| { of: 'payer'; payerId: number }
	| { of: 'likely'; week: PlainDate };

export interface BehindRow {
	documentId: number;
	number: string;
	customer: string;
	date: PlainDate;
	/** Pence, or days for a payer's habit. */
	amount: number;
}

/** The documents behind a bar; their amounts add up to it. @throws NotFoundError */
export function behindBar(world: World, bar: Behind): BehindRow[] {
	const { db } = world;
	if (bar.of === 'owed') {
		if (!AGES.includes(bar.age)) throw new NotFoundError('This bar');
		const then = openOn(debtChanges(world, bar.on), bar.on).filter((one) => one.age === bar.age);
		return named(
			world,
			then.map(({ documentId, open }) => ({ documentId, amount: Number(open) }))
		);
	}
	if (bar.of === 'likely') {
		const items = likelyItems(world).filter((item) => item.week === bar.week);
		return named(
			world,
			items.map(({ documentId, toPay }) => ({ documentId, amount: Number(toPay) }))
		);
	}
	if (bar.of === 'payer')
		return db.all<BehindRow>(sql`
			select o.document_id as documentId, d.number, d.customer_name as customer, o.settled_on as date,
				cast(julianday(o.settled_on) - julianday(o.due_date) as integer) as amount
			from open_items o join documents d on d.id = o.document_id
			where o.payer_id = ${bar.payerId} and o.state = 'paid' and o.settled_on is not null
			order by o.settled_on desc limit 24`);
	const until = `${bar.month}-32`;
	if (bar.of === 'billed')
		return db.all<BehindRow>(sql`
			select id as documentId, number, customer_name as customer, issue_date as date,
				case kind when 'invoice' then total_sterling else -total_sterling end as amount
			from documents where state = 'issued' and issue_date between ${`${bar.month}-01`} and ${until}
			order by issue_date, id`);
	const accounts =
		bar.of === 'withheld'
			? sql`l.account = 'cisWithheld'`
			: sql`l.account in ('bank', 'cash', 'cardClearing', 'cardFees')`;
	// A payment for several invoices, or for none yet, stands under its payer.
	return db.all<BehindRow>(
		sql`
		select coalesce(l.document_id, 0) as documentId, coalesce(d.number, '') as number,
			coalesce(d.customer_name, c.name, '') as customer, e.date, sum(l.sterling) as amount
		from journal_entries e join journal_lines l on l.entry_id = e.id
		left join documents d on d.id = l.document_id left join customers c on c.id = l.customer_id
		where e.date between ${`${bar.month}-01`} and ${until}
			and e.event <> 'payout' and ${accounts}
		group by e.id, l.document_id having sum(l.sterling) <> 0 order by e.date, e.id`
	);
}

function named(world: World, amounts: { documentId: number; amount: number }[]): BehindRow[] {
	const byId = new Map(amounts.map((one) => [one.documentId, one.amount]));
	const rows: BehindRow[] = [];
	const ids = [...byId.keys()];
	for (let start = 0; start < ids.length; start += 500) {
		const some = sql.join(
			ids.slice(start, start + 500).map((id) => sql`${id}`),
			sql`, `
		);
		rows.push(
			...world.db
				.all<Omit<BehindRow, 'amount'>>(
					sql`select o.document_id as documentId, d.number, d.customer_name as customer, o.due_date as date
					from open_items o join documents d on d.id = o.document_id where o.document_id in (${some})`
				)
				.map((row) => ({ ...row, amount: byId.get(row.documentId)! }))
		);
	}
	return rows.sort((a, b) => b.amount - a.amount);
}
