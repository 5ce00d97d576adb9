// A statement as a PDF: what is open, the ages, how to pay.
import { accountLine } from '../../core/documents/account';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { StatementView } from '../../core/documents/statementView';
import { STANDARD_LOOK } from '../../core/letterheads/look';
import { dress } from './dress';
import { draw } from './pdf';
import { logoOf } from './pdfHead';
import {
	amount,
	ACCENT,
	heading,
	HAIR,
	INK,
	payCode,
	QUIET,
	text,
	type PdfOptions
} from './pdfParts';

/** One statement, or several in one file to print, each from a page of its own. */
export function renderStatements(
	views: readonly StatementView[],
	options: readonly PdfOptions[]
): Promise<Buffer> {
	const content = views.flatMap((view, index): Content[] => {
		const { look = STANDARD_LOOK } = options[index]!;
		// Each on the letterhead of its own payer.
		const [first, ...rest] = dress(page(view, options[index]!), look);
		return [
			index === 0 ? first! : ({ ...(first as object), pageBreak: 'before' } as Content),
			...rest
		];
	});
	const name = views[0]?.seller.name ?? '';
	const definition: TDocumentDefinitions = {
		pageSize: 'A4',
		language: 'en-GB',
		displayTitle: true,
		pageMargins: [48, 54, 48, 62],
		defaultStyle: { font: 'Text', fontSize: 9.5, lineHeight: 1.22, color: INK },
		info: {
			title: views.length === 1 ? `Statement for ${views[0]!.payer[0] ?? ''}` : 'Statements',
			author: name,
			creator: 'Axiometer',
			creationDate: new Date(options[0]?.madeAt ?? 0)
		},
		footer: (current, pages) => ({
			margin: [48, 14, 48, 0],
			fontSize: 8.5,
			color: QUIET,
			columns: [
				text(`${name} · Statement`),
				text(pages > 1 ? `page ${current} of ${pages}` : '', { alignment: 'right' })
			]
		}),
		content
	};
	return draw(definition);
}

function page(view: StatementView, { payUrl, logo, look = STANDARD_LOOK }: PdfOptions): Content[] {
	const { logoPlace } = look;
	const mark = logoOf(look, logo, logoPlace, 30);
	return [
		...(logoPlace === 'middle' ? mark : []),
		{
			columns: [
				{
					width: '*',
					stack: [
						...(logoPlace === 'left' ? mark : []),
						...(look.preprinted
							? [text('')]
							: [
									heading(view.seller.name, { fontSize: 19, lineHeight: 1.05 }),
									...view.seller.lines.map((line) => text(line, { color: QUIET, fontSize: 9 }))
								])
					]
				},
				{
					width: 190,
					stack: [
						...(logoPlace === 'right' ? mark : []),
						heading(view.title, { fontSize: 19, alignment: 'right', color: ACCENT })
					]
				}
			],
			margin: [0, 0, 0, 22]
		},
		{
			columns: [
				{
					width: '*',
					stack: view.payer.map((line, index) => text(line, { bold: index === 0 }))
				},
				{
					width: 210,
					layout: 'noBorders',
					table: {
						widths: [70, '*'],
						body: view.facts.map(({ label, value }) => [
							text(label, { color: QUIET }),
							text(value, { alignment: 'right', bold: label === 'Balance' })
						])
					}
				}
			],
			margin: [0, 0, 0, 14]
		},
		rows(view),
		ages(view),
		...view.notes.map((note) => text(note, { margin: [0, 8, 0, 0], fontSize: 9 })),
		{ columns: [toPay(view, payUrl)], margin: [0, 14, 0, 0], unbreakable: true }
	];
}

function rows(view: StatementView): Content {
	const head = (words: string, right = false) =>
		text(words, { color: QUIET, fontSize: 8.5, ...(right ? { alignment: 'right' } : {}) });
	const body: TableCell[][] = [
		[
			head('Date'),
			head('What'),
			head('Due'),
			head(view.columns[0], true),
			head(view.columns[1], true)
		]
	];
	if (view.opening !== null)
		body.push([text(''), text('Balance before'), text(''), text(''), amount(view.opening)]);
	for (const row of view.rows)
		body.push([
			text(row.date, { noWrap: true }),
			{
				stack: [
					text(row.what),
					...row.details.map((line) => text(line, { color: QUIET, fontSize: 8.5 }))
				]
			},
			text(row.due, { noWrap: true }),
			amount(row.amount),
			amount(row.left)
		]);
	if (view.rows.length === 0)
		body.push([text('Nothing is open.', { colSpan: 5 }), '', '', '', ''] as TableCell[]);
	body.push([
		text(''),
		text('Balance', { bold: true }),
		text(''),
		text(''),
		amount(view.balance, { bold: true })
	]);
	return {
		table: { headerRows: 1, widths: [62, '*', 62, 70, 70], body },
		layout: {
			hLineWidth: (index) => (index === 1 ? 1.2 : index === 0 ? 0 : 0.5),
			vLineWidth: () => 0,
			hLineColor: (index) => (index === 1 ? INK : HAIR),
			paddingTop: () => 4,
			paddingBottom: () => 3,
			paddingLeft: () => 0,
			paddingRight: () => 6
		}
	};
}

function ages(view: StatementView): Content {
	return {
		table: {
			widths: view.ages.map(() => '*'),
			body: [
				view.ages.map(({ label }) =>
					text(label, { color: QUIET, fontSize: 8.5, alignment: 'right' })
				),
				view.ages.map((age) => amount(age.amount))
			] as TableCell[][]
		},
		layout: {
			hLineWidth: () => 0.5,
			vLineWidth: () => 0,
			hLineColor: () => HAIR
		},
		margin: [0, 14, 0, 0]
	};
}

function toPay(view: StatementView, payUrl: string | null): Content {
	const stack: Content[] = [
		{
			columns: [
				heading('To pay', { fontSize: 12 }),
				heading(view.toPay, { fontSize: 14, alignment: 'right' })
			],
			margin: [0, 0, 0, 6]
		}
	];
	if (view.bank)
		stack.push(
			text(`Bank transfer to ${view.bank.accountName}`),
			text(accountLine(view.bank)),
			text(`Reference ${view.bank.reference}`, { bold: true })
		);
	if (payUrl && view.bank)
		stack.push(
			payCode(payUrl, 'Or pay all or some of it online: point a phone at the code, or open')
		);
	return { width: '*', stack } as Content;
}
