// Tables of the data file as CSV: amounts in pounds, moments in words, what opens something left out.
import { stringify } from 'csv-stringify/sync';
import { getTableConfig, type SQLiteTable } from 'drizzle-orm/sqlite-core';
import { is } from 'drizzle-orm';
import { SQLiteTable as TableClass } from 'drizzle-orm/sqlite-core';
import type Sqlite from 'better-sqlite3';
import { safeCell } from '../../../core/formats/cells';
import * as schema from '../../db/schema';
import { BLANK, COMMON, EXPLAINED, LEFT_OUT } from './explained';

export interface TableShape {
	name: string;
	columns: { name: string; is: 'money' | 'moment' | 'plain' }[];
}

/** Amounts in whole pence; everything else that is a number is one. */
const MONEY = new Set(
	`amount amount_sterling net vat_charged vat_reverse_charged total total_sterling deduction cash withheld credited
	written_off outstanding to_pay reached overpaid in_hand fee fee_on_top withheld_stated gross materials sterling
	outstanding_sterling to_pay_sterling overpaid_sterling net_sterling vat_charged_sterling
	balance document_discount retention taxable without_vat cost vat`.split(/\s+/)
);

function shapeOf(table: SQLiteTable): TableShape {
	const { name, columns } = getTableConfig(table);
	return {
		name,
		columns: columns.map((column) => ({
			name: column.name,
			is:
				column.dataType !== 'number'
					? 'plain'
					: /(^|_)at$/.test(column.name)
						? 'moment'
						: MONEY.has(column.name)
							? 'money'
							: 'plain'
		}))
	};
}

/** Every table of the schema, by name. */
export const TABLES: readonly TableShape[] = Object.values(schema as Record<string, unknown>)
	.filter((one): one is SQLiteTable => is(one, TableClass))
	.map(shapeOf)
	.sort((a, b) => (a.name < b.name ? -1 : 1));

export const EXPORTED: readonly TableShape[] = TABLES.filter(({ name }) => !(name in LEFT_OUT));

const quoted = (name: string): string => `"${name}"`;
const ROWS = 500;

/** Pence as pounds, exactly. */
function pounds(pence: number): string {
	const digits = String(Math.abs(pence)).padStart(3, '0');
	return `${pence < 0 ? '-' : ''}${digits.slice(0, -2)}.${digits.slice(-2)}`;
}

function cellOf(value: unknown, kind: TableShape['columns'][number]['is']): string {
	if (value === null || value === undefined) return '';
	if (kind === 'money') return pounds(value as number);
	if (kind === 'moment') return new Date(value as number).toISOString();
	return safeCell(String(value));
}

/** A table as CSV, some rows at a time. `where` chooses some of them. */
export function* csvOf(
	file: Sqlite.Database,
	{ name, columns }: TableShape,
	where = '1',
	...values: number[]
): Generator<string> {
	yield stringify([columns.map((column) => column.name)]);
	const shown = columns.map((column) =>
		BLANK.has(column.name) ? `null as ${quoted(column.name)}` : quoted(column.name)
	);
	const rows = file
		.prepare(`select ${shown.join(', ')} from ${quoted(name)} where ${where} order by rowid`)
		.raw()
		.iterate(...values) as IterableIterator<unknown[]>;
	let some: string[][] = [];
	for (const row of rows) {
		some.push(row.map((value, at) => cellOf(value, columns[at]!.is)));
		if (some.length < ROWS) continue;
		yield stringify(some);
		some = [];
	}
	if (some.length) yield stringify(some);
}

const escaped = (text: string): string =>
	text.replace(/[&<>"]/g, (char) => `&#${char.charCodeAt(0)};`);

/** A page that says what each column of each table means. */
export function explanation(): string {
	const tables = EXPORTED.map(({ name, columns }) => {
		const explained = EXPLAINED[name];
		const rows = columns.map((column) => {
			const words = explained?.columns[column.name] ?? COMMON[column.name] ?? '';
			const as = { money: ', in pounds', moment: ', in universal time', plain: '' }[column.is];
			return `<tr><th scope="row">${escaped(column.name)}</th><td>${escaped(words + as)}</td></tr>`;
		});
		return `<h2>${escaped(name)}.csv</h2><p>${escaped(explained?.what ?? '')}</p><table>${rows.join('')}</table>`;
	});
	const left = Object.entries(LEFT_OUT).map(
		([name, what]) => `<li><b>${escaped(name)}</b>: ${escaped(what)}</li>`
	);
	return `<!doctype html><html lang="en"><meta charset="utf-8"><title>What each column means</title>
<style>body{font:16px/1.5 sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem}th{text-align:left;padding-right:2rem;font-weight:normal;font-family:monospace}td,th{border-bottom:1px solid #ccc;vertical-align:top}h2{margin:2rem 0 0}</style>
<h1>What each column means</h1><p>Days are written as year-month-day. Yes is 1, no is 0. A cell that a spreadsheet would take for a formula begins with an apostrophe.</p>
${tables.join('\n')}<h2>Not in this export</h2><ul>${left.join('')}</ul></html>`;
}
