// Fifty people at once: each asks once a second for a list, Today or a search, over 20,000 documents; against one who asks alone. Needs the build.
import { readFileSync } from 'node:fs';
import { readConfig } from '../src/lib/server/config';
import { openWorld } from '../src/lib/server/open';
import { saveBusiness } from '../src/lib/server/services/business/settings';
import { setPassword } from '../src/lib/server/services/business/signIn';
import { openSession } from '../src/lib/server/services/business/sessions';
import { runApp } from '../tests/support/app';
import { BUSINESS } from '../tests/support/world';

const DOCUMENTS = 20_000;
const CLIENTS = 50;
const SECONDS = 20;
let session = '';

const app = await runApp({}, async (env) => {
	const world = openWorld(readConfig(env));
	saveBusiness(world, BUSINESS, true);
	const sqlite = world.db.$client;
	const customer = sqlite.prepare(
		"insert into customers (id, kind, name, email, created_at, updated_at) values (@id, 'business', 'Firm ' || @id, 'firm' || @id || '@corvane.example', 0, 0)"
	);
	const document = sqlite.prepare(
		`insert into documents (id, kind, state, origin, key, customer_id, customer_name, sheet, number, running, issue_date, sort_date, due_date, total, net, created_at, updated_at)
		 values (@id, 'invoice', 'issued', 'typed', 'b' || @id, @customer, 'Firm ' || @customer, '{"rows":[]}', 'INV-' || @id, @id, @issued, @issued, @due, 12000, 10000, 0, @id)`
	);
	const item = sqlite.prepare(
		`insert into open_items (document_id, customer_id, payer_id, issue_date, due_date, total, total_sterling, cash, outstanding, to_pay, state, settled_on)
		 values (@id, @customer, @customer, @issued, @due, 12000, 12000, @cash, @left, @left, @state, @settled)`
	);
	const words = sqlite.prepare('insert into document_search (rowid, words) values (@id, @words)');
	sqlite.transaction(() => {
		for (let id = 1; id <= 2000; id++) customer.run({ id });
		for (let id = 1; id <= DOCUMENTS; id++) {
			const month = String(1 + (id % 11)).padStart(2, '0');
			const open = id % 20 === 0;
			const row = {
				id,
				customer: 1 + (id % 2000),
				issued: `2026-${month}-10`,
				due: `2026-${month}-24`
			};
			document.run(row);
			item.run({
				...row,
				cash: open ? 0 : 12000,
				left: open ? 12000 : 0,
				state: open ? 'open' : 'paid',
				settled: open ? null : row.due
			});
			words.run({ id, words: `INV-${id} Firm ${row.customer} render lime` });
		}
	})();
	await setPassword(world, 'a long enough password');
	session = openSession(world);
	sqlite.close();
});

let failed = 0;
async function ask(path: string): Promise<number> {
	const start = performance.now();
	const answer = await fetch(`${app.origin}${path}`, {
		headers: { cookie: `axiometer_session=${session}` },
		redirect: 'manual'
	}).catch(() => null);
	await answer?.text();
	if (answer?.status !== 200) failed++;
	return performance.now() - start;
}
const at = (sorted: number[], part: number) => sorted[Math.floor((sorted.length - 1) * part)]!;
const memory = () =>
	Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${app.pid('app')}/status`, 'utf8'))?.[1]) / 1024;

const PATHS = {
	'a list': () => '/billing',
	Today: () => '/',
	'a search': (n: number) => `/api/find?q=firm+${n % 2000}`
} as const;
const alone: Record<string, number> = {};
for (const [name, path] of Object.entries(PATHS)) {
	const found: number[] = [];
	for (let n = 0; n < 30; n++) found.push(await ask(path(n)));
	alone[name] = at(
		found.sort((a, b) => a - b),
		0.5
	);
}
const before = memory();
const waits: Record<string, number[]> = {};
const names = Object.keys(PATHS) as (keyof typeof PATHS)[];
const clients = Array.from({ length: CLIENTS }, async (_, client) => {
	await new Promise((resolve) => setTimeout(resolve, (client * 1000) / CLIENTS));
	for (let n = 0; n < SECONDS; n++) {
		const name = names[(client + n) % names.length]!;
		const took = await ask(PATHS[name](client * 31 + n));
		(waits[name] ??= []).push(took);
		await new Promise((resolve) => setTimeout(resolve, Math.max(0, 1000 - took)));
	}
});
await Promise.all(clients);
console.log(
	`${CLIENTS} clients, once a second each, over ${DOCUMENTS.toLocaleString('en-GB')} documents`
);
for (const name of names) {
	const sorted = waits[name]!.sort((a, b) => a - b);
	const p95 = at(sorted, 0.95);
	console.log(
		`${name.padEnd(12)} alone ${alone[name]!.toFixed(1).padStart(6)} ms   p50 ${at(sorted, 0.5).toFixed(1).padStart(6)}   p95 ${p95.toFixed(1).padStart(6)} ms   ratio ${(p95 / alone[name]!).toFixed(1)} (at most 10)`
	);
}
console.log(`errors ${failed}; memory ${before.toFixed(0)} → ${memory().toFixed(0)} MB`);
await app.end();
process.exit(0);
