// After a contract was cancelled in time: the deposit's invoice is credited, and what is owed for work that was asked for is
// invoiced (SI 2013/3134 reg. 34, 36). What was paid then stands in hand: it pays that invoice, and the rest goes back.
import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { displayDate } from '../../../core/calendar/conversion';
import { formatMoney } from '../../../core/money/decimal';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { blankLine, blankSheet } from '../../../core/sheet/blank';
import type { SheetLine } from '../../../core/sheet/types';
import { must } from '../../actor';
import { writeAtOnce } from '../../db/connection';
import { depositRequests, openItems, quotes } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { isRegistered } from '../business/settings';
import { creditInvoice } from '../invoices/creditNote';
import { draftOnce } from '../invoices/drafts';
import { loadJob, sheetParties } from '../jobs/jobs';
import { jobWork } from '../jobs/work';
import { acceptanceOf } from '../quotes/accept';
import { cancelShare } from '../quotes/cancel';

const settleForm = z.object({
	/** Percent done of each line, by its id, as JSON. */
	done: z
		.string()
		.max(20_000)
		.transform((given, context) => {
			try {
				const read = z
					.record(
						z.string().regex(/^\d{1,12}$/),
						z
							.number()
							.min(0)
							.max(100)
							// What is said on the paper is what is worked out.
							.transform((percent) => Math.round(percent * 100) / 100)
					)
					.safeParse(JSON.parse(given || '{}'));
				if (read.success) return read.data;
			} catch {
				// Said below.
			}
			context.addIssue({ code: 'custom', message: 'How much was done, from 0 to 100 %?' });
			return z.NEVER;
		})
});

/**
 * Credits the deposit's invoice and drafts the one for the share that is owed. Once for a contract, however often it is pressed.
 * @returns the draft; null where nothing is owed @throws FieldError; RefusedError where nothing was cancelled
 */
export async function settleCancelled(
	world: World,
	quoteId: number,
	typed: unknown
): Promise<number | null> {
	must('bill');
	const { done } = parseForm(settleForm, typed);
	const { db } = world;
	const acceptance = acceptanceOf(db, quoteId);
	const row = db.select().from(quotes).where(eq(quotes.id, quoteId)).get();
	if (!row || !acceptance) throw new NotFoundError('This contract');
	if (!acceptance.cancelledOn || row.jobId === null)
		throw new RefusedError('Nothing was cancelled here.');
	const on = displayDate(acceptance.cancelledOn);
	const deposit = db
		.select({ documentId: depositRequests.documentId, state: openItems.state })
		.from(depositRequests)
		.innerJoin(openItems, eq(openItems.documentId, depositRequests.documentId))
		.where(and(eq(depositRequests.quoteId, quoteId)))
		.get();
	if (deposit?.documentId && deposit.state !== 'credited')
		await creditInvoice(
			world,
			deposit.documentId,
			`${row.number} was cancelled by the customer on ${on}`,
			`cancelledDeposit:${quoteId}`
		);
	const { lines, share } = cancelShare(db, acceptance, done);
	if (share === 0n) return null;
	const job = loadJob(db, row.jobId);
	const work = new Map(jobWork(db, job.id).lines.map((line) => [line.id, line]));
	const rows = lines
		.filter((line) => line.share !== 0n)
		.map((line): SheetLine => {
			const { kind, vat, vatReason, income = '', centre = '' } = work.get(line.id)!;
			return {
				...blankLine(`l${line.id}`),
				kind,
				vat,
				vatReason,
				income,
				centre,
				description: `${line.description.trim()}: ${done[line.id] ?? 0} % of it, supplied at your request before your notice of ${on}`,
				unitPrice: formatMoney(line.share)
			};
		});
	return writeAtOnce(db, (tx) =>
		draftOnce(tx, world, `cancelled:${quoteId}`, () => ({
			sheet: {
				...blankSheet(),
				...sheetParties(job),
				// The share is one of a price with VAT.
				pricesIncludeVat: isRegistered(world),
				workFinished: on,
				rows
			},
			origin: 'typed'
		}))
	);
}
