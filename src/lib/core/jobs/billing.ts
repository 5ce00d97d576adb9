// From what was agreed and done to what an invoice can bill, and from there to the lines of a sheet.
import type { PlainDate } from '../calendar/types';
import { ALLOWABLE_KINDS, LINE_KINDS, type LineKind } from '../figures/types';
import {
	divideRounded,
	formatDecimal,
	formatMoney,
	multiplyToMinor,
	parseDecimal,
	percentOf,
	powerOfTen
} from '../money/decimal';
import type { Decimal, Minor } from '../money/types';
import { tagsOf } from '../sheet/blank';
import type { SheetLine } from '../sheet/types';
import { readDiscount } from '../sheet/discount';
import { KIND_NAMES, withinSentence } from '../words';
import type { BilledPart, JobCost, JobLine, JobWork, TimeEntry } from './types';

/** One thing that can be billed: a line's worth of it. */
export interface Billable {
	part: BilledPart;
	kind: LineKind;
	description: string;
	quantity: string;
	unit: string;
	unitPrice: string;
	vat: SheetLine['vat'];
	vatReason: string;
	discount: string;
	/** What the seller paid others for it, as a text; empty where unknown or not of that kind. */
	cost: string;
	date: PlainDate | null;
	extra: boolean;
	/** The entry of the price list it came from. */
	itemId?: number;
	/** What it is in reports. */
	income?: string;
	centre?: string;
	/** Pence: extension less line discount. */
	amount: Minor;
}

export const BILLING_SHAPES = ['lines', 'kinds', 'single'] as const;
/** As lines, grouped by kind, or as one line for each rate. */
export type BillingShape = (typeof BILLING_SHAPES)[number];

const ZERO: Decimal = { units: 0n, scale: 0 };
const decimal = (text: string): Decimal => parseDecimal(text.trim()) ?? ZERO;

/** Pence of a line's price after its discount. */
export function lineAmount(line: Pick<JobLine, 'quantity' | 'unitPrice' | 'discount'>): Minor {
	const extension = multiplyToMinor(decimal(line.quantity), decimal(line.unitPrice));
	const discount = readDiscount(line.discount, '', () => undefined);
	if (!discount) return extension;
	return (
		extension - ('percent' in discount ? percentOf(extension, discount.percent) : discount.amount)
	);
}

/** Hours with four decimals, as a quantity. */
export function hoursOf(minutes: number): string {
	return formatDecimal({ units: divideRounded(BigInt(minutes) * 10_000n, 60n), scale: 4 });
}

/**
 * What one of it is sold at: the price list's price, or cost and mark-up to the penny, with the VAT on top where the job's
 * prices include it.
 */
export function sellingPrice(
	cost: Pick<JobCost, 'unitCost' | 'markUp' | 'unitPrice' | 'plusVat'>
): string {
	if (cost.unitPrice.trim() !== '') return cost.unitPrice.trim();
	const paid = decimal(cost.unitCost);
	const added = [decimal(cost.markUp), decimal(cost.plusVat ?? '')].filter(({ units }) => units);
	if (added.length === 0) return formatDecimal(paid);
	const price = added.reduce(
		({ units, scale }, percent) => ({
			units: units * (100n * powerOfTen(percent.scale) + percent.units),
			scale: scale + percent.scale + 2
		}),
		paid
	);
	return formatMoney(divideRounded(price.units * 100n, powerOfTen(price.scale)));
}

/** Pence of what was paid: quantity × cost of one. */
export function costAmount(cost: Pick<JobCost, 'quantity' | 'unitCost'>): Minor {
	return multiplyToMinor(decimal(cost.quantity), decimal(cost.unitCost));
}

/** Pence of what the worker's own time or a helper's time cost. */
export function timeCost(time: Pick<TimeEntry, 'minutes' | 'hourlyCost'>): Minor {
	return multiplyToMinor(decimal(hoursOf(time.minutes ?? 0)), decimal(time.hourlyCost));
}

/** Everything of a job that can be billed, in the order agreed, then by day. A running clock is not yet. */
export function billablesOf(work: JobWork): Billable[] {
	const rate = rateOfWork(work);
	return [
		...work.lines.map(fromLine),
		...work.time
			.filter((entry) => entry.chargeable && entry.minutes)
			.map((entry) => ({ ...fromTime(entry), ...rate })),
		...work.costs.filter((cost) => cost.chargeable).map(fromCost)
	];
}

/**
 * Hours are taxed as the work they belong to: where everything agreed has one rate, for one reason, so have they
 * (docs/tax-gb.md 6). Otherwise the owner chooses, and the standard rate stands.
 */
function rateOfWork({ lines }: JobWork): Pick<Billable, 'vat' | 'vatReason'> {
	const standard = { vat: 'standard', vatReason: '' } as const;
	const [first, ...others] = lines.filter(({ vat }) => vat !== 'noSupply');
	if (!first) return standard;
	const alike = others.every(
		({ vat, vatReason }) => vat === first.vat && vatReason === first.vatReason
	);
	return alike ? { vat: first.vat, vatReason: first.vatReason } : standard;
}

function fromLine(line: JobLine): Billable {
	const { id, kind, description, quantity, unit, unitPrice, vat, vatReason, discount } = line;
	return {
		part: { type: 'line', id },
		kind,
		description,
		quantity,
		unit,
		unitPrice,
		vat,
		vatReason,
		discount,
		cost: line.cost,
		date: null,
		extra: line.extra,
		...(line.itemId ? { itemId: line.itemId } : {}),
		...tagsOf(line),
		amount: lineAmount(line)
	};
}

function fromTime(entry: TimeEntry): Billable {
	const quantity = hoursOf(entry.minutes!);
	return {
		part: { type: 'time', id: entry.id },
		kind: 'labour',
		description: entry.note.trim() || (entry.person ? `Time, ${entry.person}` : 'Time'),
		quantity,
		unit: 'hour',
		unitPrice: entry.rate.trim() || '0',
		vat: 'standard',
		vatReason: '',
		discount: '',
		cost: '',
		date: entry.date,
		extra: false,
		amount: multiplyToMinor(decimal(quantity), decimal(entry.rate))
	};
}

function fromCost(cost: JobCost): Billable {
	const unitPrice = sellingPrice(cost);
	return {
		part: { type: 'cost', id: cost.id },
		kind: cost.kind,
		description: cost.description,
		quantity: cost.quantity,
		unit: cost.unit,
		unitPrice,
		vat: cost.vat,
		vatReason: cost.vatReason,
		discount: '',
		cost: ALLOWABLE_KINDS.has(cost.kind) ? formatMoney(costAmount(cost)) : '',
		date: cost.date,
		extra: false,
		...(cost.itemId ? { itemId: cost.itemId } : {}),
		amount: multiplyToMinor(decimal(cost.quantity), decimal(unitPrice))
	};
}

export interface LineMaking {
	jobId: number;
	/** A name for each line made, unique on its sheet. */
	newId: () => string;
	/** The day this work was finished, kept on the line. */
	workDone: PlainDate | null;
	/** What a line for the whole job, or for a kind, says. */
	label: (what: string) => string;
}

/** The lines of a sheet that bill these parts. Every line remembers what it bills. */
export function billLines(
	billables: readonly Billable[],
	shape: BillingShape,
	making: LineMaking
): SheetLine[] {
	if (shape === 'lines') return billables.map((one) => asLine(one, making));
	// A levy, and what is passed on exactly, stays by itself whatever the shape: it takes part in nothing.
	const apart = (one: Billable) => one.kind === 'levy' || one.vat === 'noSupply';
	const groups = new Map<string, Billable[]>();
	for (const one of billables) {
		const key = JSON.stringify([
			one.vat,
			one.vatReason,
			shape === 'kinds' || apart(one) ? one.kind : ''
		]);
		groups.set(key, [...(groups.get(key) ?? []), one]);
	}
	const ordered = [...groups.values()];
	if (shape === 'kinds')
		ordered.sort((a, b) => LINE_KINDS.indexOf(a[0]!.kind) - LINE_KINDS.indexOf(b[0]!.kind));
	return ordered.map((members) => asOneLine(members, shape, making));
}

function asLine(one: Billable, { jobId, newId, workDone }: LineMaking): SheetLine {
	const { part, date: _date, extra: _extra, amount: _amount, ...line } = one;
	return { ...line, id: newId(), type: 'line', jobId, bills: [part], ...dated(workDone) };
}

function dated(workDone: PlainDate | null): { workDone?: PlainDate } {
	return workDone ? { workDone } : {};
}

function asOneLine(members: Billable[], shape: BillingShape, making: LineMaking): SheetLine {
	const kinds = [...new Set(members.map((one) => one.kind))];
	const amount = members.reduce((sum, one) => sum + one.amount, 0n);
	const first = members[0]!;
	const kind = kinds.length === 1 ? first.kind : 'labour';
	return {
		id: making.newId(),
		type: 'line',
		kind,
		description: making.label(
			shape === 'kinds' || kind === 'levy' ? withinSentence(KIND_NAMES[kind]) : ''
		),
		// A sum below zero is a negative quantity of a positive price.
		quantity: amount < 0n ? '-1' : '1',
		unit: '',
		unitPrice: formatMoney(amount < 0n ? -amount : amount),
		vat: first.vat,
		vatReason: first.vatReason,
		discount: '',
		cost: kind === 'levy' || first.vat === 'noSupply' ? '' : combinedCost(members, kind),
		jobId: making.jobId,
		bills: members.map((one) => one.part),
		...tagsOf({
			income: agreed(members, ({ income }) => income),
			centre: agreed(members, ({ centre }) => centre)
		}),
		...dated(making.workDone)
	};
}

/** What all of them say; empty where they differ. */
function agreed(members: readonly Billable[], of: (one: Billable) => string | undefined): string {
	const first = of(members[0]!) ?? '';
	return members.every((one) => (of(one) ?? '') === first) ? first : '';
}

/**
 * The known costs of the members. Materials without a known cost within a line of another kind count at their
 * price, as `figures.md` 1.11 does for a line of its own; within their own kind the line itself does that.
 */
function combinedCost(members: Billable[], kind: LineKind): string {
	const anyKnown = members.some((one) => one.cost.trim() !== '');
	if (!anyKnown && ALLOWABLE_KINDS.has(kind)) return '';
	const sum = members.reduce((total, one) => {
		if (one.cost.trim() !== '') return total + multiplyToMinor(decimal(one.cost), decimal('1'));
		return ALLOWABLE_KINDS.has(one.kind) ? total + one.amount : total;
	}, 0n);
	return sum > 0n ? formatMoney(sum) : '';
}
