// VAT of bad debts: listed with its conditions, marked as claimed, repaid when the customer pays after all.
import { must } from '../../actor';
import { and, eq, or, sql } from 'drizzle-orm';
import { badDebtRelief, type Relief } from '../../../core/regimes/gb/badDebt';
import { isDueByTaxPoint } from '../../../core/regimes/gb/vatReturn';
import { writeAtOnce, type Reader } from '../../db/connection';
import { post } from '../../db/journal';
import { documents, openItems, reliefClaims } from '../../db/schema';
import type { World } from '../../world';
import { vatWays } from '../business/settings';
import { NotFoundError, RefusedError } from '../../../core/refusals';

export interface BadDebtRow extends Omit<Relief, 'vat' | 'lost'> {
	documentId: number;
	number: string;
	customer: string;
	/** Pence. */
	writtenOff: number;
	vat: number;
	claimed: number;
}

/** Debts given up, or claimed for, whose VAT is or was worth something; those that ask for something first. */
export function badDebts(world: World, db: Reader = world.db, documentId?: number): BadDebtRow[] {
	const claimed = sql<number>`(select coalesce(sum(${reliefClaims.vat}), 0) from ${reliefClaims} where ${reliefClaims.documentId} = ${documents.id})`;
	const credited = (column: 'total_sterling' | 'vat_charged_sterling') =>
		sql.raw(
			`(select coalesce(sum(c.${column}), 0) from documents c where c.corrects_id = documents.id and c.state = 'issued')`
		);
	const ways = vatWays(db);
	const order = ['repay', 'claimable', 'waiting', 'claimed', 'expired'];
	return db
		.select({
			documentId: documents.id,
			number: documents.number,
			customer: documents.customerName,
			taxPoint: documents.taxPoint,
			dueDate: openItems.dueDate,
			issued: openItems.issueDate,
			workFinished: sql<string>`json_extract(${documents.frozen}, '$.workFinished')`,
			returned: sql<number>`coalesce(json_extract(${documents.frozen}, '$.sheet.opening.returned'), 0)`,
			// What was credited is owed no more, nor is its VAT.
			total: sql<number>`${documents.totalSterling} - ${credited('total_sterling')}`,
			vatCharged: sql<number>`${documents.vatChargedSterling} - ${credited('vat_charged_sterling')}`,
			/** In pence, at the document's rate. */
			writtenOff: sql<number>`case when ${openItems.currency} = 'GBP' then ${openItems.writtenOff}
				else (2 * ${openItems.writtenOff} * ${openItems.totalSterling} + ${openItems.total}) / (2 * ${openItems.total}) end`,
			claimed
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(
			and(
				or(sql`${openItems.writtenOff} > 0`, sql`${claimed} <> 0`),
				documentId === undefined ? sql`1` : eq(documents.id, documentId)
			)
		)
		.all()
		.filter(
			(row) =>
				// On the cash basis VAT that was not paid was never due: there is nothing to claim back.
				row.claimed !== 0 ||
				isDueByTaxPoint(
					{
						taxPoint: row.taxPoint!,
						issued: row.issued,
						due: row.dueDate,
						inAdvance: row.issued < row.workFinished,
						returned: row.returned === 1
					},
					ways
				)
		)
		.map((row): BadDebtRow => {
			const relief = badDebtRelief(
				{
					taxPoint: row.taxPoint!,
					dueDate: row.dueDate,
					total: BigInt(row.total),
					vatCharged: BigInt(row.vatCharged),
					writtenOff: BigInt(row.writtenOff),
					claimed: BigInt(row.claimed)
				},
				world.clock.today()
			);
			const { from, until, state } = relief;
			return {
				documentId: row.documentId,
				number: row.number!,
				customer: row.customer,
				writtenOff: row.writtenOff,
				claimed: row.claimed,
				from,
				until,
				state,
				vat: Number(relief.vat)
			};
		})
		.filter((row) => row.state !== 'none')
		.sort((a, b) => order.indexOf(a.state) - order.indexOf(b.state) || b.vat - a.vat);
}

/**
 * Notes that the VAT is claimed back (box 4), or repaid, and posts it. The same key again changes nothing.
 * @throws RefusedError where the conditions are not met
 */
export function settleRelief(world: World, documentId: number, key: string): void {
	must('owner');
	writeAtOnce(world.db, (tx) => {
		if (tx.select().from(reliefClaims).where(eq(reliefClaims.key, key)).get()) return;
		const row = badDebts(world, tx, documentId)[0];
		if (!row) throw new NotFoundError('This debt');
		if (row.state !== 'claimable' && row.state !== 'repay')
			throw new RefusedError('Nothing can be claimed or repaid for it today.');
		const vat = row.state === 'repay' ? -row.vat : row.vat;
		const date = world.clock.today();
		const at = world.clock.now();
		tx.insert(reliefClaims).values({ key, documentId, date, vat, recordedAt: at }).run();
		const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
		post(tx, {
			key: `relief:${key}`,
			event: 'relief',
			date,
			documentId,
			customerId: item.customerId,
			recordedAt: at,
			postings: [
				{ account: 'vatRelief', amount: vat },
				{ account: 'badDebts', amount: -vat }
			]
		});
	});
}
