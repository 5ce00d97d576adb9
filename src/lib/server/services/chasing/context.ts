// What a reminder says of a payer: its facts, its rights, and where it can be reached.
import { howPaid, type HowPaid } from '../owed/howPaid';
import { accountWords } from '../../../core/documents/account';
import type { Minor } from '../../../core/money/types';
import { inArray } from 'drizzle-orm';
import type { ChaseFacts, LateRight } from '../../../core/chasing/wording';
import type { PlainDate } from '../../../core/calendar/types';
import { writeRate } from '../../../core/regimes/gb/latePayment';
import type { Reader } from '../../db/connection';
import { chaseWordings, customers } from '../../db/schema';
import { loadBusiness } from '../business/settings';
import { chargedFor, lateCharges, type Claim } from '../owed/lateCharges';
import { allLateTerms, type LateTerms } from '../owed/lateTerms';
import { isMobile } from '../../../core/regimes/gb/checks';
import { addressesAt, inOrderOfUse } from '../customers/parts';
import type { KnownItem, KnownPayer } from './facts';

/** What is known of a number of payers, read once for all of them, to write to each. */
export interface ChaseContext {
	owner: ReturnType<typeof loadBusiness>;
	charges: Map<number, Claim>;
	/** What was charged for it already, by documents of its own. */
	charged: Map<number, Minor>;
	terms: Map<number, LateTerms>;
	reach: Map<number, Reach>;
	/** Where the money for these invoices goes; null where they name different accounts, or no transfer is wanted. */
	accountFor: (documentIds: readonly number[]) => HowPaid['bank'];
	/** Words that were changed for the next message of a step, by payer and step. */
	wordings: Map<string, { subject: string; text: string }>;
}

export const wordingKey = (payerId: number, stepId: string) => `${payerId} ${stepId}`;

/** Reads what messages to these payers are made of, as of a day. */
export function chaseContext(
	db: Reader,
	payers: readonly KnownPayer[],
	day: PlainDate
): ChaseContext {
	const ids = payers.map((payer) => payer.payerId);
	const late = payers
		.flatMap((payer) => payer.items)
		.filter((item) => item.dueDate < day)
		.map((item) => item.documentId);
	return {
		owner: loadBusiness(db),
		accountFor: (documentIds) => howPaid(db, documentIds).bank,
		charges: lateCharges(db, late, day),
		charged: chargedFor(db, late, true),
		terms: allLateTerms(db),
		reach: reachOf(db, ids),
		wordings: new Map(
			db
				.select()
				.from(chaseWordings)
				.where(inArray(chaseWordings.payerId, ids))
				.all()
				.map((row) => [wordingKey(row.payerId, row.stepId), row])
		)
	};
}

/** Where several invoices are paid together; before it is written the page has no address yet. */
export const reminderLink = (origin: string, token: string): string =>
	`${origin}/r/${token || '…'}`;

/** What the words of a message are filled with. `mark` is put on its links. */
export function factsOf(
	origin: string,
	context: ChaseContext,
	payer: KnownPayer,
	documentIds: readonly number[],
	day: PlainDate,
	mark: string
): ChaseFacts {
	const items = payer.items.filter((item) => documentIds.includes(item.documentId));
	const { owner } = context;
	const account = context.accountFor(items.map((item) => item.documentId));
	const bank = account ? `Bank transfer: ${account.accountName}, ${accountWords(account)}` : '';
	return {
		salutation: context.reach.get(payer.payerId)?.salutation ?? '',
		customer: payer.payer,
		household: items.every((item) => item.household),
		today: day,
		invoices: items.map(({ number, dueDate, toPay, own, leftToDeduct, token }) => ({
			number,
			dueDate,
			toPay: own?.amount ?? toPay,
			...(own ? { currency: own.currency } : {}),
			leftToDeduct,
			link: `${origin}/p/${token}${mark ? `?r=${mark}` : ''}`
		})),
		together: items.length > 1 ? reminderLink(origin, mark) : '',
		right: rightOf(context, items, day),
		owner: owner.ownerName,
		business: owner.tradingName,
		phone: owner.phone,
		bank
	};
}

/** What their lateness lets us charge: the contract's own terms, or the Act for businesses. */
function rightOf(
	{ charges, charged, terms }: ChaseContext,
	items: readonly KnownItem[],
	day: PlainDate
): LateRight {
	const found = items.flatMap((item) =>
		item.dueDate < day ? (charges.get(item.documentId) ?? []) : []
	);
	const known = found.flatMap((one) => ('interest' in one ? [one] : []));
	const claim = known.reduce((sum, one) => sum + one.interest + one.compensation, 0n);
	const billed = items.reduce((sum, item) => sum + (charged.get(item.documentId) ?? 0n), 0n);
	const agreed = items.flatMap((item) => terms.get(item.customerId) ?? [])[0];
	if (agreed) return { kind: 'contract', terms: agreed.terms, claim, charged: billed };
	if (items.every((item) => item.household)) return { kind: 'none' };
	const rates = new Set(known.map((one) => (one.rate ? writeRate(one.rate) : '')));
	const whole = found.length > 0 && known.length === found.length;
	return {
		kind: 'act',
		rate: whole && rates.size === 1 ? [...rates][0]! : null,
		claim: whole ? claim : null,
		charged: billed
	};
}

/** Where a payer is reached; empty where it is not. */
export interface Reach {
	mail: string;
	/** A mobile, for texts. */
	mobile: string;
	/** Name and address on a letter. */
	post: string;
	/** How it is greeted; empty: as everybody. */
	salutation: string;
}

function reachOf(db: Reader, payerIds: readonly number[]): Map<number, Reach> {
	const rows = db
		.select()
		.from(customers)
		.where(inArray(customers.id, [...payerIds]))
		.all();
	const ids = [...new Set(rows.flatMap((row) => [row.id, row.billToId ?? row.id]))];
	const { firms, people } = addressesAt(db, ids);
	return new Map(
		rows.map((row) => {
			const own = people.filter((person) => person.customerId === row.id);
			const order = row.billToId === null ? [row.id] : [row.billToId, row.id];
			const addresses = inOrderOfUse(order, firms, people);
			const mobile = [row.phone, ...own.map((one) => one.phone)].find(isMobile);
			return [
				row.id,
				{
					mail: addresses[0] ?? '',
					mobile: mobile ?? '',
					post: row.address ? `${row.name}\n${row.address}` : '',
					salutation: row.salutation
				}
			];
		})
	);
}
