// The page of the way: everything between the first question and the bill, and what became of quotes.
import { sql } from 'drizzle-orm';
import { londonDate } from '../../../core/calendar/conversion';
import { addMonths } from '../../../core/calendar/manipulation';
import { daysBetween } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import { billablesOf } from '../../../core/jobs/billing';
import { byTurn, likelyOf, type Outcome, type Underway, type Waits } from '../../../core/jobs/way';
import { must } from '../../actor';
import type { World } from '../../world';
import { jobWorks } from '../jobs/work';

/** So many of each are shown, the latest: more nobody looks through. */
const MOST = 200;

interface Row {
	id: number;
	title: string;
	customer: string;
	waits: Waits;
	sum: number | null;
	most: number | null;
	/** A moment, or a day. */
	since: number | string;
	day: PlainDate | null;
}

/** Nobody opens a page of quotes that came to nothing by this: they are in their list. */
export function underway(world: World): Underway[] {
	const { db, clock } = world;
	const today = clock.today();
	const asked = db.all<Row>(sql`
		select e.id, e.what as title, e.name as customer,
			case when v.date is not null then 'look' when e.state = 'open' then 'answer' else 'reply' end as waits,
			null as sum, null as most, e.moved_at as since, v.date as day
		from enquiries e left join (
			select job_id, min(date) as date from visits where done = 0 and date >= ${today} group by job_id
		) v on v.job_id = e.job_id
		where e.state in ('open', 'answered', 'visit')
		order by e.moved_at desc limit ${MOST}`);
	const quoted = db.all<Row>(sql`
		select q.id, coalesce(nullif(q.title, ''), 'A quote') as title, q.customer_name as customer,
			case when q.state = 'draft' then 'sending'
				when exists (select 1 from quote_questions u where u.quote_id = q.id and u.answered_at is null) then 'question'
				else 'yes' end as waits,
			q.total as sum, q.highest as most,
			case when q.state = 'draft' then q.updated_at else max(coalesce(q.sent_at, 0), coalesce(q.opened_at, 0),
				coalesce((select max(max(u.at, coalesce(u.answered_at, 0))) from quote_questions u where u.quote_id = q.id), 0)) end as since,
			null as day
		from quotes q
		where q.state = 'draft' or (q.state = 'sent' and q.valid_until >= ${today})
		order by q.updated_at desc limit ${MOST}`);
	const jobs = db.all<Row>(sql`
		select j.id, j.title, c.name as customer,
			case when j.state = 'finished' then 'bill'
				when d.id is not null then 'deposit'
				when j.state = 'underWay' and v.date is null then 'work'
				when v.date is not null then 'visit'
				else 'day' end as waits,
			null as sum, null as most,
			case when j.state = 'finished' then j.finished_on
				else coalesce((select max(t.at) from job_trail t where t.job_id = j.id), j.created_at) end as since,
			v.date as day
		from jobs j join customers c on c.id = j.customer_id
		left join deposit_requests d on d.job_id = j.id and d.state = 'asked'
		left join (
			select job_id, min(date) as date from visits where done = 0 and coalesce(end_date, date) >= ${today} group by job_id
		) v on v.job_id = j.id
		where j.state in ('booked', 'underWay', 'finished')
		order by j.updated_at desc limit ${MOST}`);
	const works = jobWorks(
		db,
		jobs.map(({ id }) => id)
	);
	const taken = new Set(
		db
			.all<{ part: string }>(
				sql`select b.type || ':' || b.part_id as part from billed_parts b join jobs j on j.id = b.job_id where j.state in ('booked', 'underWay', 'finished')`
			)
			.map(({ part }) => part)
	);
	const left = (jobId: number): number =>
		Number(
			billablesOf(works.get(jobId)!)
				.filter(({ part }) => !taken.has(`${part.type}:${part.id}`))
				.reduce((sum, { amount }) => sum + amount, 0n)
		);
	const shown = (kind: string, path: string, rows: readonly Row[]): Underway[] =>
		rows.map(({ id, since, day, ...row }) => {
			const from = typeof since === 'number' ? londonDate(since) : since;
			return {
				...row,
				key: `${kind}:${id}`,
				href: `${path}/${id}`,
				title: row.title.split('\n')[0]!.slice(0, 120),
				since: from,
				days: Math.max(0, daysBetween(from, today)),
				on: day
			};
		});
	return [
		...shown('enquiry', '/work/enquiries', asked),
		...shown('quote', '/work/quotes', quoted),
		...shown(
			'job',
			'/work',
			jobs.map((row) => ({ ...row, sum: left(row.id) }))
		)
	];
}

export interface OutcomeOf extends Outcome {
	name: string;
}

/** How many months back quotes are counted. */
const MONTHS = 12;

/** Quotes that went out since a day, by what they are grouped by: what is accepted was won, whatever came of it later. */
function outcomes(
	{ db, clock }: World,
	from: PlainDate,
	by: 'month' | 'kind' | 'source'
): OutcomeOf[] {
	const name = {
		month: sql`strftime('%Y-%m', q.sent_at / 1000, 'unixepoch')`,
		kind: sql`coalesce(w.name, '')`,
		source: sql`coalesce(e.source, '')`
	}[by];
	const won = sql`q.state in ('accepted', 'cancelled')`;
	const out = sql`q.state = 'sent' and q.valid_until >= ${clock.today()}`;
	const total = sql`coalesce(a.total, q.total)`;
	return db.all<OutcomeOf>(sql`
		select ${name} as name,
			sum(${won}) as won, sum(${out}) as out, sum(not (${won}) and not (${out})) as lost,
			sum(case when ${won} then ${total} else 0 end) as wonSum,
			sum(case when ${out} then ${total} else 0 end) as outSum,
			sum(case when not (${won}) and not (${out}) then ${total} else 0 end) as lostSum
		from quotes q left join work_kinds w on w.id = q.work_kind_id left join enquiries e on e.id = q.enquiry_id
		left join acceptances a on a.quote_id = q.id
		where q.sent > 0 and q.state <> 'discarded' and strftime('%Y-%m', q.sent_at / 1000, 'unixepoch') >= ${from.slice(0, 7)}
		group by 1 order by 1`);
}

export function wayPage(world: World) {
	must('work');
	const today = world.clock.today();
	const from = addMonths(`${today.slice(0, 7)}-01`, -(MONTHS - 1));
	const months = outcomes(world, from, 'month');
	const byMonth = new Map(months.map((one) => [one.name, one]));
	const none = { won: 0, lost: 0, out: 0, wonSum: 0, lostSum: 0, outSum: 0 };
	const all = months.reduce<Outcome>(
		(sum, one) => ({
			won: sum.won + one.won,
			lost: sum.lost + one.lost,
			out: sum.out + one.out,
			wonSum: sum.wonSum + one.wonSum,
			lostSum: sum.lostSum + one.lostSum,
			outSum: sum.outSum + one.outSum
		}),
		none
	);
	return {
		today,
		groups: byTurn(underway(world)),
		from,
		months: Array.from({ length: MONTHS }, (_, n) => {
			const name = addMonths(from, n).slice(0, 7);
			return byMonth.get(name) ?? { ...none, name };
		}),
		kinds: outcomes(world, from, 'kind'),
		sources: outcomes(world, from, 'source'),
		all,
		likely: likelyOf(all)
	};
}
