// All that is in the books as one ZIP, without the app: `npm run export -- FILE`; without a file it goes to standard output. One state of the books is
// read throughout, however much is written meanwhile, and nothing can be changed by it.
import { createWriteStream, existsSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import type { Database } from '../src/lib/server/db/connection';
import { exportAll } from '../src/lib/server/services/keep/export';
import { exportPerson } from '../src/lib/server/services/keep/person';

const given = process.argv.slice(2);
const customer = given.find((one) => one.startsWith('--customer='))?.slice('--customer='.length);
const target = given.find((one) => !one.startsWith('--'));
const path = join(process.env.AXIOMETER_DATA || 'data', 'axiometer.sqlite');
if (!existsSync(path)) {
	console.error(`There is no data file at ${path}. AXIOMETER_DATA names its folder.`);
	process.exit(2);
}
const client = new Sqlite(path, { readonly: true, fileMustExist: true });
client.exec('begin');
client.prepare('select 1 from sqlite_master').get();
const db: Database = drizzle(client) as unknown as Database;
const out = target ? createWriteStream(target, { mode: 0o600 }) : process.stdout;
if (customer) await exportPerson(db, Number(customer), out, Date.now());
else await exportAll(db, out, Date.now());
if (target) console.log(`All of it is in ${target}.`);
