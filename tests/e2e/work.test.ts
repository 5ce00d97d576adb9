// Work in the real interface. Over 300 lines: one business goes through all of it, each part on what the last one left.
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import { blankLine, blankSheet } from '../../src/lib/core/sheet/blank';
import { connect, type Database } from '../../src/lib/server/db/connection';
import { readConfig } from '../../src/lib/server/config';
import { openWorld } from '../../src/lib/server/open';
import { expectSoundBooks } from '../support/books';
import { billRun, startBillRun } from '../../src/lib/server/services/billing/billRun';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { addCustomer, customerDetail } from '../../src/lib/server/services/customers/customers';
import { beginInvoice, saveDraft } from '../../src/lib/server/services/invoices/drafts';
import { saveVisit } from '../../src/lib/server/services/jobs/visits';
import { addJob } from '../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../src/lib/server/services/jobs/states';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { addRepeat } from '../../src/lib/server/services/repeats/repeats';
import { savePriceItem } from '../../src/lib/server/services/prices/prices';
import type { World } from '../../src/lib/server/world';
import { runApp, until, type RunningApp } from '../support/app';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { BUSINESS, CONTRACTOR, HOUSEHOLD } from '../support/world';

const PHONE = { width: 390, height: 844 };
const DESK = { width: 1280, height: 800 };

describe('from finished work to bills', () => {
	let app: RunningApp;
	let browser: Browser;
	const errors: string[] = [];
	const ids = { household: 0, visit: 0, contractor: 0, contract: 0, agent: 0 };

	/** The business as it stands before the day: customers, a price list, finished jobs. */
	async function prepare(world: World): Promise<void> {
		await setPassword(world, 'lime-and-plaster');
		saveBusiness(world, BUSINESS, true);
		savePriceItem(world, null, 1, {
			name: 'Hydraulic lime, 25 kg',
			kind: 'materials',
			unit: 'bag',
			unitPrice: '16.80',
			cost: '12.90'
		});
		ids.household = addCustomer(world, HOUSEHOLD);
		ids.visit = addJob(world, 'visit', {
			title: 'Parlour wall',
			customerId: ids.household,
			fixedPrice: false,
			hourlyRate: '45',
			hourlyCost: '18'
		});
		saveVisit(world, ids.visit, null, { date: '2026-11-24', from: '09:00' });
		ids.contractor = addCustomer(world, CONTRACTOR);
		ids.contract = addJob(world, 'contract', {
			title: 'Mill Yard',
			customerId: ids.contractor,
			contract: 'construction',
			retention: '5',
			retentionDue: '2027-11-24',
			lines: [
				{ description: 'Lime plaster', quantity: '1', unitPrice: '9511.00' },
				{
					kind: 'materials',
					description: 'Lime, sand, hair',
					quantity: '1',
					unitPrice: '2834.67',
					cost: '2104.20'
				}
			]
		});
		ids.agent = addCustomer(world, {
			name: 'Staithe Lettings Ltd',
			kind: 'business',
			address: 'Quay House\nHarrowmere',
			email: 'bills@staithe.example',
			sites: Array.from({ length: 9 }, (_, n) => ({ name: `Flat ${n + 1}` }))
		});
		const { sites } = customerDetail(world, ids.agent);
		for (let n = 0; n < 25; n++) {
			const job = addJob(world, `flat-${n}`, {
				title: `Repair ${n + 1}`,
				customerId: ids.agent,
				siteId: sites[n % 9]!.id,
				lines: [{ description: 'Plaster repair', quantity: '2', unit: 'hour', unitPrice: '45' }]
			});
			moveJob(world, job, 'finished', `2026-11-${String(11 + (n % 13)).padStart(2, '0')}`);
		}
	}

	before(async () => {
		app = await runApp(
			{ AXIOMETER_DEMO: '1' },
			async (env) => {
				const world = openWorld(readConfig(env));
				await prepare(world);
				world.db.$client.close();
			},
			['app', 'mail', 'card']
		);
		browser = await openBrowser();
	});
	after(async () => {
		await browser?.close();
		if (!app) return;
		await app.kill('app');
		look((db) => expectSoundBooks(db));
		await app.end();
		expect(errors).to.deep.equal([]);
	});

	function look<T>(read: (db: Database) => T): T {
		const db = connect(`${app.folder}/axiometer.sqlite`);
		try {
			return read(db);
		} finally {
			db.$client.close();
		}
	}
	const all = (query: string, ...values: unknown[]) =>
		look((db) => db.$client.prepare(query).all(...values) as Record<string, unknown>[]);

	async function signedIn(viewport = DESK): Promise<Page> {
		const context = await browser.newContext({ viewport, locale: 'en-GB' });
		const page = await context.newPage();
		page.on('pageerror', (error) => errors.push(error.message));
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByRole('button', { name: /Sign in as/ }).click();
		await page.waitForURL(`${app.origin}/`);
		return page;
	}

	it('on the phone: time and materials of a visit, finished, invoiced, paid by card on the spot', async () => {
		const page = await signedIn(PHONE);
		await page.goto(`${app.origin}/work`);
		await ready(page);
		await page.getByRole('link', { name: /09:00/ }).click();
		await page.getByRole('button', { name: 'Start' }).click();
		await page.getByText('since 09:').waitFor();
		// Closing the page stops nothing.
		await page.goto('about:blank');
		await page.goto(`${app.origin}/work/${ids.visit}`);
		await ready(page);
		await page.getByRole('button', { name: 'Stop' }).click();
		await page.getByText('the clock is not running').waitFor();
		await page.getByRole('button', { name: 'Time', exact: true }).click();
		await page.getByLabel('Hours').fill('2:30');
		await page.getByLabel('What for').fill('Backing coat');
		await page.getByRole('button', { name: 'Add the time' }).click();
		await page.getByText('112.50', { exact: true }).waitFor();
		await page.getByRole('button', { name: 'Materials', exact: true }).click();
		await page.getByRole('combobox', { name: 'From the price list' }).fill('hydralic');
		await page.getByRole('option', { name: /Hydraulic lime/ }).click();
		await page.getByLabel('Quantity').fill('4');
		await page.getByRole('button', { name: 'Add the cost' }).click();
		// 16.80 without VAT on the list, 20.16 with it, as a household's prices are.
		await page.getByText('80.64', { exact: true }).waitFor();
		await page.getByRole('button', { name: 'Finished: bill £193.14' }).click();
		await page.waitForURL(/billing\/\d+$/);
		await ready(page);
		await page.getByRole('button', { name: 'Issue…' }).last().click();
		await page.getByRole('button', { name: 'Issue, send later' }).click();
		await page.getByRole('heading', { name: 'Its figures' }).waitFor();
		const [row] = all("select total from documents where state = 'issued' order by id desc");
		expect(row!.total).to.equal(193_14);
		const [pay] = await Promise.all([
			page.waitForEvent('popup'),
			page
				.getByRole('button', { name: 'More' })
				.click()
				.then(() => page.getByRole('menuitem', { name: 'Take a card' }).click())
		]);
		await pay.getByRole('button', { name: 'Pay by card' }).click();
		await pay.getByLabel('Card number').fill('9000000000000001');
		await pay.getByRole('button', { name: /^Pay/ }).click();
		await pay.getByText('Paid. Thank you.').waitFor();
		expect(all('select state from jobs where id = ?', ids.visit)[0]!.state).to.equal('billed');
	});

	it('25 jobs for nine flats become one invoice with a line for each, sent, in at most six clicks', async () => {
		const page = await signedIn();
		await page.goto(`${app.origin}/work/bill`);
		await ready(page);
		let clicks = 2;
		await page
			.getByLabel('Customer', { exact: true })
			.selectOption({ label: 'Staithe Lettings Ltd' });
		await page.getByText('25 jobs for 1 customer').waitFor();
		await page.getByRole('button', { name: 'Review the invoices' }).click();
		clicks++;
		await page.getByText('1 invoice, £2,700.00 in all').waitFor();
		await page.getByRole('button', { name: 'Issue and send' }).click();
		clicks++;
		await page.getByText('nothing was left out').waitFor();
		await expectAccessible(page, 'a bill run');
		expect(clicks).to.be.at.most(6);
		const lines = all(
			'select l.description, l.job_id from document_lines l join documents d on d.id = l.document_id where d.customer_id = ?',
			ids.agent
		);
		expect(lines).to.have.length(25);
		expect(lines[0]!.description).to.match(/^J-\d+: Repair \d+ · Flat \d · finished \d+ Nov 2026$/);
		const mail = await until(async () =>
			(await app.inbox()).find((one) => one.recipients.includes('bills@staithe.example'))
		);
		expect(mail.subject).to.match(/£2,700\.00/);
		await page.goto(`${app.origin}/work/bill`);
		expect(await page.getByText('Staithe Lettings Ltd').count()).to.equal(0);
	});

	it('a contract of 12,345.67: deposit, 45 % to date, the rest, retention, CIS and reverse charge', async () => {
		const page = await signedIn();
		const stage = async (way: string, percent: string, amount: string) => {
			await page.goto(`${app.origin}/work/${ids.contract}/stage`);
			await ready(page);
			await page.getByLabel(way).check();
			if (percent) await page.getByLabel('Percent', { exact: true }).fill(percent);
			await page.getByText(amount).first().waitFor();
			await expectAccessible(page, 'a stage');
			await page.getByRole('button', { name: 'Write the invoice' }).click();
			await page.waitForURL(/billing\/\d+$/);
			await ready(page);
			await page.getByRole('button', { name: 'Issue…' }).first().click();
			await page.getByRole('button', { name: 'Issue and send' }).click();
			await page.getByRole('heading', { name: 'Its figures' }).waitFor();
		};
		await stage('A part of the whole, in percent', '10', '£1,234.57');
		await stage('Done to date, in percent', '45', '£4,320.98');
		await page.goto(`${app.origin}/work/${ids.contract}/stage`);
		await ready(page);
		await page.getByLabel('Done to date, in percent').check();
		await page.getByLabel('Percent', { exact: true }).fill('40');
		await page.getByText('credit an invoice').waitFor();
		await stage('All that is left', '', '£6,790.12');
		await page.goto(`${app.origin}/work/${ids.contract}`);
		await ready(page);
		await page.getByText('£617.29').first().waitFor();
		await page.getByRole('button', { name: 'Release the retention' }).click();
		await page.waitForURL(/billing\/\d+$/);
		await ready(page);
		await page.getByRole('button', { name: 'Issue…' }).first().click();
		await page.getByRole('button', { name: 'Issue and send' }).click();
		await page.getByRole('heading', { name: 'Its figures' }).waitFor();
		const bills = all(
			"select net, vat_charged, deduction from documents where customer_id = ? and state = 'issued'",
			ids.contractor
		);
		expect(bills.reduce((sum, bill) => sum + Number(bill.net), 0)).to.equal(12_345_67);
		expect(bills.every((bill) => bill.vat_charged === 0 && Number(bill.deduction) > 0)).to.equal(
			true
		);
		await page.goto(`${app.origin}/work/${ids.contract}`);
		await page.getByRole('heading', { name: /Margin: £10,241\.47/ }).waitFor();
	});

	it('one job: begun in one press, changed on the sheet’s own grid, put on a new invoice, paid in three clicks', async () => {
		const page = await signedIn();
		await page.goto(`${app.origin}/work/new?customer=${ids.household}`);
		await ready(page);
		await page.getByLabel('What is to be done').fill('Hall ceiling');
		await page.getByLabel('Day of the visit').fill('25/11');
		await page.getByLabel('The price, with VAT, £').fill('480');
		await page.getByRole('button', { name: 'Begin the job' }).click();
		await page.getByRole('heading', { name: 'Hall ceiling' }).waitFor();
		await page.getByText('Booked', { exact: true }).first().waitFor();
		const job = page.url();
		await page.goto(`${job}/edit`);
		await ready(page);
		// By keys alone: another line below, which is an extra; a price that is none is said in its cell.
		await page.getByLabel('Price, line 1').press('Enter');
		await page.keyboard.type('Coving');
		await page.keyboard.press('Enter');
		await page.keyboard.press('Enter');
		await page.keyboard.type('sixty');
		await page.getByLabel('Extra, line 2').check();
		await page
			.getByLabel('Cost, line 2')
			.or(page.getByLabel('What it cost you, line 2'))
			.fill('7.50');
		await page.getByRole('button', { name: 'Save the job' }).click();
		await page.waitForFunction(
			() => document.activeElement?.getAttribute('aria-label') === 'Price, line 2'
		);
		await page.keyboard.press('Control+a');
		await page.keyboard.type('60');
		await page.getByTestId('payable').getByText('£540.00').waitFor();
		// The workings of an amount open below it, and send nothing.
		await page.getByTestId('payable').click();
		await page.getByRole('button', { name: 'Total', exact: true }).click();
		await page.getByRole('heading', { name: 'Total: 540.00' }).waitFor();
		await page.getByRole('button', { name: 'Save the job' }).click();
		await page.waitForURL(job);
		expect(
			all(
				'select description, unit_price, cost, extra from job_lines where job_id = ? order by position',
				Number(job.split('/').at(-1))
			)
		).to.deep.equal([
			{ description: 'Hall ceiling', unit_price: '480.00', cost: '', extra: 0 },
			{ description: 'Coving', unit_price: '60.00', cost: '7.50', extra: 1 }
		]);
		await page.getByRole('button', { name: 'Finished: bill later' }).click();
		await page.getByRole('button', { name: /^Bill £540\.00/ }).waitFor();

		// A new invoice to this customer offers what is done.
		await page.goto(`${app.origin}/customers/${ids.household}`);
		await ready(page);
		await page.getByRole('button', { name: 'Write an invoice' }).click();
		await page.waitForURL(/billing\/\d+$/);
		await ready(page);
		await page.getByRole('button', { name: /Put it on here ?: J-\d+ Hall ceiling/ }).click();
		await page.getByTestId('payable').getByText('£540.00').waitFor();
		await page.getByRole('button', { name: 'Issue…' }).first().click();
		await page.getByRole('button', { name: 'Issue and send' }).click();
		await page.getByRole('heading', { name: 'Its figures' }).waitFor();

		// Recorded, and its job done with: from the invoice, two clicks.
		await page.getByRole('link', { name: 'Record a payment' }).click();
		await page.getByRole('button', { name: 'Record it' }).click();
		await page.getByText('Paid in full').first().waitFor();
		await page.goto(job);
		await page
			.getByText(/^Paid /)
			.first()
			.waitFor();
	});

	it('a monthly repeat charged to a kept card: one charge fails, and 40 days of downtime @long', async () => {
		const page = await signedIn();
		const draft = await page.context().request.post(`${app.origin}/billing/new`, {
			form: { key: 'care', customer: String(ids.household) },
			headers: { origin: app.origin },
			maxRedirects: 0
		});
		const first = Number(/billing\/(\d+)/.exec(draft.headers()['location']!)![1]);
		await page.goto(`${app.origin}/billing/${first}`);
		await ready(page);
		await page.getByLabel('Description, line 1').fill('Care plan for {month}');
		await page.getByLabel('Price, line 1').fill('25');
		await page.getByRole('button', { name: 'Issue…' }).first().click();
		await page.getByRole('button', { name: 'Issue and send' }).click();
		await page.getByRole('heading', { name: 'Its figures' }).waitFor();
		const [{ token }] = all('select token from documents where id = ?', first) as [
			{ token: string }
		];
		const customer = await (await browser.newContext()).newPage();
		await customer.goto(`${app.origin}/p/${token}`);
		await ready(customer);
		await customer.getByLabel(/Keep the card/).check();
		await customer.getByRole('button', { name: 'Pay by card' }).click();
		await customer.getByLabel('Card number').fill('9000000000000005');
		await customer.getByRole('button', { name: /^Pay/ }).click();
		await customer.getByText('Paid. Thank you.').waitFor();
		// Which card is kept is told to who reads the customer's mail, and to nobody else.
		expect(await customer.content()).to.not.include('0005');
		await customer.getByRole('button', { name: 'A card you let be kept' }).click();
		await customer.getByRole('button', { name: 'Mail me a code' }).click();
		const code = await until(
			async () =>
				(await app.inbox())
					.map(({ subject }) => /^(\d{6}) is your code/.exec(subject)?.[1])
					.find(Boolean) ?? null
		);
		await customer.getByLabel('The code').fill(code === '000000' ? '111111' : '000000');
		await customer.getByRole('button', { name: 'Show the card' }).click();
		await customer.getByText('That is not the code').waitFor();
		await customer.getByLabel('The code').fill(code);
		await customer.getByRole('button', { name: 'Show the card' }).click();
		await customer.getByText('A card ending 0005 is kept').waitFor();
		await expectAccessible(customer, 'a kept card');
		await page.goto(`${app.origin}/billing/repeats/new?from=${first}`);
		await ready(page);
		await page.getByLabel('Name, for you').fill('Care plan');
		await page.getByLabel('First on').fill('2026-12-01');
		await page.getByLabel(/charged to the customer’s kept card/).check();
		await expectAccessible(page, 'a new repeat');
		await page.getByRole('button', { name: 'Begin the repeat' }).click();
		await page.waitForURL(/repeats\/\d+$/);
		await expectAccessible(page, 'a repeat');
		const repeat = page.url();

		const on = async (day: string) => {
			await app.kill('app');
			app.env.AXIOMETER_CLOCK = `${day}T09:00`;
			await app.start('app');
		};
		const states = () =>
			all('select date, state, attempts from repeat_occurrences order by date').map((one) =>
				Object.values(one).join(' ')
			);
		const become = (expected: string[]) =>
			until(
				async () => JSON.stringify(states()) === JSON.stringify(expected),
				60,
				`${expected.join(', ')}; there is ${states().join(', ')}`
			);
		await on('2026-12-01');
		await become(['2026-12-01 paid 1']);
		// The second charge of this card is declined, and tried again three days later.
		await on('2027-01-01');
		await become(['2026-12-01 paid 1', '2027-01-01 charging 1']);
		await until(
			async () =>
				all("select 1 from repeat_occurrences where next_attempt_on = '2027-01-04'").length === 1
		);
		await on('2027-01-04');
		await become(['2026-12-01 paid 1', '2027-01-01 paid 2']);
		// Off for weeks: two are due, and nothing goes out before the owner says so.
		await on('2027-03-02');
		const later = await signedIn();
		await later.getByText('several invoices were due').first().waitFor();
		await later.goto(repeat);
		await ready(later);
		await later.getByRole('button', { name: 'Make and send all 2' }).click();
		await become([
			'2026-12-01 paid 1',
			'2027-01-01 paid 2',
			'2027-02-01 charging 1',
			'2027-03-01 paid 1'
		]);
		const issued = all(
			"select sheet from documents where state = 'issued' and key like 'repeat:%' order by issue_date"
		).map((row) => /Care plan for [^"]+/.exec(String(row.sheet))![0]);
		expect(issued).to.deep.equal(
			['December 2026', 'January 2027', 'February 2027', 'March 2027'].map(
				(month) => `Care plan for ${month}`
			)
		);
		await on('2026-11-24');
	});

	it('killed again and again in the middle of a run of 200: each job once, numbers without gaps @long', async () => {
		await app.kill('app');
		const env = { ...app.env, AXIOMETER_CLOCK: '2027-03-02T12:00' };
		const world = openWorld(readConfig(env));
		const before = Number(
			all("select count(*) as n from documents where state = 'issued' and kind = 'invoice'")[0]!.n
		);
		for (let n = 0; n < 200; n++) {
			const job = addJob(world, `many-${n}`, {
				title: `Many ${n}`,
				customerId: ids.agent,
				lines: [{ description: 'Repair', quantity: '1', unitPrice: '10' }]
			});
			moveJob(world, job, 'finished', '2027-03-01');
		}
		// A year of weeks lies in the past, for the clockwork to make up for.
		const weekly = beginInvoice(world, 'weekly', ids.agent);
		saveDraft(world, weekly, 1, {
			...blankSheet(),
			customerId: ids.agent,
			rows: [{ ...blankLine('a'), description: 'Weekly round', quantity: '1', unitPrice: '25' }]
		});
		addRepeat(world, 'weekly', weekly, {
			name: 'Weekly round',
			start: '2026-03-03',
			unit: 'week',
			every: 1
		});
		const run = startBillRun(world, 'many', 'issue', { customerId: ids.agent, split: 'job' });
		world.db.$client.close();
		app.env.AXIOMETER_CLOCK = '2027-03-02T12:00';
		for (const wait of [1200, 2500, 1800]) {
			await app.start('app');
			await new Promise((resolve) => setTimeout(resolve, wait));
			await app.kill('app');
			look((db) => expectSoundBooks(db));
		}
		await app.start('app');
		await until(
			async () => look((db) => billRun({ db } as World, run).state === 'done'),
			120,
			'the end of the run'
		);
		const after = Number(
			all("select count(*) as n from documents where state = 'issued' and kind = 'invoice'")[0]!.n
		);
		expect(after - before).to.equal(200);
		const twice = all(
			'select job_id from document_lines where job_id is not null group by job_id, description having count(distinct document_id) > 1 and count(*) > 4'
		);
		expect(twice).to.deep.equal([]);
		const weeks = () =>
			all(
				"select count(*) as made, count(distinct date) as dates, count(distinct document_id) as documents from repeat_occurrences where repeat_id = (select id from repeats where name = 'Weekly round')"
			)[0];
		// So many are not made unasked: the owner says yes, and is killed in the middle of it.
		const [repeat] = all("select id, state from repeats where name = 'Weekly round'");
		expect(repeat!.state).to.equal('asking');
		const page = await signedIn();
		for (let tries = 0; Number(weeks()!.made) < 53 && tries < 5; tries++) {
			await page.goto(`${app.origin}/billing/repeats/${Number(repeat!.id)}`);
			await ready(page);
			await page.getByRole('button', { name: /^Make all/ }).click();
			if (tries === 0) {
				await until(async () => Number(weeks()!.made) > 3, 30, 'the first weeks');
				await app.kill('app');
				await app.start('app');
				await until(
					async () =>
						all("select state from repeats where name = 'Weekly round'")[0]!.state === 'asking' ||
						Number(weeks()!.made) >= 53,
					60,
					'the question'
				);
			} else await until(async () => Number(weeks()!.made) >= 53, 60, 'a year of weeks');
		}
		await page.context().close();
		expect(weeks()).to.deep.equal({ made: 53, dates: 53, documents: 53 });
	});
});
