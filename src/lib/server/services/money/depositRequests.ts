// The deposit of an accepted quote: asked for with a link, paid by card or from the bank, invoiced on the day it came (its tax
// point, VATA 1994 s.6(4)), by itself.
import { must } from '../../actor';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { displayPounds } from '../../../core/money/display';
import { formatMoney } from '../../../core/money/decimal';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { checkouts, depositRequests, documents, payments, quotes } from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm } from '../business/fields';
import { linkToday } from '../business/links';
import { depositStage } from '../billing/depositStage';
import { billStage } from '../billing/stages';
import { mailAddresses } from '../customers/parts';
import { computeDraft, loadDraft } from '../invoices/drafts';
import { loadJob } from '../jobs/jobs';
import { quoteByToken } from '../quotes/page';
import { noteQuote } from '../quotes/quotes';
import { referenceOf } from './checkouts';
import { issueAndSend } from './issueAndSend';
import { takeShared } from './taking';

type Request = typeof depositRequests.$inferSelect;

const requestOf = (db: Reader, quoteId: number): Request | undefined =>
	db.select().from(depositRequests).where(eq(depositRequests.quoteId, quoteId)).get();

/** What is to be paid: a contractor keeps back what it deducts and what it retains. */
const toPay = ({ amount, deduction }: Request): number => amount - deduction;

/**
 * Opens a checkout for the deposit of a quote and says where the customer pays. The same key again opens the same one.
 * @throws RefusedError where nothing is asked for; UnavailableError where the service is down
 */
export async function openDepositCheckout(
	world: World,
	token: string,
	key: string,
	way: 'card' | 'bank'
): Promise<string> {
	const { row } = quoteByToken(world.db, token);
	const asked = requestOf(world.db, row.id);
	if (asked?.state !== 'asked') throw new RefusedError('No deposit is waiting to be paid.');
	const request = {
		key,
		amount: toPay(asked),
		description: `Deposit, ${row.number}`,
		returnUrl: `${world.origin}/q/${linkToday(world.db, row.token)}?from=${way}`,
		webhookUrl: `${world.origin}/webhooks/${way}`
	};
	const answer =
		way === 'bank'
			? await world.bank.openTransfer({ ...request, reference: referenceOf(row.number!) })
			: await world.card.openCheckout(request);
	world.db
		.insert(checkouts)
		.values({
			key,
			payerId: asked.payerId,
			depositId: asked.id,
			shares: [],
			amount: toPay(asked),
			way,
			processorId: answer.id,
			state: 'open',
			createdAt: world.clock.now()
		})
		.onConflictDoNothing()
		.run();
	return answer.url;
}

/** The money is there: it stands in hand until the deposit invoice uses it. In the transaction of the payment. */
export function depositPaid(tx: Transaction, world: World, id: number, paymentId: number): void {
	const asked = tx.select().from(depositRequests).where(eq(depositRequests.id, id)).get();
	if (!asked) return;
	// Paid twice, or after it was cancelled: it stays in hand, and is asked about there.
	const { changes } = tx
		.update(depositRequests)
		.set({ state: 'paid', paymentId })
		.where(and(eq(depositRequests.id, id), eq(depositRequests.state, 'asked')))
		.run();
	if (changes)
		noteQuote(
			tx,
			asked.quoteId,
			world.clock.now(),
			'depositPaid',
			displayPounds(toPay(asked)),
			null
		);
}

const byHandForm = z.object({
	key: z.string().min(1).max(100),
	date: day,
	way: z.enum(['bank', 'cash', 'cheque'], 'How was it paid?')
});

/** The deposit came by transfer, in cash or by cheque. The same key again changes nothing. @throws FieldError, RefusedError */
export function recordDeposit(world: World, quoteId: number, typed: unknown): void {
	must('money');
	const { key, date, way } = parseForm(byHandForm, typed);
	const today = world.clock.today();
	if (date > today) throw new FieldError({ date: 'That day has not come yet.' });
	writeAtOnce(world.db, (tx) => {
		const asked = requestOf(tx, quoteId);
		if (!asked) throw new NotFoundError('This deposit');
		const name = `deposit:${asked.id}:${key}`;
		if (tx.select().from(payments).where(eq(payments.key, name)).get()) return;
		if (asked.state !== 'asked') throw new RefusedError('It has been paid already.');
		const { id } = takeShared(tx, world, {
			key: name,
			payerId: asked.payerId,
			date: date || today,
			amount: toPay(asked),
			way,
			source: 'hand',
			reference: 'Deposit',
			fee: 0,
			who: 'you',
			shares: []
		});
		depositPaid(tx, world, asked.id, id);
	});
}

let invoicing: Promise<void> | null = null;

/** Issues the invoices of deposits that were paid. Safe to run twice: stage and invoice are keyed by the request. */
export function invoiceDeposits(world: World): Promise<void> {
	invoicing ??= invoiceAll(world).finally(() => (invoicing = null));
	return invoicing;
}

async function invoiceAll(world: World): Promise<void> {
	const paid = world.db
		.select()
		.from(depositRequests)
		.where(and(eq(depositRequests.state, 'paid'), isNull(depositRequests.documentId)))
		.all();
	for (const request of paid) await invoiceOne(world, request);
}

async function invoiceOne(world: World, request: Request): Promise<void> {
	const { db } = world;
	const quote = db.select().from(quotes).where(eq(quotes.id, request.quoteId)).get()!;
	const job = loadJob(db, request.jobId);
	// Cancelled since: the money goes back.
	if (quote.state !== 'accepted' || job.state === 'dropped') return;
	const payment = db.select().from(payments).where(eq(payments.id, request.paymentId!)).get()!;
	const draftId = billStage(world, job.id, `deposit:${request.id}`, {
		kind: 'deposit',
		by: 'amount',
		percent: '',
		amount: formatMoney(
			depositStage(db, request.jobId, BigInt(request.amount), world.clock.today()).net
		)
	});
	writeAtOnce(db, (tx) => {
		const draft = loadDraft(tx, draftId);
		if (draft.state !== 'draft' || draft.sheet.paidOn) return;
		const sheet = { ...draft.sheet, paidOn: payment.date };
		tx.update(documents).set({ sheet }).where(eq(documents.id, draftId)).run();
		computeDraft(tx, draftId, sheet, world.clock.today());
	});
	const draft = loadDraft(db, draftId);
	if (draft.state === 'draft')
		await issueAndSend(world, draftId, draft.version, {
			sendTo: mailAddresses(db, job.customerId, draft.sheet)[0] ?? null,
			copyToSelf: false,
			useInHand: true
		});
	db.update(depositRequests)
		.set({ documentId: draftId, state: 'invoiced' })
		.where(eq(depositRequests.id, request.id))
		.run();
}

/** The last try to pay a deposit online. */
export function lastDepositTry(db: Reader, quoteId: number) {
	return (
		db
			.select({ way: checkouts.way, state: checkouts.state, amount: checkouts.amount })
			.from(checkouts)
			.innerJoin(depositRequests, eq(depositRequests.id, checkouts.depositId))
			.where(eq(depositRequests.quoteId, quoteId))
			.orderBy(desc(checkouts.id))
			.get() ?? null
	);
}
