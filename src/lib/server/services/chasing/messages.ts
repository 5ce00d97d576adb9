// Reminders as they were written: whether one still stands, taking one back, what became of it, and its letter.
import { enclosuresOf } from '../../../core/chasing/claim';
import { runsOn } from '../../../core/regimes/gb/breathingSpace';
import { must } from '../../actor';
import { and, asc, desc, eq, gt, lt, sql } from 'drizzle-orm';
import type { Cursor } from '../../../core/paging';
import { londonTime } from '../../../core/calendar/conversion';
import { mayGoOut } from '../../../core/chasing/decide';
import type { Channel, Tone } from '../../../core/chasing/types';
import { writeAtOnce, type Reader } from '../../db/connection';
import { chaseDone, chaseMessages, customers, mails, texts } from '../../db/schema';
import type { World } from '../../world';
import { isToken } from '../business/keys';
import { paperOf } from '../letterheads/dress';
import { loadBusiness } from '../business/settings';
import { chasePayers } from './facts';
import { reminderLink } from './context';
import { loadChaseSettings } from './settings';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { linkOf } from '../messages/outbox';
import { note } from '../trail/documents';

/** Minutes after midnight by the clock on a wall in London. */
export function minutesNow(world: World): number {
	const [hours, minutes] = londonTime(world.clock.now()).split(':').map(Number);
	return hours! * 60 + minutes!;
}

export function itemsOf(world: World, messageId: number): number[] {
	const row = world.db
		.select({ items: chaseMessages.items })
		.from(chaseMessages)
		.where(eq(chaseMessages.id, messageId))
		.get();
	return row?.items.map((item) => item.documentId) ?? [];
}

/**
 * Whether a message that was not handed over yet may still go: nothing it asks for was paid, disputed, promised or is on
 * its way; and, where nobody pressed a button for it, it is still its day and hour. What no longer stands is written anew.
 */
export function stillStands(world: World, messageId: number): boolean {
	const { db } = world;
	const message = db.select().from(chaseMessages).where(eq(chaseMessages.id, messageId)).get();
	if (!message || message.state === 'withdrawn') return false;
	const payer = chasePayers(db, [message.payerId])[0];
	const today = world.clock.today();
	if (payer && runsOn(payer.pauses ?? [], today)) return false;
	const same = message.items.every(({ documentId, toPay }) => {
		const item = payer?.items.find((one) => one.documentId === documentId);
		if (!item || item.toPay !== BigInt(toPay) || item.paymentPending || item.bankLineWaiting)
			return false;
		return item.hold === null || (item.hold.kind === 'promise' && (item.hold.until ?? '') < today);
	});
	if (!same || message.who === 'you') return same;
	const settings = loadChaseSettings(db);
	return (
		settings.on &&
		!payer!.onHold &&
		message.day === today &&
		mayGoOut(today, minutesNow(world), settings)
	);
}

/** Takes back what has not gone: its steps are open again, and it is decided anew what is due. */
export function withdraw(world: World, messageId: number): void {
	writeAtOnce(world.db, (tx) => {
		const message = tx.select().from(chaseMessages).where(eq(chaseMessages.id, messageId)).get();
		if (!message) return;
		const queued = { state: 'withdrawn' as const };
		tx.update(mails)
			.set(queued)
			.where(and(eq(mails.chaseMessageId, messageId), eq(mails.state, 'queued')))
			.run();
		tx.update(texts)
			.set(queued)
			.where(and(eq(texts.chaseMessageId, messageId), eq(texts.state, 'queued')))
			.run();
		if (message.state === 'withdrawn') return;
		tx.update(chaseMessages)
			.set({ state: 'withdrawn' })
			.where(eq(chaseMessages.id, messageId))
			.run();
		tx.delete(chaseDone).where(eq(chaseDone.messageId, messageId)).run();
		const at = world.clock.now();
		for (const { documentId } of message.items)
			note(tx, { documentId, at, who: 'axiometer', what: 'reminderWithdrawn', detail: message.to });
	});
}

/** The payer came through a link of it. An unknown mark is no fault: links get cut and pasted. */
export function noteReminderOpened(world: World, token: string): void {
	if (!isToken(token)) return;
	const row = world.db.select().from(chaseMessages).where(eq(chaseMessages.token, token)).get();
	if (!row || row.openedAt !== null) return;
	const at = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		tx.update(chaseMessages).set({ openedAt: at }).where(eq(chaseMessages.id, row.id)).run();
		for (const { documentId } of row.items)
			note(tx, { documentId, at, who: 'customer', what: 'reminderOpened' });
	});
}

export interface SentReminder {
	id: number;
	payerId: number;
	payer: string;
	day: string;
	tone: Tone;
	channel: Channel;
	who: 'you' | 'axiometer';
	to: string;
	subject: string;
	text: string;
	amount: number;
	createdAt: number;
	openedAt: number | null;
	/** What became of it. */
	state: 'onItsWay' | 'sent' | 'failed' | 'unsure' | 'toPost' | 'posted' | 'withdrawn';
	error: string;
	mailId: number | null;
}

/** Reminders written, the newest first: to everybody, or to one payer. */
export function sentReminders(
	db: Reader,
	{
		payerId,
		id,
		limit = 40,
		cursor = null
	}: { payerId?: number; id?: number; limit?: number; cursor?: Cursor | null }
): SentReminder[] {
	const back = cursor?.way === 'before';
	return db
		.select({
			message: chaseMessages,
			payer: customers.name,
			mail: { id: mails.id, state: mails.state, error: mails.lastError },
			text: { state: texts.state, error: texts.lastError }
		})
		.from(chaseMessages)
		.innerJoin(customers, eq(customers.id, chaseMessages.payerId))
		.leftJoin(mails, eq(mails.chaseMessageId, chaseMessages.id))
		.leftJoin(texts, eq(texts.chaseMessageId, chaseMessages.id))
		.where(
			and(
				payerId === undefined ? sql`1` : eq(chaseMessages.payerId, payerId),
				id === undefined ? sql`1` : eq(chaseMessages.id, id),
				!cursor ? sql`1` : back ? gt(chaseMessages.id, cursor.id) : lt(chaseMessages.id, cursor.id)
			)
		)
		.orderBy(back ? asc(chaseMessages.id) : desc(chaseMessages.id))
		.limit(limit)
		.all()
		.map(({ message, payer, mail, text }): SentReminder => {
			const carrier = mail?.state ?? text?.state;
			const state =
				message.state !== 'out'
					? message.state
					: carrier === 'sent' || carrier === 'failed' || carrier === 'unsure'
						? carrier
						: 'onItsWay';
			const { id: messageId, payerId: to, ...rest } = message;
			return {
				id: messageId,
				payerId: to,
				payer,
				day: rest.day,
				tone: rest.tone,
				channel: rest.channel,
				who: rest.who,
				to: rest.to,
				subject: rest.subject,
				text: rest.text,
				amount: rest.amount,
				createdAt: rest.createdAt,
				openedAt: rest.openedAt,
				state,
				error: mail?.error ?? text?.error ?? '',
				mailId: mail?.id ?? null
			};
		});
}

/** Where a reminder leads: to its one invoice, or to the page on which several are paid together. */
export function linkOfReminder(
	db: Reader,
	world: World,
	{ items, token }: { items: readonly { documentId: number }[]; token: string }
): string {
	return items.length > 1
		? reminderLink(world.origin, token)
		: `${linkOf(db, world, items[0]!.documentId)}?r=${token}`;
}

/** The letter as a PDF, drawn the first time it is asked for and kept as it is. @throws NotFoundError */
export async function letterFile(world: World, messageId: number): Promise<Buffer> {
	const row = world.db.select().from(chaseMessages).where(eq(chaseMessages.id, messageId)).get();
	if (row?.channel !== 'letter') throw new NotFoundError('This letter');
	if (row.pdf) return row.pdf;
	const owner = loadBusiness(world.db);
	const [name = '', ...address] = (owner.tradingName || owner.ownerName)
		.split('\n')
		.concat(
			...(owner.tradingName ? [owner.ownerName] : []),
			owner.address.split('\n'),
			owner.email,
			owner.phone
		);
	const first = row.items[0];
	const pdf = await world.press.letter({
		seller: { name, lines: address.filter(Boolean) },
		to: row.to.split('\n'),
		day: row.day,
		subject: row.subject,
		text: row.text,
		payUrl: first && row.claim === null ? linkOfReminder(world.db, world, row) : null,
		madeAt: row.createdAt,
		...(row.claim
			? {
					enclosures: enclosuresOf({
						debtor: row.claim,
						customer: row.to.split('\n')[0]!,
						today: row.day,
						owner: owner.ownerName,
						business: owner.tradingName,
						address: owner.address.split('\n'),
						sum: BigInt(row.amount)
					})
				}
			: {}),
		...paperOf(world.db, row.payerId)
	});
	world.db.update(chaseMessages).set({ pdf }).where(eq(chaseMessages.id, messageId)).run();
	return pdf;
}

/** The owner put the letter into the post. @throws NotFoundError, RefusedError */
export function markPosted(world: World, messageId: number): void {
	must('bill');
	writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(chaseMessages).where(eq(chaseMessages.id, messageId)).get();
		if (!row) throw new NotFoundError('This letter');
		if (row.state === 'posted') return;
		if (row.state !== 'toPost') throw new RefusedError('This letter is not to be posted.');
		tx.update(chaseMessages).set({ state: 'posted' }).where(eq(chaseMessages.id, messageId)).run();
		for (const { documentId } of row.items)
			note(tx, {
				documentId,
				at: world.clock.now(),
				who: 'you',
				what: 'letterPosted',
				detail: row.to.split('\n')[0]!
			});
	});
}
