// Bank lines accepted, ticked off, put aside or opened again. Nothing is posted before the owner accepts it.
import { must } from '../../../actor';
import { and, asc, eq, gt, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { BOOKS } from '../../../../core/money/currencies';
import { displayMoney } from '../../../../core/money/display';
import { shareOldestFirst } from '../../../../core/settlement/sharing';
import { writeAtOnce, type Transaction } from '../../../db/connection';
import { bankLines, customers, openItems, payouts } from '../../../db/schema';
import type { World } from '../../../world';
import { openItemOf, openOf } from '../../ledger/openInvoices';
import { parseForm } from '../../business/fields';
import { FieldError, NotFoundError, RefusedError } from '../../../../core/refusals';
import { undoInTransaction } from '../undo';
import { takeShared } from '../taking';
import { recordedMoney, takenBack } from './facts';
import { learnName } from './learned';
import { turn } from '../../../turn';

const acceptance = z.object({
	payerId: z.number().int().min(0),
	/** Absent: shared out, the one due first, first. Pence. */
	shares: z
		.array(
			z.object({
				documentId: z.number().int(),
				amount: z.number().int(),
				withheld: z.number().int().min(0).nullable()
			})
		)
		.max(500)
		.optional(),
	/** In the books already: tied, not recorded. */
	recorded: z.object({ kind: z.enum(['payment', 'payout']), id: z.number().int() }).optional()
});

/**
 * Records the payment of a line: its payment, its posting, and the name the payer paid under. Accepted already, it
 * changes nothing.
 * @throws FieldError without a payer, RefusedError where an invoice no longer has that much open
 */
export function acceptLine(world: World, lineId: number, input: unknown): number {
	must('money');
	const wanted = parseForm(acceptance, input);
	return writeAtOnce(world.db, (tx) => accept(tx, world, lineId, wanted));
}

function accept(
	tx: Transaction,
	world: World,
	lineId: number,
	{ payerId, shares, recorded }: z.output<typeof acceptance>
): number {
	const line = tx.select().from(bankLines).where(eq(bankLines.id, lineId)).get();
	if (!line || line.amount <= 0) throw new NotFoundError('This line');
	if (line.state === 'accepted') return line.paymentId ?? 0;
	if (recorded) return tie(tx, world, line, recorded);
	if (payerId === 0) throw new FieldError({ payerId: 'Choose who paid.' });
	if (!tx.select().from(customers).where(eq(customers.id, payerId)).get())
		throw new NotFoundError('This payer');
	const other = shares?.length === 1 ? openItemOf(tx, shares[0]!.documentId) : undefined;
	const open = new Map(openOf(tx, payerId, other?.currency).map((item) => [item.documentId, item]));
	if (!shares && open.size === 0 && owesInOtherMoney(tx, payerId))
		throw new RefusedError(
			'What they have open is in other money. Open the invoice and record what came in there: it is matched to this line then.'
		);
	const wanted =
		shares ??
		shareOldestFirst(
			BigInt(line.amount),
			[...open.values()].map((item) => ({ ...item, toPay: BigInt(item.toPay) }))
		).shares.map((one) => ({ ...one, amount: Number(one.amount), withheld: null }));
	for (const { documentId, amount, withheld } of wanted) {
		const item = open.get(documentId);
		const most = item ? (withheld === null ? item.toPay : item.outstanding - withheld) : 0;
		if (amount <= 0 || amount > most)
			throw new RefusedError(
				item
					? `Only ${displayMoney(most, item.currency)} is still to pay on ${item.number}.`
					: 'An invoice of this proposal is settled by now.'
			);
	}
	const currency = other?.currency ?? BOOKS;
	const shared = wanted.reduce((sum, one) => sum + one.amount, 0);
	if (currency === BOOKS && shared > line.amount)
		throw new RefusedError('More is shared out than came in.');
	const { id } = takeShared(tx, world, {
		...(currency === BOOKS ? {} : { sterling: line.amount }),
		key: `bank:${line.key}:${line.times}`,
		payerId,
		date: line.date,
		amount: currency === BOOKS ? line.amount : shared,
		way: 'bank',
		source: 'bankLine',
		reference: (line.text || line.payer).slice(0, 200),
		fee: 0,
		who: 'you',
		shares: wanted
	});
	const at = world.clock.now();
	tx.update(bankLines)
		.set({ state: 'accepted', paymentId: id, times: line.times + 1, decidedAt: at })
		.where(eq(bankLines.id, lineId))
		.run();
	learnName(tx, line, payerId, at);
	return id;
}

const owesInOtherMoney = (tx: Transaction, payerId: number): boolean =>
	tx
		.select({ id: openItems.documentId })
		.from(openItems)
		.where(
			and(
				eq(openItems.payerId, payerId),
				ne(openItems.currency, BOOKS),
				gt(openItems.outstanding, 0)
			)
		)
		.get() !== undefined;

/** Ties a line to what is in the books already. @throws RefusedError where that was seen, undone, or is another sum */
function tie(
	tx: Transaction,
	world: World,
	line: typeof bankLines.$inferSelect,
	{ kind, id }: { kind: 'payment' | 'payout'; id: number }
): number {
	const same = recordedMoney(tx).find(
		(one) => one.kind === kind && one.id === id && one.amount === BigInt(line.amount)
	);
	if (!same) throw new RefusedError('That was seen in another line by now.');
	const decided = { state: 'accepted' as const, tied: true, decidedAt: world.clock.now() };
	if (kind === 'payout')
		tx.update(payouts).set({ seenOn: line.date }).where(eq(payouts.id, id)).run();
	tx.update(bankLines)
		.set({ ...decided, ...(kind === 'payout' ? { payoutId: id } : { paymentId: id }) })
		.where(eq(bankLines.id, line.id))
		.run();
	return kind === 'payment' ? id : 0;
}

/**
 * The bank took a payment back: it is undone with a trace, and the line is dealt with. A second press changes nothing.
 * @throws NotFoundError, RefusedError where the payment is another sum, or cannot be undone
 */
export function acceptReversal(world: World, lineId: number, paymentId: number): void {
	must('money');
	writeAtOnce(world.db, (tx) => {
		const line = tx.select().from(bankLines).where(eq(bankLines.id, lineId)).get();
		if (!line || line.amount >= 0) throw new NotFoundError('This line');
		if (line.state === 'accepted') return;
		if (!takenBack(tx, line).some((one) => one.id === paymentId))
			throw new RefusedError('That payment is undone already, or is another sum.');
		undoInTransaction(tx, world, paymentId, 'The bank took it back', true);
		tx.update(bankLines)
			.set({ state: 'accepted', paymentId, tied: true, decidedAt: world.clock.now() })
			.where(eq(bankLines.id, lineId))
			.run();
	});
}

/**
 * Accepts every line whose proposal is sure, one after the other: what one of them settles, the next one finds settled.
 * @returns how many, and for how much in pence
 */
export async function acceptSure(
	world: World
): Promise<{ accepted: number; amount: number; left: number }> {
	must('money');
	const rows = world.db
		.select()
		.from(bankLines)
		.where(and(eq(bankLines.state, 'open'), sql`json_extract(${bankLines.proposal}, '$.sure')`))
		.orderBy(asc(bankLines.date), asc(bankLines.id))
		.all();
	let accepted = 0;
	let amount = 0;
	for (const [index, row] of rows.entries()) {
		// Many of them leave room for what others ask in between.
		if (index % 5 === 4) await turn();
		try {
			acceptLine(world, row.id, row.proposal!);
			accepted++;
			amount += row.amount;
		} catch (error) {
			// Another line settled it: this one is looked at by hand.
			if (!(error instanceof RefusedError)) throw error;
			world.db.update(bankLines).set({ proposal: null }).where(eq(bankLines.id, row.id)).run();
		}
	}
	return { accepted, amount, left: rows.length - accepted };
}

/** Private money, or what is no payment of a customer: it is not proposed again. */
export function setNotBusiness(world: World, lineId: number): void {
	must('money');
	world.db
		.update(bankLines)
		.set({ state: 'notBusiness', decidedAt: world.clock.now() })
		.where(and(eq(bankLines.id, lineId), eq(bankLines.state, 'open')))
		.run();
}

/** Takes a decision back; the payment it made is undone with a trace. @throws RefusedError */
export function reopenLine(world: World, lineId: number): void {
	must('money');
	writeAtOnce(world.db, (tx) => {
		const line = tx.select().from(bankLines).where(eq(bankLines.id, lineId)).get();
		if (!line) throw new NotFoundError('This line');
		if (line.amount < 0 && line.state === 'accepted')
			throw new RefusedError('The payment is undone. If it came after all, record it again.');
		if (line.payoutId !== null)
			tx.update(payouts).set({ seenOn: null }).where(eq(payouts.id, line.payoutId)).run();
		if (line.state === 'accepted' && line.paymentId !== null && !line.tied)
			undoInTransaction(tx, world, line.paymentId, 'The bank line was matched wrongly');
		tx.update(bankLines)
			.set({
				state: 'open',
				paymentId: null,
				payoutId: null,
				tied: false,
				proposal: null,
				decidedAt: null
			})
			.where(eq(bankLines.id, lineId))
			.run();
	});
}
