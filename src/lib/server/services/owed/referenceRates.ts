// The reference rates of the Late Payment Act, half year by half year.
import { must } from '../../actor';
import type { Reader } from '../../db/connection';
import { asc } from 'drizzle-orm';
import { isPlainDate } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import { parseDecimal } from '../../../core/money/decimal';
import { halfYearOf, type ReferenceRate } from '../../../core/regimes/gb/latePayment';
import { referenceRates } from '../../db/schema';
import type { World } from '../../world';
import { FieldError } from '../../../core/refusals';

export function loadRates(db: Reader): ReferenceRate[] {
	return db
		.select()
		.from(referenceRates)
		.orderBy(asc(referenceRates.from))
		.all()
		.map(({ from, rate }) => ({ from, rate: parseDecimal(rate)! }));
}

/** Sets the rate of a half year. @throws FieldError */
export function saveRate(world: World, from: string, typed: string): void {
	must('owner');
	const problems: Record<string, string> = {};
	if (!isPlainDate(from) || halfYearOf(from) !== from)
		problems.from = 'A half year begins on 1 January or 1 July.';
	const rate = parseDecimal(typed.trim().replace(/\s*%$/, ''));
	if (!rate || rate.units < 0n || rate.scale > 4 || rate.units > 100n * 10n ** BigInt(rate.scale))
		problems.rate = 'Give the rate in percent, such as 3.75.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const text = typed.trim().replace(/\s*%$/, '');
	world.db
		.insert(referenceRates)
		.values({ from, rate: text })
		.onConflictDoUpdate({ target: referenceRates.from, set: { rate: text } })
		.run();
}

/** The half year whose rate is missing today; null where it is there. */
export function missingRate(world: World): PlainDate | null {
	const from = halfYearOf(world.clock.today());
	return loadRates(world.db).some((rate) => rate.from === from) ? null : from;
}
