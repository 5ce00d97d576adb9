// Where the list of quotes finds its fields.
import { sql } from 'drizzle-orm';
import { QUOTES } from '../../../../core/lists/quotes';
import { everyWord, named, type ListSource } from './where';

export const QUOTE_LIST: ListSource = {
	spec: QUOTES,
	from: sql`quotes q left join work_kinds w on w.id = q.work_kind_id left join jobs j on j.id = q.job_id left join enquiries e on e.id = q.enquiry_id left join acceptances a on a.quote_id = q.id`,
	id: sql`q.id`,
	base: sql`q.state <> 'discarded'`,
	fields: {
		title: () => sql`coalesce(nullif(q.title, ''), 'Quote without a title')`,
		number: () => sql`q.number`,
		customer: () => sql`q.customer_name`,
		state: ({ today }) =>
			sql`case when q.state = 'sent' and q.valid_until < ${today} then 'expired' else q.state end`,
		total: () => sql`q.total`,
		lowest: () => sql`q.lowest`,
		highest: () => sql`q.highest`,
		sent: () => sql`q.sent_at`,
		opened: () => sql`q.opened_at`,
		until: () => sql`q.valid_until`,
		answered: () => sql`q.answered_at`,
		acceptedBy: () => sql`a.name`,
		way: () => sql`a.way`,
		agreed: () => sql`a.agreed_on`,
		question: () =>
			sql`exists (select 1 from quote_questions u where u.quote_id = q.id and u.answered_at is null)`,
		reason: () => sql`q.reason`,
		workKind: () => sql`w.name`,
		source: () => sql`e.source`,
		job: () => sql`j.number`
	},
	search: (typed) =>
		everyWord(
			typed,
			sql`q.title || ' ' || coalesce(q.number, '') || ' ' || q.customer_name || ' ' || printf('%.2f', q.total / 100.0)`
		),
	href: (id) => `/work/quotes/${id}`,
	names: named(
		'quotes',
		sql`coalesce(number, 'Draft') || ', ' || coalesce(nullif(title, ''), customer_name)`
	)
};
