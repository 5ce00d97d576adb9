// A reminder as a letter: sender, address in the window, day, words. No letterhead tricks, one page where it fits.
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { displayDate } from '../../core/calendar/conversion';
import { STANDARD_LOOK } from '../../core/letterheads/look';
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
	logo
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
				: [])
		]
	};
	return draw(dress(definition, look));
}
