// Work that a credit note took off an invoice in part: it goes back to its job, to be billed again.
import { and, eq, gt, sql } from 'drizzle-orm';
import type { CreditedPart } from '../../../core/documents/types';
import { lineAmount } from '../../../core/jobs/billing';
import {
	divideRounded,
	formatDecimal,
	formatMoney,
	parseDecimal,
	parseMoney
} from '../../../core/money/decimal';
import type { LeftLine } from '../../../core/sheet/credit';
import type { Transaction } from '../../db/connection';
import { billedParts, jobLines, retentions, stageParts, stages } from '../../db/schema';
import { jobsOf, settleJobState } from './takenParts';

/**
 * Frees what parts of an invoice billed and held back, in the transaction that credits them. Nothing is held back any more
 * of what was taken back; work is free again where its part says so.
 */
export function giveBackParts(
	tx: Transaction,
	documentId: number,
	left: readonly LeftLine[],
	parts: readonly CreditedPart[],
	at: number
): void {
	const touched = jobsOf(tx, documentId);
	for (const part of parts) {
		const line = left.find(({ position }) => position === part.position)!;
		holdLess(tx, documentId, line.row.jobId ?? null, part.retention);
		if (!part.again || part.quantity === null) continue;
		if (line.row.stageLineId !== undefined)
			stageLess(tx, documentId, line.row.stageLineId, part.net);
		else if (line.row.bills?.length) {
			if (BigInt(part.net) === line.net) freeLine(tx, documentId, line);
			else if (line.row.bills.length === 1 && line.row.bills[0]!.type === 'line')
				splitLine(tx, line.row.bills[0]!.id, part.quantity);
		}
	}
	for (const jobId of touched) settleJobState(tx, jobId, at);
}

function holdLess(tx: Transaction, documentId: number, jobId: number | null, amount: number): void {
	if (amount === 0) return;
	const its = and(
		eq(retentions.documentId, documentId),
		jobId === null ? sql`${retentions.jobId} is null` : eq(retentions.jobId, jobId)
	);
	tx.update(retentions)
		.set({ amount: sql`${retentions.amount} - ${amount}` })
		.where(its)
		.run();
	tx.delete(retentions)
		.where(and(its, eq(retentions.amount, 0)))
		.run();
}

function stageLess(tx: Transaction, documentId: number, lineId: number, net: number): void {
	const stage = tx.select().from(stages).where(eq(stages.documentId, documentId)).get();
	if (!stage || stage.state === 'dropped') return;
	const its = and(eq(stageParts.stageId, stage.id), eq(stageParts.lineId, lineId));
	const part = tx.select().from(stageParts).where(its).get();
	if (!part) return;
	const cost =
		part.cost === null || part.amount === 0
			? part.cost
			: part.cost - Number(divideRounded(BigInt(part.cost) * BigInt(net), BigInt(part.amount)));
	if (part.amount === net) tx.delete(stageParts).where(its).run();
	else
		tx.update(stageParts)
			.set({ amount: part.amount - net, cost })
			.where(its)
			.run();
	tx.update(stages)
		.set({
			amount: stage.amount - net,
			...(stage.amount === net ? { state: 'dropped' as const } : {})
		})
		.where(eq(stages.id, stage.id))
		.run();
}

function freeLine(tx: Transaction, documentId: number, { row }: LeftLine): void {
	for (const { type, id } of row.bills ?? [])
		tx.delete(billedParts)
			.where(
				and(
					eq(billedParts.documentId, documentId),
					eq(billedParts.type, type),
					eq(billedParts.partId, id)
				)
			)
			.run();
}

/** What was agreed stays what it was: so many of a line are a line of their own, which nobody bills yet. */
function splitLine(tx: Transaction, lineId: number, taken: string): void {
	const line = tx.select().from(jobLines).where(eq(jobLines.id, lineId)).get();
	const whole = line && parseDecimal(line.quantity.trim());
	const part = parseDecimal(taken)!;
	if (!line || !whole) return;
	const scale = Math.max(whole.scale, part.scale);
	const units = (of: { units: bigint; scale: number }) =>
		of.units * 10n ** BigInt(scale - of.scale);
	const rest = units(whole) - units(part);
	// Less than the line has by now, because it was changed since: then there is nothing to divide.
	if (units(whole) <= 0n || units(part) <= 0n || rest <= 0n) return;
	const shareOf = (typed: string): [kept: string, gone: string] => {
		const amount = parseMoney(typed.trim());
		if (amount === null) return [typed, typed];
		const gone = divideRounded(amount * units(part), units(whole));
		return [formatMoney(amount - gone), formatMoney(gone)];
	};
	const before = lineAmount(line);
	const [discount, discountGone] = shareOf(line.discount);
	const [cost, costGone] = shareOf(line.cost);
	const kept = { ...line, quantity: formatDecimal({ units: rest, scale }), discount, cost };
	const { id: _id, ...same } = line;
	const gone = { ...same, quantity: taken, discount: discountGone, cost: costGone };
	const amount = before - lineAmount(kept);
	tx.update(jobLines).set(kept).where(eq(jobLines.id, lineId)).run();
	tx.update(jobLines)
		.set({ position: sql`${jobLines.position} + 1` })
		.where(and(eq(jobLines.jobId, line.jobId), gt(jobLines.position, line.position)))
		.run();
	tx.insert(jobLines)
		.values({
			...gone,
			position: line.position + 1,
			// To the penny it may not be so many times the price: then it is one, at what is left.
			...(lineAmount(gone) === amount
				? {}
				: {
						description:
							`${line.description} (${taken} of ${line.quantity.trim()} ${line.unit})`.trim(),
						quantity: '1',
						unit: '',
						unitPrice: formatMoney(amount),
						discount: ''
					})
		})
		.run();
}
