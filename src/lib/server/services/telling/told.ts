// What a customer was told of a visit, on its page: the visit as it stands, an answer to it, and its place in a calendar.
import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { displayDate } from '../../../core/calendar/conversion';
import { writeCalendar } from '../../../core/formats/icalendar';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce } from '../../db/connection';
import { jobs, told, visits } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { isToken } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { visitsBetween } from '../diary/diary';
import { visitUid } from '../diary/feed';
import { queueMail } from '../messages/outbox';

/** What a link in such a message shows. @throws NotFoundError */
export function toldPage(world: World, token: string) {
	const { db } = world;
	const row = isToken(token)
		? db.select().from(told).where(eq(told.token, token)).get()
		: undefined;
	if (!row) throw new NotFoundError('This page');
	const job = db.select({ title: jobs.title }).from(jobs).where(eq(jobs.id, row.jobId)).get()!;
	const visit =
		row.visitId === null
			? undefined
			: db.select().from(visits).where(eq(visits.id, row.visitId)).get();
	const now = visit
		? visitsBetween(db, visit.date, visit.date).find(({ id }) => id === visit.id)
		: undefined;
	const { tradingName, ownerName, phone } = loadBusiness(db);
	return {
		id: row.id,
		title: job.title,
		from: tradingName || ownerName,
		phone,
		date: now?.date ?? row.date,
		arrival: now?.arrival ?? row.arrival,
		address: now ? [now.place, now.address].filter(Boolean).join('\n') : '',
		off: visit === undefined || row.kind === 'cancelled',
		past: (now?.date ?? row.date) < world.clock.today(),
		answer: row.answer,
		words: row.words
	};
}

const answerForm = z.object({ answer: z.enum(['confirmed', 'other']), words: text(1000) });

/** The customer confirms, or asks for another time: the owner hears of it. @throws FieldError, NotFoundError */
export function answerVisit(world: World, token: string, typed: unknown): void {
	const { answer, words } = parseForm(answerForm, typed);
	if (answer === 'other' && words === '')
		throw new FieldError({ words: 'Which times would suit you?' });
	const page = toldPage(world, token);
	writeAtOnce(world.db, (tx) => {
		const { changes } = tx
			.update(told)
			.set({ answer, words, answeredAt: world.clock.now() })
			.where(
				and(eq(told.id, page.id), sql`(${told.answer} <> ${answer} or ${told.words} <> ${words})`)
			)
			.run();
		const { email } = loadBusiness(tx);
		if (!changes || answer !== 'other' || !email) return;
		const row = tx.select().from(told).where(eq(told.id, page.id)).get()!;
		queueMail(tx, world, {
			key: `visitAnswer:${page.id}:${world.clock.now()}`,
			kind: 'visit',
			to: email,
			subject: `Another time, please: ${page.title}`,
			text: `About the visit of ${displayDate(page.date)} for ${page.title}:\n\n${words.replaceAll('{link}', '(link)')}\n\nThe job: {link}`,
			link: `${world.origin}/work/${row.jobId}`
		});
	});
}

/** The visit as a calendar file: the same name and a higher sequence each time it moves. @throws NotFoundError */
export function toldCalendar(world: World, token: string): string {
	const row = isToken(token)
		? world.db.select().from(told).where(eq(told.token, token)).get()
		: undefined;
	if (!row) throw new NotFoundError('This page');
	const page = toldPage(world, token);
	const visit =
		row.visitId === null
			? undefined
			: world.db.select().from(visits).where(eq(visits.id, row.visitId)).get();
	return writeCalendar(
		[
			{
				uid: visitUid(world, row.visitId ?? 0),
				title: `${page.title}, ${page.from}`,
				place: page.address,
				note: page.arrival,
				date: page.date,
				endDate: visit?.endDate ?? page.date,
				from: visit?.arriveFrom || visit?.from || '',
				to: visit?.arriveTo || visit?.to || '',
				sequence: (visit?.sequence ?? row.sequence) + (page.off ? 1 : 0),
				cancelled: page.off,
				writtenAt: world.clock.now()
			}
		],
		page.off ? 'CANCEL' : 'PUBLISH'
	);
}

/** The same for the mail that tells of it, as it stands when it goes out; null where there is nothing to put into a calendar. */
export function calendarOf(world: World, toldId: number): { content: string; off: boolean } | null {
	const row = world.db.select().from(told).where(eq(told.id, toldId)).get();
	if (!row || row.kind === 'onTheWay' || row.kind === 'finished') return null;
	return { content: toldCalendar(world, row.token), off: toldPage(world, row.token).off };
}
