// A notice of the customer that it cancels: by the button on its page, or in any other way, written down by the owner. It counts
// on the day it was sent (SI 2013/3134 reg. 32).
import { must } from '../../actor';
import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { displayDate } from '../../../core/calendar/conversion';
import { lineAmount } from '../../../core/jobs/billing';
import { divideRounded } from '../../../core/money/decimal';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { cancelUntil, GIVE_BACK_DAYS, inTime, shareOf } from '../../../core/regimes/gb/consumer';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { acceptances, depositRequests, jobs, quotes } from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm, text } from '../business/fields';
import { mailAddresses } from '../customers/parts';
import { jobWork } from '../jobs/work';
import { queueMail } from '../messages/outbox';
import { noteJob } from '../trail/jobs';
import { acceptanceOf, tellOwner, type Acceptance } from './accept';
import { loadQuote, noteQuote } from './quotes';
import { quoteLink, versionOf } from './send';

/** Until when a contract can be cancelled: a day, `open` as long as its materials have not come, null where it cannot. */
export function cancelLimit(
	db: Reader,
	{ law, agreedOn, receivedOn, quoteId }: Acceptance
): { until: string | null } | null {
	if (!law.may) return null;
	const finished = db.get<{ day: string | null }>(
		sql`select j.finished_on as day from jobs j join quotes q on q.job_id = j.id where q.id = ${quoteId}`
	)?.day;
	return { until: cancelUntil(agreedOn, law.goods, receivedOn ?? finished ?? null) };
}

/** Whether the customer may cancel today. Once all is done on request, the right has ended (reg. 36(2)). */
export function mayCancel(db: Reader, acceptance: Acceptance, today: string): boolean {
	if (acceptance.cancelledOn) return false;
	const limit = cancelLimit(db, acceptance);
	if (!limit || !inTime(today, limit.until)) return false;
	return !(
		allDone(db, acceptance) &&
		acceptance.law.begin &&
		acceptance.law.acknowledged &&
		!acceptance.law.goods
	);
}

const allDone = (db: Reader, { quoteId }: Acceptance): boolean =>
	db.get<{ state: string }>(
		sql`select j.state from jobs j join quotes q on q.job_id = j.id where q.id = ${quoteId} and j.state in ('finished', 'billed')`
	) !== undefined;

const noticeForm = z.object({ sentOn: day, how: text(200), words: text(2000) });

/** The button on the customer's page. @throws RefusedError once it is too late */
export function cancelByCustomer(world: World, quoteId: number): void {
	const today = world.clock.today();
	writeAtOnce(world.db, (tx) => {
		const acceptance = acceptanceOf(tx, quoteId);
		if (!acceptance) throw new NotFoundError('This contract');
		if (acceptance.cancelledOn) return;
		if (!mayCancel(tx, acceptance, today))
			throw new RefusedError('The time in which this could be cancelled has passed.');
		cancel(tx, world, acceptance, today, 'with the button on the page', null);
	});
}

/**
 * The day the customer had the last of the materials: from there the period to cancel runs. Empty: it is not known yet.
 * @throws FieldError, NotFoundError
 */
export function noteReceived(world: World, jobId: number, typed: unknown): void {
	must('bill');
	const { receivedOn } = parseForm(z.object({ receivedOn: day }), typed);
	if (receivedOn > world.clock.today())
		throw new FieldError({ receivedOn: 'That day has not come yet.' });
	writeAtOnce(world.db, (tx) => {
		const row = tx
			.select({ acceptance: acceptances })
			.from(acceptances)
			.innerJoin(quotes, eq(quotes.id, acceptances.quoteId))
			.where(and(eq(quotes.jobId, jobId), isNull(quotes.forJobId)))
			.get();
		if (!row) throw new NotFoundError('What was agreed');
		const { acceptance } = row;
		if (receivedOn !== '' && receivedOn < acceptance.agreedOn)
			throw new FieldError({
				receivedOn: `It was agreed on ${displayDate(acceptance.agreedOn)} only.`
			});
		tx.update(acceptances)
			.set({ receivedOn: receivedOn || null })
			.where(eq(acceptances.id, acceptance.id))
			.run();
	});
}

/** What the owner was told by phone, letter or e-mail. @throws FieldError where it was sent too late */
export function noteCancelled(world: World, quoteId: number, typed: unknown): void {
	must('bill');
	const { sentOn, how } = parseForm(noticeForm, typed);
	const today = world.clock.today();
	const day = sentOn || today;
	if (day > today) throw new FieldError({ sentOn: 'That day has not come yet.' });
	writeAtOnce(world.db, (tx) => {
		const acceptance = acceptanceOf(tx, quoteId);
		if (!acceptance) throw new NotFoundError('This contract');
		if (acceptance.cancelledOn) return;
		const limit = cancelLimit(tx, acceptance);
		if (!limit) throw new RefusedError(`There is no right to cancel: ${acceptance.law.why}`);
		if (day < acceptance.agreedOn)
			throw new FieldError({ sentOn: 'It was agreed only after that day.' });
		if (!inTime(day, limit.until))
			throw new FieldError({
				sentOn: `That was too late: it could be cancelled until the end of ${displayDate(limit.until!)}.`
			});
		cancel(tx, world, acceptance, day, how || 'told us');
	});
}

/** It stops the job, and its receipt is acknowledged at once. */
function cancel(
	tx: Transaction,
	world: World,
	acceptance: Acceptance,
	sentOn: string,
	how: string,
	by?: null
): void {
	const at = world.clock.now();
	const row = loadQuote(tx, acceptance.quoteId);
	tx.update(acceptances)
		.set({ cancelledOn: sentOn, cancelledHow: how, cancelledAt: at })
		.where(eq(acceptances.id, acceptance.id))
		.run();
	tx.update(quotes).set({ state: 'cancelled', updatedAt: at }).where(eq(quotes.id, row.id)).run();
	noteQuote(tx, row.id, at, 'cancelled', how, ...(by === null ? [null] : []));
	tx.update(depositRequests)
		.set({ state: 'withdrawn' })
		.where(and(eq(depositRequests.quoteId, row.id), eq(depositRequests.state, 'asked')))
		.run();
	if (row.jobId !== null && row.forJobId === null) {
		const { changes } = tx
			.update(jobs)
			.set({ state: 'dropped', updatedAt: at })
			.where(and(eq(jobs.id, row.jobId), inArray(jobs.state, ['booked', 'underWay', 'enquiry'])))
			.run();
		if (changes) noteJob(tx, row.jobId, at, 'dropped', `Cancelled by the customer, ${how}`);
	}
	const { frozen } = versionOf(tx, row.id, row.sent);
	const to =
		row.customerId === null ? undefined : mailAddresses(tx, row.customerId, frozen.sheet)[0];
	const { seller } = frozen;
	if (to)
		queueMail(tx, world, {
			key: `cancelled:${row.id}`,
			kind: 'quote',
			quoteId: row.id,
			to,
			subject: `Cancelled: ${row.title}`,
			text: `Hello ${acceptance.name}\n\nYour notice of ${displayDate(sentOn)} that you cancel what was agreed in ${row.number} has reached us. What you paid comes back to you within 14 days, less the share of what was done at your request, if anything was.\n\nEverything about it is here: {link}\n\nKind regards\n${seller.ownerName}`,
			link: quoteLink(tx, world, row)
		});
	tellOwner(tx, world, row, {
		key: `cancelledNews:${row.id}`,
		subject: `Cancelled: ${row.title}`,
		text: `${acceptance.name} cancelled ${row.number}, ${how}, on ${displayDate(sentOn)}. The job is stopped. What was paid goes back by ${displayDate(addDays(sentOn, GIVE_BACK_DAYS))}.\n\nSee it here: {link}`
	});
}

export interface CancelShare {
	/** Percent done of each line that was agreed, as proposed; the owner changes it. */
	lines: { id: number; description: string; agreed: bigint; share: bigint }[];
	share: bigint;
	/** What was paid as a deposit, and what goes back. */
	paid: bigint;
	back: bigint;
	by: string;
}

/**
 * What a customer that asked for an early begin owes for what was done until its notice: the share of the agreed price, line by
 * line (reg. 36(4), (5)). Nothing without that request, or where it was not told of it (reg. 36(6)). Pence.
 * @param done percent of each line that was supplied by then, by its id
 */
export function cancelShare(
	db: Reader,
	acceptance: Acceptance,
	done: Readonly<Record<number, number>>
): CancelShare {
	const row = loadQuote(db, acceptance.quoteId);
	const { lines } = row.jobId === null ? { lines: [] } : jobWork(db, row.jobId);
	const nets = lines.map((line) => ({
		id: line.id,
		description: line.description,
		net: lineAmount(line)
	}));
	const whole = nets.reduce((sum, { net }) => sum + net, 0n);
	const total = BigInt(acceptance.total);
	const owed = acceptance.law.begin && acceptance.law.informed !== '';
	const shares = nets.map(({ id, description, net }) => {
		const agreed = whole === 0n ? 0n : divideRounded(total * net, whole);
		const percent = done[id] ?? 0;
		return {
			id,
			description,
			agreed,
			share: owed ? shareOf(agreed, percent) : 0n
		};
	});
	const share = shares.reduce((sum, one) => sum + one.share, 0n);
	const paid = BigInt(
		db
			.select({
				amount: sql<number>`${depositRequests.amount} - ${depositRequests.deduction}`
			})
			.from(depositRequests)
			.where(
				and(
					eq(depositRequests.quoteId, row.id),
					inArray(depositRequests.state, ['paid', 'invoiced'])
				)
			)
			.get()?.amount ?? 0
	);
	return {
		lines: shares,
		share,
		paid,
		back: paid > share ? paid - share : 0n,
		by: addDays(acceptance.cancelledOn ?? acceptance.agreedOn, GIVE_BACK_DAYS)
	};
}
