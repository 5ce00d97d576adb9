// Where the list of visits finds its fields.
import { sql } from 'drizzle-orm';
import { VISITS } from '../../../../core/lists/visits';
import { everyWord, named, type ListSource } from './where';

/** Something was told of the visit as it stands. */
const TOLD = sql`from told t where t.visit_id = v.id and t.sequence = v.sequence`;

export const VISIT_LIST: ListSource = {
	spec: VISITS,
	from: sql`visits v join jobs j on j.id = v.job_id join customers c on c.id = j.customer_id left join sites s on s.id = j.site_id left join people p on p.id = v.person_id`,
	id: sql`v.id`,
	base: sql`v.id > 0`,
	fields: {
		title: () => sql`j.title`,
		date: () => sql`v.date`,
		from: () => sql`v."from"`,
		to: () => sql`v."to"`,
		person: () => sql`coalesce(p.name, v.person)`,
		customer: () => sql`c.name`,
		place: () => sql`coalesce(s.name, '')`,
		number: () => sql`j.number`,
		done: () => sql`v.done`,
		pencil: () => sql`v.pencil`,
		told: () => sql`exists (select 1 ${TOLD})`,
		confirmed: () => sql`exists (select 1 ${TOLD} and t.answer = 'confirmed')`,
		note: () => sql`v.note`
	},
	search: (typed) =>
		everyWord(
			typed,
			sql`j.title || ' ' || j.number || ' ' || c.name || ' ' || coalesce(s.name, '') || ' ' || v.note || ' ' || coalesce(p.name, v.person)`
		),
	href: (id) => `/work/diary?visit=${id}`,
	names: named('visits', sql`date || ' ' || "from"`)
};
