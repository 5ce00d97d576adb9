// Next moves of invoices: drafts to finish, and what is issued and not sent.
import { and, desc, eq, gt, inArray, or, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { moneyOf, MOST_MOVES, type Move } from '../../../core/moves';
import { documents, openItems } from '../../db/schema';
import type { World } from '../../world';

/** Issued, and nothing says that the customer ever got it. */
export function unsentMoves(world: World): Move[] {
	return world.db
		.select({
			id: documents.id,
			number: documents.number,
			customer: documents.customerName,
			toPay: sql<number>`${openItems.toPaySterling}`,
			issueDate: openItems.issueDate,
			payerId: openItems.payerId,
			dueDate: openItems.dueDate
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(and(eq(openItems.reached, false), inArray(openItems.state, ['open', 'partPaid'])))
		.orderBy(desc(openItems.toPaySterling))
		.limit(MOST_MOVES)
		.all()
		.map((row) => ({
			id: `unsent:${row.id}`,
			amount: BigInt(row.toPay),
			brings: moneyOf({ ...row, documentId: row.id }, world.clock.today()),
			late: false,
			title: `Send ${row.number} to ${row.customer}`,
			detail: `issued ${displayDate(row.issueDate)}, and not sent yet`,
			action: 'Send it',
			href: `/billing/${row.id}?send`
		}));
}

export function draftMoves(world: World): Move[] {
	const rows = world.db
		.select({
			id: documents.id,
			customer: documents.customerName,
			total: documents.totalSterling,
			version: documents.version
		})
		.from(documents)
		.where(and(eq(documents.state, 'draft'), or(gt(documents.version, 1), gt(documents.total, 0))))
		.orderBy(desc(documents.updatedAt))
		.limit(MOST_MOVES)
		.all();
	return rows.map((row) => ({
		id: `draft:${row.id}`,
		amount: BigInt(row.total),
		brings: `draft:${row.id}`,
		late: false,
		title: row.customer
			? `Finish the invoice to ${row.customer}`
			: 'Finish an invoice without a customer',
		detail: 'a draft: nothing has gone out yet',
		action: 'Finish it',
		href: `/billing/${row.id}`
	}));
}
