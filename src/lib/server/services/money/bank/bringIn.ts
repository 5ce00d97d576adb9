// Bank statements brought in: looked at first as they were understood, then each line kept once.
import { must } from '../../../actor';
import { createHash } from 'node:crypto';
import { and, eq, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { BankFile } from '../../../../core/formats/bank/file';
import {
	BANK_COLUMNS,
	type BankField,
	type CsvLayout
} from '../../../../core/formats/bank/headings';
import type { BankLine } from '../../../../core/formats/bank/line';
import { TableError } from '../../../../core/formats/table';
import { writeAtOnce, type Reader, type Transaction } from '../../../db/connection';
import { bankImports, bankLines, csvLayouts } from '../../../db/schema';
import type { World } from '../../../world';
import { FieldError, NotFoundError } from '../../../../core/refusals';
import { inItsBox, read } from './reading';

/** What bringing in works with, on whichever thread. */
export type Books = Pick<World, 'db' | 'clock'>;

/** A file that nobody took in is forgotten after so many days. */
const WAITS = 14;
const DAY = 24 * 60 * 60 * 1000;

/** What a CSV file is known again by: its headings, or, where it has none, what its columns hold. */
const signature = ({ headings, layout }: NonNullable<BankFile['csv']>): string =>
	layout.headless || headings.length === 0
		? `no headings: ${JSON.stringify(Object.entries(layout).sort())}`
		: headings.map((one) => one.trim().toLowerCase()).join('|');

const remembered = (db: Reader, file: BankFile) =>
	file.csv
		? db
				.select()
				.from(csvLayouts)
				.where(eq(csvLayouts.headings, signature(file.csv)))
				.get()
		: undefined;

/**
 * Begins to bring a file in: it is read, and kept until somebody has looked at it. Nothing of it is in the books yet.
 * @returns the number under which it is looked at
 * @throws FieldError for what cannot be read, in words
 */
export function lookInto(world: Books, name: string, bytes: Uint8Array): number {
	const file = readOrRefuse(bytes);
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		tx.delete(bankImports)
			.where(and(eq(bankImports.state, 'asking'), lt(bankImports.createdAt, now - WAITS * DAY)))
			.run();
		return tx
			.insert(bankImports)
			.values({
				name: name.slice(0, 120),
				format: file.format,
				state: 'asking',
				content: Buffer.from(bytes),
				createdAt: now
			})
			.returning({ id: bankImports.id })
			.get().id;
	});
}

const readOrRefuse = (bytes: Uint8Array): BankFile => inItsBox(() => read(bytes));

/** The layout a file is to be read with: as it was chosen, else as it was remembered; null: as it looks. */
function layoutFor(db: Reader, first: BankFile, changed: Changed | null): CsvLayout | null {
	return changed && first.csv ? layoutOf(changed) : (remembered(db, first)?.layout ?? null);
}

export interface Look {
	name: string;
	file: BankFile;
	/** The columns are known from a file before. */
	known: boolean;
	account: string;
	/** Whether each line is in the books already, by its place. */
	here: boolean[];
	/** Lines that would come in new, with what they move in and out. Pence. */
	fresh: { count: number; in: number; out: number };
}

/** Other columns than those that were guessed; null where nothing was changed. */
export type Changed = Partial<
	Record<BankField | 'dates' | 'decimal' | 'headless' | 'account', string>
>;

/** What was chosen on the page as a layout. A field that is not there holds no column. */
function layoutOf(changed: Changed): CsvLayout {
	const layout: CsvLayout = {};
	for (const { field } of BANK_COLUMNS)
		if (/^\d{1,3}$/.test(changed[field] ?? '')) layout[field] = Number(changed[field]);
	layout.dates = z.enum(['dmy', 'mdy', 'ymd']).catch('dmy').parse(changed.dates);
	layout.decimal = changed.decimal === ',' ? ',' : '.';
	if (changed.headless) layout.headless = true;
	return layout;
}

/**
 * A file as it would be brought in, line by line.
 * @throws NotFoundError where it is not waiting; FieldError where it cannot be read with these columns
 */
export function look(world: Books, importId: number, changed: Changed | null = null): Look {
	const row = world.db.select().from(bankImports).where(eq(bankImports.id, importId)).get();
	if (row?.state !== 'asking' || !row.content) throw new NotFoundError('This file');
	const first = readOrRefuse(row.content);
	const before = remembered(world.db, first);
	const layout = layoutFor(world.db, first, changed);
	let file = first;
	try {
		if (layout) file = read(row.content, layout);
	} catch (error) {
		if (!(error instanceof TableError)) throw error;
		// Chosen by somebody: said, with the columns as they were. Remembered: guessed anew.
		if (changed) throw new FieldError({ columns: error.message });
	}
	const account = (changed?.account ?? before?.account ?? file.account).trim().slice(0, 60);
	const keys = keyed(booked(file), account).map(({ key }) => key);
	const there = new Set(
		world.db
			.all<{ key: string }>(
				sql`select key from bank_lines where key in (select value from json_each(${JSON.stringify(keys)}))`
			)
			.map(({ key }) => key)
	);
	let nth = 0;
	const here = file.lines.map((line) => !line.pending && there.has(keys[nth++]!));
	const fresh = file.lines.filter((line, index) => !line.pending && !here[index]);
	const sum = (fits: (amount: bigint) => boolean) =>
		Math.abs(
			Number(fresh.reduce((total, { amount }) => (fits(amount) ? total + amount : total), 0n))
		);
	return {
		name: row.name,
		file,
		known: before !== undefined,
		account,
		here,
		fresh: {
			count: fresh.length,
			in: sum((amount) => amount > 0n),
			out: sum((amount) => amount < 0n)
		}
	};
}

export interface TakenIn {
	added: number;
	known: number;
	unread: number;
}

/**
 * Takes the booked lines of a file in, and remembers its columns. Pressed again, it says what came of the first time.
 * @throws FieldError, NotFoundError
 */
export function takeIn(world: Books, importId: number, changed: Changed | null): TakenIn {
	must('money');
	const row = world.db.select().from(bankImports).where(eq(bankImports.id, importId)).get();
	if (row?.state === 'done') return { added: row.added, known: row.known, unread: row.unread };
	const { file, account } = look(world, importId, changed);
	if (booked(file).length === 0)
		throw new FieldError({ columns: 'No row could be read as a movement that is booked.' });
	return writeAtOnce(world.db, (tx) => {
		const { csv } = file;
		if (csv)
			tx.insert(csvLayouts)
				.values({ headings: signature(csv), layout: csv.layout, account })
				.onConflictDoUpdate({
					target: csvLayouts.headings,
					set: { layout: csv.layout, account }
				})
				.run();
		return keepLines(tx, importId, file, account);
	});
}

/** Puts a file away that somebody does not want. */
export function leaveFile(world: World, importId: number): void {
	must('money');
	world.db
		.delete(bankImports)
		.where(and(eq(bankImports.id, importId), eq(bankImports.state, 'asking')))
		.run();
}

/** Forgets which columns files like this one have. */
export function forgetColumns(world: Books, importId: number): void {
	must('money');
	const row = world.db.select().from(bankImports).where(eq(bankImports.id, importId)).get();
	if (row?.state !== 'asking' || !row.content) throw new NotFoundError('This file');
	const { csv } = readOrRefuse(row.content);
	if (csv)
		world.db
			.delete(csvLayouts)
			.where(eq(csvLayouts.headings, signature(csv)))
			.run();
}

/** What is not booked yet may still change: it comes with a later file. */
const booked = (file: BankFile) => file.lines.filter((line) => !line.pending);

function keepLines(tx: Transaction, importId: number, file: BankFile, account: string): TakenIn {
	let added = 0;
	const lines = booked(file);
	const { placeholder } = sql;
	const insert = tx
		.insert(bankLines)
		.values({
			importId,
			state: 'open',
			key: placeholder('key'),
			account: placeholder('account'),
			date: placeholder('date'),
			amount: placeholder('amount'),
			text: placeholder('text'),
			payer: placeholder('payer'),
			reversal: placeholder('reversal')
		})
		.onConflictDoNothing()
		.prepare();
	for (const { key, line } of keyed(lines, account))
		added += insert.run({
			key,
			account: line.account || account,
			date: line.date,
			amount: Number(line.amount),
			text: wordsOf(line),
			payer: line.payer,
			reversal: line.reversal
		}).changes;
	const taken = {
		added,
		known: lines.length - added,
		unread: file.leftOut.length + file.lines.length - lines.length
	};
	tx.update(bankImports)
		.set({ ...taken, state: 'done', content: null })
		.where(eq(bankImports.id, importId))
		.run();
	return taken;
}

/** All that is written about a line, the reference with it: numbers of invoices are looked for in it. */
const wordsOf = ({ text, reference }: BankLine) =>
	!reference || text.toLowerCase().includes(reference.toLowerCase())
		? text
		: `${text} ${reference}`.trim().slice(0, 500);

/** Lines that are the same to the letter are told apart by their order: a file that overlaps has them in the same. */
function keyed(lines: readonly BankLine[], account: string): { key: string; line: BankLine }[] {
	const seen = new Map<string, number>();
	return lines.map((line) => {
		const content = JSON.stringify([
			line.account || account,
			line.date,
			String(line.amount),
			wordsOf(line),
			line.payer
		]);
		const count = (seen.get(content) ?? 0) + 1;
		seen.set(content, count);
		return { key: createHash('sha256').update(`${content}#${count}`).digest('hex'), line };
	});
}
