// Lists against a plain look at all rows: every filter of every field, every order, pages joined, sums, and the file.
// Over 300 lines: each list with its filters.
import { expect } from 'chai';
import Papa from 'papaparse';
import { after, before, describe, it } from 'mocha';
import { readView, writeView } from '../../../../src/lib/core/lists/address';
import { HOWS, type ListView } from '../../../../src/lib/core/lists/types';
import { readCursor } from '../../../../src/lib/core/paging';
import { FieldError } from '../../../../src/lib/core/refusals';
import { keepView, removeView, viewsOf } from '../../../../src/lib/server/services/business/views';
import {
	listCsv,
	readList,
	sumList,
	type ListRow
} from '../../../../src/lib/server/services/desk/lists/engine';
import type { ListSource } from '../../../../src/lib/server/services/desk/lists/where';
import { INVOICE_LIST } from '../../../../src/lib/server/services/desk/lists/invoices';
import { addedFilter, listPage } from '../../../../src/lib/server/services/desk/lists/page';
import { addEnquiry, closeEnquiry } from '../../../../src/lib/server/services/enquiries/enquiries';
import { askQuestion, declineQuote } from '../../../../src/lib/server/services/quotes/page';
import { saveVisit } from '../../../../src/lib/server/services/jobs/visits';
import { prepareSheet, sendSheet } from '../../../../src/lib/server/services/signing/send';
import {
	beginSheet,
	loadSheet,
	saveSheet
} from '../../../../src/lib/server/services/signing/sheets';
import { finishSheet } from '../../../../src/lib/server/services/signing/sheetPaper';
import { signSheet } from '../../../../src/lib/server/services/signing/sign';
import { proposeTelling, tellCustomer } from '../../../../src/lib/server/services/telling/telling';
import {
	beginQuote,
	loadQuote,
	saveQuote
} from '../../../../src/lib/server/services/quotes/quotes';
import { sendQuote } from '../../../../src/lib/server/services/quotes/send';
import { line } from '../../../support/world';
import { saveWorkKind } from '../../../../src/lib/server/services/business/workKinds';
import { SOURCES } from '../../../../src/lib/server/services/desk/lists/rows';
import { archivePriceItem, savePriceItem } from '../../../../src/lib/server/services/prices/prices';
import { savePurchase } from '../../../../src/lib/server/services/costs/purchases';
import { richBooks, type RichBooks } from '../../../support/richBooks';

const { spec } = INVOICE_LIST;
const columnsOf = (source: ListSource) =>
	source.spec.fields.filter((field) => field.column !== false).map((field) => field.id);
const everyField = (source: ListSource) => source.spec.fields.map((field) => field.id);
const EVERY = everyField(INVOICE_LIST);
let books: RichBooks;
let all: ListRow[];
before(async function () {
	this.timeout(60_000);
	books = await richBooks();
	await withMore(books);
	all = pages(view({ columns: EVERY }));
});
after(() => books.world.end());

/** What the books need none of, and lists are made of. */
async function withMore({ world }: RichBooks): Promise<void> {
	const kind = saveWorkKind(world, null, { name: 'Damp' });
	const jobs = world.db.$client
		.prepare('select id from jobs order by id')
		.pluck()
		.all() as number[];
	world.db.$client
		.prepare(`update jobs set work_kind_id = ?, labels = '["flats","heritage"]' where id = ?`)
		.run(kind, jobs[0]);
	world.db.$client
		.prepare(`insert into document_labels select max(id), 'asked' from documents`)
		.run();
	const entry = {
		kind: 'materials',
		unit: 'bag',
		vat: 'standard',
		vatReason: '',
		category: 'Lime',
		cost: '6.405'
	} as const;
	savePriceItem(world, null, 1, { ...entry, code: 'L1', name: 'Lime putty', unitPrice: '9.995' });
	savePriceItem(world, null, 1, { ...entry, code: 'H1', name: 'Hair', unitPrice: '', cost: '' });
	for (const [n, more] of [
		{ gross: '120', vat: '20', paidOn: '2026-11-02', reclaim: true },
		{ gross: '48', supplier: 'Slate Yard', number: 'S-1', category: 'office' },
		{ kind: 'credit', gross: '12', vat: '2', reclaim: true },
		{ kind: 'mileage', miles: '40', category: 'travel' },
		{ gross: '9', jobId: jobs[0], chargeable: true }
	].entries())
		savePurchase(world, `cost ${n}`, null, 0, {
			kind: 'bill',
			supplier: 'Merchant',
			description: `Lime ${n}`,
			date: `2026-10-0${n + 1}`,
			category: 'goods',
			...more
		});
	for (const [n, more] of [
		{ wanted: 'by Easter', source: 'the web', workKindId: kind },
		{ place: '4 Quay', phone: '01632 960002', source: 'a neighbour' },
		{ email: 'c@post.example' }
	].entries()) {
		const id = addEnquiry(world, `enquiry ${n}`, {
			name: `Asker ${n}`,
			what: `Wall ${n}`,
			...more
		});
		if (n === 1) closeEnquiry(world, id, { reason: 'too far' });
	}
	for (const [n, title] of ['Gable', 'Stack', 'Parlour'].entries()) {
		const id = beginQuote(world, `quote ${n}`, {
			title,
			...(n === 0 ? { workKindId: kind } : {}),
			enquiryId: n === 0 ? 1 : null
		});
		const { sheet, version } = loadQuote(world.db, id);
		saveQuote(world, id, version, {
			...sheet,
			customerId: n === 2 ? null : 1,
			contract: 'construction',
			rows: [line('a', 'Work', String(100 * (n + 1)))]
		});
		if (n === 2) continue;
		await sendQuote(world, id, version + 1, { key: 's', byHand: true });
		const { token } = loadQuote(world.db, id);
		if (n === 1) declineQuote(world, token, 'dear');
		else askQuestion(world, token, { key: 'q', question: 'When?' });
	}
	for (const [n, more] of [
		{ from: '9', to: '10', note: 'Bring hair', done: true },
		{ from: '', to: '', person: 'Joss', note: '' },
		{ from: '14', to: '', note: 'Ring first' }
	].entries()) {
		const id = saveVisit(world, jobs[n % 2]!, null, { date: `2026-11-2${n + 5}`, ...more });
		if (n === 2)
			tellCustomer(world, id, { ...proposeTelling(world, id, 'booked'), to: 'a@x.example' });
	}
	for (const [n, jobId] of [jobs[0]!, jobs[1]!, jobs[0]!].entries()) {
		const id = beginSheet(world, jobId, `sheet ${n}`);
		saveSheet(world, id, 1, { ...loadSheet(world.db, id).written, done: 'All of it' });
		if (n === 2) continue;
		await finishSheet(world, id, 2);
		if (n === 1) sendSheet(world, id, { key: 's', ...prepareSheet(world, id), to: 'a@x.example' });
		else
			signSheet(
				world,
				id,
				{ key: 'k', name: 'Odile', of: loadSheet(world.db, id).sha256 },
				{ way: 'phone', from: { address: '', agent: '' } }
			);
	}
	const old = savePriceItem(world, null, 1, { ...entry, code: 'S1', name: 'Sand', unitPrice: '4' });
	archivePriceItem(world, old, true);
}

const view = (change: Partial<ListView> = {}): ListView => ({
	search: '',
	filters: [],
	sort: spec.sort,
	columns: spec.columns,
	...change
});
/** All pages one after the other, each small, and back from the last: the same rows. */
function pages(of: ListView, source: ListSource = INVOICE_LIST): ListRow[] {
	const rows: ListRow[] = [];
	for (let cursor: Parameters<typeof readList>[3] = null; ;) {
		const page = readList(books.world, source, of, cursor, 7);
		rows.push(...page.rows);
		if (page.before) {
			const back = readList(books.world, source, of, cursorOf('before', page.before), 7);
			expect(back.rows).to.deep.equal(rows.slice(-page.rows.length - 7, -page.rows.length));
		}
		if (!page.after) return rows;
		cursor = cursorOf('after', page.after);
	}
}
const cursorOf = (way: 'after' | 'before', place: string) =>
	readCursor(new URLSearchParams({ [way]: place }));
const ids = (rows: ListRow[]) => rows.map((row) => row.id).sort((a, b) => a - b);

for (const source of Object.values(SOURCES)) {
	const whole = (change: Partial<ListView> = {}): ListView => ({
		search: '',
		filters: [],
		sort: source.spec.sort,
		columns: source.spec.columns,
		...change
	});
	describe(`the list of ${source.spec.name}`, () => {
		it('is narrowed down by each field as a look at every row would', () => {
			const rows = pages(whole({ columns: everyField(source) }), source);
			let narrowed = 0;
			for (const field of source.spec.fields.filter((one) => one.filter !== false)) {
				const values = [...new Set(rows.map((row) => row.cells[field.id] ?? null))];
				for (const how of HOWS[field.type])
					for (const value of values) {
						if (value === null || value === '') continue;
						const typed = field.type === 'yes' ? '' : String(value);
						if (field.moment) continue;
						const expected = rows.filter((row) => {
							const cell = row.cells[field.id] ?? null;
							switch (how) {
								case 'has':
									return String(cell ?? '')
										.toLowerCase()
										.includes(typed.toLowerCase());
								case 'is':
									return cell === value;
								case 'not':
									return cell !== value;
								case 'from':
									return cell !== null && cell !== '' && cell >= value;
								case 'to':
									return cell !== null && cell !== '' && cell <= value;
								case 'least':
									return cell !== null && cell >= value;
								case 'most':
									return cell !== null && cell <= value;
								case 'yes':
									return Boolean(cell);
								case 'no':
									return !cell;
							}
						});
						const found = pages(
							whole({ filters: [{ field: field.id, how, value: typed }] }),
							source
						);
						expect(ids(found), `${field.id} ${how} ${typed}`).to.deep.equal(ids(expected));
						narrowed += Number(expected.length > 0 && expected.length < rows.length);
					}
			}
			expect(narrowed).to.be.above(source.spec.name === 'invoices' ? 40 : 5);
		});

		it('stands in any order, nothing first or last, and none is lost between pages', () => {
			const rows = pages(whole({ columns: columnsOf(source) }), source);
			for (const field of source.spec.fields.filter(
				(one) => one.sort !== false && one.column !== false
			))
				for (const down of [false, true]) {
					const found = pages(
						whole({ columns: [field.id], sort: { field: field.id, down } }),
						source
					);
					expect(ids(found), field.id).to.deep.equal(ids(rows));
					if (field.id === 'issued' || (source.spec.name === 'jobs' && field.id === 'number'))
						continue;
					const known = found
						.map((row) => row.cells[field.id] ?? '')
						.map((cell) => (typeof cell === 'string' ? cell.toLowerCase() : cell))
						.filter((cell) => cell !== '' && cell !== null);
					const sorted = [...known].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
					expect(known, field.id).to.deep.equal(down ? sorted.reverse() : sorted);
				}
		});

		it('comes to what its rows come to, in each of its views, is written as it is shown, and names its rows', () => {
			for (const { id, filters } of source.spec.views) {
				const asked = whole({ filters });
				const rows = pages({ ...asked, columns: everyField(source) }, source);
				const { count, sums } = sumList(books.world, source, asked);
				expect(count, id).to.equal(rows.length);
				for (const field of source.spec.fields.filter((one) => one.sum))
					expect(sums[field.id], `${id} ${field.id}`).to.equal(
						rows.reduce((sum, row) => sum + Number(row.cells[field.id] ?? 0), 0)
					);
			}
			const rows = pages(whole(), source);
			expect(rows.length).to.be.above(1);
			const file = Papa.parse<string[]>(
				[...listCsv(books.world, source, whole())].join('').trim()
			).data;
			expect(file).to.have.length(rows.length + 1);
			const names = source.names(
				books.world,
				rows.map(({ id }) => id)
			);
			expect([...names.keys()].sort((x, y) => x - y)).to.deep.equal(ids(rows));
			for (const row of pages({ ...whole(), columns: everyField(source) }, source)) {
				expect(source.href(row.id, row.more)).to.match(/^\/[a-z/0-9-]+(\?visit=\d+)?$/);
				// A choice is shown by its words, never by its name in the books.
				for (const { id, choices } of source.spec.fields)
					if (choices && row.cells[id] !== null)
						expect(choices, `${id} ${row.cells[id]}`).to.have.property(String(row.cells[id]));
			}
			expect(
				readList(books.world, source, whole({ search: '% nothing _' }), null).rows
			).to.deep.equal([]);
		});
	});
}

describe('the list of messages by itself', () => {
	it('leads from each message to what it is about', () => {
		const MESSAGE_LIST = SOURCES.messages;
		const leads = (more: Record<string, string | number>) => MESSAGE_LIST.href(2, more);
		for (const [more, page] of [
			[{ documentId: 7, quoteId: 3, kind: 'invoice' }, '/billing/7'],
			[{ chased: 1, kind: 'reminder' }, '/owed/chasing'],
			[{ statementId: 2, kind: 'statement' }, '/owed/statements'],
			[{ quoteId: 3, kind: 'deposit' }, '/work/quotes/3'],
			[{ jobId: 90, kind: 'visit' }, '/work/90'],
			[{ sheetId: 5, kind: 'jobSheet' }, '/work/sheets/5'],
			// Of what has no page of its own: where such things stand.
			[{ kind: 'paidNotice' }, '/lists/payments'],
			[{ kind: 'receipt' }, '/lists/payments'],
			[{ kind: 'enquiry' }, '/lists/enquiries'],
			[{ kind: 'enquiryNews' }, '/lists/enquiries'],
			[{ kind: 'quoteNews' }, '/lists/quotes'],
			[{ kind: 'signed' }, '/lists/sheets'],
			[{ kind: 'textReply' }, '/work/replies'],
			[{ kind: 'notice' }, '/lists/messages'],
			[{}, '/lists/messages']
		] as const)
			expect(leads(more), JSON.stringify(more)).to.equal(page);
		const rows = pages(
			{ search: '', filters: [], sort: MESSAGE_LIST.spec.sort, columns: ['kind', 'as'] },
			MESSAGE_LIST
		);
		expect(
			rows.map((row) => [row.cells.kind, MESSAGE_LIST.href(row.id, row.more)].join(' '))
		).to.include.members([
			'jobSheet /work/sheets/2',
			'visit /work/1',
			'quoteNews /work/quotes/1',
			'quoteNews /work/quotes/2'
		]);
	});
});

describe('the list of invoices by itself', () => {
	it('has each document once, drafts first, then the newest', () => {
		const { db } = books.world;
		const documents = db.$client
			.prepare(
				"select id from documents where state <> 'discarded' order by coalesce(issue_date, '9999-12-31') desc, id desc"
			)
			.pluck()
			.all();
		expect(all.map((row) => row.id)).to.deep.equal(documents);
		expect(new Set(all.map((row) => row.cells.state)).size).to.be.above(4);
	});

	it('knows the day of a moment in London', () => {
		const [row] = all.filter((one) => one.cells.reminded || one.cells.opened || one.cells.sent);
		expect(row).to.not.equal(undefined);
		const opened = { field: 'opened', how: 'from', value: 'today' } as const;
		const later = pages(view({ filters: [{ ...opened, value: '+1' }] }));
		expect(later).to.deep.equal([]);
		const some = all.filter((one) => one.cells.opened !== null);
		expect(pages(view({ filters: [{ ...opened, value: '2000-01-01' }] }))).to.have.length(
			some.length
		);
		expect(pages(view({ filters: [{ ...opened, how: 'to', value: '2000-01-01' }] }))).to.deep.equal(
			[]
		);
	});

	it('comes to what its rows come to, filters and search together', () => {
		for (const query of [
			'',
			'view=late',
			'view=unpaid',
			'q=render&f=total.least.1',
			'f=sent.no',
			'q=!'
		]) {
			const asked = readView(spec, new URLSearchParams(query));
			const rows = pages({ ...asked, columns: EVERY });
			const { count, sums } = sumList(books.world, INVOICE_LIST, asked);
			expect(count, query).to.equal(rows.length);
			for (const id of ['total', 'open', 'toPay'])
				expect(sums[id], `${query} ${id}`).to.equal(
					rows.reduce((sum, row) => sum + Number(row.cells[id] ?? 0), 0)
				);
		}
	});

	it('is found by the words of a document, and letters that mean something to the index mean themselves', () => {
		expect(pages(view({ search: 'render' })).length).to.be.above(0);
		for (const typed of ['"', 'a AND', '%', '_', "x' or 1=1"]) {
			expect(() => pages(view({ search: typed }))).to.not.throw();
			if (/[%_]/.test(typed))
				expect(
					pages(view({ filters: [{ field: 'customer', how: 'has', value: typed }] }))
				).to.deep.equal([]);
		}
	});

	it('is a file of exactly what is shown: its columns in their order, amounts in pounds, no cell that is run', () => {
		const columns = ['total', 'customer', 'state', 'sent', 'due'];
		books.world.db.$client
			.prepare("update customers set name = '=cmd()' where id = (select min(id) from customers)")
			.run();
		books.world.db.$client
			.prepare(
				"update documents set customer_name = '=cmd()' where id = (select max(id) from documents where state = 'draft')"
			)
			.run();
		const asked = view({ columns, sort: { field: 'total', down: false } });
		const file = [...listCsv(books.world, INVOICE_LIST, asked)].join('').trim();
		const rows = Papa.parse<string[]>(file).data;
		expect(rows[0]).to.deep.equal(['Amount, £', 'Customer', 'State', 'Sent', 'Due']);
		expect(rows.slice(1).map((row) => Number(row[0]))).to.deep.equal(
			pages(asked).map((row) => Number(row.cells.total) / 100)
		);
		expect(rows.flat().some((cell) => cell.startsWith('='))).to.equal(false);
		expect(rows.slice(1).every((row) => ['yes', 'no'].includes(row[3]!))).to.equal(true);
	});
});

describe('a view', () => {
	const page = (query: string) =>
		listPage(books.world, INVOICE_LIST, new URL(`http://x/billing?${query}`), () => all.length);
	const added = (query: string) =>
		addedFilter(INVOICE_LIST, new URL(`http://x/billing?${query}`), '2026-11-24');

	it('is marked where it is shown, kept ones by what they show', () => {
		const here = (query: string) =>
			page(query)
				.views.filter((one) => one.here)
				.map((one) => one.label);
		expect(here('')).to.deep.equal(['All']);
		expect(here('view=late')).to.deep.equal(['Late']);
		expect(here('f=state.is.open,partPaid&f=late.least.1&sort=due')).to.deep.equal(['Late']);
		expect(here('f=total.least.5')).to.deep.equal([]);
		keepView(books.world, 'invoices', ' Large ', page('f=total.least.5').written);
		expect(here('f=total.least.5')).to.deep.equal(['Large']);
		// The same name again is that view, changed.
		keepView(books.world, 'invoices', 'Large', page('f=total.least.9').written);
		expect(viewsOf(books.world.db, 'invoices').map((one) => [one.name, one.address])).to.deep.equal(
			[['Large', 'f=total.least.9']]
		);
		removeView(books.world, 'invoices', viewsOf(books.world.db, 'invoices')[0]!.id);
		expect(here('f=total.least.9')).to.deep.equal([]);
		expect(() => keepView(books.world, 'invoices', '  ', 'x')).to.throw(FieldError);
		expect(() => keepView(books.world, 'invoices', 'x'.repeat(41), 'x')).to.throw(FieldError);
	});

	it('gets one more filter, or hears what is wrong with it', () => {
		expect(added('')).to.equal(null);
		expect(added('view=late&ff=total&fh=least&fv=£1,000&after=x_1')).to.deep.equal({
			address: '/billing?f=state.is.open%2CpartPaid&f=late.least.1&f=total.least.100000&sort=due'
		});
		expect(added('ff=state&fh=is&fv=open&fv=paid')).to.deep.equal({
			address: '/billing?f=state.is.open%2Cpaid'
		});
		// A question of another field: this one's first.
		expect(added('ff=sent&fh=least&fv=')).to.deep.equal({ address: '/billing?f=sent.yes' });
		expect(added('f=sent.yes&ff=sent&fh=yes')).to.deep.equal({ address: '/billing?f=sent.yes' });
		expect(added('ff=total&fh=least&fv=much')).to.deep.include({ field: 'total', value: 'much' });
		expect(added('ff=settled&fh=has&fv=1')).to.have.property('wrong', 'Choose what to filter by.');
		expect(writeView(spec, page('').view).toString()).to.equal('');
	});
});

it('labels and kinds of work are offered as they are there, each once', () => {
	const offered = (source: ListSource) =>
		listPage(books.world, source, new URL('http://x.example/'), () => 0).offered;
	expect(offered(SOURCES.jobs)).to.deep.equal({ label: ['flats', 'heritage'], workKind: ['Damp'] });
	expect(offered(SOURCES.payments)).to.deep.equal({});
	expect(Object.keys(offered(INVOICE_LIST))).to.have.members([
		'label',
		'customerLabel',
		'workKind',
		'income',
		'centre'
	]);
});
