// A credit note, for a whole invoice or a part of it: a document of its own that copies what it corrects.
import { must } from '../../actor';
import { and, eq, isNull, ne, sql } from 'drizzle-orm';
import {
	freezeCredit,
	leftAfter,
	type CreditWishes,
	type LeftOfInvoice
} from '../../../core/documents/credit';
import { takesAll } from '../../../core/sheet/credit';
import { post } from '../../db/journal';
import type { Reader, Transaction } from '../../db/connection';
import { documents, openItems, retentions } from '../../db/schema';
import type { World } from '../../world';
import { giveBackParts } from '../jobs/givenBack';
import { freeTaken } from '../jobs/takenParts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { discardInTransaction } from './drafts';
import { issueTogether, type Issued, type ToIssue } from './issuing';
import { resettle } from '../ledger/settlement';
import { queueIssued } from './send';
import { note } from '../trail/documents';

export interface CreditForm extends CreditWishes {
	/** Names the press of the button: a second press gives the same note back. */
	key: string;
	reason: string;
	/** It goes to the customer by e-mail. */
	send?: boolean;
}

/** Credits all that is left of an invoice. @throws as `creditPart` */
export function creditInvoice(
	world: World,
	invoiceId: number,
	reason: string,
	key: string
): Promise<Issued> {
	must('bill');
	return creditPart(world, invoiceId, { key, reason, wishes: null, again: true });
}

/**
 * Credits lines, units or amounts of an invoice, in whatever state of payment it is.
 * Source: VATA 1994 Sch. 11, VAT Regulations 1995 reg. 15C: treatment, tax point, rate and reverse charge are copied.
 * @throws FieldError without a reason, at `quantity.N`, `amount.N` or `off` where more is asked than is left; RefusedError
 * where nothing is left, or what it held back was released.
 */
export async function creditPart(
	world: World,
	invoiceId: number,
	form: CreditForm
): Promise<Issued> {
	must('bill');
	readReason(form.reason);
	return issueTogether(world, () => {
		const same = world.db.select().from(documents).where(eq(documents.key, form.key)).get();
		if (same?.number) return { id: same.id, number: same.number };
		return planCredits(world, invoiceId, form);
	});
}

/** The credit note, and before it those of the charges that fall with the debt. */
export function planCredits(world: World, invoiceId: number, form: CreditForm): ToIssue[] {
	const plan = planCredit(world, invoiceId, form);
	if (form.wishes !== null) return [plan];
	const { issued, drafts } = chargesOn(world.db, invoiceId);
	return [
		...issued.map((id) =>
			planCredit(world, id, {
				key: `${form.key}:charge:${id}`,
				reason: `${plan.frozen.corrects!.number} was credited`,
				wishes: null,
				again: true
			})
		),
		{
			...plan,
			after: (tx, id, number) => {
				for (const draft of drafts) discardInTransaction(tx, world, draft, true);
				plan.after?.(tx, id, number);
			}
		}
	];
}

function readReason(reason: string): string {
	const why = reason.trim();
	if (why === '') throw new FieldError({ reason: 'A credit note says why it is given.' });
	if (why.length > 300) throw new FieldError({ reason: 'At most 300 characters.' });
	return why;
}

/** What is left of an issued invoice after the credit notes that stand. @throws NotFoundError, RefusedError where nothing is */
export function leftOfInvoice(db: Reader, invoiceId: number): LeftOfInvoice & { seen: string } {
	const invoice = db.select().from(documents).where(eq(documents.id, invoiceId)).get();
	if (!invoice || invoice.state !== 'issued' || invoice.kind !== 'invoice' || !invoice.frozen)
		throw new NotFoundError('This invoice');
	const notes = db
		.select({ number: documents.number, frozen: documents.frozen })
		.from(documents)
		.where(and(eq(documents.correctsId, invoiceId), eq(documents.state, 'issued')))
		.orderBy(documents.id)
		.all();
	const left = leftAfter(
		invoice.number!,
		invoice.frozen,
		notes.map(({ frozen }) => frozen!)
	);
	if (left.nothing)
		throw new RefusedError(
			`This invoice has been credited already, by ${notes.map(({ number }) => number).join(', ')}.`
		);
	return { ...left, seen: notes.map(({ number }) => number).join() };
}

/** Everything that crediting one document does, ready to be issued. */
function planCredit(world: World, invoiceId: number, form: CreditForm): ToIssue {
	const { db } = world;
	const left = leftOfInvoice(db, invoiceId);
	const { number: invoiceNumber, lines, seen } = left;
	const { frozen, figures, parts } = freezeCredit(
		left,
		form,
		readReason(form.reason),
		world.clock.today()
	);
	const held = parts ? parts.some(({ retention }) => retention !== 0) : true;
	if (held) refuseReleased(db, invoiceId);
	return {
		frozen,
		figures,
		draftId: null,
		version: 0,
		correctsId: invoiceId,
		key: form.key,
		unchanged: (tx) => {
			if (held) refuseReleased(tx, invoiceId);
			return leftOfInvoice(tx, invoiceId).seen === seen;
		},
		after: (tx, id, number) => {
			const at = world.clock.now();
			settleCredited(tx, world, invoiceId, number, frozen.issueDate);
			if (parts && !takesAll(lines, parts)) giveBackParts(tx, invoiceId, lines, parts, at);
			else {
				// What the invoice held back is not owed any more, and what it billed can be billed again.
				tx.delete(retentions)
					.where(and(eq(retentions.documentId, invoiceId), isNull(retentions.releasedById)))
					.run();
				if (form.again) freeTaken(tx, invoiceId, at);
			}
			note(tx, { documentId: id, at, who: 'you', what: 'corrects', detail: invoiceNumber });
			if (form.send) queueIssued(tx, world, id, { key: `send:${id}:with-issue`, who: 'you' });
		}
	};
}

/** Charges for the lateness of an invoice that stand, whole or in part, and drafts of such. */
function chargesOn(db: Reader, invoiceId: number): { issued: number[]; drafts: number[] } {
	const charges = db
		.select({ id: documents.id, state: documents.state, total: documents.total })
		.from(documents)
		.where(
			and(
				eq(documents.origin, 'lateCharge'),
				eq(documents.aboutId, invoiceId),
				ne(documents.state, 'discarded')
			)
		)
		.all();
	const stands = ({ id, total }: { id: number; total: number }) =>
		db
			.select({ sum: sql<number>`coalesce(sum(${documents.total}), 0)` })
			.from(documents)
			.where(and(eq(documents.correctsId, id), eq(documents.state, 'issued')))
			.get()!.sum < total;
	return {
		issued: charges.filter((one) => one.state === 'issued' && stands(one)).map(({ id }) => id),
		drafts: charges.filter(({ state }) => state === 'draft').map(({ id }) => id)
	};
}

/** What it held back was billed by its release: credited by itself, that part would be billed once more. */
function refuseReleased(db: Reader, invoiceId: number): void {
	const released = db
		.select({ number: documents.number })
		.from(retentions)
		.innerJoin(documents, eq(documents.id, retentions.releasedById))
		.where(eq(retentions.documentId, invoiceId))
		.get();
	if (released)
		throw new RefusedError(
			`What it held back was released by ${released.number}. Credit that one first, then this.`
		);
}

/** The invoice's own position changes, and perhaps what counts as withheld on it. */
function settleCredited(
	tx: Transaction,
	world: World,
	invoiceId: number,
	number: string,
	date: string
): void {
	const now = world.clock.now();
	const { postings } = resettle(tx, world, invoiceId, { because: 'Credited' });
	const item = tx.select().from(openItems).where(eq(openItems.documentId, invoiceId)).get()!;
	if (postings.some((posting) => posting.amount !== 0)) {
		post(tx, {
			key: `credit-withheld:${invoiceId}:${number}`,
			event: 'credit',
			date,
			documentId: invoiceId,
			customerId: item.customerId,
			recordedAt: now,
			currency: item.currency,
			postings
		});
	}
	note(tx, { documentId: invoiceId, at: now, who: 'you', what: 'credited', detail: number });
}
