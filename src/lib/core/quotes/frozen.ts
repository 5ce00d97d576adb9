// A version of a quote: what it was frozen from gives the same figures again, for whatever is chosen on it.
import { computeQuote, type QuoteFigures, type QuoteInput } from './figures';
import { frozenInput } from '../documents/frozen';
import type { Frozen } from '../documents/types';
import { GB } from '../regimes/gb';
import { sheetLines } from '../sheet/blank';
import { readDiscount } from '../sheet/discount';
import type { Sheet, SheetLine } from '../sheet/types';
import { askedOf } from './read';
import { agreedLines, type Picked } from './chosen';

/** @throws FiguresError for a choice that is none */
export function frozenQuote(
	frozen: Frozen,
	picked: Picked
): { lines: SheetLine[]; asked: QuoteInput; quote: QuoteFigures } {
	const lines = sheetLines(frozen.sheet);
	const deposit = readDiscount(frozen.sheet.quote!.deposit, '', () => undefined);
	const asked = askedOf(lines, frozenInput(frozen), deposit, picked);
	return { lines, asked, quote: computeQuote(asked, GB) };
}

/** The document of what is chosen: its sheet has the lines that are in, as many as were chosen. */
export function frozenAsChosen(frozen: Frozen, picked: Picked): Frozen {
	const { lines, asked, quote } = frozenQuote(frozen, picked);
	const agreed = agreedLines(lines, asked, quote);
	const byId = new Map(
		quote.included.map((index, place) => [
			lines[index]!.id,
			{ ...agreed[place]!, line: lines[index]! }
		])
	);
	const rows: Sheet['rows'] = frozen.sheet.rows.flatMap((row): Sheet['rows'] => {
		if (row.type === 'heading') return [row];
		const chosen = byId.get(row.id);
		if (!chosen) return [];
		const { line, quantity, description, cost } = chosen;
		return [{ ...line, quantity, description, cost }];
	});
	const kept = rows.filter((row, index) => row.type === 'line' || rows[index + 1]?.type === 'line');
	return { ...frozen, sheet: { ...frozen.sheet, rows: kept } };
}
