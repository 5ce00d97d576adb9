// A document as a PDF: one page where it fits; on more, what has been added up so far is carried over.
import pdfmake from 'pdfmake';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { DocumentView } from '../../core/documents/viewTypes';
import { displayAmount } from '../../core/money/display';
import { FONTS, unpackedFonts } from './fonts';
import { totals, payment } from './pdfTotals';
import { INK, QUIET, HAIR, ACCENT, type PdfOptions, text, heading, amount } from './pdfParts';

pdfmake.setFonts(FONTS);
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy(() => false);
for (const [path, content] of unpackedFonts()) pdfmake.virtualfs.writeFileSync(path, content);

/** So often the rows are laid out anew, to keep together what belongs together. */
const MOST_PASSES = 6;

export async function renderPdf(view: DocumentView, options: PdfOptions): Promise<Buffer> {
	const { pdf, rows, breaks } = await layOut(view, options);
	// Only where there are more pages than one does another pass say what is carried over.
	const carried = carriedOver(view, rows);
	if (carried.length === 0) return pdf;
	return pdfmake.createPdf(build(view, options, carried, breaks).definition).getBuffer();
}

/**
 * Lays it out until no heading and no sum stands apart from its lines: each pass tells which row ended on which page, and
 * where one does, the next begins a page earlier.
 */
export async function layOut(view: DocumentView, options: PdfOptions) {
	const breaks = new Set<number>();
	for (let pass = 1; ; pass++) {
		const { definition, rows } = build(view, options, [], breaks);
		const pdf = await pdfmake.createPdf(definition).getBuffer();
		// One at a time: what follows moves with it.
		const at = stranded(rows).find((one) => !breaks.has(one));
		if (at === undefined || pass === MOST_PASSES) return { pdf, rows, breaks };
		breaks.add(at);
	}
}

/** The bytes of a definition, with our fonts and nothing from outside. */
export function draw(definition: TDocumentDefinitions): Promise<Buffer> {
	return pdfmake.createPdf(definition).getBuffer();
}

interface Placed {
	positions?: { pageNumber: number }[];
}

/** A row of the table of lines, and where it was laid. */
interface LaidRow {
	kind: 'heading' | 'line' | 'sum';
	/** Its place in the table's body. */
	at: number;
	cell: Content & Placed;
}

const pageOf = ({ cell }: LaidRow) => cell.positions?.[0]?.pageNumber ?? 1;

/** Rows that should begin a page: a heading whose lines are on the next one, and the last line before a sum that is. */
export function stranded(rows: readonly LaidRow[]): number[] {
	return rows.flatMap((row, index) => {
		const next = rows[index + 1];
		if (!next || pageOf(next) === pageOf(row)) return [];
		if (row.kind === 'heading') return [row.at];
		if (row.kind !== 'line' || next.kind !== 'sum') return [];
		const before = rows[index - 1];
		// The only line under its heading goes with it.
		return [before?.kind === 'heading' && pageOf(before) === pageOf(row) ? before.at : row.at];
	});
}

/** What the lines add up to at the end of each page on which the table goes on. */
function carriedOver(view: DocumentView, laid: readonly LaidRow[]): string[] {
	const rows = laid.filter((row) => row.kind === 'line');
	const amounts = view.sections.flatMap((section) => section.rows.map((row) => row.minor));
	const carried: string[] = [];
	let sum = 0n;
	for (const [index, row] of rows.entries()) {
		const page = pageOf(row);
		while (carried.length < page - 1) carried.push(displayAmount(sum));
		sum += amounts[index] ?? 0n;
	}
	return carried;
}

function build(
	view: DocumentView,
	options: PdfOptions,
	carried: string[],
	breaks: ReadonlySet<number>
) {
	const rows: LaidRow[] = [];
	const content: Content[] = [
		...(view.banner ? [banner(view.banner)] : []),
		letterhead(view),
		parties(view),
		lineTable(view, rows, breaks),
		{
			columns: [payment(view, options), totals(view)],
			columnGap: 24,
			margin: [0, 14, 0, 0],
			unbreakable: true
		},
		...[...view.statements, view.terms]
			.filter(Boolean)
			.map((statement) => whole(statement, { margin: [0, 8, 0, 0], fontSize: 9 })),
		...(view.note ? [whole(view.note, { margin: [0, 12, 0, 0] })] : [])
	];
	const definition: TDocumentDefinitions = {
		pageSize: 'A4',
		language: 'en-GB',
		displayTitle: true,
		pageMargins: [48, 54, 48, 62],
		defaultStyle: { font: 'Text', fontSize: 9.5, lineHeight: 1.22, color: INK },
		info: {
			title: `${view.title} ${view.number}`.trim(),
			author: view.seller.name,
			creator: 'Axiometer',
			creationDate: new Date(options.madeAt)
		},
		header: (page) =>
			page > 1 && carried[page - 2] !== undefined
				? text(`Carried over from page ${page - 1}: ${carried[page - 2]}`, {
						alignment: 'right',
						margin: [48, 30, 48, 0],
						color: QUIET,
						fontSize: 8.5
					})
				: null,
		footer: (page, pages) => ({
			margin: [48, 14, 48, 0],
			fontSize: 8.5,
			color: QUIET,
			columns: [
				text([view.seller.name, view.title, view.number].filter(Boolean).join(' · ')),
				text(
					[
						carried[page - 1] !== undefined ? `Carried over: ${carried[page - 1]}` : '',
						pages > 1 ? `page ${page} of ${pages}` : ''
					]
						.filter(Boolean)
						.join(' · '),
					{ alignment: 'right' }
				)
			]
		}),
		content
	};
	return { definition, rows };
}

/** So many letters stand on one page together rather than leave a line of theirs alone. */
const SHORT = 900;

const whole = (words: string, extra: object): Content =>
	words.length > SHORT ? text(words, extra) : { stack: [text(words, extra)], unbreakable: true };

function banner(words: string): Content {
	return {
		table: {
			widths: ['*'],
			body: [[text(words, { bold: true, alignment: 'center', margin: [0, 3, 0, 2] })]]
		},
		layout: { hLineColor: () => ACCENT, vLineColor: () => ACCENT },
		margin: [0, 0, 0, 14]
	};
}

function letterhead(view: DocumentView): Content {
	return {
		columns: [
			{
				width: '*',
				stack: [
					heading(view.seller.name, { fontSize: 19, lineHeight: 1.05 }),
					...view.seller.lines.map((line) => text(line, { color: QUIET, fontSize: 9 }))
				]
			},
			{
				width: 190,
				stack: [
					heading(view.title, {
						fontSize: 19,
						alignment: 'right',
						color: ACCENT,
						lineHeight: 1.05
					}),
					...(view.number
						? [text(view.number, { alignment: 'right', fontSize: 12, bold: true })]
						: [])
				]
			}
		],
		margin: [0, 0, 0, 22]
	};
}

function parties(view: DocumentView): Content {
	const block = (label: string, lines: string[]): Content[] =>
		lines.length === 0
			? []
			: [
					text(label, { color: QUIET, fontSize: 8.5, margin: [0, 0, 0, 1] }),
					text(lines[0]!, { bold: true }),
					...lines.slice(1).map((line) => text(line)),
					text(' ', { fontSize: 5 })
				];
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
			{
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
			}
		],
		columnGap: 20,
		margin: [0, 0, 0, 14]
	};
}

function lineTable(view: DocumentView, rows: LaidRow[], breaks: ReadonlySet<number>): Content {
	const { vat, discount, withoutVat } = view.columns;
	const columns = [
		{ title: 'Description', width: '*', right: false },
		{ title: 'Quantity', width: 'auto', right: true },
		{ title: 'Unit', width: 'auto', right: false },
		{ title: 'Price, £', width: 'auto', right: true },
		...(discount ? [{ title: 'Discount, £', width: 'auto', right: true }] : []),
		...(vat ? [{ title: 'VAT', width: 'auto', right: true }] : []),
		...(withoutVat ? [{ title: 'Without VAT, £', width: 'auto', right: true }] : []),
		{ title: view.amountHeading, width: 'auto', right: true }
	];
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
			const last = amount(row.amount);
			add('line', last, [
				text(row.description) as TableCell,
				amount(row.quantity),
				text(row.unit) as TableCell,
				amount(row.unitPrice),
				...(discount ? [amount(row.discount)] : []),
				...(vat ? [amount(row.vat)] : []),
				...(withoutVat ? [amount(row.withoutVat)] : []),
				last
			]);
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
			widths: columns.map((column) => column.width),
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
