// One line that begins an invoice or a job: `invoice corvane 3 h repair 45`.
import { readTypedNumber } from './money/typed';

export interface QuickLine {
	what: 'invoice' | 'job';
	/** As typed: a number, one where none is. */
	quantity: string;
	unit: string;
	description: string;
	/** For one; empty: none was given. */
	unitPrice: string;
}

/** How units are typed in a hurry, and what stands on the paper. */
const UNITS: ReadonlyMap<string, string> = new Map(
	Object.entries({
		h: 'hour',
		hr: 'hour',
		hrs: 'hour',
		hour: 'hour',
		hours: 'hour',
		d: 'day',
		day: 'day',
		days: 'day',
		m: 'm',
		m2: 'm²',
		'm²': 'm²',
		lot: 'lot',
		visit: 'visit',
		visits: 'visit',
		bag: 'bag',
		bags: 'bag'
	})
);

const WHATS: ReadonlyMap<string, QuickLine['what']> = new Map(
	Object.entries({
		invoice: 'invoice',
		bill: 'invoice',
		job: 'job'
	} as const)
);

/** What is begun, and the words after it; null where the line begins with neither. */
export function quickWords(typed: string): { what: QuickLine['what']; words: string[] } | null {
	const [first = '', ...words] = typed.trim().split(/\s+/);
	const what = WHATS.get(first.toLowerCase());
	return what && words.length > 0 ? { what, words } : null;
}

const numberOf = (word: string): string | null => {
	const read = readTypedNumber(word.replace(/^(@|at)?£?/i, ''), { decimals: 4 });
	return read.ok ? read.text : null;
};

/** The rest of the line, once its customer is known: a quantity with its unit first, a price last, words between. */
export function quickLine(what: QuickLine['what'], rest: readonly string[]): QuickLine {
	const words = [...rest];
	const line: QuickLine = { what, quantity: '1', unit: '', description: '', unitPrice: '' };
	const glued = /^(\d+(?:\.\d+)?)([a-z²]+2?)$/i.exec(words[0] ?? '');
	const unit = glued && UNITS.get(glued[2]!.toLowerCase());
	if (glued && unit) {
		words.shift();
		Object.assign(line, { quantity: glued[1]!, unit });
	} else if (words.length > 1 && numberOf(words[0]!) !== null) {
		const next = UNITS.get(words[1]!.toLowerCase());
		line.quantity = numberOf(words.shift()!)!;
		if (next) {
			words.shift();
			line.unit = next;
		}
	}
	const last = words.at(-1);
	const price = last === undefined ? null : numberOf(last);
	if (price !== null) {
		words.pop();
		line.unitPrice = price;
		if (words.at(-1)?.toLowerCase() === 'at' || words.at(-1) === '@') words.pop();
	}
	const description = words.join(' ');
	line.description = description.charAt(0).toUpperCase() + description.slice(1);
	return line;
}
