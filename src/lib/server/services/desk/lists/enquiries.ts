// Where the list of enquiries finds its fields.
import { sql } from 'drizzle-orm';
import { ENQUIRIES } from '../../../../core/lists/enquiries';
import { everyWord, named, type ListSource } from './where';

export const ENQUIRY_LIST: ListSource = {
	spec: ENQUIRIES,
	from: sql`enquiries e left join work_kinds w on w.id = e.work_kind_id`,
	id: sql`e.id`,
	base: sql`e.id > 0`,
	fields: {
		name: () => sql`e.name`,
		what: () => sql`e.what`,
		place: () => sql`e.place`,
		wanted: () => sql`e.wanted`,
		source: () => sql`e.source`,
		workKind: () => sql`w.name`,
		came: () => sql`e.created_at`,
		moved: () => sql`e.moved_at`,
		way: () => sql`e.came`,
		state: () => sql`e.state`,
		reason: () => sql`e.reason`
	},
	search: (typed) =>
		everyWord(
			typed,
			sql`e.name || ' ' || e.what || ' ' || e.place || ' ' || e.email || ' ' || e.phone`
		),
	href: (id) => `/work/enquiries/${id}`,
	names: named('enquiries', sql`name || ', ' || substr(what, 1, 60)`)
};
