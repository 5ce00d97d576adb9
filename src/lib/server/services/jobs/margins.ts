// Margins: a job's own, and those of many together, with sales read from the journal.
import { must } from '../../actor';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { addMargins, marginOf, type JobBooks, type Margin } from '../../../core/jobs/margin';
import { divideRounded, taxWithin } from '../../../core/money/decimal';
import { GB } from '../../../core/regimes/gb';
import type { VatTreatment } from '../../../core/regimes/types';
import type { Database } from '../../db/connection';
import { customers, jobs, workKinds } from '../../db/schema';
import type { World } from '../../world';
import { sellerRecord } from '../business/settings';
import { sellerOn } from '../../../core/parties';
import { jobWorks } from './work';

/** SQLite takes a limited number of values in one statement. */
const AT_ONCE = 500;

/** Billed, received and withheld of jobs, in pence: sales from the journal; money in the proportion of the net. */
export function jobBooks(
	db: Database,
	jobIds: readonly number[]
): Map<number, Omit<JobBooks, 'complete'>> {
	const books = new Map(jobIds.map((id) => [id, { billed: 0n, received: 0n, withheld: 0n }]));
	for (let start = 0; start < jobIds.length; start += AT_ONCE) {
		const ids = sql.join(
			jobIds.slice(start, start + AT_ONCE).map((id) => sql`${id}`),
			sql`, `
		);
		for (const row of db.all<{ job: number; billed: number }>(sql`
			select job_id as job, -sum(sterling) as billed from journal_lines
			where job_id in (${ids}) and account = 'sales' group by job_id`))
			books.get(row.job)!.billed = BigInt(row.billed);
		for (const row of db.all<{
			job: number;
			sales: number;
			net: number;
			cash: number;
			withheld: number;
		}>(sql`
			select j.job, j.sales, d.net_sterling as net, o.withheld,
				case when o.currency = 'GBP' then o.cash else (2 * o.cash * o.total_sterling + o.total) / (2 * o.total) end as cash
			from (select job_id as job, document_id as document, -sum(sterling) as sales from journal_lines
				where job_id in (${ids}) and account = 'sales' group by job_id, document_id) j
			join documents d on d.id = j.document join open_items o on o.document_id = d.id where d.net_sterling > 0`)) {
			const book = books.get(row.job)!;
			const share = (of: number) => divideRounded(BigInt(of) * BigInt(row.sales), BigInt(row.net));
			book.received += share(row.cash);
			book.withheld += share(row.withheld);
		}
		// What is held back is earned, and billed when it is released.
		for (const row of db.all<{ job: number; held: number }>(sql`
			select l.job_id as job, sum(l.retention) as held from document_lines l
			join retentions r on r.document_id = l.document_id and r.released_by_id is null
			where l.job_id in (${ids}) group by l.job_id`))
			books.get(row.job)!.billed += BigInt(row.held);
	}
	return books;
}

/** Margins by job. */
export function marginsOf(world: World, jobIds: readonly number[]): Map<number, Margin> {
	const { db } = world;
	const works = jobWorks(db, jobIds);
	const books = jobBooks(db, jobIds);
	const today = world.clock.today();
	const registered = sellerOn(sellerRecord(db), today).vatRegistered;
	const facts = new Map<number, { state: string; pricesIncludeVat: boolean }>();
	for (let start = 0; start < jobIds.length; start += AT_ONCE)
		for (const row of db
			.select({ id: jobs.id, state: jobs.state, pricesIncludeVat: jobs.pricesIncludeVat })
			.from(jobs)
			.where(inArray(jobs.id, jobIds.slice(start, start + AT_ONCE)))
			.all())
			facts.set(row.id, row);
	return new Map(
		jobIds.flatMap((id) => {
			const fact = facts.get(id);
			if (!fact) return [];
			const withoutVat = (amount: bigint, vat: string): bigint => {
				const rate = GB.rateOn(vat as VatTreatment, today)?.rate;
				return fact.pricesIncludeVat && registered && rate
					? amount - taxWithin(amount, rate)
					: amount;
			};
			const complete = fact.state === 'billed';
			return [[id, marginOf(works.get(id)!, { ...books.get(id)!, complete }, withoutVat)]];
		})
	);
}

export interface MarginFilter {
	customerId?: number | undefined;
	label?: string | undefined;
	/** 0: jobs without one. */
	workKindId?: number | undefined;
	/** By the day jobs were finished, both included. */
	from?: string | undefined;
	to?: string | undefined;
}

/** The margins of all jobs that match, and their sum. Jobs without a finishing day count where no dates are asked for. */
export function marginReport(world: World, filter: MarginFilter = {}) {
	must('work');
	const rows = world.db
		.select({
			id: jobs.id,
			number: jobs.number,
			title: jobs.title,
			state: jobs.state,
			customer: customers.name,
			customerId: jobs.customerId,
			finishedOn: jobs.finishedOn,
			workKindId: jobs.workKindId,
			workKind: workKinds.name
		})
		.from(jobs)
		.innerJoin(customers, eq(customers.id, jobs.customerId))
		.leftJoin(workKinds, eq(workKinds.id, jobs.workKindId))
		.where(
			and(
				filter.workKindId === undefined
					? undefined
					: sql`coalesce(${jobs.workKindId}, 0) = ${filter.workKindId}`,
				sql`${jobs.state} not in ('enquiry', 'dropped')`,
				filter.customerId === undefined ? undefined : eq(jobs.customerId, filter.customerId),
				filter.label
					? sql`exists (select 1 from json_each(${jobs.labels}) where value = ${filter.label})`
					: undefined,
				filter.from ? sql`${jobs.finishedOn} >= ${filter.from}` : undefined,
				filter.to ? sql`${jobs.finishedOn} <= ${filter.to}` : undefined
			)
		)
		.orderBy(sql`${jobs.id} desc`)
		.all();
	const margins = marginsOf(
		world,
		rows.map((row) => row.id)
	);
	const byKind = new Map<number, { name: string; margins: Margin[] }>();
	for (const { id, workKindId, workKind } of rows) {
		const kind = byKind.get(workKindId ?? 0) ?? { name: workKind ?? '', margins: [] };
		kind.margins.push(margins.get(id)!);
		byKind.set(workKindId ?? 0, kind);
	}
	return {
		rows: rows.map((row) => ({ ...row, margin: margins.get(row.id)! })),
		kinds: [...byKind].map(([id, { name, margins: own }]) => ({
			id,
			name,
			count: own.length,
			margin: addMargins(own)
		})),
		total: addMargins([...margins.values()])
	};
}
