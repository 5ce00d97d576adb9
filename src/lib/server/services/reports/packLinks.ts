// The accountant's pack by mail: a link that opens for some weeks, to whoever has it, and can be taken back.
import { and, desc, eq, gt, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { displayDate, londonDate } from '../../../core/calendar/conversion';
import type { Period } from '../../../core/reports/income';
import { FieldError } from '../../../core/refusals';
import { actor, must } from '../../actor';
import { writeAtOnce } from '../../db/connection';
import { packLinks, people } from '../../db/schema';
import type { World } from '../../world';
import { newToken, sha256 } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { queueMail } from '../messages/outbox';
import type { Basis } from './reports';

/** So long a link opens. */
const HOLDS_MS = 30 * 24 * 3_600_000;

export interface PackForm {
	/** Names the press: a second one sends nothing. */
	key: string;
	to: string;
	/** What is written to the accountant; empty: the usual line. */
	words: string;
}

/** Sends the link of a period's pack. @throws FieldError, ForbiddenError */
export function sendPack(world: World, period: Period, basis: Basis, form: PackForm): void {
	must('owner');
	const to = form.to.trim();
	const problems: Record<string, string> = {};
	if (!z.email().safeParse(to).success) problems.to = 'That is no e-mail address.';
	if (form.words.length > 5_000) problems.words = 'At most 5,000 characters.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const at = world.clock.now();
	const until = at + HOLDS_MS;
	const { tradingName, ownerName } = loadBusiness(world.db);
	writeAtOnce(world.db, (tx) => {
		if (tx.select().from(packLinks).where(eq(packLinks.key, form.key)).get()) return;
		const token = newToken();
		const { id } = tx
			.insert(packLinks)
			.values({
				key: form.key,
				tokenHash: sha256(token),
				...period,
				basis,
				sentTo: to,
				personId: actor()?.id ?? null,
				createdAt: at,
				until
			})
			.returning({ id: packLinks.id })
			.get();
		const days = `${displayDate(period.from)} to ${displayDate(period.to)}`;
		queueMail(tx, world, {
			key: `pack:${id}`,
			kind: 'notice',
			to,
			subject: `Books of ${tradingName || ownerName}, ${days}`,
			text: [
				form.words.trim() || `Here are the books from ${days}.`,
				'',
				`Sales, credits, payments, costs, deductions and journal as tables, all documents as PDF, and a summary, in one file. It can be fetched until ${displayDate(londonDate(until))}:`,
				'{link}'
			].join('\n'),
			link: `${world.origin}/k/${token}`
		});
	});
}

/** Links that open still, the newest first. */
export function openPackLinks(world: World) {
	must('owner');
	const { db, clock } = world;
	return db
		.select({
			id: packLinks.id,
			from: packLinks.from,
			to: packLinks.to,
			sentTo: packLinks.sentTo,
			createdAt: packLinks.createdAt,
			until: packLinks.until,
			takenAt: packLinks.takenAt
		})
		.from(packLinks)
		.where(and(isNull(packLinks.revokedAt), gt(packLinks.until, clock.now())))
		.orderBy(desc(packLinks.id))
		.all();
}

/** The link opens nothing any more. */
export function revokePackLink(world: World, id: number): void {
	must('owner');
	const { db, clock } = world;
	db.update(packLinks)
		.set({ revokedAt: clock.now() })
		.where(and(eq(packLinks.id, id), isNull(packLinks.revokedAt)))
		.run();
}

/** What a link is about; null where it opens nothing, or nothing any more. */
export function packBehind({ db, clock }: World, token: string) {
	return (
		db
			.select()
			.from(packLinks)
			.where(
				and(
					eq(packLinks.tokenHash, sha256(token)),
					isNull(packLinks.revokedAt),
					gt(packLinks.until, clock.now())
				)
			)
			.get() ?? null
	);
}

export function notePackTaken({ db, clock }: World, id: number): void {
	db.update(packLinks).set({ takenAt: clock.now() }).where(eq(packLinks.id, id)).run();
}

/** To whom the last one went; else whoever is here as the accountant. */
export function usualAccountant({ db }: World): string {
	const last = db.select().from(packLinks).orderBy(desc(packLinks.id)).limit(1).get();
	if (last) return last.sentTo;
	return (
		db
			.select({ email: people.email })
			.from(people)
			.where(and(eq(people.role, 'accountant'), isNull(people.removedAt)))
			.get()?.email ?? ''
	);
}
