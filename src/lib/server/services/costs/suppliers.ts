// Who things are bought from.
import { must } from '../../actor';
import { asc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { COST_CATEGORIES } from '../../../core/costs/types';
import { isVatNumber } from '../../../core/regimes/gb/checks';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { suppliers } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, required, text } from '../business/fields';

export type Supplier = typeof suppliers.$inferSelect;

const form = z.object({
	name: required(200, 'A name is needed.'),
	vatNumber: text(20).refine((number) => number === '' || isVatNumber(number), {
		message: 'That is no VAT number: nine digits that fit together.'
	}),
	subcontractor: z.boolean().default(false),
	category: z.enum(COST_CATEGORIES).nullable().catch(null).default(null)
});

/** Those that can be chosen, by name. */
export const suppliersInUse = (db: Reader): Supplier[] =>
	db
		.select()
		.from(suppliers)
		.where(isNull(suppliers.archivedAt))
		.orderBy(asc(sql`lower(${suppliers.name})`))
		.all();

export const listSuppliers = (db: Reader) =>
	db.all<Supplier & { bills: number; spent: number }>(sql`
		select s.id, s.name, s.vat_number as vatNumber, s.subcontractor, s.category, s.archived_at as archivedAt,
			count(p.id) as bills, coalesce(sum(p.net + p.vat), 0) as spent
		from suppliers s left join purchases p on p.supplier_id = s.id and p.removed_at is null
		group by s.id order by s.archived_at is not null, lower(s.name)`);

const byName = (db: Reader, name: string) =>
	db
		.select()
		.from(suppliers)
		.where(sql`lower(${suppliers.name}) = lower(${name.trim()})`)
		.get();

/** The supplier of this name, new where there is none; null for no name. An archived one comes back. */
export function supplierNamed(tx: Transaction, name: string): Supplier | null {
	if (name.trim() === '') return null;
	const known = byName(tx, name);
	if (known?.archivedAt != null)
		tx.update(suppliers).set({ archivedAt: null }).where(eq(suppliers.id, known.id)).run();
	return known ?? tx.insert(suppliers).values({ name: name.trim() }).returning().get();
}

/** @throws FieldError, NotFoundError */
export function saveSupplier(world: World, id: number, typed: unknown): void {
	must('work');
	const values = parseForm(form, typed);
	writeAtOnce(world.db, (tx) => {
		const same = byName(tx, values.name);
		if (same && same.id !== id) throw new FieldError({ name: 'There is one of this name.' });
		const { changes } = tx.update(suppliers).set(values).where(eq(suppliers.id, id)).run();
		if (!changes) throw new NotFoundError('This supplier');
	});
}

/** Bought from before, it keeps its bills; it is offered no more, or again. @throws NotFoundError */
export function archiveSupplier(world: World, id: number, archived: boolean): void {
	must('work');
	const { changes } = world.db
		.update(suppliers)
		.set({ archivedAt: archived ? world.clock.now() : null })
		.where(eq(suppliers.id, id))
		.run();
	if (!changes) throw new NotFoundError('This supplier');
}
