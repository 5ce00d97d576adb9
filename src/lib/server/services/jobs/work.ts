// What was agreed and done on jobs, as the core takes it: for one, or for many with a query each.
import { asc, eq, inArray } from 'drizzle-orm';
import type { JobWork } from '../../../core/jobs/types';
import type { Reader } from '../../db/connection';
import { jobCosts, jobLines, timeEntries } from '../../db/schema';

export function jobWork(db: Reader, jobId: number): JobWork {
	return {
		lines: db
			.select()
			.from(jobLines)
			.where(eq(jobLines.jobId, jobId))
			.orderBy(asc(jobLines.position), asc(jobLines.id))
			.all(),
		time: db
			.select()
			.from(timeEntries)
			.where(eq(timeEntries.jobId, jobId))
			.orderBy(asc(timeEntries.date), asc(timeEntries.id))
			.all(),
		costs: db
			.select()
			.from(jobCosts)
			.where(eq(jobCosts.jobId, jobId))
			.orderBy(asc(jobCosts.date), asc(jobCosts.id))
			.all()
	};
}

/** SQLite takes a limited number of values in one statement. */
const AT_ONCE = 500;

export function jobWorks(db: Reader, jobIds: readonly number[]): Map<number, JobWork> {
	const works = new Map<number, JobWork>(
		jobIds.map((id) => [id, { lines: [], time: [], costs: [] }])
	);
	for (let start = 0; start < jobIds.length; start += AT_ONCE) {
		const ids = jobIds.slice(start, start + AT_ONCE);
		for (const row of db
			.select()
			.from(jobLines)
			.where(inArray(jobLines.jobId, ids))
			.orderBy(asc(jobLines.position), asc(jobLines.id))
			.all())
			works.get(row.jobId)!.lines.push(row);
		for (const row of db
			.select()
			.from(timeEntries)
			.where(inArray(timeEntries.jobId, ids))
			.orderBy(asc(timeEntries.date), asc(timeEntries.id))
			.all())
			works.get(row.jobId)!.time.push(row);
		for (const row of db
			.select()
			.from(jobCosts)
			.where(inArray(jobCosts.jobId, ids))
			.orderBy(asc(jobCosts.date), asc(jobCosts.id))
			.all())
			works.get(row.jobId)!.costs.push(row);
	}
	return works;
}
