// Issuing drafts: one by one, many beside one another, and a correction together with its credit note.
import { must } from '../../actor';
import { ConflictError, RefusedError } from '../../../core/refusals';
import type { Advance } from '../../../core/documents/taxPoints';
import type { Sheet } from '../../../core/sheet/types';
import type { Reader } from '../../db/connection';
import type { World } from '../../world';
import { billingProblems, takeOver } from './billed';
import { planCredits } from './creditNote';
import { loadDraft } from './drafts';
import { sheetContext } from './context';
import { freezeDraft, NotReadyError } from './freeze';
import {
	again,
	commitFrozen,
	drawFrozen,
	issuePlans,
	issueTogether,
	oneAtATime,
	type Issued,
	type ToIssue
} from './issuing';
import { note } from '../trail/documents';

/**
 * Issues a draft. Issued already (a second press, a second tab): that invoice is given back, unchanged.
 * @throws NotReadyError, ConflictError
 */
export function issueInvoice(
	world: World,
	id: number,
	version: number,
	wish: IssueExtras = {}
): Promise<Issued> {
	must('bill');
	return issueTogether(world, () => planIssue(world, id, version, wish));
}

export interface IssueExtras {
	after?: ToIssue['after'];
	/** What came before it and will pay it, in the same transaction: it makes tax points of its own. */
	advances?: (db: Reader, sheet: Sheet) => Advance[];
}

const sameAdvances = (a: readonly Advance[], b: readonly Advance[]): boolean =>
	a.length === b.length &&
	a.every(({ date, amount }, index) => date === b[index]!.date && amount === b[index]!.amount);

/** Freezes a draft; one that is issued already is given back. @throws NotReadyError, ConflictError */
function planIssue(
	world: World,
	id: number,
	version: number,
	wish: IssueExtras
): Issued | ToIssue[] {
	const { after } = wish;
	const draft = loadDraft(world.db, id);
	if (draft.state === 'issued') return { id, number: draft.number! };
	if (draft.version !== version)
		throw new ConflictError(
			'This draft was changed in another tab. Look at it again before it is issued.'
		);
	const blocked = billingProblems(world.db, id, draft.sheet);
	if (blocked.length) throw new NotReadyError(blocked);
	const context = sheetContext(world.db, draft.sheet, world.clock.today());
	const paidBefore = wish.advances?.(world.db, draft.sheet) ?? [];
	const { frozen, figures } = freezeDraft(draft.sheet, context, paidBefore);
	const { about } = draft.sheet;
	const plan: ToIssue = {
		frozen,
		figures,
		draftId: id,
		version,
		correctsId: null,
		unchanged: (tx) => {
			const now = sheetContext(tx, draft.sheet, world.clock.today());
			return (
				JSON.stringify(now) === JSON.stringify(context) &&
				sameAdvances(wish.advances?.(tx, draft.sheet) ?? [], paidBefore) &&
				billingProblems(tx, id, draft.sheet).length === 0
			);
		},
		after
	};
	if (!about) return [plan];
	const raises = about.as === 'debit';
	const noted: ToIssue = {
		...plan,
		after: (tx, newId, number) => {
			const at = world.clock.now();
			const invoice = frozen.about!.number;
			const what = raises ? ('raises' as const) : ('replaces' as const);
			note(tx, { documentId: newId, at, who: 'you', what, detail: invoice });
			note(tx, {
				documentId: about.invoiceId,
				at,
				who: 'you',
				what: raises ? 'raisedBy' : 'replacedBy',
				detail: number
			});
			after?.(tx, newId, number);
		}
	};
	if (raises) return [noted];
	// The credit note and what stands in place of the invoice: both, or neither.
	const credits = planCredits(world, about.invoiceId, {
		key: `replaced-by:${id}`,
		reason: about.reason,
		wishes: null,
		again: true
	});
	return [...credits, { ...noted, before: (tx) => takeOver(tx, about.invoiceId, id, draft.sheet) }];
}

async function issueOne(world: World, { id, version, after }: DraftToIssue): Promise<Issued> {
	const plans = planIssue(world, id, version, { after });
	return 'number' in plans ? plans : issuePlans(world, plans);
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
				const plans = planIssue(world, id, version, { after });
				if ('number' in plans) return plans;
				const [plan, ...more] = plans;
				// What is issued with others is drawn with them, when its turn comes.
				if (!plan || more.length > 0) return null;
				return { plan, drawing: settled(drawFrozen(world, plan, ahead++)) };
			} catch (error) {
				return error as Error;
			}
		});
		const results: (Issued | Error)[] = [];
		for (const [index, one] of drawn.entries()) {
			const alone = () => again(() => issueOne(world, drafts[index]!));
			if (one === null) {
				results.push(await settled(alone()));
				continue;
			}
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
				results.push(error instanceof RefusedError ? error : await settled(alone()));
			}
		}
		return results;
	});
}
