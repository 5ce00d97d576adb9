// Several invoices of one payer, shown and paid together through one link: a statement's, or a reminder's.
import { and, eq, type SQL } from 'drizzle-orm';
import { bankReference } from '../../../core/documents/statementView';
import { BOOKS, type Currency } from '../../../core/money/currencies';
import type { BankAccount } from '../../../core/documents/types';
import type { PayWays } from '../../../core/payWays';
import { displayMoney } from '../../../core/money/display';
import { shareOldestFirst } from '../../../core/settlement/sharing';
import { FieldError, RefusedError } from '../../../core/refusals';
import { checkouts, customers } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { inHandOf } from '../ledger/inHand';
import { currenciesOf, openOf } from '../ledger/openInvoices';
import { referenceOf } from '../money/checkouts';
import { howPaid } from './howPaid';
import { lastTry, type LastTry } from '../money/payPage';

/** What a link stands for. */
export interface Together {
	payerId: number;
	/** The invoices it shows. */
	documentIds: ReadonlySet<number>;
	/** Its page: `/s/…`. */
	path: string;
	/** Whose payments these are. */
	of: { statementId: number } | { chaseMessageId: number };
}

export interface TogetherPage {
	/** Those still open today. Pence. */
	open: { documentId: number; number: string; dueDate: string; toPay: number; token: string }[];
	toPay: number;
	/** What all of these amounts are in. */
	currency: Currency;
	/** Of a link about several kinds of money: those in another, paid on pages of their own. */
	inOtherMoney: { number: string; toPay: number; currency: Currency; token: string }[];
	/** In the payer's favour. */
	credit: number;
	pending: boolean;
	/** The last try to pay through it, with what is known of it. */
	last: LastTry | null;
	/** How the business is reached. */
	reach: { phone: string; email: string };
	/** How all of them may be paid, and into which account; null where that differs. */
	ways: PayWays;
	bank: (BankAccount & { reference: string }) | null;
}

const madeThrough = (of: Together['of']): SQL =>
	'statementId' in of
		? eq(checkouts.statementId, of.statementId)
		: eq(checkouts.chaseMessageId, of.chaseMessageId);

export function openTogether(world: World, { payerId, documentIds, of }: Together): TogetherPage {
	const business = loadBusiness(world.db);
	// A link shows its own invoices only; what came later has links of its own.
	const all = currenciesOf(world.db, payerId).map((currency) => ({
		currency,
		items: openOf(world.db, payerId, currency).filter(
			(item) => item.toPay > 0 && documentIds.has(item.documentId)
		)
	}));
	const [first = { currency: BOOKS, items: [] }, ...others] = all.filter(
		({ items }) => items.length > 0
	);
	const open = first.items.map(({ documentId, number, dueDate, toPay, token }) => ({
		documentId,
		number,
		dueDate,
		toPay,
		token
	}));
	const { ways, bank } = howPaid(
		world.db,
		open.map((item) => item.documentId)
	);
	const payer = world.db.select().from(customers).where(eq(customers.id, payerId)).get();
	const pending = world.db
		.select({ id: checkouts.id })
		.from(checkouts)
		.where(and(madeThrough(of), eq(checkouts.state, 'pending')))
		.get();
	return {
		open,
		currency: first.currency,
		inOtherMoney: others.flatMap(({ currency, items }) =>
			items.map(({ number, toPay, token }) => ({ number, toPay, currency, token }))
		),
		toPay: open.reduce((sum, item) => sum + item.toPay, 0),
		credit: inHandOf(world.db, payerId, first.currency).reduce((sum, one) => sum + one.amount, 0),
		pending: pending !== undefined,
		last: lastTry(world, madeThrough(of)),
		reach: { phone: business.phone, email: business.email },
		ways,
		bank: bank && { ...bank, reference: bankReference(payer?.name ?? '') }
	};
}

/**
 * Opens a payment for chosen invoices, all of each or a part of the whole.
 * @returns where the payer pays
 * @throws FieldError, RefusedError, UnavailableError
 */
export async function payTogether(
	world: World,
	link: Together,
	key: string,
	chosen: readonly number[],
	amount?: number,
	way: 'card' | 'bank' = 'card'
): Promise<string> {
	const { open, currency } = openTogether(world, link);
	const wanted = open.filter((item) => chosen.includes(item.documentId));
	if (open.length === 0) throw new RefusedError('Nothing is left to pay.');
	if (wanted.length === 0) throw new FieldError({ invoices: 'Choose what you want to pay.' });
	const { ways } = howPaid(
		world.db,
		wanted.map((item) => item.documentId)
	);
	if (!ways[way])
		throw new RefusedError('Not all of what you chose can be paid in that way: pay it by itself.');
	const most = wanted.reduce((sum, item) => sum + item.toPay, 0);
	const sum = amount ?? most;
	if (!Number.isSafeInteger(sum) || sum < 1)
		throw new FieldError({ amount: 'Give an amount above zero.' });
	if (sum > most)
		throw new FieldError({
			amount: `At most ${displayMoney(most, currency)} is to pay for what you chose.`
		});
	const { shares } = shareOldestFirst(
		BigInt(sum),
		wanted.map((item) => ({ ...item, toPay: BigInt(item.toPay) }))
	);
	const request = {
		key,
		amount: sum,
		description: wanted.length === 1 ? `Invoice ${wanted[0]!.number}` : `${wanted.length} invoices`,
		returnUrl: `${world.origin}${link.path}?from=${way}`,
		webhookUrl: `${world.origin}/webhooks/${way}`
	};
	const reference = referenceOf(wanted[0]!.number);
	const answer =
		way === 'bank'
			? await world.bank.openTransfer({ ...request, reference })
			: await world.card.openCheckout(request);
	world.db
		.insert(checkouts)
		.values({
			key,
			payerId: link.payerId,
			...link.of,
			shares: shares.map((one) => ({ documentId: one.documentId, amount: Number(one.amount) })),
			amount: sum,
			way,
			processorId: answer.id,
			state: 'open',
			createdAt: world.clock.now()
		})
		.onConflictDoNothing()
		.run();
	return answer.url;
}
