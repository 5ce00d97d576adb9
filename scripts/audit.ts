// Checks the books against themselves: `npm run audit`. Says what differs; exit code 1 where something does.
import { readConfig } from '../src/lib/server/config';
import { openWorld } from '../src/lib/server/open';
import { auditBooks } from '../src/lib/server/services/audit';

const found = auditBooks(openWorld(readConfig(process.env)));
for (const line of found) console.log(line);
console.log(found.length ? `${found.length} differences` : 'The books agree with themselves.');
process.exitCode = found.length ? 1 : 0;
