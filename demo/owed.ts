// What is known about money owed in the demo: a dispute, a promise, a bad debt, a call; and the rates for interest.
import { and, desc, eq, inArray } from 'drizzle-orm';
import { addDays } from '../src/lib/core/calendar/manipulation';
import { halfYearOf } from '../src/lib/core/regimes/gb/latePayment';
import { openItems } from '../src/lib/server/db/schema';
import {
	deductionsByMonth,
	missingStatements,
	saveDeductionStatement
} from '../src/lib/server/services/tax/deductions';
import { pauseInvoice, noteCall } from '../src/lib/server/services/owed/holds';
import { loadRates, saveRate } from '../src/lib/server/services/owed/referenceRates';
import { writeOff } from '../src/lib/server/services/money/writeOffs';
import type { Setting, Step } from './work';

export function owedSteps({ world, ids, today, morning }: Setting): Step[] {
	/** A customer's open invoice, the newest or the oldest. */
	const open = (key: string, oldest = false) => {
		const rows = world.db
			.select({ id: openItems.documentId })
			.from(openItems)
			.where(
				and(eq(openItems.customerId, ids.get(key)!), inArray(openItems.state, ['open', 'partPaid']))
			)
			.orderBy(desc(openItems.documentId))
			.all();
		return rows.at(oldest ? -1 : 0)?.id;
	};
	return [
		{
			at: morning(424),
			async run() {
				const known = new Set(loadRates(world.db).map((rate) => rate.from));
				for (let day = addDays(today, -424); day <= today; day = addDays(day, 90)) {
					const from = halfYearOf(day);
					if (!known.has(from)) saveRate(world, from, '3.75');
					known.add(from);
				}
				if (!known.has(halfYearOf(today))) saveRate(world, halfYearOf(today), '3.75');
			}
		},
		{
			at: morning(21, 300),
			async run() {
				const id = open('ruben');
				if (id)
					pauseInvoice(world, id, {
						kind: 'dispute',
						until: '',
						note: 'Says the crack came back within a week'
					});
				noteCall(
					world,
					ids.get('ruben')!,
					'Wants somebody to look at the crack before he pays. Offered a visit.',
					'demo-ruben'
				);
			}
		},
		{
			at: morning(6, 300),
			async run() {
				const id = open('odile', true);
				if (id)
					pauseInvoice(world, id, {
						kind: 'promise',
						until: addDays(today, 3),
						note: 'On the phone: when she is back from her sister’s'
					});
			}
		},
		{
			// Every statement came but the latest one that is due.
			at: morning(0, -62),
			async run() {
				const [, ...came] = missingStatements(world);
				const months = deductionsByMonth(world);
				for (const { contractorId, monthEnd } of came) {
					const month = months.find(
						(one) => one.contractorId === contractorId && one.monthEnd === monthEnd
					)!;
					const pounds = (amount: bigint) => String(amount / 100n);
					saveDeductionStatement(world, {
						contractor: contractorId,
						month: monthEnd,
						gross: pounds(month.gross),
						materials: '',
						deduction: pounds(month.withheld),
						reference: ''
					});
				}
			}
		},
		{
			at: morning(12, 300),
			async run() {
				const id = open('alaric', true);
				if (id) writeOff(world, id, 'Moved away; letters come back', 'demo-bad-debt');
			}
		}
	];
}
