// One current picture of each main view, from the demo data on 24 November 2026: `npm run screenshots`.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import sharp from 'sharp';
import type { Page } from 'playwright-core';
import { runApp } from '../tests/support/app';
import { openBrowser } from '../tests/support/browser';

const FOLDER = 'docs/screenshots';
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

mkdirSync(FOLDER, { recursive: true });
const app = await runApp({ AXIOMETER_DEMO: '1' }, (env) => {
	execFileSync('npx', ['--no-install', 'tsx', 'demo/make.ts'], { env, stdio: 'inherit' });
});
const browser = await openBrowser();
const context = await browser.newContext({ viewport: DESK, locale: 'en-GB' });
const page = await context.newPage();

async function shoot(name: string, on: Page = page): Promise<void> {
	await on.mouse.move(0, 0);
	await on.waitForTimeout(350);
	await on.screenshot({ path: join(FOLDER, `${name}.png`) });
}
const GAP = 24;
/** Pictures of one size in rows of so many, as one file. */
async function beside(
	shots: readonly Buffer[],
	{ width, height }: { width: number; height: number },
	across: number,
	file: string
): Promise<void> {
	const rows = Math.ceil(shots.length / across);
	await sharp({
		create: {
			width: across * (width + GAP) - GAP,
			height: rows * (height + GAP) - GAP,
			channels: 3,
			background: '#8b8475'
		}
	})
		.composite(
			shots.map((input, n) => ({
				input,
				left: (n % across) * (width + GAP),
				top: Math.floor(n / across) * (height + GAP)
			}))
		)
		.png({ compressionLevel: 9 })
		.toFile(join(FOLDER, file));
}
const open = (path: string, on: Page = page) =>
	on.goto(app.origin + path, { waitUntil: 'networkidle' });

/** The first value of a query on the demo's data. */
const value = (sql: string): string => {
	const db = new Sqlite(join(app.folder, 'axiometer.sqlite'), { readonly: true });
	const found = db.prepare(sql).pluck().get();
	db.close();
	return String(found);
};
const WITH_A_CHOICE =
	"where state = 'sent' and valid_until >= '2026-11-24' and lowest <> highest limit 1";
const jobCalled = (title: string) =>
	`/work/${value(`select id from jobs where title like '${title}%'`)}`;
const invoiceOf = (total: number) =>
	`/billing/${value(`select id from documents where total = ${total} and state = 'issued'`)}`;

await open('/sign-in');
await page.getByRole('button', { name: /Sign in as/ }).click();
await page.waitForURL(`${app.origin}/`);
const customerOf = (name: string) =>
	`/customers/${value(`select id from customers where name like '${name}%'`)}`;
for (const [name, ...paths] of [
	['today', '/'],
	['work', '/work'],
	['what-waits', '/work/way'],
	['diary', '/work/diary'],
	['quote', `/work/quotes/${value(`select id from quotes ${WITH_A_CHOICE}`)}?write`],
	['job', jobCalled('Mill Yard')],
	['to-bill', '/work/bill'],
	['prices-and-costs', '/work/prices', '/lists/costs'],
	['billing', '/billing'],
	['owed', '/owed'],
	['chasing-and-a-customer', '/owed/chasing', customerOf('Beacon')],
	['charts-and-reports', '/money/charts', '/reports'],
	['tax', '/tax']
]) {
	const shots: Buffer[] = [];
	for (const path of paths) {
		await open(path);
		await page.mouse.move(0, 0);
		await page.waitForTimeout(700);
		shots.push(await page.screenshot());
	}
	await beside(shots, DESK, paths.length, `${name}.png`);
}

await open('/money');
await page.setInputFiles('input[type=file]', join(app.folder, 'bank-statement.csv'));
await page.getByRole('button', { name: /^Bring .* in$/ }).click();
await page.getByRole('button', { name: /^Accept (all|it)/ }).waitFor();
await shoot('money-in');

// The sheet, as in the middle of writing an invoice to a contractor.
await open(invoiceOf(3_980_50));
await page.getByRole('button', { name: 'Copy as new' }).click();
await page.getByLabel('Description, line 1').waitFor();
await page.getByLabel('Their order number').fill('BL-2291');
await page.getByRole('button', { name: /^CIS deduction/ }).click();
await page.evaluate(() => window.scrollTo(0, 0));
await shoot('sheet');

const invoice = invoiceOf(3_520_00);
await open(invoice);
await shoot('invoice');
const pdf = await context.request.get(`${app.origin}${invoice}/pdf`);
const file = join(app.folder, 'invoice.pdf');
writeFileSync(file, await pdf.body());
spawnSync('pdftoppm', ['-r', '80', '-png', '-singlefile', file, join(FOLDER, 'pdf')]);
await open(`${invoice}?send`);
const link = (await page.locator('p.link').innerText()).trim();

// A letterhead beside its paper.
await open(
	`/settings/letterheads/${value("select id from letterheads where name = 'Heritage work'")}`
);
await page.waitForTimeout(2500);
await shoot('letterhead');

const small = await browser.newContext({
	viewport: PHONE,
	locale: 'en-GB',
	isMobile: true,
	hasTouch: true,
	deviceScaleFactor: 2,
	storageState: await context.storageState()
});
const phone = await small.newPage();
const onPhone: Buffer[] = [];
for (const path of ['/', jobCalled('Parlour wall'), '/owed']) {
	await open(path, phone);
	await phone.waitForTimeout(350);
	onPhone.push(await phone.screenshot());
}

const stranger = await browser.newContext({
	viewport: PHONE,
	locale: 'en-GB',
	isMobile: true,
	deviceScaleFactor: 2
});
const customer = await stranger.newPage();
const sheet = value('select token from job_sheets where number is not null order by id limit 1');
for (const address of [
	link,
	`${app.origin}/q/${value(`select token from quotes ${WITH_A_CHOICE}`)}`,
	`${app.origin}/v/${value('select token from told limit 1')}`,
	`${app.origin}/e/${value('select token from enquiry_page limit 1')}`,
	`${app.origin}/j/${sheet}`
]) {
	await customer.goto(address, { waitUntil: 'networkidle' });
	await customer.waitForTimeout(350);
	onPhone.push(await customer.screenshot());
}

// What the phone shows: the owner's in the first row, and the customer's after it.
await beside(onPhone, { width: PHONE.width * 2, height: PHONE.height * 2 }, 4, 'phone.png');

await browser.close();
await app.end();
