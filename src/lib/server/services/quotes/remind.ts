// Quotes chased: once some days after the version went out, once before it expires. Any answer, a question or a new version stops it.
import { and, eq, gte, lte, or, sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { londonDate, londonMoment, londonTime } from '../../../core/calendar/conversion';
import { quoteMessage } from '../../../core/quotes/wording';
import { writeAtOnce } from '../../db/connection';
import { chaseSettings, mails, quotes } from '../../db/schema';
import type { World } from '../../world';
import { mailAddresses } from '../customers/parts';
import { queueMail } from '../messages/outbox';
import { greetedOf, voiceFor } from '../wordings/voice';
import { noteQuote } from './quotes';
import { asSent, quoteLink, versionOf } from './send';

/** So long after it went out, and so long before it expires. */
export const REMIND_AFTER_DAYS = 7;
export const REMIND_BEFORE_DAYS = 3;

/** Reminds of what is due, within the hours of chasing, where chasing is on. Safe to run twice: each reminder is keyed. */
export function remindOfQuotes(world: World): void {
	const settings = world.db.select().from(chaseSettings).get();
	if (!settings?.on) return;
	const now = world.clock.now();
	const clock = londonTime(now);
	const time = Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5));
	if (time < settings.hoursFrom || time >= settings.hoursTo) return;
	const today = world.clock.today();
	const due = world.db
		.select()
		.from(quotes)
		.where(
			and(
				eq(quotes.state, 'sent'),
				gte(quotes.validUntil, today),
				or(
					lte(quotes.sentAt, londonMoment(`${addDays(today, -REMIND_AFTER_DAYS)}T23:59`)),
					lte(quotes.validUntil, addDays(today, REMIND_BEFORE_DAYS))
				),
				sql`not exists (select 1 from quote_questions a where a.quote_id = ${quotes.id} and a.answered_at is null)`
			)
		)
		.limit(100)
		.all();
	for (const row of due) {
		const sentOn = londonDate(row.sentAt!);
		// One that went out just now, and holds for a few days alone, is not asked about at once.
		const before =
			row.validUntil! <= addDays(today, REMIND_BEFORE_DAYS) &&
			sentOn <= addDays(today, -REMIND_BEFORE_DAYS);
		const after = sentOn <= addDays(today, -REMIND_AFTER_DAYS);
		if (!before && !after) continue;
		const key = `quoteReminder:${row.id}:${row.sent}:${before ? 'before' : 'after'}`;
		// Asked before anything is locked: this runs every few seconds.
		if (world.db.select({ id: mails.id }).from(mails).where(eq(mails.key, key)).get()) continue;
		writeAtOnce(world.db, (tx) => {
			const { frozen } = versionOf(tx, row.id, row.sent);
			const to =
				row.customerId === null ? undefined : mailAddresses(tx, row.customerId, frozen.sheet)[0];
			if (!to) return;
			const fresh = queueMail(tx, world, {
				key,
				kind: 'quote',
				quoteId: row.id,
				to,
				...quoteMessage(
					frozen,
					{ number: row.number!, validUntil: row.validUntil!, quote: asSent(frozen) },
					voiceFor(tx, greetedOf(frozen)),
					'quoteReminder'
				),
				link: quoteLink(tx, world, row)
			});
			if (fresh) noteQuote(tx, row.id, now, 'reminded', to, null);
		});
	}
}
