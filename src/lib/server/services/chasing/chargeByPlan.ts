// Charging for lateness without asking, where the owner has set that for a chase plan.
import { runsOn } from '../../../core/regimes/gb/breathingSpace';
import { and, eq } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { documents } from '../../db/schema';
import type { World } from '../../world';
import { chasePayers } from './facts';
import { loadPlans } from './plans';
import { loadChaseSettings } from './settings';
import { RefusedError } from '../../../core/refusals';
import { NotReadyError } from '../invoices/freeze';
import { issueInvoice } from '../invoices/issue';
import { chargeLate } from '../owed/lateCharges';
import { prepareSending, sendByMail } from '../invoices/send';

const EVERY_MS = 60_000;
const looked = new WeakMap<World, number>();

/**
 * Issues and sends a charge for each invoice that is later than its plan allows for and was never charged for. What is
 * disputed, promised or on hold is left alone. Broken off, it goes on with the draft it made.
 * @returns how many were charged
 */
export async function chargeByPlan(world: World): Promise<number> {
	const { db } = world;
	const now = world.clock.now();
	if (!loadChaseSettings(db).on) return 0;
	const after = new Map(
		loadPlans(db).flatMap((plan) =>
			plan.chargeAfter === null ? [] : [[plan.id, plan.chargeAfter] as const]
		)
	);
	if (after.size === 0 || Math.abs(now - (looked.get(world) ?? -Infinity)) < EVERY_MS) return 0;
	looked.set(world, now);
	const today = world.clock.today();
	const due = chasePayers(db).flatMap((payer) => {
		const days = payer.plan ? after.get(payer.plan.id) : undefined;
		if (days === undefined || payer.onHold || runsOn(payer.pauses ?? [], today)) return [];
		return payer.items.filter(
			(item) =>
				item.hold === null &&
				item.sent &&
				!item.paymentPending &&
				!item.bankLineWaiting &&
				addDays(item.dueDate, days) <= today
		);
	});
	let charged = 0;
	for (const { documentId } of due) charged += await chargeOnce(world, documentId);
	return charged;
}

async function chargeOnce(world: World, documentId: number): Promise<number> {
	const names = world.db
		.select({
			id: documents.id,
			key: documents.key,
			state: documents.state,
			version: documents.version
		})
		.from(documents)
		.where(and(eq(documents.origin, 'lateCharge'), eq(documents.aboutId, documentId)))
		.all();
	const own = names.find((row) => row.key === `late:${documentId}:plan`);
	// Charged by hand, or by the plan before, or thrown away by the owner: never a second time by itself.
	if (own ? own.state !== 'draft' : names.length > 0) return 0;
	try {
		const id = chargeLate(world, documentId, 'plan');
		const draft = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
		if (draft.state !== 'draft') return 0;
		await issueInvoice(world, id, draft.version);
		const { to, subject, text, copyToSelf } = prepareSending(world, id);
		if (to) sendByMail(world, id, { key: 'plan', to, subject, text, copyToSelf });
		return 1;
	} catch (error) {
		// Nothing to claim, or something is missing: the draft waits among the next moves.
		if (error instanceof RefusedError || error instanceof NotReadyError) return 0;
		throw error;
	}
}
