// Below the lines of a document: totals, VAT by rate, how to pay.
import { accountLine } from '../../core/documents/account';
import type { Content, TableCell } from 'pdfmake/interfaces';
import type { DocumentView, ViewAmount } from '../../core/documents/viewTypes';
import { shows } from '../../core/letterheads/look';
import { QUIET, HAIR, ACCENT, type PdfOptions, text, heading, amount, payCode } from './pdfParts';

export function totals(view: DocumentView): Content {
	const row = ({ label, amount: value, strong }: ViewAmount): TableCell[] => [
		text(label, strong ? { bold: true } : {}) as TableCell,
		amount(value, strong ? { bold: true } : {})
	];
	const body = [...view.totals.map(row), ...(view.deduction.length ? view.deduction.map(row) : [])];
	const firstDeduction = view.totals.length;
	return {
		width: 262,
		stack: [
			...(body.length
				? [
						{
							table: { widths: ['*', 'auto'], body },
							layout: {
								hLineWidth: (line: number) =>
									line === firstDeduction && view.deduction.length ? 0.8 : 0,
								vLineWidth: () => 0,
								hLineColor: () => HAIR,
								paddingLeft: () => 0,
								paddingRight: () => 0,
								paddingTop: () => 1.5,
								paddingBottom: () => 1.5
							}
						}
					]
				: []),
			...(view.payable ? [payableRow(view.payable, view.sign)] : []),
			...(view.vatTable.length > 1 || view.vatTable.some((row) => row.rate.includes('reverse'))
				? [vatTable(view)]
				: [])
		]
	} as Content;
}

function payableRow({ label, amount: value }: ViewAmount, sign: string): Content {
	return {
		table: {
			widths: ['*', 'auto'],
			body: [
				[
					heading(label, { fontSize: 14, margin: [0, 4, 0, 0] }) as TableCell,
					{
						text: `${sign}${value}`,
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
	};
}

function vatTable(view: DocumentView): Content {
	const small = { fontSize: 8.5, color: QUIET };
	return {
		table: {
			widths: ['*', 'auto', 'auto'],
			body: [
				[
					text('VAT by rate', small) as TableCell,
					amount(`Net, ${view.sign.trim()}`, small),
					amount(`VAT, ${view.sign.trim()}`, small)
				],
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

export function payment(view: DocumentView, { payUrl }: PdfOptions): Content {
	const shown = { code: shows(view.look, 'code'), link: shows(view.look, 'payLink') };
	const online = payUrl && view.online && (shown.code || shown.link);
	const stack: Content[] = [];
	if (view.bank || online || view.payWords)
		stack.push(heading(view.payTitle, { fontSize: 11, margin: [0, 0, 0, 2] }));
	if (view.bank)
		stack.push(
			text(`Bank transfer to ${view.bank.accountName}`),
			text(accountLine(view.bank)),
			text(`Reference ${view.bank.reference}`, { bold: true })
		);
	if (view.payWords) stack.push(text(view.payWords, { margin: [0, 3, 0, 0] }));
	if (online)
		stack.push(
			payCode(
				payUrl,
				`${view.bank ? 'Or pay' : 'Pay'} ${view.online}: ${
					shown.code ? `point a phone at the code${shown.link ? ', or open' : '.'}` : 'open'
				}`,
				shown
			)
		);
	return { width: '*', stack: stack.length ? stack : [text('')] } as Content;
}
