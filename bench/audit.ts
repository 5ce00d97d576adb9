// How long the audit looks at 100,000 documents: copies of one that was issued and paid, each with its lines, a PDF of 8 kB,
// its entries and what is open of it. Against reading the same tables from end to end.
import { randomBytes } from 'node:crypto';
import { auditBooks } from '../scripts/audit/books';
import { FIRM, payByHand } from '../tests/support/money';
import { issued, line, makeWorld } from '../tests/support/world';

const COUNT = 100_000;
const world = makeWorld();
const file = world.db.$client;
const rows = ['Render', 'Sand', 'Scaffold'].map((text, n) => line(`l${n}`, text, '100'));
const { id } = await issued(world, FIRM, { rows });
payByHand(world, id, '360');

for (const name of file
	.prepare("select name from sqlite_master where type = 'trigger'")
	.pluck()
	.all())
	file.exec(`drop trigger ${String(name)}`);
/** Copies the rows of a table about the first document, each with what is different in it. */
function copy(table: string, where: string, change: Record<string, string>): void {
	const columns = (file.pragma(`table_info(${table})`) as { name: string; pk: number }[])
		.map((column) => column.name)
		.filter((name) => name !== 'id' || 'id' in change);
	const values = columns.map((name) => change[name] ?? `t."${name}"`);
	file.exec(
		`with recursive n(i) as (select 1 union all select i + 1 from n where i < ${COUNT - 1})
		insert into ${table} (${columns.map((name) => `"${name}"`).join(', ')})
		select ${values.join(', ')} from n, ${table} t where ${where}`
	);
}
file.function('pdf', { deterministic: false }, () => randomBytes(8_000));
file.transaction(() => {
	copy('documents', `t.id = ${id}`, {
		id: 'n.i + 1000',
		key: "'b' || n.i",
		number: "'B-' || n.i",
		running: 't.running + n.i',
		token: 'null'
	});
	copy('document_lines', `t.document_id = ${id}`, { document_id: 'n.i + 1000' });
	copy('tax_points', `t.document_id = ${id}`, { document_id: 'n.i + 1000' });
	copy('document_files', `t.document_id = ${id}`, { document_id: 'n.i + 1000', content: 'pdf()' });
	copy('open_items', `t.document_id = ${id}`, { document_id: 'n.i + 1000' });
	copy('payments', 't.id = 1', { id: 'n.i + 1000', key: "'p' || n.i" });
	copy('allocations', 't.id = 1', { payment_id: 'n.i + 1000', document_id: 'n.i + 1000' });
	copy('journal_entries', "t.key like 'issue:%' and t.id < 1000", {
		id: 'n.i + 1000',
		key: "'issue:' || (n.i + 1000)",
		document_id: 'n.i + 1000'
	});
	copy('journal_entries', "t.key = 'payment:1'", {
		id: 'n.i + 1000000',
		key: "'payment:' || (n.i + 1000)",
		document_id: 'n.i + 1000'
	});
	for (const [key, offset] of [
		['issue', 1000],
		['payment', 1_000_000]
	] as const)
		copy(
			'journal_lines',
			`t.entry_id = (select id from journal_entries where key like '${key}:%' and id < 1000)`,
			{ entry_id: `n.i + ${offset}`, document_id: 'n.i + 1000' }
		);
})();

const time = (work: () => unknown): number => {
	const start = process.hrtime.bigint();
	work();
	return Number(process.hrtime.bigint() - start) / 1e6;
};
const tables = ['documents', 'document_lines', 'document_files', 'open_items', 'journal_lines'];
const raw = time(() => {
	for (const table of tables)
		for (const _row of file.prepare(`select * from ${table}`).iterate()) void _row;
});
let found: string[] = [];
const audit = time(() => (found = auditBooks(file)));
console.log('The audit of 100,000 documents');
console.log(`reading their tables from end to end${raw.toFixed(0).padStart(32)} ms`);
console.log(
	`the audit, which finds what is wrong with each${audit.toFixed(0).padStart(22)} ms   ratio ${(audit / raw).toFixed(1)}   (${found.length} found)`
);
world.end();
