// Bank statements in: read, kept once, matched, accepted. Nothing is posted before the owner accepts it.
import { and, asc, desc, eq, gt, sql } from 'drizzle-orm';
import { pageOf, type Cursor } from '../../../../core/paging';
import { Proposer } from '../../../../core/bank/proposer';
import { bankImports, bankLines } from '../../../db/schema';
import type { Books } from './bringIn';
import { matchInput, takenBack, toMatch } from './facts';

export const LINES_PER_PAGE = 40;
export type LineState = 'open' | 'accepted' | 'notBusiness' | 'out';

/** Lines as a page, the surest first and then the newest, with fresh proposals for those that are open. */
export function bankPage(books: Books, state: LineState, cursor: Cursor | null = null) {
	const { db } = books;
	const which =
		state === 'out'
			? sql`${bankLines.amount} < 0`
			: and(eq(bankLines.state, state), gt(bankLines.amount, 0))!;
	const back = cursor?.way === 'before';
	const score = sql`${state === 'open' ? sql`coalesce(json_extract(proposal, '$.score'), -1)` : sql`cast(0 as real)`}`;
	const beyond = cursor
		? sql` and (${score}, date, id) ${back ? sql`>` : sql`<`} (select ${score}, date, id from bank_lines where id = ${cursor.id})`
		: sql``;
	const read = db
		.select()
		.from(bankLines)
		.where(sql`${which}${beyond}`)
		.orderBy(...[score, bankLines.date, bankLines.id].map((one) => (back ? asc(one) : desc(one))))
		.limit(LINES_PER_PAGE + 1)
		.all();
	const { rows, before, after } = pageOf(read, LINES_PER_PAGE, cursor, ({ id }) => ({
		key: '',
		id
	}));
	const proposer = state === 'open' ? new Proposer(matchInput(db)) : null;
	const propose = (row: (typeof rows)[number]) => proposer?.propose(toMatch(row)) ?? [];
	const counts = db.get<Record<LineState, number> & { sure: number; sureSum: number }>(sql`
		select coalesce(sum(state = 'open' and amount > 0), 0) as open, coalesce(sum(state = 'accepted'), 0) as accepted,
			coalesce(sum(state = 'notBusiness'), 0) as notBusiness, coalesce(sum(amount < 0), 0) as "out",
			coalesce(sum(state = 'open' and json_extract(proposal, '$.sure')), 0) as sure,
			coalesce(sum(case when state = 'open' and json_extract(proposal, '$.sure') then amount end), 0) as sureSum
		from bank_lines`)!;
	return {
		counts,
		before,
		after,
		lines: rows.map((row) => ({
			id: row.id,
			date: row.date,
			amount: row.amount,
			text: row.text,
			payer: row.payer,
			account: row.account,
			reversal: row.reversal,
			state: row.state,
			proposals: row.state === 'open' && row.amount > 0 ? propose(row) : [],
			takenBack: row.state === 'open' ? takenBack(db, row) : [],
			paymentId: row.paymentId
		})),
		imports: db
			.select({
				id: bankImports.id,
				name: bankImports.name,
				state: bankImports.state,
				added: bankImports.added,
				known: bankImports.known,
				unread: bankImports.unread,
				createdAt: bankImports.createdAt
			})
			.from(bankImports)
			.orderBy(desc(bankImports.id))
			.limit(5)
			.all()
	};
}
