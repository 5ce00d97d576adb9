// Checks the books from outside: `npm run audit`. Says what differs; exit code 1 where something does. With `--json` it says
// so as a list, for whoever asks by program.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { auditBooks } from './books';

const path = join(process.env.AXIOMETER_DATA || 'data', 'axiometer.sqlite');
if (!existsSync(path)) {
	console.error(`There is no data file at ${path}. AXIOMETER_DATA names its folder.`);
	process.exit(2);
}
const found = auditBooks(new Sqlite(path, { readonly: true, fileMustExist: true }));
if (process.argv.includes('--json')) console.log(JSON.stringify(found));
else {
	for (const line of found) console.log(line);
	console.log(found.length ? `${found.length} differences` : 'The books agree with themselves.');
}
process.exitCode = found.length ? 1 : 0;
