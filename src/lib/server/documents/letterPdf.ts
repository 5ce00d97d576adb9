// A reminder as a letter: sender, address in the window, day, words. No letterhead tricks, one page where it fits.
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { displayDate } from '../../core/calendar/conversion';
import { STANDARD_LOOK } from '../../core/letterheads/look';
import type { Enclosure } from '../../core/chasing/claim';
import { dress } from './dress';
import { draw } from './pdf';
import { logoOf } from './pdfHead';
import { heading, INK, payCode, QUIET, text, type Paper } from './pdfParts';

export interface Letter extends Paper {
	seller: { name: string; lines: string[] };
	/** Name and address, a line each. */
	to: string[];
	day: string;
	subject: string;
	/** Paragraphs, with empty lines between. */
	text: string;
	/** Where it is paid, as a code to scan. */
	payUrl: string | null;
	madeAt: number;
	/** Each on pages of its own. */
	enclosures?: readonly Enclosure[];
}

export function renderLetter({
	seller,
	to,
	day,
	subject,
	text: words,
	payUrl,
	madeAt,
	look = STANDARD_LOOK,
	logo,
	enclosures = []
}: Letter): Promise<Buffer> {
	const paragraphs = words
		.split(/\n{2,}/)
		.map((one): Content => text(one, { margin: [0, 0, 0, 9] }));
	const definition: TDocumentDefinitions = {
		pageSize: 'A4',
		language: 'en-GB',
		displayTitle: true,
		pageMargins: [62, 54, 62, 62],
		defaultStyle: { font: 'Text', fontSize: 11, lineHeight: 1.3, color: INK },
		info: {
			title: subject,
			author: seller.name,
			creator: 'Axiometer',
			creationDate: new Date(madeAt)
		},
		content: [
			...(look.preprinted
				? []
				: [
						...logoOf(look, logo, 'right', 16),
						heading(seller.name, { fontSize: 18, alignment: 'right' }),
						...seller.lines.map((line) =>
							text(line, { alignment: 'right', color: QUIET, fontSize: 9.5 })
						)
					]),
			// The address stands where a window envelope shows it: 45 mm from the top.
			{
				stack: to.map((line) => text(line)),
				absolutePosition: { x: 62, y: 134 }
			},
			text(displayDate(day), { margin: [0, 110, 0, 18] }),
			heading(subject, { fontSize: 13, margin: [0, 0, 0, 12] }),
			...paragraphs,
			...(payUrl
				? [
						{
							stack: [payCode(payUrl, 'See it and pay: point a phone at the code, or open')],
							unbreakable: true
						}
					]
				: []),
			...enclosures.map(enclosed)
		]
	};
	return draw(dress(definition, look));
}

/** A box of its own, so that it prints in every typeface. */
const box: Content = {
	canvas: [{ type: 'rect', x: 0, y: 2, w: 10, h: 10, lineWidth: 0.8, lineColor: INK }],
	width: 18
} as Content;

/** A form to fill in: what is asked, and room for it. */
function enclosed({ title, parts }: Enclosure): Content {
	const rule = (): Content => ({
		canvas: [{ type: 'line', x1: 0, y1: 0, x2: 471, y2: 0, lineWidth: 0.5, lineColor: QUIET }],
		margin: [0, 17, 0, 0]
	});
	return {
		stack: [
			heading(title, { fontSize: 17, margin: [0, 0, 0, 8], pageBreak: 'before' }),
			...parts.map((part): Content => {
				if ('head' in part)
					return heading(part.head, { fontSize: 11.5, margin: [0, 8, 0, 2], headlineLevel: 1 });
				if ('words' in part) return text(part.words, { fontSize: 10, margin: [0, 0, 0, 3] });
				if ('tick' in part)
					return {
						columns: [box, text(part.tick, { fontSize: 10 })],
						margin: [0, 2, 0, 1]
					} as Content;
				return {
					unbreakable: true,
					stack: [
						text(part.line, { fontSize: 9.5, color: QUIET, margin: [0, 3, 0, -12] }),
						...Array.from({ length: part.rows ?? 1 }, rule)
					]
				};
			})
		]
	};
}
