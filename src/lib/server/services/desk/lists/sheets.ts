// Where the list of job sheets finds its fields.
import { sql } from 'drizzle-orm';
import { SHEETS } from '../../../../core/lists/sheets';
import { everyWord, named, type ListSource } from './where';

export const SHEET_LIST: ListSource = {
	spec: SHEETS,
	from: sql`job_sheets h join jobs j on j.id = h.job_id join customers c on c.id = j.customer_id left join signatures g on g.sheet_id = h.id`,
	id: sql`h.id`,
	base: sql`h.id > 0`,
	fields: {
		number: () => sql`j.number || '/' || h.n`,
		title: () => sql`j.title`,
		customer: () => sql`c.name`,
		finished: () => sql`h.finished_on`,
		signed: () => sql`g.id is not null`,
		signedBy: () => sql`g.name`,
		signedAt: () => sql`g.at`,
		sent: () => sql`exists (select 1 from mails m where m.sheet_id = h.id)`
	},
	search: (typed) =>
		everyWord(
			typed,
			sql`j.number || '/' || h.n || ' ' || j.title || ' ' || c.name || ' ' || coalesce(g.name, '')`
		),
	href: (id) => `/work/sheets/${id}`,
	names: named('job_sheets', sql`coalesce(number, 'Job sheet')`)
};
