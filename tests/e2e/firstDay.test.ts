// A newcomer's first day: from the empty machine to a paid invoice, with or without VAT, with or without the deduction.
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import { expectSoundBooks } from '../support/books';
import { runApp, until, type RunningApp, SETUP_CODE } from '../support/app';
import { begin, expectAccessible, openBrowser, ready, saved } from '../support/browser';
import { connect } from '../../src/lib/server/db/connection';

describe('the first day', () => {
	let browser: Browser;
	before(async () => {
		browser = await openBrowser();
	});
	after(() => browser?.close());

	async function onPhone(work: (page: Page, app: RunningApp) => Promise<void>): Promise<void> {
		const app = await runApp({}, undefined, ['app', 'mail', 'card']);
		const errors: string[] = [];
		try {
			const phone = await browser.newContext({
				viewport: { width: 390, height: 844 },
				hasTouch: true,
				isMobile: true,
				locale: 'en-GB'
			});
			const page = await phone.newPage();
			page.on('pageerror', (error) => errors.push(error.message));
			await work(page, app);
			await phone.close();
			expect(errors).to.deep.equal([]);
			await app.kill('app');
			const db = connect(`${app.folder}/axiometer.sqlite`);
			expectSoundBooks(db);
			db.$client.close();
		} finally {
			await app.end();
		}
	}

	/** From Today to an invoice with one line, ready to issue. */
	async function write(page: Page, customer: string, kind: RegExp, price: string): Promise<void> {
		await page.getByRole('button', { name: 'New', exact: true }).tap();
		await page.getByRole('heading', { name: 'New invoice' }).waitFor();
		await ready(page);
		await page.getByLabel('Customer', { exact: true }).fill(customer);
		await page.getByRole('option', { name: kind }).tap();
		if (kind.test('contractor')) await page.getByLabel(/^Yes/).check();
		await page.getByLabel('Description, line 1').fill('Patch and skim the hall');
		await page.getByLabel('Price, line 1').fill(price);
		await saved(page);
		await page.locator('.thumb').getByRole('button').tap();
	}

	it('without VAT and without CIS, on the phone: six answers, a first invoice, and it is paid', () =>
		onPhone(async (page, app) => {
			await page.goto(`${app.origin}/welcome?code=${SETUP_CODE}`);
			const asked = page.locator('form input:not([type=hidden]):not([type=radio]), form textarea');
			expect(await asked.count(), 'boxes of the first page').to.equal(4);
			await begin(page, app.origin, { vat: false, cis: false });
			await expectAccessible(page, 'Today of a newcomer');
			await write(page, 'Odile Brancaster', /household/, '480');
			const dialog = page.getByRole('dialog');
			await dialog.getByRole('heading', { name: 'Issue INV-0001 for £480.00' }).waitFor();
			// The numbers may begin elsewhere, and the account that nobody knows yet is asked for.
			await dialog.getByRole('button', { name: 'Begin with another number' }).tap();
			await dialog.getByLabel('Next number').fill('104');
			await dialog.getByRole('button', { name: 'Keep it' }).tap();
			await dialog.getByRole('heading', { name: 'Issue INV-0104 for £480.00' }).waitFor();
			await dialog.getByRole('button', { name: 'Give your bank details' }).tap();
			await dialog.getByLabel('Sort code').fill('12-34-5');
			await dialog.getByLabel('Account number').fill('00012345');
			await dialog.getByRole('button', { name: 'Keep it' }).tap();
			await dialog.getByText('A sort code has six digits.').waitFor();
			await dialog.getByLabel('Sort code').fill('12-34-56');
			await dialog.getByRole('button', { name: 'Keep it' }).tap();
			await dialog.getByText('nobody can pay it by transfer').waitFor({ state: 'detached' });
			await dialog.getByLabel('E-mail it to').fill('odile@post.example');
			await dialog.getByRole('button', { name: 'Issue and send' }).tap();
			await page.getByRole('heading', { name: /£480.00 is due/ }).waitFor();

			const mail = await until(
				async () =>
					(await app.inbox()).find((one) => one.recipients.includes('odile@post.example')),
				300,
				'the invoice'
			);
			const customer = await (await browser.newContext({ locale: 'en-GB' })).newPage();
			await customer.goto(/http\S+\/p\/[\w-]{32}/.exec(mail.text)![0]);
			expect(await customer.title()).to.equal('Invoice INV-0104 from Tamsin Orrell');
			await customer.getByText('12-34-56').first().waitFor();
			expect(await customer.getByText(/VAT/).count(), 'VAT on the page').to.equal(0);
			await customer.getByRole('button', { name: 'Pay by card' }).click();
			await customer.getByLabel('Card number').fill('9000000000000001');
			await customer.getByRole('button', { name: /^Pay/ }).click();
			await customer.getByRole('heading', { name: 'Paid. Thank you.' }).waitFor();
			await page.reload();
			await page.getByRole('heading', { name: 'Paid in full' }).waitFor();
		}));

	// What they come to, by hand: 500 with VAT in it; 500 less 20 %; 500 and 100 of VAT, less 20 % of the 500.
	for (const { vat, cis, comesTo } of [
		{ vat: true, cis: false, comesTo: '£500.00' },
		{ vat: false, cis: true, comesTo: '£400.00' },
		{ vat: true, cis: true, comesTo: '£500.00' }
	])
		it(`${vat ? 'with' : 'without'} VAT, ${cis ? 'with' : 'without'} CIS: the first invoice asks, in its place, for what the law then wants @long`, () =>
			onPhone(async (page, app) => {
				await begin(page, app.origin, { vat, cis });
				await write(
					page,
					cis ? 'Keldray Building' : 'Odile Brancaster',
					cis ? /contractor/ : /household/,
					'500'
				);
				const dialog = page.getByRole('dialog');
				const keep = dialog.getByRole('button', { name: 'Keep it' });
				const again = page.locator('.thumb').getByRole('button');
				if (vat) {
					await dialog.getByRole('heading', { name: 'Not ready to issue yet' }).waitFor();
					await dialog.getByLabel('Your VAT number').fill('444444455');
					await keep.tap();
					await dialog.getByText('One of these digits is wrong').waitFor();
					await dialog.getByLabel('Your VAT number').fill('444444454');
					await keep.tap();
					await dialog.getByLabel('Your VAT number').waitFor({ state: 'detached' });
					await dialog.getByRole('button', { name: 'Give the address' }).tap();
					await page.getByLabel('Address', { exact: true }).fill('Tannery Lane\nHarrowmere');
					await page.getByRole('button', { name: 'Save', exact: true }).tap();
					await again.tap();
				}
				if (cis) {
					await dialog.getByRole('button', { name: 'Give your UTR' }).tap();
					await dialog.getByLabel('Your UTR').fill('2234567890');
					await keep.tap();
					await dialog.getByLabel('Your UTR').waitFor({ state: 'detached' });
					await dialog.getByRole('button', { name: 'Give the rate' }).tap();
					await page.getByLabel('Deducts from what it pays you').selectOption('20');
					await page.getByRole('button', { name: 'Save', exact: true }).tap();
					await again.tap();
				}
				await dialog.getByRole('heading', { name: `Issue INV-0001 for ${comesTo}` }).waitFor();
				await dialog.getByRole('button', { name: 'Issue, send later' }).tap();
				await page.getByRole('heading', { name: `${comesTo} is due` }).waitFor();
				const paper = await page.getByRole('article').innerText();
				expect(paper.includes('GB 444 4444 54'), 'VAT number on it').to.equal(vat);
				expect(paper.includes('2234567890'), 'UTR on it').to.equal(cis);
			}));

	it('gives up the VAT registration from a day, and takes it up again @long', () =>
		onPhone(async (page, app) => {
			await begin(page, app.origin, { vat: true, cis: false });
			await page.goto(`${app.origin}/settings`);
			await ready(page);
			await page.getByRole('link', { name: 'Change VAT and CIS' }).tap();
			await page.getByLabel('I am registered for VAT').uncheck();
			await page.getByRole('button', { name: 'Save', exact: true }).tap();
			await page.getByText('From which day is that so?').waitFor();
			await page.getByLabel('From which day?').fill('1 Dec 2026');
			await page.getByRole('button', { name: 'Save', exact: true }).tap();
			await page.getByText('from 1 Dec 2026: not registered').waitFor();
		}));
});
