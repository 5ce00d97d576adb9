// Next moves of money: what was paid beyond an invoice.
import { eq, gt } from 'drizzle-orm';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { displayPounds } from '../../../core/money/display';
import { documents, openItems } from '../../db/schema';
import type { World } from '../../world';

export function overpaidMoves(world: World): Move[] {
	const rows = world.db
		.select({
			id: documents.id,
			number: documents.number,
			customer: documents.customerName,
			inHand: openItems.inHand
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(gt(openItems.inHand, 0))
		.limit(MOST_MOVES)
		.all();
	return rows.map((row) => ({
		id: `overpaid:${row.id}`,
		amount: BigInt(row.inHand),
		late: false,
		title: `${row.customer} has paid too much`,
		detail: `${displayPounds(row.inHand)} over on ${row.number}`,
		action: 'See',
		href: `/billing/${row.id}`
	}));
}
