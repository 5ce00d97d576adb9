// A quote as its customer's browser has it: everything to choose and to compute with, nothing of what it costs its owner.
import { frozenInput } from '../documents/frozen';
import type { Frozen } from '../documents/types';
import type { CustomerKind } from '../regimes/types';
import { parseDecimal } from '../money/decimal';
import {
	cancelForm,
	cancelInformation,
	contractFacts,
	rightToCancel,
	type CancelRight
} from '../regimes/gb/consumer';
import { sheetLines } from '../sheet/blank';
import { readDiscount } from '../sheet/discount';
import type { SheetLine } from '../sheet/types';
import { computeQuote, type QuoteInput } from './figures';
import { GB } from '../regimes/gb';
import { askedOf } from './read';
import type { Picked } from './chosen';
import { quoteName } from './terms';
import { sellerOf } from './view';

/** A line without what it costs its owner, and without what it is in the books. */
export type PublicLine = Pick<
	SheetLine,
	'id' | 'description' | 'quantity' | 'unit' | 'kind' | 'vat' | 'choice' | 'extra' | 'most'
> & { provisional: boolean };

export interface PublicQuote {
	name: 'Quote' | 'Estimate';
	binding: boolean;
	title: string;
	detail: 'all' | 'sections' | 'total';
	seller: { name: string; address: string; phone: string; email: string };
	customer: { name: string; kind: CustomerKind; orderNumberRequired: boolean };
	site: string;
	registered: boolean;
	includesVat: boolean;
	/** Headings and lines, in order. */
	rows: ({ heading: string } | { line: PublicLine; index: number })[];
	texts: { title: string; words: string }[];
	terms: string;
	stages: { title: string; percent: string }[];
	begin: string;
	right: CancelRight;
	information: string[];
	form: string[];
	/** What it is computed from, as JSON has it. For a contractor the deduction is worked out by the server, which knows what materials cost. */
	input: string;
	contractor: boolean;
}

export function publicQuote(frozen: Frozen): PublicQuote {
	const { sheet, seller, customer } = frozen;
	const terms = sheet.quote!;
	const lines = sheetLines(sheet);
	const deposit = readDiscount(terms.deposit, '', () => undefined);
	const asked = askedOf(lines, frozenInput(frozen), deposit, { options: {}, extras: {} });
	const { figures } = computeQuote(asked, GB);
	const places = new Map(lines.map(({ id }, index) => [id, index]));
	const facts = contractFacts(
		customer,
		terms,
		figures.total,
		lines.map(({ kind }) => kind)
	);
	const right = rightToCancel(facts);
	const texts = [
		['', terms.before],
		['Not included', terms.notIncluded],
		['Assumed', terms.assumed],
		['When it could begin', terms.begin],
		['How long it takes', terms.duration],
		['Guarantee and insurance', terms.guarantee],
		['', sheet.note]
	] as const;
	return {
		name: quoteName(terms),
		binding: terms.binding,
		title: terms.title.trim(),
		detail: terms.detail,
		seller: sellerOf(frozen),
		customer: {
			name: customer.name,
			kind: customer.kind,
			orderNumberRequired: customer.orderNumberRequired
		},
		site: customer.sites.find(({ id }) => id === sheet.siteId)?.name ?? '',
		registered: seller.vatRegistered,
		includesVat: seller.vatRegistered && sheet.pricesIncludeVat,
		rows: sheet.rows.flatMap((row): PublicQuote['rows'] => {
			if (row.type === 'heading') return row.text.trim() ? [{ heading: row.text.trim() }] : [];
			const index = places.get(row.id);
			if (index === undefined) return [];
			const { id, description, quantity, unit, kind, vat, choice, extra, most } = row;
			return [
				{
					index,
					line: {
						id,
						description,
						quantity,
						unit,
						kind,
						vat,
						...(choice ? { choice } : {}),
						...(extra ? { extra } : {}),
						...(most ? { most } : {}),
						provisional: row.provisional ?? false
					}
				}
			];
		}),
		texts: texts
			.filter(([, words]) => words.trim() !== '')
			.map(([title, words]) => ({ title, words: words.trim() })),
		terms: terms.terms.trim(),
		stages: terms.stages,
		begin: terms.begin.trim(),
		right,
		information: right.may ? cancelInformation(facts.goods, sellerOf(frozen)) : [],
		form: right.may ? cancelForm(sellerOf(frozen), terms.title.trim()) : [],
		input: writeInput(asked),
		contractor: customer.kind === 'contractor'
	};
}

/** Without costs, as JSON: they are the owner's own. */
function writeInput(asked: QuoteInput): string {
	return JSON.stringify(
		{
			...asked,
			lines: asked.lines.map((line) => ({ ...line, cost: null }))
		},
		(_key, value: unknown) => (typeof value === 'bigint' ? { $: value.toString() } : value)
	);
}

const readInput = (text: string): QuoteInput =>
	JSON.parse(text, (_key, value: unknown) =>
		typeof value === 'object' && value !== null && '$' in value
			? BigInt((value as { $: string }).$)
			: value
	) as QuoteInput;

/** What a choice comes to, in the customer's browser. @throws FiguresError */
export function publicFigures(quote: PublicQuote, picked: Picked) {
	const base = readInput(quote.input);
	const lines = quote.rows.flatMap((row) => ('line' in row ? [row] : []));
	const asked: QuoteInput = {
		...base,
		lines: base.lines.map((line, index) => {
			const own = lines.find((one) => one.index === index)?.line;
			const many = own?.extra && own.most ? parseDecimal(picked.extras[own.id] ?? '') : null;
			return many ? { ...line, quantity: many } : line;
		}),
		chosen: {
			options: picked.options,
			extras: lines.flatMap(({ line, index }) =>
				line.extra && Object.hasOwn(picked.extras, line.id) ? [index] : []
			)
		}
	};
	return { asked, quote: computeQuote(asked, GB) };
}
