// A long list in the real interface: narrowed down, kept as a view, chosen over three pages, reminded about; who is left out, and why.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import Papa from 'papaparse';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { readConfig } from '../../src/lib/server/config';
import { settableClock } from '../../src/lib/server/clock';
import { connect } from '../../src/lib/server/db/connection';
import { openWorld } from '../../src/lib/server/open';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { beginInvoice, loadDraft, saveDraft } from '../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../src/lib/server/services/invoices/issue';
import { noteHandedOver } from '../../src/lib/server/services/invoices/send';
import { addCustomer } from '../../src/lib/server/services/customers/customers';
import { pauseInvoice } from '../../src/lib/server/services/owed/holds';
import { expectSoundBooks } from '../support/books';
import { runApp, until, type RunningApp } from '../support/app';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { BUSINESS, HOUSEHOLD, line } from '../support/world';

const MANY = 122;
/** Two of them, on different pages. */
const PROMISED = 5;
const DISPUTED = 70;

describe('a long list @long', () => {
	let app: RunningApp;
	let browser: Browser;
	let page: Page;

	before(async () => {
		app = await runApp(
			{},
			async (env) => {
				const clock = settableClock(londonMoment('2026-10-01T09:00'));
				const world = openWorld(readConfig(env), { clock });
				// What is drawn is not looked at here.
				world.press = { ...world.press, document: async () => Buffer.from('%PDF-1.7 a page') };
				saveBusiness(world, BUSINESS, true);
				await setPassword(world, 'lime-and-plaster');
				for (let n = 1; n <= MANY; n++) {
					const name = `Household ${String(n).padStart(3, '0')}`;
					const customer = addCustomer(world, { ...HOUSEHOLD, name, email: `h${n}@post.example` });
					const id = beginInvoice(world, `k${n}`, customer);
					const { sheet } = loadDraft(world.db, id);
					saveDraft(world, id, 1, { ...sheet, rows: [line('a', 'Render', String(n))] });
					await issueInvoice(world, id, 2);
					noteHandedOver(world, id, 'handedOver');
					if (n === PROMISED)
						pauseInvoice(world, id, { kind: 'promise', until: '2099-01-01', note: '' });
					if (n === DISPUTED)
						pauseInvoice(world, id, { kind: 'dispute', until: '', note: 'Cracks' });
				}
				world.db.$client.close();
			},
			['app', 'mail']
		);
		browser = await openBrowser();
		page = await (
			await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' })
		).newPage();
		await page.goto(`${app.origin}/sign-in?to=/billing`);
		await ready(page);
		await page.getByLabel('Password').fill('lime-and-plaster');
		await page.getByRole('button', { name: 'Sign in', exact: true }).click();
		await page.getByRole('heading', { name: 'Billing' }).waitFor();
	});
	after(async () => {
		await browser?.close();
		await app?.end();
	});

	it('is narrowed down, put in order, kept as a view and taken as a file: each in the address', async () => {
		await ready(page);
		await page.getByText(`${MANY} documents`).waitFor();
		await page.getByRole('button', { name: 'Add a filter' }).click();
		await page.getByLabel('What', { exact: true }).selectOption('total');
		await page.getByRole('textbox', { name: 'Amount, £' }).fill('much');
		await page.getByRole('button', { name: 'Filter', exact: true }).click();
		await page.getByText('Write an amount such as 250.').waitFor();
		await page.getByRole('textbox', { name: 'Amount, £' }).fill('120');
		await page.getByRole('button', { name: 'Filter', exact: true }).click();
		// Prices from 1 to 122, with VAT on top: 100 and more come to 120.00 at least.
		await page.getByText('23 documents').waitFor();
		await page.getByRole('link', { name: 'Amount, £' }).click();
		// All 23 stand there already: what changes is the order.
		await page.waitForURL(/sort=/);
		expect(new URL(page.url()).search).to.equal('?f=total.least.12000&sort=-total');
		await page.getByRole('button', { name: 'Save this view' }).click();
		await page.getByLabel('Name of the view').fill('Large');
		await page.getByRole('button', { name: 'Keep it' }).click();
		await page.getByRole('link', { name: 'Large', exact: true }).waitFor();
		await expectAccessible(page, 'a view of a list');
		const [download] = await Promise.all([
			page.waitForEvent('download'),
			page.getByRole('link', { name: 'CSV of this' }).click()
		]);
		const rows = Papa.parse<string[]>(readFileSync(await download.path(), 'utf8').trim()).data;
		expect(rows).to.have.length(24);
		expect(rows[1]!.slice(0, 4)).to.deep.include('146.40');
		await page.getByRole('link', { name: /^All/ }).click();
		await page.getByText(`${MANY} documents`).waitFor();
		await page.getByRole('link', { name: 'Large', exact: true }).click();
		await page.getByText('23 documents').waitFor();
	});

	it('is chosen over three pages and reminded about, two left out with the reason', async () => {
		await page.getByRole('link', { name: /^Unpaid/ }).click();
		await page.getByText(`${MANY} documents`).waitFor();
		const bar = page.getByRole('form', { name: 'What is chosen' });
		for (const chosen of [50, 100, 122]) {
			await page.getByRole('checkbox', { name: 'All rows of this page' }).check();
			await bar.getByText(`${chosen} chosen`).waitFor();
			if (chosen === 122) break;
			const before = page.url();
			await page.getByRole('link', { name: 'On', exact: true }).click();
			await page.waitForURL((url) => url.href !== before);
			await page.getByRole('link', { name: 'Back', exact: true }).waitFor();
		}
		// By keyboard: one less, and one more.
		const first = page.locator('input[data-row]').first();
		await first.focus();
		await page.keyboard.press('Space');
		await bar.getByText('121 chosen').waitFor();
		await page.keyboard.press('ArrowDown');
		await page.keyboard.press('Space');
		await bar.getByText('120 chosen').waitFor();
		await page.keyboard.press('Shift+ArrowUp');
		await bar.getByText('121 chosen').waitFor();
		await page.keyboard.press('ArrowDown');
		await page.keyboard.press('Space');
		await bar.getByText('122 chosen').waitFor();
		await bar.getByRole('button', { name: 'Remind' }).click();
		await page.getByText('120 can be reminded, 2 will be left out.').waitFor();
		await page.getByText('1: Its payment is promised.').waitFor();
		await page.getByText('1: It is disputed.').waitFor();
		await expectAccessible(page, 'what was chosen');
		await page.getByRole('button', { name: 'Remind about 120 documents' }).click();
		await page.getByRole('heading', { name: '120 documents reminded' }).waitFor();
		await page.getByText('2 documents left out, see below.').waitFor();
		const db = connect(join(app.folder, 'axiometer.sqlite'));
		const count = (query: string) => db.$client.prepare(query).pluck().get();
		expect(count("select count(*) from mails where kind = 'reminder'")).to.equal(120);
		await until(
			async () =>
				count("select count(*) from mails where kind = 'reminder' and state = 'sent'") === 120,
			60,
			'120 reminders'
		);
		expectSoundBooks(db);
		db.$client.close();
	});

	it('is chosen as a whole in one press, and what is left of a stopped run is said', async () => {
		await page.goto(`${app.origin}/billing?view=unpaid`);
		await ready(page);
		const bar = page.getByRole('form', { name: 'What is chosen' });
		await page.getByRole('checkbox', { name: 'All rows of this page' }).check();
		await bar.getByRole('button', { name: `all ${MANY} rows` }).click();
		await bar.getByText(`${MANY} chosen`).waitFor();
		await bar.getByRole('button', { name: 'Mark as sent' }).click();
		await page.getByText(`${MANY}: They have it already.`).waitFor();
		expect(await page.getByRole('button', { name: /^Mark \d/ }).count()).to.equal(0);
	});
});
