// What a document bills is taken by it, so that nothing is billed twice, whatever runs at once.
import { and, eq, inArray, sql } from 'drizzle-orm';
import { billablesOf } from '../../../core/jobs/billing';
import type { BilledPart, BilledType } from '../../../core/jobs/types';
import type { Problem, Sheet, SheetLine } from '../../../core/sheet/types';
import type { Transaction, Reader } from '../../db/connection';
import { billedParts, documents, jobs, retentions, stages } from '../../db/schema';
import { jobWork } from './work';
import { stagedLines } from './stageBooks';
import { noteJob } from '../trail/jobs';

interface Claim extends BilledPart {
	jobId: number;
	rowId: string;
}

/** What the lines of a sheet bill. */
export function takenBySheet(sheet: Sheet): Claim[] {
	return sheet.rows.flatMap((row) =>
		row.type === 'line' && row.bills && row.jobId
			? row.bills.map((part) => ({ ...part, jobId: row.jobId!, rowId: row.id }))
			: []
	);
}

/**
 * Makes a draft hold exactly what its lines bill, as far as it is free; what others hold stays theirs.
 * Called in the transaction that saves the draft.
 */
export function syncTaken(tx: Transaction, documentId: number, sheet: Sheet): void {
	const wanted = takenBySheet(sheet);
	const held = tx.select().from(billedParts).where(eq(billedParts.documentId, documentId)).all();
	if (wanted.length === 0 && held.length === 0) return;
	const keys = new Set(wanted.map((part) => `${part.type}:${part.id}`));
	for (const part of held)
		if (!keys.has(`${part.type}:${part.partId}`))
			tx.delete(billedParts)
				.where(and(eq(billedParts.type, part.type), eq(billedParts.partId, part.partId)))
				.run();
	const staged = stagedLines(tx, [...new Set(wanted.map((part) => part.jobId))]);
	for (const { type, id, jobId } of wanted)
		if (type !== 'line' || !staged.has(id))
			tx.insert(billedParts)
				.values({ type, partId: id, jobId, documentId })
				.onConflictDoNothing()
				.run();
}

/** Frees everything a document holds: it was thrown away, or credited in full. */
export function freeTaken(tx: Transaction, documentId: number, at: number): void {
	const touched = jobsOf(tx, documentId);
	tx.delete(billedParts).where(eq(billedParts.documentId, documentId)).run();
	tx.update(stages).set({ state: 'dropped' }).where(eq(stages.documentId, documentId)).run();
	tx.update(retentions)
		.set({ releasedById: null })
		.where(eq(retentions.releasedById, documentId))
		.run();
	for (const jobId of touched) settleJobState(tx, jobId, at);
}

/** Jobs a document bills, by its claims and its stage. */
export function jobsOf(db: Reader, documentId: number): number[] {
	const claimed = db
		.selectDistinct({ id: billedParts.jobId })
		.from(billedParts)
		.where(eq(billedParts.documentId, documentId))
		.all();
	const staged = db
		.select({ id: stages.jobId })
		.from(stages)
		.where(eq(stages.documentId, documentId))
		.all();
	return [...new Set([...claimed, ...staged].map((row) => row.id))];
}

/**
 * Lines that bill what this document does not hold: someone else bills it, or it is gone. For the moment of issuing.
 * @param holders the document, and the one in whose place it stands
 */
export function takenProblems(db: Reader, holders: readonly number[], sheet: Sheet): Problem[] {
	const wanted = takenBySheet(sheet);
	if (wanted.length === 0) return [];
	const problems: Problem[] = [];
	const seen = new Set<string>();
	for (const claim of wanted) {
		const key = `${claim.type}:${claim.id}`;
		if (seen.has(key)) {
			problems.push({
				path: `rows.${claim.rowId}.description`,
				level: 'stop',
				message: 'Another line here bills the same. Take one of them out.'
			});
			continue;
		}
		seen.add(key);
		const holder = db
			.select({ documentId: billedParts.documentId, number: documents.number })
			.from(billedParts)
			.leftJoin(documents, eq(documents.id, billedParts.documentId))
			.where(and(eq(billedParts.type, claim.type), eq(billedParts.partId, claim.id)))
			.get();
		if (holder && holders.includes(holder.documentId)) continue;
		const staged = claim.type === 'line' && stagedLines(db, [claim.jobId]).has(claim.id);
		problems.push({
			path: `rows.${claim.rowId}.description`,
			level: 'stop',
			message: staged
				? 'Stages of its job bill this line. Take it out here.'
				: holder
					? `${holder.number ?? 'Another draft'} bills this already. Take the line out here, or there.`
					: 'What this line billed is not on its job any more. Take it out, or add it to the job again.'
		});
		if (problems.length >= 20) break;
	}
	return problems;
}

/** A sheet as a new one: its lines bill nothing, because the first one does. */
export function withoutTaken(sheet: Sheet): Sheet {
	const {
		stageId: _stage,
		deposit: _deposit,
		releases: _releases,
		about: _about,
		selfBilled: _theirs,
		opening: _opening,
		...rest
	} = sheet;
	return {
		...rest,
		rows: sheet.rows.map((row) => {
			if (row.type !== 'line') return row;
			const { bills: _bills, jobId: _job, stageLineId: _line, workDone: _day, ...line } = row;
			return line satisfies SheetLine;
		})
	};
}

/** Whether some part of these is taken. */
export function isBilled(db: Reader, type: BilledType, ids: number[]): boolean {
	if (ids.length === 0) return false;
	return (
		db
			.select({ n: sql`1` })
			.from(billedParts)
			.where(and(eq(billedParts.type, type), inArray(billedParts.partId, ids)))
			.limit(1)
			.get() !== undefined
	);
}

/** Something that can be billed was added, changed or removed. */
export function workChanged(tx: Transaction, jobId: number, at: number): void {
	tx.update(jobs)
		.set({ worked: sql`${jobs.worked} + 1` })
		.where(eq(jobs.id, jobId))
		.run();
	settleJobState(tx, jobId, at);
}

/** A finished job of which everything is on issued invoices is billed; otherwise it is finished again. */
export function settleJobState(tx: Transaction, jobId: number, at: number): void {
	const job = tx.select().from(jobs).where(eq(jobs.id, jobId)).get();
	if (!job || (job.state !== 'finished' && job.state !== 'billed')) return;
	const complete = isBilledInFull(tx, jobId);
	const state = complete ? 'billed' : 'finished';
	if (state === job.state) return;
	tx.update(jobs).set({ state }).where(eq(jobs.id, jobId)).run();
	noteJob(tx, jobId, at, state === 'billed' ? 'billed' : 'toBillAgain');
}

/** Whether issued documents bill all there is, by claim or by stage. */
export function isBilledInFull(db: Reader, jobId: number): boolean {
	const work = jobWork(db, jobId);
	const staged = issuedStages(db, jobId);
	const claimed = new Set(
		db
			.select({ type: billedParts.type, id: billedParts.partId })
			.from(billedParts)
			.innerJoin(documents, eq(documents.id, billedParts.documentId))
			.where(and(eq(billedParts.jobId, jobId), eq(documents.state, 'issued')))
			.all()
			.map((part) => `${part.type}:${part.id}`)
	);
	const all = billablesOf(work);
	return (
		all.length > 0 &&
		all.every(
			({ part, amount }) =>
				claimed.has(`${part.type}:${part.id}`) ||
				(part.type === 'line' && staged.get(part.id) === Number(amount))
		)
	);
}

/** Pence of each line that issued stages bill. */
function issuedStages(db: Reader, jobId: number): Map<number, number> {
	const rows = db.all<{ line: number; amount: number }>(sql`
		select p.line_id as line, sum(p.amount) as amount from stage_parts p
		join stages s on s.id = p.stage_id join documents d on d.id = s.document_id
		where s.job_id = ${jobId} and s.state = 'invoiced' and d.state = 'issued' group by p.line_id`);
	return new Map(rows.map((row) => [row.line, row.amount]));
}
