// Issuing: the number is taken, everything is frozen, the journal posted and the PDF stored, all or nothing.
import { and, eq } from 'drizzle-orm';
import { formatNumber } from '../../../core/documents/numbers';
import type { Frozen } from '../../../core/documents/types';
import { viewDocument } from '../../../core/documents/view';
import type { InvoiceFigures } from '../../../core/figures/types';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { documentFiles, documents, numberSeries } from '../../db/schema';
import type { World } from '../../world';
import { loadSeries } from '../business/series';
import { loadDraft, sheetContext } from './drafts';
import { ConflictError, RefusedError } from '../../../core/refusals';
import { freezeDraft, NotReadyError } from './freeze';
import { billingProblems, recordBilled } from './billed';
import { newToken, sha256 } from '../business/keys';
import { indexDocument } from '../trail/search';
import { note } from '../trail/documents';
import { sealOf, sumsOf } from './seal';
import { insertShell, insertLines, openItem, postIssue } from './issuedRows';

export interface Issued {
	id: number;
	number: string;
}

/** Someone took the number, or changed what it is made of, while the PDF was drawn. */
class RaceLostError extends Error {}

let queue: Promise<unknown> = Promise.resolve();

/**
 * One at a time in this process, because the PDF shows the number before the transaction takes it.
 * The transaction checks everything again, so a second process could only make it start over.
 */
function oneAtATime<T>(work: () => Promise<T>): Promise<T> {
	const turn = queue.then(work, work);
	queue = turn.catch(() => undefined);
	return turn;
}

/**
 * Issues a draft. Issued already (a second press, a second tab): that invoice is given back, unchanged.
 * @throws NotReadyError, ConflictError
 */
export function issueInvoice(
	world: World,
	id: number,
	version: number,
	after?: ToIssue['after']
): Promise<Issued> {
	return oneAtATime(() => again(() => tryToIssue(world, id, version, after)));
}

/** Starts over where somebody else took the number, or changed what it is made of. */
async function again<T>(work: () => Promise<T>): Promise<T> {
	for (let attempt = 0; attempt < 5; attempt++) {
		try {
			return await work();
		} catch (error) {
			if (!(error instanceof RaceLostError)) throw error;
		}
	}
	throw new RefusedError('Others were issuing at the same moment. Try again.');
}

async function tryToIssue(
	world: World,
	id: number,
	version: number,
	after: ToIssue['after']
): Promise<Issued> {
	const plan = planIssue(world, id, version, after);
	return 'number' in plan ? plan : issueFrozen(world, plan);
}

/** Freezes a draft; one that is issued already is given back. @throws NotReadyError, ConflictError */
function planIssue(
	world: World,
	id: number,
	version: number,
	after: ToIssue['after']
): Issued | ToIssue {
	const draft = loadDraft(world.db, id);
	if (draft.state === 'issued') return { id, number: draft.number! };
	if (draft.version !== version)
		throw new ConflictError(
			'This draft was changed in another tab. Look at it again before it is issued.'
		);
	const blocked = billingProblems(world.db, id, draft.sheet);
	if (blocked.length) throw new NotReadyError(blocked);
	const context = sheetContext(world.db, draft.sheet, world.clock.today());
	const { frozen, figures } = freezeDraft(draft.sheet, context);
	return {
		frozen,
		figures,
		draftId: id,
		version,
		correctsId: null,
		unchanged: (tx) => {
			const now = sheetContext(tx, draft.sheet, world.clock.today());
			return (
				JSON.stringify(now) === JSON.stringify(context) &&
				billingProblems(tx, id, draft.sheet).length === 0
			);
		},
		after
	};
}

/** A failure as a value, so that none goes unheard while others are waited for. */
function settled<T>(work: Promise<T>): Promise<T | Error> {
	return work.catch((error: Error) => error);
}

export interface DraftToIssue {
	id: number;
	version: number;
	after?: ToIssue['after'];
}

/**
 * Issues several drafts, in order: their PDFs are drawn side by side on threads, with the numbers that come next.
 * @returns for each what was issued, or why it was not
 */
export function issueInvoices(
	world: World,
	drafts: readonly DraftToIssue[]
): Promise<(Issued | Error)[]> {
	return oneAtATime(async () => {
		let ahead = 0;
		const drawn = drafts.map(({ id, version, after }) => {
			try {
				const plan = planIssue(world, id, version, after);
				if ('number' in plan) return plan;
				return { plan, drawing: settled(drawFrozen(world, plan, ahead++)) };
			} catch (error) {
				return error as Error;
			}
		});
		const results: (Issued | Error)[] = [];
		for (const [index, one] of drawn.entries()) {
			const { id, version, after } = drafts[index]!;
			if (one instanceof Error || 'number' in one) {
				results.push(one);
				continue;
			}
			try {
				const page = await one.drawing;
				if (page instanceof Error) throw page;
				results.push(commitFrozen(world, one.plan, page));
			} catch (error) {
				// Somebody took a number, or a thread ended: this one is drawn again, by itself.
				results.push(
					error instanceof RefusedError
						? error
						: await settled(tryToIssue(world, id, version, after))
				);
			}
		}
		return results;
	});
}

export interface ToIssue {
	frozen: Frozen;
	figures: InvoiceFigures;
	/** The draft that becomes the document; null where it is made on the spot (a credit note). */
	draftId: number | null;
	version: number;
	correctsId: number | null;
	key?: string;
	/** Whether what it was frozen from is still so, asked inside the transaction. */
	unchanged?: (tx: Transaction) => boolean;
	/** Runs in the same transaction, after the document stands. */
	after?: ((tx: Transaction, id: number, number: string) => void) | undefined;
}

/** Draws the PDF and writes everything in one transaction. */
async function issueFrozen(world: World, plan: ToIssue): Promise<Issued> {
	return commitFrozen(world, plan, await drawFrozen(world, plan, 0));
}

/**
 * Issues what is made on the spot: all of it in one transaction, in order, or none. `plan` is asked anew where others were
 * quicker; it may answer with what stands already.
 */
export function issueTogether(
	world: World,
	plan: () => readonly ToIssue[] | Issued
): Promise<Issued> {
	return oneAtATime(() =>
		again(async () => {
			const plans = plan();
			if ('number' in plans) return plans;
			const ahead = new Map<string, number>();
			const drawn = await Promise.all(
				plans.map(async (one) => {
					const before = ahead.get(one.frozen.kind) ?? 0;
					ahead.set(one.frozen.kind, before + 1);
					return { plan: one, page: await drawFrozen(world, one, before) };
				})
			);
			return writeAtOnce(world.db, (tx) => {
				const issued = drawn.map(({ plan: one, page }) => writeFrozen(tx, world, one, page));
				return issued.at(-1)!;
			});
		})
	);
}

interface Drawn {
	/** The running number it was drawn with. */
	running: number;
	number: string;
	token: string;
	pdf: Buffer;
}

/** Draws a document with the number that comes `ahead` places after the next one. */
async function drawFrozen(
	world: World,
	{ frozen, figures }: ToIssue,
	ahead: number
): Promise<Drawn> {
	const { kind } = frozen;
	const series = loadSeries(world.db, kind);
	const running = series.next + ahead;
	const number = formatNumber(series.pattern, running, frozen.issueDate.slice(0, 4));
	const token = newToken();
	const pdf = await world.press.document(viewDocument(frozen, figures, number, 'issued'), {
		payUrl: kind === 'invoice' ? `${world.origin}/p/${token}` : null,
		madeAt: world.clock.now()
	});
	return { running, number, token, pdf };
}

function commitFrozen(world: World, plan: ToIssue, drawn: Drawn): Issued {
	return writeAtOnce(world.db, (tx) => writeFrozen(tx, world, plan, drawn));
}

/** @throws RaceLostError where the number was taken, or what it was frozen from has changed */
function writeFrozen(tx: Transaction, world: World, plan: ToIssue, drawn: Drawn): Issued {
	const { frozen, figures, draftId } = plan;
	const { kind } = frozen;
	const { running, number, token, pdf } = drawn;
	const now = world.clock.now();
	if (loadSeries(tx, kind).next !== running) throw new RaceLostError();
	if (draftId !== null) {
		const draft = loadDraft(tx, draftId);
		if (draft.state === 'issued') return { id: draftId, number: draft.number! };
		if (draft.version !== plan.version)
			throw new ConflictError(
				'This draft was changed in another tab. Look at it again before it is issued.'
			);
	}
	if (plan.unchanged && !plan.unchanged(tx)) throw new RaceLostError();
	const taken = tx
		.select({ id: documents.id })
		.from(documents)
		.where(and(eq(documents.kind, kind), eq(documents.number, number)))
		.get();
	if (taken)
		throw new RefusedError(
			`The number ${number} is taken already. Choose another next number in the settings.`
		);

	const id = draftId ?? insertShell(tx, plan, now);
	insertLines(tx, id, frozen, figures);
	tx.insert(documentFiles)
		.values({
			documentId: id,
			name: `${number.replace(/[^\w.-]+/g, '-')}.pdf`,
			sha256: sha256(pdf),
			content: pdf
		})
		.run();
	const total = Number(figures.total);
	tx.update(documents)
		.set({
			number,
			running,
			token,
			frozen: { ...frozen, sums: sumsOf(figures) },
			issueDate: frozen.issueDate,
			sortDate: frozen.issueDate,
			taxPoint: frozen.taxPoint,
			dueDate: frozen.dueDate,
			customerId: frozen.customer.id,
			customerName: frozen.customer.name,
			net: Number(figures.net),
			vatCharged: Number(figures.vatCharged),
			vatReverseCharged: Number(figures.vatReverseCharged),
			total,
			totalSterling: total,
			deduction: figures.cis ? Number(figures.cis.deduction) : null,
			updatedAt: now,
			issuedAt: now
		})
		.where(eq(documents.id, id))
		.run();
	tx.update(documents)
		.set({ state: 'issued', seal: sealOf(tx, id) })
		.where(eq(documents.id, id))
		.run();
	tx.update(numberSeries)
		.set({ next: running + 1 })
		.where(eq(numberSeries.kind, kind))
		.run();
	if (kind === 'invoice') openItem(tx, id, frozen, figures);
	if (kind === 'invoice') recordBilled(tx, id, frozen, figures, now);
	postIssue(tx, id, frozen, figures, now);
	indexDocument(tx, id, { number, customer: frozen.customer.name, total, sheet: frozen.sheet });
	note(tx, { documentId: id, at: now, who: 'you', what: 'issued', detail: number });
	plan.after?.(tx, id, number);
	return { id, number };
}
