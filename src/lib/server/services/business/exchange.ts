// What other money is worth in pounds: a table of the owner's, typed or taken from a monthly file.
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { displayDate, readTypedDate } from '../../../core/calendar/conversion';
import { readExchangeFile } from '../../../core/formats/exchangeFile';
import {
	CURRENCY_NAMES,
	isCurrency,
	OTHER_CURRENCIES,
	type Currency
} from '../../../core/money/currencies';
import { FieldError } from '../../../core/refusals';
import type { ExchangeRate } from '../../../core/money/exchange';
import { readRate } from '../../../core/sheet/exchange';
import { must } from '../../actor';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { exchangeRates } from '../../db/schema';
import type { World } from '../../world';

/** Tax points are seldom older: what came before is there, and not sent along with every sheet. */
const NEWEST = 600;

const COLUMNS = {
	currency: exchangeRates.currency,
	from: exchangeRates.from,
	to: exchangeRates.to,
	rate: exchangeRates.rate,
	source: exchangeRates.source
};

/** The newest first. */
export function exchangeRatesOf(db: Reader): ExchangeRate[] {
	return db
		.select(COLUMNS)
		.from(exchangeRates)
		.orderBy(desc(exchangeRates.from), asc(exchangeRates.currency))
		.limit(NEWEST)
		.all();
}

export interface RateForm {
	currency: string;
	from: string;
	/** Empty: that day alone. */
	to: string;
	rate: string;
	source: string;
}

/**
 * Writes a rate down. A day has one rate: another one for it is refused, the same one again changes nothing.
 * @throws FieldError
 */
export function addRate(world: World, form: RateForm): void {
	must('money');
	const problems: Record<string, string> = {};
	const today = world.clock.today();
	if (!isCurrency(form.currency) || !(OTHER_CURRENCIES as string[]).includes(form.currency))
		problems.currency = 'Choose the money it is about.';
	const from = readTypedDate(form.from, today);
	if (!from) problems.from = 'Write a day such as 1 Nov or 01/11/2026.';
	const to = form.to.trim() ? readTypedDate(form.to, today) : from;
	if (!to) problems.to = 'Write a day such as 30 Nov, or leave it empty for that day alone.';
	else if (from && to < from) problems.to = 'That is before the first day.';
	const read = readRate(form.rate);
	if ('wrong' in read) problems.rate = read.wrong;
	if (form.source.trim().length > 200) problems.source = 'At most 200 characters.';
	if (Object.keys(problems).length || !from || !to || !('rate' in read))
		throw new FieldError(problems);
	const currency = form.currency as Currency;
	writeAtOnce(world.db, (tx) => {
		const clash = other(tx, { currency, from, to }, read.rate);
		if (clash) throw new FieldError({ from: clash });
		insert(tx, world, {
			currency,
			from,
			to,
			rate: read.rate,
			source: form.source.trim() || `typed on ${displayDate(today)}`
		});
	});
}

/** Why a rate does not fit what stands: some of its days have one already. */
function other(
	tx: Transaction,
	{ currency, from, to }: Pick<ExchangeRate, 'currency' | 'from' | 'to'>,
	rate: string
): string | null {
	const row = tx.get<{ from: string; to: string; rate: string }>(sql`
		select "from", "to", rate from exchange_rates
		where currency = ${currency} and "from" <= ${to} and "to" >= ${from}
			and not ("from" = ${from} and "to" = ${to} and rate = ${rate}) limit 1`);
	return row
		? `One ${CURRENCY_NAMES[currency].one} stands at £${row.rate} from ${displayDate(row.from)} to ${displayDate(row.to)} already. Take that out first.`
		: null;
}

const insert = (tx: Transaction, world: World, rate: ExchangeRate) =>
	tx
		.insert(exchangeRates)
		.values({ ...rate, recordedAt: world.clock.now() })
		.onConflictDoNothing()
		.run();

/** Takes a rate out. What was issued keeps the one it was issued with. @returns it, so that it can be put back */
export function removeRate(world: World, currency: string, from: string): ExchangeRate | null {
	must('money');
	if (!isCurrency(currency)) return null;
	return writeAtOnce(world.db, (tx) => {
		const its = and(eq(exchangeRates.currency, currency), eq(exchangeRates.from, from));
		const row = tx.select(COLUMNS).from(exchangeRates).where(its).get();
		tx.delete(exchangeRates).where(its).run();
		return row ?? null;
	});
}

/** Puts a rate back that was taken out. Once another one stands for its days, it stays out. */
export function restoreRate(world: World, rate: ExchangeRate): void {
	must('money');
	const read = readRate(rate.rate);
	if (!isCurrency(rate.currency) || !('rate' in read)) return;
	writeAtOnce(world.db, (tx) => {
		if (!other(tx, rate, rate.rate)) insert(tx, world, rate);
	});
}

/**
 * Takes a monthly file in. Money that no document here can be in is passed over.
 * @throws FieldError at `file` where it cannot be read, or a day of it has another rate already
 */
export function importRates(world: World, name: string, bytes: Uint8Array): { taken: number } {
	must('money');
	const read = readExchangeFile(bytes, name);
	if ('wrong' in read) throw new FieldError({ file: read.wrong });
	return writeAtOnce(world.db, (tx) => {
		for (const rate of read.rates) {
			const clash = other(tx, rate, rate.rate);
			if (clash) throw new FieldError({ file: `Row ${rate.row}: ${clash}` });
			insert(tx, world, rate);
		}
		return { taken: read.rates.length };
	});
}

/** What the page of rates shows: those of a year and a half, by money. */
export function exchangePage(world: World) {
	const since = addDays(world.clock.today(), -550);
	return {
		rates: exchangeRatesOf(world.db).filter((one) => one.to >= since),
		older: world.db
			.select({ n: sql<number>`count(*)` })
			.from(exchangeRates)
			.where(sql`${exchangeRates.to} < ${since}`)
			.get()!.n,
		any: world.db.select({ id: exchangeRates.id }).from(exchangeRates).limit(1).get() !== undefined
	};
}
