// A quote as typed, and as a customer chooses on it: every figure worked out, every problem named. The same in the browser and on
// the server.
import { addDays } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';
import { FiguresError, type Discount, type InvoiceInput } from '../figures/types';
import { parseDecimal } from '../money/decimal';
import { readTypedNumber } from '../money/typed';
import type { Minor } from '../money/types';
import { GB } from '../regimes/gb';
import type { SheetContext } from '../sheet/context';
import { readDiscount } from '../sheet/discount';
import { readSheet, type SheetReading } from '../sheet/read';
import type { Problem, Sheet, SheetLine } from '../sheet/types';
import { computeQuote, groupsOf, type QuoteFigures, type QuoteInput } from './figures';
import { type Picked, NOTHING_PICKED, scaled } from './chosen';

export interface QuoteReading extends SheetReading {
	quote: QuoteFigures | null;
	/** As it is computed, with what was chosen. */
	asked: QuoteInput | null;
	validUntil: PlainDate;
	/** Cost and margin of what is in. Null where no line in it has a cost. */
	margin: Margin | null;
}

export interface Margin {
	net: Minor;
	cost: Minor;
	margin: Minor;
}

type Stop = (path: string, message: string) => void;

export function readQuote(
	sheet: Sheet,
	context: SheetContext,
	picked: Picked = NOTHING_PICKED
): QuoteReading {
	const terms = sheet.quote!;
	const reading = readSheet({ ...sheet, discount: '', retention: '' }, context);
	// Discount and retention are those of the whole, not of all lines there are.
	const whole = readSheet(sheet, context);
	const problems = [
		...reading.problems,
		...whole.problems.filter(
			({ path, level }) =>
				level === 'stop' &&
				(path === 'retention' || path === 'discount') &&
				!reading.problems.some((one) => one.path === path)
		)
	];
	const stop: Stop = (path, message) => problems.push({ path, level: 'stop', message });
	const days = /^\d{1,3}$/.test(terms.validDays.trim()) ? Number(terms.validDays.trim()) : null;
	if (days === null || days < 1)
		stop('quote.validDays', 'For how many days does it hold? From 1 to 999.');
	readTerms(sheet, reading, stop);
	const deposit = readDiscount(terms.deposit, 'quote.deposit', stop);
	const asked =
		reading.input && whole.input ? askedOf(reading.lines, whole.input, deposit, picked) : null;
	const quote = asked && computeAnyway(asked, reading.lines, problems);
	return {
		...reading,
		problems,
		asked,
		quote,
		validUntil: addDays(reading.dates.issueDate, days ?? 28),
		margin: quote && marginOf(reading.lines, asked!, quote)
	};
}

/** What the lines of a quote come to, as somebody chose. */
export function askedOf(
	lines: readonly SheetLine[],
	{ reverseCharge: _, ...input }: InvoiceInput,
	deposit: Discount | null,
	{ options, extras }: Picked
): QuoteInput {
	return {
		...input,
		lines: input.lines.map((line, index) => {
			const { id, choice, extra, most } = lines[index]!;
			const many = extra && most ? parseDecimal(extras[id] ?? '') : null;
			return {
				...line,
				...(many ? { quantity: many } : {}),
				choice: choice ? { group: choice.group.trim(), option: choice.option.trim() } : null,
				extra: extra ?? false
			};
		}),
		chosen: {
			options,
			extras: lines.flatMap(({ id, extra }, index) =>
				extra && Object.hasOwn(extras, id) ? [index] : []
			)
		},
		deposit
	};
}

function computeAnyway(
	asked: QuoteInput,
	lines: readonly SheetLine[],
	problems: Problem[]
): QuoteFigures | null {
	let attempt = asked;
	for (let tries = 0; tries < 4; tries++) {
		try {
			return computeQuote(attempt, GB);
		} catch (error) {
			if (!(error instanceof FiguresError)) throw error;
			const { path } = error;
			if (path === 'chosen') {
				problems.push({
					path: '',
					level: 'stop',
					message: 'Everything on it is optional: without a choice there is nothing on it.'
				});
				return null;
			}
			if (path === 'deposit') {
				problems.push({
					path: 'quote.deposit',
					level: 'stop',
					message: 'At most what it comes to.'
				});
				attempt = { ...attempt, deposit: null };
			} else if (path === 'discount') {
				if (!problems.some((one) => one.path === 'discount'))
					problems.push({
						path: 'discount',
						level: 'stop',
						message: 'The discount is larger than what is chosen first comes to.'
					});
				attempt = { ...attempt, discount: null };
			} else if (path === 'pricesIncludeVat') attempt = { ...attempt, pricesIncludeVat: false };
			else if (path === 'vatRounding') attempt = { ...attempt, vatRounding: 'nearest' };
			else if (path === 'retention') attempt = { ...attempt, retention: null };
			else {
				const index = Number(/^lines\.(\d+)/.exec(path)?.[1] ?? NaN);
				const row = lines[index];
				if (row && !problems.some((one) => one.path.startsWith(`rows.${row.id}`)))
					problems.push({
						path: `rows.${row.id}.unitPrice`,
						level: 'stop',
						message: 'This line cannot be worked out as it stands.'
					});
				return null;
			}
		}
	}
	return null;
}

function readTerms(sheet: Sheet, { lines, customer }: SheetReading, stop: Stop): void {
	const terms = sheet.quote!;
	if (terms.title.trim().length > 200) stop('quote.title', 'At most 200 characters.');
	for (const name of ['before', 'notIncluded', 'assumed', 'guarantee', 'terms'] as const)
		if (terms[name].length > 10_000) stop(`quote.${name}`, 'At most 10,000 characters.');
	for (const name of ['begin', 'duration'] as const)
		if (terms[name].length > 200) stop(`quote.${name}`, 'At most 200 characters.');
	if (sheet.currency && sheet.currency !== 'GBP')
		stop('currency', 'A quote is in pounds; its invoice can be in other money.');
	for (const { id, choice, extra, most } of lines) {
		if (choice && extra)
			stop(`rows.${id}.extra`, 'One of several, or something that may be added: not both.');
		if (choice && (choice.group.trim() === '' || choice.option.trim() === ''))
			stop(`rows.${id}.choice`, 'Name what is chosen, and this way of it.');
		if (most !== undefined && most.trim() !== '') {
			const read = readTypedNumber(most, { decimals: 4 });
			if (!read.ok) stop(`rows.${id}.most`, 'Up to how many? Such as 10.');
		}
	}
	for (const [group, options] of groupsOf(
		lines.map(({ choice }) => ({
			choice: choice ? { group: choice.group.trim(), option: choice.option.trim() } : null
		}))
	))
		if (options.length < 2) {
			const row = lines.find(({ choice }) => choice?.group.trim() === group);
			stop(`rows.${row!.id}.choice`, `“${group}” has one alternative: give it another, or none.`);
		}
	let sum = 0n;
	for (const [index, { title, percent }] of terms.stages.entries()) {
		const last = index === terms.stages.length - 1;
		if (title.trim() === '') stop(`quote.stages.${index}.title`, 'When is this part due?');
		if (last) continue;
		const read = readTypedNumber(percent.replace(/%$/, ''), { decimals: 2 });
		const value = read.ok ? parseDecimal(read.text)! : null;
		const hundredths = value ? (value.units * 100n) / 10n ** BigInt(value.scale) : 0n;
		if (!value || hundredths <= 0n || hundredths > 10_000n)
			stop(`quote.stages.${index}.percent`, 'A percentage from 1 to 100.');
		sum += hundredths;
	}
	if (sum >= 10_000n) stop('quote.stages', 'The stages come to all of it before the last one.');
	if (!customer) return;
	if (customer.kind === 'contractor' && sheet.contract === null)
		stop('contract', 'Say whether the contract contains construction work.');
}

/** What is missing before it can go out. */
export function missingToSend(sheet: Sheet, reading: QuoteReading): Problem[] {
	const problems: Problem[] = [];
	const stop = (path: string, message: string) =>
		problems.push({ path, level: 'stop', message, atIssue: true });
	if (!reading.customer) stop('customer', 'Choose the customer.');
	if (reading.lines.length === 0) stop('', 'Nothing is on it yet.');
	if (sheet.quote!.title.trim() === '') stop('quote.title', 'Say in a few words what it is for.');
	// SI 2013/3134 Sch. 2(b) and (c): who we are, and where.
	if (reading.customer?.kind === 'household' && reading.seller.address.trim() === '')
		stop('seller.address', 'A household must be told your address: give it in the settings.');
	for (const { id, description } of reading.lines)
		if (description.trim() === '') stop(`rows.${id}.description`, 'Say what this line is for.');
	return problems;
}

function marginOf(
	lines: readonly SheetLine[],
	asked: QuoteInput,
	{ included, figures }: QuoteFigures
): Margin | null {
	let cost = 0n;
	let known = false;
	for (const index of included) {
		const line = asked.lines[index]!;
		if (line.cost === null) continue;
		known = true;
		const typed = lines[index]!;
		const before = parseDecimal(typed.quantity.trim() || '1');
		// What is bought goes with how many there are.
		cost +=
			typed.most && before && before.units > 0n && line.quantity !== before
				? scaled(line.cost, line.quantity, before)
				: line.cost;
	}
	return known ? { net: figures.net, cost, margin: figures.net - cost } : null;
}
