// Charging kept cards for repeats: tried again by a plan; in the end an ordinary open invoice, with a message.
import { BOOKS } from '../../../core/money/currencies';
import { and, asc, eq, inArray, lte } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import type { PlainDate } from '../../../core/calendar/types';
import { displayPounds } from '../../../core/money/display';
import { chargeFailedMessage } from '../../../core/documents/wording';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { checkouts, documents, openItems, repeatOccurrences } from '../../db/schema';
import { CardUnavailableError } from '../../gateways/card';
import { greetedOf, voiceFor } from '../wordings/voice';
import type { World } from '../../world';
import { cardOf } from './keptCards';
import { stillToPay } from '../ledger/position';
import { note } from '../trail/documents';
import { queueIssued } from '../invoices/send';

/** Days until the next attempt, after the first and the second one failed. Then it is over. */
const RETRY_DAYS = [3, 4];

/** Charges every occurrence whose attempt is due. Each attempt has a key of its own, so it is charged once. */
export async function chargeDue(world: World): Promise<void> {
	const due = world.db
		.select()
		.from(repeatOccurrences)
		.where(
			and(
				eq(repeatOccurrences.state, 'charging'),
				lte(repeatOccurrences.nextAttemptOn, world.clock.today())
			)
		)
		.orderBy(asc(repeatOccurrences.date))
		.limit(50)
		.all();
	for (const occurrence of due) await chargeOne(world, occurrence);
}

async function chargeOne(
	world: World,
	occurrence: typeof repeatOccurrences.$inferSelect
): Promise<void> {
	const { documentId } = occurrence;
	if (documentId === null) return;
	const document = world.db.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const item = world.db.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	const amount = item ? stillToPay(item) : 0;
	if (amount === 0) return writeAtOnce(world.db, (tx) => chargeSettled(tx, documentId));
	if (document.currency !== BOOKS)
		return writeAtOnce(world.db, (tx) =>
			stopCharging(tx, world, documentId, 'A card is charged in pounds alone.')
		);
	const card = cardOf(world.db, document.customerId!);
	if (!card)
		return writeAtOnce(world.db, (tx) =>
			stopCharging(tx, world, documentId, 'No card is kept any more.')
		);
	const attempt = occurrence.attempts + 1;
	let answer: { id: string; state: string };
	try {
		answer = await world.card.charge({
			key: `repeat:${occurrence.repeatId}:${occurrence.nominal}:${attempt}`,
			token: card.token,
			amount,
			description: `Invoice ${document.number}`,
			webhookUrl: `${world.origin}/webhooks/card`
		});
	} catch (error) {
		// The same attempt is made at the next tick: nothing is known of it, and its key makes it one.
		if (error instanceof CardUnavailableError) return;
		throw error;
	}
	writeAtOnce(world.db, (tx) => {
		tx.insert(checkouts)
			.values({
				key: `repeat:${occurrence.repeatId}:${occurrence.nominal}:${attempt}`,
				documentId,
				amount,
				processorId: answer.id,
				state: 'open',
				createdAt: world.clock.now()
			})
			.onConflictDoNothing()
			.run();
		// What became of it comes as an event; until then nothing is tried again.
		tx.update(repeatOccurrences)
			.set({ attempts: attempt, nextAttemptOn: null })
			.where(where(documentId))
			.run();
		note(tx, {
			documentId,
			at: world.clock.now(),
			who: 'axiometer',
			what: 'cardCharged',
			detail: `${displayPounds(amount)}, card ending ${card.lastDigits}`
		});
		if (attempt > RETRY_DAYS.length && answer.state === 'declined')
			stopCharging(tx, world, documentId, 'The card was declined at every attempt.');
	});
}

const where = (documentId: number) =>
	and(eq(repeatOccurrences.documentId, documentId), eq(repeatOccurrences.state, 'charging'));

/** The processor's word that a charge was declined: tried again some days later, while the plan has days. */
export function chargeDeclined(tx: Transaction, documentId: number, today: PlainDate): void {
	const occurrence = tx.select().from(repeatOccurrences).where(where(documentId)).get();
	if (!occurrence) return;
	const days = RETRY_DAYS[occurrence.attempts - 1];
	if (days === undefined) return;
	tx.update(repeatOccurrences)
		.set({
			nextAttemptOn: addDays(today, days),
			note: `Declined ${occurrence.attempts} ${occurrence.attempts === 1 ? 'time' : 'times'}.`
		})
		.where(where(documentId))
		.run();
}

/** Paid, by this charge or otherwise. */
export function chargeSettled(tx: Transaction, documentId: number): void {
	tx.update(repeatOccurrences)
		.set({ state: 'paid', nextAttemptOn: null, note: '' })
		.where(
			and(
				eq(repeatOccurrences.documentId, documentId),
				inArray(repeatOccurrences.state, ['charging', 'open', 'sent', 'issued'])
			)
		)
		.run();
}

/** An ordinary open invoice from now on: the customer is told, with the invoice. */
export function stopCharging(tx: Transaction, world: World, documentId: number, why: string): void {
	tx.update(repeatOccurrences)
		.set({ state: 'open', nextAttemptOn: null, note: why })
		.where(where(documentId))
		.run();
	const row = tx.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	note(tx, {
		documentId,
		at: world.clock.now(),
		who: 'axiometer',
		what: 'chargeFailed',
		detail: why
	});
	if (!item) return;
	queueIssued(tx, world, documentId, {
		key: `charge-failed:${documentId}`,
		message: chargeFailedMessage(
			row.frozen!,
			row.number!,
			BigInt(item.toPay),
			voiceFor(tx, greetedOf(row.frozen!))
		),
		copyToSelf: false,
		who: 'axiometer'
	});
}
