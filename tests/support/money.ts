// What tests of money begin with: a firm that owes, another invoice of it, a payment typed by hand.
import { eq } from 'drizzle-orm';
import { openItems } from '../../src/lib/server/db/schema';
import { beginInvoice, loadDraft, saveDraft } from '../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../src/lib/server/services/invoices/issue';
import { recordForPayer } from '../../src/lib/server/services/money/payerPayments';
import { recordPayment, type PaymentForm } from '../../src/lib/server/services/money/payments';
import type { World } from '../../src/lib/server/world';
import { HOUSEHOLD, line } from './world';

export const FIRM = { ...HOUSEHOLD, name: 'Corvane Dairy Ltd', kind: 'business' as const };

/** A sheet of one line, without VAT. */
export const oneLine = (price: string) => ({ rows: [line('a', 'Render', price)] });

export const itemOf = (world: World, documentId: number) =>
	world.db.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;

/** A further invoice of the same customer. */
export async function another(world: World, customerId: number, price: string, more: object = {}) {
	const id = beginInvoice(world, `more-${price}`, customerId);
	saveDraft(world, id, 1, { ...loadDraft(world.db, id).sheet, ...oneLine(price), ...more });
	return issueInvoice(world, id, 2);
}

export const payByHand = (
	world: World,
	documentId: number,
	amount: string,
	more: Partial<PaymentForm> = {}
) =>
	recordPayment(world, documentId, {
		key: `k-${documentId}-${amount}`,
		date: '2026-11-24',
		amount,
		withheld: '',
		way: 'bank',
		reference: '',
		allowOverpaid: true,
		...more
	});

let pressed = 0;
/** A payment of nothing that is open: all of it is in hand. @returns its number */
export const payAhead = (world: World, payerId: number, amount: string, date = '2026-11-20') =>
	recordForPayer(world, payerId, {
		key: `ahead-${pressed++}`,
		date,
		amount,
		way: 'cash',
		reference: 'X',
		shares: {}
	});
