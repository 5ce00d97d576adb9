// Money that came for work not finished or billed yet: it makes a tax point on its day (VATA 1994 s.6(4)), without any
// invoice. The deposit invoice of that day is a press away.
import { and, eq, inArray } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { formatMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { customerOn, sellerOn } from '../../../core/parties';
import { NotFoundError } from '../../../core/refusals';
import { depositBehind } from '../../../core/regimes/gb/deposit';
import { decideContract } from '../../../core/regimes/gb/contract';
import { blankLine, blankSheet } from '../../../core/sheet/blank';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Reader } from '../../db/connection';
import { customers, documents, payments } from '../../db/schema';
import type { World } from '../../world';
import { sellerRecord } from '../business/settings';
import { customerRecord } from '../customers/parts';
import { draftOnce } from '../invoices/drafts';
import { unusedPayments } from '../ledger/inHand';

/** Payments that no document uses, of days on which VAT is due on them. Pence. */
function dueAtOnce(db: Reader, of: number | 'newest') {
	const seller = sellerRecord(db);
	return unusedPayments(db, of).filter(
		({ left, date }) => left > 0 && sellerOn(seller, date).vatRegistered
	);
}

/** Of a payer's payments in hand, those on which VAT is due although nothing bills them yet. */
export const taxedInHand = (db: Reader, payerId: number): Set<number> =>
	new Set(dueAtOnce(db, payerId).map(({ id }) => id));

/**
 * A draft of the deposit invoice for a payment in hand: over what is left of it, at the tax point of the day it came. One
 * that is being written already is given back.
 * @throws NotFoundError
 */
export function depositDraft(world: World, paymentId: number, key: string): number {
	return writeAtOnce(world.db, (tx) => {
		const begun = tx
			.select({ id: documents.id })
			.from(documents)
			.where(
				and(
					eq(documents.origin, 'deposit'),
					eq(documents.aboutId, paymentId),
					eq(documents.state, 'draft')
				)
			)
			.get();
		if (begun) return begun.id;
		const payer = tx
			.select({ id: payments.payerId })
			.from(payments)
			.where(eq(payments.id, paymentId))
			.get()?.id;
		const payment = payer ? dueAtOnce(tx, payer).find(({ id }) => id === paymentId) : undefined;
		if (!payment) throw new NotFoundError('Money in hand from this payment');
		const { payerId, left, date } = payment;
		return draftOnce(tx, world, key, () => ({
			sheet: depositSheet(tx, payerId, BigInt(left), date),
			origin: 'deposit',
			aboutId: paymentId
		}));
	});
}

function depositSheet(db: Reader, customerId: number, cash: bigint, paidOn: string): Sheet {
	const record = customerRecord(db, customerId);
	if (!record) throw new NotFoundError('This customer');
	const { kind, standing } = customerOn(record, paidOn);
	const contractor = kind === 'contractor';
	const rate = contractor && standing.cisRate ? BigInt(standing.cisRate) : 0n;
	const reversed =
		contractor && standing.vatRegistered && standing.cisRegistered && !standing.endUser;
	const amount = depositBehind(cash, { paidOn, rate, reversed });
	const line = {
		...blankLine('r1'),
		description: `Deposit, paid on ${displayDate(paidOn)}`,
		unitPrice: formatMoney(amount)
	};
	const { contract } = decideContract([{ kind: line.kind, vat: line.vat, net: amount }]);
	return {
		...blankSheet(),
		customerId,
		contract: contractor ? contract : null,
		pricesIncludeVat: !reversed,
		deposit: true,
		paidOn,
		rows: [line]
	};
}

/** What is in hand although VAT is due on it: said until it is on a document. */
export function depositMoves({ db }: World): Move[] {
	const due = dueAtOnce(db, 'newest').slice(0, MOST_MOVES);
	if (due.length === 0) return [];
	const names = new Map(
		db
			.select({ id: customers.id, name: customers.name })
			.from(customers)
			.where(
				inArray(
					customers.id,
					due.map(({ payerId }) => payerId)
				)
			)
			.all()
			.map(({ id, name }) => [id, name])
	);
	return due.map(({ id, payerId, left, date }) => ({
		id: `deposit:${id}`,
		amount: BigInt(left),
		late: false,
		title: `${names.get(payerId) ?? 'Somebody'} paid ${displayPounds(left)} that is on no invoice`,
		detail: `If it is for work to come, VAT on it is due from ${displayDate(date)}`,
		action: 'See',
		href: `/owed/${payerId}`
	}));
}
