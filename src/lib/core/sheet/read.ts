// From what is typed to what is computed: every field read, every figure worked out, every problem named.
// Runs in the browser while typing and on the server when saving and issuing: the same answer in both.
import { readTypedDate } from '../calendar/conversion';
import { dueDate } from '../calendar/terms';
import type { PlainDate } from '../calendar/types';
import { customerOn, sellerOn } from '../parties';
import type { CustomerFacts, SellerFacts } from '../documents/types';
import { computeInvoice } from '../figures/invoice';
import {
	FiguresError,
	type InvoiceFigures,
	type InvoiceInput,
	type LineInput
} from '../figures/types';
import { BOOKS } from '../money/currencies';
import { multiplyToMinor, parseDecimal, parseMoney } from '../money/decimal';
import { explainTypedNumber, readTypedNumber, type TypedNumberLimits } from '../money/typed';
import type { Decimal } from '../money/types';
import { GB } from '../regimes/gb';
import { decideTaxPoint } from '../regimes/gb/taxPoint';
import { explainFiguresError } from './explain';
import type { Exchange } from '../money/exchange';
import { decideExchange } from './exchange';
import { contracting } from './contracting';
import { customerFor, readOwn, sellerFor } from './own';
import { readDiscount } from './discount';
import { readPrompt } from './prompt';
import { taxPointRuleOf } from './taxPoint';
import { sheetLines } from './blank';
import type { Follows, SheetContext, SheetDates } from './context';
import { lawProblems } from '../regimes/gb/law';
import type { Opening, Problem, Sheet, SheetLine } from './types';

export const LONGEST_TEXT = 10_000;
export const MOST_ROWS = 1_000;
/** Pence. Above it an invoice is a slip of the finger, and sums would leave the exact range. */
const LARGEST_TOTAL = 10_000_000_000_00n;

export interface SheetReading {
	dates: SheetDates;
	seller: SellerFacts;
	customer: CustomerFacts | null;
	/** The rows that became lines of the computation, in its order. */
	lines: SheetLine[];
	/** Null in pounds, and where no rate is known. */
	exchange: Exchange | null;
	input: InvoiceInput | null;
	figures: InvoiceFigures | null;
	problems: Problem[];
}

export function readSheet(sheet: Sheet, context: SheetContext): SheetReading {
	const problems: Problem[] = [];
	const stop = (path: string, message: string) => problems.push({ path, level: 'stop', message });

	const dates = readDates(sheet, context, stop);
	const taxDate = context.corrects?.taxPoint ?? dates.taxPoint.date;
	const seller = sellerFor(sellerOn(context.seller, taxDate), sheet);
	const named = context.customer && customerFor(customerOn(context.customer, taxDate), sheet);
	const customer = named && contracting(named, sheet, context);

	readTexts(sheet, stop);
	readPrompt(sheet, stop);
	readOwn(sheet, stop);
	const lines = sheetLines(sheet);
	const { currency = BOOKS } = sheet;
	const exchange = decideExchange(sheet, context, taxDate, problems);
	const input: InvoiceInput | null = lines.length
		? {
				date: sheet.rateOfWork ? dates.workFinished : taxDate,
				currency,
				// Without a rate the document's own amounts are still worth seeing.
				sterlingRate: currency === BOOKS ? null : parseDecimal(exchange?.rate ?? '1'),
				pricesIncludeVat: seller.vatRegistered && sheet.pricesIncludeVat,
				vatRounding: sheet.roundVatDown ? 'down' : 'nearest',
				seller: { vatRegistered: seller.vatRegistered },
				customer: {
					kind: customer?.kind ?? 'household',
					vatRegistered: customer?.standing.vatRegistered ?? false,
					cisRegistered: customer?.kind === 'contractor' && customer.standing.cisRegistered,
					endUser: customer?.kind === 'contractor' && customer.standing.endUser
				},
				contract: sheet.contract ?? 'construction',
				cisRate: customer?.kind === 'contractor' ? customer.standing.cisRate : null,
				reverseCharge: seller.vatRegistered
					? ((context.corrects ?? context.follows)?.reverseCharge ?? null)
					: null,
				lines: lines.map((line) => readLine(line, seller.vatRegistered, stop)),
				discount: readDiscount(sheet.discount, 'discount', stop),
				retention: readRetention(sheet.retention, stop),
				...(sheet.opening?.vat ? { statedVat: statedVat(sheet.opening.vat) } : {})
			}
		: null;
	const computed = input && computeAnyway(input, lines, problems);
	const figures = computed && currency !== BOOKS && !exchange ? unconverted(computed) : computed;
	if (figures && (figures.total > LARGEST_TOTAL || figures.total < -LARGEST_TOTAL)) {
		stop(
			'total',
			'That is more than any invoice can be here: look for a slip in a quantity or price.'
		);
	}
	// A quote is no invoice: what the law wants of it is said where it is read (`quotes/read.ts`).
	if (!sheet.quote)
		problems.push(
			...lawProblems({ sheet, context, dates, seller, customer, lines, input, figures })
		);
	return { dates, seller, customer, lines, exchange, input, figures, problems };
}

/** Without what a rate would make of it. */
const unconverted = (figures: InvoiceFigures): InvoiceFigures => ({
	...figures,
	sterling: null,
	workings: new Map([...figures.workings].filter(([path]) => !path.startsWith('sterling.')))
});

type Stop = (path: string, message: string) => void;

function readDates(sheet: Sheet, context: SheetContext, stop: Stop): SheetDates {
	const read = (typed: string, otherwise: PlainDate, path: string): PlainDate => {
		if (typed.trim() === '') return otherwise;
		const date = readTypedDate(typed, context.today);
		if (date === null) stop(path, 'Write a day such as 24 Nov or 24/11/2026.');
		return date ?? otherwise;
	};
	const issueDate = read(sheet.issueDate, context.today, 'issueDate');
	const workFinished = read(sheet.workFinished, issueDate, 'workFinished');
	let terms = context.customer?.terms ?? context.seller.terms;
	if (sheet.termsDays.trim() !== '') {
		const days = /^\d{1,3}$/.test(sheet.termsDays.trim()) ? Number(sheet.termsDays) : null;
		if (days === null) stop('termsDays', 'Terms are a number of days, from 0 to 999.');
		else terms = { days, endOfMonth: false };
	}
	read(sheet.endUser?.date ?? '', issueDate, 'endUser.date');
	read(sheet.selfBilled?.agreedOn ?? '', issueDate, 'selfBilled.agreedOn');
	const due = read(sheet.dueDate, dueDate(issueDate, terms), 'dueDate');
	if (due < issueDate) stop('dueDate', 'It would be due before it is issued.');
	const decided = decideTaxPoint(
		{
			rule: taxPointRuleOf(sheet),
			workFinished,
			issued: issueDate,
			paidOn: sheet.paidOn ?? null
		},
		(day) => sellerOn(context.seller, day).vatRegistered
	);
	const taxPoint = sheet.opening ? { ...decided, date: sheet.opening.taxPoint } : decided;
	const corrected = context.follows?.of;
	return {
		issueDate,
		workFinished,
		taxPoint:
			corrected && workFinished === corrected.workFinished
				? taxPointOf(corrected, taxPoint)
				: taxPoint,
		dueDate: due,
		terms
	};
}

/** It is the supply of the invoice it corrects, at the same tax point. */
function taxPointOf(
	{ taxPoint, number }: NonNullable<Follows['of']>,
	own: SheetDates['taxPoint']
): SheetDates['taxPoint'] {
	return {
		...own,
		date: taxPoint,
		because: 'invoice',
		reason: `It is the supply of ${number}, so its tax point stays.`,
		reference: 'VATA 1994 s.6; VAT Regulations 1995 reg. 15C',
		lastDayInTime: null
	};
}

function readTexts(sheet: Sheet, stop: Stop): void {
	const check = (text: string, path: string, most: number) => {
		if (text.length > most)
			stop(
				path,
				`At most ${most.toLocaleString('en-GB')} characters here; these are ${text.length.toLocaleString('en-GB')}.`
			);
	};
	check(sheet.reference, 'reference', 200);
	check(sheet.orderNumber, 'orderNumber', 200);
	check(sheet.note, 'note', LONGEST_TEXT);
	check(sheet.contractReason ?? '', 'contractReason', 500);
	check(sheet.endUser?.statement ?? '', 'endUser.statement', 500);
	check(sheet.selfBilled?.number ?? '', 'selfBilled.number', 60);
	check(sheet.about?.reason ?? '', 'about.reason', 300);
	for (const row of sheet.rows) {
		if (row.type === 'heading') check(row.text, `rows.${row.id}.text`, 500);
		else {
			check(row.description, `rows.${row.id}.description`, LONGEST_TEXT);
			check(row.unit, `rows.${row.id}.unit`, 30);
		}
	}
	if (sheet.rows.length > MOST_ROWS) stop('rows', `At most ${MOST_ROWS} lines on one invoice.`);
}

function readLine(line: SheetLine, registered: boolean, stop: Stop): LineInput {
	const path = `rows.${line.id}`;
	const quantity = readNumber(
		line.quantity,
		`${path}.quantity`,
		'a quantity',
		{ decimals: 4, negative: true },
		stop
	);
	const unitPrice = readNumber(
		line.unitPrice,
		`${path}.unitPrice`,
		'a price',
		{ decimals: 4 },
		stop
	);
	const vat = registered || line.vat === 'noSupply' ? line.vat : null;
	let discount = readDiscount(line.discount, `${path}.discount`, stop);
	if (discount && quantity.units < 0n) {
		stop(`${path}.discount`, 'A line with a negative quantity takes no discount.');
		discount = null;
	} else if (
		discount &&
		'amount' in discount &&
		discount.amount > multiplyToMinor(quantity, unitPrice)
	) {
		stop(`${path}.discount`, 'The discount is larger than the line.');
		discount = null;
	}
	let cost = null;
	if (line.cost.trim() !== '') {
		const typed = readNumber(line.cost, `${path}.cost`, 'what it cost you', { decimals: 2 }, stop);
		cost = typed.units * 10n ** BigInt(2 - typed.scale);
		if (line.kind === 'levy' || line.vat === 'noSupply') {
			stop(`${path}.cost`, 'A levy, or what is passed on exactly, has no cost of its own.');
			cost = null;
		}
	}
	return { kind: line.kind, quantity, unitPrice, vat, discount, cost };
}

const ZERO: Decimal = { units: 0n, scale: 0 };

function readNumber(
	typed: string,
	path: string,
	what: string,
	limits: TypedNumberLimits,
	stop: Stop
): Decimal {
	const result = readTypedNumber(typed, limits);
	if (result.ok) return parseDecimal(result.text)!;
	stop(path, explainTypedNumber(result, what, limits));
	return ZERO;
}

const statedVat = (stated: NonNullable<Opening['vat']>): InvoiceInput['statedVat'] =>
	Object.fromEntries(
		Object.entries(stated).flatMap(([treatment, text]) => {
			const vat = parseMoney(text);
			return vat === null ? [] : [[treatment, vat]];
		})
	);

function readRetention(typed: string, stop: Stop): Decimal | null {
	const text = typed.trim().replace(/%$/, '');
	if (text === '') return null;
	const percent = readTypedNumber(text, { decimals: 4 });
	const decimal = percent.ok ? parseDecimal(percent.text)! : null;
	if (decimal && decimal.units <= 100n * 10n ** BigInt(decimal.scale)) return decimal;
	stop('retention', 'A percentage from 0 to 100, such as 5.');
	return null;
}

/** Computes; where the input contradicts itself, names it and computes without the part that does. */
function computeAnyway(
	input: InvoiceInput,
	lines: SheetLine[],
	problems: Problem[]
): InvoiceFigures | null {
	let attempt = { ...input };
	for (let tries = 0; tries < 6; tries++) {
		try {
			return computeInvoice(attempt, GB);
		} catch (error) {
			if (!(error instanceof FiguresError)) throw error;
			problems.push(explainFiguresError(error, lines));
			if (error.path === 'pricesIncludeVat') attempt = { ...attempt, pricesIncludeVat: false };
			else if (error.path === 'vatRounding') attempt = { ...attempt, vatRounding: 'nearest' };
			else if (error.path === 'discount') attempt = { ...attempt, discount: null };
			else if (error.path === 'retention') attempt = { ...attempt, retention: null };
			else if (error.path === 'cisRate') attempt = { ...attempt, cisRate: null };
			else return null;
		}
	}
	return null;
}
