// Extension, discounts and retention of lines and of the whole: figures.md 1, steps 1 to 6.
import { multiplyToMinor, percentOf } from '../money/decimal';
import { shareOut } from '../money/sharing';
import type { Minor } from '../money/types';
import {
	FiguresError,
	type Discount,
	type InvoiceInput,
	type LineFigures,
	type LineInput,
	type Operand
} from './types';
import { money, number, percent, WorkingsBook } from './workings';

export function lineFigures(line: LineInput, index: number, book: WorkingsBook): LineFigures {
	const path = `lines.${index}`;
	const name = `Line ${index + 1}`;
	const extension = multiplyToMinor(line.quantity, line.unitPrice);
	book.set(
		`${path}.extension`,
		`${name}, before discount`,
		extension,
		'product',
		[number('Quantity', line.quantity), number('Unit price', line.unitPrice)],
		'extension'
	);

	let lineDiscount = 0n;
	if (line.discount) {
		if (line.quantity.units < 0n) {
			throw new FiguresError(
				'a line with a negative quantity takes no discount',
				`${path}.discount`
			);
		}
		lineDiscount = takeDiscount(line.discount, extension);
		if (lineDiscount > extension) {
			throw new FiguresError('the discount is larger than the line', `${path}.discount`);
		}
	}
	bookDiscount(
		`${path}.lineDiscount`,
		`${name}, its discount`,
		lineDiscount,
		line.discount,
		[money('Before discount', extension, `${path}.extension`)],
		'lineDiscount',
		book
	);

	const net = extension - lineDiscount;
	const operands = [money('Before discount', extension, `${path}.extension`)];
	if (lineDiscount !== 0n)
		operands.push(money('less the discount', lineDiscount, `${path}.lineDiscount`, -1));
	book.set(`${path}.net`, `${name}, net`, net, 'sum', operands, 'sum');
	return {
		extension,
		lineDiscount,
		net,
		documentDiscount: 0n,
		retention: 0n,
		taxable: net,
		withoutVat: net
	};
}

function takeDiscount(discount: Discount, basis: Minor): Minor {
	return 'percent' in discount ? percentOf(basis, discount.percent) : discount.amount;
}

function bookDiscount(
	path: string,
	label: string,
	value: Minor,
	discount: Discount | null,
	basis: Operand[],
	rule: string,
	book: WorkingsBook
): void {
	if (discount && 'percent' in discount) {
		book.set(
			path,
			label,
			value,
			'percent',
			[...basis, percent('Discount', discount.percent)],
			rule
		);
	} else {
		book.set(path, label, value, 'given', [], rule);
	}
}

export function documentDiscount(
	input: InvoiceInput,
	basis: Minor,
	operands: Operand[],
	book: WorkingsBook
): Minor {
	let value = 0n;
	if (input.discount) {
		if (basis < 0n)
			throw new FiguresError('no discount where the lines add up to less than nothing', 'discount');
		value = takeDiscount(input.discount, basis);
		if (value > basis)
			throw new FiguresError('the discount is larger than the lines it is taken from', 'discount');
	}
	bookDiscount(
		'discount',
		'Discount on the whole',
		value,
		input.discount,
		operands,
		'documentDiscount',
		book
	);
	return value;
}

export function documentRetention(
	input: InvoiceInput,
	basis: Minor,
	discount: Minor,
	operands: Operand[],
	book: WorkingsBook
): Minor {
	if (!input.retention) {
		book.set('retention', 'Held back', 0n, 'given', [], 'retention');
		return 0n;
	}
	if (basis < 0n)
		throw new FiguresError('no retention where the lines add up to less than nothing', 'retention');
	const value = percentOf(basis - discount, input.retention);
	const from =
		discount === 0n
			? operands
			: [...operands, money('less the discount', discount, 'discount', -1)];
	book.set(
		'retention',
		'Held back',
		value,
		'percent',
		[...from, percent('Retention', input.retention)],
		'retention'
	);
	return value;
}

/** Shares a document's amount over its lines and books each line's part. */
export function shareOver(
	lines: LineFigures[],
	sharing: boolean[],
	field: 'documentDiscount' | 'retention',
	amount: Minor,
	weigh: (line: LineFigures) => Minor,
	book: WorkingsBook
): void {
	const source = field === 'documentDiscount' ? 'discount' : 'retention';
	const label =
		field === 'documentDiscount' ? 'its share of the discount' : 'its share of what is held back';
	const weights = lines.map((line, index) => (sharing[index] ? weigh(line) : 0n));
	const parts = shareOut(amount, weights);
	const whole = weights.reduce((sum, weight) => sum + weight, 0n);
	for (const [index, line] of lines.entries()) {
		const value = parts[index]!;
		line[field] = value;
		const path = `lines.${index}.${field}`;
		if (amount === 0n || !sharing[index]) {
			book.set(
				path,
				`Line ${index + 1}, ${label}`,
				0n,
				'given',
				[],
				sharing[index] ? 'documentDiscount' : 'passedOn'
			);
			continue;
		}
		const operands = [
			money('To share', amount, source),
			money('This line', weights[index]!),
			money('All lines', whole)
		];
		book.set(
			path,
			`Line ${index + 1}, ${label}`,
			value,
			'share',
			operands,
			source === 'retention' ? 'retention' : 'documentDiscount'
		);
	}
}
