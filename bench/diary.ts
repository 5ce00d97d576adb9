// The diary with 5,000 visits in it: how long a month takes until it is drawn, against an empty one. Needs the build.
import Sqlite from 'better-sqlite3';
import { join } from 'node:path';
import { runApp } from '../tests/support/app';
import { openBrowser, ready } from '../tests/support/browser';
import { layOut, PASSWORD } from '../tests/support/owner';

const VISITS = 5_000;
const TIMES = 9;
/** Asked for: within twice the empty month. */
const MOST = 2;

const app = await runApp({}, layOut);
const db = new Sqlite(join(app.folder, 'axiometer.sqlite'));
db.pragma('busy_timeout = 5000');
const now = Date.UTC(2026, 10, 24);
db.transaction(() => {
	const customer = db
		.prepare(
			`insert into customers (kind, name, created_at, updated_at) values ('household', 'Odile Brancaster', ${now}, ${now})`
		)
		.run().lastInsertRowid;
	const job = db.prepare(
		`insert into jobs (key, number, title, customer_id, state, created_at, updated_at) values (?, ?, ?, ${customer}, 'underWay', ${now}, ${now})`
	);
	const visit = db.prepare(
		'insert into visits (job_id, date, "from", "to", person_id) values (?, ?, ?, ?, 1)'
	);
	// Two years of working days, ten a day.
	const days: string[] = [];
	for (let at = Date.UTC(2026, 0, 1); days.length * 10 < VISITS; at += 86_400_000) {
		const day = new Date(at);
		if (day.getUTCDay() % 6) days.push(day.toISOString().slice(0, 10));
	}
	for (let n = 0; n < VISITS; n++) {
		const hour = 8 + (n % 10);
		const id = job.run(
			`bench ${n}`,
			`J-${String(n + 1).padStart(4, '0')}`,
			`Ceiling ${n}`
		).lastInsertRowid;
		const two = (of: number) => String(of).padStart(2, '0');
		visit.run(id, days[Math.floor(n / 10)], `${two(hour)}:00`, `${two(hour)}:45`);
	}
})();
db.close();

const browser = await openBrowser();
try {
	const page = await (
		await browser.newContext({ viewport: { width: 1280, height: 800 } })
	).newPage();
	await page.goto(`${app.origin}/sign-in`);
	await ready(page);
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	await page.waitForURL(`${app.origin}/`);
	const opened = async (month: string): Promise<number> => {
		const times: number[] = [];
		for (let n = 0; n < TIMES; n++) {
			const start = performance.now();
			await page.goto(`${app.origin}/work/diary?view=month&on=${month}-10`);
			await page.locator('.ec-body, .ec-main').first().waitFor();
			times.push(performance.now() - start);
		}
		return times.sort((a, b) => a - b)[Math.floor(TIMES / 2)]!;
	};
	// The first time everything is fetched.
	await opened('2031-03');
	const empty = await opened('2031-03');
	const full = await opened('2026-10');
	const dockets = await page.locator('.docket').count();
	console.log(`The diary, ${VISITS.toLocaleString('en-GB')} visits in it`);
	console.log(`an empty month ${empty.toFixed(0)} ms`);
	console.log(
		`a month of ${dockets} dockets ${full.toFixed(0)} ms   ratio ${(full / empty).toFixed(1)} (asked: under ${MOST})`
	);
} finally {
	await browser.close();
	await app.end();
}
