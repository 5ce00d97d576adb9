// Where the price list, as a list, finds its fields. Prices are decimal texts: rounded to pence here, exact on their own page.
import { sql, type SQL } from 'drizzle-orm';
import { PRICES } from '../../../../core/lists/prices';
import { everyWord, named, type ListSource } from './where';

const pence = (price: SQL) =>
	sql`case when ${price} = '' then null else cast(round(cast(${price} as real) * 100) as integer) end`;

export const PRICE_LIST: ListSource = {
	spec: PRICES,
	from: sql`price_items i`,
	id: sql`i.id`,
	base: sql`true`,
	fields: {
		name: () => sql`i.name`,
		code: () => sql`i.code`,
		kind: () => sql`i.kind`,
		category: () => sql`i.category`,
		unit: () => sql`i.unit`,
		price: () => pence(sql`i.unit_price`),
		withVat: () => sql`i.with_vat`,
		cost: () => pence(sql`i.cost`),
		vat: () => sql`i.vat`,
		kit: () => sql`i.kit is not null`,
		used: () => sql`i.used`,
		changed: () => sql`i.updated_at`,
		archived: () => sql`i.archived_at is not null`
	},
	search: (typed) =>
		everyWord(typed, sql`i.name || ' ' || i.code || ' ' || i.category || ' ' || i.text`),
	href: (id) => `/work/prices/${id}`,
	names: named('price_items', sql`name`)
};
