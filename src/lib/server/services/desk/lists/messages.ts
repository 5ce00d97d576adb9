// Where the list of messages finds its fields: e-mails and texts in one, told apart by whether their number is even (`messageOf`).
import { sql } from 'drizzle-orm';
import { MESSAGES } from '../../../../core/lists/messages';
import { type Cell, everyWord, type ListSource } from './where';

const ALL = sql`(
	select m.id * 2 as id, 'mail' as "as", m.kind, m."to", m.subject, m.state, m.created_at, m.sent_at, m.document_id,
		m.chase_message_id, coalesce(nullif(m.missed, ''), m.last_error) as trouble, m.statement_id, m.quote_id, m.told_id,
		m.sheet_id from mails m
	union all
	select t.id * 2 + 1, 'text', case when t.told_id is not null then 'visit' when t.chase_message_id is not null then 'reminder'
		else 'invoice' end, t."to", t.text, t.state, t.created_at, t.sent_at, t.document_id, t.chase_message_id, t.last_error,
		null, null, t.told_id, null from texts t)`;

/** Where it is asked about what a message without a page of its own says. */
const BY_KIND: Readonly<Record<string, string>> = {
	receipt: '/lists/payments',
	paidNotice: '/lists/payments',
	quoteNews: '/lists/quotes',
	enquiry: '/lists/enquiries',
	enquiryNews: '/lists/enquiries',
	signed: '/lists/sheets',
	textReply: '/work/replies'
};

/** The page of what a message is about. */
function aboutPage(more: Record<string, Cell>): string {
	const { documentId, quoteId, jobId, sheetId } = more;
	if (documentId) return `/billing/${documentId}`;
	if (more.chased) return '/owed/chasing';
	if (more.statementId) return '/owed/statements';
	if (quoteId) return `/work/quotes/${quoteId}`;
	if (jobId) return `/work/${jobId}`;
	if (sheetId) return `/work/sheets/${sheetId}`;
	return BY_KIND[String(more.kind)] ?? '/lists/messages';
}

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
	href: (_id, more) => aboutPage(more),
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
		chased: () => sql`x.chase_message_id is not null`,
		kind: () => sql`x.kind`,
		statementId: () => sql`x.statement_id`,
		quoteId: () => sql`x.quote_id`,
		jobId: () => sql`(select t.job_id from told t where t.id = x.told_id)`,
		sheetId: () => sql`x.sheet_id`
	}
};
