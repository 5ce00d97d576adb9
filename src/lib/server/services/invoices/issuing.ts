// How documents are issued: the number is taken, everything is frozen, the journal posted and the PDF stored, all or nothing.
import { and, eq, sql } from 'drizzle-orm';
import { formatNumber } from '../../../core/documents/numbers';
import type { Frozen } from '../../../core/documents/types';
import { viewDocument } from '../../../core/documents/view';
import { BOOKS } from '../../../core/money/currencies';
import type { InvoiceFigures } from '../../../core/figures/types';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { documentFiles, documents, numberSeries, type DocumentOrigin } from '../../db/schema';
import { turn } from '../../turn';
import type { World } from '../../world';
import { mustNotRest } from '../business/resting';
import { loadSeries } from '../business/series';
import { draftState } from './drafts';
import { ConflictError, RefusedError } from '../../../core/refusals';
import { recordBilled } from './billed';
import { newToken, sha256 } from '../business/keys';
import { drawDocument } from '../letterheads/dress';
import { indexDocument } from '../trail/search';
import { note } from '../trail/documents';
import { sealOf, sumsOf } from './seal';
import {
	insertShell,
	insertLines,
	issuedLines,
	insertTaxPoints,
	openItem,
	postIssue,
	sterlingTotal,
	type IssuedLine
} from './issuedRows';

export interface Issued {
	id: number;
	number: string;
}

/** Someone took the number, or changed what it is made of, while the PDF was drawn. */
export class RaceLostError extends Error {}

let queue: Promise<unknown> = Promise.resolve();

/**
 * One at a time in this process, because the PDF shows the number before the transaction takes it.
 * The transaction checks everything again, so a second process could only make it start over.
 */
export function oneAtATime<T>(work: () => Promise<T>): Promise<T> {
	const turn = queue.then(work, work);
	queue = turn.catch(() => undefined);
	return turn;
}

/** Starts over where somebody else took the number, or changed what it is made of. */
export async function again<T>(work: () => Promise<T>): Promise<T> {
	for (let attempt = 0; attempt < 5; attempt++) {
		try {
			return await work();
		} catch (error) {
			if (!(error instanceof RaceLostError)) throw error;
		}
	}
	throw new RefusedError('Others were issuing at the same moment. Try again.');
}

export interface ToIssue {
	frozen: Frozen;
	figures: InvoiceFigures;
	/** The draft that becomes the document; null where it is made on the spot (a credit note). */
	draftId: number | null;
	version: number;
	correctsId: number | null;
	/** What it was made from, where there is no draft; absent: it corrects another. */
	origin?: DocumentOrigin;
	key?: string;
	/** Runs in the same transaction, before it is looked at once more. */
	before?: (tx: Transaction) => void;
	/** Whether what it was frozen from is still so, asked inside the transaction. */
	unchanged?: (tx: Transaction) => boolean;
	/** Runs in the same transaction, after the document stands. */
	after?: ((tx: Transaction, id: number, number: string) => void) | undefined;
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
			return 'number' in plans ? plans : await issuePlans(world, plans);
		})
	);
}

/** Draws their PDFs and writes everything in one transaction. @returns the last of them */
export async function issuePlans(world: World, plans: readonly ToIssue[]): Promise<Issued> {
	const ahead = new Map<string, number>();
	const drawn = await Promise.all(
		plans.map(async (one) => {
			const before = ahead.get(one.frozen.kind) ?? 0;
			ahead.set(one.frozen.kind, before + 1);
			return { plan: one, page: await drawFrozen(world, one, before) };
		})
	);
	return writeAtOnce(world.db, (tx) =>
		drawn.map(({ plan, page }) => writeFrozen(tx, world, plan, page)).at(-1)!
	);
}

export interface Drawn {
	/** The running number it was drawn with; null where it was given elsewhere. */
	running: number | null;
	number: string;
	token: string;
	pdf: Buffer;
	pdfHash: string;
	lines: IssuedLine[];
	/** What is frozen of it, as it is written. */
	text: string;
}

/** Draws a document with the number that comes `ahead` places after the next one. */
export async function drawFrozen(
	world: World,
	{ frozen, figures }: ToIssue,
	ahead: number
): Promise<Drawn> {
	mustNotRest(world.db);
	const { kind } = frozen;
	const series = loadSeries(world.db, kind);
	const { selfBilled, opening } = frozen.sheet;
	// The contractor gave it, or the books before.
	const given = kind === 'invoice' ? (selfBilled ?? opening)?.number.trim() : undefined;
	const running = given === undefined ? series.next + ahead : null;
	const number =
		given ?? formatNumber(series.pattern, series.next + ahead, frozen.issueDate.slice(0, 4));
	const token = newToken();
	// A long document is planned, laid out, drawn and written in pieces, between which others are answered.
	await turn();
	const view = viewDocument(frozen, figures, number, 'issued');
	await turn();
	const pdf = await drawDocument(
		world,
		view,
		kind === 'invoice' && !selfBilled ? `${world.origin}/p/${token}` : null
	);
	await turn();
	const lines = issuedLines(frozen, figures);
	await turn();
	const text = JSON.stringify({ ...frozen, sums: sumsOf(figures) });
	const pdfHash = sha256(pdf);
	await turn();
	return { running, number, token, pdf, pdfHash, lines, text };
}

export function commitFrozen(world: World, plan: ToIssue, drawn: Drawn): Issued {
	return writeAtOnce(world.db, (tx) => writeFrozen(tx, world, plan, drawn));
}

/** @throws RaceLostError where the number was taken, or what it was frozen from has changed */
export function writeFrozen(tx: Transaction, world: World, plan: ToIssue, drawn: Drawn): Issued {
	const { frozen, figures, draftId } = plan;
	const { kind } = frozen;
	const { running, number, token, pdf, pdfHash, lines, text } = drawn;
	const isTheirs = kind === 'invoice' && frozen.sheet.selfBilled !== undefined;
	const now = world.clock.now();
	if (running !== null && loadSeries(tx, kind).next !== running) throw new RaceLostError();
	if (draftId !== null) {
		const draft = draftState(tx, draftId);
		if (draft.state === 'issued') return { id: draftId, number: draft.number! };
		if (draft.version !== plan.version)
			throw new ConflictError(
				'This draft was changed in another tab. Look at it again before it is issued.'
			);
	}
	plan.before?.(tx);
	if (plan.unchanged && !plan.unchanged(tx)) throw new RaceLostError();
	const taken = tx
		.select({ id: documents.id })
		.from(documents)
		.where(
			isTheirs
				? and(
						// As the index says it.
						sql`${documents.origin} = 'selfBilled'`,
						eq(documents.customerId, frozen.customer.id),
						eq(documents.number, number)
					)
				: and(
						sql`${documents.origin} <> 'selfBilled'`,
						eq(documents.kind, kind),
						eq(documents.number, number)
					)
		)
		.get();
	if (taken)
		throw new RefusedError(
			isTheirs
				? `${number} of ${frozen.customer.name} has been recorded already.`
				: running === null
					? `There is an invoice ${number} here already.`
					: `The number ${number} is taken already. Choose another next number in the settings.`
		);

	const id = draftId ?? insertShell(tx, plan, now);
	insertLines(world.db, id, lines);
	insertTaxPoints(tx, id, frozen);
	tx.insert(documentFiles)
		.values({
			documentId: id,
			name: `${number.replace(/[^\w.-]+/g, '-')}.pdf`,
			sha256: pdfHash,
			content: pdf
		})
		.run();
	const total = Number(figures.total);
	tx.update(documents)
		.set({
			number,
			running,
			token,
			issueDate: frozen.issueDate,
			sortDate: frozen.issueDate,
			taxPoint: frozen.taxPoint,
			dueDate: frozen.dueDate,
			customerId: frozen.customer.id,
			customerName: frozen.customer.name,
			workKindId: frozen.workKind?.id ?? null,
			net: Number(figures.net),
			vatCharged: Number(figures.vatCharged),
			vatReverseCharged: Number(figures.vatReverseCharged),
			total,
			currency: frozen.sheet.currency ?? BOOKS,
			totalSterling: sterlingTotal(frozen, figures),
			deduction: figures.cis ? Number(figures.cis.deduction) : null,
			updatedAt: now,
			issuedAt: now
		})
		.where(eq(documents.id, id))
		.run();
	// Apart, so that the longest part of a long document is written once.
	tx.update(documents)
		.set({ state: 'issued', frozen: sql`${text}`, seal: sealOf(world.db, id, text) })
		.where(eq(documents.id, id))
		.run();
	if (running !== null)
		tx.update(numberSeries)
			.set({ next: running + 1 })
			.where(eq(numberSeries.kind, kind))
			.run();
	if (kind === 'invoice') openItem(tx, id, frozen, figures);
	if (kind === 'invoice') recordBilled(tx, id, frozen, figures, now);
	postIssue(tx, id, frozen, figures, now);
	indexDocument(tx, id, { number, customer: frozen.customer.name, total, sheet: frozen.sheet });
	const what = kind === 'invoice' && frozen.sheet.opening ? 'broughtIn' : 'issued';
	note(tx, { documentId: id, at: now, who: 'you', what, detail: number });
	if (isTheirs) note(tx, { documentId: id, at: now, who: 'customer', what: 'theirs' });
	plan.after?.(tx, id, number);
	return { id, number };
}
