// What was held back under contracts, and its release.
import { must } from '../../actor';
import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { divideRounded, formatMoney, parseDecimal } from '../../../core/money/decimal';
import { blankSheet, isBlank } from '../../../core/sheet/blank';
import type { Sheet, SheetRow } from '../../../core/sheet/types';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { documentLines, documents, retentions } from '../../db/schema';
import type { World } from '../../world';
import { draftOnce } from '../invoices/drafts';
import { RefusedError } from '../../../core/refusals';
import { frozenFigures } from '../../../core/documents/frozen';
import { loadJob, sheetParties } from '../jobs/jobs';
import { noteJob } from '../trail/jobs';

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
	must('bill');
	return writeAtOnce(world.db, (tx) =>
		draftOnce(
			tx,
			world,
			key,
			() => {
				const job = loadJob(tx, jobId);
				const ids = heldAlike(tx, jobId);
				if (ids.length === 0) throw new RefusedError('Nothing is held back on this job.');
				const sheet: Sheet = {
					...blankSheet(),
					...sheetParties(job),
					reference: `${job.number}: ${job.title}`.slice(0, 200),
					releases: ids,
					rows: releaseRows(tx, jobId, ids)
				};
				return { sheet, origin: 'retention' };
			},
			() => noteJob(tx, jobId, world.clock.now(), 'released', 'drafted')
		)
	);
}

/** Invoices that hold something back on a job, as far as their VAT was decided alike: the rest is a release of its own. */
function heldAlike(tx: Transaction, jobId: number): number[] {
	const held = tx
		.select({ id: documents.id, frozen: documents.frozen })
		.from(retentions)
		.innerJoin(documents, eq(documents.id, retentions.documentId))
		.where(and(eq(retentions.jobId, jobId), isNull(retentions.releasedById)))
		.orderBy(asc(documents.id))
		.all();
	// In one money, and with its VAT decided alike.
	const charged = held.map(
		({ frozen }) =>
			`${frozen!.sheet.currency ?? ''} ${frozenFigures(frozen!).decisions.reverseCharge.answer}`
	);
	return held.flatMap(({ id }, index) => (charged[index] === charged[0] ? [id] : []));
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
		.where(and(inArray(documentLines.documentId, documentIds), eq(documentLines.jobId, jobId)))
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
