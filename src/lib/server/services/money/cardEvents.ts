// What became of payments online: signed events of the processor and of banks, each taken once.
import { eq } from 'drizzle-orm';
import { paidNotice, receiptMessage, receiptOf } from '../../../core/documents/wording';
import { displayPounds } from '../../../core/money/display';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { checkouts, documents, trials, webhookEvents } from '../../db/schema';
import type { BankEvent } from '../../gateways/bank';
import type { CardEvent, DisputeEvent } from '../../gateways/card';
import { greetedOf, voiceFor } from '../wordings/voice';
import type { World } from '../../world';
import { accountProgressed, paymentKey } from './payerCheckouts';
import { loadBusiness } from '../business/settings';
import { NotFoundError } from '../../../core/refusals';
import { queueMail } from '../messages/outbox';
import { takePayment } from './taking';
import { queueReceipt } from './receipts';
import { TRIAL_BANNER } from '../invoices/trial';
import { chargeDeclined, chargeSettled } from '../repeats/charges';
import { keepCard } from '../repeats/keptCards';
import { note } from '../trail/documents';
import { judgeRefund, setAside } from './oddNews';
import { refunded } from './refunds';
import { type CheckoutRow } from './checkouts';

/**
 * Takes an event of the processor. Twice, or out of order: the second time, or the overtaken one, changes nothing.
 * @throws NotFoundError for a checkout that is not known (yet): the processor tries again.
 */
export function receiveCardEvent(world: World, event: CardEvent, body: string): void {
	writeAtOnce(world.db, (tx) => {
		const { checkout, fresh } = noteEvent(tx, world, event, body);
		if (fresh) take(tx, world, checkout, event, body);
	});
}

/**
 * Notes news of the processor, once by its id, and finds the checkout it is about.
 * @throws NotFoundError for a checkout that is not known (yet): the processor tries again.
 */
export function noteEvent(
	tx: Transaction,
	world: World,
	event: Pick<CardEvent | DisputeEvent, 'id' | 'type' | 'checkout'>,
	body: string
): { checkout: CheckoutRow; fresh: boolean } {
	const checkout = tx
		.select()
		.from(checkouts)
		.where(eq(checkouts.processorId, event.checkout))
		.get();
	if (!checkout) throw new NotFoundError('This checkout');
	const { changes } = tx
		.insert(webhookEvents)
		.values({ id: event.id, type: event.type, receivedAt: world.clock.now(), body })
		.onConflictDoNothing()
		.run();
	return { checkout, fresh: changes > 0 };
}

/** What an event of a checkout means for the books, once, in the caller's transaction. */
export function take(
	tx: Transaction,
	world: World,
	checkout: CheckoutRow,
	event: CardEvent,
	body: string
): void {
	if (event.type === 'refund.settled' && checkout.trialId === null) {
		const judged = judgeRefund(tx, event);
		if (judged === 'known') return;
		if (judged !== 'take') return setAside(tx, world, event, judged.why, body);
	}
	if (checkout.trialId !== null) tried(tx, world, checkout, event);
	else if (checkout.payerId !== null) accountProgressed(tx, world, checkout, event);
	else if (event.type === 'refund.settled') refunded(tx, world, checkout, event);
	else progressed(tx, world, checkout, event);
}

/** News of a payment from the payer's own bank: the same course as a card's, without a fee. */
export function receiveBankEvent(world: World, event: BankEvent, body: string): void {
	const types = {
		'transfer.pending': 'payment.pending',
		'transfer.settled': 'payment.settled',
		'transfer.failed': 'payment.declined'
	} as const;
	const { id, transfer, amount } = event;
	receiveCardEvent(
		world,
		{ id, type: types[event.type], checkout: transfer, amount, fee: 0 },
		body
	);
}

function progressed(tx: Transaction, world: World, checkout: CheckoutRow, event: CardEvent): void {
	const documentId = checkout.documentId!;
	// Settled is the end: what arrives after it is late news.
	if (checkout.state === 'settled') return;
	const at = world.clock.now();
	const set = (state: CheckoutRow['state']) =>
		tx.update(checkouts).set({ state }).where(eq(checkouts.id, checkout.id)).run();
	if (event.type === 'payment.pending') {
		if (checkout.state !== 'open') return;
		set('pending');
		note(tx, {
			documentId,
			at,
			who: 'customer',
			what: checkout.way === 'bank' ? 'bankPending' : 'cardPending',
			detail: displayPounds(event.amount)
		});
	} else if (event.type === 'payment.declined') {
		set('declined');
		chargeDeclined(tx, documentId, world.clock.today());
		note(tx, {
			documentId,
			at,
			who: 'customer',
			what: checkout.way === 'bank' ? 'bankFailed' : 'cardDeclined',
			detail: displayPounds(event.amount)
		});
	} else {
		set('settled');
		if (event.card) keepCard(tx, documentId, event.card, at);
		chargeSettled(tx, documentId);
		const taken = takePayment(tx, world, {
			key: paymentKey(checkout),
			documentId,
			date: world.clock.today(),
			amount: event.amount,
			withheld: null,
			way: checkout.way,
			source: 'checkout',
			reference: event.checkout,
			fee: event.fee,
			feeOnTop: event.feeOnTop ?? 0,
			who: 'customer'
		});
		tellBoth(tx, world, {
			documentId,
			paymentId: taken.id,
			amount: event.amount,
			fee: event.fee,
			way: checkout.way,
			left: taken.outstanding
		});
	}
}

/** A receipt for the customer, a notice for the owner: written with the payment, sent after it. */
function tellBoth(
	tx: Transaction,
	world: World,
	paid: {
		documentId: number;
		paymentId: number;
		amount: number;
		fee: number;
		way: 'card' | 'bank';
		left: number;
	}
): void {
	const { documentId, paymentId } = paid;
	const document = tx.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const { frozen, number } = document;
	if (!frozen || !number) return;
	queueReceipt(tx, world, paymentId);
	const owner = loadBusiness(tx).email;
	if (owner) {
		const notice = paidNotice(
			frozen,
			number,
			BigInt(paid.amount),
			BigInt(paid.fee),
			BigInt(paid.left),
			paid.way
		);
		queueMail(tx, world, {
			key: `paid:${paymentId}`,
			kind: 'paidNotice',
			documentId,
			to: owner,
			...notice,
			link: `${world.origin}/billing/${documentId}`
		});
	}
}

function tried(tx: Transaction, world: World, checkout: CheckoutRow, event: CardEvent): void {
	if (event.type !== 'payment.settled' || checkout.state === 'settled') return;
	tx.update(checkouts).set({ state: 'settled' }).where(eq(checkouts.id, checkout.id)).run();
	const trial = tx.select().from(trials).where(eq(trials.id, checkout.trialId!)).get()!;
	tx.update(trials).set({ paidAt: world.clock.now() }).where(eq(trials.id, trial.id)).run();
	const owner = loadBusiness(tx).email;
	const receipt = receiptMessage(
		receiptOf(trial.frozen, 'to come', BigInt(event.amount), 0n),
		voiceFor(tx, greetedOf(trial.frozen))
	);
	if (owner) {
		queueMail(tx, world, {
			key: `trial-receipt:${checkout.id}`,
			kind: 'trial',
			trialId: trial.id,
			to: owner,
			subject: `Test · ${receipt.subject}`,
			text: receipt.text,
			link: `${world.origin}/p/${trial.token}`,
			banner: TRIAL_BANNER
		});
	}
}
