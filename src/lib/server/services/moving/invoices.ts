// Open invoices brought in: looked through first, then taken in, each once.
import { readOpeningInvoices } from '../../../core/moving/invoices';
import { INVOICE_COLUMNS, type InvoiceField } from '../../../core/moving/columns';
import { FieldError } from '../../../core/refusals';
import { must } from '../../actor';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { turn } from '../../turn';
import type { World } from '../../world';
import { drawFrozen, oneAtATime, writeFrozen } from '../invoices/issuing';
import { customersByName } from '../customers/byName';
import { beginMoving, fieldsOf, unreadNote, type Looked, type MovingForm } from './book';
import {
	AT_ONCE,
	customerFor,
	frozenFor,
	jobFor,
	openingIssue,
	planOpening,
	registeredOn,
	type Given,
	type Planned
} from './opening';
import { raiseSeries, seriesAfter } from './series';

/** Each is drawn: more at once would keep whoever waits too long. */
const MOST = 500;

export interface OpeningForm extends MovingForm {
	/** VAT up to this day stands in a return; empty: none does, where the file does not say. */
	returnedUntil: string;
}

async function look(
	world: World,
	bytes: Uint8Array,
	form: OpeningForm
): Promise<{ planned: Planned[]; notes: string[] }> {
	const { rows, unread } = fieldsOf<InvoiceField>(bytes, INVOICE_COLUMNS);
	const { db, clock } = world;
	const given = readOpeningInvoices(rows, clock.today(), registeredOn(db));
	return lookAt(world, given, unread, form);
}

/** What becomes of invoices that were read, and what is worth saying of them all. @throws FieldError */
export async function lookAt(
	world: World,
	given: readonly Given[],
	unread: readonly string[],
	form: OpeningForm
): Promise<{ planned: Planned[]; notes: string[] }> {
	if (given.length > MOST)
		throw new FieldError({
			file: `At most ${MOST} at once, and these are ${given.length}. Split the file.`
		});
	const planned = await planOpening(world, world.db, given, form);
	const after = seriesAfter(
		world.db,
		planned.flatMap(({ invoice }) => invoice ?? [])
	);
	return {
		planned,
		notes: [
			...unreadNote(unread),
			...(after
				? [
						`Your own numbers go on behind ${after.last}: the next invoice gets number ${after.next}.`
					]
				: [])
		]
	};
}

/** What the file would bring. @throws FieldError */
export async function previewOpening(
	world: World,
	bytes: Uint8Array,
	form: OpeningForm
): Promise<Looked> {
	must('owner');
	const { planned, notes } = await look(world, bytes, form);
	return { rows: planned.map(({ report }) => report), notes };
}

/**
 * Brings in the open invoices that are not here yet, with what was paid of them before. The same press, or the same file
 * again, brings none. @throws FieldError
 */
export function importOpening(world: World, bytes: Uint8Array, form: OpeningForm): Promise<Looked> {
	must('owner');
	return oneAtATime(async () => {
		const { planned, notes } = await look(world, bytes, form);
		await bringIn(world, 'invoices', planned, form);
		return { rows: planned.map(({ report }) => report), notes };
	});
}

/**
 * Draws and writes what is to be brought in, some at a time, so that others get their turn. Ended in the middle, the same
 * file brings the rest. `also` writes what else the file has.
 */
export async function bringIn(
	world: World,
	kind: 'invoices' | 'deposits',
	planned: readonly Planned[],
	form: MovingForm,
	also: (tx: Transaction, movingId: number) => void = () => undefined
): Promise<void> {
	const wanted = planned.flatMap(({ invoice, customerId }) =>
		invoice ? [{ invoice, customerId }] : []
	);
	const moving = writeAtOnce(world.db, (tx) => {
		const id = beginMoving(tx, world, kind, form);
		// First of all: no number of ours is given out twice.
		if (id !== null)
			raiseSeries(
				tx,
				wanted.map(({ invoice }) => invoice)
			);
		return id;
	});
	if (moving === null) return;
	for (let start = 0; start < wanted.length; start += AT_ONCE) {
		// A customer or a job that nothing hangs on yet does no harm, should it end here.
		const ready = writeAtOnce(world.db, (tx) => {
			const known = customersByName(tx);
			return wanted.slice(start, start + AT_ONCE).map(({ invoice, customerId }) => {
				const id = customerId ?? customerFor(tx, world, invoice.customer, known);
				return { invoice, customerId: id, jobId: jobFor(tx, world, invoice, id) };
			});
		});
		const drawn = await Promise.all(
			ready.map(async ({ invoice, customerId, jobId }) => {
				const frozen = frozenFor(world, world.db, invoice, customerId, jobId);
				const plan = openingIssue(world, frozen, invoice, jobId, moving);
				return { plan, page: await drawFrozen(world, plan, 0) };
			})
		);
		for (const { plan, page } of drawn) {
			writeAtOnce(world.db, (tx) => writeFrozen(tx, world, plan, page));
			await turn();
		}
	}
	writeAtOnce(world.db, (tx) => also(tx, moving));
}
