// The derivation behind each amount, kept as data: the interface shows it, a test evaluates it again.
import {
	converted,
	divideRounded,
	max,
	min,
	multiplyToMinor,
	percentOf,
	powerOfTen,
	taxWithin
} from '../money/decimal';
import type { Decimal, Minor } from '../money/types';
import type { Operand, Operation, Working } from './types';

export function money(
	label: string,
	value: Minor,
	figure?: string,
	sign: 1 | -1 = 1
): Operand & { as: 'money' } {
	return figure === undefined
		? { label, as: 'money', value, sign }
		: { label, as: 'money', value, sign, figure };
}

export function number(label: string, value: Decimal): Operand {
	return { label, as: 'number', value };
}

export function percent(label: string, value: Decimal): Operand {
	return { label, as: 'percent', value };
}

/** Collects the workings of one computation, named by the path of their figure. */
export class WorkingsBook {
	readonly entries = new Map<string, Working>();

	set(
		path: string,
		label: string,
		value: Minor,
		operation: Operation,
		operands: Operand[],
		rule: string,
		limits?: Working['limits']
	): void {
		const working: Working = { label, value, operation, operands, rule };
		if (limits) working.limits = limits;
		this.entries.set(path, working);
	}

	/** Adds money operands up, books the sum and returns it. */
	sum(path: string, label: string, operands: (Operand & { as: 'money' })[], rule = 'sum'): Minor {
		let value = 0n;
		for (const operand of operands) value += operand.sign === 1 ? operand.value : -operand.value;
		this.set(path, label, value, 'sum', operands, rule);
		return value;
	}
}

/** Evaluates a working from its own operands: true where they give its value. */
export function checkWorking(working: Working): boolean {
	const { operation, operands, value } = working;
	const amounts = operands.flatMap((operand) => (operand.as === 'money' ? [operand] : []));
	const decimals = operands.flatMap((operand) => (operand.as === 'money' ? [] : [operand.value]));
	const sum = amounts.reduce((total, operand) => total + operand.value * BigInt(operand.sign), 0n);
	switch (operation) {
		case 'given':
			return operands.length === 0;
		case 'product':
			return value === multiplyToMinor(decimals[0]!, decimals[1]!);
		case 'sum':
			return value === sum;
		case 'percent':
			return value === percentOf(sum, decimals[0]!);
		case 'converted':
			return value === converted(sum, decimals[0]!);
		case 'taxWithin':
			return value === taxWithin(sum, decimals[0]!);
		case 'limit': {
			const { atLeast, atMost } = working.limits ?? {};
			const low = atLeast === undefined ? sum : max(sum, atLeast);
			return value === (atMost === undefined ? low : min(low, atMost));
		}
		case 'share': {
			const [amount, weight, whole] = amounts.map((operand) => operand.value) as [
				bigint,
				bigint,
				bigint
			];
			const part = whole === 0n ? 0n : (amount * weight) / whole;
			return value === part || value === part + 1n;
		}
		case 'roundedDown': {
			const divisor = powerOfTen(decimals[0]!.scale + 2);
			const nearest = divideRounded(sum * decimals[0]!.units, divisor);
			return value >= nearest - 1n && value <= nearest + 1n;
		}
	}
}
