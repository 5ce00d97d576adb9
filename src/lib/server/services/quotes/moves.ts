// What quotes ask for: questions without an answer, those about to expire, what was accepted and not booked, what goes back.
import { sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { displayDate } from '../../../core/calendar/conversion';
import { displayPounds } from '../../../core/money/display';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { GIVE_BACK_DAYS } from '../../../core/regimes/gb/consumer';
import type { World } from '../../world';

/** A quote that holds for so few days more is asked about. */
const SOON_DAYS = 3;

interface Found {
	id: number;
	number: string;
	title: string;
	name: string;
	total: number;
	day: string;
}

export function quoteMoves({ db, clock }: World): Move[] {
	const today = clock.today();
	const asked = db.all<Found>(
		sql`select q.id, q.number, q.title, q.customer_name as name, q.total, '' as day from quotes q
			where exists (select 1 from quote_questions a where a.quote_id = q.id and a.answered_at is null) order by q.id desc limit ${MOST_MOVES}`
	);
	const expiring = db.all<Found>(
		sql`select id, number, title, customer_name as name, total, valid_until as day from quotes
			where state = 'sent' and valid_until between ${today} and ${addDays(today, SOON_DAYS)} order by valid_until limit ${MOST_MOVES}`
	);
	const toBook = db.all<Found & { jobId: number }>(
		sql`select q.id, q.number, q.title, q.customer_name as name, q.total, '' as day, q.job_id as jobId from quotes q join jobs j on j.id = q.job_id
			where q.state = 'accepted' and q.for_job_id is null and j.state = 'booked'
				and not exists (select 1 from visits v where v.job_id = j.id) order by q.answered_at limit ${MOST_MOVES}`
	);
	const toGiveBack = db.all<Found & { payerId: number }>(
		sql`select q.id, q.number, q.title, q.customer_name as name, d.amount - d.deduction as total, a.cancelled_on as day, d.payer_id as payerId
			from quotes q join acceptances a on a.quote_id = q.id join deposit_requests d on d.quote_id = q.id
			where q.state = 'cancelled' and d.state in ('paid', 'invoiced')
				and not exists (select 1 from credit_returns r where r.payment_id = d.payment_id)
				and not exists (select 1 from refunds f where f.document_id = d.document_id) limit ${MOST_MOVES}`
	);
	const move = (
		kind: string,
		one: Found,
		more: Omit<Move, 'id' | 'amount' | 'late' | 'href'>
	): Move => ({
		id: `quote:${kind}:${one.id}`,
		amount: BigInt(one.total),
		late: false,
		href: `/work/quotes/${one.id}`,
		...more
	});
	return [
		...asked.map((one) =>
			move('asked', one, {
				title: `${one.name} asks about ${one.number}`,
				detail: one.title,
				action: 'Answer'
			})
		),
		...expiring.map((one) =>
			move('expires', one, {
				title: `${one.number} for ${one.name} expires ${one.day === today ? 'today' : `on ${displayDate(one.day)}`}`,
				detail: one.title,
				action: 'See'
			})
		),
		...toBook.map((one) => ({
			...move('book', one, {
				title: `Book in: ${one.title}`,
				detail: `${one.name} accepted ${one.number}, ${displayPounds(one.total)}`,
				action: 'Book'
			}),
			href: `/work/diary?book=${one.jobId}`
		})),
		...toGiveBack.map((one) =>
			move('back', one, {
				title: `${one.name} cancelled ${one.number}: give the deposit back`,
				detail: `by ${displayDate(addDays(one.day, GIVE_BACK_DAYS))}, less what was done at their request`,
				action: 'See'
			})
		)
	];
}
