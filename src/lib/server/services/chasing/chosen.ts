// Reminders about invoices that somebody chose: one message for each payer, about those alone, and why some are left out.
import { messageNow, notNow } from '../../../core/chasing/decide';
import type { HeldBecause } from '../../../core/chasing/types';
import type { Reader, Transaction } from '../../db/connection';
import { openItems } from '../../db/schema';
import { inArray } from 'drizzle-orm';
import type { World } from '../../world';
import { send } from './chasing';
import { wayOf } from './compose';
import { chasePayers, type KnownPayer } from './facts';
import { chaseContext } from './context';
import { loadChaseSettings } from './settings';

const WORDS: Record<HeldBecause, string> = {
	disputed: 'It is disputed.',
	promised: 'Its payment is promised.',
	breathingSpace: 'They are in breathing space: nothing may be asked for.',
	customerOnHold: 'Chasing of this customer is paused.',
	notSent: 'They have not got it yet.',
	paymentPending: 'A payment of it is on its way.',
	bankLineWaiting: 'A bank line that is not accepted yet seems to pay it.',
	paidJustNow: 'They paid something just now.',
	writtenJustNow: 'They were written to a few days ago.'
};

function payersOf(db: Reader, ids: readonly number[]): KnownPayer[] {
	const payerIds = db
		.selectDistinct({ id: openItems.payerId })
		.from(openItems)
		.where(inArray(openItems.documentId, [...ids]))
		.all()
		.map((row) => row.id);
	return payerIds.length ? chasePayers(db, payerIds) : [];
}

/** Of these invoices those about which nobody is reminded now, each with the reason. */
export function reminderFits(
	world: World,
	db: Reader,
	ids: readonly number[]
): Map<number, string> {
	const wanted = new Set(ids);
	const settings = loadChaseSettings(db);
	const today = world.clock.today();
	const payers = payersOf(db, ids);
	const { reach } = chaseContext(db, payers, today);
	const found = new Map<number, string | null>();
	for (const payer of payers) {
		const { mail, post } = reach.get(payer.payerId)!;
		for (const item of payer.items) {
			if (!wanted.has(item.documentId)) continue;
			const because = notNow(payer, item, today, world.clock.now(), settings);
			found.set(
				item.documentId,
				item.toPay <= 0n
					? 'Nothing is to pay.'
					: because
						? WORDS[because]
						: !payer.plan
							? 'This customer is never chased.'
							: !mail && !post
								? 'There is neither an e-mail nor a postal address.'
								: null
			);
		}
	}
	return new Map(
		ids.flatMap((id): [number, string][] => {
			const why = found.has(id) ? found.get(id)! : 'Nothing is open on it.';
			return why === null ? [] : [[id, why]];
		})
	);
}

/**
 * Writes one message to each payer of these invoices, about them alone. They were looked through by `reminderFits` in the
 * same transaction.
 * @returns those about which there was nothing to write
 */
export function remindAbout(
	world: World,
	tx: Transaction,
	ids: readonly number[],
	key: string
): Map<number, string> {
	const left = new Map<number, string>();
	const wanted = new Set(ids);
	const day = world.clock.today();
	const payers = payersOf(tx, [...wanted]);
	const context = chaseContext(tx, payers, day);
	for (const known of payers) {
		const payer = { ...known, items: known.items.filter((item) => wanted.has(item.documentId)) };
		const message = messageNow(payer, day, true);
		if (!message || wayOf(message.step.channel, context.reach.get(payer.payerId)!).to === '') {
			for (const item of payer.items) left.set(item.documentId, 'There is nothing to write.');
			continue;
		}
		send(world, tx, context, { payer, message, day, why: 'now' }, 'you', `${key}:${payer.payerId}`);
	}
	return left;
}
