// Ink and type of our PDFs, and the smallest parts they are made of.
import type { Content, TableCell } from 'pdfmake/interfaces';
import { runs } from './fonts';

export const INK = '#17212b';

export const QUIET = '#4c5864';

export const HAIR = '#cfc8ba';

export const ACCENT = '#1f5d57';

const DIGITS = ['tnum'] as never;

export interface PdfOptions {
	/** The pay page, shown as a QR code; null where there is none (a draft, a credit note). */
	payUrl: string | null;
	/** When the PDF says it was made: milliseconds since 1970, so that the same input gives the same file. */
	madeAt: number;
}

export function text(value: string, extra: object = {}): Content {
	return { text: runs(value, 'Text'), ...extra } as Content;
}

export function heading(value: string, extra: object = {}): Content {
	return { text: runs(value, 'Heading'), bold: true, ...extra } as Content;
}

export function amount(value: string, extra: object = {}): TableCell {
	return {
		text: value,
		alignment: 'right',
		noWrap: true,
		fontFeatures: DIGITS,
		...extra
	} as TableCell;
}

/** The page on which it is paid: as a code, and as an address that can be pressed, or typed. */
export function payCode(url: string, words: string): Content {
	return {
		columns: [
			{ qr: url, fit: 66, foreground: INK, width: 72 },
			{
				width: '*',
				stack: [
					text(words, { margin: [0, 6, 0, 0], color: QUIET }),
					text(url.replace(/^https?:\/\//, ''), {
						link: url,
						color: ACCENT,
						fontSize: 7.5,
						margin: [0, 2, 0, 0]
					})
				]
			}
		],
		margin: [0, 8, 0, 0]
	} as Content;
}
