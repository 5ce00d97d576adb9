// A bill run: which jobs go onto which invoice, and how they are shown there.
import { addDays } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';
import type { ContractClass, CustomerKind } from '../regimes/types';
import { billLines, type Billable } from './billing';
import type { JobState } from './types';
import { blankSheet } from '../sheet/blank';
import type { Sheet, SheetLine, SheetRow } from '../sheet/types';

export const RUN_SPLITS = ['customer', 'job'] as const;
export const RUN_SHAPES = ['job', 'items', 'period'] as const;

export interface RunOptions {
	/** One invoice for each customer, or for each job. */
	split: (typeof RUN_SPLITS)[number];
	/** A line for each job, every item with its job's reference, or one line for the period. */
	shape: (typeof RUN_SHAPES)[number];
}

export interface RunJob {
	id: number;
	customerId: number;
	customerKind: CustomerKind;
	billToId: number | null;
	siteId: number | null;
	/** The owner's own kind of work: jobs of several kinds stand on one invoice, which then has none. */
	workKindId?: number | null;
	contract: ContractClass | null;
	contractReason: string;
	/** What the customer wrote of being its end user: jobs that differ never mix. */
	endUser?: Sheet['endUser'];
	pricesIncludeVat: boolean;
	retention: string;
	retentionDue: string;
	finishedOn: PlainDate | null;
	/** The day that decides its rates, and what holds for both parties on that day: jobs that differ never mix. */
	standing: string;
	billables: Billable[];
	/** Its line, `J-0012: Repoint chimney · Flat 3 · finished 3 Nov 2026`, with a word for a part of it. */
	label: (what?: string) => string;
	/** `J-0012`. */
	number: string;
}

export interface RunInvoice {
	customerId: number;
	jobIds: number[];
	sheet: Sheet;
	/** Why this customer's jobs stand on more than one invoice; empty where they do not. */
	splitBecause: string[];
}

/** An invoice of a run as it is looked through before it is made. */
export interface PlannedInvoice {
	customerId: number;
	customer: string;
	jobs: { id: number; number: string; title: string }[];
	total: Minor;
	payable: Minor;
	splitBecause: string[];
	warnings: string[];
	/** Nobody to send it to. */
	noAddress: boolean;
}

export interface LeftOut {
	jobId: number;
	number: string;
	title: string;
	customer: string;
	because: string;
}

export interface RunPlan {
	invoices: PlannedInvoice[];
	leftOut: LeftOut[];
	/** Finished more than 14 days ago: they keep their own tax points. */
	old: number;
	jobs: number;
	total: Minor;
}

/** Which jobs a run is asked for; what is left open matches all. */
export interface RunFilter {
	customerId?: number | undefined;
	billToId?: number | undefined;
	siteId?: number | undefined;
	label?: string | undefined;
	/** By the day the work was finished, both included. */
	from?: PlainDate | undefined;
	to?: PlainDate | undefined;
}

/** What a run looks at to take a job or leave it. */
export interface Waiting {
	customerId: number;
	customerKind: CustomerKind;
	billToId: number | null;
	siteId: number | null;
	labels: readonly string[];
	state: JobState;
	contract: ContractClass | null;
	finishedOn: PlainDate | null;
	staged: boolean;
}

/** Whether a run over this choice is about a job at all. */
export function isAskedFor(filter: RunFilter, job: Waiting): boolean {
	const { customerId, billToId, siteId, label, from, to } = filter;
	return (
		(!customerId || job.customerId === customerId) &&
		(!billToId || job.billToId === billToId) &&
		(!siteId || job.siteId === siteId) &&
		(!label || job.labels.includes(label)) &&
		(!from || (job.finishedOn ?? '') >= from) &&
		(!to || (job.finishedOn !== null && job.finishedOn <= to))
	);
}

/** A run can be told to leave alone what was finished longer ago than this: it has tax points of its own. */
export const RECENT_DAYS = 14;

/** Why a run leaves out a job it is about, in words and as its list says it; null where it takes the job. */
export function leftOutBecause(
	choice: { states?: readonly JobState[] | undefined; within14: boolean },
	job: Waiting,
	today: PlainDate
): { short: string; because: string } | null {
	if (job.finishedOn === null && !choice.states?.includes(job.state))
		return {
			short: 'under way',
			because: 'It is not finished yet: bill its time and costs on the job.'
		};
	if (job.staged)
		return {
			short: 'in stages',
			because: 'It is billed in stages: bill the next one on the job.'
		};
	if (choice.within14 && job.finishedOn !== null && job.finishedOn < addDays(today, -RECENT_DAYS))
		return { short: 'older', because: 'Finished more than 14 days ago, and left for later.' };
	if (job.customerKind === 'contractor' && job.contract === null)
		return {
			short: 'construction?',
			because: 'Say on the job whether its contract contains construction work.'
		};
	return null;
}

/** What keeps jobs apart, and in which words. */
const REASONS: [fact: (job: RunJob) => unknown, words: string][] = [
	[(job) => job.billToId, 'the bill goes to different people'],
	[(job) => job.contract, 'their contracts are of different classes'],
	[
		(job) => JSON.stringify(job.endUser ?? null),
		'the customer is the end user of some and not of others'
	],
	[(job) => job.pricesIncludeVat, 'some prices include VAT and others do not'],
	[(job) => job.standing, 'the tax standing or a rate changed in between'],
	[(job) => job.retention, 'different parts are held back'],
	[(job) => job.finishedOn === null, 'some of the work is still under way']
];

/**
 * The invoices of a run, in the order of the jobs. Contract classes, tax standings, bill-tos and ways of pricing
 * never mix on one invoice.
 * @param period what a line for the whole period says, with a word for a part of it
 */
export function planRun(
	jobs: readonly RunJob[],
	{ split, shape }: RunOptions,
	period: (what?: string) => string
): RunInvoice[] {
	const groups = new Map<string, RunJob[]>();
	for (const job of jobs) {
		const key = JSON.stringify([
			job.customerId,
			...REASONS.map(([fact]) => fact(job) ?? null),
			split === 'job' ? job.id : 0
		]);
		groups.set(key, [...(groups.get(key) ?? []), job]);
	}
	const byCustomer = new Map<number, RunJob[][]>();
	for (const members of groups.values()) {
		const { customerId } = members[0]!;
		byCustomer.set(customerId, [...(byCustomer.get(customerId) ?? []), members]);
	}
	return [...groups.values()].map((members) => ({
		customerId: members[0]!.customerId,
		jobIds: members.map((job) => job.id),
		sheet: sheetOf(members, shape, period),
		splitBecause: split === 'job' ? [] : reasonsBetween(byCustomer.get(members[0]!.customerId)!)
	}));
}

function reasonsBetween(groups: RunJob[][]): string[] {
	if (groups.length < 2) return [];
	return REASONS.filter(
		([fact]) => new Set(groups.map((members) => JSON.stringify(fact(members[0]!)))).size > 1
	).map(([, words]) => words);
}

const withReason = (contractReason: string) =>
	contractReason ? { contractReason: contractReason.slice(0, 500) } : {};

function sheetOf(
	jobs: RunJob[],
	shape: RunOptions['shape'],
	period: (what?: string) => string
): Sheet {
	const first = jobs[0]!;
	const sites = new Set(jobs.map((job) => job.siteId));
	const kinds = new Set(jobs.map((job) => job.workKindId ?? null));
	const finished = jobs.flatMap((job) => job.finishedOn ?? []).sort();
	return {
		...blankSheet(),
		customerId: first.customerId,
		siteId: sites.size === 1 ? first.siteId : null,
		...(first.billToId ? { billToId: first.billToId } : {}),
		...(kinds.size === 1 && first.workKindId ? { workKindId: first.workKindId } : {}),
		contract: first.customerKind === 'contractor' ? first.contract : null,
		...(first.endUser ? { endUser: first.endUser } : {}),
		...withReason([...new Set(jobs.map((job) => job.contractReason))].filter(Boolean).join('; ')),
		workFinished: finished.at(-1) ?? '',
		reference: jobs.length === 1 ? first.number : '',
		pricesIncludeVat: first.pricesIncludeVat,
		retention: first.retention,
		retentionDue: first.retentionDue,
		rows: shape === 'period' ? periodRows(jobs, period) : jobs.flatMap((job) => jobRows(job, shape))
	};
}

function jobRows(job: RunJob, shape: 'job' | 'items'): SheetRow[] {
	let count = 0;
	const lines = billLines(job.billables, shape === 'items' ? 'lines' : 'single', {
		jobId: job.id,
		newId: () => `j${job.id}-${++count}`,
		workDone: job.finishedOn,
		label: (what) => job.label(what)
	});
	if (shape === 'job') return lines;
	return [{ id: `h${job.id}`, type: 'heading', text: job.label().slice(0, 500) }, ...lines];
}

/** One line for each rate over all jobs. A line can belong to one job only, so each keeps its own and the page adds up. */
function periodRows(jobs: RunJob[], period: (what?: string) => string): SheetRow[] {
	const lines = jobs.flatMap((job) => jobRows(job, 'job')) as SheetLine[];
	const rates = [
		...new Set(lines.map((line) => `${line.vat} ${line.vatReason} ${line.kind === 'levy'}`))
	];
	return rates.flatMap((rate, index): SheetRow[] => {
		const members = lines.filter(
			(line) => `${line.vat} ${line.vatReason} ${line.kind === 'levy'}` === rate
		);
		return [
			{ id: `p${index + 1}`, type: 'heading', text: period().slice(0, 500), single: true },
			...members
		];
	});
}
