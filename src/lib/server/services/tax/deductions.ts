// What contractors withheld, by tax month and tax year of the payment, against the statements they gave.
import { must } from '../../actor';
import type { Minor } from '../../../core/money/types';
import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import { addDays, taxMonthEnd, taxYearEnd } from '../../../core/calendar/manipulation';
import { isPlainDate } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import {
	deductionMonths,
	paidParts,
	type DeductedPayment,
	type DeductionMonth,
	type DeductionStatement
} from '../../../core/settlement/deductions';
import { writeAtOnce, type Reader } from '../../db/connection';
import { customers, deductionStatements, documents, openItems } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { toBin } from '../business/bin';
import { readAmount } from '../money/form';
import { settledBy, settleDocument } from '../ledger/settlement';

/** Every payment of a contractor, with what should have been and what was withheld from it. */
export function deductedPayments(db: Reader): DeductedPayment[] {
	const rows = db
		.select({
			documentId: openItems.documentId,
			contractorId: openItems.customerId,
			total: openItems.total,
			deduction: documents.deduction
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(isNotNull(openItems.deduction))
		.all();
	const settling = settledBy(
		db,
		rows.map(({ documentId }) => documentId)
	);
	return rows.flatMap(({ documentId, contractorId, ...document }) => {
		const entries = settling.get(documentId)!;
		const actual = paidParts(entries, settleDocument(document, entries));
		// As it would be had nobody stated anything but what came along from another invoice.
		const unstated = entries.map((entry) =>
			entry.moved && entry.type === 'payment' ? entry : { ...entry, withheld: null }
		);
		const expected = paidParts(unstated, settleDocument(document, unstated));
		return actual.flatMap(({ paidOn, cash, withheld }, index) =>
			cash === 0n && withheld === 0n
				? []
				: [
						{
							contractorId,
							date: paidOn,
							documentId,
							gross: cash + withheld,
							expected: expected[index]!.withheld,
							withheld
						}
					]
		);
	});
}

function statementsIn(db: Reader): DeductionStatement[] {
	return db
		.select()
		.from(deductionStatements)
		.all()
		.map((row) => ({ ...row, deduction: BigInt(row.deduction) }));
}

/** All months with a deduction or a statement, newest first. */
export function deductionsByMonth(world: World): DeductionMonth[] {
	return deductionMonths(deductedPayments(world.db), statementsIn(world.db), world.clock.today());
}

/** A statement that has not come is asked for during so many days. */
const ASKED_FOR_DAYS = 400;

/**
 * Months whose statement should have come, read from the journal in one query: the list of moves asks at each look.
 */
export function missingStatements(world: World): DeductionMonth[] {
	const today = world.clock.today();
	const rows = world.db.all<{ contractor: number; date: string; withheld: number }>(sql`
		select o.customer_id as contractor, coalesce(l.paid_on, e.date) as date, sum(l.amount) as withheld
		from journal_lines l join journal_entries e on e.id = l.entry_id
		join open_items o on o.document_id = l.document_id
		where l.account = 'cisWithheld' and coalesce(l.paid_on, e.date) >= ${addDays(today, -ASKED_FOR_DAYS)}
		group by 1, 2`);
	const payments = rows.map(({ contractor, date, withheld }): DeductedPayment => ({
		contractorId: contractor,
		date,
		documentId: 0,
		gross: 0n,
		expected: 0n,
		withheld: BigInt(withheld)
	}));
	return deductionMonths(payments, statementsIn(world.db), today).filter(
		(month) => month.state === 'missing'
	);
}

/** A tax year's page: months, contractors, and the total for the tax return. */
export function deductionsPage(world: World, yearEnd?: PlainDate) {
	must('tax');
	const months = deductionsByMonth(world);
	const today = world.clock.today();
	const years = [
		...new Set([taxYearEnd(today), ...months.map((month) => taxYearEnd(month.monthEnd))])
	]
		.sort()
		.reverse();
	const year = yearEnd && years.includes(yearEnd) ? yearEnd : years[0]!;
	const shown = months.filter((month) => taxYearEnd(month.monthEnd) === year);
	const ids = [...new Set(months.map((month) => month.contractorId))];
	const names = new Map(
		world.db
			.select({ id: customers.id, name: customers.name })
			.from(customers)
			.where(inArray(customers.id, ids.length ? ids : [0]))
			.all()
			.map((row) => [row.id, row.name])
	);
	const sum = (of: (month: DeductionMonth) => Minor) =>
		shown.reduce((total, month) => total + of(month), 0n);
	return {
		today,
		year,
		years,
		months: shown.map((month) => ({
			...month,
			contractor: names.get(month.contractorId) ?? '',
			from: monthStart(month.monthEnd)
		})),
		gross: sum((month) => month.gross),
		withheld: sum((month) => month.withheld),
		stated: sum((month) => month.stated ?? 0n),
		contractors: world.db
			.select({ id: customers.id, name: customers.name })
			.from(customers)
			.where(eq(customers.kind, 'contractor'))
			.all()
	};
}

/** The 6th a tax month begins on. */
function monthStart(monthEnd: PlainDate): PlainDate {
	const [year, month] = monthEnd.split('-').map(Number) as [number, number, number];
	const before = month === 1 ? [year - 1, 12] : [year, month - 1];
	return `${before[0]}-${String(before[1]).padStart(2, '0')}-06`;
}

/** Keeps what a statement says; the same contractor and month again replaces it. @throws FieldError, NotFoundError */
export function saveDeductionStatement(
	world: World,
	form: {
		contractor: number;
		month: string;
		gross: string;
		materials: string;
		deduction: string;
		reference: string;
	}
): void {
	must('owner');
	const problems: Record<string, string> = {};
	const gross = readAmount(form.gross, 'gross', 'what they paid before the deduction', problems);
	const materials =
		form.materials.trim() === ''
			? 0
			: readAmount(form.materials, 'materials', 'the cost of materials', problems);
	const deduction = readAmount(form.deduction, 'deduction', 'what they deducted', problems);
	if (!isPlainDate(form.month)) problems.month = 'Give a day in its tax month.';
	if (deduction > gross) problems.deduction ??= 'More than they paid.';
	if (form.reference.length > 60) problems.reference = 'At most 60 characters.';
	const contractor = world.db
		.select()
		.from(customers)
		.where(eq(customers.id, form.contractor))
		.get();
	if (!contractor) problems.contractor = 'Choose who gave it.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const values = {
		gross,
		materials,
		deduction,
		reference: form.reference.trim(),
		recordedAt: world.clock.now()
	};
	world.db
		.insert(deductionStatements)
		.values({ contractorId: form.contractor, monthEnd: taxMonthEnd(form.month), ...values })
		.onConflictDoUpdate({
			target: [deductionStatements.contractorId, deductionStatements.monthEnd],
			set: values
		})
		.run();
}

/** Takes back a statement that was typed for the wrong contractor or month. @returns by what it is brought back */
export function removeDeductionStatement(
	world: World,
	contractorId: number,
	monthEnd: string
): number {
	must('owner');
	return writeAtOnce(world.db, (tx) => {
		const row = tx
			.delete(deductionStatements)
			.where(
				and(
					eq(deductionStatements.contractorId, contractorId),
					eq(deductionStatements.monthEnd, monthEnd)
				)
			)
			.returning()
			.get();
		if (!row) throw new NotFoundError('This statement');
		return toBin(tx, world, 'deductionStatement', row);
	});
}
