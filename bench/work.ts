// The work: a price list of 20,000 entries, a bill run of 1,000 jobs, PDFs on threads. Ratios, as in `run.ts`.
import Sqlite from 'better-sqlite3';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { viewDocument } from '../src/lib/core/documents/view';
import { readConfig } from '../src/lib/server/config';
import { renderPdf } from '../src/lib/server/documents/pdf';
import { openWorld } from '../src/lib/server/open';
import { continueRuns, startBillRun } from '../src/lib/server/services/billing/billRun';
import { planBillRun } from '../src/lib/server/services/billing/runPlan';
import { addCustomer } from '../src/lib/server/services/customers/customers';
import { loadDraft } from '../src/lib/server/services/invoices/drafts';
import { sheetContext } from '../src/lib/server/services/invoices/context';
import { freezeDraft } from '../src/lib/server/services/invoices/freeze';
import { importPrices, previewPriceFile } from '../src/lib/server/services/prices/file';
import { findPrices } from '../src/lib/server/services/prices/search';
import { runDrafts } from '../src/lib/server/services/billing/runDrafts';
import { saveFirm } from './firm';

const folder = mkdtempSync(join(tmpdir(), 'axiometer-bench-'));
const world = openWorld(
	readConfig({ AXIOMETER_DATA: folder, AXIOMETER_CLOCK: '2026-11-24T09:00' })
);
saveFirm(world);
const ms = async (work: () => unknown): Promise<number> => {
	const start = process.hrtime.bigint();
	await work();
	return Number(process.hrtime.bigint() - start) / 1e6;
};
const show = (label: string, millis: number, ratio?: number) =>
	console.log(
		`${label.padEnd(70)} ${millis.toFixed(1).padStart(9)} ms${ratio === undefined ? '' : `   ratio ${ratio.toFixed(1)}`}`
	);

console.log('A price list of 20,000 entries');
const WORDS = [
	'lime',
	'render',
	'hydraulic',
	'mortar',
	'sand',
	'plaster',
	'cornice',
	'board',
	'mesh',
	'oak',
	'brick',
	'copper',
	'valve',
	'elbow',
	'bracket',
	'sealant',
	'primer',
	'screw',
	'hinge',
	'gutter'
];
const csv = new TextEncoder().encode(
	`code,name,unit,cost,price,category\n${Array.from({ length: 20_000 }, (_, n) => `S${n},${WORDS[n % 20]} ${WORDS[(n * 7) % 20]} ${WORDS[(n * 13 + 3) % 20]} size ${n % 400},each,${(n % 90) + 1}.20,${(n % 90) + 2}.50,${WORDS[n % 20]}`).join('\n')}\n`
);
const { mapping } = previewPriceFile(world, csv);
show(
	'brought in from a CSV file (20,000 ms allowed)',
	await ms(async () => {
		for await (const _step of importPrices(world, csv, mapping));
	})
);
show('the same file again', await ms(() => previewPriceFile(world, csv)));
for (const typed of ['lime mor', 'cornice 39', 'hydralic sand', 'scrwe', 's1999'])
	show(
		`found: ${typed} (50 ms allowed)`,
		(await ms(() => {
			for (let n = 0; n < 5; n++) findPrices(world, typed);
		})) / 5
	);

console.log('\nA bill run of 1,000 jobs, each an invoice of its own');
const { $client: client } = world.db;
const customers = Array.from({ length: 50 }, (_, n) =>
	addCustomer(world, { name: `Customer ${n}`, kind: 'business', address: 'Somewhere' })
);
client.transaction(() => {
	const job = client.prepare(
		"insert into jobs (key, number, title, customer_id, state, finished_on, created_at, updated_at) values (?, ?, ?, ?, 'finished', '2026-11-20', 0, 0)"
	);
	const line = client.prepare(
		"insert into job_lines (job_id, position, kind, description, quantity, unit_price) values (?, ?, 'labour', ?, '3', '45.00')"
	);
	for (let n = 0; n < 1_000; n++) {
		const id = job.run(
			`b${n}`,
			`J-${String(n + 1).padStart(4, '0')}`,
			`Repair ${n}`,
			customers[n % 50]
		).lastInsertRowid;
		for (let l = 0; l < 3; l++) line.run(id, l, `Work ${l}`);
	}
})();
show(
	'looked through (figures, law, warnings of each invoice)',
	await ms(() => planBillRun(world, { split: 'job', shape: 'items' }))
);
let runId = 0;
show(
	'started: written down as it was looked through',
	await ms(() => (runId = startBillRun(world, 'bench', 'draft', { split: 'job', shape: 'items' })))
);
const drafted = await ms(() => {
	while (runDrafts(world, runId) > 0);
});
const raw = rawInsert();
show('the same rows inserted raw', raw);
show('drafted, with claims, trail and search (ratio of 3 allowed)', drafted, drafted / raw);

console.log('\nTwo threads that only count');
const machine = await twoThreads();
show(
	'beside each other, of one after the other',
	machine.together,
	machine.together / machine.alone
);

console.log('\nPDFs');
const draft = loadDraft(
	world.db,
	Number(client.prepare('select id from documents limit 1').pluck().get())
);
const { frozen, figures } = freezeDraft(
	draft.sheet,
	sheetContext(world.db, draft.sheet, '2026-11-24')
);
const view = viewDocument(frozen, figures, 'INV-1', 'issued');
const options = { payUrl: null, madeAt: 0 };
await renderPdf(view, options);
for (let n = 0; n < 30; n++) await renderPdf(view, options);
for (let n = 0; n < 2; n++)
	await Promise.all(Array.from({ length: 60 }, () => world.press.document(view, options)));
const alone = await ms(async () => {
	for (let n = 0; n < 40; n++) await renderPdf(view, options);
});
const threads = await ms(() =>
	Promise.all(Array.from({ length: 40 }, () => world.press.document(view, options)))
);
show('40 drawn one after the other', alone);
show('40 drawn on threads', threads, threads / alone);
for (let n = 0; n < 200; n++)
	client.prepare("update job_lines set description = 'Again' where id = ?").run(n);
client.exec('delete from billed_parts');
startBillRun(world, 'bench-2', 'issue', { split: 'customer' });
show('50 invoices over the same jobs issued, PDFs included', await ms(() => continueRuns(world)));
client.close();
rmSync(folder, { recursive: true, force: true });
process.exit(0);

/** What the run wrote, written again into an empty file of the same shape, statement by statement, in as many transactions. */
function rawInsert(): number {
	const file = join(folder, 'raw.sqlite');
	client.prepare('vacuum into ?').run(file);
	const copy = new Sqlite(file);
	copy.pragma('journal_mode = WAL');
	copy.pragma('synchronous = FULL');
	copy.pragma('foreign_keys = ON');
	const rows = (table: string, order: string) =>
		copy.prepare(`select * from ${table} order by ${order}`).all() as Record<string, unknown>[];
	const tables = [
		['documents', 'id'],
		['billed_parts', 'document_id'],
		['trail', 'id']
	] as const;
	const kept = tables.map(([table, order]) => [table, rows(table, order)] as const);
	const words = copy.prepare('select rowid, words from document_search').all() as {
		rowid: number;
		words: string;
	}[];
	copy.exec(
		'delete from trail; delete from billed_parts; update bill_run_steps set document_id = null; delete from documents; delete from document_search'
	);
	const inserts = kept.map(([table, all]) => {
		const columns = Object.keys(all[0] ?? {});
		return [
			copy.prepare(
				`insert into ${table} (${columns.join(', ')}) values (${columns.map(() => '?').join(', ')})`
			),
			all.map((row) => Object.values(row))
		] as const;
	});
	const search = copy.prepare('insert into document_search (rowid, words) values (?, ?)');
	const step = copy.prepare(
		"update bill_run_steps set state = 'drafted', document_id = ? where position = ?"
	);
	const start = process.hrtime.bigint();
	for (let part = 0; part < 5; part++)
		copy.transaction(() => {
			for (const [insert, all] of inserts) {
				const size = Math.ceil(all.length / 5);
				for (const values of all.slice(part * size, (part + 1) * size)) insert.run(...values);
			}
			for (const row of words.slice(part * 200, (part + 1) * 200)) search.run(row.rowid, row.words);
			for (const [index, row] of words.slice(part * 200, (part + 1) * 200).entries())
				step.run(row.rowid, part * 200 + index);
		})();
	const millis = Number(process.hrtime.bigint() - start) / 1e6;
	copy.close();
	return millis;
}

/** How much faster two threads are on this machine at best: what threads of ours are to be measured against. */
async function twoThreads(): Promise<{ alone: number; together: number }> {
	const source =
		"const { parentPort } = require('node:worker_threads'); parentPort.on('message', () => { let x = 0; for (let i = 0; i < 2e8; i++) x = (x * 31 + i) | 0; parentPort.postMessage(x); })";
	const workers = [0, 1].map(() => new Worker(source, { eval: true }));
	const count = (worker: Worker) =>
		new Promise((resolve) => {
			worker.once('message', resolve);
			worker.postMessage(0);
		});
	await Promise.all(workers.map(count));
	const alone = await ms(async () => {
		await count(workers[0]!);
		await count(workers[0]!);
	});
	const together = await ms(() => Promise.all(workers.map(count)));
	for (const worker of workers) await worker.terminate();
	return { alone, together };
}
