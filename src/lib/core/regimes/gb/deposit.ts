// The deposit behind money that came: what the contractor's deduction left of it, turned back.
import type { PlainDate } from '../../calendar/types';
import { divideRounded } from '../../money/decimal';
import type { Minor } from '../../money/types';
import { rateOn } from './rates';

/**
 * What is billed for money that came before any invoice, in pence: with VAT, or without it under the reverse charge. All of it
 * counts as labour at the standard rate; the owner knows better and changes the line.
 * @param rate percent that was deducted of the amount without VAT; 0 where nothing was
 */
export function depositBehind(
	cash: Minor,
	{ paidOn, rate, reversed }: { paidOn: PlainDate; rate: bigint; reversed: boolean }
): Minor {
	const vat = rateOn('standard', paidOn)?.rate ?? { units: 0n, scale: 0 };
	const unit = 10n ** BigInt(vat.scale);
	const whole = reversed ? 100n * unit : 100n * unit + vat.units;
	return divideRounded(cash * whole, whole - rate * unit);
}
