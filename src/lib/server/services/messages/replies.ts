// What comes back by text: answers that reach the owner, STOP that is kept, and numbers that took nothing.
import { must } from '../../actor';
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { homeNumber } from '../../../core/regimes/gb/checks';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { stopWord } from '../../../core/wordings/texts';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { customers, textReplies, texts, textStops } from '../../db/schema';
import type { TextEvent } from '../../gateways/text';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { note } from '../trail/documents';
import { queueMail } from './outbox';
import { gatewayKey, STOPPED } from './stopped';

/** Takes news of the gateway; the same again changes nothing. */
export function receiveTextEvent(world: World, event: TextEvent): void {
	writeAtOnce(world.db, (tx) => {
		if (event.type === 'reply') takeReply(tx, world, event);
		else notDelivered(tx, world, event);
	});
}

function takeReply(
	tx: Transaction,
	world: World,
	{ id, from, text }: Extract<TextEvent, { type: 'reply' }>
): void {
	const number = homeNumber(from);
	const said = text.trim();
	const asked = stopWord(said);
	const at = world.clock.now();
	const about = lastTo(tx, number);
	const row = tx
		.insert(textReplies)
		.values({
			eventId: id,
			from: number,
			text: said,
			at,
			customerId: about?.customerId ?? ownerOf(tx, number),
			textId: about?.id ?? null,
			// Only words are to be read.
			seenAt: asked === null ? null : at
		})
		.onConflictDoNothing()
		.returning({ id: textReplies.id, customerId: textReplies.customerId })
		.get();
	if (!row) return;
	if (asked === 'stop') {
		tx.insert(textStops).values({ number, at }).onConflictDoNothing().run();
		// What has not gone yet does not go any more.
		for (const text of tx.select().from(texts).where(eq(texts.state, 'queued')).all())
			if (homeNumber(text.to) === number)
				tx.update(texts)
					.set({ state: 'failed', lastError: STOPPED })
					.where(eq(texts.id, text.id))
					.run();
	} else if (asked === 'start') tx.delete(textStops).where(eq(textStops.number, number)).run();
	const { email } = loadBusiness(tx);
	if (asked === 'start' || !email) return;
	const who = nameOf(tx, row.customerId) || number;
	queueMail(tx, world, {
		key: `textReply:${row.id}`,
		kind: 'textReply',
		to: email,
		subject: asked === 'stop' ? `${who} wants no more texts` : `${who} answered by text`,
		text:
			asked === 'stop'
				? `${who} (${number}) asked for no more texts: none goes to that number any more.\n\nSee it here: {link}`
				: `${who} (${number}) wrote:\n\n${said.replaceAll('{link}', '(link)')}\n\nRead it here: {link}`,
		link: `${world.origin}/work/replies`
	});
}

function notDelivered(
	tx: Transaction,
	world: World,
	{ key, reason }: Extract<TextEvent, { type: 'undelivered' }>
): void {
	const text = tx
		.select()
		.from(texts)
		.where(eq(texts.key, key.replace(/~\d+$/, '')))
		.get();
	// What has been sent anew since has a key of its own.
	if (!text || text.state !== 'sent' || gatewayKey(text) !== key) return;
	tx.update(texts)
		.set({ state: 'failed', round: text.round + 1, lastError: reason })
		.where(eq(texts.id, text.id))
		.run();
	if (text.documentId)
		note(tx, {
			documentId: text.documentId,
			at: world.clock.now(),
			who: 'axiometer',
			what: 'notDelivered',
			detail: `${text.to}: ${reason}`
		});
}

/** The last text to a number, however it was written, and whom it was for. */
function lastTo(db: Reader, number: string): { id: number; customerId: number | null } | undefined {
	return db.get(sql`
		select t.id, coalesce(j.customer_id, d.customer_id, m.payer_id) as customerId from texts t
			left join told o on o.id = t.told_id left join jobs j on j.id = o.job_id
			left join documents d on d.id = t.document_id left join chase_messages m on m.id = t.chase_message_id
		where replace(replace(t."to", ' ', ''), '+44', '0') = ${number} order by t.id desc limit 1`);
}

/** Whose number it is: a customer's, somebody's there, or of whoever is at one of its sites. */
function ownerOf(db: Reader, number: string): number | null {
	const known = db.all<{ id: number; phone: string }>(sql`
		select id, phone from customers where phone <> '' and archived_at is null
		union all select customer_id, phone from contacts where phone <> ''
		union all select customer_id, contact_phone from sites where contact_phone <> ''`);
	return known.find(({ phone }) => homeNumber(phone) === number)?.id ?? null;
}

const nameOf = (db: Reader, id: number | null): string =>
	id === null
		? ''
		: (db.select({ name: customers.name }).from(customers).where(eq(customers.id, id)).get()
				?.name ?? '');

export interface Reply {
	id: number;
	from: string;
	text: string;
	at: number;
	customerId: number | null;
	customer: string;
	/** What it answers, as it went. */
	about: string;
	jobId: number | null;
	documentId: number | null;
	seen: boolean;
	stopped: boolean;
}

/** The latest answers, unread ones first. */
export function replies(db: Reader): Reply[] {
	return db
		.all<Omit<Reply, 'seen' | 'stopped'> & { seenAt: number | null; stopped: number }>(
			sql`select r.id, r."from", r.text, r.at, r.customer_id as customerId, coalesce(c.name, '') as customer,
				coalesce(t.text, '') as about, o.job_id as jobId, t.document_id as documentId, r.seen_at as seenAt,
				exists (select 1 from text_stops s where s.number = r."from") as stopped
			from text_replies r left join customers c on c.id = r.customer_id left join texts t on t.id = r.text_id
				left join told o on o.id = t.told_id
			order by r.seen_at is not null, r.id desc limit 100`
		)
		.map(({ seenAt, stopped, ...row }) => ({
			...row,
			seen: seenAt !== null,
			stopped: Boolean(stopped)
		}));
}

/** It was read. */
export function readReply(world: World, id: number): void {
	must('work');
	world.db
		.update(textReplies)
		.set({ seenAt: world.clock.now() })
		.where(and(eq(textReplies.id, id), isNull(textReplies.seenAt)))
		.run();
}

/** Answers nobody has read. */
export const replyMoves = ({ db }: World): Move[] =>
	db
		.select({
			id: textReplies.id,
			from: textReplies.from,
			text: textReplies.text,
			name: customers.name
		})
		.from(textReplies)
		.leftJoin(customers, eq(customers.id, textReplies.customerId))
		.where(isNull(textReplies.seenAt))
		.orderBy(desc(textReplies.id))
		.limit(MOST_MOVES)
		.all()
		.map(({ id, from, text, name }) => ({
			id: `reply:${id}`,
			amount: null,
			late: false,
			title: `${name ?? from} answered by text`,
			detail: text.length > 120 ? `${text.slice(0, 119)}…` : text,
			action: 'Read it',
			href: '/work/replies'
		}));
