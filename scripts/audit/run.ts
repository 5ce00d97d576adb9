// Checks the books from outside: `npm run audit`. Says what differs; exit code 1 where something does. With `--json` it says
// so as a list, for whoever asks by program. A copy is checked by its name: `npm run audit -- FILE [folder of its files]`.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { auditBooks } from './books';

const [copy, filesAt] = process.argv.slice(2).filter((given) => !given.startsWith('--'));
const path = copy ?? join(process.env.AXIOMETER_DATA || 'data', 'axiometer.sqlite');
if (!existsSync(path)) {
	console.error(`There is no data file at ${path}. AXIOMETER_DATA names its folder.`);
	process.exit(2);
}
const file = new Sqlite(path, { readonly: true, fileMustExist: true });
const broken = file.pragma('quick_check(5)') as { quick_check: string }[];
if (broken[0]?.quick_check !== 'ok') {
	console.error(`The file ${path} is damaged: ${broken.map((one) => one.quick_check).join('; ')}`);
	process.exit(2);
}
const found = auditBooks(file, process.argv.includes('--without-files') ? null : filesAt);
if (process.argv.includes('--json')) console.log(JSON.stringify(found));
else {
	for (const line of found) console.log(line);
	console.log(found.length ? `${found.length} differences` : 'The books agree with themselves.');
}
process.exitCode = found.length ? 1 : 0;
