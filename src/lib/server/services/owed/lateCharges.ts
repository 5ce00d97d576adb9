// What could be claimed today for late payment under the Act, invoice by invoice; and the rates it rests on.
import { must } from '../../actor';
import type { Minor } from '../../../core/money/types';
import { eq, inArray, sql } from 'drizzle-orm';
import { displayDate, londonDate } from '../../../core/calendar/conversion';
import { addDays } from '../../../core/calendar/manipulation';
import type { PlainDate } from '../../../core/calendar/types';
import type { LateCharge } from '../../../core/documents/detail';
import { BOOKS } from '../../../core/money/currencies';
import { FiguresError } from '../../../core/figures/types';
import { formatMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import { halfYearOf, LATE_PAYMENT_ACT, writeRate } from '../../../core/regimes/gb/latePayment';
import {
	agreedLateness,
	dueForLateness,
	lateness,
	type Lateness
} from '../../../core/settlement/lateness';
import { blankLine, blankSheet } from '../../../core/sheet/blank';
import type { Sheet, SheetRow } from '../../../core/sheet/types';
import { writeAtOnce, type Reader } from '../../db/connection';
import { customers, documents, openItems } from '../../db/schema';
import type { World } from '../../world';
import { draftOnce, type NewDraft } from '../invoices/drafts';
import { RefusedError } from '../../../core/refusals';
import { breathingOf, refuseBreathing } from '../ledger/breathing';
import { openItemOf } from '../ledger/openInvoices';
import { settledBy, settleDocument } from '../ledger/settlement';
import type { SettlementEntry } from '../../../core/settlement/types';
import { note } from '../trail/documents';
import { loadRates } from './referenceRates';
import { allLateTerms, lateTermsOf } from './lateTerms';

/** Money and what was withheld from it, each on its day: what counts as paid. */
function paidTowards(
	entries: readonly SettlementEntry[],
	document: { total: number; deduction: number | null }
): { date: PlainDate; amount: bigint }[] {
	const settled = settleDocument(document, [...entries]);
	return entries.flatMap(({ date, type, amount }, index) => {
		const moved = amount + settled.entries[index]!.withheld;
		if (type === 'payment') return [{ date, amount: moved }];
		return type === 'refund' ? [{ date, amount: -moved }] : [];
	});
}

/** What was credited was never owed: no interest was ever due on it. */
const creditedOf = (entries: readonly SettlementEntry[]): bigint =>
	entries.reduce((sum, one) => (one.type === 'credit' ? sum + one.amount : sum), 0n);

export type Claim = Lateness | { missingRate: string };

/** Claims of late invoices to businesses as of a day. Invoices that are not late, and households', are left out. */
export function lateCharges(
	db: Reader,
	documentIds: readonly number[],
	asOf: PlainDate
): Map<number, Claim> {
	const claims = new Map<number, Claim>();
	if (documentIds.length === 0) return claims;
	const rates = loadRates(db);
	const agreed = allLateTerms(db);
	const paid = settledBy(db, documentIds);
	const spaces = breathingOf(db);
	const rows = db
		.select({
			item: openItems,
			total: documents.total,
			deduction: documents.deduction,
			kind: customers.kind,
			origin: documents.origin,
			workFinished: sql<string>`coalesce(json_extract(${documents.frozen}, '$.workFinished'), ${documents.issueDate})`,
			issuedAt: sql<number>`coalesce(${documents.issuedAt}, 0)`
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.innerJoin(customers, eq(customers.id, openItems.customerId))
		.where(inArray(openItems.documentId, [...documentIds]))
		.all();
	for (const { item, total, deduction, kind, origin, workFinished, issuedAt } of rows) {
		// The Act's sums are in pounds, and what was agreed is too: in other money nothing is worked out.
		if (item.currency !== BOOKS) continue;
		const terms = agreed.get(item.customerId);
		const due = dueForLateness({ ...item, workFinished, issuedOn: londonDate(issuedAt) });
		// A charge for lateness is no price of goods or services (s.2): it bears no interest itself.
		if (origin === 'lateCharge' || due >= asOf || item.state === 'writtenOff') continue;
		if (!terms && kind === 'household') continue;
		const entries = paid.get(item.documentId)!;
		const owed = BigInt(total) - creditedOf(entries);
		if (owed <= 0n) continue;
		const payments = paidTowards(entries, { total, deduction });
		const pauses = [item.payerId, item.customerId].flatMap((id) => spaces.get(id) ?? []);
		const debt = { total: owed, due, asOf, payments, pauses };
		if (terms) {
			claims.set(item.documentId, agreedLateness(debt, terms));
			continue;
		}
		try {
			claims.set(item.documentId, lateness({ ...debt, business: true, referenceRates: rates }));
		} catch (error) {
			if (!(error instanceof FiguresError)) throw error;
			claims.set(item.documentId, { missingRate: halfYearOf(addDays(due, 1)) });
		}
	}
	return claims;
}

/** What a late invoice's page says about the Act, ready to show. */
export function lateChargeOf(world: World, documentId: number): LateCharge | null {
	const claim = lateCharges(world.db, [documentId], world.clock.today()).get(documentId);
	if (!claim) return null;
	if ('missingRate' in claim) return { missingRate: claim.missingRate };
	const item = world.db.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
	const charged = chargedFor(world.db, [documentId]).get(documentId) ?? 0n;
	// Paid in time, there is nothing to claim, and nothing to say.
	if (item.outstanding === 0 && claim.interest + claim.compensation + charged === 0n) return null;
	const { reference, spans } = claim.workings;
	const terms = lateTermsOf(world.db, item.customerId);
	return {
		daysLate: claim.daysLate,
		rate: claim.rate ? writeRate(claim.rate) : '0',
		reference: reference && { from: reference.from, rate: writeRate(reference.rate) },
		terms: terms?.terms ?? null,
		interest: claim.interest,
		compensation: claim.compensation,
		openWhenDue: claim.workings.openWhenDue,
		spans: [...spans],
		charged
	};
}

/** What documents that stand, drafts among them, charge for the lateness of invoices already. */
export function chargedFor(
	db: Reader,
	documentIds: readonly number[],
	issuedOnly = false
): Map<number, Minor> {
	if (documentIds.length === 0) return new Map();
	const rows = db.all<{ id: number; sum: number }>(sql`
		select d.about_id as id, sum(d.total - coalesce((
			select sum(c.total) from documents c where c.corrects_id = d.id and c.state = 'issued'), 0)) as sum
		from documents d where d.origin = 'lateCharge' and d.about_id in (${sql.join(
			documentIds.map((id) => sql`${id}`),
			sql`, `
		)}) and ${issuedOnly ? sql`d.state = 'issued'` : sql`d.state <> 'discarded'`} group by d.about_id`);
	return new Map(rows.map(({ id, sum }) => [id, BigInt(sum)]));
}

/**
 * A draft that charges what the Act allows and no document charges yet. It is a document of its own, without VAT; the
 * invoice stays as it was. The same key again gives the same draft.
 * @throws RefusedError where there is nothing (more) to claim
 */
export function chargeLate(world: World, documentId: number, key: string): number {
	must('bill');
	const debtor = openItemOf(world.db, documentId)?.payerId;
	if (debtor !== undefined) refuseBreathing(world.db, debtor, world.clock.today());
	const claim = lateChargeOf(world, documentId);
	if (!claim || 'missingRate' in claim)
		throw new RefusedError(
			claim
				? `The reference rate for the half year from ${displayDate(claim.missingRate)} is missing.`
				: 'This invoice is not late, or its customer agreed to no charge for that.'
		);
	const invoice = world.db.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const today = world.clock.today();
	const { interest, compensation, charged, daysLate, rate, terms } = claim;
	const ground = terms ? `as agreed: ${terms}` : LATE_PAYMENT_ACT;
	const name = `late:${documentId}:${key}`;
	const left = interest + compensation - charged;
	const make = (): NewDraft => {
		if (left <= 0n) throw new RefusedError('All that can be claimed today is charged already.');
		const row = (id: string, description: string, minor: Minor): SheetRow => ({
			...blankLine(id),
			kind: 'other',
			description,
			quantity: '1',
			unitPrice: formatMoney(minor),
			vat: 'noSupply',
			vatReason: 'noSupply'
		});
		const upTo = `to ${displayDate(today)}`;
		const rows =
			charged === 0n
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
			charge: 'late',
			rows: rows.filter((one) => one.type !== 'line' || one.unitPrice !== '0.00')
		};
		return { sheet, origin: 'lateCharge', aboutId: documentId };
	};
	return writeAtOnce(world.db, (tx) =>
		draftOnce(tx, world, name, make, () =>
			note(tx, {
				documentId,
				at: world.clock.now(),
				who: 'you',
				what: 'claimed',
				detail: displayPounds(left)
			})
		)
	);
}
