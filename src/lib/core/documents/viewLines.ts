// The lines of a document as its reader sees them: which columns there are, how much of the lines is told, what they add up to.
import { displayDate } from '../calendar/conversion';
import { LINE_KINDS, type InvoiceFigures } from '../figures/types';
import { STANDARD_LOOK, type ColumnId } from '../letterheads/look';
import { columnRule } from '../letterheads/law';
import { COLUMN_NAMES } from '../letterheads/names';
import { formatDecimal } from '../money/decimal';
import { unitOf } from '../money/currencies';
import { displayAmount } from '../money/display';
import { readTypedNumber } from '../money/typed';
import { isBlank, sheetLines } from '../sheet/blank';
import { lineTaxPoint } from '../sheet/taxPoint';
import type { SheetLine } from '../sheet/types';
import { KIND_NAMES, TREATMENT_NAMES, withinSentence } from '../words';
import type { Frozen } from './types';
import type { ViewColumn, ViewRow, ViewSection } from './viewTypes';

const MONEY: readonly ColumnId[] = ['price', 'discount', 'withoutVat', 'amount'];
const TO_THE_RIGHT: readonly ColumnId[] = [...MONEY, 'quantity', 'vat'];

/** The columns that show, in the letterhead's order and under its names; what only some documents have shows where they have it. */
export function viewColumns(
	{ seller, sheet, look = STANDARD_LOOK, codes }: Frozen,
	figures: InvoiceFigures
): ViewColumn[] {
	const includes = seller.vatRegistered && sheet.pricesIncludeVat;
	const has: Partial<Record<ColumnId, boolean>> = {
		code: Object.values(codes ?? {}).some(Boolean),
		picture: sheetLines(sheet).some(({ itemId }) => itemId !== undefined),
		vat: seller.vatRegistered,
		discount: figures.lines.some((line) => line.lineDiscount !== 0n),
		withoutVat: includes
	};
	const nameOf = (id: ColumnId) =>
		id === 'amount' && includes ? 'Amount incl. VAT' : COLUMN_NAMES[id];
	return (
		look.columns
			// Who registers for VAT later is asked for more than the letterhead was written for.
			.filter(({ id, shown }) => (shown || columnRule(id, seller) !== null) && (has[id] ?? true))
			.map(({ id, title }) => ({
				id,
				title: `${title.trim() || nameOf(id)}${MONEY.includes(id) ? `, ${unitOf(sheet.currency)}` : ''}`,
				right: TO_THE_RIGHT.includes(id)
			}))
	);
}

/** Each line of the sheet, in order. */
export function viewRows(frozen: Frozen, figures: InvoiceFigures): ViewRow[] {
	const { seller, sheet, codes = {} } = frozen;
	const rates = new Map(figures.vat.map((group) => [group.treatment, group]));
	return sheetLines(sheet).map((line, index): ViewRow => {
		const group = rates.get(line.vat);
		const rate = group?.rate
			? `${formatDecimal(group.rate)} %`
			: withinSentence(TREATMENT_NAMES[line.vat]);
		const { lineDiscount, withoutVat, net } = figures.lines[index]!;
		return {
			picture: line.itemId ?? null,
			code: codes[line.itemId ?? ''] ?? '',
			description: [line.description.trim(), ownTaxPoint(line, frozen)].filter(Boolean).join('\n'),
			quantity: tidy(line.quantity),
			unit: line.unit.trim(),
			unitPrice: displayPrice(line.unitPrice),
			vat: seller.vatRegistered ? (group?.reverseCharge ? `${rate} r.c.` : rate) : '',
			discount: lineDiscount ? displayAmount(-lineDiscount) : '',
			withoutVat: displayAmount(withoutVat),
			amount: displayAmount(net),
			minor: net
		};
	});
}

interface Group {
	heading: string;
	members: number[];
	/** Told as one row a rate. */
	single?: boolean;
}

/** The rows under their headings, or as much of them as the letterhead tells. */
export function viewSections(
	frozen: Frozen,
	rows: ViewRow[],
	figures: InvoiceFigures
): ViewSection[] {
	const { look = STANDARD_LOOK } = frozen;
	const filled = groupsOf(frozen).filter((group) => group.members.length > 0);
	if (look.lines !== 'lines') {
		const told = filled.flatMap((group) =>
			// Lines that no heading names are told one by one: without their words nobody would know what was done.
			look.lines === 'headings' && !group.heading
				? group.members.map((index) => rows[index]!)
				: byRate(group.members, rows).map((members) =>
						asOneRow(wordsOf(group, members, rows, look.lines), members, rows, figures)
					)
		);
		return [{ heading: '', rows: told, sum: '' }];
	}
	return filled.map(({ heading, members, single }) => ({
		heading: single ? '' : heading,
		rows: single
			? [asOneRow(heading, members, rows, figures)]
			: members.map((index) => rows[index]!),
		sum:
			filled.length > 1 && heading && !single
				? displayAmount(members.reduce((sum, index) => sum + figures.lines[index]!.net, 0n))
				: ''
	}));
}

function groupsOf({ sheet, look = STANDARD_LOOK }: Frozen): Group[] {
	const lines = sheetLines(sheet);
	if (look.lines === 'total') return [{ heading: '', members: lines.map((_, index) => index) }];
	if (look.lines === 'kinds' || (look.lines === 'lines' && sheet.grouping === 'kinds'))
		return LINE_KINDS.map((kind) => ({
			heading: KIND_NAMES[kind],
			members: lines.flatMap((line, index) => (line.kind === kind ? [index] : []))
		}));
	let index = 0;
	let current: Group = { heading: '', members: [] };
	const groups = [current];
	for (const row of sheet.rows) {
		if (row.type === 'heading') {
			current = { heading: row.text.trim(), members: [], single: row.single ?? false };
			groups.push(current);
		} else if (!isBlank(row)) current.members.push(index++);
	}
	return groups;
}

/** A row that stands for several has one rate: what is charged at another is told apart (VAT Regulations 1995 reg. 14(1)(g)). */
function byRate(members: number[], rows: ViewRow[]): number[][] {
	const rates = [...new Set(members.map((index) => rows[index]!.vat))];
	return rates.map((rate) => members.filter((index) => rows[index]!.vat === rate));
}

/** What a row that stands for several says: the heading, or the kind and what was done. */
function wordsOf(
	{ heading }: Group,
	members: number[],
	rows: ViewRow[],
	told: 'headings' | 'kinds' | 'total' | 'lines'
): string {
	if (told === 'headings') return heading;
	const done = [...new Set(members.map((index) => rows[index]!.description.split('\n')[0]!))].join(
		'; '
	);
	return heading ? `${heading}\n${done}` : done;
}

/** Lines of one rate under words that stand for all of them. */
function asOneRow(
	words: string,
	members: number[],
	rows: ViewRow[],
	figures: InvoiceFigures
): ViewRow {
	const sum = (read: (line: InvoiceFigures['lines'][number]) => bigint) =>
		members.reduce((total, index) => total + read(figures.lines[index]!), 0n);
	const discount = sum((line) => line.lineDiscount);
	return {
		picture: null,
		code: '',
		description: words,
		quantity: '1',
		unit: '',
		unitPrice: displayAmount(sum((line) => line.extension)),
		vat: [...new Set(members.map((index) => rows[index]!.vat))].join(', '),
		discount: discount ? displayAmount(-discount) : '',
		withoutVat: displayAmount(sum((line) => line.withoutVat)),
		amount: displayAmount(sum((line) => line.net)),
		minor: sum((line) => line.net)
	};
}

function tidy(typed: string): string {
	const read = readTypedNumber(typed, { decimals: 4, negative: true });
	return read.ok ? read.text.replace('-', '\u2212') : typed.trim();
}

/** A unit price keeps the decimals it needs: two, or up to four where it has them. */
function displayPrice(typed: string): string {
	const read = readTypedNumber(typed, { decimals: 4 });
	if (!read.ok) return typed.trim();
	const [whole = '0', decimals = ''] = read.text.split('.');
	return `${whole.replace(/\B(?=(\d{3})+$)/g, ',')}.${decimals.padEnd(2, '0')}`;
}

/** A line whose work ended on a day of its own says when it was supplied (VAT Regulations 1995 reg. 14(1)(b)). */
function ownTaxPoint(line: SheetLine, frozen: Frozen): string {
	const date = lineTaxPoint(line, frozen);
	return frozen.seller.vatRegistered && date !== null && date !== frozen.taxPoint
		? `Tax point ${displayDate(date)}`
		: '';
}
