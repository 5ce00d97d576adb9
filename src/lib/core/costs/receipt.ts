// What a receipt says, from the letters a machine read off its photo: proposed, never taken. Certain is only what two things on
// the paper say independently of one another.
import { parseDate, type CalendarDate } from '@internationalized/date';

export interface Proposal<T> {
	value: T;
	/** Two things on the paper agree on it. */
	sure: boolean;
}

export interface ReceiptRead {
	/** `YYYY-MM-DD` */
	date: Proposal<string> | null;
	/** Pence, with VAT. */
	total: Proposal<number> | null;
	/** Pence. */
	vat: Proposal<number> | null;
}

interface Line {
	text: string;
	/** Pence, in order. */
	amounts: number[];
}

/** A machine takes O for 0, l for 1 and S for 5 within figures, and a comma for a full stop. */
const tidy = (text: string): string =>
	text
		.replace(/[£€]\s*/g, ' ')
		.replace(/(?<=[\d.,])[oO](?=[\d.,]|$|\s)/g, '0')
		.replace(/(?<=\d)[lI|](?=[\d.,])/g, '1');

const AMOUNT =
	/(?<![\d.,/:-])-?(\d{1,3}(?:[,  ]\d{3})+|\d{1,6})\s?[.,]\s?(\d{2})(?![\d%]|[.,/]\d)/g;

function amountsOf(text: string): number[] {
	return [...text.matchAll(AMOUNT)].map(
		([, pounds = '0', pence = '0']) => Number(pounds.replace(/\D/g, '')) * 100 + Number(pence)
	);
}

const linesOf = (text: string): Line[] =>
	text
		.split('\n')
		.map(tidy)
		.filter((line) => line.trim() !== '')
		.map((line) => ({ text: line.toLowerCase(), amounts: amountsOf(line) }));

const NO_TOTAL =
	/sub.?t[o0]tal|t[o0]tal\s+(sav|disc|items?\b|qty|vat|tax|net|excl)|net\s+t[o0]tal|vat\s+t[o0]tal|t[o0]tal\s*ex|points|balance b\/f/;
const TOTAL =
	/\b(grand\s+)?t[o0]tal\b|amount\s+(due|payable|paid)|to\s+pay|balance\s+due|please\s+pay|invoice\s+total/;
const PAID = /\b(card|visa|debit|credit|contactless|mastercard|maestro|chip|sale|paid|payment)\b/;
const CASH = /\b(cash|tendered|tender)\b/;
const CHANGE = /\bchange\b/;
const VAT = /\b(vat|v\.a\.t|tax)\b/;
const NET = /\bnet\b|sub.?t[o0]tal|excl|ex\.?\s*vat|goods\b/;
const VAT_NUMBER = /vat\s*(reg|no|number|n[o0]\.?)/;

const last = (line: Line | undefined): number | undefined => line?.amounts.at(-1);

/** What is on its own line, or alone on the next: a column that slipped. */
function valueAt(lines: readonly Line[], index: number): number | undefined {
	const here = last(lines[index]);
	if (here !== undefined) return here;
	const next = lines[index + 1];
	return next && next.amounts.length === 1 && !/[a-z]{4}/.test(next.text) ? last(next) : undefined;
}

const found = (lines: readonly Line[], is: (text: string) => boolean): number[] =>
	lines.flatMap((line, index) => {
		const value = is(line.text) ? valueAt(lines, index) : undefined;
		return value === undefined ? [] : [value];
	});

function vatOf(lines: readonly Line[]): number | null {
	const told = lines.filter(
		({ text }) => VAT.test(text) && !VAT_NUMBER.test(text) && !TOTAL.test(text)
	);
	const whole = lines.find(({ text }) => /t[o0]tal\s+(vat|tax)|(vat|tax)\s+t[o0]tal/.test(text));
	if (last(whole) !== undefined) return last(whole)!;
	// A line for each rate: the VAT is the smallest of its amounts where net and gross stand beside it.
	const each = told.flatMap(({ text, amounts }) => {
		if (/incl/.test(text) && amounts.length < 2) return [];
		if (amounts.length === 0) return [];
		return [amounts.length === 1 ? amounts[0]! : Math.min(...amounts)];
	});
	return each.length ? each.reduce((sum, one) => sum + one, 0) : null;
}

/** Each way in which something else on the paper comes to this sum. */
function witnesses(lines: readonly Line[], total: number, vat: number | null): number {
	const paid = found(lines, (text) => PAID.test(text) && !TOTAL.test(text) && !CHANGE.test(text));
	const cash = found(lines, (text) => CASH.test(text));
	const change = found(lines, (text) => CHANGE.test(text));
	const nets = found(lines, (text) => NET.test(text) && !/vat\s+incl/.test(text));
	const items = lines
		.slice(
			0,
			lines.findIndex(({ text }) => TOTAL.test(text) || NO_TOTAL.test(text))
		)
		.flatMap(({ text, amounts }) =>
			/[a-z]{3}/.test(text) && amounts.length > 0 && !VAT.test(text) ? [amounts.at(-1)!] : []
		);
	const sum = items.reduce((whole, one) => whole + one, 0);
	return [
		paid.includes(total),
		cash.some((given) => change.some((back) => given - back === total)),
		vat !== null && vat > 0 && nets.some((net) => net + vat === total),
		items.length > 1 && sum === total
	].filter(Boolean).length;
}

function totalOf(lines: readonly Line[], vat: number | null): Proposal<number> | null {
	const named = found(lines, (text) => TOTAL.test(text) && !NO_TOTAL.test(text));
	const paid = found(lines, (text) => PAID.test(text) && !CHANGE.test(text));
	const every = lines.flatMap(({ amounts }) => amounts);
	const seen = [...new Set([...named, ...paid])].filter((amount) => amount > 0);
	const candidates = seen.length ? seen : [...new Set(every)].filter((amount) => amount > 0);
	if (candidates.length === 0) return null;
	const ranked = candidates
		.map((amount) => ({
			amount,
			named: named.filter((one) => one === amount).length,
			witnesses: witnesses(lines, amount, vat)
		}))
		.sort(
			(a, b) =>
				b.witnesses + 2 * Math.min(1, b.named) - (a.witnesses + 2 * Math.min(1, a.named)) ||
				b.amount - a.amount
		);
	const [best, next] = ranked as [(typeof ranked)[number], (typeof ranked)[number]?];
	const rivals = next !== undefined && next.named > 0 && next.witnesses >= best.witnesses;
	return { value: best.amount, sure: best.named > 0 && best.witnesses > 0 && !rivals };
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

function day(year: string, month: number, date: string): CalendarDate | null {
	const full = year.length === 2 ? `20${year}` : year;
	const text = `${full}-${String(month).padStart(2, '0')}-${date.padStart(2, '0')}`;
	try {
		return parseDate(text);
	} catch {
		return null;
	}
}

function datesIn(text: string): CalendarDate[] {
	const found: (CalendarDate | null)[] = [];
	for (const [, d = '', m = '', y = ''] of text.matchAll(
		/(?<!\d)(\d{1,2})\s?[/.-]\s?(\d{1,2})\s?[/.-]\s?(\d{4}|\d{2})(?!\d)/g
	))
		found.push(day(y, Number(m), d));
	for (const [, y = '', m = '', d = ''] of text.matchAll(/(?<!\d)(20\d{2})-(\d{2})-(\d{2})(?!\d)/g))
		found.push(day(y, Number(m), d));
	for (const [, d = '', name = '', y = ''] of text.matchAll(
		/(?<!\d)(\d{1,2})(?:st|nd|rd|th)?[\s.,'-]{1,2}([a-z]{3})[a-z]*[\s.,'-]{1,2}(\d{4}|\d{2})(?!\d)/gi
	)) {
		const month = MONTHS.indexOf(name.toLowerCase());
		if (month >= 0) found.push(day(y, month + 1, d));
	}
	return found.filter((one) => one !== null);
}

/** A receipt is of a day that was, and not of long ago. */
const OLDEST_DAYS = 800;

function dateOf(text: string, today: string): Proposal<string> | null {
	const now = parseDate(today);
	const lines = text.split('\n').map(tidy);
	const possible = lines.flatMap((line) =>
		datesIn(line)
			.filter((one) => one.compare(now) <= 0 && now.compare(one) <= OLDEST_DAYS)
			.map((one) => ({ date: one.toString(), named: /\bdate\b|\btax point\b/i.test(line) }))
	);
	const [first] = possible.filter(({ named }) => named).concat(possible);
	if (!first) return null;
	const different = new Set(possible.map(({ date }) => date));
	// One day on the whole paper, named as such or beside a time of day: nothing contradicts it.
	const beside = lines.some((line) => datesIn(line).length > 0 && /\d{1,2}[:.]\d{2}/.test(line));
	return {
		value: first.date,
		sure: different.size === 1 && (first.named || beside || possible.length > 1)
	};
}

/**
 * @param text what was read, a line each
 * @param today no receipt is of a later day
 */
export function readReceipt(text: string, today: string): ReceiptRead {
	const lines = linesOf(text);
	const vat = vatOf(lines);
	const total = totalOf(lines, vat);
	const share = vat !== null && total !== null ? vat / total.value : 0;
	// VAT is at most a sixth of what is paid; anything else was read wrongly.
	const possible = vat !== null && vat > 0 && total !== null && share <= 1 / 6 + 0.002;
	return {
		date: dateOf(text, today),
		total,
		vat: possible
			? {
					value: vat,
					sure: total.sure && found(lines, (words) => NET.test(words)).includes(total.value - vat)
				}
			: null
	};
}
