// Where the list of costs finds its fields.
import { sql } from 'drizzle-orm';
import { COSTS } from '../../../../core/lists/costs';
import { everyWord, named, type ListSource } from './where';

export const COST_LIST: ListSource = {
	spec: COSTS,
	from: sql`purchases p left join suppliers s on s.id = p.supplier_id left join jobs j on j.id = p.job_id`,
	id: sql`p.id`,
	base: sql`p.removed_at is null`,
	fields: {
		what: () => sql`p.description`,
		date: () => sql`p.date`,
		supplier: () => sql`s.name`,
		number: () => sql`p.number`,
		kind: () => sql`p.kind`,
		category: () => sql`p.category`,
		centre: () => sql`p.centre`,
		job: () => sql`j.number || ', ' || j.title`,
		net: () => sql`p.net`,
		vat: () => sql`p.vat`,
		gross: () => sql`(p.net + p.vat)`,
		reclaim: () => sql`p.reclaim`,
		paid: () => sql`p.paid_on`,
		unpaid: () => sql`p.paid_on is null`,
		receipt: () =>
			sql`exists (select 1 from files f where f.purchase_id = p.id and f.removed_at is null)`,
		charged: () => sql`coalesce((select c.chargeable from job_costs c where c.id = p.cost_id), 0)`
	},
	order: { date: sql`p.date` },
	search: (typed) =>
		everyWord(
			typed,
			sql`p.description || ' ' || coalesce(s.name, '') || ' ' || p.number || ' ' || printf('%.2f', (p.net + p.vat) / 100.0)`
		),
	href: (id) => `/costs/${id}`,
	names: named('purchases', sql`date || ', ' || description`)
};
