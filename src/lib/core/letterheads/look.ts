// A letterhead as data: how a document looks, which of its details and columns show, and its own words.
import { z } from 'zod';
import { contrastOnWhite, ENOUGH_CONTRAST } from './contrast';

export const TYPEFACES = ['grotesque', 'plain', 'serif'] as const;
export type Typeface = (typeof TYPEFACES)[number];

export const SIZES = ['small', 'normal', 'large'] as const;
export const PLACES = ['left', 'middle', 'right'] as const;

/** Where a window envelope shows the address; none: above the lines, as it comes. */
export const WINDOWS = ['none', 'left', 'right'] as const;

/** How much of the lines is shown. */
export const LINE_DETAILS = ['lines', 'headings', 'kinds', 'total'] as const;

/** What may be shown beside what the law asks for. */
export const DETAILS = [
	'phone',
	'email',
	'utr',
	'verification',
	'order',
	'reference',
	'customerVat',
	'site',
	'workFinished',
	'due',
	'terms',
	'bank',
	'code',
	'payLink',
	'tradeBody',
	'insurance'
] as const;
export type Detail = (typeof DETAILS)[number];

export const COLUMNS = [
	'picture',
	'code',
	'description',
	'quantity',
	'unit',
	'price',
	'discount',
	'vat',
	'withoutVat',
	'amount'
] as const;
export type ColumnId = (typeof COLUMNS)[number];

/** The kinds of document that have a title and words of their own. */
export const DOCUMENT_SORTS = [
	'invoice',
	'deposit',
	'creditNote',
	'debit',
	'selfBilled',
	'late',
	'application',
	'quote',
	'jobSheet'
] as const;
export type DocumentSort = (typeof DOCUMENT_SORTS)[number];

const LONGEST = { title: 40, column: 24, line: 120, words: 2000 };

const typed = (most: number) =>
	z
		.string('Write it in words.')
		.max(most, `At most ${most.toLocaleString('en-GB')} characters.`)
		.default('');

const choice = <const T extends readonly string[]>(words: T, standard: T[number]) =>
	z.enum(words, 'Choose one of those offered.').default(standard as never);

/** Millimetres, from the edge of the paper. */
const margin = (standard: number) =>
	z
		.number('Millimetres, such as 17.')
		.int('Whole millimetres.')
		.min(8, 'At least 8 mm: printers reach no further.')
		.max(90, 'At most 90 mm, or nothing has room.')
		.default(standard);

const columnForm = z.object({
	id: z.enum(COLUMNS, 'A column that is known.'),
	shown: z.boolean('Shown, or not.'),
	/** Empty: as it is called otherwise. */
	title: typed(LONGEST.column)
});

export type LookColumn = z.infer<typeof columnForm>;

export const STANDARD_COLUMNS: readonly LookColumn[] = COLUMNS.map((id) => ({
	id,
	shown: id !== 'picture' && id !== 'code',
	title: ''
}));

/** Every column once; one that is not named comes last, as the standard has it. */
function wholeColumns(columns: readonly LookColumn[]): LookColumn[] {
	const named = columns.filter(
		({ id }, index) => columns.findIndex((other) => other.id === id) === index
	);
	const others = STANDARD_COLUMNS.filter(({ id }) => !named.some((one) => one.id === id));
	return [...named, ...others];
}

const wordsForm = z.object({
	/** Empty: the standard title. */
	title: typed(LONGEST.title),
	above: typed(LONGEST.words),
	below: typed(LONGEST.words)
});

export const lookForm = z.object({
	/** The content hash of its picture; null for none. */
	logo: z
		.string()
		.regex(/^[0-9a-f]{64}$/)
		.nullable()
		.catch(null)
		.default(null),
	logoPlace: choice(PLACES, 'right'),
	/** How wide the logo is, in millimetres. */
	logoWidth: z
		.number('Millimetres, such as 30.')
		.int('Whole millimetres.')
		.min(8, 'At least 8 mm.')
		.max(120, 'At most 120 mm.')
		.default(30),
	accent: z
		.string('A colour, such as #1f5d57.')
		.regex(/^#[0-9a-f]{6}$/i, 'A colour as six digits after #, such as #1f5d57.')
		.refine(
			(colour) => !/^#[0-9a-f]{6}$/i.test(colour) || contrastOnWhite(colour) >= ENOUGH_CONTRAST,
			'Too pale to be read on white paper. Choose a darker one.'
		)
		.default('#1f5d57'),
	typeface: choice(TYPEFACES, 'grotesque'),
	size: choice(SIZES, 'normal'),
	margins: z
		.object({ top: margin(19), right: margin(17), bottom: margin(22), left: margin(17) })
		.prefault({}),
	window: choice(WINDOWS, 'none'),
	/** The paper has a printed head already: name, address and logo are left out where it stands. */
	preprinted: z.boolean().catch(false).default(false),
	/** What is not to show; all else does where there is something to show. */
	hidden: z.array(z.enum(DETAILS)).catch([]).default([]),
	columns: z.array(columnForm).max(COLUMNS.length).default([]).transform(wholeColumns),
	lines: choice(LINE_DETAILS, 'lines'),
	/** Above and below the lines, on every kind of document. */
	above: typed(LONGEST.words),
	below: typed(LONGEST.words),
	/** The conditions it is done under. */
	conditions: typed(LONGEST.words * 3),
	/** In place of “How to pay”. */
	payTitle: typed(LONGEST.title),
	/** After the bank details. */
	payWords: typed(400),
	tradeBody: typed(LONGEST.line),
	insurance: typed(LONGEST.line),
	/** A part to cut off and send back with a cheque. */
	slip: z.boolean().catch(false).default(false),
	/** The mark of a draft lies across the page, besides its line. */
	draftAcross: z.boolean().catch(false).default(false),
	words: z.partialRecord(z.enum(DOCUMENT_SORTS), wordsForm).catch({}).default({})
});

export type Look = z.infer<typeof lookForm>;

/** What a document looks like as long as nobody chose otherwise. */
export const STANDARD_LOOK: Look = lookForm.parse({});

/** A look as it was kept; what was added to looks since has its standard. */
export function readLook(kept: unknown): Look {
	const read = lookForm.safeParse(kept);
	return read.success ? read.data : STANDARD_LOOK;
}

export const shows = (look: Look, detail: Detail): boolean => !look.hidden.includes(detail);
