// Jobs: begun, agreed, changed, taken through their states.
import { must } from '../../actor';
import { asc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { lineAmount } from '../../../core/jobs/billing';
import { decideContract } from '../../../core/regimes/gb/contract';
import type { JobLine } from '../../../core/jobs/types';
import { displayPounds } from '../../../core/money/display';
import { CONTRACT_CLASSES } from '../../../core/regimes/types';
import { CONTRACT_NAMES } from '../../../core/words';
import { blankSheet, pricesIncludeVatFor } from '../../../core/sheet/blank';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { customers, jobLines, jobs, sites, stages } from '../../db/schema';
import type { World } from '../../world';
import { customerOn, sellerOn } from '../../../core/parties';
import type { Sheet } from '../../../core/sheet/types';
import { sellerRecord } from '../business/settings';
import { customerRecord } from '../customers/parts';
import {
	parseForm,
	day,
	labels,
	required,
	text,
	typedNumber,
	typedPercent
} from '../business/fields';
import { workChanged } from './takenParts';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { workKindById } from '../business/workKinds';
import { noteJob } from '../trail/jobs';
import { lineForm, agreedSum, saveLines, hasBeenBilled } from './lines';

export const jobForm = z.object({
	title: required(200, 'Give it a title.'),
	customerId: z.number('Choose the customer.').int().positive(),
	siteId: z.number().int().positive().nullable().default(null),
	billToId: z.number().int().positive().nullable().default(null),
	workKindId: z.number().int().positive().nullable().catch(null).default(null),
	contract: z.enum(CONTRACT_CLASSES).nullable().default(null),
	contractReason: text(500),
	endUserStatement: text(500),
	endUserDate: day.nullable().transform((date) => date ?? ''),
	description: text(10_000),
	privateNote: text(10_000),
	labels,
	fixedPrice: z.boolean().default(true),
	pricesIncludeVat: z.boolean().optional(),
	hourlyRate: typedNumber('a rate', { decimals: 4 }),
	hourlyCost: typedNumber('what an hour costs', { decimals: 4 }),
	retention: typedPercent('a percentage'),
	retentionDue: day,
	lines: z.array(lineForm).max(1000, 'At most 1,000 lines.').optional()
});
export type JobForm = z.input<typeof jobForm>;
export type JobValues = z.output<typeof jobForm>;

/** The next free number: `J-0001`, one after the other. */
function nextNumber(tx: Transaction): string {
	const { n } = tx.get<{ n: number }>(
		sql`select coalesce(max(cast(substr(number, 3) as integer)), 0) + 1 as n from jobs where number like 'J-%'`
	);
	return `J-${String(n).padStart(4, '0')}`;
}

/** Begins a job. The same key again gives that one back. @throws FieldError */
export function addJob(
	world: World,
	key: string,
	input: unknown,
	state: 'enquiry' | 'booked' = 'booked'
): number {
	must('work');
	const form = parseForm(jobForm, input);
	return writeAtOnce(world.db, (tx) => jobOnce(tx, world, key, () => form, state).id);
}

/**
 * The job of this key, made where there is none yet. `add` gives what it is made of.
 * @returns its id, and whether it was made now @throws FieldError
 */
export function jobOnce(
	tx: Transaction,
	world: World,
	key: string,
	add: () => JobValues,
	state: 'enquiry' | 'booked'
): { id: number; made: boolean } {
	const same = tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.key, key)).get();
	if (same) return { id: same.id, made: false };
	const form = add();
	const now = world.clock.now();
	const customer = checkParties(tx, form);
	checkContract(tx, world, form, null);
	const { lines: _lines, ...values } = form;
	const { id } = tx
		.insert(jobs)
		.values({
			...values,
			pricesIncludeVat: form.pricesIncludeVat ?? pricesIncludeVatFor(customer.kind),
			retentionDue: form.retentionDue || null,
			endUserDate: form.endUserDate || null,
			key,
			number: nextNumber(tx),
			state,
			createdAt: now,
			updatedAt: now
		})
		.returning({ id: jobs.id })
		.get();
	saveLines(tx, id, form.lines ?? []);
	noteJob(tx, id, now, 'begun');
	return { id, made: true };
}

/** @throws FieldError, NotFoundError, ConflictError; RefusedError where what is billed would change */
export function saveJob(world: World, id: number, version: number, input: unknown): number {
	must('work');
	const form = parseForm(jobForm, input);
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const row = loadJob(tx, id);
		if (row.version !== version)
			throw new ConflictError('This job was changed in another tab. Load it again to see how.');
		checkParties(tx, form);
		if (row.customerId !== form.customerId && hasBeenBilled(tx, id))
			throw new FieldError({
				customerId: 'Something of this job is billed already, so its customer stays.'
			});
		if (form.contract !== row.contract && hasBeenBilled(tx, id) && row.contract !== null)
			throw new FieldError({
				contract: 'Something is billed under this class already; it cannot flip midway.'
			});
		checkContract(tx, world, form, row.contract);
		const { lines, pricesIncludeVat, ...values } = form;
		tx.update(jobs)
			.set({
				...values,
				...(pricesIncludeVat === undefined ? {} : { pricesIncludeVat }),
				retentionDue: form.retentionDue || null,
				endUserDate: form.endUserDate || null,
				version: version + 1,
				updatedAt: now
			})
			.where(eq(jobs.id, id))
			.run();
		if (form.contract !== row.contract && form.contract)
			noteJob(
				tx,
				id,
				now,
				'contractDecided',
				[CONTRACT_NAMES[form.contract], form.contractReason].filter(Boolean).join(': ')
			);
		if (lines) {
			const before = agreedSum(tx, id);
			saveLines(tx, id, lines);
			const after = agreedSum(tx, id);
			if (before !== after && before !== 0n)
				noteJob(tx, id, now, 'sumChanged', `${displayPounds(before)} → ${displayPounds(after)}`);
		}
		workChanged(tx, id, now);
		return version + 1;
	});
}

/** The class of a contract is the owner's to say, with a reason where the lines, or the customer's standing, say otherwise. */
function checkContract(
	tx: Transaction,
	world: World,
	{ contract, contractReason, customerId, lines }: JobValues,
	before: JobValues['contract']
): void {
	if (!contract || contract === before || contractReason !== '') return;
	const decided = lines?.length
		? decideContract(lines.map((line) => ({ ...line, net: lineAmount(line) }))).contract
		: null;
	if (decided !== null && decided !== contract)
		throw new FieldError({ contractReason: 'The lines say otherwise: give your reason.' });
	const today = world.clock.today();
	const customer = customerRecord(tx, customerId);
	const { vatRegistered, cisRegistered, endUser } = customerOn(customer!, today).standing;
	if (
		decided === null &&
		contract !== 'construction' &&
		sellerOn(sellerRecord(tx), today).vatRegistered &&
		vatRegistered &&
		cisRegistered &&
		!endUser
	)
		throw new FieldError({
			contractReason: `You would charge ${customer!.name} VAT, although it is registered for VAT and CIS. Say why.`
		});
}

/** What a sheet for a job begins with: who is billed, and how its contract stands. */
export function sheetParties(
	job: ReturnType<typeof loadJob>
): Pick<
	Sheet,
	'customerId' | 'siteId' | 'billToId' | 'workKindId' | 'contract' | 'contractReason' | 'endUser'
> {
	const { customerId, siteId, billToId, contract, endUserStatement: statement, endUserDate } = job;
	const reason = reasonOf(job);
	return {
		customerId,
		siteId,
		...(billToId ? { billToId } : {}),
		...(job.workKindId ? { workKindId: job.workKindId } : {}),
		contract,
		...(reason ? { contractReason: reason } : {}),
		...(statement || endUserDate ? { endUser: { statement, date: endUserDate ?? '' } } : {})
	};
}

/** What is agreed on a job as a sheet, as it is changed: the row `l<id>` is the line of that id. */
export function agreedSheet(job: ReturnType<typeof loadJob>, lines: readonly JobLine[]): Sheet {
	return {
		...blankSheet(),
		...sheetParties(job),
		pricesIncludeVat: job.pricesIncludeVat,
		rows: lines.map(({ id, extra: _extra, itemId, ...line }) => ({
			...line,
			id: `l${id}`,
			type: 'line',
			...(itemId ? { itemId } : {})
		}))
	};
}

/** Why a job's contract has its class: as the owner says, or as its lines do. */
export const reasonOf = ({
	contract,
	contractReason
}: Pick<typeof jobs.$inferSelect, 'contract' | 'contractReason'>): string =>
	contractReason.trim() || (contract === 'minor' ? 'By the lines agreed on the job' : '');

function checkParties(tx: Transaction, form: JobValues) {
	if (form.workKindId !== null && !workKindById(tx, form.workKindId))
		throw new FieldError({ workKindId: 'This kind of work is gone. Choose another.' });
	const customer = tx.select().from(customers).where(eq(customers.id, form.customerId)).get();
	if (!customer) throw new FieldError({ customerId: 'This customer is not here any more.' });
	if (form.siteId !== null) {
		const site = tx.select().from(sites).where(eq(sites.id, form.siteId)).get();
		if (site?.customerId !== customer.id)
			throw new FieldError({ siteId: 'This site is not one of the customer’s.' });
	}
	if (form.billToId !== null) {
		if (form.billToId === customer.id)
			throw new FieldError({ billToId: 'The customer gets the bill anyway.' });
		if (!tx.select().from(customers).where(eq(customers.id, form.billToId)).get())
			throw new FieldError({ billToId: 'That customer is not here any more.' });
	}
	return customer;
}

export function loadJob(db: Reader, id: number) {
	const row = db.select().from(jobs).where(eq(jobs.id, id)).get();
	if (!row) throw new NotFoundError('This job');
	return row;
}

/** Removes a job nothing was ever billed of. @throws RefusedError */
export function removeJob(world: World, id: number): void {
	must('work');
	writeAtOnce(world.db, (tx) => {
		loadJob(tx, id);
		if (hasBeenBilled(tx, id))
			throw new RefusedError('Something of this job is billed, so it stays. Cancel it instead.');
		const old = tx.select({ id: stages.id }).from(stages).where(eq(stages.jobId, id)).all();
		if (old.length > 0)
			throw new RefusedError('Invoices were made for this job, so it stays. Cancel it instead.');
		const given = tx.get(
			sql`select 1 from job_sheets where job_id = ${id} and state = 'finished' limit 1`
		);
		if (given)
			throw new RefusedError('A job sheet of it is finished, so it stays. Cancel it instead.');
		tx.delete(jobs).where(eq(jobs.id, id)).run();
	});
}

/** What class the lines make of the contract, with the working. */
export function contractOf(db: Reader, jobId: number) {
	const lines = db
		.select()
		.from(jobLines)
		.where(eq(jobLines.jobId, jobId))
		.orderBy(asc(jobLines.position))
		.all();
	return decideContract(
		lines.map((line) => ({ kind: line.kind, vat: line.vat, net: lineAmount(line) }))
	);
}
