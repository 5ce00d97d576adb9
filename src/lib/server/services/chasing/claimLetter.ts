// The letter before court: whom it may go to, what it says, and that it was written.
import { and, eq, inArray } from 'drizzle-orm';
import { accountWords } from '../../../core/documents/account';
import {
	claimDeadline,
	claimLetter,
	claimSum,
	DEBTORS,
	type ClaimedInvoice,
	type ClaimFacts,
	type Debtor
} from '../../../core/chasing/claim';
import { displayDate } from '../../../core/calendar/conversion';
import { daysBetween } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import { lateMoney, MOST_MOVES, type Move } from '../../../core/moves';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { LATE_PAYMENT_ACT } from '../../../core/regimes/gb/latePayment';
import { dailyInterest } from '../../../core/settlement/lateness';
import { must } from '../../actor';
import { writeAtOnce, type Reader } from '../../db/connection';
import { chaseMessages, customers, documents, holds, openItems } from '../../db/schema';
import type { World } from '../../world';
import { newToken } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { breathingOn, refuseBreathing } from '../ledger/breathing';
import { openOf } from '../ledger/openInvoices';
import { howPaid } from '../owed/howPaid';
import { chargedFor, lateCharges } from '../owed/lateCharges';
import { lateTermsOf } from '../owed/lateTerms';
import { note } from '../trail/documents';

interface Claimable extends ClaimedInvoice {
	documentId: number;
	/** Why it had better stay out; empty: nothing speaks against it. */
	against: string;
}

/** A payer's late invoices in pounds, with what lateness has added. */
function claimable(db: Reader, today: PlainDate, payerId: number): Claimable[] {
	const late = openOf(db, payerId).filter((item) => item.dueDate < today && item.toPay > 0);
	const ids = late.map(({ documentId }) => documentId);
	if (ids.length === 0) return [];
	const claims = lateCharges(db, ids, today);
	const charged = chargedFor(db, ids);
	const held = new Map(
		db
			.select({
				documentId: holds.documentId,
				kind: holds.kind,
				until: holds.until,
				ended: holds.endedAt
			})
			.from(holds)
			.where(inArray(holds.documentId, ids))
			.all()
			.flatMap(({ ended, ...one }) => (ended === null ? [[one.documentId, one] as const] : []))
	);
	const words = new Map(
		db
			.select({ id: documents.id, frozen: documents.frozen })
			.from(documents)
			.where(inArray(documents.id, ids))
			.all()
			.map(({ id, frozen }) => [id, frozen!] as const)
	);
	return late.map((item): Claimable => {
		const claim = claims.get(item.documentId);
		const known = claim && 'interest' in claim ? claim : null;
		const before = charged.get(item.documentId) ?? 0n;
		const sum = known ? known.interest + known.compensation - before : 0n;
		const { sheet, customer } = words.get(item.documentId)!;
		const hold = held.get(item.documentId);
		return {
			documentId: item.documentId,
			number: item.number,
			issued: item.issueDate,
			due: item.dueDate,
			about: customer.sites.find(({ id }) => id === sheet.siteId)?.name ?? sheet.reference.trim(),
			open: BigInt(item.toPay),
			added: sum > 0n ? sum : 0n,
			daily: known?.rate && known.applies ? dailyInterest(BigInt(item.toPay), known.rate) : 0n,
			against:
				hold?.kind === 'dispute'
					? 'it is disputed'
					: hold?.kind === 'promise' && (hold.until ?? '') >= today
						? `it is promised by ${displayDate(hold.until!)}`
						: daysBetween(item.dueDate, today) < 14
							? 'it is less than two weeks late'
							: ''
		};
	});
}

export interface ClaimForm {
	key: string;
	debtor: string;
	documents: readonly number[];
	/** How the work was agreed. */
	agreed: string;
}

const MOST_WORDS = 2_000;

function factsOf(
	db: Reader,
	today: PlainDate,
	payerId: number,
	debtor: Debtor,
	invoices: readonly Claimable[],
	agreed: string
): ClaimFacts {
	const owner = loadBusiness(db);
	const payer = db.select().from(customers).where(eq(customers.id, payerId)).get();
	if (!payer) throw new NotFoundError('This payer');
	const { bank } = howPaid(
		db,
		invoices.map(({ documentId }) => documentId)
	);
	const terms = lateTermsOf(db, payerId);
	return {
		debtor,
		customer: payer.name,
		today,
		invoices,
		agreed,
		owner: owner.ownerName,
		business: owner.tradingName,
		address: owner.address
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean),
		phone: owner.phone,
		email: owner.email,
		bank: bank ? `${bank.accountName}, ${accountWords(bank)}` : '',
		ground: terms ? `as agreed: ${terms.terms}` : LATE_PAYMENT_ACT
	};
}

const usualDebtor = (kind: string): Debtor => (kind === 'household' ? 'individual' : 'firm');

/** What the page shows before anything is written. @throws NotFoundError */
export function claimPage(world: World, payerId: number) {
	must('bill');
	const { db } = world;
	const today = world.clock.today();
	const payer = db.select().from(customers).where(eq(customers.id, payerId)).get();
	if (!payer) throw new NotFoundError('This payer');
	const invoices = claimable(db, today, payerId);
	return {
		today,
		payer: { id: payerId, name: payer.name, address: payer.address, kind: payer.kind },
		debtor: usualDebtor(payer.kind),
		invoices,
		breathing: breathingOn(db, payerId, today)?.to ?? null,
		facts: factsOf(db, today, payerId, usualDebtor(payer.kind), invoices, ''),
		before: db
			.select({ id: chaseMessages.id, day: chaseMessages.day, state: chaseMessages.state })
			.from(chaseMessages)
			.where(and(eq(chaseMessages.payerId, payerId), inArray(chaseMessages.claim, [...DEBTORS])))
			.all()
	};
}

/**
 * Writes the letter, to be printed and posted. The same key again gives the same letter.
 * @returns its id
 * @throws FieldError, NotFoundError; RefusedError in a breathing space
 */
export function writeClaim(world: World, payerId: number, form: ClaimForm): number {
	must('bill');
	const problems: Record<string, string> = {};
	const debtor = DEBTORS.find((one) => one === form.debtor);
	if (!debtor) problems.debtor = 'Say whom it goes to: the law asks for more where it is a person.';
	const agreed = form.agreed.trim();
	if (agreed.length > MOST_WORDS) problems.agreed = 'At most 2,000 characters.';
	if (debtor === 'individual' && agreed === '')
		problems.agreed =
			'The protocol asks how it was agreed: by whom, when, and in writing or by word.';
	return writeAtOnce(world.db, (tx) => {
		const key = `chase:claim:${form.key}`;
		const same = tx
			.select({ id: chaseMessages.id })
			.from(chaseMessages)
			.where(eq(chaseMessages.key, key))
			.get();
		if (same) return same.id;
		const day = world.clock.today();
		refuseBreathing(tx, payerId, day);
		const wanted = claimable(tx, day, payerId).filter(({ documentId }) =>
			form.documents.includes(documentId)
		);
		if (wanted.length === 0) problems.documents = 'Choose what is claimed.';
		const payer = tx.select().from(customers).where(eq(customers.id, payerId)).get();
		if (!payer) throw new NotFoundError('This payer');
		if (payer.address.trim() === '')
			problems.documents ??= 'A letter needs their postal address: give it on the customer.';
		if (Object.keys(problems).length || !debtor) throw new FieldError(problems);
		const facts = factsOf(tx, day, payerId, debtor, wanted, agreed);
		const { subject, text } = claimLetter(facts);
		const at = world.clock.now();
		const { id } = tx
			.insert(chaseMessages)
			.values({
				key,
				payerId,
				planId: null,
				stepId: 'claim',
				tone: 'last',
				claim: debtor,
				channel: 'letter',
				day,
				who: 'you',
				to: `${payer.name}\n${payer.address}`,
				subject,
				text,
				amount: Number(claimSum(facts)),
				items: wanted.map(({ documentId, open }) => ({ documentId, toPay: Number(open) })),
				token: newToken(),
				state: 'toPost',
				createdAt: at
			})
			.returning({ id: chaseMessages.id })
			.get();
		for (const { documentId } of wanted)
			note(tx, {
				documentId,
				at,
				who: 'you',
				what: 'claimWritten',
				detail: `to answer by ${displayDate(claimDeadline(facts))}`
			});
		return id;
	});
}

/** Letters of claim whose time to answer is over while something of them is still open. */
export function claimMoves(world: World): Move[] {
	const today = world.clock.today();
	return openClaims(world.db)
		.filter(({ deadline }) => deadline < today)
		.slice(0, MOST_MOVES)
		.map(({ id, payerId, payer, deadline, amount }) => ({
			id: `claim:${id}`,
			amount: BigInt(amount),
			brings: lateMoney(payerId),
			late: true,
			title: `${payer} did not answer the letter of claim`,
			detail: `its time ended on ${displayDate(deadline)}: agree on something, or go to court`,
			action: 'See',
			href: `/owed/${payerId}`
		}));
}

function openClaims(db: Reader) {
	const claims = db
		.select({
			id: chaseMessages.id,
			payerId: chaseMessages.payerId,
			payer: customers.name,
			day: chaseMessages.day,
			claim: chaseMessages.claim,
			items: chaseMessages.items
		})
		.from(chaseMessages)
		.innerJoin(customers, eq(customers.id, chaseMessages.payerId))
		.where(and(eq(chaseMessages.state, 'posted'), inArray(chaseMessages.claim, [...DEBTORS])))
		.all();
	const claimed = claims.flatMap(({ items }) => items.map(({ documentId }) => documentId));
	const open = new Map(
		db
			.select({ id: openItems.documentId, toPay: openItems.toPay })
			.from(openItems)
			.where(inArray(openItems.documentId, claimed))
			.all()
			.map(({ id, toPay }) => [id, toPay] as const)
	);
	return claims.flatMap(({ items, claim, day, ...row }) => {
		const amount = items.reduce((sum, { documentId }) => sum + (open.get(documentId) ?? 0), 0);
		return amount > 0 && claim
			? [{ ...row, deadline: claimDeadline({ debtor: claim, today: day }), amount }]
			: [];
	});
}
