// Reports of rich books against the journal and against rows added up by hand; the accountant's pack, opened and added up.
import { expect } from 'chai';
import Papa from 'papaparse';
import { after, before, describe, it } from 'mocha';
import { ForbiddenError } from '../../../../src/lib/core/refusals';
import { asActor } from '../../../../src/lib/server/actor';
import { savePurchase } from '../../../../src/lib/server/services/costs/purchases';
import { addFile } from '../../../../src/lib/server/services/files/files';
import { accountantPack } from '../../../../src/lib/server/services/reports/pack';
import { profitOf, vatPeriod } from '../../../../src/lib/server/services/reports/reports';
import { richBooks, type RichBooks } from '../../../support/richBooks';
import { unzip } from '../../../support/unzip';

const ALL = { from: '2000-01-01', to: '2099-12-31' };
let books: RichBooks;
before(async function () {
	this.timeout(60_000);
	books = await richBooks();
	const cost = (key: string, more: object) =>
		savePurchase(books.world, key, null, 0, {
			kind: 'bill',
			supplier: 'Merchant',
			description: '=cmd()',
			date: '2026-11-02',
			category: 'goods',
			gross: '120',
			vat: '20',
			reclaim: true,
			...more
		});
	const paid = cost('a', { number: '1', paidOn: '2026-11-20' });
	cost('b', { number: '2', gross: '60', vat: '10', category: 'office', privateShare: '50' });
	cost('c', { kind: 'credit', gross: '12', vat: '2', paidOn: '2026-11-20' });
	await addFile(
		books.world,
		{ to: 'purchase', id: paid },
		'receipt.pdf',
		Buffer.from('%PDF-1.7 r')
	);
});
after(() => books.world.end());

const pluck = (sql: string) => BigInt(books.world.db.$client.prepare(sql).pluck().get() as number);
const pence = (pounds: string) => BigInt(Math.round(Number(pounds || 0) * 100));

describe('profit', () => {
	it('by invoice is what the journal has as sales, kinds and customers each add up to it', async () => {
		const profit = await profitOf(books.world, ALL, 'invoice');
		const sales = pluck(
			"select -coalesce(sum(l.sterling), 0) from journal_lines l join journal_entries e on e.id = l.entry_id where l.account in ('sales', 'lateCharges') and e.event in ('issue', 'credit')"
		);
		const documents = pluck(
			"select sum(case kind when 'creditNote' then -net_sterling else net_sterling end) from documents where state = 'issued' and origin <> 'opening'"
		);
		expect(profit.income).to.equal(documents);
		expect(sales).to.equal(documents);
		for (const parts of [profit.byKind, profit.byCustomer])
			expect(parts.reduce((sum, { amount }) => sum + amount, 0n)).to.equal(profit.income);
		// 100 of goods less 10 brought back, and half of 50 for the office.
		expect(profit.byCategory.map(({ category, amount }) => [category, amount])).to.deep.equal([
			['goods', 90_00n],
			['office', 25_00n]
		]);
		expect(profit.costs).to.equal(115_00n + profit.fees);
		// In euro € 500 and back 100: what the bank gave more or less than 0.8432 for each.
		expect(profit.exchange).to.equal(430_00n - 421_60n - (90_00n - 84_32n));
		expect(profit.profit).to.equal(profit.income - profit.costs + profit.exchange);
	});

	it('by money has only what was paid: at most what was billed, and nothing before it came', async () => {
		const profit = await profitOf(books.world, ALL, 'cash');
		expect(profit.income > 0n).to.equal(true);
		expect(profit.byCategory.map(({ category, amount }) => [category, amount])).to.deep.equal([
			['goods', 90_00n]
		]);
		// Days beside one another miss nothing and count nothing twice.
		const early = await profitOf(books.world, { from: ALL.from, to: '2026-10-31' }, 'cash');
		const late = await profitOf(books.world, { from: '2026-11-01', to: ALL.to }, 'cash');
		expect(early.income + late.income).to.equal(profit.income);
		expect(early.withheld + late.withheld).to.equal(profit.withheld);
		expect(profit.withheld).to.equal(pluck('select sum(withheld) from open_items'));
	});
});

describe('a VAT period', () => {
	it('by tax point has the VAT that documents charged, boxes from their rows, and the costs’ own', async () => {
		const period = await vatPeriod(books.world, ALL, 'invoice');
		const charged = pluck(
			"select sum(case kind when 'creditNote' then -vat_charged_sterling else vat_charged_sterling end) from documents where state = 'issued' and number <> 'OLD-1'"
		);
		// A credit of a paid invoice counts when the money goes back: what is held is still in the boxes.
		expect(period.box1 >= charged).to.equal(true);
		expect(period.rows.reduce((sum, { vat }) => sum + vat, 0n) <= period.box1).to.equal(true);
		expect(period.box5).to.equal(period.box1 - period.box4);
		const relief = pluck('select coalesce(sum(max(vat, 0)), 0) from relief_claims');
		// 20, half of 10, less 2.
		expect(period.box4).to.equal(23_00n + relief);
		expect(period.box7).to.equal(115n);
		expect(period.costRows).to.have.length(3);
		for (const row of period.rows)
			expect(row.number, JSON.stringify(row.documentId)).to.be.a('string');
	});

	it('on the cash basis has the costs that were paid', async () => {
		const period = await vatPeriod(books.world, ALL, 'cash');
		expect(period.costRows).to.have.length(2);
		expect(period.box7).to.equal(90n);
	});
});

describe('the accountant’s pack', () => {
	it('adds up to its reports, explains each column, holds every document and receipt, and no cell that is run', async () => {
		const stream = await accountantPack(books.world, ALL, 'invoice');
		const files = await unzip(Buffer.from(await new Response(stream).arrayBuffer()));
		const table = (name: string) =>
			Papa.parse<Record<string, string>>(files.get(name)!.toString(), {
				header: true,
				skipEmptyLines: true
			}).data;
		const sum = (name: string, column: string) =>
			table(name).reduce((whole, row) => whole + pence(row[column]!), 0n);
		const profit = await profitOf(books.world, ALL, 'invoice');
		expect(sum('sales.csv', 'Net') - sum('credits.csv', 'Net')).to.equal(profit.income);
		expect(sum('costs.csv', 'Counts as cost')).to.equal(profit.costs - profit.fees);
		expect(sum('payments.csv', 'Amount')).to.equal(
			pluck(
				'select sum(amount_sterling) from payments p where not exists (select 1 from payment_reversals v where v.payment_id = p.id)'
			) -
				pluck(
					'select coalesce(sum(p.amount - (select sum(a.amount) from allocations a where a.payment_id = p.id)), 0) from payments p where exists (select 1 from allocations a where a.payment_id = p.id) and not exists (select 1 from payment_reversals v where v.payment_id = p.id)'
				)
		);
		expect(sum('journal.csv', 'Debit')).to.equal(sum('journal.csv', 'Credit'));
		const words = files.get('Read me.html')!.toString();
		for (const [name, content] of files)
			if (name.endsWith('.csv'))
				for (const column of Object.keys(table(name)[0] ?? {}))
					if (name !== 'journal.csv') expect(words, `${name} ${column}`).to.contain(`>${column}<`);
					else expect(content.length).to.be.greaterThan(100);
		const documents = pluck("select count(*) from documents where state = 'issued'");
		expect([...files.keys()].filter((name) => name.startsWith('documents/')).length).to.equal(
			Number(documents)
		);
		expect(files.has('receipts/2026-11-02 receipt.pdf')).to.equal(true);
		expect(files.get('Summary.pdf')!.toString()).to.contain('Profit');
		expect(files.get('costs.csv')!.toString()).to.not.match(/(^|,)"?=/m);
	});

	it('is the owner’s and the accountant’s; the office has the reports alone', async () => {
		const as = (role: 'office' | 'accountant' | 'onSite') => ({
			id: 9,
			name: '',
			role,
			seesPrices: false
		});
		const refused = (work: () => Promise<unknown>) =>
			work().then(
				() => false,
				(error: unknown) => error instanceof ForbiddenError
			);
		const asked = async (role: 'office' | 'accountant' | 'onSite') => [
			await refused(() => asActor(as(role), () => profitOf(books.world, ALL, 'cash'))),
			await refused(() => asActor(as(role), () => vatPeriod(books.world, ALL, 'cash'))),
			await refused(() =>
				asActor(as(role), () => accountantPack(books.world, ALL, 'cash')).then((pack) =>
					pack.cancel()
				)
			)
		];
		expect(await asked('office')).to.deep.equal([false, true, true]);
		expect(await asked('onSite')).to.deep.equal([true, true, true]);
		expect(await asked('accountant')).to.deep.equal([false, false, false]);
	});
});
