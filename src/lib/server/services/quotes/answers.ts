// What becomes of a quote that is out, but for a yes: declined, taken back, reopened, left alone, prolonged.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { FieldError, RefusedError } from '../../../core/refusals';
import { writeAtOnce } from '../../db/connection';
import { quotes } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { noteQuote, loadQuote } from './quotes';

const reasonForm = z.object({ reason: text(1000) });

/** The owner takes it back: it can be accepted no more. @throws RefusedError */
export function withdrawQuote(world: World, id: number, typed: unknown): void {
	must('bill');
	const { reason } = parseForm(reasonForm, typed);
	answer(world, id, 'withdrawn', reason);
}

/** The customer said no, and the owner writes it down. @throws RefusedError */
export function noteDeclined(world: World, id: number, typed: unknown): void {
	must('bill');
	const { reason } = parseForm(reasonForm, typed);
	answer(world, id, 'declined', reason);
}

/** As the customer says it on the page. @throws RefusedError */
export const declineByCustomer = (world: World, id: number, reason: string): void =>
	answer(world, id, 'declined', reason.trim().slice(0, 1000), null);

function answer(
	world: World,
	id: number,
	state: 'withdrawn' | 'declined',
	reason: string,
	by?: null
): void {
	writeAtOnce(world.db, (tx) => {
		const row = loadQuote(tx, id);
		if (row.state === state) return;
		if (row.state !== 'sent')
			throw new RefusedError(
				row.state === 'draft' ? 'It has not gone out yet.' : 'It has been answered already.'
			);
		const now = world.clock.now();
		tx.update(quotes)
			.set({ state, reason, answeredAt: now, updatedAt: now })
			.where(eq(quotes.id, id))
			.run();
		noteQuote(tx, id, now, state, reason, ...(by === null ? [null] : []));
	});
}

/** Open again after it was declined or withdrawn. */
export function reopenQuote(world: World, id: number): void {
	must('bill');
	writeAtOnce(world.db, (tx) => {
		const row = loadQuote(tx, id);
		if (row.state !== 'declined' && row.state !== 'withdrawn') return;
		const now = world.clock.now();
		tx.update(quotes)
			.set({ state: 'sent', reason: '', answeredAt: null, updatedAt: now })
			.where(eq(quotes.id, id))
			.run();
		noteQuote(tx, id, now, 'reopened');
	});
}

/** Whether it is reminded of. @throws NotFoundError */
export function quietQuote(world: World, id: number, quiet: boolean): void {
	must('bill');
	loadQuote(world.db, id);
	world.db.update(quotes).set({ quiet }).where(eq(quotes.id, id)).run();
}

/** It holds longer: from today, or from its own last day where that is still to come. @throws FieldError, RefusedError */
export function prolongQuote(world: World, id: number, days: string): string {
	must('bill');
	if (!/^\d{1,3}$/.test(days.trim()) || Number(days) < 1)
		throw new FieldError({ days: 'By how many days? From 1 to 999.' });
	return writeAtOnce(world.db, (tx) => {
		const row = loadQuote(tx, id);
		if (row.state !== 'sent' || !row.validUntil)
			throw new RefusedError('Only what is out can be prolonged.');
		const today = world.clock.today();
		const until = addDays(row.validUntil > today ? row.validUntil : today, Number(days));
		tx.update(quotes).set({ validUntil: until }).where(eq(quotes.id, id)).run();
		noteQuote(tx, id, world.clock.now(), 'prolonged', until);
		return until;
	});
}
