// Next moves of what is owed: who is late, and statements of ours that did not arrive.
import { and, desc, eq, gt, inArray, isNull, lt, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { addDays, addMonths } from '../../../core/calendar/manipulation';
import { daysBetween } from '../../../core/calendar/queries';
import { lateMoney, MOST_MOVES, notReached, type Move } from '../../../core/moves';
import { counted } from '../../../core/words';
import { documents, holds, mails, openItems, statements } from '../../db/schema';
import type { World } from '../../world';

interface LatePayer {
	payerId: number;
	payer: string;
	amount: number;
	count: number;
	/** The oldest of them. */
	number: string;
	dueDate: string;
}

/**
 * Late, and neither disputed nor promised: by payer, most money first. Those whose last letter waits are asked about that.
 * One read: SQLite gives the row of the `min` for the columns beside it.
 */
export function latePayerMoves(world: World, deciding: ReadonlySet<number>): Move[] {
	const today = world.clock.today();
	const payers = world.db.all<LatePayer>(sql`
		select x.payer_id as payerId, c.name as payer, x.amount, x.count, d.number, x.due as dueDate from (
			select o.payer_id, sum(o.to_pay_sterling) as amount, count(*) as count, min(o.due_date) as due, o.document_id
			from open_items o indexed by open_items_open
			where o.state in ('open', 'partPaid') and o.due_date < ${today} and o.to_pay > 0
				and o.document_id not in (select document_id from holds
					where ended_at is null and (kind = 'dispute' or until >= ${today}))
				and o.payer_id not in (select customer_id from breathing_spaces where ${today} between "from" and "to")
			group by o.payer_id order by amount desc limit ${MOST_MOVES}
		) x join customers c on c.id = x.payer_id join documents d on d.id = x.document_id order by x.amount desc`);
	const broken = brokenPromises(world, today);
	return payers
		.filter(({ payerId }) => !deciding.has(payerId))
		.map(({ payerId, payer, amount, count, number, dueDate }) => {
			const days = daysBetween(dueDate, today);
			const many = count > 1;
			return {
				id: `late:${payerId}`,
				amount: BigInt(amount),
				brings: lateMoney(payerId),
				late: true,
				title: many
					? `${payer} owes you ${count} late invoices`
					: `${payer} is ${counted(days, 'day')} late`,
				detail:
					broken.get(payerId) ??
					(many
						? `the oldest, ${number}, is ${days} days late`
						: `${number}, due ${displayDate(dueDate)}`),
				action: many ? 'See them' : 'Remind',
				href: many ? `/owed/${payerId}` : `/owed/chasing/${payerId}`
			};
		});
}

/** A debt can be claimed in court for six years (Limitation Act 1980 s.5), from the day it was due. */
const YEARS = 6;
/** So many days ahead it is said. */
const WARNED = 180;

/** Debts that will soon be too old for a court, or are already. */
export function oldDebtMoves(world: World): Move[] {
	const today = world.clock.today();
	const rows = world.db.all<{
		id: number;
		number: string;
		payer: string;
		payerId: number;
		due: string;
		pence: number;
	}>(sql`
		select o.document_id as id, d.number, c.name as payer, o.payer_id as payerId, o.due_date as due, o.to_pay_sterling as pence
		from open_items o indexed by open_items_open join documents d on d.id = o.document_id join customers c on c.id = o.payer_id
		where o.state in ('open', 'partPaid') and o.to_pay > 0
			and o.due_date <= ${addDays(addMonths(today, -12 * YEARS), WARNED)}
		order by o.due_date limit ${MOST_MOVES}`);
	return rows.map(({ id, number, payer, payerId, due, pence }) => {
		const end = addMonths(due, 12 * YEARS);
		const over = end < today;
		return {
			id: `old:${id}`,
			amount: BigInt(pence),
			brings: lateMoney(payerId),
			late: true,
			title: over
				? `${number} of ${payer} is too old for a court`
				: `${number} of ${payer} is soon too old for a court`,
			detail: over
				? `six years since it was due ended on ${displayDate(end)}: write it off, unless they paid or acknowledged it since`
				: `claim it by ${displayDate(end)}, six years after it was due, or have them acknowledge it in writing`,
			action: over ? 'See' : 'Letter of claim',
			href: over ? `/billing/${id}` : `/owed/chasing/claim/${payerId}`
		};
	});
}

/** Payers who promised a day that has passed, in words. */
function brokenPromises(world: World, today: string): Map<number, string> {
	const rows = world.db
		.select({ payerId: openItems.payerId, number: documents.number, until: holds.until })
		.from(holds)
		.innerJoin(openItems, eq(openItems.documentId, holds.documentId))
		.innerJoin(documents, eq(documents.id, holds.documentId))
		.where(
			and(
				isNull(holds.endedAt),
				eq(holds.kind, 'promise'),
				lt(holds.until, today),
				gt(openItems.toPay, 0)
			)
		)
		.all();
	return new Map(
		rows.map((row) => [row.payerId, `${row.number} was promised by ${displayDate(row.until!)}`])
	);
}

/** Statements whose mail did not arrive, or may not have. */
export function statementsNotReached(world: World): Move[] {
	return world.db
		.select({
			id: mails.id,
			runId: statements.runId,
			to: mails.to,
			state: mails.state,
			error: mails.lastError,
			balance: statements.balance
		})
		.from(mails)
		.innerJoin(statements, eq(statements.id, mails.statementId))
		.where(inArray(mails.state, ['failed', 'unsure']))
		.orderBy(desc(statements.balance))
		.limit(MOST_MOVES)
		.all()
		.map((row) => ({
			id: `mail:${row.id}`,
			amount: BigInt(row.balance),
			late: false,
			title: notReached(row.state as 'failed' | 'unsure', 'A statement', row.to),
			detail: row.error,
			action: 'Check it and send again',
			href: `/owed/statements/${row.runId}`
		}));
}
