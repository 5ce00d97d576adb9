// Today's panel of money in: the last six months, from the journal.
import { monthEnds } from '../../../core/settlement/history';
import type { World } from '../../world';
import { cameInByMonth, type CameIn } from '../ledger/cameIn';

const MONTHS = 6;

export function moneyInByMonth(world: World): CameIn[] {
	const months = monthEnds(world.clock.today(), MONTHS).map((day) => day.slice(0, 7));
	const came = new Map(cameInByMonth(world.db, `${months[0]}-01`).map((row) => [row.month, row]));
	return months.map((month) => came.get(month) ?? { month, received: 0, withheld: 0 });
}
