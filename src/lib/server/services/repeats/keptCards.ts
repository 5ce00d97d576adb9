// Cards that customers let be kept: the processor's token, and the digits a person knows it by. Either side revokes.
import { must } from '../../actor';
import { randomInt } from 'node:crypto';
import { and, desc, eq, isNull, ne } from 'drizzle-orm';
import { londonDate } from '../../../core/calendar/conversion';
import { ruleWords } from '../../../core/calendar/ruleWords';
import type { PlainDate } from '../../../core/calendar/types';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { cardCodes, documents, repeats, savedCards } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { sha256 } from '../business/keys';
import { linkToday } from '../business/links';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { queueMail } from '../messages/outbox';
import { note } from '../trail/documents';

/** Keeps the card a payment was made with; an earlier one of the same customer makes way. */
export function keepCard(
	tx: Transaction,
	documentId: number,
	card: { token: string; lastDigits: string },
	at: number
): void {
	const document = tx.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!document?.customerId) return;
	tx.update(savedCards)
		.set({ revokedAt: at, revokedBy: 'customer' })
		.where(and(eq(savedCards.customerId, document.customerId), isNull(savedCards.revokedAt)))
		.run();
	tx.insert(savedCards)
		.values({ ...card, customerId: document.customerId, consentAt: at })
		.onConflictDoNothing()
		.run();
	note(tx, { documentId, at, who: 'customer', what: 'cardKept', detail: card.lastDigits });
}

/** The card a customer lets be charged, or null. */
export function cardOf(db: Reader, customerId: number): typeof savedCards.$inferSelect | null {
	return (
		db
			.select()
			.from(savedCards)
			.where(and(eq(savedCards.customerId, customerId), isNull(savedCards.revokedAt)))
			.orderBy(desc(savedCards.id))
			.get() ?? null
	);
}

/** It is not charged any more from now on, whether or not the processor can be told just now. */
export async function revokeCard(
	world: World,
	customerId: number,
	by: 'you' | 'customer'
): Promise<void> {
	must('bill');
	const card = writeAtOnce(world.db, (tx) => {
		const kept = cardOf(tx, customerId);
		if (kept)
			tx.update(savedCards)
				.set({ revokedAt: world.clock.now(), revokedBy: by })
				.where(eq(savedCards.id, kept.id))
				.run();
		return kept;
	});
	if (card) await world.card.forgetCard(card.token).catch(() => undefined);
}

/** How long a code holds, how often it may be mistyped, and how soon there is another. */
const HOLDS_MS = 15 * 60_000;
const TRIES = 5;
const AGAIN_MS = 60_000;

function documentBy(world: World, token: string) {
	const document = world.db.select().from(documents).where(eq(documents.token, token)).get();
	if (document?.customerId == null) throw new NotFoundError('This page');
	return { id: document.id, customerId: document.customerId };
}

const hashOf = (customerId: number, code: string): string => sha256(`${customerId}:${code.trim()}`);

/**
 * Mails a code to the customer, where a card of theirs is kept. Whoever has the link hears the same in any case: a link is forwarded, and tells nobody
 * whether a card is kept, nor which. @throws NotFoundError
 */
export function mailCardCode(world: World, token: string): void {
	const { customerId } = documentBy(world, token);
	const now = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		const card = cardOf(tx, customerId);
		const [to] = mailAddresses(tx, customerId);
		const before = tx.select().from(cardCodes).where(eq(cardCodes.customerId, customerId)).get();
		if (!card || !to || (before && Math.abs(now - before.madeAt) < AGAIN_MS)) return;
		const code = String(randomInt(1_000_000)).padStart(6, '0');
		const values = { codeHash: hashOf(customerId, code), madeAt: now, tries: 0 };
		tx.insert(cardCodes)
			.values({ customerId, ...values })
			.onConflictDoUpdate({ target: cardCodes.customerId, set: values })
			.run();
		const owner = loadBusiness(tx);
		queueMail(tx, world, {
			key: `card-code:${customerId}:${now}`,
			kind: 'notice',
			to,
			subject: `${code} is your code for the card kept by ${owner.tradingName || owner.ownerName}`,
			text: `Your code is ${code}. It holds for fifteen minutes, and shows which card is kept for repeat invoices and takes it back.\n\nIf you did not ask for it, somebody else has your link: there is nothing to do, without the code they see nothing.\n\n{link}`,
			link: `${world.origin}/p/${linkToday(tx, token)}#card`
		});
	});
}

export interface KeptCard {
	lastDigits: string;
	/** The day on which it was agreed. */
	since: PlainDate;
	/** The repeats it is charged for, and when. */
	charged: { name: string; rule: string; paused: boolean }[];
}

/**
 * The kept card and what was agreed about it, for who has the code.
 * @throws NotFoundError; FieldError where the code does not fit
 */
export function cardByCode(world: World, token: string, code: string): KeptCard {
	const { customerId } = documentBy(world, token);
	const fits = writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(cardCodes).where(eq(cardCodes.customerId, customerId)).get();
		if (!row || row.tries >= TRIES || world.clock.now() - row.madeAt > HOLDS_MS) return false;
		if (row.codeHash === hashOf(customerId, code)) return true;
		tx.update(cardCodes)
			.set({ tries: row.tries + 1 })
			.where(eq(cardCodes.customerId, customerId))
			.run();
		return false;
	});
	const card = fits ? cardOf(world.db, customerId) : null;
	if (!card)
		throw new FieldError({
			code: 'That is not the code, or it has run out. Have another one mailed.'
		});
	return {
		lastDigits: card.lastDigits,
		since: londonDate(card.consentAt),
		charged: chargedTo(world.db, customerId)
	};
}

/** What a repeat charges a card for, as it was agreed. */
function chargedTo(db: Reader, customerId: number): KeptCard['charged'] {
	return db
		.select({ name: repeats.name, rule: repeats.rule, state: repeats.state })
		.from(repeats)
		.where(
			and(
				eq(repeats.customerId, customerId),
				eq(repeats.action, 'charge'),
				ne(repeats.state, 'ended')
			)
		)
		.orderBy(repeats.id)
		.all()
		.map(({ name, rule, state }) => ({ name, rule: ruleWords(rule), paused: state !== 'active' }));
}

/** The customer takes its card back, with the code. @throws as `cardByCode` */
export async function revokeByCustomer(world: World, token: string, code: string): Promise<void> {
	const { id, customerId } = documentBy(world, token);
	const { lastDigits: detail } = cardByCode(world, token, code);
	note(world.db, {
		documentId: id,
		at: world.clock.now(),
		who: 'customer',
		what: 'cardRevoked',
		detail
	});
	world.db.delete(cardCodes).where(eq(cardCodes.customerId, customerId)).run();
	await revokeCard(world, customerId, 'customer');
}
