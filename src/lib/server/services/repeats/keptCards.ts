// Cards that customers let be kept: the processor's token, and the digits a person knows it by. Either side revokes.
import { and, desc, eq, isNull } from 'drizzle-orm';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { documents, savedCards } from '../../db/schema';
import type { World } from '../../world';
import { NotFoundError } from '../../../core/refusals';
import { note } from '../trail/documents';

/** Keeps the card a payment was made with; an earlier one of the same customer makes way. */
export function keepCard(
	tx: Transaction,
	documentId: number,
	card: { token: string; lastDigits: string },
	at: number
): void {
	const document = tx.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!document?.customerId) return;
	tx.update(savedCards)
		.set({ revokedAt: at, revokedBy: 'customer' })
		.where(and(eq(savedCards.customerId, document.customerId), isNull(savedCards.revokedAt)))
		.run();
	tx.insert(savedCards)
		.values({ ...card, customerId: document.customerId, consentAt: at })
		.onConflictDoNothing()
		.run();
	note(tx, { documentId, at, who: 'customer', what: 'cardKept', detail: card.lastDigits });
}

/** The card a customer lets be charged, or null. */
export function cardOf(db: Reader, customerId: number): typeof savedCards.$inferSelect | null {
	return (
		db
			.select()
			.from(savedCards)
			.where(and(eq(savedCards.customerId, customerId), isNull(savedCards.revokedAt)))
			.orderBy(desc(savedCards.id))
			.get() ?? null
	);
}

/** The last digits of the kept card, for the customer's own page; empty where none is kept. */
export function keptCardShown(world: World, token: string): string {
	const document = world.db.select().from(documents).where(eq(documents.token, token)).get();
	return document?.customerId ? (cardOf(world.db, document.customerId)?.lastDigits ?? '') : '';
}

/** It is not charged any more from now on, whether or not the processor can be told just now. */
export async function revokeCard(
	world: World,
	customerId: number,
	by: 'you' | 'customer'
): Promise<void> {
	const card = writeAtOnce(world.db, (tx) => {
		const kept = cardOf(tx, customerId);
		if (kept)
			tx.update(savedCards)
				.set({ revokedAt: world.clock.now(), revokedBy: by })
				.where(eq(savedCards.id, kept.id))
				.run();
		return kept;
	});
	if (card) await world.card.forgetCard(card.token).catch(() => undefined);
}

/** @throws NotFoundError for a link that is not right */
export async function revokeByCustomer(world: World, token: string): Promise<void> {
	const document = world.db.select().from(documents).where(eq(documents.token, token)).get();
	if (!document?.customerId) throw new NotFoundError('This page');
	note(world.db, {
		documentId: document.id,
		at: world.clock.now(),
		who: 'customer',
		what: 'cardRevoked'
	});
	await revokeCard(world, document.customerId, 'customer');
}
