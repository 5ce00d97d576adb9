// A discount as it is typed.
import type { Discount } from '../figures/types';
import { parseDecimal, parseMoney } from '../money/decimal';
import { readTypedNumber } from '../money/typed';

type Stop = (path: string, message: string) => void;

/** `5%`, `5 %` or an amount. */
export function readDiscount(typed: string, path: string, stop: Stop): Discount | null {
	const text = typed.trim();
	if (text === '') return null;
	if (text.endsWith('%')) {
		const percent = readTypedNumber(text.slice(0, -1), { decimals: 4 });
		const decimal = percent.ok ? parseDecimal(percent.text)! : null;
		if (decimal && decimal.units <= 100n * 10n ** BigInt(decimal.scale))
			return { percent: decimal };
		stop(path, 'A percentage from 0 to 100, such as 5%, or an amount.');
		return null;
	}
	const amount = readTypedNumber(text, { decimals: 2 });
	const minor = amount.ok ? parseMoney(amount.text) : null;
	if (minor !== null) return { amount: minor };
	stop(path, 'An amount such as 25.00, or a percentage such as 5%.');
	return null;
}
