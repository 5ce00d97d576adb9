// What was agreed on a job, line by line.
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { lineAmount } from '../../../core/jobs/billing';
import { type JobLine } from '../../../core/jobs/types';
import { LINE_KINDS } from '../../../core/figures/types';
import { displayPounds } from '../../../core/money/display';
import { VAT_TREATMENTS } from '../../../core/regimes/types';
import { readDiscount } from '../../../core/sheet/discount';
import { type Transaction } from '../../db/connection';
import { jobLines, stageParts } from '../../db/schema';
import { isBilled } from './takenParts';
import { FieldError } from '../../../core/refusals';
import { required, text, typedNumber } from '../business/fields';

export const lineForm = z.object({
	id: z.number().int().positive().optional(),
	kind: z.enum(LINE_KINDS).default('labour'),
	description: required(10_000, 'Say what this line is for.'),
	quantity: typedNumber('a quantity', { decimals: 4, negative: true }, true),
	unit: text(30),
	unitPrice: typedNumber('a price', { decimals: 4 }, true),
	vat: z.enum(VAT_TREATMENTS).default('standard'),
	vatReason: text(60),
	discount: text(30),
	cost: typedNumber('what it costs you', { decimals: 2 }),
	extra: z.boolean().default(false),
	itemId: z.number().int().positive().nullable().default(null),
	income: text(60),
	centre: text(60)
});

export function agreedSum(tx: Transaction, jobId: number): bigint {
	return tx
		.select()
		.from(jobLines)
		.where(eq(jobLines.jobId, jobId))
		.all()
		.reduce((sum, line) => sum + lineAmount(line), 0n);
}

/** Lines keep their identity, because invoices and stages point at them. What is billed does not change. */
export function saveLines(
	tx: Transaction,
	jobId: number,
	given: z.output<typeof lineForm>[]
): void {
	const existing = new Map(
		tx
			.select()
			.from(jobLines)
			.where(eq(jobLines.jobId, jobId))
			.all()
			.map((line) => [line.id, line])
	);
	const kept = new Set(given.flatMap((line) => (line.id ? [line.id] : [])));
	for (const line of existing.values()) {
		if (kept.has(line.id)) continue;
		refuseBilledLine(tx, line, 0n, 'lines');
		tx.delete(stageParts).where(eq(stageParts.lineId, line.id)).run();
		tx.delete(jobLines).where(eq(jobLines.id, line.id)).run();
	}
	for (const [position, { id, ...line }] of given.entries()) {
		checkLine(line, position);
		const before = id ? existing.get(id) : undefined;
		if (before) {
			if (lineAmount(before) !== lineAmount(line) || before.vat !== line.vat)
				refuseBilledLine(tx, before, lineAmount(line), `lines.${position}.unitPrice`);
			tx.update(jobLines)
				.set({ ...line, position })
				.where(eq(jobLines.id, before.id))
				.run();
		} else
			tx.insert(jobLines)
				.values({ ...line, jobId, position })
				.run();
	}
}

function checkLine(line: z.output<typeof lineForm>, position: number): void {
	let problem = '';
	readDiscount(line.discount, '', (_path, message) => (problem = message));
	if (line.discount.trim() !== '' && line.quantity.startsWith('-'))
		problem = 'A line with a negative quantity takes no discount.';
	if (problem) throw new FieldError({ [`lines.${position}.discount`]: problem });
	if (!line.quantity.startsWith('-') && lineAmount(line) < 0n)
		throw new FieldError({
			[`lines.${position}.discount`]: 'The discount is larger than the line.'
		});
}

/** A line on an invoice stays; one billed in stages may grow, and shrink down to what is billed of it. */
function refuseBilledLine(
	tx: Transaction,
	line: Pick<JobLine, 'id' | 'description'>,
	amount: bigint,
	field: string
): void {
	const name = line.description.slice(0, 60);
	if (isBilled(tx, 'line', [line.id]))
		throw new FieldError({ [field]: `“${name}” is billed already. Credit that invoice first.` });
	const { billed } = tx.get<{ billed: number }>(sql`
		select coalesce(sum(p.amount), 0) as billed from stage_parts p join stages s on s.id = p.stage_id
		where p.line_id = ${line.id} and s.state <> 'dropped'`);
	if (billed > amount)
		throw new FieldError({
			[field]: `${displayPounds(billed)} of “${name}” is billed in stages, so it cannot go below that.`
		});
}

export function hasBeenBilled(tx: Transaction, jobId: number): boolean {
	const { n } = tx.get<{ n: number }>(sql`
		select exists(select 1 from billed_parts where job_id = ${jobId})
			or exists(select 1 from stages where job_id = ${jobId} and state <> 'dropped') as n`);
	return n === 1;
}
