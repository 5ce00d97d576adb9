// Ink and type of our PDFs, and the smallest parts they are made of.
import type { Content, TableCell } from 'pdfmake/interfaces';
import type { Look } from '../../core/letterheads/look';
import { runs } from './fonts';

export const INK = '#17212b';

export const QUIET = '#4c5864';

export const HAIR = '#cfc8ba';

export const ACCENT = '#1f5d57';

const DIGITS = ['tnum'] as never;

/** What statements and letters are written on: they have no columns and texts of their own. */
export interface Paper {
	look?: Look | undefined;
	/** The logo of the letterhead, as a data address. */
	logo?: string | undefined;
}

export interface PdfOptions extends Paper {
	/** The pay page, shown as a QR code; null where there is none (a draft, a credit note). */
	payUrl: string | null;
	/** When the PDF says it was made: milliseconds since 1970, so that the same input gives the same file. */
	madeAt: number;
	/** Pictures of the price list, as data addresses, by the entry. */
	pictures?: Record<number, string> | undefined;
	/** Photos of a job, as data addresses, by the number of their file. */
	photos?: Record<number, string> | undefined;
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

/** The page on which it is paid: as a code, as an address that can be pressed, or typed, or as both. */
export function payCode(url: string, words: string, shown = { code: true, link: true }): Content {
	return {
		columns: [
			...(shown.code ? [{ qr: url, fit: 66, foreground: INK, width: 72 }] : []),
			{
				width: '*',
				stack: [
					text(words, { margin: [0, 6, 0, 0], color: QUIET }),
					...(shown.link
						? [
								text(url.replace(/^https?:\/\//, ''), {
									link: url,
									color: ACCENT,
									fontSize: 7.5,
									margin: [0, 2, 0, 0]
								})
							]
						: [])
				]
			}
		],
		margin: [0, 8, 0, 0]
	} as Content;
}
