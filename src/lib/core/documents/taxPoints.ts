// When what a document bills took place, as records: one for each day, with its rule, its reason and its part of the VAT.
// Source: VATA 1994 s.6; VAT Regulations 1995 reg. 89, 90, 93 (docs/tax-gb.md 3).
import type { PlainDate } from '../calendar/types';
import type { InvoiceFigures } from '../figures/types';
import { converted, divideRounded } from '../money/decimal';
import type { Minor } from '../money/types';
import type { VatTreatment } from '../regimes/types';
import { supplyPoints, type SupplyPoint, type TaxPointRule } from '../regimes/gb/taxPoints';
import { settle } from '../settlement/settle';
import { sheetLines } from '../sheet/blank';
import { lineTaxPoint } from '../sheet/taxPoint';
import type { Frozen, TaxPointRecord } from './types';

/** Money that came before the document, and pays it. */
export interface Advance {
	date: PlainDate;
	/** Without what was withheld from it. */
	amount: Minor;
}

interface Bucket {
	date: PlainDate;
	rule: TaxPointRule;
	because: SupplyPoint['because'];
	/** Its part of each treatment's lines; of what has no VAT at all, by the treatment `null`. */
	weights: Map<VatTreatment | null, Minor>;
}

/**
 * The records of a document, by date. Lines whose work ended on a day of its own take place then; the rest on the document's
 * tax point, but for what was paid before.
 * @param point why the document's own tax point is what it is
 */
export function taxPointRecords(
	frozen: Omit<Frozen, 'taxPoints'>,
	figures: InvoiceFigures,
	point: { rule: TaxPointRule; because: SupplyPoint['because'] },
	isRegistered: (day: PlainDate) => boolean,
	advances: readonly Advance[] = []
): TaxPointRecord[] {
	const { rule, because } = point;
	const registered = figures.vat.length > 0;
	const days = new Map<PlainDate, Bucket>();
	for (const [index, line] of sheetLines(frozen.sheet).entries()) {
		const own = lineTaxPoint(line, frozen);
		const date = own ?? frozen.taxPoint;
		const bucket: Bucket = days.get(date) ?? {
			date,
			...(own === null ? { rule, because } : { rule: 'work', because: 'work' }),
			weights: new Map()
		};
		const treatment = registered ? line.vat : null;
		const weight = bucket.weights.get(treatment) ?? 0n;
		bucket.weights.set(treatment, weight + figures.lines[index]!.taxable);
		days.set(date, bucket);
	}
	const [only, ...more] = days.values();
	const buckets =
		only && more.length === 0 && advances.length > 0
			? paidBefore(frozen, figures, only, isRegistered, advances)
			: [...days.values()];
	buckets.sort((a, b) => (a.date < b.date ? -1 : 1));
	const records = buckets.map(({ date, rule: by, because: why }): TaxPointRecord => ({
		date,
		rule: by,
		because: why,
		net: 0,
		vatCharged: 0,
		vatReverseCharged: 0,
		vat: isRegistered(date)
	}));
	const { sterling } = figures;
	// The books and the tax office want pounds.
	const pence = (amount: Minor) => (sterling ? converted(amount, sterling.rate) : amount);
	const groups = registered
		? figures.vat.map((group) => ({ ...group, net: pence(group.net), vat: pence(group.vat) }))
		: [{ treatment: null, net: sterling?.net ?? figures.net, vat: 0n, reverseCharge: false }];
	for (const { treatment, net, vat, reverseCharge } of groups) {
		const weights = buckets.map((bucket) => bucket.weights.get(treatment) ?? 0n);
		const [nets, vats] = [shared(net, weights), shared(vat, weights)];
		for (const [index, record] of records.entries()) {
			record.net += Number(nets[index]);
			record[reverseCharge ? 'vatReverseCharged' : 'vatCharged'] += Number(vats[index]);
		}
	}
	return records;
}

/** What was paid before the supply otherwise took place, took place when it was paid. */
function paidBefore(
	{ issueDate, workFinished, taxPoint }: Omit<Frozen, 'taxPoints'>,
	{ total, cis }: InvoiceFigures,
	{ rule, because, weights }: Bucket,
	isRegistered: (day: PlainDate) => boolean,
	advances: readonly Advance[]
): Bucket[] {
	const payable = total - (cis?.deduction ?? 0n);
	let left = payable;
	const entries = advances.flatMap(({ date, amount }) => {
		const part = amount < left ? amount : left;
		left -= part;
		return part > 0n
			? [{ date, type: 'payment' as const, amount: part, withheld: null, deduction: null }]
			: [];
	});
	const { entries: settled } = settle({ total, deduction: cis?.deduction ?? null, entries });
	const points = supplyPoints(
		{
			rule,
			workFinished: rule === 'work' ? workFinished : null,
			issued: issueDate,
			total,
			payments: entries.map(({ date, amount }, index) => ({
				date,
				amount: amount + settled[index]!.withheld
			}))
		},
		isRegistered
	);
	const early = points.filter((one) => one.because === 'payment');
	const rest = total - early.reduce((sum, { amount }) => sum + amount, 0n);
	// The rest may be of a day on which something was paid as well: a day has one record.
	const last = early.at(-1);
	if (last?.date === taxPoint) last.amount += rest;
	else if (rest > 0n) early.push({ date: taxPoint, because, amount: rest, vat: false });
	// A part of the whole is that part of every rate in it.
	return early.map((one) => ({
		date: one.date,
		rule,
		because: one.because,
		weights: new Map([...weights.keys()].map((treatment) => [treatment, one.amount]))
	}));
}

/** In proportion, each worked out on the running sum, so that the parts are the whole; also where some are below zero. */
function shared(amount: Minor, weights: readonly Minor[]): Minor[] {
	const whole = weights.reduce((sum, one) => sum + one, 0n);
	let [so, given] = [0n, 0n];
	const last = weights.findLastIndex((weight) => weight !== 0n);
	return weights.map((weight, index) => {
		so += weight;
		const upTo =
			index >= (last < 0 ? weights.length - 1 : last)
				? amount
				: whole === 0n
					? 0n
					: whole < 0n
						? divideRounded(-amount * so, -whole)
						: divideRounded(amount * so, whole);
		const part = upTo - given;
		given = upTo;
		return part;
	});
}
