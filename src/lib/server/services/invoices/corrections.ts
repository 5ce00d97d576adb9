// Drafts that put an issued invoice right: one in its place, and one that adds to it where the price goes up.
import { must } from '../../actor';
import { and, eq } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import type { Frozen } from '../../../core/documents/types';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { blankLine, blankSheet } from '../../../core/sheet/blank';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Reader } from '../../db/connection';
import { documents } from '../../db/schema';
import type { World } from '../../world';
import { leftOfInvoice } from './creditNote';
import { draftOnce } from './drafts';

/** @throws NotFoundError, RefusedError where nothing is left of it */
function issuedInvoice(db: Reader, invoiceId: number): Frozen {
	const row = db.select().from(documents).where(eq(documents.id, invoiceId)).get();
	if (!row?.frozen || row.state !== 'issued' || row.kind !== 'invoice')
		throw new NotFoundError('This invoice');
	leftOfInvoice(db, invoiceId);
	return row.frozen;
}

function refuseTheirs({ selfBilled }: Sheet): void {
	if (selfBilled)
		throw new RefusedError(
			'They wrote it themselves. Ask them to put it right, credit it here, and record the new one.'
		);
}

/**
 * A draft in place of an issued invoice, with everything of it, to be put right. Issuing it issues the credit note that
 * takes the invoice back, and moves what was paid. One that is being written already is given back.
 * @throws NotFoundError, RefusedError
 */
export function correctAsDraft(world: World, invoiceId: number, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) => {
		const { sheet, workFinished, dueDate } = issuedInvoice(tx, invoiceId);
		const begun = tx
			.select({ id: documents.id })
			.from(documents)
			.where(
				and(
					eq(documents.origin, 'replacement'),
					eq(documents.aboutId, invoiceId),
					eq(documents.state, 'draft')
				)
			)
			.get();
		if (begun) return begun.id;
		return draftOnce(tx, world, key, () => {
			refuseTheirs(sheet);
			if (sheet.charge)
				throw new RefusedError('A charge for lateness is credited, and charged anew.');
			const today = world.clock.today();
			// What stands in place of an invoice of other books is one of these.
			const { opening: _opening, ...kept } = sheet;
			const replacement: Sheet = {
				...kept,
				issueDate: '',
				workFinished: displayDate(workFinished),
				dueDate: dueDate >= today ? displayDate(dueDate) : '',
				about: { as: 'replacement', invoiceId, reason: '' }
			};
			return { sheet: replacement, origin: 'replacement', aboutId: invoiceId };
		});
	});
}

/** A draft that raises the price of an issued invoice: taxed as it, at its tax point. @throws NotFoundError, RefusedError */
export function debitAsDraft(world: World, invoiceId: number, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) =>
		draftOnce(tx, world, key, () => {
			const { sheet, workFinished } = issuedInvoice(tx, invoiceId);
			refuseTheirs(sheet);
			if (sheet.charge) throw new RefusedError('A charge for lateness has no price that goes up.');
			const model = sheet.rows.find((row) => row.type === 'line');
			const { customerId, siteId, billToId, contract, contractReason } = sheet;
			const debit: Sheet = {
				...blankSheet(),
				customerId,
				siteId,
				...(billToId === undefined ? {} : { billToId }),
				contract,
				...(contractReason === undefined ? {} : { contractReason }),
				...(sheet.currency ? { currency: sheet.currency } : {}),
				pricesIncludeVat: sheet.pricesIncludeVat,
				roundVatDown: sheet.roundVatDown,
				orderNumber: sheet.orderNumber,
				reference: sheet.reference,
				workFinished: displayDate(workFinished),
				about: { as: 'debit', invoiceId, reason: '' },
				rows: [
					{
						...blankLine('r1', model),
						...(model?.jobId === undefined ? {} : { jobId: model.jobId })
					}
				]
			};
			return { sheet: debit, origin: 'debitNote', aboutId: invoiceId };
		})
	);
}

/** The invoice that a sheet corrects, as it was issued; null where it corrects none. */
export function correctedBy(
	db: Reader,
	{ about }: Sheet
): { number: string; frozen: Frozen } | null {
	if (!about) return null;
	const row = db
		.select({ number: documents.number, frozen: documents.frozen })
		.from(documents)
		.where(eq(documents.id, about.invoiceId))
		.get();
	return row?.frozen && row.number ? { number: row.number, frozen: row.frozen } : null;
}
