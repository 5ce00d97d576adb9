// Interest and compensation on a late commercial debt: the Late Payment of Commercial Debts (Interest) Act 1998.
import { FiguresError } from '../../figures/types';
import type { PlainDate } from '../../calendar/types';
import { formatDecimal } from '../../money/decimal';
import type { Decimal, Minor } from '../../money/types';

/** As it is named in letters and on invoices. */
export const LATE_PAYMENT_ACT = 'Late Payment of Commercial Debts (Interest) Act 1998';

/** Source: SI 2002/1675 art. 4: eight points over the reference rate. */
const POINTS_OVER = 8n;

/** Source: s.5A of the Act, for each debt, by its size. Pence. */
const COMPENSATION: readonly { below: Minor | null; sum: Minor }[] = [
	{ below: 100_000n, sum: 4_000n },
	{ below: 1_000_000n, sum: 7_000n },
	{ below: null, sum: 10_000n }
];

/** The base rate that holds for debts that turn late within a half year. */
export interface ReferenceRate {
	/** The first day of the half year. */
	from: PlainDate;
	/** Percent. */
	rate: Decimal;
}

export function halfYearOf(date: PlainDate): PlainDate {
	return `${date.slice(0, 4)}-${date.slice(5, 7) < '07' ? '01' : '07'}-01`;
}

/**
 * The yearly rate of interest on a debt that turned late on a day: it stays the same for the life of the debt.
 * @throws FiguresError at `referenceRates` where that half year has no row.
 */
export function lateRateOn(
	turnedLate: PlainDate,
	rates: readonly ReferenceRate[]
): { rate: Decimal; reference: ReferenceRate } {
	const from = halfYearOf(turnedLate);
	const reference = rates.find((one) => one.from === from);
	if (!reference)
		throw new FiguresError(`no reference rate for the half year from ${from}`, 'referenceRates');
	const { units, scale } = reference.rate;
	return { rate: { units: units + POINTS_OVER * 10n ** BigInt(scale), scale }, reference };
}

/** The fixed sum for a debt by what stood open at the end of its due day; none where nothing did. Pence. */
export function compensationFor(openWhenDue: Minor): Minor {
	if (openWhenDue <= 0n) return 0n;
	return COMPENSATION.find(({ below }) => below === null || openWhenDue < below)!.sum;
}

/** `11.75`, never `11.750`. */
export function writeRate({ units, scale }: Decimal): string {
	const text = formatDecimal({ units, scale });
	return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}
