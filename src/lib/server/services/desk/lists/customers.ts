// Where the list of customers finds its fields.
import { sql } from 'drizzle-orm';
import { CUSTOMERS } from '../../../../core/lists/customers';
import { everyWord, named, type ListSource } from './where';

export const CUSTOMER_LIST: ListSource = {
	spec: CUSTOMERS,
	from: sql`customers c`,
	id: sql`c.id`,
	base: sql`true`,
	fields: {
		name: () => sql`c.name`,
		kind: () => sql`c.kind`,
		email: () => sql`c.email`,
		phone: () => sql`c.phone`,
		address: () => sql`replace(c.address, char(10), ', ')`,
		label: () => sql`(select group_concat(e.value, ', ') from json_each(c.labels) e)`,
		open: () =>
			sql`coalesce((select sum(o.outstanding_sterling) from open_items o where o.payer_id = c.id and o.state in ('open', 'partPaid')), 0)`,
		late: ({ today }) =>
			sql`coalesce((select sum(o.outstanding_sterling) from open_items o where o.payer_id = c.id and o.state in ('open', 'partPaid') and o.due_date < ${today}), 0)`,
		billed: () =>
			sql`coalesce((select sum(case when d.kind = 'creditNote' then -d.net_sterling else d.net_sterling end) from documents d where d.customer_id = c.id and d.state = 'issued'), 0)`,
		last: () =>
			sql`(select max(d.issue_date) from documents d where d.customer_id = c.id and d.state = 'issued' and d.kind = 'invoice')`,
		added: () => sql`c.created_at`,
		archived: () => sql`c.archived_at is not null`
	},
	search: (typed) =>
		everyWord(
			typed,
			sql`c.name || ' ' || c.email || ' ' || c.phone || ' ' || c.address || ' ' || coalesce((select group_concat(t.name || ' ' || t.email, ' ') from contacts t where t.customer_id = c.id), '')`
		),
	href: (id) => `/customers/${id}`,
	names: named('customers', sql`name`)
};
