// What a bill run would make of a choice, and what it leaves out and why.
import { z } from 'zod';
import { displayDate } from '../../../core/calendar/conversion';
import { addDays } from '../../../core/calendar/manipulation';
import type { PlainDate } from '../../../core/calendar/types';
import { customerOn, sellerOn } from '../../../core/parties';
import { JOB_STATES } from '../../../core/jobs/types';
import {
	leftOutBecause,
	planRun,
	RECENT_DAYS,
	RUN_SHAPES,
	RUN_SPLITS,
	type LeftOut,
	type PlannedInvoice,
	type RunInvoice,
	type RunJob,
	type RunPlan
} from '../../../core/jobs/run';
import { formatDecimal } from '../../../core/money/decimal';
import { GB } from '../../../core/regimes/gb';
import type { VatTreatment } from '../../../core/regimes/types';
import { decideTaxPoint } from '../../../core/regimes/gb/taxPoint';
import { readSheet } from '../../../core/sheet/read';
import type { Problem } from '../../../core/sheet/types';
import { whileUnchanged } from '../../db/unchanged';
import type { World } from '../../world';
import { sellerRecord } from '../business/settings';
import { parseForm, day } from '../business/fields';
import { customerRecord, mailAddresses } from '../customers/parts';
import { sheetContext } from '../invoices/context';
import { jobLabel, toBill, type ToBillJob } from './toBill';

export const id = z.number().int().positive();

export const choiceForm = z.object({
	customerId: id.optional(),
	billToId: id.optional(),
	siteId: id.optional(),
	label: z.string().max(40).optional(),
	from: day,
	to: day,
	/** Work still under way is billed only where its state is named: its time and its costs. */
	states: z.array(z.enum(JOB_STATES)).optional(),
	/** Only these, out of what matches; absent: all of it. */
	jobIds: z.array(id).max(100_000).optional(),
	/** Leave out what was finished more than 14 days ago. */
	within14: z.boolean().default(false),
	split: z.enum(RUN_SPLITS).default('customer'),
	shape: z.enum(RUN_SHAPES).default('job')
});

export type Choice = z.input<typeof choiceForm>;

type ReadChoice = z.output<typeof choiceForm>;

interface FullPlan extends RunPlan {
	planned: RunInvoice[];
	/** How often each job had been changed: a step whose job changed since is skipped. */
	worked: Map<number, number>;
}

/** What a run over this choice would make, with everything it leaves out and why. */
export function planBillRun(world: World, input: unknown): RunPlan {
	const {
		planned: _planned,
		worked: _worked,
		...plan
	} = fullPlan(world, parseForm(choiceForm, input));
	return plan;
}

/** The plan of a choice: what was looked through is not planned again when it is started, unless something changed. */
export function fullPlan(world: World, choice: ReadChoice): FullPlan {
	const key = `run ${world.clock.today()} ${JSON.stringify(choice)}`;
	return whileUnchanged(world.db, key, () => planned(world, choice));
}

function planned(world: World, choice: ReadChoice): FullPlan {
	const today = world.clock.today();
	const oldBefore = addDays(today, -RECENT_DAYS);
	const found = toBill(world, {
		...choice,
		from: choice.from || undefined,
		to: choice.to || undefined
	});
	const leftOut: LeftOut[] = [];
	const leave = (job: ToBillJob, because: string) =>
		leftOut.push({
			jobId: job.id,
			number: job.number,
			title: job.title,
			customer: job.customer,
			because
		});
	const wanted = found.filter((job) => {
		const out = leftOutBecause(choice, job, today);
		if (out) leave(job, out.because);
		return out === null;
	});
	const standing = standingReader(world, today);
	const planned = planRun(
		wanted.map((job) => asRunJob(job, standing(job))),
		choice,
		(what = '') => periodLabel(wanted, what)
	);
	const byId = new Map(wanted.map((job) => [job.id, job]));
	const readContext = contextReader(world);
	const addressed = addressReader(world);
	const invoices: PlannedInvoice[] = [];
	const kept: RunInvoice[] = [];
	for (const one of planned) {
		const jobs = one.jobIds.map((jobId) => byId.get(jobId)!);
		const context = readContext(one);
		const reading = readSheet(one.sheet, context);
		const stops = reading.problems.filter((problem) => problem.level === 'stop');
		if (stops.length || !reading.figures) {
			for (const job of jobs) leave(job, stops[0]?.message ?? 'It comes to nothing.');
			continue;
		}
		kept.push(one);
		invoices.push({
			customerId: one.customerId,
			customer: jobs[0]!.customer,
			jobs: jobs.map(({ id: jobId, number, title }) => ({ id: jobId, number, title })),
			total: reading.figures.total,
			payable: reading.figures.payable,
			splitBecause: one.splitBecause,
			warnings: warningsOf(reading.problems, jobs, oldBefore),
			noAddress: !addressed(one)
		});
	}
	return {
		invoices,
		planned: kept,
		worked: new Map(wanted.map((job) => [job.id, job.worked])),
		leftOut,
		old: wanted.filter((job) => job.finishedOn !== null && job.finishedOn < oldBefore).length,
		jobs: kept.reduce((sum, one) => sum + one.jobIds.length, 0),
		total: invoices.reduce((sum, one) => sum + one.total, 0n)
	};
}

/** Parties are looked up once for each customer and bill-to, however many invoices they get. */
function contextReader(world: World) {
	const known = new Map<string, ReturnType<typeof sheetContext>>();
	return ({ sheet }: RunInvoice) => {
		const key = `${sheet.customerId} ${sheet.billToId ?? ''} ${sheet.siteId ?? ''}`;
		let context = known.get(key);
		if (!context) {
			context = sheetContext(world.db, sheet, world.clock.today());
			known.set(key, context);
		}
		return context;
	};
}

/** Whether there is an address to send to, asked once for each customer and bill-to. */
function addressReader(world: World) {
	const known = new Map<string, boolean>();
	return ({ customerId, sheet }: RunInvoice): boolean => {
		const key = `${customerId} ${sheet.billToId ?? ''} ${sheet.siteId ?? ''}`;
		const found = known.get(key) ?? mailAddresses(world.db, customerId, sheet).length > 0;
		known.set(key, found);
		return found;
	};
}

function warningsOf(problems: Problem[], jobs: ToBillJob[], oldBefore: PlainDate): string[] {
	const old = jobs.filter((job) => job.finishedOn !== null && job.finishedOn < oldBefore);
	const messages = problems
		.filter((problem) => problem.level === 'warning')
		.map((problem) => problem.message);
	return [
		...(old.length
			? [
					`${old.map((job) => job.number).join(', ')} finished more than 14 days ago: the VAT on that belongs to the period it was finished in.`
				]
			: []),
		...new Set(messages)
	];
}

const rateOf = (vat: VatTreatment, date: PlainDate): string => {
	const dated = GB.rateOn(vat, date);
	return dated ? formatDecimal(dated.rate) : '';
};

/** What must be the same for jobs to share an invoice: both parties' standing and the rates on the job's tax point. */
function standingReader(world: World, today: PlainDate) {
	const seller = sellerRecord(world.db);
	const known = new Map<number, ReturnType<typeof customerRecord>>();
	return (job: ToBillJob): string => {
		if (!known.has(job.customerId))
			known.set(job.customerId, customerRecord(world.db, job.customerId));
		const record = known.get(job.customerId)!;
		const { date } = decideTaxPoint(
			{ rule: 'work', workFinished: job.finishedOn ?? today, issued: today },
			(day) => sellerOn(seller, day).vatRegistered
		);
		const { vatRegistered, vatNumber } = sellerOn(seller, date);
		// Only a rate that differs keeps apart; a job that merely uses another one does not.
		const changed = [...new Set(job.billables.map((one) => one.vat))].flatMap((vat) => {
			const then = rateOf(vat, date);
			return then === rateOf(vat, today) ? [] : [`${vat} ${then}`];
		});
		return JSON.stringify([customerOn(record!, date).standing, vatRegistered, vatNumber, changed]);
	};
}

function asRunJob(job: ToBillJob, standing: string): RunJob {
	return {
		id: job.id,
		customerId: job.customerId,
		customerKind: job.customerKind,
		billToId: job.billToId,
		siteId: job.siteId,
		workKindId: job.workKindId,
		contractReason: job.contractReason,
		endUser: job.endUser,
		contract: job.customerKind === 'contractor' ? job.contract : null,
		pricesIncludeVat: job.pricesIncludeVat,
		retention: job.retention,
		retentionDue: job.retentionDue ?? '',
		finishedOn: job.finishedOn,
		standing,
		billables: job.billables,
		number: job.number,
		label: (what) => jobLabel(job, what)
	};
}

function periodLabel(jobs: readonly ToBillJob[], what: string): string {
	const days = jobs.flatMap((job) => job.finishedOn ?? []).sort();
	const span =
		days.length === 0
			? ''
			: days[0] === days.at(-1)
				? `, ${displayDate(days[0]!)}`
				: `, ${displayDate(days[0]!)} to ${displayDate(days.at(-1)!)}`;
	return `Work done${what ? `, ${what}` : ''}${span}`;
}
