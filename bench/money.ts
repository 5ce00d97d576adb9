// The money: statements of 2,000 customers with 40,000 items, and 5,000 bank lines against 2,000 open invoices.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Matcher } from '../src/lib/core/bank/match';
import type { OpenInvoice, ToMatch } from '../src/lib/core/bank/types';
import { statement } from '../src/lib/core/settlement/statement';
import { readConfig } from '../src/lib/server/config';
import { renderStatements } from '../src/lib/server/documents/statementPdf';
import { openWorld } from '../src/lib/server/open';
import { payerAccounts } from '../src/lib/server/services/owed/payerAccounts';
import { chasePayers } from '../src/lib/server/services/chasing/facts';
import { saveChaseSettings } from '../src/lib/server/services/chasing/settings';
import { runChasing } from '../src/lib/server/services/chasing/tick';
import { chaseDayPage } from '../src/lib/server/services/chasing/day';
import { owedPage } from '../src/lib/server/services/owed/owed';
import { buildStatement, readStatementOptions } from '../src/lib/server/services/owed/statements';
import { saveFirm } from './firm';

const PAYERS = 2000;
const EACH = 10;
const folder = mkdtempSync(join(tmpdir(), 'axiometer-bench-'));
const world = openWorld(
	readConfig({ AXIOMETER_DATA: folder, AXIOMETER_CLOCK: '2026-11-24T09:00' })
);
const sqlite = world.db.$client;
const time = async (work: () => unknown): Promise<number> => {
	const start = process.hrtime.bigint();
	await work();
	return Number(process.hrtime.bigint() - start) / 1e6;
};
const show = (label: string, millis: number, ratio?: number) =>
	console.log(
		`${label.padEnd(70)} ${millis.toFixed(1).padStart(9)} ms${ratio === undefined ? '' : `   ratio ${ratio.toFixed(1)}`}`
	);

function fill(): void {
	const customer = sqlite.prepare(
		"insert into customers (id, kind, name, created_at, updated_at) values (?, 'business', ?, 0, 0)"
	);
	const document = sqlite.prepare(
		"insert into documents (id, kind, state, origin, key, customer_id, customer_name, sheet, number, issue_date, due_date, total, created_at, updated_at) values (@p1, 'invoice', 'issued', 'typed', 'b' || @p1, @p2, @p3, '{\"rows\":[]}', 'INV-' || @p1, @p4, @p4, 12000, 0, 0)"
	);
	const item = sqlite.prepare(
		'insert into open_items (document_id, customer_id, payer_id, issue_date, due_date, total, total_sterling, outstanding, to_pay, cash, state) values (@p1, @p2, @p2, @p3, @p3, 12000, 12000, @p4, @p4, @p5, @p6)'
	);
	const payment = sqlite.prepare(
		"insert into payments (id, key, payer_id, date, amount, amount_sterling, way, source, recorded_at) values (@p1, 'p' || @p1, @p2, @p3, @p4, @p4, 'bank', 'hand', 0)"
	);
	const allocation = sqlite.prepare(
		'insert into allocations (payment_id, document_id, amount) values (@p1, @p1, @p2)'
	);
	sqlite.transaction(() => {
		for (let payer = 1; payer <= PAYERS; payer++) {
			customer.run(payer, `Firm ${payer}`);
			for (let n = 0; n < EACH; n++) {
				const id = payer * 100 + n;
				const date = `2026-${String(1 + n).padStart(2, '0')}-10`;
				const paid = n === 0 ? 5000 : 12000;
				document.run({ p1: id, p2: payer, p3: `Firm ${payer}`, p4: date });
				item.run({
					p1: id,
					p2: payer,
					p3: date,
					p4: 12000 - paid,
					p5: paid,
					p6: paid === 12000 ? 'paid' : 'partPaid'
				});
				payment.run({ p1: id, p2: payer, p3: date, p4: paid });
				allocation.run({ p1: id, p2: paid });
			}
		}
	})();
}

saveFirm(world);
fill();
console.log(`Statements of ${PAYERS} customers with ${PAYERS * EACH * 2} items`);
const reading = await time(() => {
	sqlite
		.prepare(
			'select o.*, d.number, d.deduction from open_items o join documents d on d.id = o.document_id'
		)
		.all();
	sqlite
		.prepare(
			'select a.*, p.date, p.way, p.reference from allocations a join payments p on p.id = a.payment_id'
		)
		.all();
});
show('the same rows read raw', reading);
let accounts = new Map<
	number,
	ReturnType<typeof payerAccounts> extends Map<number, infer T> ? T : never
>();
const figures = await time(() => {
	accounts = payerAccounts(world.db);
	for (const items of accounts.values())
		statement({ asOf: '2026-11-24', from: null, ageing: 'dueDate', items });
});
show('read and worked out (ratio of 3 allowed)', figures, figures / reading);
const options = readStatementOptions({ asOf: '2026-11-24' });
const views = Array.from({ length: 40 }, (_, n) => buildStatement(world, n + 1, options).view);
const pdf = { payUrl: 'http://127.0.0.1/s/x', madeAt: 0 };
const alone = await time(async () => {
	for (const view of views) await renderStatements([view], [pdf]);
});
await world.press.statements([views[0]!], [pdf]);
const threads = await time(() =>
	Promise.all(views.map((view) => world.press.statements([view], [pdf])))
);
show('40 PDFs one after the other', alone);
show('40 PDFs on threads', threads, threads / alone);
const filter = { late: false, above: 0n, label: '', hold: '', typed: '', page: 1 } as const;
show('the page of what 2,000 payers owe', await time(() => owedPage(world, filter)));

console.log('\nChasing');
sqlite.exec(
	"insert into trail (document_id, at, who, what) select document_id, 0, 'you', 'sent' from open_items; update open_items set reached = 1"
);
sqlite.exec("update customers set email = 'ledger' || id || '@firm.example'");
sqlite.exec(
	"insert into reference_rates (\"from\", rate) values ('2025-07-01', '4.25') on conflict do nothing"
);
saveChaseSettings(world, { on: true, from: '00:00', to: '23:59', quietHours: 0, gapDays: 1 });
const looking = await time(() =>
	sqlite
		.prepare(
			"select o.*, d.number, d.token, c.name from open_items o join documents d on d.id = o.document_id join customers c on c.id = o.payer_id where o.state in ('open', 'partPaid')"
		)
		.all()
);
show('open invoices and payers read raw', looking);
const facts = await time(() => chasePayers(world.db));
show('all that is known of 2,000 payers to be chased', facts, facts / looking);
show('the page of what goes out', await time(() => chaseDayPage(world)));
let written = 0;
const chased = await time(async () => (written = await runChasing(world)));
show(`${written} reminders decided anew and written, each in a transaction`, chased);

console.log('\nBank lines');
const invoices = Array.from({ length: 2000 }, (_, n): OpenInvoice => ({
	documentId: n,
	payerId: n % 400,
	payer: `Firm ${n % 400} Building Works`,
	number: `INV-${String(n).padStart(4, '0')}`,
	references: [],
	dueDate: '2026-11-01',
	toPay: BigInt(1000 + n * 37),
	outstanding: BigInt(1000 + n * 37)
}));
const lines = Array.from({ length: 5000 }, (_, n): ToMatch => {
	const one = invoices[n % 2000]!;
	const other = invoices[(n + 400) % 2000]!;
	return n % 3
		? { id: n, date: '2026-11-20', amount: one.toPay, text: `${one.number} thanks`, payer: '' }
		: {
				id: n,
				date: '2026-11-20',
				amount: one.toPay + other.toPay,
				text: one.payer.toUpperCase(),
				payer: ''
			};
});
show(
	'5,000 against 2,000 open invoices (5,000 ms allowed)',
	await time(() => {
		const matcher = new Matcher(invoices, new Map());
		for (const line of lines) matcher.propose(line);
	})
);
sqlite.close();
rmSync(folder, { recursive: true, force: true });
process.exit(0);
