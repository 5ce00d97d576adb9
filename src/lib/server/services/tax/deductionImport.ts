// Deduction statements out of a file: looked through first, kept when the owner says so.
import { must } from '../../actor';
import type { Minor } from '../../../core/money/types';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { readDeductionFile } from '../../../core/formats/deductionFile';
import { squeezed } from '../../../core/bank/names';
import { isPlainDate } from '../../../core/calendar/queries';
import { formatMoney } from '../../../core/money/decimal';
import { writeAtOnce } from '../../db/connection';
import { customers } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { deductionsByMonth, saveDeductionStatement } from './deductions';

export interface PreviewRow {
	line: number;
	contractorId: number;
	contractor: string;
	monthEnd: string;
	/** Pence, as it is handed in again. */
	gross: number;
	materials: number;
	deduction: number;
	reference: string;
	/** What the books say was withheld in that month. */
	withheld: Minor;
	/** A statement for it is kept already. */
	known: boolean;
}

/** What a file would bring, against the books; nothing is kept. @throws TableError */
export function previewDeductionFile(world: World, bytes: Uint8Array) {
	const file = readDeductionFile(bytes);
	const contractors = world.db
		.select({ id: customers.id, name: customers.name })
		.from(customers)
		.where(eq(customers.kind, 'contractor'))
		.all()
		.map((one) => ({ ...one, short: shortName(one.name) }));
	const months = new Map(
		deductionsByMonth(world).map((month) => [`${month.contractorId} ${month.monthEnd}`, month])
	);
	const problems = [...file.problems];
	const seen = new Set<string>();
	const rows = file.rows.flatMap((row): PreviewRow[] => {
		const name = shortName(row.contractor);
		const fits = contractors.filter((one) => one.short === name);
		if (fits.length !== 1) {
			const message = `“${row.contractor}” is ${fits.length ? 'the name of several contractors' : 'no contractor of yours'}`;
			problems.push({ line: row.line, message });
			return [];
		}
		const key = `${fits[0]!.id} ${row.monthEnd}`;
		if (seen.has(key)) {
			problems.push({ line: row.line, message: 'this month of theirs stands in the file before' });
			return [];
		}
		seen.add(key);
		const month = months.get(key);
		return [
			{
				line: row.line,
				contractorId: fits[0]!.id,
				contractor: fits[0]!.name,
				monthEnd: row.monthEnd,
				gross: Number(row.gross),
				materials: Number(row.materials),
				deduction: Number(row.deduction),
				reference: row.reference,
				withheld: month?.withheld ?? 0n,
				known: month?.stated != null
			}
		];
	});
	return { rows, problems: problems.sort((a, b) => a.line - b.line) };
}

/** Names are compared without their legal form and signs. */
const shortName = (name: string) => squeezed(name.replace(/\b(ltd|limited|plc|llp)\b\.?/gi, ''));

const pence = z
	.number()
	.int()
	.min(0)
	.max(10 ** 13);
const rowsForm = z
	.array(
		z.object({
			contractorId: z.number().int().positive(),
			monthEnd: z.string().refine(isPlainDate),
			gross: pence,
			materials: pence,
			deduction: pence,
			reference: z.string().max(60)
		})
	)
	.max(2000);

/** Keeps what was looked through. Again, it changes nothing. @returns how many. @throws FieldError */
export function importDeductionStatements(world: World, input: unknown): number {
	must('owner');
	const rows = parseForm(rowsForm, input);
	const pounds = (amount: number) => formatMoney(BigInt(amount));
	writeAtOnce(world.db, () => {
		for (const row of rows)
			saveDeductionStatement(world, {
				contractor: row.contractorId,
				month: row.monthEnd,
				gross: pounds(row.gross),
				materials: pounds(row.materials),
				deduction: pounds(row.deduction),
				reference: row.reference
			});
	});
	return rows.length;
}
