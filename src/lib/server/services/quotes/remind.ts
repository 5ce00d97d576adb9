// Quotes chased by the owner's plan. Any answer, a question or a new version stops it.
import { and, eq, gte, lte, or, sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { londonDate, londonMoment, londonTime } from '../../../core/calendar/conversion';
import { dueStep } from '../../../core/quotes/plan';
import { quoteMessage } from '../../../core/quotes/wording';
import { writeAtOnce } from '../../db/connection';
import { chaseSettings, mails, quotes } from '../../db/schema';
import type { World } from '../../world';
import { mailAddresses } from '../customers/parts';
import { queueMail } from '../messages/outbox';
import { greetedOf, voiceFor } from '../wordings/voice';
import { loadQuotePlan } from './plan';
import { noteQuote } from './quotes';
import { asSent, quoteLink, versionOf } from './send';

/** Reminds of what is due, within the hours of chasing, where chasing is on. Safe to run twice: each reminder is keyed. */
export function remindOfQuotes(world: World): void {
	const { db, clock } = world;
	const settings = db.select().from(chaseSettings).get();
	if (!settings?.on) return;
	const now = clock.now();
	const time = londonTime(now);
	const minutes = Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
	if (minutes < settings.hoursFrom || minutes >= settings.hoursTo) return;
	const plan = loadQuotePlan(db);
	if (plan.after.length + plan.before.length === 0) return;
	const today = clock.today();
	const first = plan.after[0] ?? 9999;
	const due = db
		.select()
		.from(quotes)
		.where(
			and(
				eq(quotes.state, 'sent'),
				eq(quotes.quiet, false),
				gte(quotes.validUntil, today),
				or(
					lte(quotes.sentAt, londonMoment(`${addDays(today, -first)}T23:59`)),
					lte(quotes.validUntil, addDays(today, plan.before.at(-1) ?? -1))
				),
				sql`not exists (select 1 from quote_questions a where a.quote_id = ${quotes.id} and a.answered_at is null)`,
				// Not so soon after the last reminder.
				sql`not exists (select 1 from quote_trail t where t.quote_id = ${quotes.id} and t.what = 'reminded' and t.at > ${now - settings.gapDays * DAY})`
			)
		)
		.limit(100)
		.all();
	for (const row of due) {
		const step = dueStep(plan, londonDate(row.sentAt!), row.validUntil!, today);
		if (!step) continue;
		const key = `quoteReminder:${row.id}:${row.sent}:${step.when}:${step.days}`;
		// Asked before anything is locked: this runs every few seconds.
		if (db.select({ id: mails.id }).from(mails).where(eq(mails.key, key)).get()) continue;
		writeAtOnce(db, (tx) => {
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
					step.when === 'before' ? 'quoteExpires' : 'quoteReminder'
				),
				link: quoteLink(tx, world, row)
			});
			if (fresh) noteQuote(tx, row.id, now, 'reminded', to, null);
		});
	}
}

const DAY = 86_400_000;
