// Which class of contract a job is: CIS and the reverse charge look at the contract, not at the single line.
import type { LineKind } from '../../figures/types';
import { divideRounded } from '../../money/decimal';
import { displayPounds } from '../../money/display';
import type { Minor } from '../../money/types';
import type { ContractClass, VatTreatment } from '../types';

/** Up to this part of the contract's value construction operations can be disregarded for the reverse charge. */
const MINOR_PERCENT = 5n;

/**
 * Work on site, and what is made for it elsewhere. Goods alone, hire without an operator, travel, and making something off
 * site without installing it are none (FA 2004 s.74(3)).
 */
const OPERATIONS: ReadonlySet<LineKind> = new Set(['labour', 'prefabrication']);

export interface ContractDecision {
	contract: ContractClass;
	/** What of the contract is construction operations, and its value, in pence. */
	operations: Minor;
	value: Minor;
	workings: string[];
	reference: string;
}

/**
 * The class that the lines make. The owner knows what a line is and may overrule it with a reason: a survey is
 * labour too, and no construction operation.
 * Source: FA 2004 s.74; SI 2019/892 art. 8(2) for the 5 per cent, zero-rated operations left out of that part.
 */
export function decideContract(
	lines: readonly { kind: LineKind; vat: VatTreatment; net: Minor }[]
): ContractDecision {
	const sum = (chosen: typeof lines) => chosen.reduce((total, line) => total + line.net, 0n);
	const value = sum(lines);
	const inside = lines.filter((line) => OPERATIONS.has(line.kind) && line.vat !== 'noSupply');
	const onSite = inside.some((line) => line.kind === 'labour');
	const operations = sum(inside);
	const counted = sum(inside.filter((line) => line.vat !== 'zero'));
	const contract: ContractClass =
		!onSite || operations <= 0n
			? 'none'
			: counted * 100n <= value * MINOR_PERCENT
				? 'minor'
				: 'construction';
	const part = value > 0n ? divideRounded(counted * 1000n, value) : 0n;
	return {
		contract,
		operations,
		value,
		workings: [
			`Labour and prefabrication come to ${displayPounds(operations)} of ${displayPounds(value)}.`,
			...(counted !== operations
				? [`Zero-rated operations are left out of the part: ${displayPounds(counted)} counts.`]
				: []),
			inside.length === 0
				? 'No line is a construction operation: goods alone, hire or travel.'
				: onSite
					? `That is ${part / 10n}.${part % 10n} %: ${contract === 'minor' ? 'at most' : 'more than'} 5 % of the contract.`
					: 'Nothing is done on site: making it elsewhere and delivering it is no construction operation.'
		],
		reference: 'FA 2004 s.74; SI 2019/892 art. 8'
	};
}
