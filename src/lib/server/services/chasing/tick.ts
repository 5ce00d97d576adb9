// Chasing by itself: what is due is written and sent, in slices that keep nobody waiting.
import type { PlainDate } from '../../../core/calendar/types';
import { mayGoOut } from '../../../core/chasing/decide';
import { writeAtOnce, type Transaction } from '../../db/connection';
import type { World } from '../../world';
import { chasePayers } from './facts';
import { chaseContext } from './context';
import { minutesNow } from './messages';
import { loadChaseSettings } from './settings';
import { type Found, wayOf, markOf, stillToday, decide } from './compose';
import { send } from './chasing';
import { turn } from '../../turn';

/** Looking through everybody again takes a moment; so often is enough. */
const EVERY_MS = 60_000;
const looked = new WeakMap<World, number>();

/**
 * Sends what is due today, within the hours. Each payer is decided about anew in the transaction that writes its message,
 * so what was paid a moment ago is not asked for, and a step that was dealt with is not dealt with again.
 * @returns how many were written
 */
export async function runChasing(world: World): Promise<number> {
	const settings = loadChaseSettings(world.db);
	const today = world.clock.today();
	const now = world.clock.now();
	if (!settings.on || !mayGoOut(today, minutesNow(world), settings)) return 0;
	if (Math.abs(now - (looked.get(world) ?? -Infinity)) < EVERY_MS) return 0;
	looked.set(world, now);
	let written = 0;
	const due = decide(world, chasePayers(world.db), today).messages.map(({ payerId }) => payerId);
	for (let start = 0; start < due.length; start += AT_ONCE) {
		written += writeAtOnce(world.db, (tx) =>
			writeDue(world, tx, due.slice(start, start + AT_ONCE), today)
		);
		// Many of them leave room for what others ask in between.
		await turn();
	}
	return written;
}

/** So many are decided anew and written in one transaction: few enough that nobody waits for it. */
const AT_ONCE = 20;

/** Decides about some payers anew and writes what stands, in the caller's transaction; their facts are read once. */
function writeDue(world: World, tx: Transaction, payerIds: number[], today: PlainDate): number {
	if (!stillToday(world)) return 0;
	const payers = new Map(chasePayers(tx, payerIds).map((payer) => [payer.payerId, payer]));
	const { messages } = decide(world, [...payers.values()], today);
	const context = chaseContext(
		tx,
		messages.map(({ payerId }) => payers.get(payerId)!),
		today
	);
	let written = 0;
	for (const message of messages) {
		const found: Found = {
			payer: payers.get(message.payerId)!,
			message,
			day: today,
			why: 'planned'
		};
		const key = `chase:${message.payerId}:${today}:${markOf(message)}`;
		if (wayOf(message.step.channel, context.reach.get(message.payerId)!).to === '') continue;
		send(world, tx, context, found, 'axiometer', key);
		written++;
	}
	return written;
}
