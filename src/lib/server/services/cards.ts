// Payments online, by card or from the payer's bank: one is begun, signed events say what became of it.
import { eq } from 'drizzle-orm';
import { paidNotice, receiptMessage } from '../../core/documents/wording';
import { displayPounds } from '../../core/money/display';
import { writeAtOnce, type Transaction } from '../db/connection';
import { post } from '../db/journal';
import {
	checkouts,
	creditReturns,
	customers,
	documents,
	openItems,
	payments,
	refunds,
	rehearsals,
	webhookEvents
} from '../db/schema';
import type { BankEvent } from '../gateways/bank';
import type { CardEvent } from '../gateways/card';
import type { World } from '../world';
import { accountProgressed, paymentKey } from './accountCards';
import { loadBusiness } from './business';
import { FieldError, NotFoundError, RefusedError } from './errors';
import { frozenFigures } from './freeze';
import { queueMail } from './outbox';
import { readGivenBack, takePayment, WAY_ACCOUNT, type GiveBackForm } from './payments';
import { queueReceipt } from './receipts';
import { REHEARSAL_BANNER } from './rehearse';
import { chargeDeclined, chargeSettled } from './repeatCharges';
import { keepCard } from './savedCards';
import { resettle, stillToPay } from './settlement';
import { note } from './trail';

/**
 * Opens a checkout for what is still to pay (or a part of it) and says where the customer pays.
 * @throws UnavailableError where the service is down: nothing was begun then.
 */
export async function openCheckout(
	world: World,
	token: string,
	key: string,
	amount?: number,
	{ keepCard = false, way = 'card' }: { keepCard?: boolean; way?: 'card' | 'bank' } = {}
): Promise<string> {
	const subject = payableByToken(world, token);
	const wanted = amount ?? subject.toPay;
	if (!Number.isSafeInteger(wanted) || wanted < 1)
		throw new FieldError({ amount: 'Give an amount above zero.' });
	if (wanted > subject.toPay)
		throw new FieldError({ amount: `At most ${displayPounds(subject.toPay)} is still to pay.` });
	const request = {
		key,
		amount: wanted,
		description: subject.description,
		returnUrl: `${world.origin}/p/${token}?from=${way}`,
		webhookUrl: `${world.origin}/webhooks/${way}`
	};
	const answer =
		way === 'bank'
			? await world.bank.openTransfer({ ...request, reference: subject.reference })
			: await world.card.openCheckout({
					...request,
					...(keepCard && subject.documentId ? { keepCard } : {}),
					...(subject.passOnFee ? { passOnFee: true } : {})
				});
	writeAtOnce(world.db, (tx) => {
		const fresh = tx
			.insert(checkouts)
			.values({
				key,
				documentId: subject.documentId,
				rehearsalId: subject.rehearsalId,
				amount: wanted,
				way,
				processorId: answer.id,
				state: 'open',
				createdAt: world.clock.now()
			})
			.onConflictDoNothing()
			.run().changes;
		if (fresh && subject.documentId)
			note(tx, {
				documentId: subject.documentId,
				at: world.clock.now(),
				who: 'customer',
				what: way === 'bank' ? 'bankBegun' : 'cardBegun',
				detail: displayPounds(wanted)
			});
	});
	return answer.url;
}

function payableByToken(world: World, token: string) {
	const document = world.db.select().from(documents).where(eq(documents.token, token)).get();
	if (document?.state === 'issued' && document.kind === 'invoice') {
		const item = world.db
			.select()
			.from(openItems)
			.where(eq(openItems.documentId, document.id))
			.get()!;
		const toPay = stillToPay(item);
		if (toPay === 0) throw new RefusedError('Nothing is left to pay.');
		return {
			documentId: document.id,
			rehearsalId: null,
			toPay,
			description: `Invoice ${document.number}`,
			reference: referenceOf(document.number!),
			passOnFee: feePassedOn(world, document.customerId!, item)
		};
	}
	const rehearsal = world.db.select().from(rehearsals).where(eq(rehearsals.token, token)).get();
	if (!rehearsal) throw new NotFoundError('This page');
	if (rehearsal.paidAt !== null) throw new RefusedError('This rehearsal has been paid already.');
	return {
		documentId: null,
		rehearsalId: rehearsal.id,
		toPay: Number(frozenFigures(rehearsal.frozen).payable),
		description: 'Rehearsal: nothing is charged for real',
		reference: 'REHEARSAL',
		passOnFee: false
	};
}

/** As it stands in bank statements: letters, digits and hyphens, 18 at most. */
export const referenceOf = (number: string) =>
	number.replace(/[^A-Za-z0-9-]/g, '').slice(0, 18) || 'INVOICE';

/**
 * A card fee may be passed on to a business only (Consumer Rights (Payment Surcharges) Regulations 2012), and only the
 * processor knows whether its card is a commercial one. Contractors are left out: the fee would be another part of the
 * contract, under its deduction and its reverse charge.
 */
export function feePassedOn(
	world: World,
	customerId: number,
	item: { deduction: number | null }
): boolean {
	if (item.deduction !== null || !loadBusiness(world.db).passOnCardFees) return false;
	const customer = world.db.select().from(customers).where(eq(customers.id, customerId)).get();
	return customer?.kind === 'business';
}

/**
 * Takes an event of the processor. Twice, or out of order: the second time, or the overtaken one, changes nothing.
 * @throws NotFoundError for a checkout that is not known (yet): the processor tries again.
 */
export function receiveCardEvent(world: World, event: CardEvent, body: string): void {
	writeAtOnce(world.db, (tx) => {
		const checkout = tx
			.select()
			.from(checkouts)
			.where(eq(checkouts.processorId, event.checkout))
			.get();
		if (!checkout) throw new NotFoundError('This checkout');
		const fresh = tx
			.insert(webhookEvents)
			.values({ id: event.id, type: event.type, receivedAt: world.clock.now(), body })
			.onConflictDoNothing()
			.run().changes;
		if (!fresh) return;
		if (checkout.rehearsalId !== null) rehearsed(tx, world, checkout, event);
		else if (checkout.payerId !== null) accountProgressed(tx, world, checkout, event);
		else if (event.type === 'refund.settled') refunded(tx, world, checkout, event);
		else progressed(tx, world, checkout, event);
	});
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

type CheckoutRow = typeof checkouts.$inferSelect;

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

function rehearsed(tx: Transaction, world: World, checkout: CheckoutRow, event: CardEvent): void {
	if (event.type !== 'payment.settled' || checkout.state === 'settled') return;
	tx.update(checkouts).set({ state: 'settled' }).where(eq(checkouts.id, checkout.id)).run();
	const rehearsal = tx
		.select()
		.from(rehearsals)
		.where(eq(rehearsals.id, checkout.rehearsalId!))
		.get()!;
	tx.update(rehearsals)
		.set({ paidAt: world.clock.now() })
		.where(eq(rehearsals.id, rehearsal.id))
		.run();
	const owner = loadBusiness(tx).email;
	const receipt = receiptMessage(rehearsal.frozen, 'to come', BigInt(event.amount), 0n);
	if (owner) {
		queueMail(tx, world, {
			key: `rehearsal-receipt:${checkout.id}`,
			kind: 'rehearsal',
			rehearsalId: rehearsal.id,
			to: owner,
			subject: `Rehearsal · ${receipt.subject}`,
			text: receipt.text,
			link: `${world.origin}/p/${rehearsal.token}`,
			banner: REHEARSAL_BANNER
		});
	}
}

/**
 * Gives card money back through the processor; the processor's event records it.
 * @throws FieldError, CardUnavailableError
 */
export async function refundCard(
	world: World,
	paymentId: number,
	amount: number,
	key: string
): Promise<void> {
	const payment = world.db.select().from(payments).where(eq(payments.id, paymentId)).get();
	if (!payment || payment.way !== 'card') throw new NotFoundError('This card payment');
	const before = refundedSoFar(world, payment.reference);
	if (!Number.isSafeInteger(amount) || amount < 1)
		throw new FieldError({ amount: 'Give an amount above zero.' });
	if (amount > payment.amount - before)
		throw new FieldError({
			amount: `At most ${displayPounds(payment.amount - before)} of it is left to give back.`
		});
	await world.card.refund({ key, checkoutId: payment.reference, amount });
}

function refundedSoFar(world: World, checkoutId: string): number {
	const ofInvoices = world.db
		.select({ amount: refunds.amount })
		.from(refunds)
		.where(eq(refunds.reference, checkoutId))
		.all();
	const ofCredit = world.db
		.select({ amount: creditReturns.amount })
		.from(creditReturns)
		.where(eq(creditReturns.reference, checkoutId))
		.all();
	return [...ofInvoices, ...ofCredit].reduce((total, row) => total + row.amount, 0);
}

function refunded(tx: Transaction, world: World, checkout: CheckoutRow, event: CardEvent): void {
	giveBack(tx, world, {
		key: `card-refund:${event.refund ?? event.id}`,
		documentId: checkout.documentId!,
		date: world.clock.today(),
		amount: event.amount,
		way: 'card',
		reference: event.checkout
	});
}

/**
 * Records money given back by hand for an invoice. The same key again changes nothing.
 * @throws FieldError, NotFoundError
 */
export function refundByHand(world: World, documentId: number, form: GiveBackForm): void {
	const { problems, amount, way } = readGivenBack(world, form);
	writeAtOnce(world.db, (tx) => {
		const key = `hand-refund:${form.key}`;
		if (tx.select().from(refunds).where(eq(refunds.key, key)).get()) return;
		const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
		if (!item) throw new NotFoundError('This invoice');
		if (amount > item.cash)
			problems.amount ??= `At most ${displayPounds(item.cash)} came in for it.`;
		if (Object.keys(problems).length || !way) throw new FieldError(problems);
		const { date, reference } = form;
		giveBack(tx, world, { key, documentId, date, amount, way, reference: reference.trim() });
	});
}

/** Writes a refund, its posting and the new position, in the caller's transaction. */
function giveBack(
	tx: Transaction,
	world: World,
	given: Omit<typeof refunds.$inferInsert, 'id' | 'recordedAt'>
): void {
	const { documentId, date, amount, way } = given;
	const now = world.clock.now();
	const { id } = tx
		.insert(refunds)
		.values({ ...given, recordedAt: now })
		.returning({ id: refunds.id })
		.get();
	const { withheldChange } = resettle(tx, documentId);
	const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
	post(tx, {
		key: `refund:${id}`,
		event: 'refund',
		date,
		documentId,
		customerId: item.customerId,
		recordedAt: now,
		postings: [
			{ account: WAY_ACCOUNT[way], amount: -amount },
			{ account: 'cisWithheld', amount: withheldChange },
			{ account: 'receivable', amount: amount - withheldChange }
		]
	});
	note(tx, { documentId, at: now, who: 'you', what: 'refunded', detail: displayPounds(amount) });
}
