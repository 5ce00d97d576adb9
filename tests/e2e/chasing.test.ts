import { expect } from 'chai';
import { join } from 'node:path';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { connect } from '../../src/lib/server/db/connection';
import { settableClock } from '../../src/lib/server/clock';
import { readConfig } from '../../src/lib/server/config';
import { openWorld } from '../../src/lib/server/open';
import { expectSoundBooks } from '../support/books';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { saveRate } from '../../src/lib/server/services/owed/referenceRates';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { noteHandedOver } from '../../src/lib/server/services/invoices/send';
import { runApp, until, type RunningApp } from '../support/app';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { BUSINESS, HOUSEHOLD, issued, line } from '../support/world';

const FIRM = {
	...HOUSEHOLD,
	name: 'Corvane Dairy Ltd',
	kind: 'business' as const,
	email: 'ledger@corvane.example',
	phone: '07700 900145'
};

describe('chasing over two months, and paying from the bank @long', () => {
	let app: RunningApp;
	let browser: Browser;
	const errors: string[] = [];
	const made: Record<string, { id: number; token: string }> = {};

	/** Issued on 24 November, due on 8 December. */
	async function prepare(env: NodeJS.ProcessEnv): Promise<void> {
		const clock = settableClock(londonMoment('2026-11-24T09:00'));
		const world = openWorld(readConfig(env), { clock });
		await setPassword(world, 'lime-and-plaster');
		saveBusiness(world, BUSINESS, true);
		saveRate(world, '2026-07-01', '3.75');
		for (const [name, customer, price] of [
			['late', FIRM, '1000'],
			['bank', { ...FIRM, name: 'All Hallows', email: 'vestry@all-hallows.example' }, '50']
		] as const) {
			const { id } = await issued(world, customer, { rows: [line('a', 'Render', price)] });
			noteHandedOver(world, id, 'handedOver');
			const { token } = world.db.$client
				.prepare('select token from documents where id = ?')
				.get(id) as { token: string };
			made[name] = { id, token };
		}
		world.db.$client.close();
	}

	/** The machine is off, and starts again at another moment. */
	async function at(moment: string): Promise<void> {
		await app.kill('app');
		app.env.AXIOMETER_CLOCK = moment;
		await app.start('app');
	}
	async function signedIn(): Promise<Page> {
		const context = await browser.newContext({
			viewport: { width: 1280, height: 800 },
			locale: 'en-GB'
		});
		const page = await context.newPage();
		page.on('pageerror', (error) => errors.push(error.message));
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByLabel('Password').fill('lime-and-plaster');
		await page.getByRole('button', { name: 'Sign in' }).click();
		await page.waitForURL(`${app.origin}/`);
		return page;
	}
	const subjects = async () =>
		(await app.inbox())
			.filter((mail) => mail.recipients.includes(FIRM.email))
			.map((mail) => mail.subject);
	/** How many mails the dairy has, once there are so many. */
	const mailed = (count: number) =>
		until(async () => (await subjects()).length === count, 60, `mail ${count} to the dairy`);
	const textsSent = () => {
		const db = connect(join(app.folder, 'axiometer.sqlite'));
		const n = db.$client.prepare("select count(*) from texts where state = 'sent'").pluck().get();
		db.$client.close();
		return n as number;
	};
	const written = () => {
		const db = connect(join(app.folder, 'axiometer.sqlite'));
		const rows = db.$client
			.prepare("select channel from chase_messages where payer_id = 1 and state <> 'withdrawn'")
			.pluck()
			.all();
		db.$client.close();
		return rows as string[];
	};

	before(async () => {
		app = await runApp({}, prepare);
		browser = await openBrowser();
	});
	after(async () => {
		await browser?.close();
		if (app) {
			const db = connect(join(app.folder, 'axiometer.sqlite'));
			expectSoundBooks(db);
			db.$client.close();
		}
		await app?.end();
		expect(errors).to.deep.equal([]);
	});

	it('is off until it is turned on; the words of a plan are the owner’s', async () => {
		const page = await signedIn();
		await page.goto(`${app.origin}/owed/chasing`);
		await ready(page);
		await page.getByRole('heading', { level: 1, name: 'Chasing is off' }).waitFor();
		await page.getByRole('button', { name: 'Turn it on' }).click();
		await page.getByLabel('Days between two messages').fill('nothing');
		await page.getByRole('button', { name: 'Keep it' }).click();
		await page.getByText('Whole days, please.').waitFor();
		await page.getByLabel('Days between two messages').fill('2');
		await page.getByRole('button', { name: 'Keep it' }).click();
		await page.getByRole('heading', { level: 1, name: /Nobody is written to/ }).waitFor();
		await expectAccessible(page, 'chasing');
		await page.getByRole('link', { name: 'Plans' }).click();
		await page.getByRole('link', { name: 'Polite, then plain' }).click();
		await ready(page);
		await expectAccessible(page, 'a chase plan');
		const words = page.getByLabel('Words').first();
		await words.fill('Good morning {nobody}');
		await page.getByRole('button', { name: 'Save the plan' }).click();
		await page.getByText('{nobody} is no field').waitFor();
		await words.fill('Good morning\n\n{invoices}\n\n{owner}');
		await page.getByRole('button', { name: 'Save the plan' }).click();
		await page.waitForURL(/plans$/);
		await expectAccessible(page, 'the chase plans');
	});

	it('reminds in order, is held by a promise, and goes on when it has passed', async () => {
		await at('2026-12-07T09:30');
		await mailed(1);
		const [first] = await app.inbox();
		expect(first!.text).to.include('Good morning').and.include('INV-0007');
		await at('2026-12-11T09:30');
		await mailed(2);
		const page = await signedIn();
		await page.goto(`${app.origin}/owed`);
		await ready(page);
		await page.getByRole('link', { name: 'Corvane Dairy Ltd' }).first().click();
		await ready(page);
		await page.getByRole('button', { name: 'Promised' }).click();
		await page.getByLabel('They pay by').fill('2026-12-22');
		await page.getByRole('button', { name: 'Keep it', exact: true }).click();
		await page.getByText('promised by 22 Dec 2026').first().waitFor();
		await expectAccessible(page, 'a payer');

		await at('2026-12-18T10:00');
		const held = await signedIn();
		await held.goto(`${app.origin}/owed/chasing`);
		await held.getByText('promised by 22 Dec 2026').waitFor();
		expect(written()).to.deep.equal(['mail', 'mail']);

		await at('2026-12-23T09:30');
		await until(
			async () => (await app.texts()).some((text) => text.text.includes('INV-0007')),
			60,
			'the text'
		);
		// Another payer was written to on the 18th. The gateway has a text a moment before the books say so.
		await until(async () => textsSent() === 2, 60, 'the text in the books');
		await at('2026-12-29T09:30');
		await mailed(3);
		expect(await subjects()).to.deep.equal([
			'Due on 8 Dec 2026: £1,200.00',
			'Still open: £1,200.00',
			'£1,200.00 is 21 days late'
		]);
	});

	it('the customer opens the reminder; the owner sees that, and decides about the last letter', async () => {
		const firm = (await app.inbox()).find((mail) => mail.subject.includes('21 days late'))!;
		expect(firm.text).to.include('Late Payment of Commercial Debts');
		const link = /http:\S+\?r=\S+/.exec(firm.text)![0];
		const visitor = await (await browser.newContext({ locale: 'en-GB' })).newPage();
		await visitor.goto(link);
		await visitor.getByRole('heading', { level: 1, name: /£1,200.00/ }).waitFor();

		await at('2027-01-19T10:00');
		const page = await signedIn();
		await page.getByText('A last letter to Corvane Dairy Ltd?').first().waitFor();
		await page.goto(`${app.origin}/owed/chasing`);
		await ready(page);
		await page
			.getByText(/^opened 29 Dec 2026/)
			.first()
			.waitFor();
		await page.getByRole('link', { name: 'Read and decide the message to Corvane' }).click();
		await ready(page);
		await expectAccessible(page, 'a last letter');
		await page.getByRole('button', { name: 'Change the words' }).click();
		await page.getByLabel('Subject').fill('The last letter about {amount}');
		await page.getByText('The last letter about £1,200.00').waitFor();
		await page.getByRole('button', { name: 'Make the letter' }).click();
		await page.waitForURL(/chasing\?sent=/);
		const print = page.getByRole('link', { name: 'Print it' });
		const pdf = await page.request.get(app.origin + (await print.getAttribute('href'))!);
		expect((await pdf.body()).subarray(0, 4).toString()).to.equal('%PDF');
		await page.getByRole('button', { name: 'Posted' }).click();
		await page.getByText('posted', { exact: true }).waitFor();
	});

	it('late interest is claimed, the payment stops the chasing', async () => {
		const page = await signedIn();
		await page.goto(`${app.origin}/billing/${made.late!.id}`);
		await ready(page);
		// 42 days of 1,200.00 at 11.75 %, and 70.00.
		await page.getByRole('button', { name: 'Charge £86.22' }).click();
		await page.waitForURL((url) => !url.pathname.endsWith(`/${made.late!.id}`));
		await page.goto(`${app.origin}/billing/${made.late!.id}`);
		await ready(page);
		await page.getByRole('link', { name: 'Record a payment' }).click();
		await page.getByLabel(/Send a receipt/).check();
		await page.getByRole('button', { name: 'Record it' }).click();
		await page.getByRole('heading', { level: 1, name: 'Paid in full' }).waitFor();
		await until(async () => (await subjects()).includes('Receipt: £1,200.00 for invoice INV-0007'));
		await at('2027-02-08T10:00');
		const later = await signedIn();
		await later.goto(`${app.origin}/owed/chasing`);
		await ready(later);
		expect(written()).to.deep.equal(['mail', 'mail', 'text', 'mail', 'letter']);
	});

	it('a customer pays from their bank: it fails once, and then arrives', async () => {
		const visitor = await (await browser.newContext({ locale: 'en-GB' })).newPage();
		const invoice = `${app.origin}/p/${made.bank!.token}`;
		await visitor.goto(invoice);
		await ready(visitor);
		await visitor.getByRole('button', { name: 'Pay from your bank' }).click();
		await visitor.getByRole('button', { name: 'Approve: fails later' }).click();
		await visitor.getByText('Your bank did not carry the transfer out.').waitFor();
		await expectAccessible(visitor, 'a pay page after a failed transfer');
		await visitor.getByRole('button', { name: 'Pay from your bank' }).click();
		await visitor.getByRole('button', { name: 'Approve: arrives at once' }).click();
		await visitor.getByRole('heading', { level: 1, name: 'Paid. Thank you.' }).waitFor();
		const page = await signedIn();
		for (const [path, what] of [
			['/money/charts', 'the charts'],
			['/money/payouts', 'the payouts'],
			['/money/charts/billed?month=2026-11', 'what is behind a bar']
		] as const) {
			await page.goto(app.origin + path);
			await ready(page);
			await expectAccessible(page, what);
		}
	});
});
