// The tax point of one document, with its reason in words: what `taxPoints` says of a supply that is billed whole.
import { addDays } from '../../calendar/manipulation';
import type { PlainDate } from '../../calendar/types';
import { DAYS_TO_INVOICE, supplyPoints, type SupplyPoint, type TaxPointRule } from './taxPoints';

export interface TaxPoint {
	date: PlainDate;
	rule: TaxPointRule;
	because: SupplyPoint['because'];
	reason: string;
	reference: string;
	/** The last day on which an invoice still moves the tax point; null where no such rule holds. */
	lastDayInTime: PlainDate | null;
}

export interface BilledSupply {
	rule: TaxPointRule;
	/** Without a meaning where the rule is not `work`. */
	workFinished: PlainDate;
	issued: PlainDate;
	/** Where all of it was paid before. */
	paidOn?: PlainDate | null;
}

/** What each rule says of the invoice that makes the tax point. */
const BY_INVOICE: Record<Exclude<TaxPointRule, 'work'>, [reason: string, reference: string]> = {
	stages: [
		'A stage payment takes place when it is invoiced or paid, whichever comes first; the end of the work plays no part.',
		'VAT Regulations 1995 reg. 93'
	],
	continuous: [
		'What goes on takes place when it is invoiced or paid, whichever comes first.',
		'VAT Regulations 1995 reg. 90'
	],
	retention: [
		'What was held back takes place when it is invoiced or paid, whichever comes first.',
		'VAT Regulations 1995 reg. 89'
	]
};

/** @param isRegistered whether the seller was registered for VAT on a day */
export function decideTaxPoint(
	{ rule, workFinished, issued, paidOn = null }: BilledSupply,
	isRegistered: (day: PlainDate) => boolean
): TaxPoint {
	const byWork = rule === 'work';
	const [point] = supplyPoints(
		{
			rule,
			workFinished: byWork ? workFinished : null,
			issued,
			total: 1n,
			payments: paidOn ? [{ date: paidOn, amount: 1n }] : []
		},
		isRegistered
	);
	// A stage billed by someone who was not registered has no tax point yet: it carries its own day.
	const { date, because } = point ?? { date: issued, because: 'invoice' as const };
	const lastDayInTime = byWork ? addDays(workFinished, DAYS_TO_INVOICE) : null;
	return { date, rule, because, lastDayInTime, ...inWords() };

	function inWords(): Pick<TaxPoint, 'reason' | 'reference'> {
		if (because === 'payment')
			return {
				reason: 'It was paid before it was invoiced, so the payment makes the tax point.',
				reference: byWork ? 'VATA 1994 s.6(4)' : BY_INVOICE[rule][1]
			};
		if (!byWork) {
			const [reason, reference] = BY_INVOICE[rule];
			return { reason, reference };
		}
		if (because === 'work')
			return issued > lastDayInTime!
				? {
						reason:
							'Invoiced more than 14 days after finishing, so the tax point stays where the work ended.',
						reference: 'VATA 1994 s.6(3)'
					}
				: {
						reason:
							'You were not registered on both days, so the tax point stays where the work ended.',
						reference: 'VATA 1994 s.6(3)'
					};
		return issued < workFinished
			? {
					reason: 'The invoice comes before the work is finished, so it makes the tax point.',
					reference: 'VATA 1994 s.6(4)'
				}
			: {
					reason: 'Invoiced within 14 days of finishing, so the tax point is the invoice date.',
					reference: 'VATA 1994 s.6(5)'
				};
	}
}
