// A document as a PDF: one page where it fits; on more, what has been added up so far is carried over.
import pdfmake from 'pdfmake';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { DocumentView, ViewAmount } from '../../core/documents/view';
import { displayAmount } from '../../core/money/display';
import { FONTS, runs, unpackedFonts } from './fonts';

pdfmake.setFonts(FONTS);
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy(() => false);
for (const [path, content] of unpackedFonts()) pdfmake.virtualfs.writeFileSync(path, content);

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

function totals(view: DocumentView): Content {
	const row = ({ label, amount: value, strong }: ViewAmount): TableCell[] => [
		text(label, strong ? { bold: true } : {}) as TableCell,
		amount(value, strong ? { bold: true } : {})
	];
	const body = [...view.totals.map(row), ...(view.deduction.length ? view.deduction.map(row) : [])];
	const firstDeduction = view.totals.length;
	return {
		width: 262,
		stack: [
			{
				table: { widths: ['*', 'auto'], body },
				layout: {
					hLineWidth: (line) => (line === firstDeduction && view.deduction.length ? 0.8 : 0),
					vLineWidth: () => 0,
					hLineColor: () => HAIR,
					paddingLeft: () => 0,
					paddingRight: () => 0,
					paddingTop: () => 1.5,
					paddingBottom: () => 1.5
				}
			},
			{
				table: {
					widths: ['*', 'auto'],
					body: [
						[
							heading(view.payable.label, { fontSize: 14, margin: [0, 4, 0, 0] }) as TableCell,
							{
								text: `£${view.payable.amount}`,
								font: 'Heading',
								bold: true,
								fontSize: 17,
								alignment: 'right',
								margin: [0, 2, 0, 0]
							}
						]
					]
				},
				layout: {
					hLineWidth: (line) => (line === 0 ? 1.6 : 0),
					vLineWidth: () => 0,
					hLineColor: () => ACCENT,
					paddingLeft: () => 0,
					paddingRight: () => 0
				},
				margin: [0, 5, 0, 0]
			},
			...(view.vatTable.length > 1 || view.vatTable.some((row) => row.rate.includes('reverse'))
				? [vatTable(view)]
				: [])
		]
	} as Content;
}

function vatTable(view: DocumentView): Content {
	const small = { fontSize: 8.5, color: QUIET };
	return {
		table: {
			widths: ['*', 'auto', 'auto'],
			body: [
				[text('VAT by rate', small) as TableCell, amount('Net, £', small), amount('VAT, £', small)],
				...view.vatTable.map((row) => [
					text(row.rate, small) as TableCell,
					amount(row.net, small),
					amount(row.vat, small)
				])
			]
		},
		layout: {
			hLineWidth: () => 0,
			vLineWidth: () => 0,
			paddingLeft: (column) => (column ? 10 : 0),
			paddingRight: () => 0,
			paddingTop: () => 0,
			paddingBottom: () => 0
		},
		margin: [0, 10, 0, 0]
	};
}

function payment(view: DocumentView, { payUrl }: PdfOptions): Content {
	if (!view.bank && !payUrl) return { width: '*', text: '' } as Content;
	const stack: Content[] = [];
	if (view.bank) {
		stack.push(
			heading('How to pay', { fontSize: 11, margin: [0, 0, 0, 2] }),
			text(`Bank transfer to ${view.bank.accountName}`),
			text(`Sort code ${view.bank.sortCode} · account ${view.bank.accountNumber}`),
			text(`Reference ${view.bank.reference}`, { bold: true })
		);
	}
	if (payUrl) {
		stack.push({
			columns: [
				{ qr: payUrl, fit: 66, foreground: INK, width: 72 },
				{
					width: '*',
					stack: [
						text('Or pay by card: point a phone at the code.', {
							margin: [0, 14, 0, 0],
							color: QUIET
						})
					]
				}
			],
			margin: [0, 8, 0, 0]
		});
	}
	return { width: '*', stack } as Content;
}
