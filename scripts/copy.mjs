// Copies a data file as it stands, by SQLite's own online backup, and looks whether the copy is whole: `node scripts/copy.mjs FROM TO`.
import { writeFileSync } from 'node:fs';
import Sqlite from 'better-sqlite3';

const [from, to] = process.argv.slice(2);
if (!from || !to) {
	console.error('From which file to which? node scripts/copy.mjs FROM TO');
	process.exit(2);
}
const source = new Sqlite(from, { fileMustExist: true });
// One state of the books throughout: what others write meanwhile neither comes along by halves nor begins the copy anew.
source.exec('begin');
source.prepare('select 1 from sqlite_master').get();
await source.backup(to);
source.exec('commit');
source.close();
const copy = new Sqlite(to);
copy.pragma('busy_timeout = 5000');
copy.pragma('journal_mode = DELETE');
const said = copy.pragma('quick_check(3)', { simple: true });
if (said !== 'ok') {
	console.error(`The data file is damaged: ${said}`);
	process.exit(1);
}
const columns = /** @type {{ name: string }[]} */ (copy.pragma('table_info(files)'));
const stored = columns.some(({ name }) => name === 'stored')
	? /** @type {string[]} */ (
			copy.prepare('select distinct stored from files where stored is not null').pluck().all()
		)
	: [];
copy.close();
writeFileSync(
	`${to.replace(/\.part$/, '')}.files`,
	stored.map((/** @type {string} */ hash) => `${hash}\n`).join(''),
	{ mode: 0o600 }
);
