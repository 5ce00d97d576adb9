// Next moves of money: what was paid beyond an invoice, and lines of the bank to look at.
import { eq, gt, sql } from 'drizzle-orm';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { displayMoney } from '../../../core/money/display';
import { counted } from '../../../core/words';
import { documents, openItems } from '../../db/schema';
import type { World } from '../../world';

export function overpaidMoves(world: World): Move[] {
	const rows = world.db
		.select({
			id: documents.id,
			number: documents.number,
			customer: documents.customerName,
			inHand: openItems.inHand,
			currency: openItems.currency
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
		detail: `${displayMoney(row.inHand, row.currency)} over on ${row.number}`,
		action: 'See',
		href: `/billing/${row.id}`
	}));
}

/** Lines of the bank nobody has looked at: what they pay is open until somebody does. */
export function bankMoves(world: World): Move[] {
	const { lines, sum, sure } = world.db.get<{ lines: number; sum: number; sure: number }>(sql`
		select count(*) as lines, coalesce(sum(amount), 0) as sum,
			coalesce(sum(json_extract(proposal, '$.sure')), 0) as sure
		from bank_lines where state = 'open' and amount > 0`)!;
	if (lines === 0) return [];
	return [
		{
			id: 'bank',
			amount: BigInt(sum),
			late: false,
			title: `Look at ${counted(lines, 'line')} from the bank`,
			detail: sure
				? `${sure === lines ? (lines === 1 ? 'it is' : 'all are') : `${sure} of them ${sure === 1 ? 'is' : 'are'}`} sure: one press takes ${sure === 1 ? 'it' : 'them'}`
				: 'none is certain: say what each pays',
			action: 'Look',
			href: '/money'
		}
	];
}
