// What payers have in hand, against the journal and against their payments.
import { rowsOf, type Check, type DataFile } from './reading';

interface Unused {
	id: number;
	payer: number;
	left: number;
}

/** What is left of each payment that was not undone. */
function unusedPayments(file: DataFile): Unused[] {
	return rowsOf<Unused>(
		file,
		`select p.id, p.payer_id as payer, p.amount
			- coalesce((select sum(a.amount) from allocations a where a.payment_id = p.id), 0)
			- coalesce((select sum(r.amount) from credit_returns r where r.payment_id = p.id), 0) as left
		from payments p where p.payer_id is not null
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id)`
	).filter(({ left }) => left !== 0);
}

export const wrongInHand: Check = (file) => {
	const sums = new Map<number, number>();
	const found: string[] = [];
	for (const { id, payer, left } of unusedPayments(file)) {
		if (left < 0) found.push(`payment ${id} is used beyond its amount by ${-left}`);
		sums.set(payer, (sums.get(payer) ?? 0) + left);
	}
	const booked = rowsOf<{ payer: number; amount: number }>(
		file,
		`select customer_id as payer, -sum(amount) as amount from journal_lines
		where account = 'customerCredit' group by customer_id`
	);
	for (const { payer, amount } of booked) {
		if (amount !== (sums.get(payer) ?? 0))
			found.push(`payer ${payer} has ${sums.get(payer) ?? 0} in hand, the journal says ${amount}`);
		sums.delete(payer);
	}
	for (const [payer, left] of sums)
		found.push(`payer ${payer} has ${left} in hand, the journal knows nothing of it`);
	return found;
};

/** Money recorded as come in stands in the journal, on the account of the way it came. */
export const wrongPayments: Check = (file) =>
	rowsOf<{ id: number; amount: number; booked: number | null }>(
		file,
		`select p.id, p.amount, (select coalesce(sum(l.amount), 0) from journal_entries e join journal_lines l on l.entry_id = e.id
			where e.key = 'payment:' || p.id and (l.account = 'cardFees' or l.account =
				case when p.source = 'opening' then 'opening' when p.way = 'cash' then 'cash'
					when p.way = 'card' then 'cardClearing' else 'bank' end)) as booked
		from payments p`
	)
		.filter(({ amount, booked }) => amount !== booked)
		.map(({ id, amount, booked }) => `payment ${id} is ${amount}, the journal says ${booked}`);

/** What was taken back of what was brought in is gone, and nothing else is missing. */
export const wrongTakenBack: Check = (file) => [
	...rowsOf<{ what: string; id: number }>(
		file,
		`select what, row_id as id from taken_back where case what
			when 'document' then row_id in (select id from documents)
			when 'payment' then row_id in (select id from payments)
			else row_id in (select id from journal_entries) end`
	).map(({ what, id }) => `${what} ${id} was taken back, and is here`),
	...rowsOf<{ id: number; before: number }>(
		file,
		`select id, before from (
			select id, lag(id, 1, 0) over (order by id) as before from (
				select id from journal_entries
				union all select seq + 1 from sqlite_sequence where name = 'journal_entries'
			)
		) x where id - before - 1 <> (
			select count(*) from taken_back b where b.what = 'entry' and b.row_id > before and b.row_id < x.id)`
	).map(({ id, before }) => `journal entries are missing between ${before} and ${id}`)
];
