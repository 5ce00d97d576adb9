// Billing a contract in parts: a deposit, stages, a valuation to date, the rest. The parts add up to the whole, to the
// penny and line by line, and never go beyond it.
import { divideRounded, formatDecimal, formatMoney, percentOf } from '../money/decimal';
import { displayPounds } from '../money/display';
import { shareOut } from '../money/sharing';
import type { Decimal, Minor } from '../money/types';

export const STAGE_KINDS = ['deposit', 'stage', 'valuation', 'rest'] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

/** A line of the contract, with what stages before have billed of it. Pence. */
export interface ContractLine {
	id: number;
	net: Minor;
	/** What the seller paid others for it in all; null where that is not known or not of that kind. */
	cost: Minor | null;
	billed: Minor;
	costBilled: Minor;
	extra: boolean;
}

export type StageBasis =
	/** Of the whole of the chosen lines. */
	| { type: 'percent'; percent: Decimal; lineIds?: number[] }
	| { type: 'amount'; amount: Minor; lineIds?: number[] }
	/** Done so far, of all or of the chosen lines: what was billed before comes off. */
	| { type: 'toDate'; percent: Decimal; lineIds?: number[] }
	/** Done so far, line by line; lines not named stay as they are. */
	| { type: 'valuation'; done: ReadonlyMap<number, Decimal> }
	| { type: 'rest' };

export interface StagePart {
	lineId: number;
	amount: Minor;
	cost: Minor | null;
}

export interface Stage {
	parts: StagePart[];
	amount: Minor;
	/** How the amount came about, in words. */
	basis: string;
}

/** Where a contract stands. `left` is what no stage has billed. */
export interface ContractPosition {
	contractSum: Minor;
	extras: Minor;
	billed: Minor;
	left: Minor;
}

/** A stage, and where the contract stands before and after it. */
export interface StagePreview {
	stage: Stage;
	before: ContractPosition;
	after: ContractPosition;
}

/** Something that cannot be billed like this; `field` says where it was asked for. */
export class StageError extends Error {
	constructor(
		message: string,
		readonly field: string
	) {
		super(message);
		this.name = 'StageError';
	}
}

const sum = (amounts: Iterable<Minor>): Minor => {
	let total = 0n;
	for (const amount of amounts) total += amount;
	return total;
};

export function contractPosition(lines: readonly ContractLine[]): ContractPosition {
	const contractSum = sum(lines.filter((line) => !line.extra).map((line) => line.net));
	const extras = sum(lines.filter((line) => line.extra).map((line) => line.net));
	const billed = sum(lines.map((line) => line.billed));
	return { contractSum, extras, billed, left: contractSum + extras - billed };
}

/** @throws StageError where there is nothing to bill, or more than is left. */
export function computeStage(lines: readonly ContractLine[], basis: StageBasis): Stage {
	if (lines.some((line) => line.net < 0n))
		throw new StageError(
			'A line below zero cannot be billed in stages. Take it off the price of another line.',
			'lines'
		);
	const chosen = chosenLines(lines, basis);
	const { amounts, words } = amountsOf(chosen, basis);
	const amount = sum(amounts);
	if (amount === 0n) throw new StageError('That comes to nothing.', fieldOf(basis));
	return {
		amount,
		basis: words,
		parts: chosen.flatMap((line, index) => {
			const part = amounts[index]!;
			return part === 0n ? [] : [{ lineId: line.id, amount: part, cost: costOf(line, part) }];
		})
	};
}

function fieldOf(basis: StageBasis): string {
	return basis.type === 'amount' ? 'amount' : basis.type === 'rest' ? 'kind' : 'percent';
}

function chosenLines(lines: readonly ContractLine[], basis: StageBasis): ContractLine[] {
	const ids = 'lineIds' in basis ? basis.lineIds : undefined;
	const chosen = ids ? lines.filter((line) => ids.includes(line.id)) : [...lines];
	if (chosen.length === 0) throw new StageError('Choose at least one line.', 'lines');
	return chosen;
}

function amountsOf(lines: ContractLine[], basis: StageBasis): { amounts: Minor[]; words: string } {
	const whole = sum(lines.map((line) => line.net));
	const left = lines.map((line) => line.net - line.billed);
	switch (basis.type) {
		case 'percent': {
			const words = `${formatDecimal(basis.percent)} % of ${displayPounds(whole)}`;
			return { amounts: share(percentOf(whole, basis.percent), left, 'percent'), words };
		}
		case 'amount':
			return {
				amounts: share(basis.amount, left, 'amount'),
				words: `${displayPounds(basis.amount)} of ${displayPounds(whole)}`
			};
		case 'toDate': {
			const billed = sum(lines.map((line) => line.billed));
			const target = percentOf(whole, basis.percent);
			if (target < billed) throw belowBilled(target, billed);
			return {
				amounts: share(target - billed, left, 'percent'),
				words: `${formatDecimal(basis.percent)} % to date of ${displayPounds(whole)}, less ${displayPounds(billed)} billed before`
			};
		}
		case 'valuation': {
			const amounts = lines.map((line) => {
				const percent = basis.done.get(line.id);
				if (!percent) return 0n;
				const target = percentOf(line.net, percent);
				if (target < line.billed) throw belowBilled(target, line.billed);
				return target - line.billed;
			});
			return { amounts, words: `valued to date, line by line, of ${displayPounds(whole)}` };
		}
		case 'rest':
			return { amounts: left, words: `what is left of ${displayPounds(whole)}` };
	}
}

function belowBilled(target: Minor, billed: Minor): StageError {
	return new StageError(
		`That is ${displayPounds(target)} to date, and ${displayPounds(billed)} is billed already. To go below it, credit an invoice.`,
		'percent'
	);
}

/** Over what is left of each line, so that no line is ever billed beyond its price. */
function share(amount: Minor, left: Minor[], field: string): Minor[] {
	const most = sum(left);
	if (amount < 0n || amount > most)
		throw new StageError(
			`Only ${displayPounds(most)} of it is left to bill; this would be ${displayPounds(amount)}.`,
			field
		);
	return shareOut(amount, left);
}

/** The part of the line's cost that goes with what is billed of it so far: in full once the line is billed in full. */
function costOf(line: ContractLine, part: Minor): Minor | null {
	if (line.cost === null) return null;
	if (line.net === 0n) return 0n;
	return divideRounded(line.cost * (line.billed + part), line.net) - line.costBilled;
}

/** How a step of an accepted quote's plan is billed: what the form for a stage begins with. */
export interface PlannedStage {
	title: string;
	kind: StageKind;
	by: 'amount' | 'percent' | 'rest';
	/** As it would be typed; empty where it is all that is left. */
	value: string;
}

/**
 * What comes next by the plan: as many of it are billed as there are stages; null where none is left.
 * @param plan amounts in pence with VAT
 * @param exact the job is priced in what the plan is in; otherwise its share counts, and the last takes what is left
 */
export function plannedStage(
	plan: readonly { title: string; amount: number }[],
	billed: number,
	exact: boolean
): PlannedStage | null {
	const next = plan[billed];
	if (!next) return null;
	const { title, amount } = next;
	if (billed === plan.length - 1) return { title, kind: 'rest', by: 'rest', value: '' };
	const kind = billed ? 'stage' : 'deposit';
	if (exact) return { title, kind, by: 'amount', value: formatMoney(BigInt(amount)) };
	const whole = plan.reduce((sum, one) => sum + BigInt(one.amount), 0n);
	const units = divideRounded(BigInt(amount) * 1_000_000n, whole);
	return { title, kind, by: 'percent', value: formatDecimal({ units, scale: 4 }) };
}
