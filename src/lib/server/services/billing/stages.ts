// Stage invoices of a job: asked for, looked at, drafted; or applied for first. And what was held back, released.
import { must } from '../../actor';
import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { displayPounds } from '../../../core/money/display';
import { formatMoney, parseDecimal, parseMoney } from '../../../core/money/decimal';
import { readTypedNumber } from '../../../core/money/typed';
import type { Decimal } from '../../../core/money/types';
import {
	computeStage,
	contractPosition,
	StageError,
	type ContractPosition,
	type Stage,
	type StageBasis,
	type StageKind,
	type StagePreview
} from '../../../core/jobs/stages';
import { blankSheet, tagsOf } from '../../../core/sheet/blank';
import type { Sheet, SheetRow } from '../../../core/sheet/types';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { documents, jobLines, stageParts, stages } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { draftOnce } from '../invoices/drafts';
import { FieldError, RefusedError } from '../../../core/refusals';
import { text } from '../business/fields';
import { loadJob, sheetParties } from '../jobs/jobs';
import { noteJob } from '../trail/jobs';
import { billedWhole, contractLines } from '../jobs/stageBooks';

export const stageForm = z.object({
	kind: z.enum(['deposit', 'stage', 'valuation', 'rest']),
	/** `percent` and `toDate` of all or chosen lines, an `amount`, or each line's own `valuation`. */
	by: z.enum(['percent', 'amount', 'toDate', 'lines', 'rest']),
	percent: text(20),
	amount: text(30),
	lineIds: z.array(z.number().int().positive()).max(1000).optional(),
	/** Percent done of each line, by its id. */
	done: z.record(z.string(), z.string().max(20)).optional()
});
export type StageForm = z.input<typeof stageForm>;

function readPercent(typed: string, field: string): Decimal {
	const read = readTypedNumber(typed.replace(/%$/, ''), { decimals: 4 });
	const percent = read.ok ? parseDecimal(read.text)! : null;
	if (percent && percent.units <= 100n * 10n ** BigInt(percent.scale)) return percent;
	throw new FieldError({ [field]: 'A percentage from 0 to 100, such as 45.' });
}

function basisOf(form: z.output<typeof stageForm>): StageBasis {
	const chosen = form.lineIds ? { lineIds: form.lineIds } : {};
	switch (form.by) {
		case 'percent':
		case 'toDate':
			return { type: form.by, percent: readPercent(form.percent, 'percent'), ...chosen };
		case 'amount': {
			const read = readTypedNumber(form.amount, { decimals: 2 });
			if (!read.ok) throw new FieldError({ amount: 'An amount such as 1,500.00.' });
			return { type: 'amount', amount: parseMoney(read.text)!, ...chosen };
		}
		case 'lines':
			return {
				type: 'valuation',
				done: new Map(
					Object.entries(form.done ?? {})
						.filter(([, typed]) => typed.trim() !== '')
						.map(([id, typed]) => [Number(id), readPercent(typed, `done.${id}`)])
				)
			};
		case 'rest':
			return { type: 'rest' };
	}
}

/** What a stage would bill. @throws FieldError, RefusedError */
export function previewStage(db: Reader, jobId: number, input: unknown): StagePreview {
	const form = parseForm(stageForm, input);
	const lines = contractLines(db, jobId);
	if (lines.length === 0)
		throw new RefusedError('Nothing is agreed on this job yet: give its lines first.');
	if (billedWhole(db, jobId))
		throw new RefusedError(
			'Lines of this job are billed whole. It cannot be billed in stages too.'
		);
	try {
		const stage = computeStage(lines, basisOf(form));
		const before = contractPosition(lines);
		const billed = before.billed + stage.amount;
		return { stage, before, after: { ...before, billed, left: before.left - stage.amount } };
	} catch (error) {
		if (error instanceof StageError) throw new FieldError({ [error.field]: error.message });
		throw error;
	}
}

/**
 * Makes a stage and its draft invoice. The same key again gives the same draft back.
 * @throws FieldError where more would be billed than is left, RefusedError
 */
export function billStage(world: World, jobId: number, key: string, input: unknown): number {
	must('bill');
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const same = tx.select().from(stages).where(eq(stages.key, key)).get();
		if (same?.documentId) return same.documentId;
		const { stage, before } = previewStage(tx, jobId, input);
		const kind = parseForm(stageForm, input).kind;
		const stageId = insertStage(tx, jobId, key, kind, stage, now, 'invoiced');
		return draftStage(tx, world, jobId, stageId, kind, stage, before);
	});
}

export function insertStage(
	tx: Transaction,
	jobId: number,
	key: string,
	kind: StageKind,
	stage: Stage,
	now: number,
	state: 'invoiced' | 'applied'
): number {
	const { id } = tx
		.insert(stages)
		.values({
			key,
			jobId,
			kind,
			basis: stage.basis,
			state,
			amount: Number(stage.amount),
			createdAt: now
		})
		.returning({ id: stages.id })
		.get();
	for (const part of stage.parts)
		tx.insert(stageParts)
			.values({
				stageId: id,
				lineId: part.lineId,
				amount: Number(part.amount),
				cost: part.cost === null ? null : Number(part.cost)
			})
			.run();
	return id;
}

const STAGE_TITLES: Record<StageKind, string> = {
	deposit: 'Deposit',
	stage: 'Stage payment',
	valuation: 'Valuation to date',
	rest: 'Rest of the contract'
};

/** The sheet that bills a stage. */
export function stageSheet(
	db: Reader,
	jobId: number,
	stageId: number,
	kind: StageKind,
	stage: Stage,
	before: ContractPosition
): Sheet {
	const job = loadJob(db, jobId);
	const lines = new Map(
		db
			.select()
			.from(jobLines)
			.where(eq(jobLines.jobId, jobId))
			.all()
			.map((line) => [line.id, line])
	);
	const rows: SheetRow[] = [
		{ id: 'stage', type: 'heading', text: `${STAGE_TITLES[kind]}: ${stage.basis}`.slice(0, 500) },
		...stage.parts.map((part, index): SheetRow => {
			const line = lines.get(part.lineId)!;
			return {
				id: `s${index + 1}`,
				type: 'line',
				kind: line.kind,
				description: line.description,
				quantity: '1',
				unit: '',
				unitPrice: formatMoney(part.amount),
				vat: line.vat,
				vatReason: line.vatReason,
				discount: '',
				cost: part.cost === null ? '' : formatMoney(part.cost),
				jobId,
				stageLineId: line.id,
				...tagsOf(line)
			};
		})
	];
	return {
		...blankSheet(),
		...sheetParties(job),
		reference: `${job.number}: ${job.title}`.slice(0, 200),
		note: positionNote(before, stage),
		pricesIncludeVat: job.pricesIncludeVat,
		retention: job.pricesIncludeVat ? '' : job.retention,
		retentionDue: job.retentionDue ?? '',
		stageId,
		...(kind === 'deposit' ? { deposit: true as const } : {}),
		rows
	};
}

export function draftStage(
	tx: Transaction,
	world: World,
	jobId: number,
	stageId: number,
	kind: StageKind,
	stage: Stage,
	before: ContractPosition
): number {
	const sheet = stageSheet(tx, jobId, stageId, kind, stage, before);
	const id = draftOnce(tx, world, `stage:${stageId}`, () => ({ sheet, origin: 'stage' }));
	tx.update(stages).set({ documentId: id, state: 'invoiced' }).where(eq(stages.id, stageId)).run();
	noteJob(tx, jobId, world.clock.now(), 'invoiced', `${STAGE_TITLES[kind]}, ${stage.basis}`);
	return id;
}

function positionNote(before: ContractPosition, stage: Stage): string {
	return [
		`Contract ${displayPounds(before.contractSum)}`,
		...(before.extras ? [`extras ${displayPounds(before.extras)}`] : []),
		`billed before ${displayPounds(before.billed)}`,
		`this invoice ${displayPounds(stage.amount)}`,
		`left ${displayPounds(before.left - stage.amount)}`
	].join(' · ');
}

/** The stages of a job, with the documents behind them. */
export function stagesOf(db: Reader, jobId: number) {
	return db
		.select({
			id: stages.id,
			kind: stages.kind,
			basis: stages.basis,
			state: stages.state,
			amount: stages.amount,
			applicationNumber: stages.applicationNumber,
			appliedOn: stages.appliedOn,
			documentId: stages.documentId,
			number: documents.number,
			documentState: documents.state
		})
		.from(stages)
		.leftJoin(documents, eq(documents.id, stages.documentId))
		.where(eq(stages.jobId, jobId))
		.orderBy(asc(stages.id))
		.all();
}
