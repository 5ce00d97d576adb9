// One document with everything known about it.
import { and, eq, sql } from 'drizzle-orm';
import type { DocumentDetail, OpenItem } from '../../../core/documents/detail';
import { documents, documentFiles, openItems, refunds } from '../../db/schema';
import { paidTwice } from '../../../core/settlement/twice';
import { disputesOf } from '../money/cardDisputes';
import type { World } from '../../world';
import { linkToday } from '../business/links';
import { filesOf } from '../files/files';
import { drawDocument } from '../letterheads/dress';
import { inHandOf } from '../ledger/inHand';
import { mailAddresses } from '../customers/parts';
import { NotFoundError } from '../../../core/refusals';
import { frozenFigures } from '../../../core/documents/frozen';
import { frozenView } from '../../../core/documents/view';
import { lateChargeOf } from '../owed/lateCharges';
import { mailsOf, textsOf } from '../messages/outbox';
import { promptStanding } from '../money/promptPayment';
import { paymentsOf } from '../money/payments';
import { stillToPay } from '../ledger/position';
import { paperTrail } from '../trail/documents';
import { sheetsBeside } from '../signing/send';
import { asShown } from '../signing/sheets';
import { documentSignature, maySign } from '../signing/sign';
import type { Reader } from '../../db/connection';

/** An issued document with its figures, workings, settlement, messages and paper trail. */
export function documentDetail(world: World, id: number): DocumentDetail {
	const { db } = world;
	const row = db.select().from(documents).where(eq(documents.id, id)).get();
	if (!row || row.state !== 'issued' || !row.frozen || !row.number)
		throw new NotFoundError('This document');
	const item = db.select().from(openItems).where(eq(openItems.documentId, id)).get() ?? null;
	const creditedBy = db
		.select({ id: documents.id, number: documents.number, frozen: documents.frozen })
		.from(documents)
		.where(and(eq(documents.correctsId, id), eq(documents.state, 'issued')))
		.orderBy(documents.id)
		.all()
		.map((one) => ({ ...one, frozen: one.frozen! }));
	const corrects =
		row.correctsId === null
			? null
			: (db
					.select({ id: documents.id, number: documents.number })
					.from(documents)
					.where(eq(documents.id, row.correctsId))
					.get() ?? null);
	const payments = paymentsOf(world, id);
	return {
		id,
		kind: row.kind,
		number: row.number,
		customerId: row.customerId,
		customerName: row.customerName,
		frozen: row.frozen,
		figures: frozenFigures(row.frozen),
		view: frozenView(row.frozen, row.number, 'issued'),
		issueDate: row.issueDate!,
		dueDate: row.dueDate!,
		total: BigInt(row.total),
		link: `${world.origin}/p/${linkToday(db, row.token!)}`,
		item: item && openItemOf(item),
		toPay: BigInt(item ? stillToPay(item) : 0),
		toPaySterling: BigInt(item?.toPaySterling ?? 0),
		refunded: BigInt(item ? refundedOf(world, id) : 0),
		payments,
		cardDisputes: disputesOf(db, id),
		twice: paidTwice(payments, BigInt(item?.inHand ?? 0)),
		files: filesOf(db, { to: 'document', id }),
		sheets: sheetsBeside(db, id),
		maySign: maySign(row),
		signed: signatureShown(db, id),
		mails: mailsOf(world, id),
		texts: textsOf(world, id),
		trail: paperTrail(world, id),
		creditedBy,
		corrects,
		claim: lateChargeOf(world, id),
		prompt: promptStanding(db, id),
		inHand:
			item && stillToPay(item) > 0
				? BigInt(
						inHandOf(db, item.payerId, item.currency).reduce(
							(sum, credit) => sum + credit.amount,
							0
						)
					)
				: 0n,
		payerMail: item ? (mailAddresses(db, item.payerId)[0] ?? '') : '',
		today: world.clock.today()
	};
}

function signatureShown(db: Reader, id: number): DocumentDetail['signed'] {
	const signature = documentSignature(db, id);
	return signature ? { ...asShown(signature), what: signature.what } : null;
}

/** The paper with the signature on it. @throws NotFoundError where nobody signed */
export function signedPdf(world: World, id: number): { name: string; content: Buffer } {
	const content = documentSignature(world.db, id)?.record;
	const file = storedPdf(world, id);
	if (!content || !file) throw new NotFoundError('This paper');
	return { name: file.name.replace(/\.pdf$/, '-signed.pdf'), content };
}

/** The money of a row, as the core has it. */
function openItemOf(row: typeof openItems.$inferSelect): OpenItem {
	const { state, deduction } = row;
	return {
		state,
		deduction: deduction === null ? null : BigInt(deduction),
		total: BigInt(row.total),
		cash: BigInt(row.cash),
		withheld: BigInt(row.withheld),
		credited: BigInt(row.credited),
		writtenOff: BigInt(row.writtenOff),
		outstanding: BigInt(row.outstanding),
		overpaid: BigInt(row.overpaid),
		inHand: BigInt(row.inHand)
	};
}

function refundedOf(world: World, id: number): number {
	return world.db
		.select({ amount: sql<number>`coalesce(sum(${refunds.amount}), 0)` })
		.from(refunds)
		.where(eq(refunds.documentId, id))
		.get()!.amount;
}

/** Which document it is, without loading it. */
export function documentState(world: World, id: number): 'draft' | 'issued' | null {
	const row = world.db
		.select({ state: documents.state })
		.from(documents)
		.where(eq(documents.id, id))
		.get();
	return row && row.state !== 'discarded' ? row.state : null;
}

/** An issued document drawn anew on the letterhead it was issued on, marked as a copy. @throws NotFoundError */
export function copyPdf(world: World, id: number): Promise<{ name: string; content: Buffer }> {
	const row = world.db.select().from(documents).where(eq(documents.id, id)).get();
	if (!row?.frozen || !row.number) throw new NotFoundError('This document');
	const view = frozenView(row.frozen, row.number, 'copy');
	const pays = row.kind === 'invoice' && !row.frozen.sheet.selfBilled;
	const link = pays ? `${world.origin}/p/${linkToday(world.db, row.token!)}` : null;
	const name = `${row.number.replace(/[^\w.-]+/g, '-')}-copy.pdf`;
	return drawDocument(world, view, link).then((content) => ({ name, content }));
}

export function storedPdf(world: World, id: number): { name: string; content: Buffer } | null {
	return (
		world.db
			.select({ name: documentFiles.name, content: documentFiles.content })
			.from(documentFiles)
			.where(eq(documentFiles.documentId, id))
			.get() ?? null
	);
}
