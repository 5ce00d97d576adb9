// The paper trail: who did what to a document, when.
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Reader } from '../../db/connection';
import { actor } from '../../actor';
import { openItems, people, trail } from '../../db/schema';
import type { World } from '../../world';

export type TrailWhat =
	| 'begun'
	| 'issued'
	| 'broughtIn'
	| 'sent'
	| 'texted'
	| 'delivered'
	| 'notDelivered'
	| 'linkCopied'
	| 'linkRenewed'
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
	| 'creditTakenBack'
	| 'promised'
	| 'disputed'
	| 'holdEnded'
	| 'claimed'
	| 'reminded'
	| 'reminderOpened'
	| 'reminderWithdrawn'
	| 'reminderSkipped'
	| 'letterPosted'
	| 'disputeOpened'
	| 'disputeAnswered'
	| 'disputeWon'
	| 'disputeLost'
	| 'claimWritten'
	| 'onStatement'
	| 'credited'
	| 'corrects'
	| 'theirs'
	| 'replaces'
	| 'replacedBy'
	| 'raises'
	| 'signed'
	| 'raisedBy'
	| 'tried';

/** After any of these the customer has the document, or has seen what it asks for. */
export const REACHED: ReadonlySet<TrailWhat> = new Set([
	'sent',
	'texted',
	'delivered',
	'linkCopied',
	'downloaded',
	'handedOver',
	'broughtIn',
	'theirs',
	'opened',
	'onStatement'
]);

interface Noted {
	at: number;
	who: 'you' | 'customer' | 'axiometer';
	what: TrailWhat;
	detail?: string;
}

export function note(tx: Reader, { documentId, ...noted }: Noted & { documentId: number }): void {
	noteAll(tx, [documentId], noted);
}

/** The same about several documents. */
export function noteAll(tx: Reader, documentIds: readonly number[], noted: Noted): void {
	if (documentIds.length === 0) return;
	tx.insert(trail)
		.values(
			documentIds.map((documentId) => ({
				...noted,
				documentId,
				detail: noted.detail ?? '',
				personId: noted.who === 'you' ? (actor()?.id ?? null) : null
			}))
		)
		.run();
	if (REACHED.has(noted.what))
		tx.update(openItems)
			.set({ reached: true })
			.where(and(inArray(openItems.documentId, [...documentIds]), eq(openItems.reached, false)))
			.run();
}

export function paperTrail(world: World, documentId: number) {
	const reader = actor()?.id ?? 1;
	return world.db
		.select({ entry: trail, name: people.name })
		.from(trail)
		.leftJoin(people, eq(people.id, trail.personId))
		.where(eq(trail.documentId, documentId))
		.orderBy(asc(trail.id))
		.all()
		.map(({ entry: { personId, ...entry }, name }) => ({
			...entry,
			// Who it was, where it was not whoever reads.
			by: personId !== null && personId !== reader ? (name ?? '') : ''
		}));
}
