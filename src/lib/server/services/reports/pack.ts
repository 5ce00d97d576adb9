// The pack for the accountant: one ZIP of a period with everything that is asked for, each file explained.
import { existsSync } from 'node:fs';
import { stringify } from 'csv-stringify/sync';
import { sql, eq } from 'drizzle-orm';
import { frozenFigures } from '../../../core/documents/frozen';
import { spread } from '../../../core/reports/tags';
import { sheetLines } from '../../../core/sheet/blank';
import { CATEGORY_NAMES } from '../../../core/costs/types';
import { boxRows } from '../../../core/reports/boxes';
import { displayDate } from '../../../core/calendar/conversion';
import { safeCell } from '../../../core/formats/cells';
import { formatMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import type { Period } from '../../../core/reports/income';
import { archiveBody } from '../../archive';
import { must } from '../../actor';
import { folderOf, placeOf } from '../../db/fileStore';
import { documentFiles, documents } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness, vatWays } from '../business/settings';
import { type Purchase, inputTax, ownCost } from '../costs/amounts';
import { journalCsv } from '../ledger/journalCsv';
import { profitOf, vatPeriod, type Basis } from './reports';
import { type Table, pounds, AMOUNTS, tablesOf, COST_COLUMNS, LINE_COLUMNS } from './packTables';

function* tableCsv(world: World, { columns, query }: Table): Generator<string> {
	yield stringify([columns.map(([name]) => name)]);
	for (const row of world.db.values<(string | number | null)[]>(query))
		yield stringify([
			row.map((cell, index) =>
				cell === null
					? ''
					: typeof cell === 'number' && AMOUNTS.test(columns[index]![0])
						? pounds(cell)
						: safeCell(String(cell))
			)
		]);
}

function* costsCsv(world: World, { from, to }: Period): Generator<string> {
	yield stringify([COST_COLUMNS.map(([name]) => name)]);
	for (const row of world.db.all<Purchase & { supplier: string | null; privateShare: string }>(
		sql`select p.*, p.private_share as privateShare, p.paid_on as paidOn, s.name as supplier from purchases p left join suppliers s on s.id = p.supplier_id
			where p.removed_at is null and (p.date between ${from} and ${to} or p.paid_on between ${from} and ${to}) order by p.date, p.id`
	)) {
		const { box, name } = CATEGORY_NAMES[row.category];
		const read = { ...row, reclaim: Boolean(row.reclaim) };
		yield stringify([
			[
				row.date,
				row.paidOn ?? '',
				safeCell(row.supplier ?? ''),
				safeCell(row.number),
				safeCell(row.description),
				String(box),
				name,
				safeCell(row.centre),
				pounds(row.net),
				pounds(row.vat),
				pounds(inputTax(read)),
				pounds(ownCost(read))
			]
		]);
	}
}

/** Every line of what was issued: all of a document's add up to its net. */
function* linesCsv(world: World, { from, to }: Period): Generator<string> {
	yield stringify([LINE_COLUMNS.map(([name]) => name)]);
	for (const { id } of world.db.all<{ id: number }>(
		sql`select id from documents where state = 'issued' and origin <> 'opening' and issue_date between ${from} and ${to} order by id`
	)) {
		const row = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
		const { lines } = frozenFigures(row.frozen!);
		const nets = spread(
			BigInt((row.netSterling ?? row.net) * (row.kind === 'creditNote' ? -1 : 1)),
			lines.map(({ withoutVat }) => withoutVat)
		);
		for (const [index, line] of sheetLines(row.frozen!.sheet).entries())
			yield stringify([
				[
					safeCell(row.number!),
					row.issueDate,
					String(index + 1),
					safeCell(line.description),
					line.kind,
					safeCell(line.income ?? ''),
					safeCell(line.centre ?? ''),
					formatMoney(nets[index]!),
					line.vat
				]
			]);
	}
}

const escape = (text: string) =>
	text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

/** What is in it, and what each column means: opens in any browser. */
function explained(world: World, period: Period, tables: readonly Table[]): string {
	const { tradingName, ownerName } = loadBusiness(world.db);
	const all = [
		...tables,
		{
			file: 'costs.csv',
			what: 'What was bought, by its own date or the day it was paid.',
			columns: COST_COLUMNS
		},
		{
			file: 'sales-lines.csv',
			what: 'Each line of the invoices and credit notes, with its income category and cost centre.',
			columns: LINE_COLUMNS
		},
		{
			file: 'journal.csv',
			what: 'The journal: every posting, balanced by date and event.',
			columns: [
				['Date', 'the day it counts'],
				['Account', 'the ledger account'],
				['Debit, Credit', '£'],
				['Tax point', 'of VAT']
			] as const
		}
	];
	return `<!doctype html><html lang="en-GB"><meta charset="utf-8"><title>What is in this pack</title><body style="font:16px/1.5 sans-serif;max-width:46em;margin:2em auto;padding:0 1em">
<h1>${escape(tradingName || ownerName)}</h1><p>${displayDate(period.from)} to ${displayDate(period.to)}. Amounts are in pounds, without a sign; days are year-month-day. Summary.pdf has the figures in short, documents/ every invoice and credit note, receipts/ what was kept of costs.</p>
${all
	.map(
		({ file, what, columns }) =>
			`<h2>${file}</h2><p>${what}</p><table border="1" cellpadding="5" style="border-collapse:collapse">${columns
				.map(
					([name, holds]) =>
						`<tr><th align="left">${escape(name)}</th><td>${escape(holds)}</td></tr>`
				)
				.join('')}</table>`
	)
	.join('\n')}</body></html>`;
}

/** @throws ForbiddenError */
export async function accountantPack(
	world: World,
	period: Period,
	basis: Basis
): Promise<ReadableStream<Uint8Array>> {
	must('tax');
	const { db } = world;
	const [profit, vat] = [
		await profitOf(world, period, basis),
		// VAT by its own way of counting, whatever profit is worked out by.
		await vatPeriod(world, period, vatWays(db).basis)
	];
	const owner = loadBusiness(db);
	const rows = (parts: readonly { name: string; amount: bigint }[], none = 'no kind') =>
		parts.map(({ name, amount }): [string, string] => [name || none, displayPounds(amount)]);
	const summary = await world.press.summary({
		title: 'Summary for the accountant',
		of: owner.tradingName || owner.ownerName,
		period: `${displayDate(period.from)} to ${displayDate(period.to)}, ${basis === 'cash' ? 'by the money that came in' : 'by invoice'}`,
		madeAt: world.clock.now(),
		parts: [
			{
				title: 'Profit',
				rows: [
					['Income, without VAT', displayPounds(profit.income)],
					['Costs', displayPounds(-profit.costs)],
					...(profit.exchange
						? [['Exchange differences', displayPounds(profit.exchange)] as [string, string]]
						: []),
					['Profit', displayPounds(profit.profit)],
					['Withheld by contractors (CIS)', displayPounds(profit.withheld)]
				]
			},
			{ title: 'Income by kind of work', rows: rows(profit.byKind) },
			...(profit.byIncome.length
				? [{ title: 'Income by category', rows: rows(profit.byIncome, 'no category') }]
				: []),
			...(profit.byCentre.length
				? [
						{
							title: 'Income less costs by cost centre',
							rows: rows(
								profit.byCentre.map(({ name, income, costs }) => ({
									name,
									amount: income - costs
								})),
								'no cost centre'
							)
						}
					]
				: []),
			{
				title: 'Costs by box of the return',
				rows: rows(boxRows(profit.byCategory, profit.fees))
			},
			{
				title: 'VAT of the period',
				rows: [
					['Box 1, on sales', displayPounds(vat.box1)],
					['Box 3', displayPounds(vat.box3)],
					['Box 4, reclaimed', displayPounds(vat.box4)],
					['Box 5, to pay or to get', displayPounds(vat.box5)],
					['Box 6, sales without VAT', `£${vat.box6.toLocaleString('en-GB')}`],
					['Box 7, purchases without VAT', `£${vat.box7.toLocaleString('en-GB')}`]
				]
			}
		]
	});
	return archiveBody(world.clock.now(), (archive) => {
		const tables = tablesOf(period);
		archive.bytes('Summary.pdf', () => summary);
		archive.text('Read me.html', () => [explained(world, period, tables)]);
		for (const table of tables) archive.text(table.file, () => tableCsv(world, table));
		archive.text('sales-lines.csv', () => linesCsv(world, period));
		archive.text('costs.csv', () => costsCsv(world, period));
		archive.text('journal.csv', () => journalCsv(db, period));
		for (const { id, name } of db.all<{ id: number; name: string }>(
			sql`select d.id, f.name from documents d join document_files f on f.document_id = d.id
			where d.state = 'issued' and d.issue_date between ${period.from} and ${period.to} order by d.id`
		))
			archive.bytes(
				`documents/${name}`,
				() =>
					db
						.select({ content: documentFiles.content })
						.from(documentFiles)
						.where(eq(documentFiles.documentId, id))
						.get()?.content
			);
		for (const { name, stored, date } of db.all<{ name: string; stored: string; date: string }>(
			sql`select f.name, f.stored, p.date from files f join purchases p on p.id = f.purchase_id
			where f.removed_at is null and f.stored is not null and p.removed_at is null and p.date between ${period.from} and ${period.to} order by p.date`
		)) {
			const place = placeOf(folderOf(db), stored);
			if (existsSync(place)) archive.file(`receipts/${date} ${name}`, place);
		}
	});
}
