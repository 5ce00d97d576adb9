// The CIS deduction a contractor will make (FA 2004 s.61), worked out line by line.
import { max, min, parseDecimal, percentOf } from '../money/decimal';
import type { Minor } from '../money/types';
import { ALLOWABLE_KINDS, type CisFigures, type InvoiceInput, type LineFigures } from './types';
import { money, percent, type WorkingsBook } from './workings';

/** Only called where the deduction applies, so the rate is known. Amounts without VAT, minor units. */
export function deductionFigures(
	input: InvoiceInput,
	lines: LineFigures[],
	net: Minor,
	book: WorkingsBook
): CisFigures {
	const grossOperands = [money('Net of this document', net, 'net')];
	const materialOperands: ReturnType<typeof money>[] = [];
	let gross = net;
	let materials = 0n;
	let assumed = false;
	for (const [index, line] of input.lines.entries()) {
		const name = `Line ${index + 1}`;
		if (line.kind === 'levy' || line.vat === 'noSupply') {
			gross -= lines[index]!.withoutVat;
			const label =
				line.kind === 'levy' ? 'less the levy on line' : 'less what is no supply on line';
			grossOperands.push(
				money(`${label} ${index + 1}`, lines[index]!.withoutVat, `lines.${index}.withoutVat`, -1)
			);
			continue;
		}
		if (line.cost !== null) {
			const held = input.retention ? percentOf(line.cost, input.retention) : 0n;
			const counted = line.quantity.units < 0n ? held - line.cost : line.cost - held;
			materials += counted;
			materialOperands.push(money(`${name}, what it cost you`, counted));
		} else if (ALLOWABLE_KINDS.has(line.kind)) {
			assumed = true;
			materials += lines[index]!.withoutVat;
			materialOperands.push(
				money(`${name}, its own price: cost not given`, lines[index]!.withoutVat)
			);
		}
	}
	gross = max(gross, 0n);
	book.set('cis.gross', 'Without VAT and levy', gross, 'limit', grossOperands, 'cisGross', {
		atLeast: 0n
	});
	materials = min(max(materials, 0n), gross);
	book.set(
		'cis.materials',
		'Materials, at what they cost you',
		materials,
		'limit',
		materialOperands,
		'cisMaterials',
		{ atLeast: 0n, atMost: gross }
	);

	const base = gross - materials;
	book.set(
		'cis.base',
		'What the deduction is taken from',
		base,
		'sum',
		[
			money('Without VAT and levy', gross, 'cis.gross'),
			money('less materials, at what they cost you', materials, 'cis.materials', -1)
		],
		'cisMaterials'
	);
	const rate = input.cisRate!;
	const rateDecimal = parseDecimal(rate)!;
	const deduction = percentOf(base, rateDecimal);
	book.set(
		'cis.deduction',
		'CIS deduction',
		deduction,
		'percent',
		[
			money('What the deduction is taken from', base, 'cis.base'),
			percent('Rate told by the contractor', rateDecimal)
		],
		'cisRate'
	);
	return { rate, gross, materials, assumed, base, deduction };
}
