// Whether long work keeps others waiting: how soon `/health` answers while CSV, address cards and PDFs are being made, and while
// invoices of 500 lines are issued one after the other. Asked for: within 50 ms of idle.
// The server is a process of its own, so that it and what asks it have a core each. Needs the build (`npm run build`).
import { readConfig } from '../src/lib/server/config';
import { openWorld } from '../src/lib/server/open';
import { saveBusiness } from '../src/lib/server/services/business/settings';
import { beginInvoice, saveDraft } from '../src/lib/server/services/invoices/drafts';
import { blankLine, blankSheet } from '../src/lib/core/sheet/blank';
import { openSession, setPassword } from '../src/lib/server/services/business/signIn';
import { runApp } from '../tests/support/app';

const CUSTOMERS = 100_000;
const ITEMS = 400;
const DRAFTS = 24;
const ROWS = 500;
let drafts: { id: number; version: number }[] = [];
let session = '';

const app = await runApp({}, async (env) => {
	const world = openWorld(readConfig(env));
	const sqlite = world.db.$client;
	const customer = sqlite.prepare(
		"insert into customers (id, kind, name, email, phone, address, created_at, updated_at) values (@id, 'business', 'Firm ' || @id, 'firm' || @id || '@corvane.example', '01632 960' || (100 + @id % 900), @id || ' Kiln Lane', 0, 0)"
	);
	const document = sqlite.prepare(
		"insert into documents (id, kind, state, origin, key, customer_id, customer_name, sheet, number, issue_date, due_date, total, created_at, updated_at) values (@id, 'invoice', 'issued', 'typed', 'b' || @id, 1, 'Firm 1', '{\"rows\":[]}', 'INV-' || @id, '2026-10-10', '2026-11-10', 12000, 0, 0)"
	);
	const item = sqlite.prepare(
		"insert into open_items (document_id, customer_id, payer_id, issue_date, due_date, total, total_sterling, outstanding, to_pay, state) values (@id, 1, 1, '2026-10-10', '2026-11-10', 12000, 12000, 12000, 12000, 'open')"
	);
	sqlite.transaction(() => {
		for (let id = 1; id <= CUSTOMERS; id++) customer.run({ id });
		for (let id = 1; id <= ITEMS; id++) {
			document.run({ id });
			item.run({ id });
		}
	})();
	saveBusiness(
		world,
		{
			ownerName: 'Tamsin Orrell',
			tradingName: '',
			address: 'Kiln Cottage',
			email: '',
			phone: '',
			utr: '',
			vatRegistered: true,
			vatNumber: '444444454',
			bankAccountName: '',
			bankSortCode: '',
			bankAccountNumber: ''
		},
		true
	);
	drafts = Array.from({ length: DRAFTS }, (_, n) => {
		const id = beginInvoice(world, `bench ${n}`, 2);
		const { version } = saveDraft(world, id, 1, {
			...blankSheet(),
			customerId: 2,
			rows: Array.from({ length: ROWS }, (_, row) => ({
				...blankLine(`r${row}`),
				description: `Lime render, panel ${row}`,
				unitPrice: '45.00'
			}))
		});
		return { id, version };
	});
	await setPassword(world, 'a long enough password');
	session = openSession(world);
	sqlite.close();
});

const ask = (path: string) =>
	fetch(`${app.origin}${path}`, { headers: { cookie: `axiometer_session=${session}` } });

/** How long each of so many questions waits for its answer, in milliseconds, one every 10. */
async function waits(count: number): Promise<number[]> {
	const found: number[] = [];
	const asked: Promise<void>[] = [];
	for (let n = 0; n < count; n++) {
		const start = performance.now();
		asked.push(
			fetch(`${app.origin}/health`)
				.then((response) => response.text())
				.then(() => void found.push(performance.now() - start))
		);
		await new Promise((resolve) => setTimeout(resolve, 10));
	}
	await Promise.all(asked);
	return found.sort((a, b) => a - b);
}
const at = (sorted: number[], part: number) => sorted[Math.floor((sorted.length - 1) * part)]!;
const show = (what: string, sorted: number[], idle?: number) =>
	console.log(
		`${what.padEnd(62)} p50 ${at(sorted, 0.5).toFixed(1).padStart(6)}   p99 ${at(sorted, 0.99).toFixed(1).padStart(6)} ms${idle === undefined ? '' : `   idle ${at(sorted, 0.99) - idle < 0 ? '−' : '+'} ${Math.abs(at(sorted, 0.99) - idle).toFixed(1)}`}`
	);

try {
	// What is made once, as the thread that draws, is not part of being idle.
	await (await ask('/owed/statements/preview?of=1')).arrayBuffer();
	await waits(400);
	const idle = await waits(600);
	console.log('How soon /health answers');
	show('while nothing else is asked', idle);
	for (const [what, path] of [
		[`while ${CUSTOMERS} customers go out as CSV, again and again`, '/customers/export'],
		[`while they go out as address cards`, '/customers/export?as=vcard'],
		[`while a statement of ${ITEMS} invoices is made as PDF`, '/owed/statements/preview?of=1']
	] as const) {
		let going = true;
		let bytes = 0;
		const load = (async () => {
			while (going) {
				const response = await ask(path);
				if (!response.ok) throw new Error(`${path}: ${response.status}`);
				for await (const part of response.body!) bytes += (part as Uint8Array).length;
			}
		})();
		const busy = await waits(600);
		going = false;
		await load;
		if (bytes === 0) throw new Error(`${path} gave nothing`);
		show(what, busy, at(idle, 0.99));
	}
	let issued = 0;
	let going = true;
	const load = (async () => {
		for (const { id, version } of drafts) {
			if (!going) break;
			const response = await fetch(`${app.origin}/billing/${id}/api`, {
				method: 'POST',
				headers: {
					cookie: `axiometer_session=${session}`,
					'content-type': 'application/json',
					origin: app.origin
				},
				body: JSON.stringify({ action: 'issue', version, sendTo: null, copyToSelf: false })
			});
			if (!response.ok) throw new Error(`issuing: ${response.status} ${await response.text()}`);
			issued++;
		}
	})();
	const busy = await waits(600);
	going = false;
	await load;
	show(`while ${issued} invoices of ${ROWS} lines are issued`, busy, at(idle, 0.99));
} finally {
	await app.end();
}
