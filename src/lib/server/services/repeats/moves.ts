// Next moves of repeats: what goes out by itself soon, what asks, and what failed.
import { displayDate } from '../../../core/calendar/conversion';
import type { Move } from '../../../core/moves';
import type { World } from '../../world';
import { aboutToGo, troubledRepeats } from './page';

/** What goes out by itself soon, what asks, and what failed. */
export function repeatMoves(world: World): Move[] {
	const { asking, failed } = troubledRepeats(world);
	return [
		...asking.map((row) => ({
			id: `repeat-asks:${row.id}`,
			amount: null,
			late: false,
			title: `${row.name}: several invoices were due while Axiometer was off`,
			detail: 'nothing has gone out; say what is to happen',
			action: 'Decide',
			href: `/billing/repeats/${row.id}`
		})),
		...failed.map((row) => ({
			id: `repeat-failed:${row.documentId}`,
			amount: BigInt(row.outstanding),
			late: false,
			title: `${row.customer}: ${row.number ?? 'a repeat’s draft'} needs you`,
			detail: row.note,
			action: 'See',
			href: `/billing/${row.documentId}`
		})),
		...aboutToGo(world).map((row) => ({
			id: `repeat-soon:${row.id}:${row.date}`,
			amount: BigInt(row.total),
			brings: `repeat:${row.id}`,
			late: false,
			title: `${row.name} goes out by itself on ${displayDate(row.date)}`,
			detail: row.action === 'charge' ? 'and is charged to the kept card' : 'issued and sent',
			action: 'See it before',
			href: `/billing/repeats/${row.id}`
		}))
	];
}
