// Figures in short, as a PDF: a few tables of two columns.
import type { TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { draw } from './pdf';
import { amount, HAIR, heading, INK, QUIET, text } from './pdfParts';

export interface Summary {
	title: string;
	/** Whose figures they are. */
	of: string;
	period: string;
	madeAt: number;
	parts: readonly { title: string; rows: readonly (readonly [words: string, amount: string])[] }[];
}

export function renderSummary({ title, of, period, madeAt, parts }: Summary): Promise<Buffer> {
	const definition: TDocumentDefinitions = {
		pageSize: 'A4',
		language: 'en-GB',
		displayTitle: true,
		pageMargins: [62, 54, 62, 62],
		defaultStyle: { font: 'Text', fontSize: 10.5, lineHeight: 1.25, color: INK },
		info: { title, author: of, creator: 'Axiometer', creationDate: new Date(madeAt) },
		content: [
			heading(of, { fontSize: 18 }),
			text(`${title}, ${period}`, { color: QUIET, margin: [0, 2, 0, 14] }),
			...parts
				.filter(({ rows }) => rows.length > 0)
				.map(({ title: name, rows }) => ({
					unbreakable: rows.length < 20,
					stack: [
						heading(name, { fontSize: 13, margin: [0, 10, 0, 4] }),
						{
							table: {
								widths: ['*', 'auto'],
								body: rows.map(([words, sum]): TableCell[] => [
									text(words) as TableCell,
									amount(sum)
								])
							},
							layout: {
								hLineWidth: () => 0.5,
								vLineWidth: () => 0,
								hLineColor: () => HAIR,
								paddingLeft: () => 0,
								paddingRight: () => 0
							}
						}
					]
				}))
		]
	};
	return draw(definition);
}
