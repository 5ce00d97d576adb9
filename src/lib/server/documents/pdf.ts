// A document as a PDF: one page where it fits; on more, what has been added up so far is carried over.
import pdfmake from 'pdfmake';
import type { Column, Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { DocumentView } from '../../core/documents/viewTypes';
import { displayAmount } from '../../core/money/display';
import { FONTS, unpackedFonts } from './fonts';
import { dress, points } from './dress';
import { head, PAGE } from './pdfHead';
import { lineTable, type LaidRow } from './pdfLines';
import { totals, payment } from './pdfTotals';
import { INK, QUIET, ACCENT, type PdfOptions, text } from './pdfParts';

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
	// Where nothing is added up there is nothing to carry.
	if (!view.columns.some(({ id }) => id === 'amount')) return carried;
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
	const { look } = view;
	const [left, top, right, bottom] = (['left', 'top', 'right', 'bottom'] as const).map((side) =>
		points(look.margins[side])
	) as [number, number, number, number];
	const content: Content[] = [
		...(view.banner ? [banner(view.banner)] : []),
		...head(view, options),
		...view.above.map((words) => whole(words, { margin: [0, 0, 0, 10] })),
		lineTable(view, options, rows, breaks),
		{
			columns: [payment(view, options), totals(view)],
			columnGap: 24,
			margin: [0, 14, 0, 0],
			unbreakable: true
		},
		...[...view.statements, view.terms]
			.filter(Boolean)
			.map((statement) => whole(statement, { margin: [0, 8, 0, 0], fontSize: 9 })),
		...(view.note ? [whole(view.note, { margin: [0, 12, 0, 0] })] : []),
		...(view.signature
			? [
					{
						image: view.signature,
						fit: [200, 80] as [number, number],
						margin: [0, 8, 0, 0] as [number, number, number, number]
					}
				]
			: []),
		...photos(view, options),
		...view.below.map((words) => whole(words, { margin: [0, 10, 0, 0], fontSize: 9 })),
		...(look.slip && view.due && view.payable ? [slip(view)] : [])
	];
	const named = [view.seller.name, view.title, view.number].filter(Boolean).join(' · ');
	// Head and foot stand in the margins: as far from the edge as there is room, never in the words.
	const edge = Math.min(30, Math.max(12, top - 24));
	const definition: TDocumentDefinitions = {
		pageSize: 'A4',
		language: 'en-GB',
		displayTitle: true,
		pageMargins: [left, top, right, bottom],
		defaultStyle: { font: 'Text', fontSize: 9.5, lineHeight: 1.22, color: INK },
		info: {
			title: `${view.title} ${view.number}`.trim(),
			author: view.seller.name,
			creator: 'Axiometer',
			creationDate: new Date(options.madeAt)
		},
		...(look.draftAcross && view.banner
			? {
					watermark: {
						text: view.banner.split(':')[0]!,
						font: 'Heading',
						color: QUIET,
						opacity: 0.14,
						bold: true
					}
				}
			: {}),
		header: (page, pages) =>
			page === 1
				? null
				: {
						margin: [left, edge, right, 0],
						fontSize: 8.5,
						color: QUIET,
						columns: [
							text(`${named} · page ${page} of ${pages}`),
							carried[page - 2] === undefined
								? text('')
								: text(`Carried over from page ${page - 1}: ${carried[page - 2]}`, {
										alignment: 'right'
									})
						]
					},
		footer: (page, pages) => ({
			margin: [left, Math.max(6, Math.min(14, bottom - 24)), right, 0],
			fontSize: 8.5,
			color: QUIET,
			columns: [
				text(page === 1 ? named : ''),
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
	return { definition: dress(definition, look), rows };
}

/** Two beside each other, each with its words. */
function photos({ photos = [], look }: DocumentView, options: PdfOptions): Content[] {
	const width = (PAGE.width - points(look.margins.left + look.margins.right) - 14) / 2;
	const shown = photos.filter(({ id }) => options.photos?.[id]);
	const cell = ({ id, caption }: (typeof shown)[number]): Column => ({
		width,
		stack: [
			{ image: options.photos![id]!, fit: [width, 190] },
			...(caption ? [text(caption, { fontSize: 8.5, color: QUIET, margin: [0, 2, 0, 0] })] : [])
		]
	});
	const rows: Content[] = [];
	for (let at = 0; at < shown.length; at += 2)
		rows.push({
			columns: shown.slice(at, at + 2).map(cell),
			columnGap: 14,
			margin: [0, 12, 0, 0],
			unbreakable: true
		});
	return rows;
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

/** The part that is cut off and comes back with a cheque: who pays what, for which invoice. */
function slip(view: DocumentView): Content {
	const width = PAGE.width - points(view.look.margins.left + view.look.margins.right);
	const payer = (view.billTo.length ? view.billTo : view.customer)[0] ?? '';
	const cell = (
		width: number | string,
		label: string,
		value: string,
		extra: object = {}
	): Column => ({
		width: width as number,
		stack: [
			text(label, { fontSize: 8, color: QUIET }),
			text(value || ' ', { bold: true, ...extra })
		]
	});
	return {
		unbreakable: true,
		margin: [0, 22, 0, 0],
		stack: [
			{
				canvas: [
					{
						type: 'line',
						x1: 0,
						y1: 0,
						x2: width,
						y2: 0,
						lineWidth: 0.7,
						dash: { length: 4, space: 3 },
						lineColor: QUIET
					}
				]
			},
			text(`Cut here and send it with your payment to ${view.seller.name}.`, {
				fontSize: 8,
				color: QUIET,
				margin: [0, 3, 0, 6]
			}),
			{
				columns: [
					cell('*', 'From', payer),
					cell('auto', view.title, view.number),
					cell('auto', 'Due', view.due),
					cell('auto', view.payable!.label, `${view.sign}${view.payable!.amount}`, {
						alignment: 'right'
					}),
					cell(90, `What you pay, ${view.sign.trim()}`, '____________')
				],
				columnGap: 18
			}
		]
	};
}
