// What was earned in a period: by the money that came in (the cash basis of sole traders, ITTOIA 2005 s.31A to 31E), or by invoice.
import { divideRounded, max, min } from '../money/decimal';
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';

export interface EarnedInvoice {
	id: number;
	/** The day it counts by invoice. */
	issued: PlainDate;
	/** By invoice it was income of the books before these. */
	before?: boolean;
	/** Without VAT. */
	net: Minor;
	/** With what VAT was charged. */
	total: Minor;
	credits: readonly { id: number; issued: PlainDate; net: Minor; total: Minor }[];
	/** Payments, with what was withheld from them, and what was given back. */
	entries: readonly {
		date: PlainDate;
		type: 'payment' | 'refund';
		amount: Minor;
		withheld: Minor;
	}[];
}

export interface EarnedRow {
	/** The invoice, or the credit note. */
	id: number;
	date: PlainDate;
	/** Without VAT. */
	amount: Minor;
}

export interface Period {
	from: PlainDate;
	to: PlainDate;
}

const within = ({ from, to }: Period, day: PlainDate): boolean => from <= day && day <= to;

/** Each invoice and credit note on its day; of what came from other books only what is credited here. */
export function earnedByInvoice(invoices: readonly EarnedInvoice[], period: Period): EarnedRow[] {
	return inOrder(
		invoices.flatMap(({ id, issued, before, net, credits }) => [
			...(before ? [] : [{ id, date: issued, amount: net }]),
			...credits.map((credit) => ({ id: credit.id, date: credit.issued, amount: -credit.net }))
		]),
		period
	);
}

/**
 * Money as it came in, its VAT left out in proportion; a deduction counts as received. What is paid beyond an invoice counts for
 * nothing here: it is in hand. The parts of an invoice that is paid in full add up to its net.
 */
export function earnedByCash(invoices: readonly EarnedInvoice[], period: Period): EarnedRow[] {
	return inOrder(invoices.flatMap(cashRows), period);
}

function cashRows({ id, net, total, credits, entries }: EarnedInvoice): EarnedRow[] {
	const events = [
		...credits.map(({ issued, ...credit }) => ({ date: issued, credit })),
		...entries.map((entry) => ({ date: entry.date, entry }))
	].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
	let got = 0n;
	let left = { net, total };
	let counted = 0n;
	return events.map((event): EarnedRow => {
		if ('credit' in event)
			left = { net: left.net - event.credit.net, total: left.total - event.credit.total };
		else {
			const { type, amount, withheld } = event.entry;
			got += (type === 'payment' ? 1n : -1n) * (amount + withheld);
		}
		const paid = max(0n, min(got, left.total));
		const now = left.total > 0n ? divideRounded(left.net * paid, left.total) : 0n;
		const amount = now - counted;
		counted = now;
		return { id, date: event.date, amount };
	});
}

const inOrder = (rows: EarnedRow[], period: Period): EarnedRow[] =>
	rows
		.filter(({ date, amount }) => amount !== 0n && within(period, date))
		.sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.id - b.id));
