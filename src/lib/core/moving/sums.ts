// What an invoice out of other books comes to: net, VAT and total at each rate, from whichever of them the file has.
import { displayDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import { absolute, formatDecimal, max, percentOf, taxWithin } from '../money/decimal';
import { displayMoney } from '../money/display';
import type { Minor } from '../money/types';
import { rateOn } from '../regimes/gb/rates';
import type { VatTreatment } from '../regimes/types';
import { readSum, RowError } from './reading';

export interface OpeningGroup {
	treatment: VatTreatment;
	/** What was charged then, without VAT and without what was held back. */
	net: Minor;
	vat: Minor;
}

const TREATMENTS: readonly (readonly [VatTreatment, RegExp])[] = [
	['exempt', /exempt/],
	['outside', /outside|out of scope|no vat/],
	['reduced', /reduced/],
	['zero', /zero/],
	['standard', /standard|full/]
];

/** Pence by which other books round VAT otherwise: by line, or down. */
const ROUNDING = 100n;

/** A row's part of an invoice at one rate. @throws RowError */
export function readGroup(
	values: Record<'net' | 'vat' | 'total' | 'rate', string>,
	day: PlainDate,
	registered: boolean,
	reversed: boolean
): OpeningGroup {
	const said = {
		net: readSum(values.net, 'Net'),
		vat: readSum(values.vat, 'VAT'),
		total: readSum(values.total, 'Total')
	};
	if (!registered) {
		if (said.vat)
			throw new RowError(
				`It has VAT, and by your settings you were not registered on ${displayDate(day)}.`
			);
		const net = said.net ?? said.total;
		if (net === null) throw new RowError('It has no sum.');
		refuseOther(net, said.total);
		return { treatment: 'standard', net, vat: 0n };
	}
	const named = treatmentOf(values.rate, day);
	const { net, vat } = sumsOf(said, named, day, reversed);
	refuseOther(reversed ? net : net + vat, said.total);
	const treatment = named ?? guessed(net, vat, day);
	if (!treatment)
		throw new RowError(
			`VAT of ${displayMoney(vat)} on ${displayMoney(net)} is at no rate that was in force. Where it has several, give each a row.`
		);
	const rate = rateOn(treatment, day);
	const worked = rate ? percentOf(net, rate.rate) : 0n;
	// Under the reverse charge the customer accounts for it, and nothing was charged.
	if (reversed) return { treatment, net, vat: worked };
	if (absolute(worked - vat) > (rate && rate.rate.units > 0n ? ROUNDING : 0n))
		throw new RowError(
			`VAT ${rate ? `at ${formatDecimal(rate.rate)} % ` : ''}on ${displayMoney(net)} is ${displayMoney(worked)}, not ${displayMoney(vat)}.`
		);
	return { treatment, net, vat };
}

function refuseOther(worked: Minor, total: Minor | null): void {
	if (total !== null && total !== worked)
		throw new RowError(
			`Net and VAT come to ${displayMoney(worked)}, and the total says ${displayMoney(total)}.`
		);
}

/** By name or by percentage; null where nothing is said. @throws RowError */
export function treatmentOf(cell: string, day: PlainDate): VatTreatment | null {
	const word = cell.toLowerCase();
	if (word === '') return null;
	const named = TREATMENTS.find(([, pattern]) => pattern.test(word));
	if (named) return named[0];
	const percent = /(\d+(?:\.\d+)?)\s*%?/.exec(word)?.[1];
	const found = (['standard', 'reduced', 'zero'] as const).find((treatment) => {
		const dated = rateOn(treatment, day);
		return dated && percent !== undefined && Number(percent) === Number(formatDecimal(dated.rate));
	});
	if (found) return found;
	throw new RowError(`“${cell.slice(0, 20)}” is no rate of VAT on ${displayDate(day)}.`);
}

function sumsOf(
	said: { net: Minor | null; vat: Minor | null; total: Minor | null },
	named: VatTreatment | null,
	day: PlainDate,
	reversed: boolean
): { net: Minor; vat: Minor } {
	const rate = named === null ? null : rateOn(named, day);
	const known = named !== null;
	if (said.net !== null) {
		if (said.vat !== null) return { net: said.net, vat: said.vat };
		if (reversed) return { net: said.net, vat: 0n };
		if (said.total !== null) return { net: said.net, vat: max(said.total - said.net, 0n) };
		if (known) return { net: said.net, vat: rate ? percentOf(said.net, rate.rate) : 0n };
		throw new RowError('It does not say its VAT, nor the rate.');
	}
	if (said.total === null) throw new RowError('It has no sum.');
	if (reversed) return { net: said.total, vat: 0n };
	if (said.vat !== null) return { net: max(said.total - said.vat, 0n), vat: said.vat };
	if (!known) throw new RowError('It does not say its VAT, nor the rate.');
	const vat = rate ? taxWithin(said.total, rate.rate) : 0n;
	return { net: said.total - vat, vat };
}

/** The rate at which a sum has this VAT. */
function guessed(net: Minor, vat: Minor, day: PlainDate): VatTreatment | null {
	if (vat === 0n) return 'zero';
	const near = (treatment: VatTreatment) => {
		const dated = rateOn(treatment, day);
		if (!dated) return false;
		const worked = percentOf(net, dated.rate);
		return absolute(worked - vat) <= max(2n, net / 1000n);
	};
	return near('standard') ? 'standard' : near('reduced') ? 'reduced' : null;
}

/** Rows of one rate are one group. */
export function joined(groups: readonly OpeningGroup[]): OpeningGroup[] {
	const found = new Map<VatTreatment, OpeningGroup>();
	for (const { treatment, net, vat } of groups) {
		const so = found.get(treatment) ?? { treatment, net: 0n, vat: 0n };
		found.set(treatment, { treatment, net: so.net + net, vat: so.vat + vat });
	}
	return [...found.values()];
}
