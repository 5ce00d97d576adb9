// Every form stands in one frame: without scripts, with the first touch, pressed twice, refused, and with the line cut.
import { expect } from 'chai';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { after, before, describe, it } from 'mocha';
import Sqlite from 'better-sqlite3';
import { join } from 'node:path';
import { runApp, type RunningApp, SETUP_CODE } from '../support/app';
import { openBrowser, ready, setUp } from '../support/browser';

describe('a form', () => {
	let app: RunningApp;
	let browser: Browser;
	let context: BrowserContext;
	let page: Page;
	const value = (query: string): unknown => {
		const db = new Sqlite(join(app.folder, 'axiometer.sqlite'), { readonly: true });
		try {
			return db.prepare(query).pluck().get();
		} finally {
			db.close();
		}
	};

	before(async () => {
		app = await runApp({}, undefined, ['app']);
		browser = await openBrowser();
	});
	after(async () => {
		await browser?.close();
		await app?.end();
	});

	it('without scripts: each message stands at its box, and what was typed stays', async () => {
		const plain = await browser.newContext({ javaScriptEnabled: false });
		const first = await plain.newPage();
		await first.goto(`${app.origin}/welcome?code=${SETUP_CODE}`);
		await first.getByLabel('Your own name').fill('Tamsin Orrell');
		const underCis = first.getByRole('radiogroup', { name: /under CIS/ });
		await underCis.getByText('Yes').click();
		await first.getByLabel('E-mail').fill('tamsin@orrell-lime.example');
		await first.getByLabel('Password').fill('short');
		await first.getByRole('button', { name: 'Begin' }).click();
		await first.getByText('The law wants an address').waitFor();
		expect(await first.getByLabel('Your own name').inputValue()).to.equal('Tamsin Orrell');
		expect(await first.getByLabel('E-mail').inputValue()).to.equal('tamsin@orrell-lime.example');
		expect(await underCis.getByRole('radio', { name: 'Yes' }).isChecked()).to.equal(true);
		await first.getByText('Yes or no? It can be changed later.').waitFor();
		// A password is not sent back.
		expect(await first.getByLabel('Password').inputValue()).to.equal('');
		const address = first.getByLabel('Business address');
		expect(await address.getAttribute('aria-invalid')).to.equal('true');
		await plain.close();
	});

	it('refused: the first wrong box has the cursor, and the message goes once it is right', async () => {
		context = await browser.newContext();
		page = await context.newPage();
		await setUp(page, app.origin);
		await page.goto(`${app.origin}/settings`);
		await ready(page);
		await page.getByRole('link', { name: 'Change You' }).click();
		await page.waitForFunction(
			() => (document.activeElement as HTMLInputElement)?.name === 'ownerName'
		);
		await page.getByLabel('Business address').fill('');
		await page.getByLabel('E-mail').fill('nowhere');
		await page.getByRole('button', { name: 'Save', exact: true }).click();
		await page.getByText('The law wants an address').waitFor();
		await page.getByText('That is no e-mail address.').waitFor();
		await page.waitForFunction(
			() => (document.activeElement as HTMLInputElement)?.name === 'address'
		);
		expect(await page.getByLabel('E-mail').inputValue()).to.equal('nowhere');
		await page.getByLabel('Business address').fill('Kiln Cottage\nHarrowmere');
		await page.getByLabel('E-mail').fill('tamsin@orrell.example');
		await page.getByRole('button', { name: 'Save', exact: true }).click();
		await page.getByText('Saved. Documents issued before').waitFor();
		// Saved, it is read again, and the place is kept.
		await page.waitForFunction(() => document.activeElement?.textContent === 'Change You');
		expect(await page.locator('form[action*="business"]').count()).to.equal(0);
		expect(value('select email from business')).to.equal('tamsin@orrell.example');
	});

	it('pressed at once, and twice: it waits for its life, and is done once', async () => {
		await page.goto(`${app.origin}/work/new`);
		await ready(page);
		await page.getByPlaceholder('Type a name').fill('Ruben Achterberg');
		await page.getByRole('option', { name: /a household/ }).click();
		await page.waitForFunction(
			() => document.querySelector<HTMLInputElement>('[name="customerId"]')?.value !== ''
		);
		await page.getByLabel('What is to be done').fill('Parlour ceiling');
		// Two presses in one turn of the page, before either is answered.
		await page.evaluate(() => {
			const button = [...document.querySelectorAll('button')].find(
				(one) => one.textContent === 'Begin the job'
			)!;
			button.click();
			button.click();
		});
		await page.waitForURL(/\/work\/\d+$/);
		expect(value('select count(*) from jobs')).to.equal(1);
	});

	it('a button pressed before the page has come to life is answered once it has, and once', async () => {
		const other = await page.context().newPage();
		// Twice, as soon as it stands there.
		await other.addInitScript(() => {
			const watcher = new MutationObserver(() => {
				const time = [
					...document.querySelectorAll<HTMLElement>('[aria-label="Time and costs"] button')
				].find((one) => one.textContent === 'Time');
				if (!time) return;
				watcher.disconnect();
				time.dataset.pressed = document.body.dataset.ready ? 'late' : 'early';
				time.click();
				time.click();
			});
			watcher.observe(document, { childList: true, subtree: true });
		});
		await other.goto(page.url());
		const time = other.locator('[data-pressed=early]');
		await time.waitFor();
		await other.getByLabel('Hours').waitFor();
		// Later presses are the button's alone.
		await ready(other);
		await time.click();
		await other.getByLabel('Hours').waitFor({ state: 'hidden' });
		await other.close();
	});

	it('on a page with many: the answer goes to the one that was pressed', async () => {
		await page.getByRole('button', { name: 'Time', exact: true }).first().click();
		await page.getByLabel('Hours').fill('a while');
		await page.getByRole('button', { name: 'Add the time' }).click();
		await page.waitForFunction(
			() => (document.activeElement as HTMLInputElement)?.name === 'hours'
		);
		expect(await page.locator('[aria-invalid="true"]').count()).to.equal(1);
		await page.getByRole('button', { name: 'Add a visit' }).click();
		await page.getByLabel('From', { exact: true }).fill('noon');
		await page.getByRole('button', { name: 'Add the visit' }).click();
		await page.waitForFunction(() => (document.activeElement as HTMLInputElement)?.name === 'from');
		// The other keeps what it said.
		expect(await page.locator('[aria-invalid="true"]').count()).to.equal(2);
		await page.getByLabel('Hours').fill('2:30');
		await page.getByRole('button', { name: 'Add the time' }).click();
		await page.getByText('2.5 h').waitFor();
		expect(value('select sum(minutes) from time_entries')).to.equal(150);
	});

	it('with the line cut: says so, loses nothing, and goes through when the line is back', async () => {
		await page.getByLabel('From', { exact: true }).fill('09:30');
		await context.setOffline(true);
		await page.getByRole('button', { name: 'Add the visit' }).click();
		await page.getByText('What you typed is still here').waitFor();
		expect(await page.getByLabel('From', { exact: true }).inputValue()).to.equal('09:30');
		await context.setOffline(false);
		await page.getByRole('button', { name: 'Add the visit' }).click();
		await page.getByRole('button', { name: 'Add a visit' }).waitFor();
		expect(value('select "from" from visits')).to.equal('09:30');
	});

	it('by keyboard: what is saved or removed leaves the cursor where it was', async () => {
		/** The heading of the part of the page in which the focus is. */
		const where = (heading: string) =>
			page.waitForFunction(
				(heading) =>
					document.activeElement !== document.body &&
					document.activeElement?.closest('section')?.querySelector('h2')?.textContent === heading,
				heading
			);
		await page.getByRole('button', { name: 'Add a visit' }).press('Enter');
		await page.getByLabel('From', { exact: true }).fill('14:00');
		await page.getByLabel('From', { exact: true }).press('Enter');
		await page.getByText('14:00').waitFor();
		await where('Visits');
		await page
			.getByRole('button', { name: /^Remove the visit/ })
			.last()
			.press('Enter');
		await page.getByText('14:00').waitFor({ state: 'detached' });
		await where('Visits');
		// And Tab goes on from there.
		await page.keyboard.press('Tab');
		await where('Visits');
		await page.getByRole('button', { name: /^Remove the time/ }).press('Enter');
		await page.getByText('Nothing was noted yet.').waitFor();
		await page.waitForFunction(
			() => document.activeElement?.closest('section[aria-label="Time and costs"]') !== null
		);
	});

	it('what is folded away is made when it is opened, by keys too, and is there without scripts', async () => {
		const fold = page.getByRole('button', { name: 'Put something down' });
		expect(await page.getByLabel('To come on, if known').count()).to.equal(0);
		await fold.press('Enter');
		await page.getByLabel('What', { exact: true }).fill('Stainless bead');
		expect(await fold.getAttribute('aria-expanded')).to.equal('true');
		await fold.press('Enter');
		await page.getByLabel('What', { exact: true }).waitFor({ state: 'hidden' });
		await fold.press('Enter');
		// Closed and opened again, it has what was typed.
		expect(await page.getByLabel('What', { exact: true }).inputValue()).to.equal('Stainless bead');
		const plain = await browser.newContext({
			javaScriptEnabled: false,
			storageState: await context.storageState()
		});
		const without = await plain.newPage();
		await without.goto(page.url());
		await without.getByLabel('What', { exact: true }).fill('Goat hair');
		await without.getByRole('button', { name: 'Put it down' }).click();
		await without.getByText('Goat hair').first().waitFor();
		expect(value("select count(*) from job_materials where what = 'Goat hair'")).to.equal(1);
		await plain.close();
	});

	it('a file: whoever chooses before the box has become another loses nothing', async () => {
		const own = await context.newPage();
		// The moment at which the box becomes another is the test's to choose.
		await own.addInitScript(() => {
			const begin = window.setTimeout;
			window.setTimeout = ((work: () => void, wait?: number) =>
				wait === 500
					? begin(() => Object.assign(window, { becomeAnother: work }), 0)
					: begin(work, wait)) as typeof window.setTimeout;
		});
		const becomeAnother = () =>
			own.evaluate(() => (window as unknown as { becomeAnother: () => void }).becomeAnother());
		const file = (name: string, text: string) => ({
			name,
			mimeType: 'text/csv',
			buffer: Buffer.from(text)
		});
		const statement = 'Date,Description,Amount\n20/11/2026,Corvane Dairy,120.00\n';
		await own.goto(`${app.origin}/money`);
		await ready(own);
		// The device's own window is open for long.
		const opened = own.waitForEvent('filechooser');
		await own.getByLabel('Bring in a bank statement').click();
		const chooser = await opened;
		await becomeAnother();
		await own.waitForTimeout(500);
		await chooser.setFiles(file('slow.csv', statement));
		await own.waitForURL(/look/);
		await own.getByText('slow.csv').first().waitFor();
		// Chosen just as the box is put away.
		await own.goto(`${app.origin}/money`);
		await ready(own);
		const plain = (await own.waitForSelector('input.box[type=file]'))!;
		await becomeAnother();
		await own.getByRole('button', { name: 'Choose a file' }).waitFor();
		await plain.evaluate((box: HTMLInputElement, text) => {
			const chosen = new DataTransfer();
			chosen.items.add(new File([text], 'late.csv', { type: 'text/csv' }));
			box.files = chosen.files;
			box.dispatchEvent(new Event('change', { bubbles: true }));
		}, statement);
		await own.waitForURL(/look/);
		await own.getByText('late.csv').first().waitFor();
		await own.close();
	});

	it('without scripts: a customer is added, and found', async () => {
		const plain = await browser.newContext({
			javaScriptEnabled: false,
			storageState: await context.storageState()
		});
		const page = await plain.newPage();
		await page.goto(`${app.origin}/customers/new`);
		await page.getByLabel('Name').fill(' ');
		await page.getByLabel('Phone').fill('07700 900123');
		await page.getByRole('button', { name: 'Add the customer' }).click();
		await page.getByText('A name is needed.').waitFor();
		expect(await page.getByLabel('Phone').inputValue()).to.equal('07700 900123');
		await page.getByLabel('Name').fill('Odile Brancaster');
		await page.getByRole('radio', { name: /A business/ }).check();
		await page.getByRole('button', { name: 'Add the customer' }).click();
		await page.getByRole('heading', { name: 'Odile Brancaster' }).waitFor();
		for (const [typed, found] of [
			['bran', 1],
			['nobody', 0]
		] as const) {
			await page.goto(`${app.origin}/customers`);
			await page.getByRole('searchbox').fill(typed);
			await page.getByRole('button', { name: 'Find', exact: true }).click();
			await page.waitForURL(/q=/);
			expect(await page.getByRole('link', { name: /Odile Brancaster/ }).count()).to.equal(found);
		}
		await page.goto(`${app.origin}/work/prices/new`);
		expect(await page.locator('noscript p').first().innerText()).to.include('needs scripts');
		await plain.close();
	});
});
