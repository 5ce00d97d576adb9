// To bill: what is finished, and what was spent, that no invoice covers yet; and from there to a draft.
import { must } from '../../actor';
import { and, eq, inArray, notInArray, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { daysBetween } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import {
	billablesOf,
	billLines,
	type Billable,
	type BillingShape
} from '../../../core/jobs/billing';
import { isAskedFor, type RunFilter } from '../../../core/jobs/run';
import type { JobState } from '../../../core/jobs/types';
import { blankSheet } from '../../../core/sheet/blank';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Reader } from '../../db/connection';
import { billedParts, customers, jobs, sites, stages } from '../../db/schema';
import type { World } from '../../world';
import { withoutTaken } from '../jobs/takenParts';
import { draftOnce } from '../invoices/drafts';
import { RefusedError } from '../../../core/refusals';
import { loadJob, reasonOf, sheetParties } from '../jobs/jobs';
import { noteJob } from '../trail/jobs';
import { jobWork, jobWorks } from '../jobs/work';
import { contractLines, hasStages } from '../jobs/stageBooks';

export interface ToBillFilter extends RunFilter {
	states?: readonly JobState[] | undefined;
	jobIds?: readonly number[] | undefined;
}

export interface ToBillJob {
	id: number;
	number: string;
	title: string;
	state: JobState;
	customerId: number;
	customer: string;
	customerKind: (typeof customers.$inferSelect)['kind'];
	billToId: number | null;
	workKindId: number | null;
	site: string;
	siteId: number | null;
	labels: string[];
	contract: (typeof jobs.$inferSelect)['contract'];
	contractReason: string;
	/** What the customer wrote of being its end user, and when. */
	endUser: Sheet['endUser'];
	pricesIncludeVat: boolean;
	retention: string;
	retentionDue: string | null;
	finishedOn: PlainDate | null;
	/** Since when it waits, and how many days that is. */
	since: PlainDate | null;
	days: number;
	billables: Billable[];
	/** Pence as priced, with VAT where prices include it. */
	amount: number;
	/** Billed in stages: what is left of its contract; a run leaves it alone. */
	staged: boolean;
	/** Counts the changes of what can be billed. */
	worked: number;
}

/** Finished jobs with anything unbilled; and time and costs of jobs still under way. Oldest first. */
export function toBill(world: World, filter: ToBillFilter = {}): ToBillJob[] {
	const { db } = world;
	const today = world.clock.today();
	const rows = db
		.select({
			job: jobs,
			customer: customers.name,
			customerKind: customers.kind,
			customerBillTo: customers.billToId,
			site: sites.name,
			siteBillTo: sites.billToId
		})
		.from(jobs)
		.innerJoin(customers, eq(customers.id, jobs.customerId))
		.leftJoin(sites, eq(sites.id, jobs.siteId))
		.where(
			and(
				filter.states?.length
					? inArray(jobs.state, [...filter.states])
					: notInArray(jobs.state, ['billed', 'dropped', 'enquiry']),
				filter.customerId ? eq(jobs.customerId, filter.customerId) : undefined
			)
		)
		.orderBy(sql`coalesce(${jobs.finishedOn}, '9999-12-31')`, jobs.id)
		.all()
		.filter(({ job }) => !filter.jobIds || filter.jobIds.includes(job.id));
	const ids = rows.map(({ job }) => job.id);
	const works = jobWorks(db, ids);
	const taken = takenParts(db);
	const staged = new Set(
		db
			.selectDistinct({ id: stages.jobId })
			.from(stages)
			.where(sql`${stages.state} <> 'dropped'`)
			.all()
			.map((row) => row.id)
	);
	return rows.flatMap(({ job, customer, customerKind, customerBillTo, site, siteBillTo }) => {
		const billToId = job.billToId ?? siteBillTo ?? customerBillTo;
		const isStaged = staged.has(job.id);
		if (!isAskedFor(filter, { ...job, customerKind, billToId, staged: isStaged })) return [];
		const billables = billablesOf(works.get(job.id)!).filter(
			({ part }) =>
				!taken.has(`${part.type}:${part.id}`) &&
				// What was agreed is due when it is finished; what was spent can be billed before.
				(part.type === 'line' ? job.finishedOn !== null && !isStaged : true)
		);
		const left = isStaged && job.finishedOn !== null ? leftOf(db, job.id) : 0;
		const amount = billables.reduce((sum, one) => sum + Number(one.amount), 0) + left;
		if (billables.length === 0 && left === 0) return [];
		const dates = billables.flatMap((one) => one.date ?? []).sort();
		const since = job.finishedOn ?? dates[0] ?? null;
		return [
			{
				id: job.id,
				number: job.number,
				title: job.title,
				state: job.state,
				customerId: job.customerId,
				customer,
				customerKind,
				billToId,
				workKindId: job.workKindId,
				site: site ?? '',
				siteId: job.siteId,
				labels: job.labels,
				contract: job.contract,
				contractReason: reasonOf(job),
				endUser: sheetParties(job).endUser,
				pricesIncludeVat: job.pricesIncludeVat,
				retention: job.retention,
				retentionDue: job.retentionDue,
				finishedOn: job.finishedOn,
				since,
				days: since ? Math.max(0, daysBetween(since, today)) : 0,
				billables,
				amount,
				staged: isStaged,
				worked: job.worked
			}
		];
	});
}

function leftOf(db: Reader, jobId: number): number {
	return Number(contractLines(db, jobId).reduce((sum, line) => sum + line.net - line.billed, 0n));
}

/** Every part that some draft or invoice has taken and that a job not yet billed could still show. */
function takenParts(db: Reader): Set<string> {
	return new Set(
		db
			.select({ type: billedParts.type, id: billedParts.partId })
			.from(billedParts)
			.innerJoin(jobs, eq(jobs.id, billedParts.jobId))
			.where(sql`${jobs.state} <> 'billed'`)
			.all()
			.map((row) => `${row.type}:${row.id}`)
	);
}

/** What a job's invoice says: the job's number, its title, where and when. */
export function jobLabel(
	job: Pick<ToBillJob, 'number' | 'title' | 'site' | 'finishedOn'>,
	what = ''
): string {
	const parts = [
		`${job.number}: ${job.title}${what ? `, ${what}` : ''}`,
		job.site,
		job.finishedOn ? `finished ${displayDate(job.finishedOn)}` : ''
	];
	return parts.filter(Boolean).join(' · ');
}

/**
 * A draft for everything of a job that no invoice covers. The same key again gives that draft back.
 * @throws RefusedError where nothing is left, or the job is billed in stages
 */
export function billJob(world: World, jobId: number, shape: BillingShape, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) =>
		draftOnce(
			tx,
			world,
			key,
			() => {
				const job = loadJob(tx, jobId);
				const staged = hasStages(tx, jobId);
				const taken = takenParts(tx);
				const billables = billablesOf(jobWork(tx, jobId)).filter(
					({ part }) => !taken.has(`${part.type}:${part.id}`) && !(staged && part.type === 'line')
				);
				if (billables.length === 0)
					throw new RefusedError(
						staged
							? 'This job is billed in stages: bill the next one there.'
							: 'Everything of this job is on an invoice already.'
					);
				const sheet: Sheet = {
					...sheetOfJob(tx, job, billables, shape),
					...(staged ? {} : { retention: job.retention, retentionDue: job.retentionDue ?? '' })
				};
				return { sheet, origin: 'job' };
			},
			() => noteJob(tx, jobId, world.clock.now(), 'invoiced')
		)
	);
}

function sheetOfJob(
	tx: Reader,
	job: ReturnType<typeof loadJob>,
	billables: readonly Billable[],
	shape: BillingShape
): Sheet {
	const site = job.siteId
		? tx.select().from(sites).where(eq(sites.id, job.siteId)).get()
		: undefined;
	let rows = 0;
	return {
		...blankSheet(),
		...sheetParties(job),
		workFinished: job.finishedOn ?? '',
		reference: job.number,
		pricesIncludeVat: job.pricesIncludeVat,
		rows: billLines(billables, shape, {
			jobId: job.id,
			newId: () => `j${job.id}-${++rows}`,
			workDone: null,
			label: (what: string) => jobLabel({ ...job, site: site?.name ?? '', finishedOn: null }, what)
		})
	};
}

/**
 * A draft of what is agreed on a job that bills nothing of it, for a repeat to begin from. The same key again gives
 * that one back.
 * @throws RefusedError where nothing is agreed
 */
export function jobAsPattern(world: World, jobId: number, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) =>
		draftOnce(tx, world, key, () => {
			const agreed = billablesOf(jobWork(tx, jobId)).filter(({ part }) => part.type === 'line');
			if (agreed.length === 0) throw new RefusedError('Nothing is agreed on this job yet.');
			const sheet = sheetOfJob(tx, loadJob(tx, jobId), agreed, 'lines');
			return { sheet: withoutTaken({ ...sheet, workFinished: '' }), origin: 'jobPattern' };
		})
	);
}

/** What of a customer's jobs no invoice covers yet, ready to be put on one. Prices stand as each job takes them. */
export function unbilledOf(world: World, customerId: number) {
	const { db } = world;
	return toBill(world, { customerId })
		.filter(({ billables }) => billables.length > 0)
		.map(({ id, number, title, amount, finishedOn, staged, billables }) => {
			const job = loadJob(db, id);
			const sheet = sheetOfJob(db, job, billables, 'lines');
			const held = staged
				? {}
				: { retention: job.retention, retentionDue: job.retentionDue ?? ('' as const) };
			return { id, number, title, amount, finishedOn, sheet: { ...sheet, ...held } };
		});
}
