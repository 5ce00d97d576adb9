// Next moves of messages: documents that did not reach anybody.
import { and, desc, eq, gt, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import { displayMoment } from '../../../core/calendar/conversion';
import { moneyOf, MOST_MOVES, notReached, type Move } from '../../../core/moves';
import { counted } from '../../../core/words';
import { documents, mails, openItems, texts } from '../../db/schema';
import type { World } from '../../world';

export function documentsNotReached(world: World): Move[] {
	const rows = world.db
		.select({
			id: mails.id,
			documentId: mails.documentId,
			kind: mails.kind,
			to: sql<string>`case when ${mails.missed} = '' then ${mails.to} else ${mails.missed} end`,
			state: mails.state,
			error: mails.lastError,
			number: documents.number,
			toPay: sql<number>`${openItems.toPaySterling}`,
			payerId: openItems.payerId,
			dueDate: openItems.dueDate
		})
		.from(mails)
		.innerJoin(documents, eq(documents.id, mails.documentId))
		.leftJoin(openItems, eq(openItems.documentId, documents.id))
		// Who has paid has got it, or does not need it.
		.where(
			and(
				inArray(mails.state, ['failed', 'unsure']),
				or(
					isNull(openItems.documentId),
					gt(openItems.toPay, 0),
					// A receipt is wanted by who has paid.
					eq(mails.kind, 'receipt')
				)
			)
		)
		.orderBy(desc(openItems.toPay))
		.limit(MOST_MOVES)
		.all();
	const texted = world.db
		.select({
			id: texts.id,
			documentId: texts.documentId,
			to: texts.to,
			state: texts.state,
			error: texts.lastError,
			number: documents.number,
			toPay: sql<number>`${openItems.toPaySterling}`,
			payerId: openItems.payerId,
			dueDate: openItems.dueDate
		})
		.from(texts)
		.innerJoin(documents, eq(documents.id, texts.documentId))
		.innerJoin(openItems, eq(openItems.documentId, documents.id))
		.where(and(eq(texts.state, 'failed'), gt(openItems.toPay, 0)))
		.limit(MOST_MOVES)
		.all();
	return [
		...rows.map((row) => ({
			...row,
			number: row.kind === 'receipt' ? `The receipt for ${row.number ?? ''}` : row.number,
			key: `mail:${row.id}`
		})),
		...texted.map((row) => ({ ...row, key: `text:${row.id}` }))
	].map((row) => ({
		id: row.key,
		amount: row.toPay === null ? null : BigInt(row.toPay),
		...(row.payerId !== null && row.dueDate !== null && row.documentId !== null
			? {
					brings: moneyOf(
						{ payerId: row.payerId, documentId: row.documentId, dueDate: row.dueDate },
						world.clock.today()
					)
				}
			: {}),
		late: false,
		title: notReached(row.state as 'failed' | 'unsure', row.number ?? '', row.to),
		detail: row.error,
		action: 'Check it and send again',
		href: `/billing/${row.documentId}`
	}));
}

/** What did not reach anybody of visits, quotes and job sheets: a bounce, or a number that is dead. */
export function othersNotReached({ db }: World): Move[] {
	const rows = db.all<{
		id: string;
		to: string;
		state: 'failed' | 'unsure';
		error: string;
		quoteId: number | null;
		number: string | null;
		jobId: number | null;
		title: string | null;
		sheetId: number | null;
	}>(sql`
		select 'mail:' || m.id as id, m."to", m.state, m.last_error as error, m.quote_id as quoteId, q.number, coalesce(t.job_id, s.job_id) as jobId, j.title, m.sheet_id as sheetId
		from mails m left join told t on t.id = m.told_id left join quotes q on q.id = m.quote_id left join job_sheets s on s.id = m.sheet_id left join jobs j on j.id = coalesce(t.job_id, s.job_id)
		where m.state in ('failed', 'unsure') and m.document_id is null and (m.told_id is not null or m.quote_id is not null or m.sheet_id is not null)
		union all
		select 'text:' || x.id, x."to", x.state, x.last_error, null, null, t.job_id, j.title, null
		from texts x join told t on t.id = x.told_id join jobs j on j.id = t.job_id where x.state = 'failed'
		limit ${MOST_MOVES}`);
	return rows.map(({ id, to, state, error, quoteId, number, jobId, title, sheetId }) => ({
		id,
		amount: null,
		late: false,
		title: notReached(
			state,
			quoteId !== null
				? `Your message about ${number ?? 'a quote'}`
				: sheetId !== null
					? `The job sheet of “${title}”`
					: `News of the visit for “${title}”`,
			to
		),
		detail: error,
		action: 'Look at it',
		href:
			quoteId !== null
				? `/work/quotes/${quoteId}`
				: sheetId !== null
					? `/work/sheets/${sheetId}`
					: `/work/${jobId}`
	}));
}

/** After this long it is worth a word that a server does not take anything. */
const WAITED = 60 * 60_000;

/** Messages that wait because nothing outside can be reached: they go by themselves, and the owner should know. */
export function waitingMoves(world: World): Move[] {
	const since = world.clock.now() - WAITED;
	const waiting = (table: typeof mails | typeof texts) =>
		world.db
			.select({
				count: sql<number>`count(*)`,
				first: sql<number>`min(${table.createdAt})`,
				error: sql<string>`max(${table.lastError})`,
				documentId: sql<number | null>`min(${table.documentId})`
			})
			.from(table)
			.where(and(eq(table.state, 'queued'), gt(table.attempts, 0), lt(table.createdAt, since)))
			.get()!;
	return [
		{ ...waiting(mails), id: 'mails-waiting', one: 'mail waits', many: 'mails wait' },
		{ ...waiting(texts), id: 'texts-waiting', one: 'text waits', many: 'texts wait' }
	]
		.filter(({ count }) => count > 0)
		.map(({ id, count, first, error, documentId, one, many }) => ({
			id,
			amount: null,
			late: true,
			title: `${counted(count, one, many)} to go since ${displayMoment(first)}`,
			detail: `${error}. It is tried again by itself.`,
			action: 'See one of them',
			href: documentId === null ? '/billing' : `/billing/${documentId}`
		}));
}
