// What goes wrong, in the real interface. Over 300 lines: every fault starts from the same invoice, in the same browser.
import { expect } from 'chai';
import { spawnSync } from 'node:child_process';
import { createHmac } from 'node:crypto';
import { request } from 'node:http';
import { after, afterEach, before, describe, it } from 'mocha';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { connect, type Database } from '../../src/lib/server/db/connection';
import { expectSoundBooks } from '../support/books';
import { runApp, until, type RunningApp } from '../support/app';
import { openBrowser, ready, saved, setUp, typeLine } from '../support/browser';

describe('faults', () => {
	let app: RunningApp;
	let browser: Browser;
	let desk: BrowserContext;
	let page: Page;

	before(async () => {
		app = await runApp();
		browser = await openBrowser();
		desk = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
		page = await desk.newPage();
		await setUp(page, app.origin);
	});
	after(async () => {
		await browser?.close();
		await app?.end();
	});
	afterEach(() => look((db) => expectSoundBooks(db)));

	function look<T>(read: (db: Database) => T): T {
		const db = connect(`${app.folder}/axiometer.sqlite`);
		try {
			return read(db);
		} finally {
			db.$client.close();
		}
	}
	const numbers = () =>
		look(
			(db) =>
				db.$client
					.prepare(
						"select number from documents where kind = 'invoice' and number is not null order by number"
					)
					.pluck()
					.all() as string[]
		);
	const api = (path: string, body: object, method = 'POST') =>
		desk.request.fetch(app.origin + path, { method, data: body, failOnStatusCode: false });

	/** A draft made through the same calls the sheet makes. */
	async function draft(name: string, email = ''): Promise<{ id: number; version: number }> {
		const customer = await (
			await api('/customers/api', { name, kind: 'household', address: 'Somewhere', email })
		).json();
		const response = await desk.request.post(`${app.origin}/billing/new`, {
			form: { key: `k-${name}`, customer: String(customer.id) },
			headers: { origin: app.origin },
			maxRedirects: 0
		});
		const id = Number(/\/billing\/(\d+)/.exec(response.headers()['location'] ?? '')?.[1]);
		const line = {
			id: 'a',
			type: 'line',
			kind: 'labour',
			description: 'Work',
			quantity: '1',
			unit: '',
			unitPrice: '100',
			vat: 'standard',
			vatReason: '',
			discount: '',
			cost: ''
		};
		const sheet = {
			customerId: customer.id,
			siteId: null,
			contract: null,
			issueDate: '',
			workFinished: '',
			dueDate: '',
			termsDays: '',
			reference: '',
			orderNumber: '',
			note: '',
			pricesIncludeVat: false,
			roundVatDown: false,
			grouping: 'headings',
			discount: '',
			retention: '',
			rows: [line]
		};
		const { version } = await (
			await api(`/billing/${id}/api`, { version: 1, sheet }, 'PUT')
		).json();
		return { id, version };
	}
	const issue = ({ id, version }: { id: number; version: number }, sendTo: string | null = null) =>
		api(`/billing/${id}/api`, { action: 'issue', version, sendTo, copyToSelf: false });
	const linkOf = (id: number) =>
		look(
			(db) =>
				`${app.origin}/p/${db.$client.prepare('select token from documents where id = ?').pluck().get(id)}`
		);

	it('the same draft issued twice at once: one number, one invoice', async () => {
		const one = await draft('Twice');
		const answers = await Promise.all([issue(one), issue(one), issue(one)]);
		const bodies = await Promise.all(answers.map((answer) => answer.json()));
		expect(new Set(bodies.map((body) => body.number)).size).to.equal(1);
		expect(numbers()).to.have.length(1);
	});

	it('a webhook with a wrong signature, without one, or that makes no sense, is not taken', async () => {
		const now = () => Math.floor(Date.now() / 1000);
		const send = (body: string, signature: string | null, time = now()) =>
			fetch(`${app.origin}/webhooks/card`, {
				method: 'POST',
				body,
				headers: {
					'content-type': 'application/json',
					'card-time': String(time),
					...(signature ? { 'card-signature': signature } : {})
				}
			}).then((answer) => answer.status);
		const sign = (body: string, secret: string, time = now()) =>
			createHmac('sha256', secret).update(`${time}.${body}`).digest('hex');
		const known = 'stand-in-card-secret';
		const event = JSON.stringify({
			id: 'x',
			type: 'payment.settled',
			checkout: 'chk',
			amount: 1,
			fee: 0
		});
		expect(await send(event, sign(event, 'not the secret'))).to.equal(401);
		expect(await send(event, null)).to.equal(401);
		expect(await send('{}', sign('{}', known))).to.equal(400);
		expect(await send(event, sign(event, known))).to.equal(404);
		// Signed long ago: overheard, perhaps.
		const old = now() - 400;
		expect(await send(event, sign(event, known, old), old)).to.equal(401);
		// With the file held by another program, strangers get their answer, and the server lives.
		const { $client: other } = connect(`${app.folder}/axiometer.sqlite`);
		other.exec('begin immediate');
		try {
			expect(await Promise.all([send(event, null), send('{', null)])).to.deep.equal([401, 401]);
		} finally {
			other.exec('rollback');
			other.close();
		}
		expect((await fetch(`${app.origin}/health`)).status).to.equal(200);
	});

	it('a second server on the same folder does not start, and says why', async () => {
		const env = { ...app.env, PORT: '0', AXIOMETER_PORT: '1' };
		const second = spawnSync(process.execPath, ['scripts/serve.mjs'], {
			env,
			encoding: 'utf8',
			timeout: 30_000
		});
		expect(second.status).to.equal(1);
		expect(second.stderr).to.include('another one works with the folder');
		// Nobody listened to the line that was open meanwhile.
		await until(async () => (await fetch(`${app.origin}/health`)).status === 200);
	});

	it('more than a route takes, or of unknown length, is refused before it is read', async () => {
		const post = (path: string, body: BodyInit, more: object = {}) =>
			fetch(app.origin + path, {
				method: 'POST',
				body,
				redirect: 'manual',
				headers: { origin: app.origin, 'content-type': 'application/x-www-form-urlencoded' },
				...more
			}).then(
				(answer) => answer.status,
				// The connection is ended while the rest of it is still being sent.
				() => 413
			);
		const large = 'x'.repeat(2_000_000);
		for (const path of ['/webhooks/card', '/webhooks/bank', '/sign-in', '/p/x', '/money'])
			expect(await post(path, large), path).to.equal(413);
		const unknownLength = (path: string) =>
			new Promise<number>((resolve, reject) => {
				const sent = request(
					app.origin + path,
					{
						method: 'POST',
						timeout: 10_000,
						headers: { 'content-type': 'application/x-www-form-urlencoded', origin: app.origin }
					},
					(answer) => {
						answer.resume();
						resolve(answer.statusCode ?? 0);
					}
				);
				sent.on('error', reject);
				sent.on('timeout', () => sent.destroy(new Error('no answer')));
				sent.write('x');
				sent.end();
			});
		for (const path of ['/webhooks/card', '/sign-in?/password'])
			expect(await unknownLength(path), path).to.equal(411);
		expect(await post('/sign-in?/password', 'password=nothing')).to.equal(200);
	});

	it('a pay link guessed or altered opens nothing; nothing private opens without signing in', async () => {
		const stranger = await browser.newContext();
		const get = async (path: string) =>
			(
				await stranger.request.get(app.origin + path, { maxRedirects: 0, failOnStatusCode: false })
			).status();
		const one = await draft('Private');
		await issue(one);
		const token = linkOf(one.id).split('/').at(-1)!;
		expect(await get(`/p/${token}`)).to.equal(200);
		const altered = (token.startsWith('A') ? 'B' : 'A') + token.slice(1);
		for (const path of [`/p/${altered}`, `/p/${altered}/pdf`, '/p/1', `/p/${token}x`, '/p/%00'])
			expect(await get(path), path).to.equal(404);
		for (const path of [
			'/',
			'/billing',
			`/billing/${one.id}`,
			`/billing/${one.id}/pdf`,
			'/customers',
			'/settings'
		])
			expect(await get(path), path).to.equal(303);
		for (const path of ['/api/find?q=a', '/customers/api', `/billing/${one.id}/api`])
			expect(await get(path), path).to.equal(401);
		await stranger.close();
	});

	it('the mail server down: shown on the invoice, kept, and sent once when it is back', async () => {
		const one = await draft('Mail Down', 'maildown@post.example');
		await app.kill('mail');
		await issue(one, 'maildown@post.example');
		await page.goto(`${app.origin}/billing/${one.id}`);
		await page.getByText('has not gone out yet').waitFor();
		await app.start('mail');
		await page.getByRole('button', { name: 'Try now' }).click();
		await page.getByText('has not gone out yet').waitFor({ state: 'detached' });
		const mine = (await app.inbox()).filter((mail) =>
			mail.recipients.includes('maildown@post.example')
		);
		expect(mine).to.have.length(1);
	});

	it('a mail that is refused, and one of which nobody knows, are shown and go again when told to', async () => {
		const refused = await draft('Refused');
		await issue(refused, 'refused@post.example');
		await page.goto(`${app.origin}/billing/${refused.id}`);
		await page.getByText('was refused').waitFor();
		const cut = await draft('Cut');
		await issue(cut, 'cut@post.example');
		await page.goto(`${app.origin}/billing/${cut.id}`);
		await page.getByText('may or may not have arrived').waitFor();
		await page.getByRole('button', { name: 'It did arrive' }).click();
		await page.getByText('may or may not have arrived').waitFor({ state: 'detached' });
		expect(
			(await app.inbox()).filter((mail) => mail.recipients.includes('cut@post.example'))
		).to.have.length(1);
	});

	it('the card processor down: said in words, nothing charged, and it works again after', async () => {
		const one = await draft('Card Down');
		await issue(one);
		await app.kill('card');
		const context = await browser.newContext();
		const customer = await context.newPage();
		await customer.goto(linkOf(one.id));
		await customer.getByRole('button', { name: 'Pay by card' }).click();
		await customer
			.getByText('Payments cannot be reached right now. Nothing was charged.')
			.waitFor();
		await app.start('card');
		await customer.getByRole('button', { name: 'Pay by card' }).click();
		await customer.getByLabel('Card number').waitFor();
		await context.close();
	});

	describe('a draft', () => {
		async function begin(name: string): Promise<string> {
			await page.goto(`${app.origin}/billing`);
			await page.getByRole('button', { name: 'New invoice' }).first().click();
			await page.waitForURL(/billing\/\d+/);
			await ready(page);
			await page.getByLabel('Customer', { exact: true }).fill(name);
			await page.getByRole('option', { name: /household/ }).click();
			await page.getByLabel('Description, line 1').waitFor();
			await page.getByRole('heading', { name: `Invoice to ${name}` }).waitFor();
			await page.getByLabel('Description, line 1').click();
			return page.url();
		}

		it('survives closing the tab', async () => {
			const address = await begin('Tab Closed');
			await typeLine(page, 'Typed just before', '3', '12.50');
			await page.close({ runBeforeUnload: true });
			page = await desk.newPage();
			await page.goto(address);
			await page.waitForFunction(
				() =>
					document.querySelector<HTMLInputElement>('[aria-label="Price, line 1"]')?.value ===
					'12.50'
			);
		});

		it('survives a crash of the server and a lost connection while typing', async () => {
			const address = await begin('Server Gone');
			await saved(page);
			await app.kill('app');
			await typeLine(page, 'Typed while it was down', '1', '99');
			await page.getByText('What you type is kept here').waitFor();
			await app.start('app');
			await saved(page);
			await desk.setOffline(true);
			await page.getByLabel('Description, line 2').fill('Typed without a line');
			await page.getByText('not saved yet').waitFor();
			await desk.setOffline(false);
			await saved(page);
			await page.goto(address);
			await page.waitForFunction(
				() =>
					document.querySelector<HTMLTextAreaElement>('[aria-label="Description, line 2"]')
						?.value === 'Typed without a line'
			);
		});

		it('open in a second tab is told, and not overwritten', async () => {
			const address = await begin('Two Tabs');
			await saved(page);
			const second = await desk.newPage();
			await second.goto(address);
			await second.getByText('open in another tab').waitFor();
			await second.getByLabel('Description, line 1').fill('From the second tab');
			await saved(second);
			await page.getByText('changed in another tab. Nothing was overwritten').waitFor();
			await page.getByLabel('Description, line 1').fill('From the first tab');
			await page.getByRole('button', { name: 'Keep mine as a second draft' }).click();
			await page.waitForURL((url) => url.href !== address);
			await page.waitForFunction(
				() =>
					document.querySelector<HTMLTextAreaElement>('[aria-label="Description, line 1"]')
						?.value === 'From the first tab'
			);
			await second.reload();
			await second.waitForFunction(
				() =>
					document.querySelector<HTMLTextAreaElement>('[aria-label="Description, line 1"]')
						?.value === 'From the second tab'
			);
			await second.close();
		});

		it('says when its customer has been removed in another tab, and keeps every line', async () => {
			await begin('Soon Removed');
			await typeLine(page, 'Kept line', '1', '10');
			await saved(page);
			const other = await desk.newPage();
			await other.goto(`${app.origin}/customers?q=Soon`);
			await other.getByRole('link', { name: /Soon Removed/ }).click();
			await other.getByRole('button', { name: 'More' }).click();
			await other.getByRole('menuitem', { name: 'Remove for good' }).click();
			await other.waitForURL(/customers$/);
			await other.close();
			await page.reload();
			await page.getByText('This customer has been removed').first().waitFor();
			expect(await page.getByLabel('Description, line 1').inputValue()).to.equal('Kept line');
		});

		it('takes rows from a spreadsheet, moves, copies and removes lines by keys, with undo', async () => {
			await begin('Keys');
			await page.evaluate(() => {
				const data = new DataTransfer();
				data.setData('text/plain', 'Render\t32\thour\t£45.00\nSand\t1\tlot\t1,860.00');
				document
					.querySelector('[aria-label="Description, line 1"]')!
					.dispatchEvent(
						new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })
					);
			});
			await page.getByLabel('Description, line 2').waitFor();
			const lines = () =>
				page
					.locator('textarea[aria-label^="Description"]')
					.evaluateAll((cells) => cells.map((cell) => (cell as HTMLTextAreaElement).value));
			expect(await lines()).to.deep.equal(['Render', 'Sand']);
			const notice = (said: string) =>
				page
					.locator('[data-scope=toast][data-part=root]', { hasText: said })
					.getByRole('button', { name: 'Undo' });
			// The notice takes back what it says, and not what was done since.
			await page.getByLabel('Description, line 2').focus();
			await page.keyboard.press('Control+d');
			await notice('2 lines pasted.').click();
			expect(await lines()).to.deep.equal(['Sand']);
			await page.getByLabel('Description, line 1').focus();
			await page.keyboard.press('Control+z');
			await page.keyboard.press('Control+z');
			expect(await lines()).to.deep.equal(['Render', 'Sand']);
			await page.getByLabel('Description, line 2').focus();
			await page.keyboard.press('Alt+ArrowUp');
			expect(await lines()).to.deep.equal(['Sand', 'Render']);
			await page.keyboard.press('Control+d');
			expect(await lines()).to.deep.equal(['Sand', 'Sand', 'Render']);
			await page.keyboard.press('Alt+Delete');
			await page.keyboard.press('ArrowDown');
			expect(await lines()).to.deep.equal(['Sand', 'Render']);
			await notice('“Sand” removed.').click();
			expect(await lines()).to.deep.equal(['Sand', 'Sand', 'Render']);
			// A word is taken away as in any box, not the line; steps are taken back one by one, and the cursor stays in the grid.
			await page.getByLabel('Description, line 3').focus();
			await page.keyboard.press('End');
			await page.keyboard.press('Control+Backspace');
			expect(await lines()).to.deep.equal(['Sand', 'Sand', '']);
			await page.keyboard.press('Control+z');
			expect(await lines()).to.deep.equal(['Sand', 'Sand', 'Render']);
			await page.keyboard.press('Alt+Delete');
			await page.keyboard.press('Alt+ArrowUp');
			expect(await lines()).to.deep.equal(['Sand', 'Sand']);
			await page.keyboard.press('Control+z');
			await page.keyboard.press('Control+z');
			expect(await lines()).to.deep.equal(['Sand', 'Sand', 'Render']);
			await page.keyboard.press('Control+Shift+z');
			expect(await lines()).to.deep.equal(['Sand', 'Sand']);
			const path = () =>
				page.evaluate(() => (document.activeElement as HTMLElement).dataset.path ?? '');
			expect(await path()).to.match(/^rows\..*\.description$/);
			// Out of any box, the newest notice is taken up.
			await page.keyboard.press('Alt+Delete');
			expect(await lines()).to.deep.equal(['Sand']);
			await page.evaluate(() => (document.activeElement as HTMLElement).blur());
			await page.keyboard.press('Control+z');
			expect(await lines()).to.deep.equal(['Sand', 'Sand']);
			await page.keyboard.press('?');
			await page.getByRole('dialog').getByText('remove the line').waitFor();
			await page.keyboard.press('Escape');
		});

		it('takes lines dragged to another place, and puts them under headings with sums', async () => {
			// What was typed just before the page was left went with it: the new sheet is empty.
			await begin('Dragged');
			expect(await page.getByLabel('Description, line 1').inputValue()).to.equal('');
			await typeLine(page, 'First', '1', '10');
			await typeLine(page, 'Second', '2', '20');
			await page.getByRole('button', { name: 'Heading' }).click();
			await page.keyboard.type('Kitchen');
			const grip = (await page.getByLabel('Drag line 1').boundingBox())!;
			const heading = (await page.getByLabel('Heading', { exact: true }).boundingBox())!;
			await page.mouse.move(grip.x + 8, grip.y + 12);
			await page.mouse.down();
			await page.mouse.move(grip.x + 8, grip.y + 40, { steps: 8 });
			await page.mouse.move(grip.x + 8, heading.y + heading.height + 20, { steps: 20 });
			// It is let go once the line is seen to lie in its new place.
			await until(
				async () => (await page.locator('[data-path^="rows."]').first().inputValue()) === 'Second'
			);
			await page.mouse.up();
			await page.getByRole('button', { name: '10.00', exact: true }).click();
			await page.getByRole('heading', { name: 'Kitchen: 10.00' }).waitFor();
			await saved(page);
			const order = look((db) =>
				JSON.parse(
					db.$client
						.prepare('select sheet from documents where id = ?')
						.pluck()
						.get(Number(new URL(page.url()).pathname.split('/').at(-1))) as string
				).rows.map((row: { text?: string; description?: string }) => row.text ?? row.description)
			);
			expect(order.filter(Boolean)).to.deep.equal(['Second', 'Kitchen', 'First']);
		});
	});
});
