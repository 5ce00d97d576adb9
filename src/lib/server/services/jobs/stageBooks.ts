// What stages have billed of a job's lines, and whether a document still fits what is left.
import { and, asc, eq, inArray, isNull, ne, or, sql, type SQL } from 'drizzle-orm';
import { lineAmount } from '../../../core/jobs/billing';
import type { ContractLine } from '../../../core/jobs/stages';
import { parseMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import { RefusedError } from '../../../core/refusals';
import type { Problem, Sheet, SheetLine } from '../../../core/sheet/types';
import type { Transaction, Reader } from '../../db/connection';
import { billedParts, jobLines, retentions, stageParts, stages } from '../../db/schema';

/** The lines of a job that stages bill, with what stages that stand have billed of them. */
export function contractLines(db: Reader, jobId: number, exceptStage?: number): ContractLine[] {
	const billed = new Map(
		db
			.select({
				lineId: stageParts.lineId,
				amount: sql<number>`sum(${stageParts.amount})`,
				cost: sql<number>`sum(coalesce(${stageParts.cost}, 0))`
			})
			.from(stageParts)
			.innerJoin(stages, eq(stages.id, stageParts.stageId))
			.where(
				and(
					eq(stages.jobId, jobId),
					ne(stages.state, 'dropped'),
					exceptStage === undefined ? undefined : ne(stages.id, exceptStage)
				)
			)
			.groupBy(stageParts.lineId)
			.all()
			.map((row) => [row.lineId, row])
	);
	return db
		.select()
		.from(jobLines)
		.where(eq(jobLines.jobId, jobId))
		.orderBy(asc(jobLines.position), asc(jobLines.id))
		.all()
		.map((line) => {
			const so = billed.get(line.id);
			const cost = line.cost.trim() === '' ? null : parseMoney(line.cost.trim());
			return {
				id: line.id,
				net: lineAmount(line),
				// Materials whose cost is not known count at their price, stage by stage.
				cost,
				billed: BigInt(so?.amount ?? 0),
				costBilled: BigInt(so?.cost ?? 0),
				extra: line.extra
			};
		});
}

/** Whether a job is billed in stages: then its lines are not billed whole. */
export function hasStages(db: Reader, jobId: number): boolean {
	return (
		db
			.select({ id: stages.id })
			.from(stages)
			.where(and(eq(stages.jobId, jobId), ne(stages.state, 'dropped')))
			.limit(1)
			.get() !== undefined
	);
}

/** The lines of jobs that stages which stand bill, wholly or in part. */
export function stagedLines(db: Reader, jobIds: readonly number[]): Set<number> {
	if (jobIds.length === 0) return new Set();
	const rows = db
		.selectDistinct({ id: stageParts.lineId })
		.from(stageParts)
		.innerJoin(stages, eq(stages.id, stageParts.stageId))
		.where(and(inArray(stages.jobId, [...jobIds]), ne(stages.state, 'dropped')))
		.all();
	return new Set(rows.map((row) => row.id));
}

/** A draft brought back brings its stage back, where that still fits. */
export function restoreStage(tx: Transaction, documentId: number): void {
	const stage = tx
		.select()
		.from(stages)
		.where(and(eq(stages.documentId, documentId), eq(stages.state, 'dropped')))
		.get();
	if (!stage || !fits(tx, stage)) return;
	tx.update(stages).set({ state: 'invoiced' }).where(eq(stages.id, stage.id)).run();
}

function fits(db: Reader, stage: typeof stages.$inferSelect): boolean {
	const lines = new Map(contractLines(db, stage.jobId, stage.id).map((line) => [line.id, line]));
	const whole = new Set(
		db
			.select({ id: billedParts.partId })
			.from(billedParts)
			.where(and(eq(billedParts.jobId, stage.jobId), eq(billedParts.type, 'line')))
			.all()
			.map((row) => row.id)
	);
	return db
		.select()
		.from(stageParts)
		.where(eq(stageParts.stageId, stage.id))
		.all()
		.every((part) => {
			const line = lines.get(part.lineId);
			if (!line || whole.has(part.lineId)) return false;
			return line.billed + BigInt(part.amount) <= line.net;
		});
}

/** What keeps a stage invoice or a release from being issued: it no longer bills what its stage says. */
export function stageProblems(
	db: Reader,
	documentId: number,
	holders: readonly number[],
	sheet: Sheet
): Problem[] {
	return [...stageProblem(db, documentId, holders, sheet), ...releaseProblem(db, holders, sheet)];
}

/**
 * A stage whose invoice was credited is billed by what stands in its place, at the amounts that says.
 * @throws RefusedError where less of the contract is left
 */
export function takeStageOver(
	tx: Transaction,
	invoiceId: number,
	documentId: number,
	sheet: Sheet
): void {
	const stage = tx.select().from(stages).where(eq(stages.documentId, invoiceId)).get();
	const billed = sheet.rows.flatMap((row) =>
		row.type === 'line' && row.stageLineId !== undefined
			? [{ lineId: row.stageLineId, amount: Number(lineAmount(row)), cost: costOf(row) }]
			: []
	);
	if (!stage || sheet.stageId !== stage.id || billed.length === 0) return;
	tx.delete(stageParts).where(eq(stageParts.stageId, stage.id)).run();
	tx.insert(stageParts)
		.values(billed.map((part) => ({ stageId: stage.id, ...part })))
		.run();
	tx.update(stages)
		.set({
			documentId,
			state: 'invoiced',
			amount: billed.reduce((sum, { amount }) => sum + amount, 0)
		})
		.where(eq(stages.id, stage.id))
		.run();
	if (!fits(tx, stage))
		throw new RefusedError('Less of the contract is left than this bills. Change its lines.');
}

const costOf = (row: SheetLine): number | null => {
	const cost = parseMoney(row.cost.trim());
	return cost === null ? null : Number(cost);
};

function stageProblem(
	db: Reader,
	documentId: number,
	holders: readonly number[],
	sheet: Sheet
): Problem[] {
	if (sheet.stageId === undefined) return [];
	const stop = (message: string): Problem[] => [{ path: 'rows', level: 'stop', message }];
	const stage = db.select().from(stages).where(eq(stages.id, sheet.stageId)).get();
	// In place of an issued one: what fits is seen when that is credited.
	if (stage && stage.documentId !== documentId && holders.includes(stage.documentId ?? 0))
		return [];
	if (!stage || stage.documentId !== documentId || stage.state !== 'invoiced')
		return stop('The stage this bills does not stand any more. Make the stage again on its job.');
	if (!fits(db, stage))
		return stop('Less of the contract is left than this bills. Make the stage again on its job.');
	const parts = new Map(
		db
			.select()
			.from(stageParts)
			.where(eq(stageParts.stageId, stage.id))
			.all()
			.map((part) => [part.lineId, BigInt(part.amount)])
	);
	for (const row of sheet.rows) {
		if (row.type !== 'line' || row.stageLineId === undefined) continue;
		const expected = parts.get(row.stageLineId);
		parts.delete(row.stageLineId);
		if (expected !== lineAmount(row))
			return [
				{
					path: `rows.${row.id}.unitPrice`,
					level: 'stop',
					message: `This stage bills ${displayPounds(expected ?? 0n)} of this line. To bill another amount, make the stage again on its job.`
				}
			];
	}
	return parts.size === 0 ? [] : stop('A line of this stage is missing. Make the stage again.');
}

/** What a sheet releases: of the invoices it names, what was held back from the jobs its lines are for. */
export function releasedBy({ releases, rows }: Sheet): SQL {
	const jobIds = rows.flatMap((row) => (row.type === 'line' && row.jobId ? [row.jobId] : []));
	return and(
		inArray(retentions.documentId, releases ?? []),
		jobIds.length ? inArray(retentions.jobId, jobIds) : isNull(retentions.jobId)
	)!;
}

/** A release is of what is held back still, to the penny: neither more nor something else. */
function releaseProblem(db: Reader, holders: readonly number[], sheet: Sheet): Problem[] {
	if (!sheet.releases?.length) return [];
	const held = db
		.select({ id: retentions.documentId, amount: retentions.amount })
		.from(retentions)
		.where(
			and(
				releasedBy(sheet),
				or(isNull(retentions.releasedById), inArray(retentions.releasedById, [...holders]))
			)
		)
		.all();
	const stop = (message: string): Problem[] => [{ path: 'rows', level: 'stop', message }];
	if (new Set(held.map((one) => one.id)).size !== sheet.releases.length)
		return stop('Some of what this releases has been released already, or was credited.');
	const sum = held.reduce((total, one) => total + BigInt(one.amount), 0n);
	const asked = sheet.rows.reduce(
		(total, row) => (row.type === 'line' ? total + lineAmount(row) : total),
		0n
	);
	if (asked === sum) return [];
	return stop(
		`${displayPounds(sum)} is held back, and this releases ${displayPounds(asked)}. Release what is held; bill anything else on an invoice of its own.`
	);
}

/** Lines that invoices bill whole: such a job cannot be billed in stages as well. */
export function billedWhole(db: Reader, jobId: number): boolean {
	return (
		db
			.select({ id: billedParts.partId })
			.from(billedParts)
			.where(and(eq(billedParts.jobId, jobId), eq(billedParts.type, 'line')))
			.limit(1)
			.get() !== undefined
	);
}
