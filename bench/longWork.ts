// The long work of which nobody else may notice anything: what goes out, what comes in, what is made in numbers.
import { blankLine, blankSheet } from '../src/lib/core/sheet/blank';
import { beginInvoice, saveDraft } from '../src/lib/server/services/invoices/drafts';
import type { World } from '../src/lib/server/world';
import { until } from '../tests/support/app';
import { saveFirm } from './firm';

const CUSTOMERS = 100_000;
const ITEMS = 400;
const DRAFTS = 250;
const ROWS = 500;
/** One statement each; they begin behind the customer who has everything that the long statement shows. */
const PAYERS = Array.from({ length: 400 }, (_, n) => n + 1001);

export interface Filled {
	/** Drafts of 500 lines, to be issued. */
	drafts: { id: number; version: number }[];
	/** A draft from which repeats begin. */
	model: number;
}

export function fill(world: World): Filled {
	const sqlite = world.db.$client;
	const customer = sqlite.prepare(
		"insert into customers (id, kind, name, email, phone, address, created_at, updated_at) values (@id, 'business', 'Firm ' || @id, 'firm' || @id || '@corvane.example', '01632 960' || (100 + @id % 900), @id || ' Kiln Lane', 0, 0)"
	);
	const document = sqlite.prepare(
		"insert into documents (id, kind, state, origin, key, customer_id, customer_name, sheet, number, issue_date, due_date, total, created_at, updated_at) values (@id, 'invoice', 'issued', 'typed', 'b' || @id, @payer, 'Firm ' || @payer, '{\"rows\":[]}', 'INV-' || @id, '2026-10-10', '2026-11-10', 12000, 0, 0)"
	);
	const item = sqlite.prepare(
		"insert into open_items (document_id, customer_id, payer_id, issue_date, due_date, total, total_sterling, outstanding, to_pay, state) values (@id, @payer, @payer, '2026-10-10', '2026-11-10', 12000, 12000, 12000, 12000, 'open')"
	);
	sqlite.transaction(() => {
		for (let id = 1; id <= CUSTOMERS; id++) customer.run({ id });
		let id = 0;
		const owed = (payer: number) => {
			document.run({ id: ++id, payer });
			item.run({ id, payer });
		};
		for (let n = 0; n < ITEMS; n++) owed(1);
		for (const payer of PAYERS) for (let n = 0; n < 5; n++) owed(payer);
	})();
	saveFirm(world);
	const drafted = (key: string, rows: number) => {
		const id = beginInvoice(world, key, 2);
		const { version } = saveDraft(world, id, 1, {
			...blankSheet(),
			customerId: 2,
			rows: Array.from({ length: rows }, (_, row) => ({
				...blankLine(`r${row}`),
				description: `Lime render, panel ${row}`,
				unitPrice: '45.00'
			}))
		});
		return { id, version };
	};
	return {
		drafts: Array.from({ length: DRAFTS }, (_, n) => drafted(`bench ${n}`, ROWS)),
		model: drafted('model', 3).id
	};
}

type Ask = (path: string, more?: RequestInit) => Promise<Response>;

const day = (n: number) => {
	const date = new Date(Date.UTC(2020, 0, 1) + (n % 2400) * 86_400_000);
	return date.toISOString().slice(0, 10);
};
const pounds = (n: number) => `${1 + (n % 900)}.${String(n % 100).padStart(2, '0')}`;

/** A statement as CSV of so many lines, each filled to so many bytes; no two files have a line in common. */
function csv(lines: number, width: number, file: number): string {
	const rows = ['Date,Description,Paid in,Paid out'];
	for (let n = 0; n < lines; n++) {
		const out = n % 3 === 0;
		const text = `${out ? 'LIME AND TILE' : `FIRM ${1 + (n % 5000)}`} INV-${n % 2400} F${file}N${n}`;
		const amount = pounds(n);
		const row = `${day(n).split('-').reverse().join('/')},${text},${out ? '' : amount},${out ? amount : ''}`;
		rows.push(
			row.replace(text, text.padEnd(text.length + width - row.length, ' PAID WITH THANKS'))
		);
	}
	return rows.join('\n');
}

function camt(lines: number, file: number): string {
	const entry = (n: number) =>
		`<Ntry><Amt Ccy="GBP">${pounds(n)}</Amt><CdtDbtInd>${n % 3 ? 'CRDT' : 'DBIT'}</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>${day(n)}</Dt></BookgDt><NtryDtls><TxDtls><RltdPties><Dbtr><Pty><Nm>Firm ${1 + (n % 5000)}</Nm></Pty></Dbtr></RltdPties><RmtInf><Ustrd>INV-${n % 2400} F${file}N${n}</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>`;
	return `<?xml version="1.0" encoding="UTF-8"?><Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt><Stmt><Id>${file}</Id><Acct><Id><Othr><Id>20304012345678</Id></Othr></Id><Ccy>GBP</Ccy></Acct>${Array.from({ length: lines }, (_, n) => entry(n)).join('')}</Stmt></BkToCstmrStmt></Document>`;
}

/** Each kind of work, and one pass of it as somebody at the screen would set it going. */
export function works(
	ask: Ask,
	{ drafts, model }: Filled
): { what: string; pass: () => Promise<void> }[] {
	let pressed = 0;
	const bodyOf = async (path: string) => {
		const response = await ask(path);
		if (!response.ok) throw new Error(`${path}: ${response.status}`);
		let bytes = 0;
		for await (const part of response.body!) bytes += (part as Uint8Array).length;
		if (bytes === 0) throw new Error(`${path} gave nothing`);
	};
	/** @returns where a form leads to, or '' where it stays. */
	const press = async (path: string, values: Record<string, string | Blob | readonly string[]>) => {
		const body = new FormData();
		for (const [name, value] of Object.entries(values))
			if (value instanceof Blob) body.set(name, value, 'statement.csv');
			else for (const one of [value].flat() as string[]) body.append(name, one);
		const response = await ask(path, { method: 'POST', body, headers: { accept: 'text/html' } });
		const page = await response.text();
		if (response.status >= 400)
			throw new Error(
				`${path}: ${response.status} ${/role="alert"[^>]*>[^<]*/.exec(page)?.[0] ?? ''}`
			);
		return response.headers.get('location') ?? '';
	};
	/** Made beforehand, so that the asking side is not busy with it. */
	const statements = (count: number, make: (file: number) => string) => {
		const files = Array.from({ length: count }, (_, n) => new Blob([make(n)]));
		return async () => {
			const looked = await press('/money?/file', { file: files[pressed++ % count]! });
			await bodyOf(looked);
			await press(`${looked}?/take`, {});
			await bodyOf('/money');
		};
	};
	const broughtIn = (what: string, count: number, make: (file: number) => string) => {
		let pass: (() => Promise<void>) | undefined;
		return { what, pass: () => (pass ??= statements(count, make))() };
	};
	const begun = async (start: string) =>
		press(`/billing/repeats/new?from=${model}`, {
			key: `bench ${pressed++}`,
			name: 'Limewash',
			start,
			every: '1',
			unit: 'day',
			ends: 'never',
			weekend: 'asIs',
			action: 'draft'
		});

	return [
		{
			what: `${CUSTOMERS} customers go out as CSV, again and again`,
			pass: () => bodyOf('/customers/export')
		},
		{
			what: 'they go out as address cards',
			pass: () => bodyOf('/customers/export?as=vcard')
		},
		{
			what: `a statement of ${ITEMS} invoices is made as PDF`,
			pass: () => bodyOf('/owed/statements/preview?of=1')
		},
		{
			what: `invoices of ${ROWS} lines are issued`,
			pass: async () => {
				const draft = drafts.shift();
				if (!draft) throw new Error('Too few drafts for so quick a machine.');
				const response = await ask(`/billing/${draft.id}/api`, {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body: JSON.stringify({
						action: 'issue',
						version: draft.version,
						sendTo: null,
						copyToSelf: false
					})
				});
				if (!response.ok) throw new Error(`issuing: ${response.status} ${await response.text()}`);
			}
		},
		broughtIn('a bank file of 3 MB comes in, 20,000 lines', 24, (file) => csv(20_000, 150, file)),
		broughtIn('a bank file of 24 MB comes in, 20,000 lines', 9, (file) => csv(20_000, 1200, file)),
		broughtIn('camt of 2,000 lines comes in', 40, (file) => camt(2000, file)),
		{
			what: 'repeats are begun in 1950 and in 2016, and one makes 400',
			pass: async () => {
				for (const start of ['1950-01-01', '2016-01-01']) {
					const at = await begun(start);
					await press(`${at}?/pile`, {});
					await bodyOf(at);
					await press(`${at}?/pile`, { answer: 'none' });
				}
				const at = await begun('2025-10-22');
				await press(`${at}?/pile`, {});
				await press(`${at}?/pile`, { answer: 'all' });
			}
		},
		{
			what: `a run of ${PAYERS.length} statements is made`,
			pass: async () => {
				const run = await press('/owed/statements?/start', {
					key: `bench ${pressed++}`,
					action: 'make',
					payer: PAYERS.map(String)
				});
				await until(
					async () => !(await (await ask(run)).text()).includes('waiting'),
					120,
					'the end of the run'
				);
			}
		},
		{
			what: 'a backup is made',
			pass: async () => void (await press('/settings/keep?/backup', {}))
		}
	];
}
