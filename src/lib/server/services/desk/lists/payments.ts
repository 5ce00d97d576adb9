// Where the list of payments finds its fields.
import { sql } from 'drizzle-orm';
import { PAYMENTS } from '../../../../core/lists/payments';
import { everyWord, named, type ListSource } from './where';

const paidFor = sql`(select group_concat(x.number, ', ') from (
	select d.number from allocations a join documents d on d.id = a.document_id where a.payment_id = p.id order by d.id) x)`;

export const PAYMENT_LIST: ListSource = {
	spec: PAYMENTS,
	from: sql`payments p left join customers c on c.id = p.payer_id`,
	id: sql`p.id`,
	// What was recorded by mistake never came.
	base: sql`not exists (select 1 from payment_reversals v where v.payment_id = p.id)`,
	fields: {
		payer: () => sql`coalesce(c.name, '')`,
		date: () => sql`p.date`,
		amount: () => sql`p.amount_sterling`,
		way: () => sql`p.way`,
		reference: () => sql`p.reference`,
		paid: () => paidFor,
		inHand: () => sql`(p.amount
			- coalesce((select sum(a.amount) from allocations a where a.payment_id = p.id), 0)
			- coalesce((select sum(r.amount) from credit_returns r where r.payment_id = p.id), 0))`,
		fee: () => sql`p.fee`,
		given: () =>
			sql`coalesce((select sum(r.amount) from credit_returns r where r.payment_id = p.id), 0)`,
		recorded: () => sql`p.recorded_at`
	},
	order: { date: sql`p.date` },
	search: (typed) =>
		everyWord(
			typed,
			sql`coalesce(c.name, '') || ' ' || p.reference || ' ' || printf('%.2f', p.amount_sterling / 100.0) || ' ' || coalesce(${paidFor}, '')`
		),
	// Where it paid for something, or else the payer’s account.
	href: (_id, more) =>
		more.document ? `/billing/${more.document}` : more.payerId ? `/owed/${more.payerId}` : '/money',
	names: named('payments', sql`date || ', ' || printf('%.2f', amount_sterling / 100.0)`),
	more: {
		document: () => sql`(select min(a.document_id) from allocations a where a.payment_id = p.id)`,
		payerId: () => sql`p.payer_id`
	}
};
