// The price list: entries and kits, saved, found, raised, put aside.
import { must } from '../../actor';
import { and, asc, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { LINE_KINDS } from '../../../core/figures/types';
import { VAT_TREATMENTS } from '../../../core/regimes/types';
import { reasonById } from '../../../core/regimes/gb/reasons';
import { writeAtOnce, type Database, type Transaction } from '../../db/connection';
import { kitParts, priceItems, pricePictures } from '../../db/schema';
import type { World } from '../../world';
import { toBin, type KeptEntry } from '../business/bin';
import { parseForm } from '../business/fields';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { required, text, typedNumber } from '../business/fields';

export const priceForm = z.object({
	name: required(200, 'A name is needed.'),
	code: text(40),
	text: text(2000),
	kind: z.enum(LINE_KINDS, 'Choose a kind.').default('labour'),
	unit: text(30),
	unitPrice: typedNumber('a price', { decimals: 4 }),
	withVat: z.boolean().default(false),
	cost: typedNumber('what it costs you', { decimals: 4 }),
	vat: z.enum(VAT_TREATMENTS).default('standard'),
	vatReason: text(60),
	category: text(80),
	income: text(60),
	kit: z.enum(['line', 'parts']).nullable().default(null),
	parts: z
		.array(
			z.object({
				itemId: z.number().int().positive(),
				quantity: typedNumber('a quantity', { decimals: 4 }, true)
			})
		)
		.max(200, 'At most 200 parts.')
		.default([])
});
export type PriceForm = z.input<typeof priceForm>;
export type PriceValues = z.output<typeof priceForm>;

/** Saves a new entry, or one that exists. @throws FieldError, ConflictError, NotFoundError */
export function savePriceItem(
	world: World,
	id: number | null,
	version: number,
	input: unknown
): number {
	must('work');
	const form = parseForm(priceForm, input);
	checkRate(form);
	return writeAtOnce(world.db, (tx) => {
		refuseSameCode(tx, form.code, id);
		if (form.kit !== null) checkKit(tx, id, form);
		return writeItem(tx, id, version, form, world.clock.now());
	});
}

function checkRate(form: PriceValues): void {
	if (form.vat === 'standard') return;
	if (reasonById(form.vatReason)?.treatment !== form.vat)
		throw new FieldError({ vat: 'A rate other than the standard one needs its reason.' });
}

function refuseSameCode(tx: Transaction, code: string, id: number | null): void {
	if (code === '') return;
	const other = tx
		.select({ id: priceItems.id, name: priceItems.name })
		.from(priceItems)
		.where(and(eq(priceItems.code, code), id === null ? undefined : ne(priceItems.id, id)))
		.get();
	if (other) throw new FieldError({ code: `“${other.name}” has this code already.` });
}

/** A kit is made of plain entries; shown as one line, its parts must share one rate. */
function checkKit(tx: Transaction, id: number | null, form: PriceValues): void {
	if (form.parts.length === 0) throw new FieldError({ parts: 'A kit has at least one part.' });
	const parts = tx
		.select()
		.from(priceItems)
		.where(
			inArray(
				priceItems.id,
				form.parts.map((part) => part.itemId)
			)
		)
		.all();
	for (const [index, part] of form.parts.entries()) {
		const item = parts.find((one) => one.id === part.itemId);
		if (!item) throw new FieldError({ [`parts.${index}`]: 'This entry is not here any more.' });
		if (item.kit !== null || item.id === id)
			throw new FieldError({ [`parts.${index}`]: 'A kit cannot hold a kit.' });
	}
	const rates = new Set(parts.map((part) => `${part.vat} ${part.vatReason}`));
	if (form.kit === 'line' && rates.size > 1)
		throw new FieldError({
			kit: 'Parts with different VAT rates cannot be one line. Show the parts.'
		});
}

/** Writes an entry with its search words; within the caller's transaction. */
export function writeItem(
	tx: Transaction,
	id: number | null,
	version: number,
	{ parts, ...form }: PriceValues,
	now: number
): number {
	let itemId = id;
	if (itemId === null) {
		itemId = tx
			.insert(priceItems)
			.values({ ...form, updatedAt: now })
			.returning({ id: priceItems.id })
			.get().id;
	} else {
		const row = tx
			.select({ version: priceItems.version })
			.from(priceItems)
			.where(eq(priceItems.id, itemId))
			.get();
		if (!row) throw new NotFoundError('This entry');
		if (row.version !== version)
			throw new ConflictError('This entry was changed in another tab. Load it again to see how.');
		tx.update(priceItems)
			.set({ ...form, version: version + 1, updatedAt: now })
			.where(eq(priceItems.id, itemId))
			.run();
		tx.delete(kitParts).where(eq(kitParts.kitId, itemId)).run();
	}
	for (const [position, part] of (form.kit === null ? [] : parts).entries())
		tx.insert(kitParts)
			.values({ kitId: itemId, position, ...part })
			.run();
	indexItem(tx, itemId, form);
	return itemId;
}

const wordsOf = (item: Pick<PriceValues, 'code' | 'name' | 'text' | 'category'>) =>
	[item.name, item.code, item.category, item.text.slice(0, 500)].join(' \n ');

/**
 * Adds plain entries one after the other, with statements prepared once: for the twenty thousand rows of a merchant's
 * file. By hand, because building each statement anew takes longer than running it. In the caller's transaction.
 */
export function entryAdder({ db }: World): (values: NewEntry, now: number) => void {
	const { $client: client } = db;
	const insert = client.prepare(
		`insert into price_items (code, name, text, kind, unit, unit_price, with_vat, cost, category, vat, vat_reason, updated_at)
		values (@code, @name, @text, @kind, @unit, @unitPrice, @withVat, @cost, @category, 'standard', '', @now)`
	);
	const index = client.prepare('insert into price_search (rowid, words) values (?, ?)');
	return (values, now) => {
		const { lastInsertRowid } = insert.run({ ...values, withVat: Number(values.withVat), now });
		index.run(lastInsertRowid, wordsOf(values));
	};
}

type NewEntry = Pick<
	PriceValues,
	'code' | 'name' | 'text' | 'kind' | 'unit' | 'unitPrice' | 'withVat' | 'cost' | 'category'
>;

function indexItem(
	tx: Transaction,
	id: number,
	item: Pick<PriceValues, 'code' | 'name' | 'text' | 'category'>
): void {
	const words = wordsOf(item);
	tx.run(sql`delete from price_search where rowid = ${id}`);
	tx.run(sql`insert into price_search (rowid, words) values (${id}, ${words})`);
}

export function priceItem(world: World, id: number) {
	const row = world.db.select().from(priceItems).where(eq(priceItems.id, id)).get();
	if (!row) throw new NotFoundError('This entry');
	const parts = world.db
		.select({
			itemId: kitParts.itemId,
			quantity: kitParts.quantity,
			name: priceItems.name,
			unit: priceItems.unit,
			unitPrice: priceItems.unitPrice,
			withVat: priceItems.withVat,
			vat: priceItems.vat,
			cost: priceItems.cost
		})
		.from(kitParts)
		.innerJoin(priceItems, eq(priceItems.id, kitParts.itemId))
		.where(eq(kitParts.kitId, id))
		.orderBy(asc(kitParts.position))
		.all();
	const picture = world.db
		.select({ itemId: pricePictures.itemId })
		.from(pricePictures)
		.where(eq(pricePictures.itemId, id))
		.get();
	return { ...row, parts, hasPicture: picture !== undefined };
}

/** Puts an entry aside, or brings it back. A kit that holds it keeps it. */
export function archivePriceItem(world: World, id: number, archived: boolean): void {
	must('work');
	const result = world.db
		.update(priceItems)
		.set({ archivedAt: archived ? world.clock.now() : null })
		.where(eq(priceItems.id, id))
		.run();
	if (result.changes === 0) throw new NotFoundError('This entry');
}

export function categories(db: Database): string[] {
	return db
		.selectDistinct({ category: priceItems.category })
		.from(priceItems)
		.where(and(isNull(priceItems.archivedAt), ne(priceItems.category, '')))
		.orderBy(asc(priceItems.category))
		.all()
		.map((row) => row.category);
}

/** Counts what issued documents used, so that the most used is found first. */
export function noteUsed(tx: Transaction, itemIds: number[]): void {
	const counts = new Map<number, number>();
	for (const id of itemIds) counts.set(id, (counts.get(id) ?? 0) + 1);
	for (const [id, times] of counts)
		tx.update(priceItems)
			.set({ used: sql`${priceItems.used} + ${times}` })
			.where(eq(priceItems.id, id))
			.run();
}

/**
 * Removes an entry nothing was billed with and no kit holds.
 * @returns by what it is brought back; null where it was not there
 * @throws RefusedError
 */
export function removePriceItem(world: World, id: number): number | null {
	must('work');
	return writeAtOnce(world.db, (tx) => {
		const held = tx
			.select({ name: priceItems.name })
			.from(kitParts)
			.innerJoin(priceItems, eq(priceItems.id, kitParts.kitId))
			.where(eq(kitParts.itemId, id))
			.get();
		if (held) throw new RefusedError(`The kit “${held.name}” holds it. Take it out there first.`);
		const parts = tx.select().from(kitParts).where(eq(kitParts.kitId, id)).all();
		const picture = tx.select().from(pricePictures).where(eq(pricePictures.itemId, id)).get();
		const entry = tx.delete(priceItems).where(eq(priceItems.id, id)).returning().get();
		tx.run(sql`delete from price_search where rowid = ${id}`);
		if (!entry) return null;
		const kept: KeptEntry = {
			entry,
			parts,
			picture: picture ? { type: picture.type, content: picture.content.toString('base64') } : null,
			words: wordsOf(entry)
		};
		return toBin(tx, world, 'priceEntry', kept);
	});
}
