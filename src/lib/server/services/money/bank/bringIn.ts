// Bank statements brought in: read, and each line kept once.
import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { readBankFile, type BankFile, type CsvLayout } from '../../../../core/formats/bankFile';
import type { BankLine } from '../../../../core/formats/bankLine';
import { writeAtOnce, type Transaction } from '../../../db/connection';
import { bankImports, bankLines, csvLayouts } from '../../../db/schema';
import type { World } from '../../../world';
import { FieldError, NotFoundError } from '../../../../core/refusals';

/** What came of a file: brought in, or the columns are to be confirmed first. */
export interface BroughtIn {
	importId: number;
	asking: boolean;
	added: number;
	known: number;
	unread: number;
}

const signature = (headings: readonly string[]) =>
	headings.map((one) => one.trim().toLowerCase()).join('|');

/**
 * Brings a statement file in. A CSV file whose headings are new is kept until its columns are confirmed.
 * @throws TableError for what cannot be read, in words
 */
export function bringIn(world: World, name: string, bytes: Uint8Array): BroughtIn {
	const first = readBankFile(bytes);
	const remembered =
		first.format === 'csv'
			? world.db
					.select()
					.from(csvLayouts)
					.where(eq(csvLayouts.headings, signature(first.headings)))
					.get()
			: undefined;
	if (first.format === 'csv' && !remembered) {
		const { id } = world.db
			.insert(bankImports)
			.values({
				name: name.slice(0, 120),
				format: 'csv',
				state: 'asking',
				content: Buffer.from(bytes),
				createdAt: world.clock.now()
			})
			.returning({ id: bankImports.id })
			.get();
		return { importId: id, asking: true, added: 0, known: 0, unread: 0 };
	}
	const file = remembered ? readBankFile(bytes, remembered.layout) : first;
	return writeAtOnce(world.db, (tx) => {
		const { id } = tx
			.insert(bankImports)
			.values({
				name: name.slice(0, 120),
				format: file.format,
				state: 'done',
				createdAt: world.clock.now()
			})
			.returning({ id: bankImports.id })
			.get();
		return keepLines(tx, id, file, remembered?.account ?? '');
	});
}

/** A file whose columns are asked about, as it would be read. @throws NotFoundError, TableError */
export function askedFile(
	world: World,
	importId: number,
	layout: CsvLayout | null = null
): BankFile {
	const row = world.db.select().from(bankImports).where(eq(bankImports.id, importId)).get();
	if (row?.state !== 'asking' || !row.content) throw new NotFoundError('This file');
	return readBankFile(row.content, layout);
}

const column = z.number().int().min(0).max(200).optional();

const layoutForm = z.object({
	account: z.string().trim().max(60).default(''),
	date: column,
	amount: column,
	in: column,
	out: column,
	text: column,
	payer: column,
	dates: z.enum(['dmy', 'mdy', 'ymd']).default('dmy')
});

/** Confirms the columns, remembers them for files with these headings, and brings the lines in. @throws FieldError */
export function confirmColumns(world: World, importId: number, input: unknown): BroughtIn {
	const chosen = layoutForm.safeParse(input);
	if (!chosen.success)
		throw new FieldError({
			[String(chosen.error.issues[0]?.path[0] ?? '')]: 'Choose one of those offered.'
		});
	const { account, ...layout } = chosen.data;
	if (layout.date === undefined) throw new FieldError({ date: 'Which column holds the date?' });
	if (layout.amount === undefined && layout.in === undefined)
		throw new FieldError({ amount: 'Which column holds the amount, or what came in?' });
	const file = askedFile(world, importId, layout as CsvLayout);
	if (file.lines.length === 0)
		throw new FieldError({ date: 'No row could be read with these columns.' });
	return writeAtOnce(world.db, (tx) => {
		tx.insert(csvLayouts)
			.values({ headings: signature(file.headings), layout: layout as CsvLayout, account })
			.onConflictDoUpdate({
				target: csvLayouts.headings,
				set: { layout: layout as CsvLayout, account }
			})
			.run();
		tx.update(bankImports)
			.set({ state: 'done', content: null })
			.where(eq(bankImports.id, importId))
			.run();
		return keepLines(tx, importId, file, account);
	});
}

function keepLines(tx: Transaction, importId: number, file: BankFile, account: string): BroughtIn {
	let added = 0;
	for (const { key, line } of keyed(file.lines, account))
		added += tx
			.insert(bankLines)
			.values({
				key,
				importId,
				account: line.account || account,
				date: line.date,
				amount: Number(line.amount),
				text: line.text,
				payer: line.payer,
				reversal: line.reversal,
				state: 'open'
			})
			.onConflictDoNothing()
			.run().changes;
	const known = file.lines.length - added;
	const unread = file.problems.length;
	tx.update(bankImports).set({ added, known, unread }).where(eq(bankImports.id, importId)).run();
	return { importId, asking: false, added, known, unread };
}

/** Lines that are the same to the letter are told apart by their order: a file that overlaps has them in the same. */
function keyed(lines: readonly BankLine[], account: string): { key: string; line: BankLine }[] {
	const seen = new Map<string, number>();
	return lines.map((line) => {
		const content = JSON.stringify([
			line.account || account,
			line.date,
			String(line.amount),
			line.text,
			line.payer
		]);
		const count = (seen.get(content) ?? 0) + 1;
		seen.set(content, count);
		return { key: createHash('sha256').update(`${content}#${count}`).digest('hex'), line };
	});
}
