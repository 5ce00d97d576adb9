// The list of jobs, its counts and its labels.
import { must } from '../../actor';
import { and, asc, desc, eq, gt, lt, notInArray, sql } from 'drizzle-orm';
import { pageOf, type Cursor } from '../../../core/paging';
import { STANDINGS, type Standing } from '../../../core/jobs/types';
import { type Database } from '../../db/connection';
import { whileUnchanged } from '../../db/unchanged';
import { customers, jobs, sites } from '../../db/schema';
import type { World } from '../../world';
import { standing } from './standing';

export interface JobFilter {
	typed?: string;
	standing?: Standing;
	customerId?: number;
	label?: string;
	cursor?: Cursor | null;
}

export const JOBS_PER_PAGE = 50;

/** Jobs as a page, newest first, found by number, title, customer or site. */
export function listJobs(world: World, filter: JobFilter = {}) {
	must('work');
	const { typed = '', standing: asked, customerId, label, cursor = null } = filter;
	const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
	const matches = words.map((word) => {
		const pattern = `%${word.replace(/[\\%_]/g, '\\$&')}%`;
		return sql`lower(${jobs.number} || ' ' || ${jobs.title} || ' ' || ${customers.name} || ' ' || coalesce(${sites.name}, '') || ' ' || coalesce(${sites.address}, '')) like ${pattern} escape '\\'`;
	});
	const rows = world.db
		.select({
			id: jobs.id,
			number: jobs.number,
			title: jobs.title,
			standing,
			labels: jobs.labels,
			customerId: jobs.customerId,
			customer: customers.name,
			site: sites.name,
			finishedOn: jobs.finishedOn,
			updatedAt: jobs.updatedAt
		})
		.from(jobs)
		.innerJoin(customers, eq(customers.id, jobs.customerId))
		.leftJoin(sites, eq(sites.id, jobs.siteId))
		.where(
			and(
				asked ? sql`${standing} = ${asked}` : notInArray(jobs.state, ['dropped']),
				customerId === undefined ? undefined : eq(jobs.customerId, customerId),
				label
					? sql`exists (select 1 from json_each(${jobs.labels}) where value = ${label})`
					: undefined,
				cursor
					? cursor.way === 'before'
						? gt(jobs.id, cursor.id)
						: lt(jobs.id, cursor.id)
					: undefined,
				...matches
			)
		)
		.orderBy(cursor?.way === 'before' ? asc(jobs.id) : desc(jobs.id))
		.limit(JOBS_PER_PAGE + 1)
		.all();
	return pageOf(rows, JOBS_PER_PAGE, cursor, ({ id }) => ({ key: '', id }));
}

/** How many jobs stand where. */
export const jobCounts = (db: Database): Record<Standing, number> =>
	whileUnchanged(db, 'job counts', () => counted(db));

function counted(db: Database): Record<Standing, number> {
	const counts = Object.fromEntries(STANDINGS.map((one) => [one, 0])) as Record<Standing, number>;
	for (const row of db
		.select({ standing, n: sql<number>`count(*)` })
		.from(jobs)
		.groupBy(standing)
		.all())
		counts[row.standing] = row.n;
	return counts;
}

/** Every label in use on jobs. */
export function jobLabels(db: Database): string[] {
	return db
		.all<{ label: string }>(
			sql`select distinct value as label from jobs, json_each(jobs.labels) order by 1`
		)
		.map((row) => row.label);
}

/** So many jobs are offered where one is chosen for a cost: those of late. */
const OFFERED = 200;

/** Jobs that something can be bought for: those not yet over, and the one that is chosen already. */
export const jobsToChoose = (
	db: Database,
	chosen: number | null
): { id: number; number: string; title: string; customer: string }[] =>
	db
		.select({ id: jobs.id, number: jobs.number, title: jobs.title, customer: customers.name })
		.from(jobs)
		.innerJoin(customers, eq(customers.id, jobs.customerId))
		.where(sql`${jobs.state} not in ('dropped', 'billed') or ${jobs.id} = ${chosen ?? -1}`)
		.orderBy(desc(jobs.id))
		.limit(OFFERED)
		.all();
