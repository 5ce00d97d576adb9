// Whether long work keeps others waiting: how soon `/health` answers while CSV, address cards and PDFs are being made, and while
// invoices of 500 lines are issued one after the other. Asked for: the 99th percentile within 50 ms of idle.
// The server is a process of its own, so that it and what asks it have a core each. Needs the build (`npm run build`).
import { readConfig } from '../src/lib/server/config';
import { openWorld } from '../src/lib/server/open';
import { saveBusiness } from '../src/lib/server/services/business/settings';
import { beginInvoice, saveDraft } from '../src/lib/server/services/invoices/drafts';
import { blankLine, blankSheet } from '../src/lib/core/sheet/blank';
import { setPassword } from '../src/lib/server/services/business/signIn';
import { openSession } from '../src/lib/server/services/business/sessions';
import { runApp } from '../tests/support/app';

const CUSTOMERS = 100_000;
const ITEMS = 400;
const DRAFTS = 250;
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

/** Rounds of each: a machine that is shared is taken away for a while now and then, which the middle one of several does not show. */
const ROUNDS = 9;
const middle = (of: readonly number[]) => of.toSorted((a, b) => a - b)[Math.floor(of.length / 2)]!;

/**
 * Asks in turns while nothing else is asked and while there is work, and says by how much the work moves the slowest hundredth: the middle
 * one of the rounds, each against its own idle. `work` goes on until it is told to stop.
 */
async function compare(what: string, work: (going: () => boolean) => Promise<void>): Promise<void> {
	const rounds: { idle: number; busy: number; half: number }[] = [];
	for (let round = 0; round < ROUNDS; round++) {
		const idle = await waits(200);
		let going = true;
		const load = work(() => going);
		const busy = await waits(200);
		going = false;
		await load;
		rounds.push({ idle: at(idle, 0.99), busy: at(busy, 0.99), half: at(busy, 0.5) });
	}
	const more = rounds.map(({ idle, busy }) => busy - idle);
	const show = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(0)}`;
	console.log(
		`${what.padEnd(60)} p50 ${middle(rounds.map((one) => one.half))
			.toFixed(0)
			.padStart(4)}   p99 ${middle(rounds.map((one) => one.busy))
			.toFixed(0)
			.padStart(4)}, idle ${middle(rounds.map((one) => one.idle))
			.toFixed(0)
			.padStart(4)} ms: ${show(middle(more))} (${more.map(show).join(' ')})`
	);
}

try {
	// What is made once, as the thread that draws, is not part of being idle.
	await (await ask('/owed/statements/preview?of=1')).arrayBuffer();
	await waits(400);
	console.log('How soon /health answers, in milliseconds');
	for (const [what, path] of [
		[`while ${CUSTOMERS} customers go out as CSV, again and again`, '/customers/export'],
		[`while they go out as address cards`, '/customers/export?as=vcard'],
		[`while a statement of ${ITEMS} invoices is made as PDF`, '/owed/statements/preview?of=1']
	] as const)
		await compare(what, async (going) => {
			let bytes = 0;
			while (going()) {
				const response = await ask(path);
				if (!response.ok) throw new Error(`${path}: ${response.status}`);
				for await (const part of response.body!) bytes += (part as Uint8Array).length;
			}
			if (bytes === 0) throw new Error(`${path} gave nothing`);
		});
	await compare(`while invoices of ${ROWS} lines are issued`, async (going) => {
		while (going()) {
			const draft = drafts.shift();
			if (!draft) throw new Error('Too few drafts for so quick a machine.');
			const response = await fetch(`${app.origin}/billing/${draft.id}/api`, {
				method: 'POST',
				headers: {
					cookie: `axiometer_session=${session}`,
					'content-type': 'application/json',
					origin: app.origin
				},
				body: JSON.stringify({
					action: 'issue',
					version: draft.version,
					sendTo: null,
					copyToSelf: false
				})
			});
			if (!response.ok) throw new Error(`issuing: ${response.status} ${await response.text()}`);
		}
	});
} finally {
	await app.end();
}
