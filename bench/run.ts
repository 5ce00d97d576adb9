// How fast the heart of it is, as ratios to something that scales with the machine: `npm run bench`.
import Sqlite from 'better-sqlite3';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { computeInvoice } from '../src/lib/core/figures/invoice';
import { readInvoiceInput } from '../src/lib/core/figures/input';
import { NO_STANDING } from '../src/lib/core/parties';
import { GB } from '../src/lib/core/regimes/gb';
import { blankLine, blankSheet } from '../src/lib/core/sheet/blank';
import { readSheet } from '../src/lib/core/sheet/read';
import { readConfig } from '../src/lib/server/config';
import { openWorld } from '../src/lib/server/open';
import { saveBusiness } from '../src/lib/server/services/business/settings';
import { readView } from '../src/lib/core/lists/address';
import type { Cursor } from '../src/lib/core/paging';
import { countByState } from '../src/lib/server/services/desk/documentList';
import { readList, sumList } from '../src/lib/server/services/desk/lists/engine';
import { INVOICE_LIST } from '../src/lib/server/services/desk/lists/invoices';
import { find } from '../src/lib/server/services/desk/find';
import { nextMoves } from '../src/lib/server/services/desk/moves';
import { SELLER } from '../tests/support/sheets';

/** Microseconds for one call, the median of several rounds. */
function time(work: () => unknown, calls: number): number {
	for (let call = 0; call < calls / 4; call++) work();
	const rounds = Array.from({ length: 7 }, () => {
		const start = process.hrtime.bigint();
		for (let call = 0; call < calls; call++) work();
		return Number(process.hrtime.bigint() - start) / calls / 1000;
	});
	return rounds.sort((a, b) => a - b)[3]!;
}
const show = (label: string, micros: number, against?: number) =>
	console.log(
		`${label.padEnd(62)} ${micros.toFixed(micros < 100 ? 1 : 0).padStart(9)} µs${against === undefined ? '' : `   ratio ${(micros / against).toFixed(1)}`}`
	);

const input = {
	regime: 'GB',
	date: '2026-11-02',
	currency: 'GBP',
	seller: { vatRegistered: true },
	customer: { kind: 'contractor', vatRegistered: true, cisRegistered: true },
	cisRate: '20',
	discount: { percent: '5' },
	lines: Array.from({ length: 10 }, (_, index) => ({
		kind: index % 2 ? 'materials' : 'labour',
		quantity: `${index + 1}.5`,
		unitPrice: '45.25',
		vat: 'standard',
		...(index % 2 ? { cost: '30.00' } : {})
	}))
};
const text = JSON.stringify(input);
const typed = readInvoiceInput(input);
const parse = time(() => JSON.parse(text), 20_000);
console.log('A ten-line invoice');
show('JSON.parse of its input', parse);
show(
	'figures with workings',
	time(() => computeInvoice(typed, GB), 5_000),
	parse
);
show(
	'figures with workings, reading the input included',
	time(() => computeInvoice(readInvoiceInput(JSON.parse(text)), GB), 5_000),
	parse
);

const sheet = {
	...blankSheet(),
	customerId: 1,
	contract: 'construction' as const,
	rows: Array.from({ length: 200 }, (_, index) => ({
		...blankLine(`l${index}`),
		description: `Line ${index}`,
		unitPrice: '45.25'
	}))
};
const context = {
	today: '2026-11-24',
	seller: SELLER,
	customer: {
		id: 1,
		kind: 'contractor' as const,
		name: 'Beacon',
		email: '',
		address: 'Foundry House',
		terms: null,
		orderNumberRequired: false,
		billTo: null,
		sites: [],
		standings: [
			{
				...NO_STANDING,
				vatRegistered: true,
				vatNumber: '123456782',
				cisRegistered: true,
				cisRate: '20' as const
			}
		]
	}
};
console.log('\nA sheet of 200 lines, at each key');
const sheetText = JSON.stringify(sheet);
const sheetParse = time(() => JSON.parse(sheetText), 2_000);
show('JSON.parse of the sheet', sheetParse);
show(
	'read, checked and computed with workings (50,000 µs allowed)',
	time(() => readSheet(sheet, context), 200),
	sheetParse
);

console.log('\nA hundred thousand invoices');
const folder = mkdtempSync(join(tmpdir(), 'axiometer-bench-'));
const world = openWorld(
	readConfig({ AXIOMETER_DATA: folder, AXIOMETER_CLOCK: '2026-11-24T09:00' })
);
saveBusiness(
	world,
	{ ...blankBusiness(), ownerName: 'Tamsin Orrell', address: 'Kiln Cottage', vatNumber: '' },
	true
);
fill(world.db.$client, 100_000);
const list = (query: string, cursor: Cursor | null = null) =>
	readList(world, INVOICE_LIST, readView(INVOICE_LIST.spec, new URLSearchParams(query)), cursor);
const simple = time(
	() => world.db.$client.prepare('select * from documents order by id desc limit 51').all(),
	50
);
show('51 rows of the table, nothing else', simple);
show(
	'the list, first page',
	time(() => list(''), 20),
	simple
);
const { key, id } = world.db.$client
	.prepare(
		'select sort_date as key, id from documents order by sort_date desc, id desc limit 1 offset 24999'
	)
	.get() as { key: string; id: number };
const deep = { way: 'after', key, id } as const;
show(
	'the list, page 501',
	time(() => list('', deep), 5),
	simple
);
show(
	'the list, late ones',
	time(() => list('view=late'), 20),
	simple
);
show(
	'the list, searched',
	time(() => list('q=customer+77+render'), 5),
	simple
);
show(
	'the list, two filters, by amount',
	time(() => list('f=total.least.20000&f=sent.no&sort=-total'), 5),
	simple
);
show(
	'what all of it comes to',
	time(() => sumList(world, INVOICE_LIST, readView(INVOICE_LIST.spec, new URLSearchParams())), 5),
	simple
);
show(
	'counts by state',
	time(() => countByState(world), 5),
	simple
);
show(
	'the command box',
	time(() => find(world, 'INV-99'), 5),
	simple
);
show(
	'next moves',
	time(() => nextMoves(world), 3),
	simple
);
world.db.$client.close();
rmSync(folder, { recursive: true, force: true });

function blankBusiness() {
	return {
		tradingName: '',
		email: '',
		phone: '',
		utr: '',
		bankAccountName: '',
		bankSortCode: '',
		bankAccountNumber: ''
	};
}

/** Rows as issuing writes them, without the PDFs. */
function fill(client: Sqlite.Database, count: number): void {
	const customer = client.prepare(
		"insert into customers (kind, name, created_at, updated_at) values ('household', ?, 0, 0)"
	);
	const document = client.prepare(
		"insert into documents (kind, state, origin, key, customer_id, customer_name, sheet, number, running, issue_date, sort_date, due_date, token, frozen, total, created_at, updated_at) values ('invoice', 'issued', 'typed', ?, ?, ?, '{\"rows\":[]}', ?, ?, ?, ?, ?, ?, '{}', 12000, 0, 0)"
	);
	const item = client.prepare(
		'insert into open_items (document_id, customer_id, payer_id, issue_date, due_date, total, total_sterling, outstanding, to_pay, reached, state) values (@p1, @p2, @p2, @p3, @p4, 12000, 12000, @p5, @p5, 1, @p6)'
	);
	const words = client.prepare('insert into document_search (rowid, words) values (?, ?)');
	const trail = client.prepare(
		"insert into trail (document_id, at, who, what) values (?, 0, 'you', 'sent')"
	);
	client.transaction(() => {
		for (let n = 1; n <= 2_000; n++) customer.run(`Customer ${n}`);
		for (let n = 1; n <= count; n++) {
			const who = (n % 2_000) + 1;
			const day = `${2016 + Math.floor((n / count) * 10.9)}-${String((n % 12) + 1).padStart(2, '0')}-${String((n % 28) + 1).padStart(2, '0')}`;
			const open = n % 20 === 0;
			const { lastInsertRowid: id } = document.run(
				`k${n}`,
				who,
				`Customer ${who}`,
				`INV-${n}`,
				n,
				day,
				day,
				day,
				`t${n}`
			);
			item.run({
				p1: id,
				p2: who,
				p3: day,
				p4: day,
				p5: open ? 12000 : 0,
				p6: open ? 'open' : 'paid'
			});
			words.run(id, `INV-${n} Customer ${who} 120.00 Lime render`);
			trail.run(id);
		}
	})();
}
