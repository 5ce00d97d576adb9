// The head of a document: whose it is, what it is, who gets it, and where an envelope's window is.
import type { Column, Content } from 'pdfmake/interfaces';
import type { Look } from '../../core/letterheads/look';
import type { DocumentView } from '../../core/documents/viewTypes';
import { points } from './dress';
import { ACCENT, heading, QUIET, text, type PdfOptions } from './pdfParts';

/** A4, in points. */
export const PAGE = { width: 595.28, height: 841.89 };

/** Where the address stands behind the window of a DL envelope, from the top of the sheet folded in three (BS 4264), in mm. */
const WINDOW = { top: 50, left: 24, right: 116, width: 78, end: 92 };

export function head(view: DocumentView, options: PdfOptions): Content[] {
	return view.look.window === 'none'
		? [letterhead(view, options), parties(view)]
		: behindWindow(view, options);
}

/** A logo as wide as wished, but never so high that it pushes the page away. @param most how high, in millimetres */
export function logoOf(
	look: Look,
	logo: string | undefined,
	place: Look['logoPlace'],
	most = 45
): Content[] {
	if (!logo || look.preprinted) return [];
	return [
		{
			image: logo,
			fit: [points(look.logoWidth), points(most)],
			alignment: place === 'middle' ? 'center' : place,
			margin: [0, 0, 0, 6]
		}
	];
}

function sellerBlock(view: DocumentView, withLines = true): Content[] {
	if (view.look.preprinted) return [];
	return [
		heading(view.seller.name, { fontSize: 19, lineHeight: 1.05 }),
		...(withLines ? sellerLines(view) : [])
	];
}

const sellerLines = (view: DocumentView, extra: object = {}): Content[] =>
	view.look.preprinted
		? []
		: view.seller.lines.map((line) => text(line, { color: QUIET, fontSize: 9, ...extra }));

function title(view: DocumentView, alignment: 'left' | 'right'): Content[] {
	return [
		heading(view.title, { fontSize: 19, alignment, color: ACCENT, lineHeight: 1.05 }),
		...(view.number ? [text(view.number, { alignment, fontSize: 12, bold: true })] : [])
	];
}

function letterhead(view: DocumentView, options: PdfOptions): Content {
	const { logoPlace } = view.look;
	const logo = logoOf(view.look, options.logo, logoPlace);
	return {
		stack: [
			...(logoPlace === 'middle' ? logo : []),
			{
				columns: [
					{
						width: '*',
						stack: [...(logoPlace === 'left' ? logo : []), ...sellerBlock(view)]
					},
					{
						width: 190,
						stack: [...(logoPlace === 'right' ? logo : []), ...title(view, 'right')]
					}
				]
			}
		],
		margin: [0, 0, 0, 22]
	};
}

const block = (label: string, lines: string[]): Content[] =>
	lines.length === 0
		? []
		: [
				...(label ? [text(label, { color: QUIET, fontSize: 8.5, margin: [0, 0, 0, 1] })] : []),
				text(lines[0]!, { bold: true }),
				...lines.slice(1).map((line) => text(line)),
				text(' ', { fontSize: 5 })
			];

const facts = (view: DocumentView): Column => ({
	width: 236,
	layout: 'noBorders',
	table: {
		widths: [86, '*'],
		body: view.facts.length
			? view.facts.map((fact) => [
					text(fact.label, { color: QUIET }),
					text(fact.value, { alignment: 'right' })
				])
			: [[text(''), text('')]]
	}
});

function parties(view: DocumentView): Content {
	return {
		columns: [
			{
				width: '*',
				stack: [
					...(view.billTo.length ? block('Bill to', view.billTo) : block('To', view.customer)),
					...(view.billTo.length ? block('Customer', view.customer) : []),
					...block('Work at', view.site)
				]
			},
			facts(view)
		],
		columnGap: 20,
		margin: [0, 0, 0, 14]
	};
}

/** Only name and logo stand above the window; everything that may grow stands beside or below it. */
function behindWindow(view: DocumentView, options: PdfOptions): Content[] {
	const { look } = view;
	const left = look.window === 'left';
	const { right, left: leftEdge } = look.margins;
	const inner = PAGE.width - points(leftEdge + right);
	const x = points(left ? WINDOW.left : WINDOW.right);
	const beside = inner - points(WINDOW.width + 8);
	const to = view.billTo.length ? view.billTo : view.customer;
	const top = points(WINDOW.top - look.margins.top);
	const aside: Content = {
		stack: [
			...sellerLines(view, left ? { alignment: 'right' } : {}),
			...(look.preprinted ? [] : [text(' ', { fontSize: 5 })])
		]
	};
	const height = points(WINDOW.end - WINDOW.top);
	return [
		{
			stack: to.map((line, index) => text(line, { bold: index === 0 })),
			absolutePosition: { x, y: points(WINDOW.top) }
		},
		{
			// One row, so high as the window reaches, whatever stands above or beside it.
			layout: { ...BARE, paddingTop: () => 0, paddingBottom: () => 0 },
			table: {
				widths: left ? ['*', Math.max(120, beside)] : [Math.max(120, beside), '*'],
				heights: [Math.max(top, 0), height],
				body: [
					[
						{
							colSpan: 2,
							stack: [
								...logoOf(
									look,
									options.logo,
									look.logoPlace,
									Math.max(7, WINDOW.top - look.margins.top - 11)
								),
								...sellerBlock(view, false)
							]
						},
						''
					],
					left ? ['', aside] : [aside, '']
				]
			}
		},
		{
			columns: [
				{
					width: '*',
					stack: [
						...title(view, 'left'),
						text(' ', { fontSize: 5 }),
						...(view.billTo.length ? block('Customer', view.customer) : []),
						...block('Work at', view.site)
					]
				},
				facts(view)
			],
			columnGap: 20,
			margin: [0, 8, 0, 14]
		}
	];
}

const BARE = {
	hLineWidth: () => 0,
	vLineWidth: () => 0,
	paddingLeft: () => 0,
	paddingRight: () => 0
};
