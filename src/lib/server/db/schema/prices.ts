// The price list: entries, and kits made of entries. Prices and costs are decimal texts, as they are typed.
import {
	blob,
	index,
	integer,
	primaryKey,
	sqliteTable,
	text,
	uniqueIndex
} from 'drizzle-orm/sqlite-core';
import { sql } from 'drizzle-orm';
import { LINE_KINDS } from '../../../core/figures/types';
import { VAT_TREATMENTS } from '../../../core/regimes/types';

export const priceItems = sqliteTable(
	'price_items',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		code: text('code').notNull().default(''),
		name: text('name').notNull(),
		/** What the customer reads; empty: the name. */
		text: text('text').notNull().default(''),
		kind: text('kind', { enum: LINE_KINDS }).notNull(),
		unit: text('unit').notNull().default(''),
		unitPrice: text('unit_price').notNull().default(''),
		/** Whether VAT is in the price. */
		withVat: integer('with_vat', { mode: 'boolean' }).notNull().default(false),
		/** What one costs to buy; empty where it is not known or not bought. */
		cost: text('cost').notNull().default(''),
		vat: text('vat', { enum: VAT_TREATMENTS }).notNull().default('standard'),
		vatReason: text('vat_reason').notNull().default(''),
		category: text('category').notNull().default(''),
		/** The income category of what is sold. */
		income: text('income').notNull().default(''),
		/** Null for a plain entry; for a kit, how it comes onto a document. */
		kit: text('kit', { enum: ['line', 'parts'] }),
		used: integer('used').notNull().default(0),
		version: integer('version').notNull().default(1),
		updatedAt: integer('updated_at').notNull(),
		archivedAt: integer('archived_at')
	},
	(table) => [
		uniqueIndex('price_items_by_code')
			.on(table.code)
			.where(sql`code <> ''`),
		index('price_items_by_name').on(table.name),
		index('price_items_by_category').on(table.category, table.name)
	]
);

export const kitParts = sqliteTable(
	'kit_parts',
	{
		kitId: integer('kit_id')
			.notNull()
			.references(() => priceItems.id, { onDelete: 'cascade' }),
		position: integer('position').notNull(),
		itemId: integer('item_id')
			.notNull()
			.references(() => priceItems.id),
		quantity: text('quantity').notNull()
	},
	(table) => [
		primaryKey({ columns: [table.kitId, table.position] }),
		index('kit_parts_by_item').on(table.itemId)
	]
);

export const pricePictures = sqliteTable('price_pictures', {
	itemId: integer('item_id')
		.primaryKey()
		.references(() => priceItems.id, { onDelete: 'cascade' }),
	type: text('type').notNull(),
	content: blob('content', { mode: 'buffer' }).notNull()
});
