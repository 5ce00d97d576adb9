// Whole ways through the interface. Over 300 lines: each goes on where the one before ended.
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { runApp, until, type RunningApp, SETUP_CODE } from '../support/app';
import { expectAccessible, openBrowser, ready, saved, setUp, typeLine } from '../support/browser';
import { connect } from '../../src/lib/server/db/connection';
import { expectSoundBooks } from '../support/books';

describe('from an empty machine to a paid invoice', () => {
	let app: RunningApp;
	let browser: Browser;
	let desk: BrowserContext;
	let page: Page;
	const errors: string[] = [];

	before(async () => {
		app = await runApp({ AXIOMETER_CARD_TWICE: '1', AXIOMETER_CARD_OUT_OF_ORDER: '1' }, undefined, [
			'app',
			'mail',
			'card'
		]);
		browser = await openBrowser();
		desk = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
		page = await desk.newPage();
		page.on('pageerror', (error) => errors.push(error.message));
	});
	after(async () => {
		await browser?.close();
		if (app) {
			await app.kill('app');
			const db = connect(`${app.folder}/axiometer.sqlite`);
			expectSoundBooks(db);
			db.$client.close();
			await app.end();
		}
		expect(errors).to.deep.equal([]);
	});

	const payable = (on = page) => on.getByTestId('payable').innerText();
	const heading = (on = page) => on.getByRole('heading', { level: 1 });

	/** A page as the customer has it: another browser, not signed in. */
	async function customerPage(link: string, size = { width: 1280, height: 800 }): Promise<Page> {
		const context = await browser.newContext({ viewport: size, locale: 'en-GB' });
		const customer = await context.newPage();
		customer.on('pageerror', (error) => errors.push(error.message));
		await customer.goto(link);
		return customer;
	}

	async function linkMailedTo(address: string): Promise<string> {
		const mail = await until(
			async () =>
				(await app.inbox()).find(
					(one) => one.recipients.includes(address) && one.subject.startsWith('Invoice')
				),
			300,
			`mail to ${address}`
		);
		expect(mail.attachments[0]).to.include({ type: 'application/pdf' });
		return /http\S+\/p\/[\w-]{32}/.exec(mail.text)![0];
	}

	async function payCard(customer: Page, number: string): Promise<void> {
		await customer.getByRole('button', { name: 'Pay by card' }).click();
		await customer.getByLabel('Card number').fill(number);
		await customer.getByRole('button', { name: /^Pay/ }).click();
	}

	it('first start: says what is missing at its field, keeps what was typed, and begins', async () => {
		// Whoever happens to come by first owns nothing.
		await page.goto(app.origin);
		await page.getByLabel('Code').fill('a-code-that-is-none');
		await page.getByRole('button', { name: 'Begin' }).click();
		await page.getByText('That is not the code.').waitFor();
		await page.goto(`${app.origin}/welcome?code=${SETUP_CODE}`);
		await expectAccessible(page, 'first start');
		await page.getByLabel('Your own name').fill('Tamsin Orrell');
		await page.getByLabel('Password').fill('short');
		await page.getByRole('button', { name: 'Begin' }).click();
		await page.getByText('The law wants an address').waitFor();
		await page.getByText('At least ten characters.').waitFor();
		expect(await page.getByText('Yes or no? It can be changed later.').count()).to.equal(2);
		// The first that is wrong has the cursor, and what was typed is still there.
		expect(await page.evaluate(() => document.activeElement?.getAttribute('name'))).to.equal(
			'address'
		);
		expect(await page.getByLabel('Your own name').inputValue()).to.equal('Tamsin Orrell');
		await setUp(page, app.origin);
		await page.getByText('Three things to begin with').waitFor();
		await expectAccessible(page, 'Today, empty');
	});

	it('a household: by keyboard alone, added in passing, tried, mailed, paid by card with a second step', async () => {
		await page.goto(`${app.origin}/billing`);
		await expectAccessible(page, 'Billing, empty');
		await page.getByRole('button', { name: 'New invoice' }).first().click();
		await page.getByRole('heading', { name: 'New invoice' }).waitFor();
		await ready(page);
		await page.keyboard.type('Odile Brancaster');
		await page.getByRole('option', { name: /household/ }).waitFor();
		await page.keyboard.press('Enter');
		await page.getByRole('heading', { name: 'Invoice to Odile Brancaster' }).waitFor();
		await typeLine(page, 'Lime wash to garden room, two coats', '2', '£ 180.00');
		await typeLine(page, '<script>document.title="got in"</script>', '1', '1,052.50');
		await saved(page);
		expect(await page.getByLabel('Prices', { exact: true }).inputValue()).to.equal('with');
		expect(await payable()).to.contain('£1,412.50');
		await page.keyboard.press('Control+Enter');
		await page.getByRole('heading', { name: 'Not ready to issue yet' }).waitFor();
		await page.getByRole('dialog').getByRole('button', { name: 'Give the address' }).click();
		await page.getByLabel('Address', { exact: true }).fill('Lantern House\nHarrowmere');
		await page.getByLabel('E-mail', { exact: true }).fill('odile@post.example');
		await page.getByRole('button', { name: 'Save' }).click();
		await page.getByRole('heading', { name: /They pay you/ }).waitFor();
		await expectAccessible(page, 'the sheet');

		await page.keyboard.press('Control+Enter');
		await page.getByRole('heading', { name: 'Issue INV-0231 for £1,412.50' }).waitFor();
		await expectAccessible(page, 'the last look');
		await page.getByRole('button', { name: /^Send myself a test/ }).click();
		await page.getByText('Nothing of it counts').waitFor();
		const trial = await until(async () =>
			(await app.inbox()).find((mail) => mail.subject.startsWith('Test'))
		);
		expect(trial.recipients).to.deep.equal(['tamsin@orrell-lime.example']);
		const pretend = await customerPage(/http\S+\/p\/[\w-]{32}/.exec(trial.text)![0]);
		await pretend.getByText('Test: nothing here counts').first().waitFor();
		await payCard(pretend, '9000000000000001');
		await pretend.getByRole('heading', { name: 'Paid. Thank you.' }).waitFor();

		await page.getByRole('button', { name: 'Issue and send' }).click();
		await page.getByRole('heading', { name: /is due 8 Dec 2026/ }).waitFor();
		const customer = await customerPage(await linkMailedTo('odile@post.example'));
		expect(await customer.title()).to.equal('VAT invoice INV-0231 from Orrell Lime & Plaster');
		await customer.getByText('<script>document.title="got in"</script>').waitFor();
		await payCard(customer, '9000 0000 0000 0003');
		await customer.getByLabel(/Code from your bank/).fill('246810');
		await customer.getByRole('button', { name: 'Confirm' }).click();
		await customer.getByRole('heading', { name: 'Paid. Thank you.' }).waitFor();
		await page.reload();
		expect(await heading().innerText()).to.equal('Paid in full');
		await page.getByText('The customer opened it').waitFor();
		await until(
			async () => (await app.inbox()).some((mail) => mail.subject.startsWith('Receipt')),
			300,
			'the receipt'
		);
		await until(
			async () =>
				(await app.inbox()).some((mail) => mail.subject.includes('Odile Brancaster paid')),
			300,
			'the notice'
		);
		expect((await app.inbox()).filter((mail) => mail.subject.startsWith('Receipt'))).to.have.length(
			1
		);
	});

	it('a known customer: nine presses from Today to a sent invoice of two lines', async () => {
		await page.goto(app.origin);
		let presses = 0;
		const press = (key: string) => (presses++, page.keyboard.press(key));
		presses++;
		await page.getByRole('button', { name: 'New invoice' }).first().click();
		await page.getByRole('heading', { name: 'New invoice' }).waitFor();
		await page.waitForFunction(() => document.activeElement?.id === 'customer');
		await page.keyboard.type('odi');
		await press('Enter');
		await page.getByRole('heading', { name: 'Invoice to Odile Brancaster' }).waitFor();
		await page.waitForFunction(
			() => document.activeElement?.getAttribute('aria-label') === 'Description, line 1'
		);
		for (const [description, quantity, price] of [
			['Second coat', '3', '60'],
			['Clean up', '1', '40']
		] as const) {
			await page.keyboard.type(description);
			await press('Enter');
			await page.keyboard.type(quantity);
			await press('Enter');
			await page.keyboard.type(price);
			if (description === 'Second coat') await press('Enter');
		}
		await press('Control+Enter');
		await page.getByRole('heading', { name: 'Issue INV-0232 for £220.00' }).waitFor();
		await press('Enter');
		await page.getByRole('heading', { name: '£220.00 is due 8 Dec 2026' }).waitFor();
		await page.getByText('You e-mailed it').waitFor();
		expect(presses).to.equal(9);
	});

	it('a contractor: reverse charge and deduction with their workings; paying net is paying in full', async () => {
		await page.goto(`${app.origin}/customers/new`);
		await page.getByLabel('Name').first().fill('Beacon & Lathe Construction Ltd');
		await page.getByLabel(/A contractor/).check();
		await page.getByLabel('Address', { exact: true }).fill('Foundry House\nCastle Orme');
		await page.getByLabel('Registered for VAT').check();
		await page.getByLabel('VAT number').fill('123456782');
		await page.getByLabel('Registered for CIS').check();
		await page.getByLabel('Deducts from what it pays you').selectOption('20');
		await page.getByRole('button', { name: 'Add the customer' }).click();
		await page.getByRole('button', { name: 'Write an invoice' }).click();
		await page.getByLabel('Description, line 1').click();
		await typeLine(page, 'Lime render, two coats', '32', '45');
		await page.keyboard.type('Hydraulic lime, sand, mesh');
		await page.getByLabel('Kind, line 2').selectOption('materials');
		await page.getByLabel('Price, line 2').fill('860');
		await page.getByLabel('Yes').check();
		await page.getByText('The law wants what this cost you').last().waitFor();
		await page.getByRole('button', { name: 'Give the cost' }).click();
		await page.keyboard.type('720');
		await page.getByRole('button', { name: /^CIS deduction, 20 %/ }).click();
		await page.getByText('Your £140.00 mark-up on materials stays in.').waitFor();
		await page.getByRole('button', { name: /^Reverse charge/ }).click();
		await page.getByText('Reverse charge: the customer accounts for the VAT').waitFor();
		expect(await payable()).to.contain('£1,984.00');
		await page.getByLabel('Prices', { exact: true }).selectOption('with');
		await page.getByRole('button', { name: 'Make prices without VAT' }).click();
		expect(await page.getByLabel('Prices', { exact: true }).inputValue()).to.equal('without');
		await saved(page);
		await page.getByRole('link', { name: /See it as the customer/ }).click();
		await page.getByText('Draft: this is not a VAT invoice').waitFor();
		await page.getByRole('link', { name: 'Back to the sheet' }).click();
		await page.getByTestId('payable').waitFor();
		await page.keyboard.press('Control+Enter');
		await page.getByRole('button', { name: 'Issue, send later' }).click();
		await page.getByRole('button', { name: 'Mark as handed over' }).click();
		await page.getByText('You handed it over').waitFor();
		await page.getByRole('link', { name: 'Record a payment' }).click();
		expect(await page.getByLabel('What came in, £').inputValue()).to.equal('1984.00');
		await expectAccessible(page, 'recording a payment');
		await page.getByRole('button', { name: 'Record it' }).click();
		await page.getByRole('heading', { name: 'Paid in full, £316.00 of it withheld' }).waitFor();
	});

	it('an end user on the phone: VAT and deduction; a card declined, then one that settles late @long', async () => {
		const phone = await browser.newContext({
			viewport: { width: 390, height: 844 },
			hasTouch: true,
			isMobile: true,
			locale: 'en-GB',
			storageState: await desk.storageState()
		});
		const small = await phone.newPage();
		small.on('pageerror', (error) => errors.push(error.message));
		await small.goto(`${app.origin}/`);
		await small.getByRole('button', { name: 'New', exact: true }).tap();
		await small.getByRole('heading', { name: 'New invoice' }).waitFor();
		await ready(small);
		await small.getByLabel('Customer', { exact: true }).fill('Harrowmere Estates plc');
		await small.getByRole('option', { name: /contractor/ }).tap();
		await small.getByLabel(/^Yes/).check();
		await small.getByLabel('Description, line 1').fill('Repair ceiling');
		await small.getByLabel('Price, line 1').fill('1320');
		await small.getByRole('button', { name: 'details' }).tap();
		await small.getByLabel('Address', { exact: true }).fill('Corn Exchange\nHarrowmere');
		await small.getByLabel('E-mail', { exact: true }).fill('payables@estates.example');
		await small.getByLabel('Registered for VAT').check();
		await small.getByLabel('VAT number').fill('111111162');
		await small.getByLabel('Registered for CIS').check();
		await small.getByLabel('Deducts from what it pays you').selectOption('20');
		await small.getByLabel(/end user or intermediary/).check();
		await small.getByLabel('Day of that statement').fill('2024-04-08');
		await small.getByLabel('What it says').fill('We are an end user.');
		await small.getByRole('button', { name: 'Save' }).tap();
		await small.getByRole('heading', { name: /They pay you/ }).waitFor();
		expect(await payable(small)).to.contain('£1,320.00');
		await saved(small);
		await expectAccessible(small, 'the sheet on the phone');
		expect(await small.evaluate(() => document.documentElement.scrollWidth)).to.be.at.most(390);
		await small.locator('.thumb').getByRole('button').tap();
		await small.getByRole('button', { name: 'Issue and send' }).tap();
		await small.getByRole('heading', { name: /£1,320.00 is due/ }).waitFor();
		expect(await small.evaluate(() => document.documentElement.scrollWidth)).to.be.at.most(390);

		const customer = await customerPage(await linkMailedTo('payables@estates.example'), {
			width: 390,
			height: 844
		});
		expect(await customer.evaluate(() => document.documentElement.scrollWidth)).to.be.at.most(390);
		await payCard(customer, '9000000000000002');
		await customer.getByText('The card was declined').waitFor();
		await customer.getByLabel('Card number').fill('9000000000000004');
		await customer.getByRole('button', { name: /^Pay/ }).click();
		await customer.getByRole('heading', { name: 'Paid. Thank you.' }).waitFor();
		await small.reload();
		expect(await heading(small).innerText()).to.equal('Paid in full, £264.00 of it withheld');
		await phone.close();
	});

	it('a credit note takes a whole invoice back; money is given back by card', async () => {
		await page.goto(`${app.origin}/billing?q=Odile`);
		await page.getByRole('link', { name: /INV-0231/ }).click();
		await page.getByRole('link', { name: 'Credit it' }).click();
		await page.getByLabel('Why, printed on it').fill('Work not done');
		await page.getByRole('button', { name: /^Issue a credit note/ }).click();
		await page.getByText('has paid £1,412.50 too much').waitFor();
		await page.getByRole('button', { name: 'Give money back' }).click();
		await page.getByRole('button', { name: 'Give it back' }).click();
		await until(
			async () => {
				await page.reload();
				return page.getByText('£1,412.50 given back').isVisible();
			},
			300,
			'the refund'
		);
		await page.getByRole('link', { name: 'CN-0001' }).click();
		await page.getByText('Corrects invoice').waitFor();
	});

	it('the command box finds by a few letters', async () => {
		await page.goto(`${app.origin}/customers`);
		await ready(page);
		await page.keyboard.press('Control+k');
		await page.getByPlaceholder(/A name, a number/).fill('beac 1,984');
		await page.keyboard.press('Escape');
		await page.keyboard.press('Control+k');
		await page.getByPlaceholder(/A name, a number/).fill('lathe');
		await page.getByRole('option', { name: /INV-0233/ }).waitFor();
		await expectAccessible(page, 'the command box');
		await page.getByRole('option', { name: /INV-0233/ }).click();
		await page.waitForURL(/billing\/\d+/);
		await page.getByRole('button', { name: 'Sign out' }).first().click();
		await page.waitForURL(/sign-in/);
		await expectAccessible(page, 'signing in');
	});
});
