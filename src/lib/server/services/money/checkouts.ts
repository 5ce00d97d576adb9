// Payments online, by card or from the payer's bank: one is begun, signed events say what became of it.
import { eq } from 'drizzle-orm';
import { waysOf } from '../../../core/sheet/own';
import { displayPounds } from '../../../core/money/display';
import { writeAtOnce } from '../../db/connection';
import { checkouts, customers, documents, openItems, trials } from '../../db/schema';
import type { World } from '../../world';
import { linkToday } from '../business/links';
import { loadBusiness } from '../business/settings';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { frozenFigures } from '../../../core/documents/frozen';
import { stillToPay } from '../ledger/position';
import { note } from '../trail/documents';

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
	if (!subject.ways[way]) throw new RefusedError('This invoice is paid in another way: see below.');
	const wanted = amount ?? subject.toPay;
	if (!Number.isSafeInteger(wanted) || wanted < 1)
		throw new FieldError({ amount: 'Give an amount above zero.' });
	if (wanted > subject.toPay)
		throw new FieldError({ amount: `At most ${displayPounds(subject.toPay)} is still to pay.` });
	const request = {
		key,
		amount: wanted,
		description: subject.description,
		returnUrl: `${world.origin}/p/${linkToday(world.db, token)}?from=${way}`,
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
				trialId: subject.trialId,
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
			trialId: null,
			toPay,
			description: `Invoice ${document.number}`,
			reference: referenceOf(document.number!),
			passOnFee: feePassedOn(world, document.customerId!, item),
			ways: waysOf(document.frozen!.sheet, document.frozen!.customer)
		};
	}
	const trial = world.db.select().from(trials).where(eq(trials.token, token)).get();
	if (!trial) throw new NotFoundError('This page');
	if (trial.paidAt !== null) throw new RefusedError('This test has been paid already.');
	return {
		documentId: null,
		trialId: trial.id,
		toPay: Number(frozenFigures(trial.frozen).payable),
		description: 'Test: nothing is charged for real',
		reference: 'TEST',
		passOnFee: false,
		ways: waysOf(trial.frozen.sheet, trial.frozen.customer)
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

export type CheckoutRow = typeof checkouts.$inferSelect;
