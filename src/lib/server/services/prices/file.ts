// The price list as a file, in and out. Coming in, it is looked through first and written only when confirmed.
import { asc, eq, isNull, sql } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import {
	matchColumns,
	oddHeadings,
	readTable,
	TableError,
	type Table
} from '../../../core/formats/table';
import { KIND_NAMES } from '../../../core/words';
import { LINE_KINDS, type LineKind } from '../../../core/figures/types';
import { explainTypedNumber, readTypedNumber } from '../../../core/money/typed';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { priceItems } from '../../db/schema';
import type { World } from '../../world';
import { FieldError } from '../../../core/refusals';
import { entryAdder, writeItem } from './prices';
import { safeCell, uncoverCell } from '../../../core/formats/cells';
import { PRICE_COLUMNS, type PriceField, type PriceMapping } from './columns';
import { turn } from '../../turn';

type Values = Record<PriceField, string>;

export interface ImportRow {
	line: number;
	outcome: 'new' | 'changed' | 'same' | 'wrong';
	name: string;
	/** What changes, or what is wrong, in words. */
	detail: string;
}

export interface ImportPreview {
	headings: string[];
	mapping: PriceMapping;
	encoding: Table['encoding'];
	separator: string;
	notes: string[];
	counts: Record<ImportRow['outcome'], number>;
	/** The first of them; the report has them all. */
	rows: ImportRow[];
	sample: string[][];
}

interface Planned {
	report: ImportRow;
	id: number | null;
	version: number;
	values: Values;
}

/** @throws FieldError where it is no table */
export function previewPriceFile(
	world: World,
	bytes: Uint8Array,
	given?: PriceMapping
): ImportPreview {
	const table = openTable(bytes);
	const mapping = given ?? matchColumns(table.headings, PRICE_COLUMNS);
	const odd = oddHeadings(table.headings);
	const planned = plan(world, table, mapping);
	const counts = { new: 0, changed: 0, same: 0, wrong: 0 };
	for (const { report } of planned) counts[report.outcome]++;
	return {
		headings: table.headings,
		mapping,
		encoding: table.encoding,
		separator: table.separator,
		notes: [
			...odd.double.map((heading) => `The column “${heading}” stands there twice.`),
			...(odd.unnamed ? [`${odd.unnamed} columns have no heading.`] : []),
			...(mapping.name === undefined ? ['No column looks like a name. Choose it.'] : [])
		],
		counts,
		rows: planned
			.map(({ report }) => report)
			.filter((row) => row.outcome !== 'same')
			.slice(0, 200),
		sample: table.rows.slice(0, 3).map((row) => row.cells)
	};
}

function openTable(bytes: Uint8Array): Table {
	try {
		return readTable(bytes);
	} catch (error) {
		if (error instanceof TableError) throw new FieldError({ file: error.message });
		throw error;
	}
}

/** What each row of the file would do. A row with a code that is known, or else a name and unit, is that entry. */
function plan(world: World, table: Table, mapping: PriceMapping): Planned[] {
	const existing = world.db
		.select()
		.from(priceItems)
		.where(isNull(priceItems.kit))
		.orderBy(asc(priceItems.id))
		.all();
	const byCode = new Map(existing.filter((row) => row.code).map((row) => [row.code, row]));
	const byName = new Map(existing.map((row) => [`${row.name}\n${row.unit}`, row]));
	const seen = new Set<string>();
	return table.rows.map(({ line, cells }): Planned => {
		const raw = (field: PriceField) => {
			const at = mapping[field];
			// Undoes what `safeCell` did on the way out.
			return at === undefined ? null : uncoverCell((cells[at] ?? '').trim());
		};
		const problems: string[] = [];
		const number = (field: 'unitPrice' | 'cost', what: string): string | null => {
			const typed = raw(field);
			if (typed === null || typed === '') return typed;
			const read = readTypedNumber(typed, { decimals: 4 });
			if (read.ok) return read.text;
			problems.push(explainTypedNumber(read, what, { decimals: 4 }));
			return null;
		};
		const unitPrice = number('unitPrice', 'the price');
		const cost = number('cost', 'the cost');
		const name = (raw('name') ?? '').slice(0, 200);
		const code = (raw('code') ?? '').slice(0, 40);
		if (name === '') problems.push('It has no name.');
		const key = code ? `c${code}` : `n${name}\n${raw('unit') ?? ''}`;
		if (seen.has(key)) problems.push('It stands in the file twice; the first counts.');
		seen.add(key);
		const row = code ? byCode.get(code) : byName.get(`${name}\n${raw('unit') ?? ''}`);
		const kind = readKind(raw('kind'));
		if (kind === undefined) problems.push(`“${raw('kind')}” is no kind of line.`);
		const withVat = readYesNo(raw('withVat'));
		if (withVat === undefined)
			problems.push(`Whether VAT is in the price: yes or no, not “${raw('withVat')}”.`);
		// What the file does not speak of stays as it is.
		const values: Values = {
			code,
			name,
			text: (raw('text') ?? row?.text ?? '').slice(0, 2000),
			kind: kind ?? row?.kind ?? 'materials',
			unit: (raw('unit') ?? row?.unit ?? '').slice(0, 30),
			unitPrice: unitPrice ?? row?.unitPrice ?? '',
			withVat: withVat ?? yesNo(row?.withVat ?? false),
			cost: cost ?? row?.cost ?? '',
			category: (raw('category') ?? row?.category ?? '').slice(0, 80)
		};
		const differs = row
			? PRICE_COLUMNS.filter(({ field }) => written(row, field) !== values[field])
			: [];
		const outcome = problems.length ? 'wrong' : !row ? 'new' : differs.length ? 'changed' : 'same';
		const detail = problems.length
			? problems.join(' ')
			: differs
					.map(
						({ field, label }) =>
							`${label}: ${written(row!, field) || 'nothing'} → ${values[field] || 'nothing'}`
					)
					.join('; ');
		return {
			report: { line, outcome, name: name || code, detail },
			id: row?.id ?? null,
			version: row?.version ?? 1,
			values
		};
	});
}

const yesNo = (withVat: boolean) => (withVat ? 'yes' : 'no');

/** What a file says of VAT in the price; null where it says nothing, undefined where it makes no sense. */
function readYesNo(typed: string | null): string | null | undefined {
	if (typed === null || typed === '') return null;
	if (/^(y|yes|true|1|with|inc(l(uded)?)?)$/i.test(typed)) return 'yes';
	if (/^(n|no|false|0|without|exc?(l(uded)?)?|net|plus)$/i.test(typed)) return 'no';
	return undefined;
}

const written = (row: typeof priceItems.$inferSelect, field: PriceField): string =>
	field === 'withVat' ? yesNo(row.withVat) : row[field];

function readKind(typed: string | null): LineKind | null | undefined {
	if (typed === null || typed === '') return null;
	const wanted = typed.toLowerCase();
	return LINE_KINDS.find(
		(kind) => kind.toLowerCase() === wanted || KIND_NAMES[kind].toLowerCase() === wanted
	);
}

const ROWS_AT_ONCE = 500;

/**
 * Writes what the preview showed, some hundred rows at a time, so that others can work in between. Broken off,
 * it is simply done again: what is in already changes nothing.
 * @yields how many rows are done, and at the end the whole report
 */
export async function* importPrices(
	world: World,
	bytes: Uint8Array,
	mapping: PriceMapping
): AsyncGenerator<{ done: number; of: number; report?: ImportRow[] }> {
	const planned = plan(world, openTable(bytes), mapping);
	const work = planned.filter(
		({ report }) => report.outcome === 'new' || report.outcome === 'changed'
	);
	const add = entryAdder(world);
	for (let start = 0; start < work.length; start += ROWS_AT_ONCE) {
		yield { done: start, of: work.length };
		await turn();
		writeAtOnce(world.db, (tx) => {
			const now = world.clock.now();
			for (const one of work.slice(start, start + ROWS_AT_ONCE)) {
				const values = {
					...one.values,
					kind: one.values.kind as LineKind,
					withVat: one.values.withVat === 'yes'
				};
				if (one.id === null) add(values, now);
				else if (!changeEntry(tx, one.id, one.version, values, now))
					Object.assign(one.report, {
						outcome: 'wrong',
						detail: 'It was changed in the meantime, so it was left as it is.'
					});
			}
		});
	}
	yield { done: work.length, of: work.length, report: planned.map(({ report }) => report) };
}

/** @returns false where it was changed, or is gone, since it was looked through */
function changeEntry(
	tx: Transaction,
	id: number,
	version: number,
	values: Omit<Values, 'kind' | 'withVat'> & { kind: LineKind; withVat: boolean },
	now: number
): boolean {
	const current = tx.select().from(priceItems).where(eq(priceItems.id, id)).get();
	if (current?.version !== version) return false;
	const { vat, vatReason, income } = current;
	writeItem(tx, id, version, { ...values, vat, vatReason, income, kit: null, parts: [] }, now);
	return true;
}

/** The list as CSV, in parts: one after the other, however long it is. */
export function* exportPrices(world: World): Generator<string> {
	yield stringify([PRICE_COLUMNS.map((column) => column.label)]);
	let after = 0;
	for (;;) {
		const rows = world.db
			.select()
			.from(priceItems)
			.where(
				sql`${priceItems.id} > ${after} and ${priceItems.archivedAt} is null and ${priceItems.kit} is null`
			)
			.orderBy(asc(priceItems.id))
			.limit(1000)
			.all();
		if (rows.length === 0) return;
		after = rows.at(-1)!.id;
		yield stringify(
			rows.map((row) =>
				PRICE_COLUMNS.map(({ field }) =>
					safeCell(field === 'kind' ? KIND_NAMES[row.kind] : written(row, field))
				)
			)
		);
	}
}
