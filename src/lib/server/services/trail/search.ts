// The full-text index behind every search for documents: one row for each, by the document's id.
import { sql } from 'drizzle-orm';
import { displayAmount } from '../../../core/money/display';
import type { Sheet } from '../../../core/sheet/types';
import type { Transaction } from '../../db/connection';

interface Words {
	number: string;
	customer: string;
	total: number;
	sheet: Sheet;
}

/** Everything of a document that it is found by. */
export function indexWords({ number, customer, total, sheet }: Words): string {
	const lines = sheet.rows.map((row) =>
		(row.type === 'line' ? row.description : row.text).slice(0, 500)
	);
	const amount = displayAmount(total);
	return [
		number,
		customer,
		sheet.reference,
		sheet.orderNumber,
		amount,
		amount.replaceAll(',', ''),
		...lines
	].join(' \n ');
}

export function indexDocument(tx: Transaction, id: number, words: Words): void {
	tx.run(sql`delete from document_search where rowid = ${id}`);
	tx.run(sql`insert into document_search (rowid, words) values (${id}, ${indexWords(words)})`);
}

/** What a person typed, as a query in which every word must begin some word of the document; null for nothing. */
export function searchExpression(typed: string): string | null {
	const words = typed
		.slice(0, 200)
		.split(/[^\p{L}\p{N}]+/u)
		.filter(Boolean)
		.slice(0, 8);
	return words.length ? words.map((word) => `"${word}"*`).join(' ') : null;
}

/** Of a document that is removed. */
export function forgetDocument(tx: Transaction, id: number): void {
	tx.run(sql`delete from document_search where rowid = ${id}`);
}
