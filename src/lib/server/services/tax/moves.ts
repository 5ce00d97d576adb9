// Next moves of tax: deduction statements that should have come.
import { inArray } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { taxYearEnd } from '../../../core/calendar/manipulation';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { displayPounds } from '../../../core/money/display';
import { customers } from '../../db/schema';
import type { World } from '../../world';
import { missingStatements } from './deductions';

/** Contractors whose payment and deduction statement should have come. */
export function deductionMoves(world: World): Move[] {
	const missing = missingStatements(world);
	if (missing.length === 0) return [];
	const names = new Map(
		world.db
			.select({ id: customers.id, name: customers.name })
			.from(customers)
			.where(inArray(customers.id, [...new Set(missing.map((month) => month.contractorId))]))
			.all()
			.map((row) => [row.id, row.name])
	);
	return missing.slice(0, MOST_MOVES).map((month) => ({
		id: `deduction:${month.contractorId}:${month.monthEnd}`,
		amount: month.withheld,
		late: false,
		title: `Ask ${names.get(month.contractorId)} for its deduction statement`,
		detail: `${displayPounds(month.withheld)} withheld in the tax month to ${displayDate(month.monthEnd)}; it was due by ${displayDate(month.deadline)}`,
		action: 'Enter it',
		href: `/tax?year=${taxYearEnd(month.monthEnd)}`
	}));
}
