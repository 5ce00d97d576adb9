// A credit note for a whole invoice: a document of its own that copies what it corrects.
import { and, eq, isNull, ne, notExists, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import type { Frozen } from '../../../core/documents/types';
import { post } from '../../db/journal';
import type { Transaction } from '../../db/connection';
import { documents, openItems, retentions } from '../../db/schema';
import type { World } from '../../world';
import { freeTaken } from '../jobs/takenParts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { discardDraft } from './drafts';
import { frozenFigures } from './freeze';
import { issueFrozen, type Issued } from './issue';
import { resettle } from '../ledger/settlement';
import { note } from '../trail/documents';

const corrections = alias(documents, 'corrections');

/**
 * Credits an invoice in full. `key` names the press of the button: a second press gives the same note back.
 * Source: VATA 1994 Sch. 11, VAT Regulations 1995 reg. 15C: treatment, tax point, rate and reverse charge are copied.
 * @throws FieldError without a reason, RefusedError where it has been credited already.
 */
export async function creditInvoice(
	world: World,
	invoiceId: number,
	reason: string,
	key: string
): Promise<Issued> {
	const why = reason.trim();
	if (why === '') throw new FieldError({ reason: 'A credit note says why it is given.' });
	if (why.length > 300) throw new FieldError({ reason: 'At most 300 characters.' });
	const same = world.db.select().from(documents).where(eq(documents.key, key)).get();
	if (same?.number) return { id: same.id, number: same.number };

	const invoice = world.db.select().from(documents).where(eq(documents.id, invoiceId)).get();
	if (!invoice || invoice.state !== 'issued' || invoice.kind !== 'invoice' || !invoice.frozen)
		throw new NotFoundError('This invoice');
	refuseTwice(world.db, invoiceId);
	refuseReleased(world.db, invoiceId);
	await creditCharges(world, invoice, key);
	const original = invoice.frozen;
	const figures = frozenFigures(original);
	const frozen: Frozen = {
		...original,
		kind: 'creditNote',
		issueDate: world.clock.today(),
		corrects: {
			number: invoice.number!,
			issueDate: original.issueDate,
			reason: why,
			reverseCharge: figures.decisions.reverseCharge.answer
		}
	};
	return issueFrozen(world, {
		frozen,
		figures: frozenFigures(frozen),
		draftId: null,
		version: 0,
		correctsId: invoiceId,
		key,
		after: (tx, id, number) => {
			refuseTwice(tx, invoiceId, id);
			refuseReleased(tx, invoiceId);
			settleCredited(tx, world, invoiceId, number);
			// What the invoice billed can be billed again, and what it held back is not owed any more.
			freeTaken(tx, invoiceId, world.clock.now());
			tx.delete(retentions)
				.where(and(eq(retentions.documentId, invoiceId), isNull(retentions.releasedById)))
				.run();
			note(tx, {
				documentId: id,
				at: world.clock.now(),
				who: 'you',
				what: 'corrects',
				detail: invoice.number!
			});
		}
	});
}

/** A charge for lateness falls with the debt it stands on: it is credited before it, and a draft of one is thrown away. */
async function creditCharges(
	world: World,
	invoice: { id: number; number: string | null },
	key: string
): Promise<void> {
	const charges = world.db
		.select({ id: documents.id, state: documents.state })
		.from(documents)
		.where(
			and(
				eq(documents.origin, 'lateCharge'),
				eq(documents.aboutId, invoice.id),
				ne(documents.state, 'discarded'),
				notExists(
					world.db
						.select({ one: sql`1` })
						.from(corrections)
						.where(and(eq(corrections.correctsId, documents.id), eq(corrections.state, 'issued')))
				)
			)
		)
		.all();
	for (const { id, state } of charges)
		if (state === 'draft') discardDraft(world, id, true);
		else await creditInvoice(world, id, `${invoice.number} was credited`, `${key}:charge:${id}`);
}

function refuseTwice(db: Transaction | World['db'], invoiceId: number, except?: number): void {
	const others = db
		.select({ id: documents.id, number: documents.number })
		.from(documents)
		.where(and(eq(documents.correctsId, invoiceId), eq(documents.state, 'issued')))
		.all()
		.filter((row) => row.id !== except);
	if (others.length)
		throw new RefusedError(`This invoice has been credited already, by ${others[0]!.number}.`);
}

/** What it held back was billed by its release: credited by itself, that part would be billed once more. */
function refuseReleased(db: Transaction | World['db'], invoiceId: number): void {
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
function settleCredited(tx: Transaction, world: World, invoiceId: number, number: string): void {
	const now = world.clock.now();
	const { postings } = resettle(tx, world, invoiceId, { because: 'Credited' });
	const item = tx.select().from(openItems).where(eq(openItems.documentId, invoiceId)).get()!;
	if (postings.some((posting) => posting.amount !== 0)) {
		post(tx, {
			key: `credit-withheld:${invoiceId}:${number}`,
			event: 'credit',
			date: world.clock.today(),
			documentId: invoiceId,
			customerId: item.customerId,
			recordedAt: now,
			postings
		});
	}
	note(tx, { documentId: invoiceId, at: now, who: 'you', what: 'credited', detail: number });
}
