import { expect } from 'chai';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { connect, type Database } from '../../src/lib/server/db/connection';
import { settableClock } from '../../src/lib/server/clock';
import { readConfig } from '../../src/lib/server/config';
import { openWorld } from '../../src/lib/server/open';
import { expectSoundBooks } from '../support/books';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { runApp, until, type RunningApp } from '../support/app';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { BUSINESS, CONTRACTOR, HOUSEHOLD, issued, line } from '../support/world';

const PHONE = { width: 390, height: 844 };
const DESK = { width: 1280, height: 800 };
const FIRM = { ...HOUSEHOLD, kind: 'business' as const };

describe('getting the money in', () => {
	let app: RunningApp;
	let browser: Browser;
	const errors: string[] = [];
	const made: Record<string, { id: number; number: string; customerId: number }> = {};

	/** Invoices of September, late by November. */
	async function prepare(env: NodeJS.ProcessEnv): Promise<void> {
		const clock = settableClock(londonMoment('2026-09-10T09:00'));
		const world = openWorld(readConfig(env), { clock });
		await setPassword(world, 'lime-and-plaster');
		saveBusiness(world, BUSINESS, true);
		const rows = (price: string) => ({ rows: [line('a', 'Render', price)] });
		made.net = await issued(world, CONTRACTOR);
		made.dairy = await issued(world, { ...FIRM, name: 'Corvane Dairy Ltd' }, rows('1000'));
		const agent = await issued(world, { ...FIRM, name: 'Staithe Lettings Ltd' }, rows('100'));
		made.agent = agent;
		for (const [name, price] of [
			['agent2', '200'],
			['agent3', '300']
		] as const) {
			made[name] = await issued(
				world,
				{ ...FIRM, name: `${name} household`, billToId: agent.customerId },
				rows(price)
			);
		}
		made.slip = await issued(world, { ...FIRM, name: 'All Hallows' }, rows('77'));
		world.db.$client.close();
	}
	const look = <T>(work: (db: Database) => T): T => {
		const db = connect(join(app.folder, 'axiometer.sqlite'));
		try {
			return work(db);
		} finally {
			db.$client.close();
		}
	};
	const stateOf = (name: string) =>
		look(
			(db) =>
				db.$client
					.prepare('select state, outstanding from open_items where document_id = ?')
					.get(made[name]!.id) as { state: string; outstanding: number }
		);
	async function signedIn(viewport = DESK): Promise<Page> {
		const context = await browser.newContext({ viewport, locale: 'en-GB' });
		const page = await context.newPage();
		page.on('pageerror', (error) => errors.push(error.message));
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByLabel('Password').fill('lime-and-plaster');
		await page.getByRole('button', { name: 'Sign in' }).click();
		await page.waitForURL(`${app.origin}/`);
		return page;
	}

	before(async () => {
		app = await runApp({}, prepare, ['app', 'mail', 'card']);
		browser = await openBrowser();
	});
	after(async () => {
		await browser?.close();
		if (app) look((db) => expectSoundBooks(db));
		await app?.end();
		expect(errors).to.deep.equal([]);
	});

	it('on the phone: who owes how much for how long, a promise kept in mind, a call noted', async () => {
		const page = await signedIn(PHONE);
		await page.getByRole('link', { name: 'Owed' }).last().click();
		await page.getByRole('heading', { level: 1, name: /is owed to you/ }).waitFor();
		const names = await page.locator('section.rule li .who a').allInnerTexts();
		expect(names).to.have.length(4);
		await page.getByRole('link', { name: 'All Hallows' }).click();
		await ready(page);
		await page.getByRole('button', { name: 'Promised' }).click();
		await page.getByLabel('They pay by').fill('2026-11-30');
		await page.getByRole('button', { name: 'Keep it' }).click();
		await page.getByText('promised by 30 Nov 2026', { exact: true }).first().waitFor();
		await page.getByRole('button', { name: 'Save the note' }).click();
		await page.getByText('Say what was said.').waitFor();
		await page.getByLabel('What was said').fill('Pays at the end of the month');
		await page.getByRole('button', { name: 'Save the note' }).click();
		await page.getByText('Pays at the end of the month').first().waitFor();
		await page.goto(`${app.origin}/owed?hold=promise&as=table`);
		await ready(page);
		expect(await page.getByRole('row').count()).to.equal(2);
	});

	it('a late invoice: what the law lets claim, with its workings, charged by a document of its own', async () => {
		const page = await signedIn();
		await page.goto(`${app.origin}/billing/${made.dairy!.id}`);
		await ready(page);
		await page.getByRole('link', { name: 'Enter it' }).click();
		await page.getByLabel('Base rate, %').fill('3.75');
		await page.getByRole('button', { name: 'Save the rate' }).click();
		await page.getByText('from 1 Jul 2026: 3.75 %').waitFor();
		await page.goto(`${app.origin}/billing/${made.dairy!.id}`);
		await ready(page);
		await page.getByText('How this comes about').click();
		await page.getByText('11.75 % a year').waitFor();
		await page.getByRole('button', { name: /^Charge £/ }).click();
		await page.waitForURL((url) => !url.pathname.endsWith(`/${made.dairy!.id}`));
		await ready(page);
		// 1,200.00 × 61 days × 11.75 % / 365 = 23.56, and 70.00.
		await page.getByText('£93.56').first().waitFor();
		expect(stateOf('dairy').outstanding).to.equal(1200_00);
		await page.goto(`${app.origin}/billing/${made.dairy!.id}`);
		await page.getByText('of which £93.56 is charged already').waitFor();
	});

	it('statements to all with a balance in three clicks; one is opened and paid in part through its link', async () => {
		const page = await signedIn();
		await page.goto(`${app.origin}/owed`);
		await ready(page);
		await page.getByRole('link', { name: 'Statements' }).click();
		await page.getByRole('button', { name: 'Send all 4 by e-mail' }).waitFor();
		await page.getByRole('button', { name: 'Send all 4 by e-mail' }).click();
		await page.getByText('4 sent').waitFor();
		const mails = await until(async () => {
			const inbox = (await app.inbox()).filter((mail) => mail.subject.startsWith('Statement'));
			return inbox.length === 4 && inbox;
		});
		expect(mails.every((mail) => mail.attachments.length === 1)).to.equal(true);
		const mail = mails.find((one) => one.text.includes('£720.00'))!;
		const link = /http\S+\/s\/\S+/.exec(mail.text)![0];
		const customer = await (await browser.newContext({ viewport: PHONE })).newPage();
		await customer.goto(link);
		await ready(customer);
		await customer.getByRole('heading', { name: '£720.00 to pay' }).waitFor();
		await customer.getByLabel(new RegExp(made.agent!.number)).uncheck();
		await customer.getByLabel(new RegExp(made.agent2!.number)).uncheck();
		await customer.getByRole('button', { name: 'Pay £360.00 by card' }).click();
		await customer.getByLabel('Card number').fill('9000000000000001');
		await customer.getByRole('button', { name: /^Pay/ }).click();
		await customer.getByRole('heading', { name: '£360.00 to pay' }).waitFor();
		expect([stateOf('agent3').state, stateOf('agent').state]).to.deep.equal(['paid', 'open']);
		await page.reload();
		await page.getByText(/opened 24 Nov 2026/).waitFor();
	});

	it('the bank’s file is cleared: net of deduction, two at once, a number with a slip', async () => {
		const net = look(
			(db) =>
				db.$client
					.prepare('select total - deduction as net from open_items where document_id = ?')
					.get(made.net!.id) as { net: number }
		).net;
		const file = join(mkdtempSync(join(tmpdir(), 'axiometer-bank-')), 'bank.csv');
		writeFileSync(
			file,
			[
				'Date;Description;Paid in;Paid out',
				`20/11/2026;BEACON AND LATHE CONSTRUCTION;${(net / 100).toFixed(2).replace('.', ',')};`,
				'21/11/2026;STAITHE LETTINGS LTD;360,00;',
				`22/11/2026;ALL HALLOWS ${made.slip!.number}0;92,40;`,
				'22/11/2026;CASHBACK;3,10;',
				'23/11/2026;WATER;;42,10'
			].join('\n')
		);
		const page = await signedIn();
		await page.goto(`${app.origin}/money`);
		await ready(page);
		await page.setInputFiles('input[type=file]', file);
		await page.waitForURL(/look/);
		await ready(page);
		await expectAccessible(page, 'a look at a statement');
		await page.getByRole('button', { name: /^Bring .* in$/ }).click();
		await page.getByRole('button', { name: /^Accept all|^Accept it/ }).waitFor();
		await page.getByText('less the', { exact: false }).first().waitFor();
		await page
			.getByText('2 of their open invoices', { exact: false })
			.or(page.getByText('all 2 of their'))
			.first()
			.waitFor();
		await page.getByText('with a slip', { exact: false }).waitFor();
		await page.getByRole('button', { name: /^Accept all|^Accept it/ }).click();
		await page.getByText(/recorded, £/).waitFor();
		await page
			.getByRole('button', { name: /^Accept all|^Accept it/ })
			.waitFor({ state: 'detached' });
		for (let left = 0; left < 4; left++) {
			const accept = page.getByRole('button', { name: /^Accept/ });
			if ((await accept.count()) === 0) break;
			await accept.first().click();
			await page.waitForTimeout(700);
		}
		for (const name of ['net', 'agent', 'agent2', 'slip'])
			expect(stateOf(name).state, name).to.equal('paid');
		// Nothing fits the last line: who paid is found by a few letters, and words that were not chosen are nobody.
		const owed = stateOf('dairy').outstanding;
		await page.getByRole('button', { name: 'Choose who paid' }).click();
		const from = page.getByRole('combobox', { name: 'From' });
		await from.fill('nobody of this name');
		await page.getByText('No customer is called that.').waitFor();
		await page.getByRole('button', { name: 'For what is due first' }).click();
		await page.getByText('Choose who paid.').waitFor();
		expect(await from.inputValue()).to.equal('');
		await from.fill('airy');
		await page.getByRole('option', { name: /Corvane Dairy Ltd/ }).waitFor();
		await from.press('Enter');
		expect(await from.inputValue()).to.equal('Corvane Dairy Ltd');
		// Typed over, the one before is not meant any more.
		await from.fill('Corvane Dairy Ltd, no');
		await page.getByText('No customer is called that.').waitFor();
		await page.getByRole('button', { name: 'For what is due first' }).click();
		await page.getByText('Choose who paid.').waitFor();
		expect(stateOf('dairy').outstanding).to.equal(owed);
		await from.fill('airy');
		await page.getByRole('option', { name: /Corvane Dairy Ltd/ }).waitFor();
		await from.press('Enter');
		await page.getByRole('button', { name: 'For what is due first' }).click();
		await page.getByText('The payment is recorded.').last().waitFor();
		expect(owed - stateOf('dairy').outstanding).to.equal(310);
		await page.goto(`${app.origin}/money?state=accepted`);
		await ready(page);
		await page
			.getByRole('listitem')
			.filter({ hasText: 'CASHBACK' })
			.getByRole('button', { name: /^Undo/ })
			.click();
		await page.getByText('It is open again.').waitFor();
		await page.goto(`${app.origin}/money`);
		await ready(page);
		await page.getByRole('button', { name: /Not business/ }).click();
		await page.getByText('Every line from the bank is dealt with').waitFor();
		// The same file again brings nothing.
		await page.setInputFiles('input[type=file]', file);
		await page.getByText('Nothing new is in this file').waitFor();
	});

	it('a contractor’s deduction stands under its tax month, and its statement is entered', async () => {
		const page = await signedIn();
		await page.goto(`${app.origin}/tax`);
		await ready(page);
		await page.getByText('6 Nov to 5 Dec 2026').waitFor();
		await page.getByRole('button', { name: /^Enter it/ }).click();
		await page.getByLabel('Paid before the deduction').fill('2,300');
		await page.getByLabel('Deducted, £').fill('1');
		await page.getByRole('button', { name: 'Keep it' }).click();
		await page.getByText(/differs by £/).waitFor();
		await page.getByRole('button', { name: /^Take it back/ }).click();
		await page.getByText('not due yet').waitFor();
		await page.goto(`${app.origin}/owed/statements?style=activity&asOf=2026-09-01`);
		await ready(page);
		await page.getByText(/newer than 1 Sept? 2026/).waitFor();
	});
});
