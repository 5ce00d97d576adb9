// The sheet of an invoice out of other books: a line for each rate, so that net, VAT, deduction and retention come out as
// they stand there.
import { displayDate } from '../calendar/conversion';
import type { InvoiceFigures } from '../figures/types';
import { BOOKS } from '../money/currencies';
import { divideRounded, formatDecimal, formatMoney, min, percentOf } from '../money/decimal';
import { shareOut } from '../money/sharing';
import { displayMoney } from '../money/display';
import type { Decimal, Minor } from '../money/types';
import { rateOn } from '../regimes/gb/rates';
import { blankLine, blankSheet } from '../sheet/blank';
import type { Opening, Sheet, SheetLine } from '../sheet/types';
import type { OpeningInvoice } from './invoices';
import { RowError } from './reading';

export interface OpeningParties {
	customerId: number;
	contractor: boolean;
	/** Percent; null: nothing is deducted. */
	cisRate: string | null;
	/** The job on which something is held back. */
	jobId: number | null;
}

/** A percentage is written with at most so many decimals. */
const PERCENT = 10_000n;

/** @throws RowError where the sums do not fit together */
export function openingSheet(invoice: OpeningInvoice, parties: OpeningParties): Sheet {
	const { number, taxPoint, returned, groups, reversed, retention, net, currency } = invoice;
	const percent: Decimal = {
		units: retention === 0n ? 0n : divideRounded(retention * 100n * PERCENT, net + retention),
		scale: 4
	};
	const held = shareOut(
		retention,
		groups.map((group) => group.net)
	);
	const deduction = invoice.deduction ?? 0n;
	const costs = costsBehind(invoice, deduction, parties.cisRate, percent);
	const vat: NonNullable<Opening['vat']> = {};
	for (const group of groups) {
		const rate = rateOn(group.treatment, taxPoint);
		if (!reversed && rate && percentOf(group.net, rate.rate) !== group.vat)
			vat[group.treatment] = formatMoney(group.vat);
	}
	return {
		...blankSheet(),
		customerId: parties.customerId,
		contract: parties.contractor ? (deduction > 0n || reversed ? 'construction' : 'none') : null,
		issueDate: invoice.issued,
		dueDate: invoice.due ?? '',
		reference: invoice.reference,
		orderNumber: invoice.order,
		...(currency === BOOKS
			? {}
			: {
					currency,
					...(invoice.exchange
						? { exchange: { rate: invoice.exchange, source: 'as brought in from other books' } }
						: {})
				}),
		...(retention > 0n
			? {
					retention: formatDecimal(percent),
					retentionDue: invoice.retentionDue ?? ''
				}
			: {}),
		opening: {
			number,
			taxPoint,
			returned: returned ?? false,
			...(Object.keys(vat).length ? { vat } : {})
		},
		...(invoice.deposit ? { deposit: invoice.deposit } : {}),
		rows: groups.map((group, index): SheetLine => ({
			...blankLine(`r${index + 1}`),
			description: invoice.description || `As invoiced on ${displayDate(invoice.issued)}`,
			unitPrice: formatMoney(group.net + held[index]!),
			vat: group.treatment,
			cost: costs[index]! > 0n ? formatMoney(costs[index]!) : '',
			...(parties.jobId === null ? {} : { jobId: parties.jobId })
		}))
	};
}

/** What of each line is materials, so that the rest has this deduction (FA 2004 s.61). */
function costsBehind(
	{ groups, net }: OpeningInvoice,
	deduction: Minor,
	cisRate: string | null,
	held: Decimal
): Minor[] {
	if (deduction === 0n) return groups.map(() => 0n);
	if (cisRate === null || cisRate === '0')
		throw new RowError(
			'A deduction is expected, and by its page this customer deducts nothing. Set its CIS rate there first.'
		);
	const base = divideRounded(deduction * 100n, BigInt(cisRate));
	if (base > net)
		throw new RowError(
			`At ${cisRate} % at most ${displayMoney(percentOf(net, { units: BigInt(cisRate), scale: 0 }))} is deducted from ${displayMoney(net)}.`
		);
	let materials = net - base;
	return groups.map((group) => {
		const part = min(materials, group.net);
		materials -= part;
		return costLeaving(part, held);
	});
}

/** The cost of which this much counts, once a part of it is held back. */
function costLeaving(part: Minor, held: Decimal): Minor {
	if (held.units === 0n) return part;
	const about = divideRounded(part * 100n * PERCENT, 100n * PERCENT - held.units);
	const exact = [0n, -1n, 1n, -2n, 2n].find(
		(off) => about + off - percentOf(about + off, held) === part
	);
	return about + (exact ?? 0n);
}

/** That the sheet comes to what the other books have. @throws RowError */
export function refuseDifferences(invoice: OpeningInvoice, figures: InvoiceFigures): void {
	const { currency } = invoice;
	const differences: [string, Minor, Minor][] = [
		['Net', figures.net, invoice.net],
		['VAT', figures.vatCharged, invoice.vat],
		['What is held back', figures.retention, invoice.retention],
		['The deduction', figures.cis?.deduction ?? 0n, invoice.deduction ?? 0n]
	];
	for (const [what, worked, said] of differences)
		if (worked !== said)
			throw new RowError(
				`${what} would come to ${displayMoney(worked, currency)}, not ${displayMoney(said, currency)}. Give each rate a row of its own, and what is held back as whole per cent.`
			);
}
