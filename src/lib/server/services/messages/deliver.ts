// Delivery: what the outbox holds goes out, once each; what was overtaken meanwhile is taken back instead.
import { and, asc, eq, lte } from 'drizzle-orm';
import type { World } from '../../world';
import { writeAtOnce } from '../../db/connection';
import { mails, texts } from '../../db/schema';
import { restingSince } from '../business/resting';
import { loadBusiness } from '../business/settings';
import { attachments } from '../files/files';
import { note } from '../trail/documents';
import { gatewayKey } from './stopped';
import { attachmentOf, type Reminders } from './attachments';

const RETRY_AFTER = [15, 60, 300, 900, 3600].map((seconds) => seconds * 1000);

const waitAfter = (attempts: number): number =>
	RETRY_AFTER[Math.min(attempts, RETRY_AFTER.length - 1)] ?? 0;

const addressesIn = (list: string): string[] =>
	list
		.split(',')
		.map((one) => one.trim())
		.filter(Boolean);

/** Sends what is due, one after the other. */
export async function deliverAll(world: World, reminders: Reminders): Promise<void> {
	if (restingSince(world.db)) return;
	await deliverTexts(world, reminders);
	for (;;) {
		const mail = world.db
			.select()
			.from(mails)
			.where(and(eq(mails.state, 'queued'), lte(mails.nextAttemptAt, world.clock.now())))
			.orderBy(asc(mails.id))
			.get();
		if (!mail) return;
		// A payment that came in since it was written overtakes it.
		if (mail.chaseMessageId !== null && !reminders.stillStands(world, mail.chaseMessageId))
			reminders.withdraw(world, mail.chaseMessageId);
		else await deliverOne(world, mail, reminders);
	}
}

async function deliverOne(
	world: World,
	mail: typeof mails.$inferSelect,
	reminders: Reminders
): Promise<void> {
	// Marked before it goes: after a crash in the middle it is not sent a second time unasked.
	const claimed = world.db
		.update(mails)
		.set({ state: 'sending', attempts: mail.attempts + 1 })
		.where(and(eq(mails.id, mail.id), eq(mails.state, 'queued')))
		.run().changes;
	if (!claimed) return;
	const owner = loadBusiness(world.db);
	const outcome = await world.mail.send({
		messageId: mail.messageId,
		from: {
			name: owner.tradingName || owner.ownerName,
			address: owner.email || 'no-reply@axiometer.example'
		},
		// Whoever has it already gets it no second time.
		...(mail.missed
			? { to: mail.missed, cc: '', bcc: '' }
			: { to: mail.to, cc: mail.cc, bcc: mail.bcc }),
		subject: mail.subject,
		text: mail.text,
		html: mail.html,
		attachments: [...attachmentOf(world, mail, reminders), ...attachments(world, mail.fileIds)]
	});
	const now = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		const set = (values: Partial<typeof mails.$inferInsert>) =>
			tx.update(mails).set(values).where(eq(mails.id, mail.id)).run();
		switch (outcome.state) {
			case 'sent': {
				const missed = outcome.missed ?? [];
				const got = addressesIn(mail.missed || mail.to).filter(
					(address) => !missed.some((one) => one.address === address)
				);
				if (mail.documentId && got.length)
					note(tx, {
						documentId: mail.documentId,
						at: now,
						who: 'axiometer',
						what: 'delivered',
						detail: `${mail.kind}:${got.join(', ')}`
					});
				if (missed.length === 0) {
					set({ state: 'sent', sentAt: now, lastError: '', missed: '' });
					break;
				}
				const names = missed.map((one) => one.address).join(', ');
				const why = missed.map((one) => `${one.address}: ${one.reason}`).join('; ');
				// A copy that did not arrive is said, and the message has gone all the same.
				const copies = missed.every((one) => !addressesIn(mail.to).includes(one.address));
				if (missed.some((one) => !one.forGood))
					set({
						state: 'queued',
						missed: names,
						lastError: why,
						nextAttemptAt: now + waitAfter(mail.attempts)
					});
				else if (copies) set({ state: 'sent', sentAt: now, missed: names, lastError: why });
				else set({ state: 'failed', sentAt: now, missed: names, lastError: why });
				if (mail.documentId && missed.every((one) => one.forGood))
					note(tx, {
						documentId: mail.documentId,
						at: now,
						who: 'axiometer',
						what: 'notDelivered',
						detail: why
					});
				break;
			}
			case 'later':
				set({
					state: 'queued',
					lastError: outcome.reason,
					nextAttemptAt: now + waitAfter(mail.attempts)
				});
				break;
			case 'refused':
			case 'unsure':
				set({
					state: outcome.state === 'refused' ? 'failed' : 'unsure',
					lastError: outcome.reason
				});
				if (mail.documentId)
					note(tx, {
						documentId: mail.documentId,
						at: now,
						who: 'axiometer',
						what: 'notDelivered',
						detail: `${mail.to}: ${outcome.reason}`
					});
		}
	});
}

async function deliverTexts(world: World, reminders: Reminders): Promise<void> {
	for (;;) {
		const text = world.db
			.select()
			.from(texts)
			.where(and(eq(texts.state, 'queued'), lte(texts.nextAttemptAt, world.clock.now())))
			.orderBy(asc(texts.id))
			.get();
		if (!text) return;
		if (text.chaseMessageId !== null && !reminders.stillStands(world, text.chaseMessageId)) {
			reminders.withdraw(world, text.chaseMessageId);
			continue;
		}
		const { to } = text;
		const outcome = await world.text.send({ key: gatewayKey(text), to, text: text.text });
		const now = world.clock.now();
		const attempts = text.attempts + 1;
		const set = (values: Partial<typeof texts.$inferInsert>) =>
			world.db
				.update(texts)
				.set({ attempts, ...values })
				.where(eq(texts.id, text.id))
				.run();
		const noted = (what: 'delivered' | 'notDelivered', detail: string) => {
			if (text.documentId)
				note(world.db, { documentId: text.documentId, at: now, who: 'axiometer', what, detail });
		};
		if (outcome.state === 'sent') {
			set({ state: 'sent', sentAt: now, lastError: '' });
			noted('delivered', `text:${to}`);
		} else if (outcome.state === 'refused') {
			set({ state: 'failed', lastError: outcome.reason });
			noted('notDelivered', `${to}: ${outcome.reason}`);
		} else
			set({
				lastError: outcome.reason,
				nextAttemptAt: now + waitAfter(text.attempts)
			});
	}
}

/** After a restart: what was on its way when the process died may or may not have arrived. */
export function settleInterrupted(world: World): void {
	world.db
		.update(mails)
		.set({ state: 'unsure', lastError: 'Axiometer stopped while this was going out' })
		.where(eq(mails.state, 'sending'))
		.run();
}
