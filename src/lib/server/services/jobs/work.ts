// What was agreed and done on jobs, as the core takes it: for one, or for many with a query each.
import { asc, eq, inArray } from 'drizzle-orm';
import type { JobWork } from '../../../core/jobs/types';
import { formatDecimal } from '../../../core/money/decimal';
import { sellerOn } from '../../../core/parties';
import { GB } from '../../../core/regimes/gb';
import type { Reader } from '../../db/connection';
import { jobCosts, jobLines, jobs, timeEntries } from '../../db/schema';
import { sellerRecord } from '../business/settings';

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
		costs: costsOf(db, [jobId])
	};
}

/** Costs of jobs, by day. Where a job's prices include VAT, each knows what goes on top of its mark-up. */
function costsOf(db: Reader, jobIds: readonly number[]) {
	const rows = db
		.select({ cost: jobCosts, includes: jobs.pricesIncludeVat })
		.from(jobCosts)
		.innerJoin(jobs, eq(jobs.id, jobCosts.jobId))
		.where(inArray(jobCosts.jobId, [...jobIds]))
		.orderBy(asc(jobCosts.date), asc(jobCosts.id))
		.all();
	if (rows.length === 0) return [];
	const seller = sellerRecord(db);
	return rows.map(({ cost, includes }) => {
		const rate =
			includes && sellerOn(seller, cost.date).vatRegistered
				? GB.rateOn(cost.vat, cost.date)?.rate
				: undefined;
		return rate ? { ...cost, plusVat: formatDecimal(rate) } : cost;
	});
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
		for (const row of costsOf(db, ids)) works.get(row.jobId)!.costs.push(row);
	}
	return works;
}
