// The list of jobs, its counts and its labels.
import { and, asc, desc, eq, gt, inArray, lt, notInArray, sql } from 'drizzle-orm';
import { pageOf, type Cursor } from '../../../core/paging';
import { JOB_STATES, type JobState } from '../../../core/jobs/types';
import { type Database } from '../../db/connection';
import { customers, jobs, sites } from '../../db/schema';
import type { World } from '../../world';

export interface JobFilter {
	typed?: string;
	states?: readonly JobState[];
	customerId?: number;
	label?: string;
	cursor?: Cursor | null;
}

export const JOBS_PER_PAGE = 50;

/** Jobs as a page, newest first, found by number, title, customer or site. */
export function listJobs(world: World, filter: JobFilter = {}) {
	const { typed = '', states, customerId, label, cursor = null } = filter;
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
			state: jobs.state,
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
				states ? inArray(jobs.state, [...states]) : notInArray(jobs.state, ['dropped']),
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

export function jobCounts(db: Database): Record<JobState, number> {
	const counts = Object.fromEntries(JOB_STATES.map((state) => [state, 0])) as Record<
		JobState,
		number
	>;
	for (const row of db
		.select({ state: jobs.state, n: sql<number>`count(*)` })
		.from(jobs)
		.groupBy(jobs.state)
		.all())
		counts[row.state] = row.n;
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
