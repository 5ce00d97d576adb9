// Where the list of messages finds its fields: e-mails and texts in one, told apart by whether their number is even (`messageOf`).
import { sql } from 'drizzle-orm';
import { MESSAGES } from '../../../../core/lists/messages';
import { everyWord, type ListSource } from './engine';

const ALL = sql`(
	select m.id * 2 as id, 'mail' as "as", m.kind, m."to", m.subject, m.state, m.created_at, m.sent_at, m.document_id,
		m.chase_message_id, coalesce(nullif(m.missed, ''), m.last_error) as trouble from mails m
	union all
	select t.id * 2 + 1, 'text', case when t.chase_message_id is null then 'invoice' else 'reminder' end, t."to", t.text, t.state,
		t.created_at, t.sent_at, t.document_id, t.chase_message_id, t.last_error from texts t)`;

export const MESSAGE_LIST: ListSource = {
	spec: MESSAGES,
	from: sql`${ALL} x`,
	id: sql`x.id`,
	base: sql`true`,
	fields: {
		to: () => sql`x."to"`,
		written: () => sql`x.created_at`,
		subject: () => sql`x.subject`,
		as: () => sql`x."as"`,
		kind: () => sql`x.kind`,
		state: () => sql`x.state`,
		went: () => sql`x.sent_at`,
		document: () => sql`(select d.number from documents d where d.id = x.document_id)`,
		trouble: () => sql`x.trouble`
	},
	order: { written: sql`x.created_at` },
	search: (typed) => everyWord(typed, sql`x."to" || ' ' || x.subject`),
	href: (_id, more) =>
		more.documentId
			? `/billing/${more.documentId}`
			: more.chased
				? '/owed/chasing'
				: '/owed/statements',
	names: (world, ids) =>
		new Map(
			world.db
				.all<{ id: number; name: string }>(
					sql`select x.id, x."to" || ': ' || substr(x.subject, 1, 60) as name from ${ALL} x where x.id in (${sql.join(
						ids.map((id) => sql`${id}`),
						sql`, `
					)})`
				)
				.map(({ id, name }) => [id, name])
		),
	more: {
		documentId: () => sql`x.document_id`,
		chased: () => sql`x.chase_message_id is not null`
	}
};
