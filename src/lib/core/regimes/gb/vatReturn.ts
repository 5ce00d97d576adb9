// The boxes of a VAT period, from the documents, what was paid for them, reliefs and costs.
// Source: VATA 1994 s.6, s.19, s.36; VAT Regulations 1995 reg. 24A–24C, 38, 56–65, 165–172.
import { addMonths } from '../../calendar/manipulation';
import type { PlainDate } from '../../calendar/types';
import { divideRounded, max, min } from '../../money/decimal';
import type { Minor } from '../../money/types';
import type { VatTreatment } from '../types';

export interface ReturnGroup {
	treatment: VatTreatment;
	net: Minor;
	/** Charged, or to be accounted for by the customer. */
	vat: Minor;
	reverseCharge: boolean;
}

export interface ReturnInvoice {
	id: string;
	taxPoint: PlainDate;
	issued: PlainDate;
	due: PlainDate;
	/** Issued before the work was done. */
	inAdvance: boolean;
	/** It stood in a return before it came into these books: its tax point counts in none of theirs. */
	returned?: boolean;
	/** Paid before, so that part of it took place then; the payments stand among the entries too. */
	advances: readonly { date: PlainDate; amount: Minor }[];
	groups: readonly ReturnGroup[];
	/** In the order given. */
	credits: readonly { id: string; issued: PlainDate; groups: readonly ReturnGroup[] }[];
	/** Payments and what was given back, in the order given, each with what was withheld. */
	entries: readonly {
		date: PlainDate;
		type: 'payment' | 'refund';
		amount: Minor;
		withheld: Minor;
	}[];
}

export interface ReturnInput {
	basis: 'invoice' | 'cash';
	/** Cash basis alone: since when. */
	cashFrom: PlainDate | null;
	from: PlainDate;
	to: PlainDate;
	invoices: readonly ReturnInvoice[];
	reliefs: readonly { date: PlainDate; type: 'claim' | 'repay'; vat: Minor }[];
	costs: readonly { date: PlainDate; paid: PlainDate | null; net: Minor; vat: Minor }[];
}

export type ReturnWhy = 'advance' | 'taxPoint' | 'credit' | 'payment' | 'refund';

export interface ReturnRow {
	/** The document; for money the invoice it is for. */
	id: string;
	date: PlainDate;
	why: ReturnWhy;
	net: Minor;
	vat: Minor;
}

export interface VatReturn {
	rows: ReturnRow[];
	box1: Minor;
	box3: Minor;
	box4: Minor;
	box5: Minor;
	/** Whole pounds, cut off towards zero, as all of box 6 and 7. */
	box6: bigint;
	box7: bigint;
}

/** What a document comes to: net and the VAT that is charged. */
export function totalOf(groups: readonly ReturnGroup[]): Minor {
	return groups.reduce(
		(sum, { net, vat, reverseCharge }) => sum + net + (reverseCharge ? 0n : vat),
		0n
	);
}

/** The boxes, and every row that comes to them. Documents are taken to be sound: see `readReturnInput`. */
export function vatReturn(input: ReturnInput): VatReturn {
	const within = (day: PlainDate) => input.from <= day && day <= input.to;
	const rows = input.invoices
		.flatMap((invoice) => rowsOf(invoice, input))
		.filter((row) => within(row.date) && (row.net !== 0n || row.vat !== 0n))
		.sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
	const reliefs = (type: 'claim' | 'repay') =>
		input.reliefs.reduce(
			(sum, one) => (one.type === type && within(one.date) ? sum + one.vat : sum),
			0n
		);
	const costs = input.costs.filter(({ date, paid }) => {
		const byCash = input.basis === 'cash' && !(input.cashFrom !== null && date < input.cashFrom);
		const day = byCash ? paid : date;
		return day !== null && within(day);
	});
	const box1 = rows.reduce((sum, { vat }) => sum + vat, 0n) + reliefs('repay');
	const box4 = costs.reduce((sum, { vat }) => sum + vat, 0n) + reliefs('claim');
	return {
		rows,
		box1,
		box3: box1,
		box4,
		box5: box1 - box4,
		box6: rows.reduce((sum, { net }) => sum + net, 0n) / 100n,
		box7: costs.reduce((sum, { net }) => sum + net, 0n) / 100n
	};
}

/** A year's half after a day; a month's last day stands for a day it lacks. */
const MONTHS_ON_CASH = 6;

/** What of an invoice decides whether it stays on the invoice basis although the trader is on the cash basis. */
export type ByInvoice = Pick<
	ReturnInvoice,
	'taxPoint' | 'issued' | 'due' | 'inAdvance' | 'returned'
>;

/** reg. 58 and 64A: its VAT is due by its tax point, whether or not it is paid. */
export function isDueByTaxPoint(
	invoice: ByInvoice,
	{ basis, cashFrom }: Pick<ReturnInput, 'basis' | 'cashFrom'>
): boolean {
	return (
		basis === 'invoice' ||
		invoice.returned === true ||
		invoice.inAdvance ||
		invoice.due > addMonths(invoice.issued, MONTHS_ON_CASH) ||
		(cashFrom !== null && invoice.taxPoint < cashFrom)
	);
}

const countsByInvoice = (invoice: ReturnInvoice, input: ReturnInput): boolean =>
	isDueByTaxPoint(invoice, input) || totalOf(invoice.groups) === 0n;

type Event = { id: string; date: PlainDate; why: ReturnWhy; amount: Minor };
const RANK: Record<ReturnWhy, number> = {
	advance: 0,
	taxPoint: 1,
	credit: 2,
	payment: 3,
	refund: 3
};

function eventsOf({ id, taxPoint, advances, credits, entries }: ReturnInvoice): Event[] {
	const events: Event[] = [
		...advances.map(({ date, amount }): Event => ({ id, date, why: 'advance', amount })),
		{ id, date: taxPoint, why: 'taxPoint', amount: 0n },
		...credits.map((credit): Event => ({
			id: credit.id,
			date: credit.issued,
			why: 'credit',
			amount: totalOf(credit.groups)
		})),
		...entries.map(({ date, type, amount, withheld }): Event => ({
			id,
			date,
			why: type,
			amount: amount + withheld
		}))
	];
	return events.sort((a, b) =>
		a.date === b.date ? RANK[a.why] - RANK[b.why] : a.date < b.date ? -1 : 1
	);
}

/** What each event of an invoice changes in what of it counts. */
function rowsOf(invoice: ReturnInvoice, input: ReturnInput): ReturnRow[] {
	const total = totalOf(invoice.groups);
	const byInvoice = countsByInvoice(invoice, input);
	const credits = new Map(invoice.credits.map((credit) => [credit.id, credit.groups]));
	let advanced = 0n;
	let supplied = false;
	let received = 0n;
	let credited = 0n;
	let inEffect = 0n;
	const happened: { groups: readonly ReturnGroup[]; total: Minor }[] = [];
	let before = { net: 0n, vat: 0n };
	return eventsOf(invoice).flatMap(({ id, date, why, amount }): ReturnRow[] => {
		if (why === 'advance') advanced += amount;
		if (why === 'taxPoint') supplied = true;
		if (why === 'payment') received += amount;
		if (why === 'refund') received -= amount;
		if (why === 'credit') {
			credited += amount;
			happened.push({ groups: credits.get(id)!, total: amount });
		}
		// A credit takes effect where the money for it is not held.
		inEffect = max(inEffect, min(credited, max(0n, total - received)));
		const parts = partsInEffect(happened, inEffect);
		const due = total - inEffect;
		const got = min(max(received, 0n), max(due, 0n));
		const counted = { net: 0n, vat: 0n };
		for (const group of invoice.groups) {
			const left = lessCredits(group, parts);
			const share = (of: Minor): Minor => {
				if (!byInvoice && !group.reverseCharge) return due === 0n ? 0n : divided(of * got, due);
				if (supplied) return of;
				return total === 0n ? 0n : divided(of * advanced, total);
			};
			if (group.treatment !== 'noSupply') counted.net += share(left.net);
			if (!group.reverseCharge) counted.vat += share(left.vat);
		}
		const row = { id, date, why, net: counted.net - before.net, vat: counted.vat - before.vat };
		before = counted;
		const stood = invoice.returned === true && (why === 'taxPoint' || why === 'advance');
		return stood ? [] : [row];
	});
}

/** Half away from zero, whatever the sign of the divisor. */
const divided = (numerator: bigint, denominator: bigint): bigint =>
	denominator < 0n
		? divideRounded(-numerator, -denominator)
		: divideRounded(numerator, denominator);

interface InEffect {
	groups: readonly ReturnGroup[];
	total: Minor;
	part: Minor;
}

/** What is in effect is used up by the credits in order. */
function partsInEffect(
	credits: readonly { groups: readonly ReturnGroup[]; total: Minor }[],
	inEffect: Minor
): InEffect[] {
	let left = inEffect;
	return credits.map(({ groups, total }) => {
		const part = min(left, total);
		left -= part;
		return { groups, total, part };
	});
}

function lessCredits(group: ReturnGroup, credits: readonly InEffect[]): { net: Minor; vat: Minor } {
	let { net, vat } = group;
	for (const { groups, total, part } of credits)
		for (const one of groups)
			if (one.treatment === group.treatment && one.reverseCharge === group.reverseCharge) {
				net -= divided(one.net * part, total);
				vat -= divided(one.vat * part, total);
			}
	return { net, vat };
}
