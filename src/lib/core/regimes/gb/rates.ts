// VAT rates of Great Britain, as data. Nothing else in the code knows a rate.
import type { PlainDate } from '../../calendar/types';
import { parseDecimal } from '../../money/decimal';
import type { DatedRate, VatTreatment } from '../types';

function row(
	treatment: VatTreatment,
	rate: string,
	from: PlainDate,
	until: PlainDate | null = null
): DatedRate {
	return { treatment, rate: parseDecimal(rate)!, from, until };
}

const RATES: readonly DatedRate[] = [
	row('standard', '20', '2011-01-04'),
	row('standard', '17.5', '2010-01-01', '2011-01-03'),
	row('reduced', '5', '2001-01-01'),
	row('zero', '0', '1990-01-01')
];

/** Source: VATA 1994 s.2, s.29A, s.30 and the orders that set the rates. */
export function rateOn(treatment: VatTreatment, date: PlainDate): DatedRate | null | undefined {
	if (treatment === 'exempt' || treatment === 'outside' || treatment === 'noSupply') return null;
	for (const rate of RATES) {
		if (rate.treatment !== treatment || date < rate.from) continue;
		if (rate.until === null || date <= rate.until) return rate;
	}
	return undefined;
}
