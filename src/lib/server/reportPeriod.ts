// Which period an address asks a report of, and how money counts in it.
import { readTypedDate } from '../core/calendar/conversion';
import { isPlainDate } from '../core/calendar/queries';
import { periodsOf } from '../core/reports/periods';
import type { Basis } from './services/reports/reports';

/** Further apart than this is no report of a small business. */
const LONGEST_YEARS = 10;

export function askedPeriod(url: URL, today: string, periods = periodsOf(today)) {
	const named = periods.find(({ key }) => key === url.searchParams.get('period'));
	const day = (name: string) => {
		const typed = url.searchParams.get(name) ?? '';
		return isPlainDate(typed) ? typed : readTypedDate(typed, today);
	};
	const [from, to] = [day('from'), day('to')];
	const typed =
		from && to && from <= to && Number(to.slice(0, 4)) - Number(from.slice(0, 4)) <= LONGEST_YEARS
			? { from, to }
			: null;
	const wrong = url.searchParams.has('from') && typed === null;
	const { from: begin, to: end } = typed ?? named ?? periods[0]!;
	const basis: Basis = url.searchParams.get('basis') === 'invoice' ? 'invoice' : 'cash';
	return {
		period: { from: begin, to: end },
		/** The named one that is shown. */
		key: typed ? '' : (named ?? periods[0]!).key,
		periods,
		basis,
		wrong: wrong ? 'From a day to a later one, at most ten years.' : ''
	};
}
