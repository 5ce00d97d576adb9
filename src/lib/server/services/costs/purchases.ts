// What was bought: bills, suppliers’ credits and mileage, each with its receipt, its VAT, and the job it was for.
import { must } from '../../actor';
import { and, eq, isNull, ne, or, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { formatMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import { sellerOn } from '../../../core/parties';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { jobCosts, purchases, suppliers } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { sellerRecord } from '../business/settings';
import { removeCost, saveCost } from '../jobs/costs';
import { supplierNamed } from './suppliers';
import {
	amountsOf,
	milesBefore,
	ownCost,
	type Purchase,
	purchaseFields,
	type Values
} from './amounts';

/** What looks like the same bill: the same number of the same supplier, or the same sum on the same day. */
function lookAlike(
	tx: Transaction,
	id: number | null,
	supplierId: number | null,
	values: Values,
	{ net, vat }: { net: number; vat: number }
): Purchase | undefined {
	if (values.kind === 'mileage') return undefined;
	return tx
		.select()
		.from(purchases)
		.where(
			and(
				isNull(purchases.removedAt),
				eq(purchases.kind, values.kind),
				id === null ? undefined : ne(purchases.id, id),
				supplierId === null ? isNull(purchases.supplierId) : eq(purchases.supplierId, supplierId),
				or(
					values.number === '' ? undefined : eq(purchases.number, values.number),
					and(
						eq(purchases.date, values.date),
						sql`${purchases.net} + ${purchases.vat} = ${net + vat}`
					)
				)
			)
		)
		.get();
}

/**
 * Keeps a cost, new or changed, and with it what it is on its job.
 * @returns its number; the same key again gives the same one
 * @throws FieldError, NotFoundError, ConflictError; RefusedError where what is billed would change
 */
export function savePurchase(
	world: World,
	key: string,
	id: number | null,
	version: number,
	typed: unknown
): number {
	must('work');
	const values = parseForm(purchaseFields, typed);
	const today = world.clock.today();
	if (values.date > today) throw new FieldError({ date: 'That day has not come yet.' });
	return writeAtOnce(world.db, (tx) => {
		const same = id === null && tx.select().from(purchases).where(eq(purchases.key, key)).get();
		if (same) return same.id;
		const old = id === null ? null : loadPurchase(tx, id);
		if (old && old.version !== version) throw new ConflictError();
		const amounts = amountsOf(values, milesBefore(tx, values.date, id));
		const { vatRegistered } = sellerOn(sellerRecord(tx), values.date);
		if (values.reclaim && !vatRegistered)
			throw new FieldError({ reclaim: 'You were not registered for VAT on that day.' });
		if (values.jobId !== null && values.privateShare !== '' && Number(values.privateShare) > 0)
			throw new FieldError({ privateShare: 'What was bought for a job has no private share.' });
		const supplier = supplierNamed(tx, values.supplier);
		const twin = values.another
			? undefined
			: lookAlike(tx, id, supplier?.id ?? null, values, amounts);
		if (twin)
			throw new FieldError({
				another: `${twin.number ? `Their ${twin.number}` : 'The same sum'} of ${displayDate(twin.date)}, ${displayPounds(Math.abs(twin.net + twin.vat))}, is here already. Tick this if it is another one.`
			});
		const row = {
			kind: values.kind,
			supplierId: supplier?.id ?? null,
			number: values.number,
			description: values.description,
			date: values.date,
			paidOn: values.kind === 'mileage' ? values.date : values.paidOn || null,
			...amounts,
			reclaim: values.reclaim && amounts.vat !== 0,
			privateShare: values.privateShare,
			category: values.category,
			centre: values.centre,
			miles: values.kind === 'mileage' ? values.miles : '',
			jobId: values.jobId,
			updatedAt: world.clock.now()
		};
		if (supplier && supplier.category === null)
			tx.update(suppliers)
				.set({ category: values.category })
				.where(eq(suppliers.id, supplier.id))
				.run();
		const saved = old
			? tx
					.update(purchases)
					.set({ ...row, version: version + 1 })
					.where(eq(purchases.id, old.id))
					.returning()
					.get()
			: tx
					.insert(purchases)
					.values({ ...row, key, createdAt: world.clock.now() })
					.returning()
					.get();
		putOnJob(world, tx, saved, old?.jobId ?? null, values);
		return saved.id;
	});
}

/** What it is on its job follows it: there, moved, or taken off. */
function putOnJob(
	world: World,
	tx: Transaction,
	row: Purchase,
	jobBefore: number | null,
	{ chargeable, markUp }: Pick<Values, 'chargeable' | 'markUp'>
): void {
	let { costId } = row;
	if (costId !== null && jobBefore !== null && jobBefore !== row.jobId) {
		removeCost(world, jobBefore, costId);
		costId = null;
	}
	if (row.jobId !== null && row.removedAt === null)
		costId = saveCost(world, row.jobId, `purchase:${row.id}:${row.version}`, costId, {
			date: row.date,
			kind:
				row.kind === 'mileage'
					? 'other'
					: row.category === 'subcontractors'
						? 'labour'
						: 'materials',
			description: row.description,
			quantity: row.net < 0 ? '-1' : '1',
			unit: '',
			unitCost: formatMoney(BigInt(Math.abs(ownCost(row)))),
			markUp: chargeable ? markUp : '',
			unitPrice: '',
			vat: 'standard',
			vatReason: '',
			chargeable
		});
	if (costId !== row.costId)
		tx.update(purchases).set({ costId }).where(eq(purchases.id, row.id)).run();
}

/** @throws NotFoundError */
export function loadPurchase(db: Reader, id: number): Purchase {
	const row = db.select().from(purchases).where(eq(purchases.id, id)).get();
	if (!row) throw new NotFoundError('This cost');
	return row;
}

/** A cost as it is changed: what was typed, and how it is charged on. @throws NotFoundError */
export function purchaseForm(db: Reader, id: number) {
	const row = loadPurchase(db, id);
	const supplier =
		row.supplierId === null
			? undefined
			: db.select().from(suppliers).where(eq(suppliers.id, row.supplierId)).get();
	const onJob =
		row.costId === null
			? undefined
			: db.select().from(jobCosts).where(eq(jobCosts.id, row.costId)).get();
	return {
		id: row.id,
		version: row.version,
		removed: row.removedAt !== null,
		kind: row.kind,
		supplier: supplier?.name ?? '',
		number: row.number,
		description: row.description,
		date: row.date,
		paidOn: row.paidOn ?? '',
		gross: row.kind === 'mileage' ? '' : formatMoney(BigInt(Math.abs(row.net + row.vat))),
		vat: row.vat === 0 ? '' : formatMoney(BigInt(Math.abs(row.vat))),
		reclaim: row.reclaim,
		privateShare: row.privateShare,
		category: row.category,
		centre: row.centre,
		miles: row.miles,
		jobId: row.jobId,
		chargeable: onJob?.chargeable ?? false,
		markUp: onJob?.markUp ?? '',
		/** What it came to, where that is worked out. Pence. */
		net: row.net
	};
}

/** Taken away it counts nowhere; brought back it counts again. @throws NotFoundError, RefusedError where it is billed */
export function removePurchase(world: World, id: number, removed: boolean): void {
	must('work');
	writeAtOnce(world.db, (tx) => {
		const row = loadPurchase(tx, id);
		if ((row.removedAt !== null) === removed) return;
		const onJob =
			row.costId === null
				? undefined
				: tx.select().from(jobCosts).where(eq(jobCosts.id, row.costId)).get();
		if (removed && row.jobId !== null && row.costId !== null)
			removeCost(world, row.jobId, row.costId);
		const now = tx
			.update(purchases)
			.set({
				removedAt: removed ? world.clock.now() : null,
				version: row.version + 1,
				...(removed ? { costId: null } : {})
			})
			.where(eq(purchases.id, id))
			.returning()
			.get();
		// Back on its job, as not charged on: the owner looks at that again.
		if (!removed)
			putOnJob(world, tx, now, now.jobId, { chargeable: onJob?.chargeable ?? false, markUp: '' });
	});
}

/** Says on which day a bill was paid. @throws NotFoundError */
export function markPaid(world: World, id: number, paidOn: string): void {
	must('work');
	const { changes } = world.db
		.update(purchases)
		.set({ paidOn, updatedAt: world.clock.now(), version: sql`${purchases.version} + 1` })
		.where(and(eq(purchases.id, id), isNull(purchases.removedAt)))
		.run();
	if (!changes) throw new NotFoundError('This cost');
}
