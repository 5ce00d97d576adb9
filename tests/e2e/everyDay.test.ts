// Every day, in the real interface: a letterhead with its paper following, a helper's day on the phone, the accountant's visit,
// a receipt photographed and kept.
// Over 300 lines: one journey after the other, in one app.
import { expect } from 'chai';
import { join } from 'node:path';
import { after, before, describe, it } from 'mocha';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { eq } from 'drizzle-orm';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { readConfig } from '../../src/lib/server/config';
import { settableClock } from '../../src/lib/server/clock';
import { connect } from '../../src/lib/server/db/connection';
import { people } from '../../src/lib/server/db/schema';
import { openWorld } from '../../src/lib/server/open';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { hashOf, setPassword } from '../../src/lib/server/services/business/signIn';
import { addJob } from '../../src/lib/server/services/jobs/jobs';
import { saveVisit } from '../../src/lib/server/services/jobs/visits';
import { invite } from '../../src/lib/server/services/people/people';
import { expectSoundBooks } from '../support/books';
import { runApp, until, type RunningApp } from '../support/app';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { textOf } from '../support/pdf';
import { unzip } from '../support/unzip';
import { BUSINESS, HOUSEHOLD, issued, line } from '../support/world';

const PASSWORD = 'lime-and-plaster';
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

describe('every day', () => {
	let app: RunningApp;
	let browser: Browser;
	let owner: BrowserContext;
	let page: Page;
	let own = 0;
	let other = 0;

	before(async () => {
		app = await runApp(
			{ AXIOMETER_CLOCK: '2026-11-24T09:00' },
			async (env) => {
				const clock = settableClock(londonMoment('2026-11-24T09:00'));
				const world = openWorld(readConfig(env), { clock });
				saveBusiness(world, BUSINESS, true);
				await setPassword(world, PASSWORD);
				const { customerId } = await issued(world, HOUSEHOLD, {
					rows: [line('a', 'Run a cornice', '450')]
				});
				for (const [name, role] of [
					['Joss Amadi', 'onSite'],
					['Oakes Merrow', 'accountant']
				] as const) {
					const id = invite(world, { name, email: `${role}@site.example`, role });
					world.db
						.update(people)
						.set({ passwordHash: await hashOf(PASSWORD) })
						.where(eq(people.id, id))
						.run();
					if (role !== 'onSite') continue;
					own = addJob(world, 'own', { title: 'Hall ceiling', customerId, hourlyCost: '18.37' });
					other = addJob(world, 'other', { title: 'Somebody else’s stairs', customerId });
					saveVisit(world, own, null, { date: '2026-11-24', from: '09:30', personId: id });
				}
				world.db.$client.close();
			},
			['app', 'mail']
		);
		browser = await openBrowser();
		({ context: owner, page } = await enter(BUSINESS.email, DESK));
	});
	after(async () => {
		await browser?.close();
		await app?.end();
	});

	async function enter(email: string, viewport: typeof DESK) {
		const context = await browser.newContext({ viewport, locale: 'en-GB', acceptDownloads: true });
		const on = await context.newPage();
		await on.goto(`${app.origin}/sign-in`);
		await ready(on);
		await on.getByLabel('E-mail').fill(email);
		await on.getByLabel('Password').fill(PASSWORD);
		await on.getByRole('button', { name: 'Sign in', exact: true }).click();
		await on.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
		return { context, page: on };
	}

	it('a letterhead is changed, its paper follows within a second, and the next invoice is written on it @long', async () => {
		await page.goto(`${app.origin}/settings/letterheads`);
		await ready(page);
		await page.getByRole('button', { name: 'Make one of your own' }).click();
		await page.getByRole('heading', { name: 'Standard', exact: true }).waitFor();
		const drawn = () =>
			page.evaluate(() => {
				const paper = document.querySelector('canvas');
				return paper && paper.width > 300 ? paper.toDataURL().length : 0;
			});
		const first = await until(drawn, 20, 'the paper');
		const begun = Date.now();
		await page.getByText('Serif', { exact: true }).click();
		await until(async () => (await drawn()) !== first, 10, 'the changed paper');
		// Not a measure, which stands in the bench: that it follows at all, and does not wait to be kept.
		expect(Date.now() - begun).to.be.lessThan(10_000);
		await page.getByLabel('Title of how to pay').fill('Paying us');
		await page.locator('input[name="margins.left"]').fill('4');
		await page.getByText('At least 8 mm').waitFor();
		await page.locator('input[name="margins.left"]').fill('20');
		await page.getByText(/^kept /).waitFor();
		await expectAccessible(page, 'a letterhead');
		await page.goto(`${app.origin}/billing`);
		await ready(page);
		await page.getByRole('link', { name: /Odile Brancaster/ }).click();
		await ready(page);
		await page.getByRole('button', { name: 'Copy as new' }).click();
		await page.getByLabel('Description, line 1').waitFor();
		const draft = new URL(page.url()).pathname;
		const words = await until(async () => {
			const pdf = await owner.request.get(`${app.origin}${draft}/pdf`);
			const text = await textOf(await pdf.body());
			return text.includes('Paying us') ? text : null;
		});
		expect(words).to.contain('Run a cornice');
	});

	it('the accountant reads, takes the pack, which adds up, and changes nothing', async () => {
		const { context, page: on } = await enter('accountant@site.example', DESK);
		await on.getByRole('heading', { name: 'Billing' }).waitFor();
		await on.goto(`${app.origin}/reports?basis=invoice`);
		await ready(on);
		await on.getByText('£450.00').first().waitFor();
		await expectAccessible(on, 'reports');
		const pack = await context.request.get(`${app.origin}/reports/pack?basis=invoice`);
		const files = await unzip(await pack.body());
		expect(files.get('sales.csv')!.toString()).to.match(/INV-0007.*,450\.00,90\.00,/);
		await on.goto(`${app.origin}/reports/vat?from=2026-10-01&to=2026-12-31&basis=invoice`);
		await on.getByText('90.00').first().waitFor();
		await expectAccessible(on, 'the VAT period');
		for (const path of ['/customers', '/files/1', '/settings', '/costs/new', '/lists/jobs'])
			expect((await context.request.get(app.origin + path)).status(), path).to.be.oneOf([403]);
		const pay = await context.request.post(`${app.origin}/billing/1?/pay`, {
			form: { amount: '1' },
			headers: { origin: app.origin }
		});
		expect(pay.status()).to.equal(403);
		await context.close();
		const db = connect(join(app.folder, 'axiometer.sqlite'));
		expectSoundBooks(db);
		db.$client.close();
	});

	it('the pack goes to the accountant by a link, which opens until it is taken back', async () => {
		await page.goto(`${app.origin}/reports?basis=invoice`);
		await ready(page);
		const part = page.locator('#pack');
		await part.getByLabel('E-mail').fill('oakes@ledger.example');
		await part.getByRole('button', { name: 'Send the link' }).click();
		await page.getByText('The link is on its way.').waitFor();
		const mail = await until(async () =>
			(await app.inbox()).find(({ recipients }) => recipients.includes('oakes@ledger.example'))
		);
		const link = /http\S+\/k\/[\w-]+/.exec(mail.text)![0];
		const context = await browser.newContext({ viewport: PHONE, locale: 'en-GB' });
		const on = await context.newPage();
		await on.goto(link);
		await on.getByRole('heading', { name: 'Books of Orrell Lime & Plaster' }).waitFor();
		await expectAccessible(on, 'the page of a pack');
		const zip = await context.request.get(`${link}/pack`);
		expect((await unzip(await zip.body())).get('sales.csv')!.toString()).to.contain('INV-0007');
		expect((await context.request.get(`${app.origin}/reports`)).url()).to.contain('/sign-in');
		await part.getByRole('button', { name: /^Take it back/ }).click();
		await page.getByText('That link opens nothing any more.').waitFor();
		expect((await context.request.get(`${link}/pack`)).status()).to.equal(404);
		expect((await context.request.get(link)).status()).to.equal(404);
		await context.close();
	});

	it('open invoices are brought in, reminded of and paid; each counts once on either basis, and a slip is taken back', async () => {
		const csv = (rows: string) => ({
			name: 'open.csv',
			mimeType: 'text/csv',
			buffer: Buffer.from(`Number,Customer,Issued,Due,Net,VAT,Paid,Paid on\n${rows}`)
		});
		await page.goto(`${app.origin}/settings/moving`);
		await ready(page);
		await page.getByRole('link', { name: /^Bring in ?: open invoices/ }).click();
		await page.getByRole('heading', { name: 'Bring in open invoices' }).waitFor();
		await ready(page);
		await page.getByLabel('Your last VAT return went up to').fill('31 Oct 2026');
		await page
			.getByLabel('A CSV file')
			.setInputFiles(
				csv(
					`OLD-7,Odile Brancaster,3 Oct 2026,17 Oct 2026,1000,200,300,20 Oct 2026\n` +
						`OLD-8,Odile Brancaster,5 Nov 2026,19 Nov 2026,100,20,,\n` +
						`OLD-9,Odile Brancaster,5 Nov 2026,19 Nov 2026,100,21.50,,\n` +
						`OLD-10,Nobody at all,5 Nov 2026,19 Nov 2026,100,20,,\n`
				)
			);
		await page.getByText('2 new, 0 here already, 2 left out').waitFor();
		await page.getByText('is at no rate that was in force').waitFor();
		await page.getByText('Nobody here is called “Nobody at all”.').waitFor();
		await expectAccessible(page, 'open invoices looked through');
		await page.getByRole('button', { name: 'Add 2 open invoices' }).click();
		await page.getByText('2 added, 0 here already, 2 left out').waitFor();
		await page.goto(`${app.origin}/owed`);
		await ready(page);
		await page
			.getByRole('link', { name: /Odile Brancaster/ })
			.first()
			.click();
		await page.getByText('OLD-7').first().waitFor();
		await page.goto(`${app.origin}/billing?q=OLD-7`);
		await page.getByRole('link', { name: /OLD-7/ }).first().click();
		await page.getByRole('heading', { name: '£900.00 is 38 days late' }).waitFor();
		await ready(page);
		const invoice = new URL(page.url()).pathname;
		await page.goto(`${app.origin}/billing?q=OLD-7`);
		await ready(page);
		await page.locator('input[data-row]').first().check();
		const bar = page.getByRole('form', { name: 'What is chosen' });
		await bar.getByRole('button', { name: 'Remind' }).click();
		await page.getByRole('button', { name: 'Remind about 1 document' }).click();
		await page.getByRole('heading', { name: '1 document reminded' }).waitFor();
		const reminder = await until(async () =>
			(await app.inbox()).find(({ text }) => text.includes('OLD-7'))
		);
		expect(reminder.text).to.contain('£900.00');
		await page.goto(app.origin + invoice);
		await ready(page);
		await page.getByRole('link', { name: 'Record a payment' }).click();
		await page.getByRole('button', { name: 'Record it' }).click();
		await page.getByRole('heading', { name: 'Paid in full' }).waitFor();
		const boxes = async (basis: string) => {
			await page.goto(`${app.origin}/reports/vat?from=2026-10-01&to=2026-12-31&basis=${basis}`);
			return (await page.locator('dl dd').allInnerTexts())[0];
		};
		// By tax point: 90.00 of the cornice and 20.00 of OLD-8. When paid: OLD-7 stood in a return, and OLD-8 is open.
		expect([await boxes('invoice'), await boxes('cash')]).to.deep.equal(['110.00', '0.00']);
		await page.goto(`${app.origin}/settings/moving`);
		await ready(page);
		await page.getByRole('button', { name: /^Take back/ }).click();
		await page.getByRole('button', { name: 'Take it back' }).click();
		await page.getByText('1 taken back, 1 stayed').waitFor();
		await page.getByText('OLD-7, Odile Brancaster: a payment of it was recorded').waitFor();
		await page.goto(app.origin + invoice);
		await page.getByText('You brought it in from other books').waitFor();
	});

	it('an invoice in euro: its rate typed in the table, issued, paid by pounds from the bank, the difference kept @long', async () => {
		await page.goto(`${app.origin}/settings/exchange`);
		await ready(page);
		await page.getByLabel('Is worth, £').fill('0.85');
		await page.getByLabel('From', { exact: true }).fill('1 Nov 2026');
		await page.getByLabel('To', { exact: true }).fill('30 Nov 2026');
		await page.getByLabel('Where it is from').fill('the monthly table');
		await page.getByRole('button', { name: 'Write it down' }).click();
		await page.getByRole('cell', { name: '0.85', exact: true }).waitFor();
		await expectAccessible(page, 'exchange rates');
		await page.goto(`${app.origin}/billing`);
		await ready(page);
		await page
			.getByRole('link', { name: /Odile Brancaster/ })
			.first()
			.click();
		await ready(page);
		const copy = page.getByRole('button', { name: 'Copy as new' });
		if (await copy.count()) await copy.click();
		await page.getByLabel('Description, line 1').waitFor();
		await page.getByRole('button', { name: /^Discount, retention/ }).click();
		await page.getByLabel('In which money').selectOption('EUR');
		await page.getByText('The prices stand as they were, and are euro now.').waitFor();
		await page.getByRole('button', { name: 'Convert them into euro' }).click();
		// 450 pounds at 0.85 are 529.41, with VAT 635.29.
		await page.getByText('€635.29').first().waitFor();
		await page.getByText('the monthly table').waitFor();
		await page
			.getByRole('button', { name: /^Issue…/ })
			.first()
			.click();
		await page.getByRole('heading', { name: /^Issue INV-\d+ for €635\.29$/ }).waitFor();
		await page.getByRole('button', { name: 'Issue, send later' }).click();
		await page.waitForURL(/just=/);
		const invoice = new URL(page.url()).pathname;
		const number = /INV-\d+/.exec(await page.locator('main, body').first().innerText())![0];
		const pdf = await owner.request.get(`${app.origin}${invoice}/pdf`);
		const paper = await textOf(await pdf.body());
		// 529.41 × 20 % = 105.88 of VAT, at 0.85.
		expect(paper).to.contain('€635.29').and.to.contain('VAT charged, in pounds');
		expect(paper).to.contain('£90.00');
		await page.goto(`${app.origin}/money`);
		await ready(page);
		await page.setInputFiles('input[type=file]', {
			name: 'bank.csv',
			mimeType: 'text/csv',
			buffer: Buffer.from(`Date,Description,Amount\n24/11/2026,BRANCASTER ${number},535.80\n`)
		});
		await page.getByRole('button', { name: /^Bring .* in$/ }).click();
		await page.getByText('0.8434 pounds for one euro').waitFor();
		await expectAccessible(page, 'a line in pounds for an invoice in euro');
		await page.getByRole('button', { name: /^Accept BRANCASTER/ }).click();
		await page.getByText('The payment is recorded.').waitFor();
		await page.goto(app.origin + invoice);
		await page.getByRole('heading', { name: 'Paid in full' }).waitFor();
		await page.getByText('£535.80 at your bank').waitFor();
		const { db } = openWorld(readConfig({ AXIOMETER_DATA: app.folder }), {
			clock: settableClock(londonMoment('2026-11-24T09:00'))
		});
		try {
			const difference = db.$client
				.prepare("select sum(sterling) from journal_lines where account = 'exchange'")
				.pluck()
				.get();
			// 529.41 × 0.85 is 450.00, and the VAT 90.00: it stood at 540.00.
			expect(difference).to.equal(540_00 - 535_80);
			expectSoundBooks(db);
		} finally {
			db.$client.close();
		}
		const pack = await owner.request.get(`${app.origin}/reports/pack?basis=invoice`);
		const sales = (await unzip(await pack.body())).get('sales.csv')!.toString();
		expect(sales).to.match(/,450\.00,90\.00,.*,540\.00,,EUR,635\.29,0\.85/);
	});

	it('one line begins an invoice; what was opened is offered again; the tab says how much waits', async () => {
		await page.goto(app.origin);
		await ready(page);
		await page.getByRole('button', { name: /Find or do anything/ }).click();
		await page
			.getByRole('option', { name: /Odile Brancaster/ })
			.first()
			.waitFor();
		await page
			.getByRole('combobox', { name: 'Find or do anything' })
			.fill('invoice odile 3 h repair 45');
		const offer = page.getByRole('option', {
			name: 'Invoice to Odile Brancaster: 3 hour Repair at 45 with VAT'
		});
		await offer.waitFor();
		await expectAccessible(page, 'the command box with a line');
		await page.keyboard.press('Enter');
		await page.waitForURL(/billing\/\d+$/);
		await ready(page);
		await page.getByText('£135.00').first().waitFor();
		await until(async () => /^\(\d+\) /.test(await page.title()), 20, 'the figure in the title');
	});

	it('a visit that was removed comes back with Ctrl Z', async () => {
		await page.goto(`${app.origin}/work/${other}`);
		await ready(page);
		const { db } = openWorld(readConfig({ AXIOMETER_DATA: app.folder }), {
			clock: settableClock(londonMoment('2026-11-24T09:00'))
		});
		const count = () => db.$client.prepare('select count(*) from visits').pluck().get() as number;
		try {
			db.$client
				.prepare(
					"insert into visits (job_id, date, \"from\", note) values (?, '2026-11-26', '10:00', '')"
				)
				.run(other);
			const before = count();
			await page.reload();
			await ready(page);
			await page.getByRole('button', { name: /^Remove the visit of 26 Nov/ }).click();
			await page.getByText('The visit is removed.').waitFor();
			expect(count()).to.equal(before - 1);
			await page.locator('h1').click();
			await page.keyboard.press('Control+z');
			await page.getByText('Taken back.').waitFor();
			expect(count()).to.equal(before);
		} finally {
			db.$client.close();
		}
	});

	it('a helper’s day on the phone: their visit, the clock, notes, material, finished; nothing of anybody else', async () => {
		const { context, page: phone } = await enter('onSite@site.example', PHONE);
		await phone.getByRole('heading', { name: 'Your visits' }).waitFor();
		await expectAccessible(phone, 'your visits');
		await phone.getByRole('link', { name: /Hall ceiling/ }).click();
		await ready(phone);
		await phone.getByRole('button', { name: 'Start the clock' }).click();
		await phone.getByRole('button', { name: 'Stop the clock' }).waitFor();
		await phone.getByLabel('Notes').fill('Key with the neighbour');
		await phone.getByLabel('This visit is done').check();
		await phone.getByRole('button', { name: 'Keep it' }).click();
		await phone.getByText('Kept.').first().waitFor();
		await phone.getByLabel('What was used').fill('Lime putty');
		await phone.getByLabel('How many').fill('3');
		await phone.getByLabel('Unit').fill('bag');
		await phone.getByRole('button', { name: 'Add the material' }).click();
		await phone.getByText('The material is kept.').waitFor();
		await expectAccessible(phone, 'a job on site');
		for (const path of [
			`/site/${other}`,
			`/work/${own}`,
			'/billing',
			'/billing/1',
			'/lists/jobs/csv',
			'/settings/keep/export',
			'/reports/pack',
			'/customers'
		])
			expect((await context.request.get(app.origin + path)).status(), path).to.equal(403);
		expect(await (await context.request.get(`${app.origin}/site/${own}`)).text()).to.not.include(
			'18.37'
		);
		await phone.getByRole('button', { name: 'The work here is finished' }).click();
		await phone.getByText('The clock is still running on this job. Stop it first.').waitFor();
		await phone.getByRole('button', { name: 'Stop the clock' }).click();
		await phone.getByRole('button', { name: 'Start the clock' }).waitFor();
		await phone.getByRole('button', { name: 'The work here is finished' }).click();
		await phone.waitForURL(`${app.origin}/site`);
		const db = connect(join(app.folder, 'axiometer.sqlite'));
		expect(
			db.$client
				.prepare(
					'select j.state, v.note, v.done, c.description, c.quantity from jobs j join visits v on v.job_id = j.id join job_costs c on c.job_id = j.id where j.id = ?'
				)
				.get(own)
		).to.deep.equal({
			state: 'finished',
			note: 'Key with the neighbour',
			done: 1,
			description: 'Lime putty',
			quantity: '3'
		});
		db.$client.close();
		await context.close();
	});

	it('a receipt is photographed, read, looked at, and kept with its photo @long', async () => {
		await page.goto(`${app.origin}/costs/new`);
		await ready(page);
		await page.setInputFiles('input[type=file]', 'tests/fixtures/receipts/01.jpg');
		await page.getByText(/^Read from the photo/).waitFor();
		expect(await page.getByLabel('In all, with VAT, £').inputValue()).to.match(/^[\d,]+\.\d\d$/);
		await page.getByLabel('What it was').fill('Lime and hair');
		await page.getByLabel('From', { exact: true }).fill('Harrowmere Builders Merchants');
		await page.getByRole('button', { name: 'Keep it', exact: true }).click();
		await page.waitForURL(/\/lists\/costs/);
		await page.getByRole('link', { name: /Lime and hair/ }).click();
		await page.getByRole('link', { name: /^Open .*jpg$/ }).waitFor();
		await expectAccessible(page, 'a cost read from its receipt');
	});
});
