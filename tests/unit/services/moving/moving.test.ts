// Moving in: open invoices, deposits and repeats out of other books stand here as they stood there, count in the boxes and
// in the income once, are chased and paid, and are taken back as long as nothing was built on them. Sums by hand.
// Over 300 lines: each kind of file, brought in and taken back.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import {
	releaseRetention,
	retentionsOf
} from '../../../../src/lib/server/services/billing/retentions';
import { loadSeries } from '../../../../src/lib/server/services/business/series';
import { documentDetail } from '../../../../src/lib/server/services/desk/documents';
import { find } from '../../../../src/lib/server/services/desk/find';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import { correctAsDraft } from '../../../../src/lib/server/services/invoices/corrections';
import {
	copyAsDraft,
	loadDraft,
	saveDraft
} from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { movingsPage, type MovedRow } from '../../../../src/lib/server/services/moving/book';
import { importDeposits } from '../../../../src/lib/server/services/moving/deposits';
import { importOpening, previewOpening } from '../../../../src/lib/server/services/moving/invoices';
import { importRepeats } from '../../../../src/lib/server/services/moving/repeats';
import { takeBackMoving } from '../../../../src/lib/server/services/moving/takeBack';
import { buildStatement } from '../../../../src/lib/server/services/owed/statements';
import { profitOf, vatPeriod } from '../../../../src/lib/server/services/reports/reports';
import { expectSoundBooks } from '../../../support/books';
import { itemOf, payByHand } from '../../../support/money';
import { CONTRACTOR, HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const bytes = (text: string) => new TextEncoder().encode(text);
let press = 0;
const form = (more: object = {}) => ({
	key: `press-${press++}`,
	name: 'open.csv',
	addCustomers: true,
	returnedUntil: '',
	...more
});
const bring = async (text: string, more: object = {}) => {
	const { rows } = await importOpening(world, bytes(text), form(more));
	return rows;
};
const outcomes = (rows: readonly MovedRow[]) => rows.map(({ outcome }) => outcome);
const idOf = (number: string) =>
	world.db.$client
		.prepare('select id from documents where number = ?')
		.pluck()
		.get(number) as number;
const sum = (account: string, documentId: number) =>
	world.db.$client
		.prepare(
			'select coalesce(sum(sterling), 0) from journal_lines where account = ? and document_id = ?'
		)
		.pluck()
		.get(account, documentId) as number;
const count = (table: string) =>
	world.db.$client.prepare(`select count(*) from ${table}`).pluck().get() as number;
const AUTUMN = { from: '2026-09-01', to: '2026-11-30' };

const HEAD = 'Number,Customer,Issued,Due,Net,VAT,Paid,Paid on';
const ONE = `${HEAD}\nOLD-31,Corvane Dairy,3 Oct 2026,17 Oct 2026,1000.00,200.00,300.00,20 Oct 2026`;

describe('an open invoice brought in', () => {
	it('stands with its number, its rest and its days; the same file again brings nothing', async () => {
		expect(outcomes(await bring(ONE))).to.deep.equal(['new']);
		const id = idOf('OLD-31');
		expect(itemOf(world, id)).to.include({
			total: 1200_00,
			cash: 300_00,
			outstanding: 900_00,
			state: 'partPaid',
			dueDate: '2026-10-17',
			reached: true
		});
		expect(outcomes(await bring(ONE))).to.deep.equal(['same']);
		expect(count('documents')).to.equal(1);
		expect(find(world, 'OLD-31').map((found) => found.id)).to.deep.equal([id]);
		const { view } = documentDetail(world, id);
		expect([view.title, view.banner]).to.deep.equal([
			'Record of an invoice',
			'Our record of an invoice you have already: it takes the place of none'
		]);
		const statement = buildStatement(world, itemOf(world, id).payerId, {
			style: 'open',
			asOf: '2026-11-24'
		} as never);
		expect(
			JSON.stringify(statement, (_key, value) =>
				typeof value === 'bigint' ? String(value) : value
			)
		).to.include('OLD-31');
	});

	it('posts what the other books had beside the sales, and VAT only where it is to be returned', async () => {
		await bring(ONE);
		const due = idOf('OLD-31');
		expect(
			['receivable', 'sales', 'vatOutput', 'opening', 'bank'].map((account) => sum(account, due))
		).to.deep.equal([900_00, 0, -200_00, -1000_00 + 300_00, 0]);
		await bring(ONE.replace('OLD-31', 'OLD-32'), { returnedUntil: '2026-10-31' });
		const returned = idOf('OLD-32');
		expect([sum('vatOutput', returned), sum('opening', returned)]).to.deep.equal([
			0,
			-1200_00 + 300_00
		]);
	});

	it('counts in a box by invoice only where its VAT was not returned; a credit of it does', async () => {
		await bring(ONE);
		await bring(ONE.replace('OLD-31', 'OLD-32'), { returnedUntil: '2026-10-03' });
		await bring(ONE.replace('OLD-31', 'OLD-33'), { returnedUntil: '2026-10-02' });
		const boxes = async () => {
			const { box1, box6, rows } = await vatPeriod(world, AUTUMN, 'invoice');
			return [box1, box6, rows.map(({ number, vat }) => `${number} ${vat}`)];
		};
		expect(await boxes()).to.deep.equal([400_00n, 2000n, ['OLD-31 20000', 'OLD-33 20000']]);
		await creditInvoice(world, idOf('OLD-32'), 'Not done', 'c');
		// 900 of 1,200 was not paid yet: so much of the credit takes effect, 750 net and 150 of VAT.
		expect(await boxes()).to.deep.equal([
			250_00n,
			1250n,
			['OLD-31 20000', 'OLD-33 20000', 'CN-0001 -15000']
		]);
	});

	it('counts on the cash basis when it is paid, unless it was returned', async () => {
		await bring(ONE);
		await bring(ONE.replace('OLD-31', 'OLD-32'), { returnedUntil: '2026-10-31' });
		for (const number of ['OLD-31', 'OLD-32']) payByHand(world, idOf(number), '600.00');
		const { rows, box1 } = await vatPeriod(world, AUTUMN, 'cash');
		expect([box1, rows.map(({ number, date, vat }) => [number, date, vat])]).to.deep.equal([
			150_00n,
			[
				['OLD-31', '2026-10-20', 50_00n],
				['OLD-31', '2026-11-24', 100_00n]
			]
		]);
	});

	it('is income when it is paid, and by invoice was income of the other books', async () => {
		await bring(ONE);
		payByHand(world, idOf('OLD-31'), '600.00');
		const day = { from: '2026-11-24', to: '2026-11-24' };
		expect((await profitOf(world, day, 'cash')).income).to.equal(500_00n);
		expect((await profitOf(world, AUTUMN, 'invoice')).income).to.equal(0n);
		await creditInvoice(world, idOf('OLD-31'), 'Part not done', 'c');
		expect((await profitOf(world, AUTUMN, 'invoice')).income).to.equal(-1000_00n);
	});

	it('keeps the VAT other books rounded, also where it is credited', async () => {
		await bring(`Number,Customer,Issued,Net,VAT\nOLD-1,Varden,3 Oct 2026,1000.03,200.03`);
		const { figures } = documentDetail(world, idOf('OLD-1'));
		expect([figures.vatCharged, figures.total]).to.deep.equal([200_03n, 1200_06n]);
		expect(figures.workings.get('vat.standard.vat')?.rule).to.equal('asIssued');
		await creditInvoice(world, idOf('OLD-1'), 'Wrong', 'c');
		expect(itemOf(world, idOf('OLD-1'))).to.include({ state: 'credited', outstanding: 0 });
	});

	it('has what a contractor will deduct, and what it kept of what it paid', async () => {
		addCustomer(world, CONTRACTOR);
		const { name } = CONTRACTOR;
		const head =
			'Number,Customer,Issued,Net,VAT rate,Reverse charge,Expected deduction,Paid,Withheld';
		const [row] = await bring(`${head}\nOLD-5,${name},3 Oct 2026,1000,20,yes,80,460,40`);
		expect(row!.outcome, row!.detail).to.equal('new');
		const id = idOf('OLD-5');
		const { figures } = documentDetail(world, id);
		expect([figures.vatCharged, figures.vatReverseCharged, figures.cis?.deduction]).to.deep.equal([
			0n,
			200_00n,
			80_00n
		]);
		expect(itemOf(world, id)).to.include({
			total: 1000_00,
			withheld: 40_00,
			outstanding: 500_00,
			toPay: 460_00
		});
		payByHand(world, id, '460.00');
		expect(itemOf(world, id)).to.include({ state: 'paid', withheld: 80_00 });
		const wrong = await bring(
			`${head.replace(',Expected deduction,Paid,Withheld', '')}\nOLD-6,${name},3 Oct 2026,1000,20,yes`
		);
		expect(wrong[0]!.detail).to.include('Say what it is expected to deduct');
	});

	it('holds back what is released later, at a tax point of its own', async () => {
		const head = 'Number,Customer,Issued,Net,VAT,Retention,Retention due,Job';
		await bring(`${head}\nOLD-7,Varden Ltd,3 Oct 2026,950,190,50,1 Apr 2027,Stable block`, {
			returnedUntil: '2026-10-31'
		});
		const id = idOf('OLD-7');
		expect(itemOf(world, id)).to.include({ total: 1140_00, outstanding: 1140_00 });
		const job = world.db.$client
			.prepare("select id from jobs where title = 'Stable block'")
			.pluck()
			.get() as number;
		expect(retentionsOf(world.db, job)).to.deep.equal([
			{ documentId: id, number: 'OLD-7', amount: 50_00, dueOn: '2027-04-01', releasedById: null }
		]);
		const draft = releaseRetention(world, job, 'r');
		const release = await issueInvoice(world, draft, loadDraft(world.db, draft).version);
		expect(documentDetail(world, release.id).figures).to.include({
			net: 50_00n,
			vatCharged: 10_00n
		});
		const { box1 } = await vatPeriod(world, AUTUMN, 'invoice');
		expect(box1).to.equal(10_00n);
	});

	it('in euro stands in euro, with its rate', async () => {
		const head = 'Number,Customer,Issued,Net,VAT,Currency,Exchange rate,Paid';
		await bring(`${head}\nOLD-8,Hotel Brume,3 Oct 2026,1000,200,EUR,0.85,400`);
		const id = idOf('OLD-8');
		expect(itemOf(world, id)).to.include({
			currency: 'EUR',
			total: 1200_00,
			totalSterling: 1020_00,
			outstanding: 800_00
		});
		const [row] = await bring(`${head}\nOLD-9,Hotel Brume,3 Oct 2026,1000,200,EUR,,`);
		expect(row!.detail).to.include('What EUR was worth on 3 Oct 2026 is not known');
	});

	it('is refused where its number is one of ours, stands twice, or its customer is nobody in particular', async () => {
		const own = await issued(world, HOUSEHOLD);
		const [row] = await bring(ONE.replace('OLD-31', own.number.toLowerCase()));
		expect([row!.outcome, row!.detail]).to.deep.equal([
			'wrong',
			`There is an invoice ${own.number} here already.`
		]);
		const unknown = (await previewOpening(world, bytes(ONE), form({ addCustomers: false }))).rows;
		expect(unknown[0]!.detail).to.equal('Nobody here is called “Corvane Dairy”.');
		for (const key of ['a', 'b'])
			addCustomer(world, { ...HOUSEHOLD, name: 'Corvane Dairy', email: `${key}@x.example` });
		expect((await bring(ONE))[0]!.detail).to.equal('2 customers are called “Corvane Dairy”.');
		const nothing = await previewOpening(world, bytes('nothing'), form()).catch((error) => error);
		expect(nothing).to.be.instanceOf(FieldError);
	});

	it('with a number of our own series moves what comes next behind it, once', async () => {
		const text = ONE.replace('OLD-31', 'INV-0041');
		const { notes } = await previewOpening(world, bytes(text), form());
		expect(notes).to.deep.equal([
			'Your own numbers go on behind INV-0041: the next invoice gets number 42.'
		]);
		expect(loadSeries(world.db, 'invoice').next).to.equal(7);
		await bring(text);
		expect((await issued(world, HOUSEHOLD)).number).to.equal('INV-0042');
	});

	it('pressed twice at once, comes once; a copy of it is an ordinary invoice', async () => {
		addCustomer(world, { ...HOUSEHOLD, name: 'Corvane Dairy' });
		const same = form();
		const both = await Promise.all([
			importOpening(world, bytes(ONE), same),
			importOpening(world, bytes(ONE), same)
		]);
		expect(both.map(({ rows }) => rows[0]!.outcome).sort()).to.deep.equal(['new', 'same']);
		expect([count('documents'), count('payments')]).to.deep.equal([1, 1]);
		const draft = copyAsDraft(world, idOf('OLD-31'), 'copy');
		const copy = await issueInvoice(world, draft, loadDraft(world.db, draft).version);
		expect(copy.number).to.equal('INV-0007');
		expect(sum('sales', copy.id)).to.equal(-1000_00);
	});

	it('ended in the middle, is brought in whole by the same file, none twice', async () => {
		const rows = Array.from({ length: 25 }, (_, n) => `OLD-${n},Varden,3 Oct 2026,,10,2,,`);
		const text = `${HEAD}\n${rows.join('\n')}`;
		const { press: whole } = world;
		let drawn = 0;
		world.press = {
			...whole,
			document: async (view, options) => {
				if (++drawn > 15) throw new Error('the power went');
				return whole.document(view, options);
			}
		};
		const broken = await importOpening(world, bytes(text), form()).catch((error) => error);
		expect(broken).to.be.instanceOf(Error);
		expect(count('documents')).to.equal(10);
		world.press = whole;
		const found = outcomes(await bring(text));
		expect([found.filter((one) => one === 'same').length, found.length]).to.deep.equal([10, 25]);
		expect([count('documents'), count('customers')]).to.deep.equal([25, 1]);
		expect(movingsPage(world).map(({ left }) => left)).to.deep.equal([15, 10]);
	});

	it('is put right by an invoice of ours, which has a number of ours', async () => {
		addCustomer(world, { ...HOUSEHOLD, name: 'Corvane Dairy' });
		await bring(ONE);
		const draft = correctAsDraft(world, idOf('OLD-31'), 'right');
		const { sheet, version } = loadDraft(world.db, draft);
		saveDraft(world, draft, version, { ...sheet, about: { ...sheet.about!, reason: 'Slip' } });
		const { number } = await issueInvoice(world, draft, version + 1);
		expect(number).to.equal('INV-0007');
		expect(itemOf(world, idOf('OLD-31')).state).to.equal('credited');
		// What was paid of it goes along.
		expect(itemOf(world, idOf('INV-0007'))).to.include({ total: 1200_00, outstanding: 1200_00 });
	});

	it('keeps its payment of before: that is undone only with the invoice', async () => {
		await bring(ONE);
		expect(() => undoPayment(world, 1, 'slip')).to.throw(RefusedError, 'Moving in');
	});
});

describe('taking back what was brought in', () => {
	const movingId = () => movingsPage(world)[0]!.id;

	it('leaves nothing of it, and it can come again', async () => {
		await bring(
			ONE.replace(',Paid on', ',Paid on,Job,Retention').replace(
				'20 Oct 2026',
				'20 Oct 2026,Barn,50'
			)
		);
		expect([count('jobs'), count('retentions'), count('journal_entries')]).to.deep.equal([1, 1, 2]);
		expect(takeBackMoving(world, movingId())).to.deep.equal({ taken: 1, kept: [] });
		for (const table of [
			'documents',
			'payments',
			'allocations',
			'journal_entries',
			'journal_lines',
			'open_items',
			'tax_points',
			'trail',
			'retentions',
			'jobs',
			'document_files'
		])
			expect(count(table), table).to.equal(0);
		expect(movingsPage(world)).to.deep.equal([]);
		expect(find(world, 'OLD-31')).to.deep.equal([]);
		expect(outcomes(await bring(ONE))).to.deep.equal(['new']);
	});

	it('leaves what something was built on, and says what', async () => {
		await bring(`${ONE}\nOLD-32,Varden,3 Oct 2026,,10,2,,\nOLD-33,Brume,3 Oct 2026,,10,2,,`);
		payByHand(world, idOf('OLD-32'), '5.00');
		await creditInvoice(world, idOf('OLD-33'), 'Wrong', 'c');
		expect(takeBackMoving(world, movingId())).to.deep.equal({
			taken: 1,
			kept: [
				{ name: 'OLD-33, Brume', why: 'CN-0001 credits it' },
				{ name: 'OLD-32, Varden', why: 'a payment of it was recorded' }
			]
		});
		expect([idOf('OLD-31'), movingsPage(world)[0]!.left]).to.deep.equal([undefined, 2]);
	});

	it('gives leave to remove nothing else', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		const { $client } = world.db;
		expect(() =>
			$client
				.prepare("insert into taken_back (what, row_id, name, at) values ('document', ?, 'x', 0)")
				.run(id)
		).to.throw('only what was brought in');
		const entry = $client.prepare('select id from journal_entries').pluck().get();
		expect(() =>
			$client
				.prepare("insert into taken_back (what, row_id, name, at) values ('entry', ?, 'x', 0)")
				.run(entry)
		).to.throw('only what was brought in');
		for (const table of [
			'documents',
			'journal_entries',
			'journal_lines',
			'document_lines',
			'document_files',
			'tax_points'
		])
			expect(() => $client.prepare(`delete from ${table}`).run(), table).to.throw(
				/never|only added to/
			);
	});
});

describe('deposits and credit brought in', () => {
	it('are in hand where nothing was written, and the deposit invoice, paid, where one was', async () => {
		const text =
			'Customer,Amount,Date,Deposit invoice,VAT rate,VAT returned\nVarden,300,3 Oct 2026,,,\nBrume,240,3 Oct 2026,DEP-4,20,yes';
		const { rows } = await importDeposits(world, bytes(text), form());
		expect(rows.map(({ name, outcome }) => [name, outcome])).to.deep.equal([
			['Varden', 'new'],
			['DEP-4, Brume', 'new']
		]);
		expect(itemOf(world, idOf('DEP-4'))).to.include({ state: 'paid', cash: 240_00 });
		const credit = world.db.$client
			.prepare("select sum(amount) from journal_lines where account = 'customerCredit'")
			.pluck()
			.get();
		expect(credit).to.equal(-300_00);
		expect((await vatPeriod(world, AUTUMN, 'invoice')).box1).to.equal(0n);
		const again = await importDeposits(world, bytes(text), form());
		expect(outcomes(again.rows)).to.deep.equal(['same', 'same']);
		expect(takeBackMoving(world, movingsPage(world)[0]!.id).taken).to.equal(2);
		expect([count('payments'), count('documents')]).to.deep.equal([0, 0]);
	});
});

describe('repeats brought in', () => {
	it('begin at their next day, priced as their customers are, and are taken back', () => {
		addCustomer(world, { ...HOUSEHOLD, name: 'Corvane Dairy', kind: 'business' });
		const text =
			'Customer,Name,Price,Every,Next,Sends\nCorvane Dairy,Gutters,80,quarterly,1 Dec 2026,yes\nVarden,Boiler care,12,monthly,1 Dec 2026,\nVarden,Late,12,monthly,1 Nov 2026,';
		const { rows } = importRepeats(world, bytes(text), form());
		expect(rows.map(({ outcome, detail }) => `${outcome}: ${detail}`)).to.deep.equal([
			'new: Corvane Dairy · £80.00 without VAT · every 3 months from 1 Dec 2026 · sent by itself',
			'new: Varden, a new customer · £12.00 with VAT · every month from 1 Dec 2026 · as a draft',
			'wrong: Its next day has passed: give the one that comes.'
		]);
		const stored = world.db.$client
			.prepare(
				"select name, action, made_from, json_extract(sheet, '$.pricesIncludeVat') as vat from repeats order by id"
			)
			.all();
		expect(stored).to.deep.equal([
			{ name: 'Gutters', action: 'send', made_from: '2026-12-01', vat: 0 },
			{ name: 'Boiler care', action: 'draft', made_from: '2026-12-01', vat: 1 }
		]);
		expect(outcomes(importRepeats(world, bytes(text), form()).rows)).to.deep.equal([
			'same',
			'same',
			'wrong'
		]);
		expect(takeBackMoving(world, movingsPage(world)[0]!.id)).to.deep.equal({ taken: 2, kept: [] });
		expect(count('repeats')).to.equal(0);
	});
});
