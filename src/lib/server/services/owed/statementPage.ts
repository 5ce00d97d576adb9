// What a statement's link shows and takes: that statement, what of it is still open, and payment of all or some.
import { and, eq } from 'drizzle-orm';
import type { StatementView } from '../../../core/documents/statementView';
import { displayPounds } from '../../../core/money/display';
import { shareOldestFirst } from '../../../core/settlement/sharing';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { checkouts, statements } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { inHandOf } from '../ledger/inHand';
import { openOf } from '../ledger/openInvoices';
import { referenceOf } from '../money/checkouts';
import { lastTry, type LastTry } from '../money/payPage';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';

const TOKEN = /^[A-Za-z0-9_-]{32}$/;

export interface StatementPage {
	view: StatementView;
	/** Invoices still open today, whether or not the statement knew them. Pence. */
	open: { documentId: number; number: string; dueDate: string; toPay: number; token: string }[];
	toPay: number;
	/** In the payer's favour. */
	credit: number;
	pending: boolean;
	/** The last try to pay through it, with what is known of it. */
	last: LastTry | null;
	/** How the business is reached. */
	reach: { phone: string; email: string };
}

function byToken(world: World, token: string) {
	const row = TOKEN.test(token)
		? world.db.select().from(statements).where(eq(statements.token, token)).get()
		: undefined;
	if (!row?.view) throw new NotFoundError('This page');
	return { ...row, view: row.view };
}

/** @throws NotFoundError for every link that is not exactly right */
export function statementPage(world: World, token: string): StatementPage {
	const row = byToken(world, token);
	const business = loadBusiness(world.db);
	const known = new Set(row.view.rows.map((one) => one.documentId));
	// A statement's link shows its own invoices only; what came later has links of its own.
	const open = openOf(world.db, row.payerId)
		.filter((item) => item.toPay > 0 && known.has(item.documentId))
		.map(({ documentId, number, dueDate, toPay, token: own }) => ({
			documentId,
			number,
			dueDate,
			toPay,
			token: own
		}));
	const ofThis = eq(checkouts.statementId, row.id);
	const pending = world.db
		.select({ id: checkouts.id })
		.from(checkouts)
		.where(and(ofThis, eq(checkouts.state, 'pending')))
		.get();
	return {
		view: row.view,
		open,
		toPay: open.reduce((sum, item) => sum + item.toPay, 0),
		credit: inHandOf(world.db, row.payerId).reduce((sum, one) => sum + one.amount, 0),
		pending: pending !== undefined,
		last: lastTry(world, ofThis),
		reach: { phone: business.phone, email: business.email }
	};
}

/** Notes that the payer opened it. */
export function noteStatementOpened(world: World, token: string): void {
	const row = byToken(world, token);
	if (row.openedAt === null)
		world.db
			.update(statements)
			.set({ openedAt: world.clock.now() })
			.where(eq(statements.id, row.id))
			.run();
}

export function statementFile(world: World, token: string): Buffer {
	const row = byToken(world, token);
	if (!row.pdf) throw new NotFoundError('This page');
	return row.pdf;
}

/**
 * Opens a payment for chosen invoices of a statement, all of each or a part of the whole.
 * @returns where the payer pays
 * @throws FieldError, RefusedError, UnavailableError
 */
export async function payStatement(
	world: World,
	token: string,
	key: string,
	chosen: readonly number[],
	amount?: number,
	way: 'card' | 'bank' = 'card'
): Promise<string> {
	const row = byToken(world, token);
	const { open } = statementPage(world, token);
	const wanted = open.filter((item) => chosen.includes(item.documentId));
	if (open.length === 0) throw new RefusedError('Nothing is left to pay.');
	if (wanted.length === 0) throw new FieldError({ invoices: 'Choose what you want to pay.' });
	const most = wanted.reduce((sum, item) => sum + item.toPay, 0);
	const sum = amount ?? most;
	if (!Number.isSafeInteger(sum) || sum < 1)
		throw new FieldError({ amount: 'Give an amount above zero.' });
	if (sum > most)
		throw new FieldError({
			amount: `At most ${displayPounds(most)} is to pay for what you chose.`
		});
	const { shares } = shareOldestFirst(
		BigInt(sum),
		wanted.map((item) => ({ ...item, toPay: BigInt(item.toPay) }))
	);
	const request = {
		key,
		amount: sum,
		description: wanted.length === 1 ? `Invoice ${wanted[0]!.number}` : `${wanted.length} invoices`,
		returnUrl: `${world.origin}/s/${token}?from=${way}`,
		webhookUrl: `${world.origin}/webhooks/${way}`
	};
	const reference = referenceOf(wanted[0]!.number);
	const answer =
		way === 'bank'
			? await world.bank.openTransfer({ ...request, reference })
			: await world.card.openCheckout(request);
	writeAtOnce(world.db, (tx: Transaction) => {
		tx.insert(checkouts)
			.values({
				key,
				payerId: row.payerId,
				statementId: row.id,
				shares: shares.map((one) => ({ documentId: one.documentId, amount: Number(one.amount) })),
				amount: sum,
				way,
				processorId: answer.id,
				state: 'open',
				createdAt: world.clock.now()
			})
			.onConflictDoNothing()
			.run();
	});
	return answer.url;
}
