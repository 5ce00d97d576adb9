// What was learned from bank lines that were accepted: under which names payers pay. It can be looked at, and forgotten.
import { must } from '../../../actor';
import { asc, eq, like, or } from 'drizzle-orm';
import { learnedName, squeezed } from '../../../../core/bank/names';
import type { Transaction } from '../../../db/connection';
import { customers, payerNames } from '../../../db/schema';
import type { World } from '../../../world';
import { loadBusiness } from '../../business/settings';

const MOST = 200;

/** The names that are known, of those that fit what is looked for. */
export function learnedNames(world: World, typed: string) {
	const words = `%${squeezed(typed)}%`;
	const rows = world.db
		.select({
			name: payerNames.name,
			payerId: payerNames.payerId,
			payer: customers.name,
			learnedAt: payerNames.learnedAt
		})
		.from(payerNames)
		.innerJoin(customers, eq(customers.id, payerNames.payerId))
		.where(
			typed.trim()
				? or(like(payerNames.name, words), like(customers.name, `%${typed.trim()}%`))
				: undefined
		)
		.orderBy(asc(customers.name), asc(payerNames.name))
		.limit(MOST + 1)
		.all();
	return { rows: rows.slice(0, MOST), more: rows.length > MOST };
}

/** Forgets a name: it proposes nobody any longer. */
export function forgetName(world: World, name: string): void {
	must('money');
	world.db.delete(payerNames).where(eq(payerNames.name, name)).run();
}

/** Remembers under which name a payer pays; never the owner's own, which stands beside every line of some banks. */
export function learnName(
	tx: Transaction,
	line: { text: string; payer: string },
	payerId: number,
	at: number
): void {
	const name = learnedName(line);
	if (name.length < 4) return;
	const { ownerName, tradingName, bankAccountName } = loadBusiness(tx);
	if ([ownerName, tradingName, bankAccountName].some((own) => squeezed(own) === name)) return;
	tx.insert(payerNames)
		.values({ name, payerId, learnedAt: at })
		.onConflictDoUpdate({ target: payerNames.name, set: { payerId, learnedAt: at } })
		.run();
}
