// Card fees that business customers bore on top: each is billed by an invoice of its own, with the VAT of the work, and paid
// by what stands in hand for it. A press or a crash in the middle changes nothing.
import { eq, sql } from 'drizzle-orm';
import { shareOut } from '../../../core/money/sharing';
import { formatMoney } from '../../../core/money/decimal';
import { blankLine, blankSheet } from '../../../core/sheet/blank';
import type { Sheet, SheetLine, SheetRow } from '../../../core/sheet/types';
import type { Frozen } from '../../../core/documents/types';
import { writeAtOnce } from '../../db/connection';
import { allocations, documents, openItems, payments } from '../../db/schema';
import type { World } from '../../world';
import { useInHand } from './useInHand';
import { draftOnce } from '../invoices/drafts';
import { RefusedError } from '../../../core/refusals';
import { frozenFigures } from '../../../core/documents/frozen';
import { NotReadyError } from '../invoices/freeze';
import { issueInvoice } from '../invoices/issue';

/** @returns how many were billed */
export async function billCardFees(world: World): Promise<number> {
	const waiting = world.db
		.select({ payment: payments, documentId: allocations.documentId })
		.from(payments)
		.innerJoin(allocations, eq(allocations.paymentId, payments.id))
		.where(
			sql`${payments.feeOnTop} > 0 and not exists (select 1 from open_items o join documents d on d.id = o.document_id
				where d.origin = 'cardFee' and d.about_id = ${payments.id} and o.state <> 'open')`
		)
		.all();
	let billed = 0;
	for (const { payment, documentId } of waiting)
		billed += await billOne(world, payment, documentId);
	return billed;
}

async function billOne(
	world: World,
	payment: typeof payments.$inferSelect,
	documentId: number
): Promise<number> {
	const key = `cardfee:${payment.id}`;
	const invoice = world.db.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const sheet = {
		...feeSheet(invoice.frozen!, invoice.number!, payment.feeOnTop),
		customerId: invoice.customerId
	};
	const id = writeAtOnce(world.db, (tx) => {
		return draftOnce(tx, world, key, () => ({ sheet, origin: 'cardFee', aboutId: payment.id }));
	});
	const draft = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
	try {
		if (draft.state === 'discarded') return 0;
		if (draft.state === 'draft') await issueInvoice(world, id, draft.version);
		const item = world.db.select().from(openItems).where(eq(openItems.documentId, id)).get();
		if (item?.state === 'open') useInHand(world, id, key);
		return 1;
	} catch (error) {
		// Something is missing on it: the draft waits among the next moves.
		if (error instanceof NotReadyError || error instanceof RefusedError) return 0;
		throw error;
	}
}

/** The fee includes its VAT; where the work had several rates, it has them in the same proportion. */
function feeSheet(frozen: Frozen, number: string, fee: number): Sheet {
	const groups = frozenFigures(frozen).vat.filter((group) => group.net + group.vat > 0n);
	const lines = frozen.sheet.rows.filter((row): row is SheetLine => row.type === 'line');
	const text = `Card fee at cost, for the payment of ${number}`;
	const row = (id: string, amount: bigint, model?: SheetLine): SheetRow => ({
		...blankLine(id),
		kind: 'other',
		description: text,
		unitPrice: formatMoney(amount),
		...(model ? { vat: model.vat, vatReason: model.vatReason } : {})
	});
	const rows = groups.length
		? shareOut(
				BigInt(fee),
				groups.map((group) => group.net + group.vat)
			).map((amount, index) =>
				row(
					`fee-${index}`,
					amount,
					lines.find((line) => line.vat === groups[index]!.treatment)
				)
			)
		: [row('fee', BigInt(fee), lines[0])];
	return {
		...blankSheet(),
		...(frozen.sheet.billToId ? { billToId: frozen.sheet.billToId } : {}),
		reference: number,
		pricesIncludeVat: groups.length > 0,
		rows: rows.filter((one) => one.type !== 'line' || one.unitPrice !== '0.00')
	};
}
