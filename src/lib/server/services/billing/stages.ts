// Stage invoices of a job: asked for, looked at, drafted; or applied for first. And what was held back, released.
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { displayPounds } from '../../../core/money/display';
import { divideRounded, formatMoney, parseDecimal, parseMoney } from '../../../core/money/decimal';
import { readTypedNumber } from '../../../core/money/typed';
import { shareOut } from '../../../core/money/sharing';
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
import { blankSheet, isBlank } from '../../../core/sheet/blank';
import type { Sheet, SheetRow } from '../../../core/sheet/types';
import { writeAtOnce, type Database, type Transaction } from '../../db/connection';
import {
	documentLines,
	documents,
	jobLines,
	retentions,
	stageParts,
	stages
} from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { computeDraft, insertDraft } from '../invoices/drafts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { day, text } from '../business/fields';
import { loadJob } from '../jobs/jobs';
import { noteJob } from '../trail/jobs';
import { billedWhole, contractLines } from '../jobs/stageBooks';

type Reader = Database | Transaction;

const stageForm = z.object({
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

function insertStage(
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
				stageLineId: line.id
			};
		})
	];
	return {
		...blankSheet(),
		customerId: job.customerId,
		siteId: job.siteId,
		...(job.billToId ? { billToId: job.billToId } : {}),
		contract: job.contract,
		reference: `${job.number}: ${job.title}`.slice(0, 200),
		note: positionNote(before, stage),
		pricesIncludeVat: job.pricesIncludeVat,
		retention: job.pricesIncludeVat ? '' : job.retention,
		retentionDue: job.retentionDue ?? '',
		stageId,
		rows
	};
}

function draftStage(
	tx: Transaction,
	world: World,
	jobId: number,
	stageId: number,
	kind: StageKind,
	stage: Stage,
	before: ContractPosition
): number {
	const sheet = stageSheet(tx, jobId, stageId, kind, stage, before);
	const id = insertDraft(tx, `stage:${stageId}`, sheet, world.clock.now());
	computeDraft(tx, id, sheet, world.clock.today());
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

/** Asks for a payment without being a VAT invoice; it takes its part of the contract. @throws as `billStage` */
export function applyForPayment(world: World, jobId: number, key: string, input: unknown): number {
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const same = tx.select().from(stages).where(eq(stages.key, key)).get();
		if (same) return same.id;
		const { stage } = previewStage(tx, jobId, input);
		const kind = parseForm(stageForm, input).kind;
		const id = insertStage(tx, jobId, key, kind, stage, now, 'applied');
		const { n } = tx.get<{ n: number }>(
			sql`select count(*) + 1 as n from stages where application_number is not null`
		);
		const number = `A-${String(n).padStart(4, '0')}`;
		tx.update(stages)
			.set({ applicationNumber: number, appliedOn: world.clock.today() })
			.where(eq(stages.id, id))
			.run();
		noteJob(tx, jobId, now, 'applied', `${number}, ${displayPounds(stage.amount)}`);
		return id;
	});
}

const approvalForm = z.object({ amount: text(30), paidOn: day });

/**
 * An application approved or paid becomes its VAT invoice, over what was approved: the application's amount or less.
 * Paid already, the payment made the tax point (reg. 93). The same stage again gives the same draft back.
 */
export function approveApplication(world: World, stageId: number, input: unknown): number {
	const form = parseForm(approvalForm, input);
	const today = world.clock.today();
	if (form.paidOn > today) throw new FieldError({ paidOn: 'That day has not come yet.' });
	return writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(stages).where(eq(stages.id, stageId)).get();
		if (!row) throw new NotFoundError('This application');
		if (row.documentId) return row.documentId;
		if (row.state !== 'applied') throw new RefusedError('This application has been withdrawn.');
		const approved = form.amount
			? readTypedNumber(form.amount, { decimals: 2 })
			: { ok: true as const, text: formatMoney(BigInt(row.amount)) };
		const amount = approved.ok ? parseMoney(approved.text)! : 0n;
		if (amount <= 0n || amount > BigInt(row.amount))
			throw new FieldError({
				amount: `From 0.01 to ${formatMoney(BigInt(row.amount))}, what was applied for.`
			});
		const parts = tx.select().from(stageParts).where(eq(stageParts.stageId, stageId)).all();
		const shares = shareOut(
			amount,
			parts.map((part) => BigInt(part.amount))
		);
		const stage: Stage = {
			amount,
			basis:
				amount === BigInt(row.amount)
					? `${row.basis} (application ${row.applicationNumber})`
					: `${displayPounds(amount)} approved of application ${row.applicationNumber}`,
			parts: parts.map((part, index) => ({
				lineId: part.lineId,
				amount: shares[index]!,
				cost:
					part.cost === null
						? null
						: divideRounded(BigInt(part.cost) * shares[index]!, BigInt(part.amount))
			}))
		};
		for (const part of stage.parts)
			tx.update(stageParts)
				.set({
					amount: Number(part.amount),
					cost: part.cost === null ? null : Number(part.cost)
				})
				.where(and(eq(stageParts.stageId, stageId), eq(stageParts.lineId, part.lineId)))
				.run();
		tx.update(stages)
			.set({ amount: Number(amount), basis: stage.basis })
			.where(eq(stages.id, stageId))
			.run();
		const before = contractPosition(contractLines(tx, row.jobId, stageId));
		const id = draftStage(tx, world, row.jobId, stageId, row.kind, stage, before);
		if (form.paidOn && form.paidOn < today) {
			const draft = tx.select().from(documents).where(eq(documents.id, id)).get()!;
			const sheet = { ...draft.sheet, workFinished: form.paidOn };
			tx.update(documents).set({ sheet }).where(eq(documents.id, id)).run();
			computeDraft(tx, id, sheet, today);
		}
		return id;
	});
}

export function withdrawApplication(world: World, stageId: number): void {
	world.db
		.update(stages)
		.set({ state: 'dropped' })
		.where(and(eq(stages.id, stageId), eq(stages.state, 'applied')))
		.run();
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

/** What issued invoices of a job held back, the earliest due first. */
export function retentionsOf(db: Reader, jobId: number) {
	return db
		.select({
			documentId: retentions.documentId,
			number: documents.number,
			amount: retentions.amount,
			dueOn: retentions.dueOn,
			releasedById: retentions.releasedById
		})
		.from(retentions)
		.innerJoin(documents, eq(documents.id, retentions.documentId))
		.where(eq(retentions.jobId, jobId))
		.orderBy(asc(retentions.dueOn), asc(retentions.documentId))
		.all();
}

/**
 * A draft that releases what was held back on a job. Its lines keep the kinds they come from and the part of the
 * materials' cost not used yet (`tax-gb.md` 3). The same key again gives the same draft back.
 */
export function releaseRetention(world: World, jobId: number, key: string): number {
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: documents.id })
			.from(documents)
			.where(eq(documents.key, key))
			.get();
		if (same) return same.id;
		const job = loadJob(tx, jobId);
		const held = tx
			.select()
			.from(retentions)
			.where(and(eq(retentions.jobId, jobId), isNull(retentions.releasedById)))
			.all();
		if (held.length === 0) throw new RefusedError('Nothing is held back on this job.');
		const ids = held.map((one) => one.documentId);
		const sheet: Sheet = {
			...blankSheet(),
			customerId: job.customerId,
			siteId: job.siteId,
			...(job.billToId ? { billToId: job.billToId } : {}),
			contract: job.contract,
			reference: `${job.number}: ${job.title}`.slice(0, 200),
			releases: ids,
			rows: releaseRows(tx, jobId, ids)
		};
		const id = insertDraft(tx, key, sheet, now);
		computeDraft(tx, id, sheet, world.clock.today());
		noteJob(tx, jobId, now, 'released', 'drafted');
		return id;
	});
}

function releaseRows(tx: Transaction, jobId: number, documentIds: number[]): SheetRow[] {
	const lines = tx
		.select({
			line: documentLines,
			number: documents.number,
			frozen: documents.frozen
		})
		.from(documentLines)
		.innerJoin(documents, eq(documents.id, documentLines.documentId))
		.where(inArray(documentLines.documentId, documentIds))
		.orderBy(desc(documents.running), asc(documentLines.position))
		.all();
	return lines
		.filter(({ line }) => line.retention > 0)
		.map(({ line, number, frozen }, index): SheetRow => {
			const percent = parseDecimal(frozen!.sheet.retention.trim().replace(/%$/, ''))!;
			// What the invoice left of the cost, rounded as it did (`figures.md` 1.11).
			const cost =
				line.cost === null
					? ''
					: formatMoney(
							divideRounded(BigInt(line.cost) * percent.units, 100n * 10n ** BigInt(percent.scale))
						);
			const row = frozen!.sheet.rows.filter((one) => one.type === 'line' && !isBlank(one))[
				line.position
			];
			return {
				id: `r${index + 1}`,
				type: 'line',
				kind: line.kind,
				description: `Retention released from ${number}: ${line.description}`.slice(0, 10_000),
				quantity: '1',
				unit: '',
				unitPrice: formatMoney(BigInt(line.retention)),
				vat: line.vat ?? 'standard',
				vatReason: row?.type === 'line' ? row.vatReason : '',
				discount: '',
				cost,
				jobId
			};
		});
}
