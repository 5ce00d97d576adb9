import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import { settableClock } from '../../src/lib/server/clock';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { readConfig } from '../../src/lib/server/config';
import { openWorld } from '../../src/lib/server/open';
import { expectSoundBooks } from '../support/books';
import { chaseDayPage } from '../../src/lib/server/services/chasing/day';
import { missingStatements } from '../../src/lib/server/services/tax/deductions';
import type { World } from '../../src/lib/server/world';
import { runApp, type RunningApp } from '../support/app';
import { layOutDemo } from '../support/demo';
import { openBrowser, ready } from '../support/browser';

describe('the demo business', () => {
	let app: RunningApp;
	let browser: Browser;
	let page: Page;
	const errors: string[] = [];

	function look<T>(work: (world: World) => T): T {
		const clock = settableClock(londonMoment('2026-11-24T09:00'));
		const world = openWorld(readConfig({ AXIOMETER_DATA: app.folder }), { clock });
		try {
			return work(world);
		} finally {
			world.db.$client.close();
		}
	}
	const rows = <T>(sql: string) => look((world) => world.db.$client.prepare(sql).all() as T[]);

	before(async () => {
		app = await runApp({ AXIOMETER_DEMO: '1' }, layOutDemo, ['app', 'mail', 'text']);
		browser = await openBrowser();
		const context = await browser.newContext({
			viewport: { width: 1280, height: 800 },
			locale: 'en-GB'
		});
		page = await context.newPage();
		page.on('pageerror', (error) => errors.push(error.message));
		page.on('response', (response) => {
			if (response.status() >= 400) errors.push(`${response.status()} ${response.url()}`);
		});
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByRole('button', { name: /Sign in as/ }).click();
		await page.waitForURL(`${app.origin}/`);
	});
	after(async () => {
		await browser?.close();
		if (app) look((world) => expectSoundBooks(world.db));
		await app?.end();
		expect(errors).to.deep.equal([]);
	});

	it('has the story it is to tell, and books that agree', () => {
		look((world) => expectSoundBooks(world.db));
		const late = rows<{ days: number; payer: number }>(
			"select julianday('2026-11-24') - julianday(due_date) as days, payer_id as payer from open_items where state in ('open', 'partPaid')"
		);
		expect(late.map((one) => one.days)).to.include.members([9, 24, 47, 112]);
		const byPayer = late.filter((one) => one.days > 0).map((one) => one.payer);
		expect(byPayer.some((payer) => byPayer.filter((one) => one === payer).length >= 3)).to.equal(
			true
		);
		const { next, toDecide, held } = look((world) => chaseDayPage(world));
		expect(next.map((one) => one.day)).to.include('2026-11-25');
		expect(toDecide).to.have.length.above(0);
		expect(held.map((one) => one.because)).to.include('disputed');
		expect(look((world) => missingStatements(world))).to.have.length(1);
		expect(
			rows(
				`select 1 from payments p where p.amount > (select coalesce(sum(a.amount), 0) from allocations a where a.payment_id = p.id)
				union select 1 from open_items where overpaid > 0`
			)
		).to.have.length.above(0);
	});

	it('shows and changes nothing without its owner: every route is asked from outside', async () => {
		const open = /^\/(p|q|v|e|c|j|r|s|k|join|webhooks|health|sign-in|welcome)(\/|$)/;
		const places = (readdirSync('src/routes', { recursive: true }) as string[])
			.filter((path) => /\+(page\.svelte|server\.ts)$/.test(path))
			.map((path) => `/${path.replace(/\([a-z]+\)\/|\/?\+.*$/g, '').replace(/\[\w+\]/g, '1')}`);
		const sum = () =>
			rows(
				'select count(*) as n, max(id) as last from trail union all select count(*), max(id) from mails'
			);
		const before = sum();
		for (const place of new Set(places.filter((one) => !open.test(one) && one !== '/sign-out'))) {
			for (const method of place.includes('/api') ? ['GET', 'POST', 'PUT'] : ['GET', 'POST']) {
				const response = await fetch(app.origin + place, {
					method,
					redirect: 'manual',
					headers: {
						accept: 'text/html',
						origin: app.origin,
						'content-type': 'application/x-www-form-urlencoded'
					},
					...(method === 'GET' ? {} : { body: 'id=1' })
				});
				const to = response.headers.get('location') ?? '';
				expect(
					response.status === 401 || (response.status === 303 && to.startsWith('/sign-in?to=')),
					`${method} ${place} answered ${response.status} ${to}`
				).to.equal(true);
				expect(await response.text(), `${method} ${place}`).to.have.length.below(40);
			}
		}
		expect(sum()).to.deep.equal(before);
		// Whoever has a link sees what it is about, and is not asked to sign in.
		for (const [kind, sql] of [
			['p', "select token from documents where state = 'issued' and token is not null limit 1"],
			['r', 'select token from chase_messages where token is not null limit 1'],
			['s', 'select token from statements where token is not null limit 1']
		] as const)
			for (const { token } of rows<{ token: string }>(sql)) {
				const response = await fetch(`${app.origin}/${kind}/${token}`, { redirect: 'manual' });
				expect(response.status, kind).to.equal(200);
				expect(await response.text()).to.include('Orrell Lime');
			}
		// An address that is guessed is no address, whatever stands in it.
		for (const guess of ['/p/1', '/r/1', '/s/1', '/k/1', '/p/1/pdf', '/s/1/pdf', '/k/1/pack'])
			expect((await fetch(app.origin + guess)).status, guess).to.equal(404);
	});

	it('zoomed to twice its size hides nothing that has the cursor under its bars', async () => {
		const [draft] = rows<{ id: number }>("select id from documents where state = 'draft' limit 1");
		await page.setViewportSize({ width: 640, height: 400 });
		// What runs these tests gives every function its name by this; the page does not know it.
		await page.addInitScript('globalThis.__name ??= (one) => one');
		const hidden: string[] = [];
		for (const place of ['/', '/owed', `/billing/${draft!.id}`]) {
			await page.goto(app.origin + place);
			await ready(page);
			for (let n = 0; n < 40; n++) {
				await page.keyboard.press('Tab');
				const under = await page.evaluate(() => {
					const element = document.activeElement!;
					if (element === document.body) return '';
					const box = element.getBoundingClientRect();
					const at = document.elementFromPoint(
						Math.min(Math.max(box.left + Math.min(box.width, 40) / 2, 0), innerWidth - 1),
						box.top + Math.min(box.height / 2, 20)
					);
					const seen =
						at &&
						(element.contains(at) ||
							at.contains(element) ||
							at.closest('label')?.contains(element));
					return seen ? '' : (element.getAttribute('aria-label') ?? element.textContent ?? '?');
				});
				if (under) hidden.push(`${place}: ${under.trim()}`);
			}
		}
		await page.setViewportSize({ width: 1280, height: 800 });
		expect(hidden).to.deep.equal([]);
	});

	it('puts a table in order by its heads: up, down, and as it came', async () => {
		await page.goto(`${app.origin}/owed?as=table`);
		await ready(page);
		const amounts = async () =>
			(await page.locator('table tbody tr td:last-child').allInnerTexts()).map((text) =>
				Number(text.replaceAll(',', ''))
			);
		const came = await amounts();
		expect(came.length).to.be.above(10);
		const head = page.getByRole('columnheader', { name: 'To pay, £' });
		await head.getByRole('button').click();
		await page.locator('th[aria-sort="ascending"]').waitFor();
		const up = [...came].sort((a, b) => a - b);
		await page.waitForFunction(
			(first) =>
				document.querySelector('table tbody tr td:last-child')?.textContent?.trim() === first,
			up[0]!.toLocaleString('en-GB', { minimumFractionDigits: 2 })
		);
		expect(await amounts()).to.deep.equal(up);
		await head.getByRole('button').click();
		await page.locator('th[aria-sort="descending"]').waitFor();
		expect(await amounts()).to.deep.equal([...up].reverse());
		await head.getByRole('button').click();
		expect(await amounts()).to.deep.equal(came);
	});

	it('its bank file is cleared: by reference, net of deduction, several at once, known already, not at all', async () => {
		await page.goto(`${app.origin}/money`);
		await ready(page);
		await page.setInputFiles('input[type=file]', join(app.folder, 'bank-statement.csv'));
		await page.waitForURL(/look/);
		await ready(page);
		await page.getByRole('button', { name: /^Bring .* in$/ }).click();
		await page.getByRole('button', { name: /^Accept all/ }).waitFor();
		for (const reason of [
			'stands in it; Corvane Dairy Ltd stands in it; the exact amount',
			'they deduct',
			'2 of their open invoices come to it together',
			'is in the books already; its reference stands in it'
		])
			await page.getByText(reason).first().waitFor();
		await page.getByRole('button', { name: /^Accept all/ }).click();
		await page.getByText(/recorded, £/).waitFor();
		// The rest is looked through: what is likely is accepted, the others are no business.
		const left = () => rows("select 1 from bank_lines where state = 'open' and amount > 0").length;
		for (let before = left(); before > 0; before = left()) {
			const accept = page.getByRole('button', { name: /^(Accept|It is this one)/ });
			const next = (await accept.count())
				? accept.first()
				: page.getByRole('button', { name: /^Not business/ }).first();
			// A row that is just being dealt with may go away under the hand.
			await next.click({ timeout: 3_000 }).catch(() => undefined);
			for (let waited = 0; left() === before && waited < 100; waited++)
				await page.waitForTimeout(50);
		}
		await page.getByText('Every line from the bank is dealt with').waitFor();
		const states = rows<{ state: string; tied: number; n: number }>(
			'select state, tied, count(*) as n from bank_lines where amount > 0 group by 1, 2'
		);
		const count = (state: string, tied: number) =>
			states.find((one) => one.state === state && one.tied === tied)?.n ?? 0;
		expect(count('accepted', 0)).to.be.at.least(5);
		expect(count('accepted', 1)).to.be.at.least(1);
		expect(count('notBusiness', 0)).to.equal(2);
	});
});
