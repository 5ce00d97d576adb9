// The journal by itself: every entry balances, in its currency and in sterling, and payouts are what they are made of.
import { rowsOf, type Check } from './reading';

export const unbalancedEntries: Check = (file) =>
	rowsOf<{ key: string; amount: number; sterling: number }>(
		file,
		`select e.key, sum(l.amount) as amount, sum(l.sterling) as sterling
		from journal_entries e join journal_lines l on l.entry_id = e.id
		group by e.id having sum(l.amount) <> 0 or sum(l.sterling) <> 0`
	).map(({ key, amount }) => `journal entry ${key} is out of balance by ${amount}`);

export const foreignSterling: Check = (file) =>
	rowsOf<{ key: string }>(
		file,
		`select distinct e.key from journal_entries e join journal_lines l on l.entry_id = e.id
		where l.currency = 'GBP' and l.sterling <> l.amount`
	).map(({ key }) => `journal entry ${key} has another sum in sterling than in pounds`);

/** A payout is what its parts come to, unless the owner said that it came all the same; and the journal holds it. */
export const wrongPayouts: Check = (file) =>
	rowsOf<{ id: string; amount: number; parts: number; booked: number; taken: number }>(
		file,
		`select p.processor_id as id, p.amount,
			(select coalesce(sum(x.amount - x.fee), 0) from payout_parts x where x.payout_id = p.id) as parts,
			(select coalesce(sum(l.amount), 0) from journal_entries e join journal_lines l on l.entry_id = e.id
				where e.key = 'payout:' || p.processor_id and l.account = 'bank') as booked,
			exists (select 1 from odd_news o where o.decision = 'taken'
				and json_extract(o.body, '$.payout') = p.processor_id) as taken
		from payouts p`
	)
		.filter(({ amount, parts, booked, taken }) => (amount !== parts && !taken) || amount !== booked)
		.map(
			({ id, amount, parts, booked }) =>
				`payout ${id} is ${amount}, its parts ${parts}, the journal says ${booked}`
		);
