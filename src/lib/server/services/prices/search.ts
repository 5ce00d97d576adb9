// Finding on the price list: any words in any order, forgiving small slips, best and most used first.
import { asc, desc, sql, type SQL } from 'drizzle-orm';
import { pageOf, type Cursor, type Page } from '../../../core/paging';
import { likelyWords } from '../../../core/spelling';
import type { Database } from '../../db/connection';
import { priceItems } from '../../db/schema';
import type { World } from '../../world';

export type PriceRow = typeof priceItems.$inferSelect;

function wordsOf(typed: string): string[] {
	return typed
		.slice(0, 200)
		.toLowerCase()
		.normalize('NFD')
		.replace(/\p{Diacritic}/gu, '')
		.split(/[^\p{L}\p{N}]+/u)
		.filter(Boolean)
		.slice(0, 8);
}

/** Entries that hold every word, or what was likely meant by it. Empty for nothing typed. */
export function findPrices(world: World, typed: string, limit = 12): PriceRow[] {
	const words = wordsOf(typed);
	if (words.length === 0) return [];
	const exact = words.map((word) => `"${word}"*`).join(' ');
	const found = matching(world.db, exact, limit);
	if (found.length > 0) return found;
	const forgiving = forgivingExpression(world.db, words);
	return forgiving ? matching(world.db, forgiving, limit) : [];
}

function matching(db: Database, expression: string, limit: number): PriceRow[] {
	// bm25 is below zero, better is lower; being used ten times is worth about one good word.
	return db
		.select()
		.from(priceItems)
		.where(
			sql`${priceItems.id} in (
				select s.rowid from price_search s join price_items p on p.id = s.rowid
				where price_search match ${expression} and p.archived_at is null
				order by bm25(price_search) - ln(1 + p.used) limit ${limit})`
		)
		.orderBy(
			asc(
				sql`(select bm25(price_search) from price_search where price_search match ${expression} and rowid = ${priceItems.id}) - ln(1 + ${priceItems.used})`
			),
			asc(priceItems.name)
		)
		.all();
}

/** Each word that begins no known word is replaced by those it may have meant. Null where one means nothing. */
function forgivingExpression(db: Database, words: string[]): string | null {
	const known = new Map<boolean, string[]>();
	/** Codes and sizes are no words: whoever types letters alone means none of them. */
	const vocabulary = (digits: boolean): string[] => {
		const words =
			known.get(digits) ??
			db
				.all<{ term: string }>(
					digits
						? sql`select term from price_words`
						: sql`select term from price_words where term not glob '*[0-9]*'`
				)
				.map((row) => row.term);
		known.set(digits, words);
		return words;
	};
	const groups: string[] = [];
	for (const word of words) {
		const begins = db.get(
			sql`select 1 from price_words where term >= ${word} and term < ${`${word}\uffff`} limit 1`
		);
		if (begins) {
			groups.push(`"${word}"*`);
			continue;
		}
		const likely = likelyWords(word, vocabulary(/\d/.test(word)));
		if (likely.length === 0) return null;
		groups.push(`(${likely.map((one) => `"${one}"*`).join(' OR ')})`);
	}
	return groups.join(' AND ');
}

export const PRICES_PER_PAGE = 100;

/** The list as a page: by category and name, or what a search finds. */
export function listPrices(
	world: World,
	{
		typed = '',
		category = '',
		archived = false,
		cursor = null
	}: { typed?: string; category?: string; archived?: boolean; cursor?: Cursor | null }
): Page<PriceRow> & { total: number } {
	if (typed.trim() !== '') {
		const rows = findPrices(world, typed, PRICES_PER_PAGE).filter(
			(row) => category === '' || row.category === category
		);
		return { rows, before: null, after: null, total: rows.length };
	}
	const where: SQL = sql`${archived ? sql`archived_at is not null` : sql`archived_at is null`} and (${category} = '' or category = ${category})`;
	const back = cursor?.way === 'before';
	const order = [priceItems.category, priceItems.name, priceItems.id].map((column) =>
		back ? desc(column) : asc(column)
	);
	const beyond = cursor
		? sql` and (category, name, id) ${back ? sql`<` : sql`>`} (select category, name, id from price_items where id = ${cursor.id})`
		: sql``;
	const read = world.db
		.select()
		.from(priceItems)
		.where(sql`${where}${beyond}`)
		.orderBy(...order)
		.limit(PRICES_PER_PAGE + 1)
		.all();
	const { n } = world.db.get<{ n: number }>(
		sql`select count(*) as n from price_items where ${where}`
	);
	return { ...pageOf(read, PRICES_PER_PAGE, cursor, ({ id }) => ({ key: '', id })), total: n };
}
