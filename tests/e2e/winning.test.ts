// From a stranger's question to the finished job: asked on the phone, quoted with a choice and an extra, chosen, signed, its deposit
// paid and invoiced, booked, moved and told. Every sum on the way is checked.
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { runApp, until, type RunningApp } from '../support/app';
import { expectSoundBooks } from '../support/books';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { connect } from '../../src/lib/server/db/connection';
import { layOut, PASSWORD } from '../support/owner';

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

describe('winning and planning work', () => {
	let app: RunningApp;
	let browser: Browser;
	let owner: Page;
	let stranger: BrowserContext;
	let page: Page;
	const errors: string[] = [];

	before(async () => {
		app = await runApp({}, layOut);
		browser = await openBrowser();
		owner = await (await browser.newContext({ locale: 'en-GB' })).newPage();
		owner.setDefaultTimeout(15_000);
		owner.on('pageerror', (error) => errors.push(error.message));
		await owner.goto(`${app.origin}/sign-in`);
		await ready(owner);
		await owner.getByLabel('Password').fill(PASSWORD);
		await owner.getByRole('button', { name: 'Sign in' }).click();
		await owner.waitForURL(`${app.origin}/`);
		stranger = await browser.newContext({ ...PHONE, locale: 'en-GB' });
		page = await stranger.newPage();
		page.setDefaultTimeout(15_000);
		page.on('pageerror', (error) => errors.push(error.message));
	});
	after(async () => {
		await browser.close();
		await app.end();
	});
	const one = <T>(sql: string): T => {
		const db = new Sqlite(join(app.folder, 'axiometer.sqlite'), { readonly: true });
		try {
			return db.prepare(sql).pluck().get() as T;
		} finally {
			db.close();
		}
	};

	it('a stranger asks through the page on the phone, and the owner sees it first', async () => {
		await owner.goto(`${app.origin}/settings/enquiries`);
		await ready(owner);
		await owner.getByLabel('The page is open').check();
		await owner.getByLabel('What happens next').fill('We call you tomorrow.');
		await owner.getByRole('button', { name: 'Keep it' }).click();
		const link = await owner.locator('.mono a').getAttribute('href');
		await page.goto(link!);
		const opened = Date.now();
		await ready(page);
		await expectAccessible(page, 'the page for enquiries');
		await page.getByRole('button', { name: /^Send it/ }).click();
		await page.getByText('Your name?').waitFor();
		await page.getByLabel('Your name').fill('Hazel Penhallow');
		await page.getByLabel('Your e-mail').fill('hazel@post.example');
		await page.getByLabel('Where is the work?').fill('14 Sluice Lane');
		await page.getByLabel('What is it about?').fill('The front room ceiling came down.');
		// Quicker than a person is a robot's.
		await until(async () => Date.now() - opened > 3_100, 10, 'as long as a person takes');
		await page.getByRole('button', { name: /^Send it/ }).click();
		await page.getByText('We call you tomorrow.').waitFor();
		await owner.goto(`${app.origin}/`);
		await owner.getByText('Hazel Penhallow asks').first().waitFor();
	});

	it('one press makes a quote of it, with two ways and an extra, that goes out', async () => {
		await owner.goto(`${app.origin}/lists/enquiries`);
		await ready(owner);
		await owner.getByRole('link', { name: /Hazel/ }).click();
		await owner.getByRole('button', { name: 'Quote it' }).click();
		await owner.waitForURL(/work\/quotes\/\d+/);
		await ready(owner);
		const add = async (n: number, words: string, price: string) => {
			if (n > 1) await owner.getByRole('button', { name: 'Line', exact: true }).click();
			await owner.getByLabel(`Description, line ${n}`, { exact: true }).fill(words);
			await owner.getByLabel(`Price, line ${n}`, { exact: true }).fill(price);
		};
		const mark = (n: number) => owner.getByLabel(`On the quote, line ${n}`);
		await add(1, 'Take the old one down', '480');
		await add(2, 'Boards and a skim', '1920');
		await mark(2).selectOption('choice');
		await owner.getByLabel('What is chosen, line 2').fill('Ceiling');
		await owner.getByLabel('This way of it, line 2').fill('Boards');
		await add(3, 'Laths and lime plaster', '2560');
		await mark(3).selectOption('choice');
		await owner.getByLabel('What is chosen, line 3').fill('Ceiling');
		await owner.getByLabel('This way of it, line 3').fill('Laths');
		await add(4, 'Repair the rose', '200');
		await mark(4).selectOption('extra');
		await owner.getByRole('button', { name: 'Deposit, and what is paid when' }).click();
		await owner.getByLabel('Deposit, with VAT').fill('25%');
		await owner.getByText('from £2,400').waitFor();
		await owner.getByText('to £3,240').waitFor();
		await expectAccessible(owner, 'the sheet of a quote');
		await owner.getByRole('button', { name: 'Send…' }).first().click();
		await owner.getByRole('button', { name: 'Send it with the PDF' }).click();
		await owner.waitForURL(/just=sent/);
		const mails = await until(
			async () => (await app.inbox()).filter(({ subject }) => subject.includes('Q-0001')),
			15,
			'the quote'
		);
		expect(mails.length).to.be.greaterThan(0);
		expect(one('select number from quotes')).to.equal('Q-0001');
	});

	it('the customer chooses, the sum answers at once, and signs with a finger', async () => {
		await page.goto(`${app.origin}/q/${one<string>('select token from quotes')}`);
		await ready(page);
		await page.getByText('£2,400.00', { exact: true }).first().waitFor();
		await page.getByRole('radio', { name: /Laths/ }).check();
		await page.getByRole('checkbox', { name: /Repair the rose/ }).check();
		await page.getByText('£3,240.00', { exact: true }).first().waitFor();
		await expectAccessible(page, 'the page of a quote');
		// Never ticked beforehand.
		expect(await page.getByRole('checkbox', { name: /Please begin before/ }).isChecked()).to.equal(
			false
		);
		await page.getByLabel('Your name, in full').fill('Hazel Penhallow');
		const box = (await page.getByLabel('Your signature, drawn').boundingBox())!;
		await page.getByLabel('Your signature, drawn').scrollIntoViewIfNeeded();
		const at = (await page.getByLabel('Your signature, drawn').boundingBox())!;
		await page.mouse.move(at.x + 30, at.y + 60);
		await page.mouse.down();
		await page.mouse.move(at.x + 90, at.y + 20, { steps: 6 });
		await page.mouse.move(at.x + 160, at.y + 80, { steps: 6 });
		await page.mouse.up();
		expect(box.width).to.be.greaterThan(200);
		await page.getByRole('button', { name: 'Accept, with obligation to pay' }).click();
		await page.getByText('Agreed. Thank you.').waitFor();
		expect(one('select total from acceptances')).to.equal(3240_00);
		expect(one('select length(signature) > 200 from acceptances')).to.equal(1);
		expect(one('select count(*) from jobs')).to.equal(1);
		await until(
			async () => one('select record is not null from acceptances') === 1,
			20,
			'the record'
		);
	});

	it('the deposit is paid by card, and its invoice is issued by itself', async () => {
		await page.reload();
		await ready(page);
		await page.getByText('£810.00').first().waitFor();
		await page.getByRole('button', { name: 'Pay the deposit by card' }).click();
		await page.getByLabel('Card number').fill('9000000000000001');
		await page.getByRole('button', { name: /^Pay/ }).click();
		await page.waitForURL(/\/q\//);
		await until(
			async () => one('select state from deposit_requests') === 'invoiced',
			30,
			'its invoice'
		);
		expect(one("select total from documents where state = 'issued'")).to.equal(810_00);
		expect(one('select outstanding from open_items')).to.equal(0);
	});

	it('the job is booked from the diary, moved, and the customer told each time', async () => {
		await owner.goto(`${app.origin}/work/diary`);
		await ready(owner);
		await owner
			.getByRole('button', { name: /front room ceiling/i })
			.first()
			.click();
		const dialog = owner.getByRole('dialog');
		await dialog.getByLabel('Day', { exact: true }).fill('9 Dec');
		await dialog.getByRole('button', { name: 'Book it in' }).click();
		await owner
			.getByRole('dialog', { name: 'Tell them of the visit?' })
			.getByRole('button', { name: 'Tell them' })
			.click();
		await owner.getByText('They are told.').waitFor();
		await until(
			async () =>
				(await app.inbox()).some(({ subject }) => /we come on Wednesday 9 December/.test(subject)),
			15,
			'the news'
		);
		await owner.goto(`${app.origin}/work/diary?on=2026-12-09`);
		await ready(owner);
		await owner
			.getByRole('region', { name: 'The visits as a list' })
			.getByRole('button')
			.first()
			.click();
		await owner.getByRole('dialog').getByLabel('Day', { exact: true }).fill('10 Dec');
		await owner.getByRole('dialog').getByRole('button', { name: 'Keep it so' }).click();
		await owner
			.getByRole('dialog', { name: 'Tell them that it has moved?' })
			.getByRole('button', { name: 'Tell them' })
			.click();
		await owner.getByText('They are told.').waitFor();
		await page.goto(
			`${app.origin}/v/${one<string>("select token from told where kind = 'moved'")}`
		);
		await ready(page);
		await page.getByText('Thursday 10 December').waitFor();
		await page.getByRole('button', { name: 'That suits me' }).click();
		await page.getByText('you confirmed it').waitFor();
	});

	it('a docket is dragged with the mouse to another day and person', async () => {
		await owner.goto(`${app.origin}/work/diary?on=2026-12-10`);
		await ready(owner);
		const docket = owner.locator('.docket').first();
		await docket.waitFor();
		const from = (await docket.boundingBox())!;
		await owner.mouse.move(from.x + 8, from.y + 10);
		await owner.mouse.down();
		// A day is eleven hours wide or less: one to the left.
		await owner.mouse.move(from.x - 90, from.y + 12, { steps: 12 });
		await owner.mouse.move(from.x - 170, from.y + 14, { steps: 12 });
		await owner.mouse.up();
		await until(async () => one<string>('select date from visits') < '2026-12-10', 10, 'the move');
		await owner.getByRole('dialog').getByRole('button', { name: 'Not this time' }).click();
		await owner.getByRole('button', { name: 'Undo' }).click();
		await until(
			async () => one<string>('select date from visits') === '2026-12-10',
			10,
			'the way back'
		);
	});

	it('what is paid when stands on the job, and the books are sound', async () => {
		const job = one<number>('select id from jobs');
		await owner.goto(`${app.origin}/work/${job}/stage`);
		await ready(owner);
		expect(one('select count(*) from stage_plans')).to.equal(2);
		expect(one('select sum(amount) from stage_plans')).to.equal(3240_00);
		expect(errors).to.deep.equal([]);
		const db = connect(join(app.folder, 'axiometer.sqlite'));
		expectSoundBooks(db);
		db.$client.close();
	});
});
