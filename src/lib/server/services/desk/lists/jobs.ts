// Where the list of jobs finds its fields.
import { sql } from 'drizzle-orm';
import { JOBS } from '../../../../core/lists/jobs';
import { everyWord, named, type ListSource } from './where';

/** As `jobs/standing` has it. */
const standing = sql`case
	when j.state = 'booked' and not exists (select 1 from visits v where v.job_id = j.id) then 'toBook'
	when j.state = 'billed' and not exists (
		select 1 from document_lines l join open_items o on o.document_id = l.document_id
		where l.job_id = j.id and o.state in ('open', 'partPaid'))
		and not exists (select 1 from retentions r where r.job_id = j.id and r.released_by_id is null) then 'paid'
	else j.state end`;

export const JOB_LIST: ListSource = {
	spec: JOBS,
	from: sql`jobs j join customers c on c.id = j.customer_id left join sites s on s.id = j.site_id left join work_kinds w on w.id = j.work_kind_id`,
	id: sql`j.id`,
	base: sql`true`,
	fields: {
		title: () => sql`j.title`,
		number: () => sql`j.number`,
		customer: () => sql`c.name`,
		site: () => sql`s.name`,
		standing: () => standing,
		workKind: () => sql`w.name`,
		label: () => sql`(select group_concat(e.value, ', ') from json_each(j.labels) e)`,
		begun: () => sql`j.created_at`,
		visit: ({ today }) =>
			sql`(select min(v.date) from visits v where v.job_id = j.id and v.date >= ${today})`,
		finished: () => sql`j.finished_on`,
		billed: () =>
			sql`coalesce((select sum(case when d.kind = 'creditNote' then -l.without_vat else l.without_vat end)
				from document_lines l join documents d on d.id = l.document_id
				where l.job_id = j.id and d.state = 'issued'), 0)`,
		fixed: () => sql`j.fixed_price`
	},
	// Numbers are given one after the other.
	order: { number: sql`j.id` },
	search: (typed) =>
		everyWord(
			typed,
			sql`j.number || ' ' || j.title || ' ' || c.name || ' ' || coalesce(s.name, '') || ' ' || coalesce(s.address, '')`
		),
	href: (id) => `/work/${id}`,
	names: named('jobs', sql`number || ', ' || title`)
};
