// Next moves of messages: documents that did not reach anybody.
import { desc, eq, inArray } from 'drizzle-orm';
import { MOST_MOVES, notReached, type Move } from '../../../core/moves';
import { documents, mails } from '../../db/schema';
import type { World } from '../../world';

export function documentsNotReached(world: World): Move[] {
	const rows = world.db
		.select({
			id: mails.id,
			documentId: mails.documentId,
			to: mails.to,
			state: mails.state,
			error: mails.lastError,
			number: documents.number,
			total: documents.total
		})
		.from(mails)
		.innerJoin(documents, eq(documents.id, mails.documentId))
		.where(inArray(mails.state, ['failed', 'unsure']))
		.orderBy(desc(documents.total))
		.limit(MOST_MOVES)
		.all();
	return rows.map((row) => ({
		id: `mail:${row.id}`,
		amount: BigInt(row.total),
		late: false,
		title: notReached(row.state as 'failed' | 'unsure', row.number ?? '', row.to),
		detail: row.error,
		action: 'Look and send again',
		href: `/billing/${row.documentId}`
	}));
}
