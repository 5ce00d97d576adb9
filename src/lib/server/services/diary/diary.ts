// The diary: visits of all jobs placed, moved, made longer, repeated; own blocks; how it is kept.
import { asc, eq, sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { arrivalOf } from '../../../core/diary/conflicts';
import type { DiaryBlock, DiaryVisit } from '../../../core/diary/types';
import { mayBeginFrom } from '../../../core/regimes/gb/consumer';
import type { Reader } from '../../db/connection';
import { diaryBlocks, visits } from '../../db/schema';
import { diaryWays } from './ways';

/** The day of a contract that can be cancelled, and whose work was not asked for earlier: it may begin after the period only. */
const WAITS_SINCE = sql.raw(
	"(select a.agreed_on from acceptances a join quotes q on q.id = a.quote_id where q.job_id = j.id and q.for_job_id is null and json_extract(a.law, '$.may') and not json_extract(a.law, '$.begin'))"
);

interface VisitRow {
	id: number;
	jobId: number;
	title: string;
	customer: string;
	site: string | null;
	address: string;
	phone: string;
	date: string;
	endDate: string | null;
	from: string;
	to: string;
	arriveFrom: string;
	arriveTo: string;
	personId: number | null;
	others: string | null;
	needs: number;
	pencil: number;
	done: number;
	series: string;
	sequence: number;
	told: number;
	knows: number;
	confirmed: number;
	state: string;
	agreedOn: string | null;
	note: string;
	travel: number | null;
	weekend: number;
	awaited: string | null;
}

/** All visits that touch a span of days, the earliest first. @param personId null: everybody's */
export function visitsBetween(
	db: Reader,
	from: string,
	to: string,
	personId: number | null = null
): DiaryVisit[] {
	const { arrivalMinutes, travelMinutes } = diaryWays(db);
	const rows = db.all<VisitRow>(sql`
		select v.id, v.job_id as jobId, j.title, c.name as customer, s.name as site,
			coalesce(nullif(s.address, ''), c.address) as address, coalesce(nullif(c.phone, ''), '') as phone,
			v.date, v.end_date as endDate, v."from", v."to", v.arrive_from as arriveFrom, v.arrive_to as arriveTo,
			v.person_id as personId, (select group_concat(p.person_id) from visit_people p where p.visit_id = v.id) as others,
			v.needs, v.pencil, v.done, v.series, v.sequence, v.note, v.travel, v.weekend,
			(select json_group_array(json_object('what', m.what, 'expectedOn', m.expected_on)) from job_materials m where m.job_id = v.job_id and m.here_on is null) as awaited,
			exists (select 1 from told t where t.visit_id = v.id and t.sequence = v.sequence and t.kind in ('booked', 'moved', 'dayBefore')) as told,
			exists (select 1 from told t where t.visit_id = v.id and t.kind in ('booked', 'moved', 'dayBefore')) as knows,
			exists (select 1 from told t where t.visit_id = v.id and t.sequence = v.sequence and t.answer = 'confirmed') as confirmed,
			j.state,
			${WAITS_SINCE} as agreedOn
		from visits v indexed by visits_by_date join jobs j on j.id = v.job_id join customers c on c.id = j.customer_id left join sites s on s.id = j.site_id
		where v.date <= ${to} and v.date >= ${addDays(from, -60)} and coalesce(v.end_date, v.date) >= ${from}
			${personId === null ? sql`` : sql`and (v.person_id = ${personId} or exists (select 1 from visit_people p where p.visit_id = v.id and p.person_id = ${personId}))`}
		order by v.date, v."from", v.id`);
	return rows.map((row): DiaryVisit => ({
		id: row.id,
		jobId: row.jobId,
		title: row.title,
		customer: row.customer,
		place: row.site ?? '',
		address: row.address,
		phone: row.phone,
		date: row.date,
		endDate: row.endDate ?? row.date,
		from: row.from,
		to: row.to,
		arrival: arrivalOf(row.from, arrivalMinutes, { from: row.arriveFrom, to: row.arriveTo }),
		people: [
			...new Set([row.personId ?? 0, ...(row.others ? row.others.split(',').map(Number) : [])])
		],
		needs: row.needs,
		pencil: Boolean(row.pencil),
		done: Boolean(row.done),
		series: row.series,
		sequence: row.sequence,
		told: Boolean(row.told),
		knows: Boolean(row.knows),
		confirmed: Boolean(row.confirmed),
		lookAt: row.state === 'enquiry',
		mayBegin: row.agreedOn === null ? null : mayBeginFrom(row.agreedOn),
		note: row.note,
		weekend: Boolean(row.weekend),
		travel: row.travel ?? travelMinutes,
		ownTravel: row.travel,
		awaited: JSON.parse(row.awaited ?? '[]') as DiaryVisit['awaited']
	}));
}

/** The day of a visit; undefined where there is none. */
export const dayOfVisit = (db: Reader, id: number): string | undefined =>
	db.select({ date: visits.date }).from(visits).where(eq(visits.id, id)).get()?.date;

/** Own blocks that touch a span of days. */
export const blocksBetween = (db: Reader, from: string, to: string): DiaryBlock[] =>
	db
		.select()
		.from(diaryBlocks)
		.where(sql`${diaryBlocks.from} <= ${to} and ${diaryBlocks.to} >= ${from}`)
		.orderBy(asc(diaryBlocks.from))
		.all();

export interface ToBook {
	jobId: number;
	number: string;
	title: string;
	customer: string;
	/** It is only looked at, for a quote. */
	lookAt: boolean;
	mayBegin: string | null;
	duration: string;
}

/** Work without a day to come: what is booked or under way, and what is to be looked at. */
export function toBook(db: Reader, today: string): ToBook[] {
	return db
		.all<{
			jobId: number;
			number: string;
			title: string;
			customer: string;
			state: string;
			agreedOn: string | null;
			duration: string | null;
		}>(
			sql`select j.id as jobId, j.number, j.title, c.name as customer, j.state,
				${WAITS_SINCE} as agreedOn,
				(select json_extract(q.sheet, '$.quote.duration') from quotes q where q.job_id = j.id and q.for_job_id is null limit 1) as duration
			from jobs j join customers c on c.id = j.customer_id
			where j.state in ('booked', 'underWay', 'enquiry')
				and not exists (select 1 from visits v where v.job_id = j.id and coalesce(v.end_date, v.date) >= ${today})
				and not (j.state = 'underWay' and exists (select 1 from visits v where v.job_id = j.id))
			order by j.id desc limit 60`
		)
		.map(({ state, agreedOn, duration, ...job }) => ({
			...job,
			lookAt: state === 'enquiry',
			mayBegin: agreedOn === null ? null : mayBeginFrom(agreedOn),
			duration: duration ?? ''
		}));
}
