// The table of lines of a document, and where each of its rows was laid.
import type { Content, TableCell } from 'pdfmake/interfaces';
import type { DocumentView, ViewColumn, ViewRow } from '../../core/documents/viewTypes';
import { amount, HAIR, heading, INK, QUIET, text, type PdfOptions } from './pdfParts';

interface Placed {
	positions?: { pageNumber: number }[];
}

/** A row of the table of lines, and where it was laid. */
export interface LaidRow {
	kind: 'heading' | 'line' | 'sum';
	/** Its place in the table's body. */
	at: number;
	cell: Content & Placed;
}

const widthOf = ({ id }: ViewColumn) =>
	id === 'description' ? '*' : id === 'picture' ? 46 : 'auto';

function cellOf(column: ViewColumn, row: ViewRow, { pictures }: PdfOptions): TableCell {
	switch (column.id) {
		case 'picture': {
			const picture = row.picture === null ? undefined : pictures?.[row.picture];
			return picture ? { image: picture, fit: [40, 40] } : '';
		}
		case 'code':
			return text(row.code, { noWrap: true, fontSize: 8.5 }) as TableCell;
		case 'description':
			return text(row.description) as TableCell;
		case 'unit':
			return text(row.unit) as TableCell;
		case 'price':
			return amount(row.unitPrice);
		default:
			return amount(row[column.id]);
	}
}

export function lineTable(
	view: DocumentView,
	options: PdfOptions,
	rows: LaidRow[],
	breaks: ReadonlySet<number>
): Content {
	const { columns } = view;
	const sum = columns.findIndex(({ id }) => id === 'amount');
	const body: TableCell[][] = [
		columns.map(
			({ title, right }) =>
				text(title, {
					fontSize: 8.5,
					noWrap: true,
					color: QUIET,
					...(right ? { alignment: 'right' } : {})
				}) as TableCell
		)
	];
	const span = (cell: TableCell): TableCell[] => [
		{ ...(cell as object), colSpan: columns.length } as TableCell,
		...columns.slice(1).map(() => '')
	];
	const add = (kind: LaidRow['kind'], cell: TableCell, cells: TableCell[]) => {
		const at = body.length;
		rows.push({ kind, at, cell: cell as Content & Placed });
		// All cells of a row go to the next page, or its columns would part.
		if (breaks.has(at))
			for (const one of cells)
				if (typeof one === 'object') Object.assign(one, { pageBreak: 'before' });
		body.push(cells);
	};
	for (const section of view.sections) {
		if (section.heading) {
			const cells = span(
				heading(section.heading, { fontSize: 11, margin: [0, 6, 0, 0] }) as TableCell
			);
			add('heading', cells[0]!, cells);
		}
		for (const row of section.rows) {
			const cells = columns.map((column) => cellOf(column, row, options));
			add('line', (cells[sum] ?? cells.at(-1))!, cells);
		}
		if (section.sum) {
			const cells = span(amount(`${section.heading}  ${section.sum}`, { bold: true }));
			add('sum', cells[0]!, cells);
		}
	}
	return {
		table: {
			headerRows: 1,
			// A row that is longer than a page has to break, or its end would be lost.
			dontBreakRows: !view.sections.some((section) =>
				section.rows.some((row) => row.description.length > 1500)
			),
			widths: columns.map(widthOf),
			body
		},
		layout: {
			hLineWidth: (line) => (line === 1 ? 1 : line === 0 ? 0 : 0.5),
			vLineWidth: () => 0,
			hLineColor: (line) => (line === 1 ? INK : HAIR),
			paddingLeft: (column) => (column === 0 ? 0 : 6),
			paddingRight: (column) => (column === columns.length - 1 ? 0 : 6),
			paddingTop: () => 4,
			paddingBottom: () => 3
		}
	};
}
