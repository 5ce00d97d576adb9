// The paper trail: who did what to a document, when.
import { asc, eq } from 'drizzle-orm';
import type { Database, Transaction } from '../../db/connection';
import { trail } from '../../db/schema';
import type { World } from '../../world';

export type TrailWhat =
	| 'begun'
	| 'issued'
	| 'sent'
	| 'delivered'
	| 'notDelivered'
	| 'linkCopied'
	| 'downloaded'
	| 'handedOver'
	| 'opened'
	| 'pdfOpened'
	| 'cardBegun'
	| 'cardDeclined'
	| 'cardPending'
	| 'bankBegun'
	| 'bankPending'
	| 'bankFailed'
	| 'cardKept'
	| 'cardRevoked'
	| 'cardCharged'
	| 'chargeFailed'
	| 'repeated'
	| 'paid'
	| 'paymentUndone'
	| 'refunded'
	| 'creditApplied'
	| 'writtenOff'
	| 'takenUpAgain'
	| 'promised'
	| 'disputed'
	| 'holdEnded'
	| 'claimed'
	| 'reminded'
	| 'reminderOpened'
	| 'reminderWithdrawn'
	| 'reminderSkipped'
	| 'letterPosted'
	| 'onStatement'
	| 'credited'
	| 'corrects'
	| 'rehearsed';

export function note(
	tx: Database | Transaction,
	entry: {
		documentId: number;
		at: number;
		who: 'you' | 'customer' | 'axiometer';
		what: TrailWhat;
		detail?: string;
	}
): void {
	tx.insert(trail)
		.values({ ...entry, detail: entry.detail ?? '' })
		.run();
}

export function paperTrail(world: World, documentId: number) {
	return world.db
		.select()
		.from(trail)
		.where(eq(trail.documentId, documentId))
		.orderBy(asc(trail.id))
		.all();
}
