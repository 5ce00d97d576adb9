// Profit, sales and VAT of a period, each figure with what it is made of.
import { and, asc, isNull, sql } from 'drizzle-orm';
import { COST_CATEGORIES, type CostCategory } from '../../../core/costs/types';
import {
	earnedByCash,
	earnedByInvoice,
	type EarnedRow,
	type Period
} from '../../../core/reports/income';
import { frozenFigures } from '../../../core/documents/frozen';
import { spreadByTag } from '../../../core/reports/tags';
import { sheetLines } from '../../../core/sheet/blank';
import { vatReturn, type ReturnInvoice, type ReturnWhy } from '../../../core/regimes/gb/vatReturn';
import type { Minor } from '../../../core/money/types';
import { must } from '../../actor';
import type { Reader } from '../../db/connection';
import { purchases } from '../../db/schema';
import { turn } from '../../turn';
import type { World } from '../../world';
import { vatWays } from '../business/settings';
import { inputTax, ownCost } from '../costs/amounts';
import { reportInvoices, returnInvoice, type ReportInvoice } from './books';

export type Basis = 'cash' | 'invoice';

export interface Part {
	name: string;
	amount: Minor;
	count: number;
}

export interface Profit {
	income: Minor;
	costs: Minor;
	profit: Minor;
	byKind: Part[];
	byCustomer: (Part & { id: number })[];
	byCategory: (Part & { category: CostCategory })[];
	/** By what its lines say; empty where none says anything. */
	byIncome: Part[];
	/** What was earned and spent for each cost centre; empty where there are none. */
	byCentre: { name: string; income: Minor; costs: Minor }[];
	/** Kept by card processors. */
	fees: Minor;
	/** What pounds came to more than the rate of a document in other money had it; below zero: less. */
	exchange: Minor;
	/** Withheld by contractors in the period: already paid towards the tax on it. */
	withheld: Minor;
}

async function allInvoices(world: World, period: Period): Promise<ReportInvoice[]> {
	const all: ReportInvoice[] = [];
	for (const some of reportInvoices(world.db, period)) {
		all.push(...some);
		await turn();
	}
	return all;
}

const add = <K>(sums: Map<K, { amount: Minor; count: number }>, key: K, amount: Minor): void => {
	const now = sums.get(key) ?? { amount: 0n, count: 0 };
	sums.set(key, { amount: now.amount + amount, count: now.count + 1 });
};

const largestFirst = <T extends { amount: Minor }>(parts: T[]): T[] =>
	parts.sort((a, b) => (a.amount < b.amount ? 1 : a.amount > b.amount ? -1 : 0));

/** Costs that count in a period: by the day they were paid, or by their own. */
export const costsOf = (db: Reader, { from, to }: Period, basis: Basis) => {
	const day = basis === 'cash' ? purchases.paidOn : purchases.date;
	return db
		.select()
		.from(purchases)
		.where(and(isNull(purchases.removedAt), sql`${day} between ${from} and ${to}`))
		.orderBy(asc(day), asc(purchases.id))
		.all();
};

const said = (names: Iterable<string>): boolean => [...names].some((name) => name !== '');

/** What was earned by what the lines behind it say; a document none of whose lines says anything is not computed again. */
function earnedByTag(
	earned: readonly EarnedRow[],
	of: ReadonlyMap<number, ReportInvoice>,
	tag: 'income' | 'centre'
) {
	const sums = new Map<string, { amount: Minor; count: number }>();
	for (const { id, amount } of earned) {
		const invoice = of.get(id)!;
		const frozen =
			invoice.id === id
				? invoice.frozen
				: invoice.creditDocuments.find((credit) => credit.id === id)!.frozen;
		const rows = sheetLines(frozen.sheet);
		if (!rows.some((row) => row[tag])) {
			add(sums, '', amount);
			continue;
		}
		const { lines } = frozenFigures(frozen);
		const tagged = rows.map((row, index) => ({
			tag: row[tag] ?? '',
			net: lines[index]!.withoutVat
		}));
		for (const [name, part] of spreadByTag(amount, tagged)) add(sums, name, part);
	}
	return sums;
}

/** What was earned, less what was spent. */
export async function profitOf(world: World, period: Period, basis: Basis): Promise<Profit> {
	must('books');
	const { db } = world;
	const invoices = await allInvoices(world, period);
	const earned =
		basis === 'cash' ? earnedByCash(invoices, period) : earnedByInvoice(invoices, period);
	const of = new Map<number, ReportInvoice>();
	for (const invoice of invoices) {
		of.set(invoice.id, invoice);
		for (const { id } of invoice.credits) of.set(id, invoice);
	}
	const kinds = new Map<string, { amount: Minor; count: number }>();
	const customers = new Map<number, { amount: Minor; count: number }>();
	const names = new Map<number, string>();
	for (const { id, amount } of earned) {
		const invoice = of.get(id)!;
		add(kinds, invoice.workKind, amount);
		add(customers, invoice.customerId, amount);
		names.set(invoice.customerId, invoice.customer);
	}
	const categories = new Map<CostCategory, { amount: Minor; count: number }>();
	for (const row of costsOf(db, period, basis)) add(categories, row.category, BigInt(ownCost(row)));
	const incomes = earnedByTag(earned, of, 'income');
	const centres = earnedByTag(earned, of, 'centre');
	const spent = new Map<string, Minor>();
	for (const row of costsOf(db, period, basis))
		spent.set(row.centre, (spent.get(row.centre) ?? 0n) + BigInt(ownCost(row)));
	const fees = BigInt(
		db.get<{ sum: number }>(sql`select coalesce(sum(p.fee - p.fee_on_top), 0) as sum from payments p
			where p.date between ${period.from} and ${period.to} and p.fee > 0
				and not exists (select 1 from payment_reversals v where v.payment_id = p.id)`)!.sum
	);
	const withheld = invoices.reduce(
		(sum, { entries }) =>
			entries.reduce(
				(own, entry) =>
					entry.date < period.from || entry.date > period.to
						? own
						: own + (entry.type === 'payment' ? entry.withheld : -entry.withheld),
				sum
			),
		0n
	);
	const exchange = BigInt(
		db.get<{ sum: number }>(sql`select coalesce(-sum(l.sterling), 0) as sum
			from journal_lines l join journal_entries e on e.id = l.entry_id
			where l.account = 'exchange' and e.date between ${period.from} and ${period.to}`)!.sum
	);
	const income = earned.reduce((sum, { amount }) => sum + amount, 0n);
	const costs = [...categories.values()].reduce((sum, { amount }) => sum + amount, fees);
	return {
		income,
		costs,
		profit: income - costs + exchange,
		exchange,
		byKind: largestFirst([...kinds].map(([name, sums]) => ({ name, ...sums }))),
		byCustomer: largestFirst(
			[...customers].map(([id, sums]) => ({ id, name: names.get(id)!, ...sums }))
		),
		byCategory: COST_CATEGORIES.flatMap((category) => {
			const sums = categories.get(category);
			return sums ? [{ category, name: category, ...sums }] : [];
		}),
		byIncome: said(incomes.keys())
			? largestFirst([...incomes].map(([name, sums]) => ({ name, ...sums })))
			: [],
		byCentre:
			said(centres.keys()) || said(spent.keys())
				? [...new Set([...centres.keys(), ...spent.keys()])]
						.sort((a, b) => (a === '' ? 1 : b === '' ? -1 : a.localeCompare(b, 'en-GB')))
						.map((name) => ({
							name,
							income: centres.get(name)?.amount ?? 0n,
							costs: spent.get(name) ?? 0n
						}))
				: [],
		fees,
		withheld
	};
}

export interface VatPeriodRow {
	documentId: number;
	number: string;
	customer: string;
	date: string;
	why: ReturnWhy;
	net: Minor;
	vat: Minor;
}

/** The boxes of a VAT period, sales and costs, with every row behind them. Closing and filing come later. */
export async function vatPeriod(world: World, period: Period, basis: Basis) {
	must('tax');
	const { db } = world;
	const invoices = await allInvoices(world, period);
	const byId = new Map(
		invoices.map((one) => [String(one.id), { number: one.number, customer: one.customer }])
	);
	for (const { creditDocuments, customer } of invoices)
		for (const { id, number } of creditDocuments) byId.set(String(id), { number, customer });
	const spent = db
		.select()
		.from(purchases)
		.where(
			and(
				isNull(purchases.removedAt),
				sql`(${purchases.date} between ${period.from} and ${period.to} or ${purchases.paidOn} between ${period.from} and ${period.to})`
			)
		)
		.orderBy(asc(purchases.date), asc(purchases.id))
		.all();
	const result = vatReturn({
		basis,
		cashFrom: basis === 'cash' ? vatWays(db).cashFrom : null,
		...period,
		invoices: invoices.flatMap((one): ReturnInvoice[] => {
			const read = returnInvoice(db, one);
			return read ? [read] : [];
		}),
		reliefs: db
			.all<{ date: string; vat: number }>(
				sql`select date, vat from relief_claims where date between ${period.from} and ${period.to}`
			)
			.map(({ date, vat }) => ({
				date,
				type: vat < 0 ? 'repay' : 'claim',
				vat: BigInt(Math.abs(vat))
			})),
		costs: spent.map((row) => ({
			date: row.date,
			paid: row.paidOn,
			net: BigInt(ownCost({ ...row, vat: row.reclaim ? row.vat : 0 })),
			vat: BigInt(inputTax(row))
		}))
	});
	const counts = (row: (typeof spent)[number]) => {
		const day = basis === 'cash' ? row.paidOn : row.date;
		return day !== null && day >= period.from && day <= period.to;
	};
	return {
		...result,
		rows: result.rows.map(({ id, ...row }): VatPeriodRow => ({
			documentId: Number(id),
			...byId.get(id)!,
			...row
		})),
		costRows: spent.filter(counts).map((row) => ({
			id: row.id,
			date: row.date,
			description: row.description,
			net: BigInt(ownCost({ ...row, vat: row.reclaim ? row.vat : 0 })),
			vat: BigInt(inputTax(row))
		}))
	};
}

export type { EarnedRow };
