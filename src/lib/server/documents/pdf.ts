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

export async function renderPdf(view: DocumentView, options: PdfOptions): Promise<Buffer> {
	// The first pass tells which row ends on which page; only where there are more pages than one does a
	// second say what is carried over.
	const first = build(view, options, []);
	const single = await pdfmake.createPdf(first.definition).getBuffer();
	const carried = carriedOver(view, first.rows);
	if (carried.length === 0) return single;
	return pdfmake.createPdf(build(view, options, carried).definition).getBuffer();
}

/** The bytes of a definition, with our fonts and nothing from outside. */
export function draw(definition: TDocumentDefinitions): Promise<Buffer> {
	return pdfmake.createPdf(definition).getBuffer();
}

interface Placed {
	positions?: { pageNumber: number }[];
}

/** What the lines add up to at the end of each page on which the table goes on. */
function carriedOver(view: DocumentView, rows: Placed[]): string[] {
	const amounts = view.sections.flatMap((section) => section.rows.map((row) => row.minor));
	const carried: string[] = [];
	let sum = 0n;
	for (const [index, row] of rows.entries()) {
		const page = row.positions?.[0]?.pageNumber ?? 1;
		while (carried.length < page - 1) carried.push(displayAmount(sum));
		sum += amounts[index] ?? 0n;
	}
	return carried;
}

function build(view: DocumentView, options: PdfOptions, carried: string[]) {
	const rows: (Content & Placed)[] = [];
	const content: Content[] = [
		...(view.banner ? [banner(view.banner)] : []),
		letterhead(view),
		parties(view),
		lineTable(view, rows),
		{
			columns: [payment(view, options), totals(view)],
			columnGap: 24,
			margin: [0, 14, 0, 0],
			unbreakable: true
		},
		...[...view.statements, view.terms]
			.filter(Boolean)
			.map((statement) => text(statement, { margin: [0, 8, 0, 0], fontSize: 9 })),
		...(view.note ? [text(view.note, { margin: [0, 12, 0, 0] })] : [])
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

function lineTable(view: DocumentView, rows: (Content & Placed)[]): Content {
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
	for (const section of view.sections) {
		if (section.heading)
			body.push(
				span(heading(section.heading, { fontSize: 11, margin: [0, 6, 0, 0] }) as TableCell)
			);
		for (const row of section.rows) {
			const last = amount(row.amount) as Content & Placed;
			rows.push(last);
			body.push([
				text(row.description) as TableCell,
				amount(row.quantity),
				text(row.unit) as TableCell,
				amount(row.unitPrice),
				...(discount ? [amount(row.discount)] : []),
				...(vat ? [amount(row.vat)] : []),
				...(withoutVat ? [amount(row.withoutVat)] : []),
				last as TableCell
			]);
		}
		if (section.sum)
			body.push(span(amount(`${section.heading}  ${section.sum}`, { bold: true }) as TableCell));
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
