// What keeps an invoice from being chased: a dispute, a promise; and notes of calls with a payer.
import { must } from '../../actor';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { isPlainDate } from '../../../core/calendar/queries';
import { writeAtOnce } from '../../db/connection';
import { callNotes, customers, holds, openItems } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { note } from '../trail/documents';

export interface PauseForm {
	kind: 'dispute' | 'promise';
	/** The day of a promise. */
	until: string;
	note: string;
}

/** Marks an invoice as disputed or promised; it replaces what was marked before. @throws FieldError */
export function pauseInvoice(world: World, documentId: number, form: PauseForm): void {
	must('bill');
	const words = form.note.trim();
	const problems: Record<string, string> = {};
	if (form.kind === 'promise') {
		if (!isPlainDate(form.until)) problems.until = 'Give the day they promised.';
		else if (form.until < world.clock.today()) problems.until = 'That day has passed already.';
	} else if (words === '') problems.note = 'Say what they dispute.';
	if (words.length > 500) problems.note = 'At most 500 characters.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const at = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		if (!tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get())
			throw new NotFoundError('This invoice');
		tx.update(holds)
			.set({ endedAt: at })
			.where(and(eq(holds.documentId, documentId), isNull(holds.endedAt)))
			.run();
		const until = form.kind === 'promise' ? form.until : null;
		tx.insert(holds)
			.values({ documentId, kind: form.kind, until, note: words, createdAt: at })
			.run();
		note(tx, {
			documentId,
			at,
			who: 'you',
			what: form.kind === 'promise' ? 'promised' : 'disputed',
			detail: until ? `by ${displayDate(until)}${words ? `: ${words}` : ''}` : words
		});
	});
}

/** The dispute is settled, or the promise is off: it is chased again. */
export function resumeInvoice(world: World, documentId: number): void {
	must('bill');
	const at = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		const ended = tx
			.update(holds)
			.set({ endedAt: at })
			.where(and(eq(holds.documentId, documentId), isNull(holds.endedAt)))
			.run();
		if (ended.changes > 0) note(tx, { documentId, at, who: 'you', what: 'holdEnded' });
	});
}

/** Keeps a note of a call. The same key again keeps nothing. @throws FieldError */
export function noteCall(world: World, customerId: number, text: string, key: string): void {
	must('bill');
	const words = text.trim();
	if (words === '') throw new FieldError({ text: 'Say what was said.' });
	if (words.length > 2000) throw new FieldError({ text: 'At most 2,000 characters.' });
	if (!world.db.select().from(customers).where(eq(customers.id, customerId)).get())
		throw new NotFoundError('This customer');
	world.db
		.insert(callNotes)
		.values({ key, customerId, at: world.clock.now(), text: words })
		.onConflictDoNothing()
		.run();
}

export function callsOf(world: World, customerId: number) {
	return world.db
		.select()
		.from(callNotes)
		.where(eq(callNotes.customerId, customerId))
		.orderBy(desc(callNotes.at), desc(callNotes.id))
		.limit(50)
		.all();
}
