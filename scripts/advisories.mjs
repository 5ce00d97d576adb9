// What is known to be wrong with the libraries of the lockfile, as far as the registry tells: `npm run advisories`. Exit code 1 where something is; where the
// registry does not offer it, it says so, and nothing is claimed.
import { spawnSync } from 'node:child_process';

const asked = spawnSync('npm', ['audit', '--json', '--omit=dev'], {
	encoding: 'utf8',
	timeout: 120_000
});
/** @type {{ vulnerabilities?: Record<string, { severity: string, via: (string | { title: string })[] }> }} */
let said = {};
try {
	said = JSON.parse(asked.stdout);
} catch {
	// No answer that can be read is no answer.
}
if (!said.vulnerabilities) {
	console.log('The registry does not say: nothing was checked.');
	process.exit(0);
}
const found = Object.entries(said.vulnerabilities);
for (const [name, { severity, via }] of found)
	console.log(
		`${severity}: ${name}: ${via.map((one) => (typeof one === 'string' ? one : one.title)).join('; ')}`
	);
console.log(found.length ? `${found.length} found.` : 'Nothing is known to be wrong.');
process.exitCode = found.length ? 1 : 0;
