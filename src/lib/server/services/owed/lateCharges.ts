// What could be claimed today for late payment under the Act, invoice by invoice; and the rates it rests on.
import { asc, eq, inArray, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { addDays } from '../../../core/calendar/manipulation';
import { isPlainDate } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import type { LateClaim } from '../../../core/documents/detail';
import { FiguresError } from '../../../core/figures/types';
import { formatMoney, parseDecimal } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import { halfYearOf, writeRate, type ReferenceRate } from '../../../core/regimes/gb/latePayment';
import {
	agreedLateness,
	lateness,
	type AgreedTerms,
	type Lateness
} from '../../../core/settlement/lateness';
import { settle } from '../../../core/settlement/settle';
import { blankLine, blankSheet } from '../../../core/sheet/blank';
import type { Sheet, SheetRow } from '../../../core/sheet/types';
import { writeAtOnce, type Database, type Transaction } from '../../db/connection';
import { customers, documents, lateTerms, openItems, referenceRates } from '../../db/schema';
import type { World } from '../../world';
import { computeDraft, insertDraft } from '../invoices/drafts';
import { FieldError, RefusedError } from '../../../core/refusals';
import { readAmount } from '../money/payments';
import { settlementEntries } from '../ledger/settlement';
import { note } from '../trail/documents';

type Reader = Database | Transaction;

export function loadRates(db: Reader): ReferenceRate[] {
	return db
		.select()
		.from(referenceRates)
		.orderBy(asc(referenceRates.from))
		.all()
		.map(({ from, rate }) => ({ from, rate: parseDecimal(rate)! }));
}

/** Sets the rate of a half year. @throws FieldError */
export function saveRate(world: World, from: string, typed: string): void {
	const problems: Record<string, string> = {};
	if (!isPlainDate(from) || halfYearOf(from) !== from)
		problems.from = 'A half year begins on 1 January or 1 July.';
	const rate = parseDecimal(typed.trim().replace(/\s*%$/, ''));
	if (!rate || rate.units < 0n || rate.scale > 4 || rate.units > 100n * 10n ** BigInt(rate.scale))
		problems.rate = 'Give the rate in percent, such as 3.75.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const text = typed.trim().replace(/\s*%$/, '');
	world.db
		.insert(referenceRates)
		.values({ from, rate: text })
		.onConflictDoUpdate({ target: referenceRates.from, set: { rate: text } })
		.run();
}

/** The half year whose rate is missing today; null where it is there. */
export function missingRate(world: World): PlainDate | null {
	const from = halfYearOf(world.clock.today());
	return loadRates(world.db).some((rate) => rate.from === from) ? null : from;
}

/** Money, what was withheld from it, and credits, each on its day: what the Act counts as paid. */
export function paidTowards(
	db: Reader,
	documentId: number,
	total: number,
	deduction: number | null
): { date: PlainDate; amount: bigint }[] {
	const entries = settlementEntries(db, documentId);
	const settled = settle({
		total: BigInt(total),
		deduction: deduction === null ? null : BigInt(deduction),
		entries
	});
	return entries
		.map(({ date, type, amount }, index) => ({
			date,
			amount:
				type === 'payment' || type === 'credit'
					? amount + settled.entries[index]!.withheld
					: type === 'refund'
						? -amount
						: 0n
		}))
		.filter(({ amount }) => amount !== 0n);
}

export type Claim = Lateness | { missingRate: string };

/** Claims of late invoices to businesses as of a day. Invoices that are not late, and households', are left out. */
export function lateClaims(
	world: World,
	documentIds: readonly number[],
	asOf = world.clock.today()
): Map<number, Claim> {
	const claims = new Map<number, Claim>();
	if (documentIds.length === 0) return claims;
	const rates = loadRates(world.db);
	const agreed = allLateTerms(world.db);
	const rows = world.db
		.select({
			item: openItems,
			deduction: documents.deduction,
			kind: customers.kind,
			key: documents.key
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.innerJoin(customers, eq(customers.id, openItems.customerId))
		.where(inArray(openItems.documentId, [...documentIds]))
		.all();
	for (const { item, deduction, kind, key } of rows) {
		const terms = agreed.get(item.customerId);
		// A charge for lateness is no price of goods or services (s.2): it bears no interest itself.
		if (key.startsWith('late:') || item.dueDate >= asOf || item.state === 'writtenOff') continue;
		if (terms) {
			const payments = paidTowards(world.db, item.documentId, item.total, deduction);
			const debt = { total: BigInt(item.total), due: item.dueDate, asOf, payments };
			claims.set(item.documentId, agreedLateness(debt, terms));
			continue;
		}
		if (kind === 'household') continue;
		try {
			claims.set(
				item.documentId,
				lateness({
					total: BigInt(item.total),
					due: item.dueDate,
					asOf,
					business: true,
					payments: paidTowards(world.db, item.documentId, item.total, deduction),
					referenceRates: rates
				})
			);
		} catch (error) {
			if (!(error instanceof FiguresError)) throw error;
			claims.set(item.documentId, { missingRate: halfYearOf(addDays(item.dueDate, 1)) });
		}
	}
	return claims;
}

/** What a late invoice's page says about the Act, ready to show. Amounts in pence. */
export function lateClaimOf(world: World, documentId: number): LateClaim | null {
	const claim = lateClaims(world, [documentId]).get(documentId);
	if (!claim) return null;
	if ('missingRate' in claim) return { missingRate: claim.missingRate };
	const { reference, spans } = claim.workings;
	const item = world.db.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
	const terms = lateTermsOf(world.db, item.customerId);
	return {
		daysLate: claim.daysLate,
		rate: claim.rate ? writeRate(claim.rate) : '0',
		reference: reference && { from: reference.from, rate: writeRate(reference.rate) },
		terms: terms?.terms ?? null,
		interest: Number(claim.interest),
		compensation: Number(claim.compensation),
		openWhenDue: Number(claim.workings.openWhenDue),
		spans: spans.map(({ outstanding, ...span }) => ({ ...span, outstanding: Number(outstanding) })),
		charged: chargedFor(world.db, documentId)
	};
}

/** What documents that stand, drafts among them, charge for the lateness of an invoice already. Pence. */
function chargedFor(db: Reader, documentId: number): number {
	return db.get<{ sum: number }>(sql`
		select coalesce(sum(d.total - coalesce((
			select sum(c.total) from documents c where c.corrects_id = d.id and c.state = 'issued'), 0)), 0) as sum
		from documents d where d.key like ${`late:${documentId}:%`} and d.state <> 'discarded'`)!.sum;
}

export interface LateTerms extends AgreedTerms {
	/** The words of the contract. */
	terms: string;
}

function allLateTerms(db: Reader): Map<number, LateTerms> {
	return new Map(
		db
			.select()
			.from(lateTerms)
			.all()
			.map((row) => [row.customerId, termsFrom(row)])
	);
}

const termsFrom = (row: typeof lateTerms.$inferSelect): LateTerms => ({
	fee: BigInt(row.fee),
	rate: row.rate === null ? null : parseDecimal(row.rate),
	afterDays: row.afterDays,
	terms: row.terms
});

/** What a customer agreed to for late payment; null: the Act for businesses, nothing for households. */
export function lateTermsOf(db: Reader, customerId: number): LateTerms | null {
	const row = db.select().from(lateTerms).where(eq(lateTerms.customerId, customerId)).get();
	return row ? termsFrom(row) : null;
}

/** Keeps the contract's own terms for late payment; without words they are taken away. @throws FieldError, NotFoundError */
export function saveLateTerms(
	world: World,
	customerId: number,
	form: { fee: string; rate: string; afterDays: string; terms: string }
): void {
	const terms = form.terms.trim();
	if (terms === '') {
		if (form.fee.trim() || form.rate.trim())
			throw new FieldError({ terms: 'Give the words of the contract, as they go on documents.' });
		world.db.delete(lateTerms).where(eq(lateTerms.customerId, customerId)).run();
		return;
	}
	const problems: Record<string, string> = {};
	const fee = form.fee.trim() === '' ? 0 : readAmount(form.fee, 'fee', 'the fee', problems);
	const rateText = form.rate.trim().replace(/\s*%$/, '');
	const rate = rateText === '' ? null : parseDecimal(rateText);
	if (rateText !== '' && (!rate || rate.units < 0n || Number(rateText) > 100 || rate.scale > 4))
		problems.rate = 'Give the interest in percent a year, such as 8.';
	const afterDays = Number(form.afterDays.trim() || '0');
	if (!Number.isInteger(afterDays) || afterDays < 0 || afterDays > 365)
		problems.afterDays = 'Whole days, up to 365.';
	if (terms.length > 300) problems.terms = 'At most 300 characters.';
	if (fee === 0 && !rate) problems.fee ??= 'Give a fee, or interest, or both.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const values = {
		fee,
		rate: rate ? rateText : null,
		afterDays,
		terms,
		recordedAt: world.clock.now()
	};
	world.db
		.insert(lateTerms)
		.values({ customerId, ...values })
		.onConflictDoUpdate({ target: lateTerms.customerId, set: values })
		.run();
}

const ACT = 'Late Payment of Commercial Debts (Interest) Act 1998';

/**
 * A draft that charges what the Act allows and no document charges yet. It is a document of its own, without VAT; the
 * invoice stays as it was. The same key again gives the same draft.
 * @throws RefusedError where there is nothing (more) to claim
 */
export function chargeLate(world: World, documentId: number, key: string): number {
	const claim = lateClaimOf(world, documentId);
	if (!claim || 'missingRate' in claim)
		throw new RefusedError(
			claim
				? `The reference rate for the half year from ${displayDate(claim.missingRate)} is missing.`
				: 'This invoice is not late, or its customer agreed to no charge for that.'
		);
	const invoice = world.db.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const today = world.clock.today();
	const { interest, compensation, charged, daysLate, rate, terms } = claim;
	const ground = terms ? `as agreed: ${terms}` : ACT;
	const name = `late:${documentId}:${key}`;
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: documents.id })
			.from(documents)
			.where(eq(documents.key, name))
			.get();
		if (same) return same.id;
		const left = interest + compensation - charged;
		if (left <= 0) throw new RefusedError('All that can be claimed today is charged already.');
		const row = (id: string, description: string, pence: number): SheetRow => ({
			...blankLine(id),
			kind: 'other',
			description,
			quantity: '1',
			unitPrice: formatMoney(BigInt(pence)),
			vat: 'noSupply',
			vatReason: 'noSupply'
		});
		const upTo = `to ${displayDate(today)}`;
		const rows =
			charged === 0
				? [
						row(
							'interest',
							`Interest on ${invoice.number}: ${daysLate} days late ${upTo}, at ${rate} % a year (${ground})`,
							interest
						),
						row(
							'sum',
							terms
								? `Fee for late payment of ${invoice.number} (${ground})`
								: `Fixed sum for late payment of ${invoice.number} (s.5A of the Act)`,
							compensation
						)
					]
				: [row('more', `Further interest on ${invoice.number} ${upTo} (${ground})`, left)];
		const sheet: Sheet = {
			...blankSheet(),
			customerId: invoice.customerId,
			...(invoice.frozen?.sheet.billToId ? { billToId: invoice.frozen.sheet.billToId } : {}),
			contract: invoice.frozen?.customer.kind === 'contractor' ? 'none' : null,
			reference: invoice.number ?? '',
			rows: rows.filter((one) => one.type !== 'line' || one.unitPrice !== '0.00')
		};
		const id = insertDraft(tx, name, sheet, world.clock.now());
		computeDraft(tx, id, sheet, today);
		note(tx, {
			documentId,
			at: world.clock.now(),
			who: 'you',
			what: 'claimed',
			detail: displayPounds(left)
		});
		return id;
	});
}
