// The customer's side: what a link shows, paying a part and then the rest, with scripts and without.
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import { eq } from 'drizzle-orm';
import type { Browser, Page } from 'playwright-core';
import { settableClock } from '../../src/lib/server/clock';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { readConfig } from '../../src/lib/server/config';
import { documents } from '../../src/lib/server/db/schema';
import { openWorld } from '../../src/lib/server/open';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { expectSoundBooks } from '../support/books';
import { runApp, type RunningApp } from '../support/app';
import { openBrowser } from '../support/browser';
import { BUSINESS, CONTRACTOR, HOUSEHOLD, issued, line } from '../support/world';
import { connect } from '../../src/lib/server/db/connection';

describe('the customer’s page', () => {
	let app: RunningApp;
	let browser: Browser;
	const links: string[] = [];

	before(async () => {
		app = await runApp(
			{},
			async (env) => {
				const world = openWorld(readConfig(env), {
					clock: settableClock(londonMoment('2026-10-01T09:00'))
				});
				saveBusiness(world, { ...BUSINESS, phone: '01632 960001' }, true);
				await setPassword(world, 'lime-and-plaster');
				for (const [who, price] of [
					[HOUSEHOLD, '1504'],
					[HOUSEHOLD, '300'],
					[CONTRACTOR, '1000']
				] as const) {
					const { id } = await issued(world, who, {
						rows: [line('one', 'Lime render', price)],
						pricesIncludeVat: who === HOUSEHOLD
					});
					const { token } = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
					links.push(`/p/${token}`);
				}
				world.db.$client.close();
			},
			['app', 'mail', 'card']
		);
		browser = await openBrowser();
	});
	after(async () => {
		await browser?.close();
		await app.kill('app');
		const db = connect(`${app.folder}/axiometer.sqlite`);
		expectSoundBooks(db);
		db.$client.close();
		await app?.end();
	});

	async function payOnCardPage(page: Page): Promise<void> {
		await page.getByLabel('Card number').fill('9000000000000001');
		await page.getByRole('button', { name: /^Pay/ }).click();
	}

	for (const scripts of [true, false])
		it(`pays a part by card and then the rest, ${scripts ? 'with' : 'without'} scripts`, async () => {
			const context = await browser.newContext({
				locale: 'en-GB',
				javaScriptEnabled: scripts,
				viewport: { width: 390, height: 844 }
			});
			const page = await context.newPage();
			const [link, whole, part, rest] = scripts
				? [links[0]!, '£1,504.00', '500', '£1,004.00']
				: [links[1]!, '£300.00', '100', '£200.00'];
			await page.goto(app.origin + link);
			await page
				.getByRole('heading', { name: `${whole} to pay it was due on 15 Oct 2026` })
				.waitFor();
			expect(await page.getByText('paid').count(), 'nothing is said to be paid').to.equal(0);
			await page.getByRole('link', { name: '01632 960001' }).waitFor();
			await page.getByRole('link', { name: 'Pay a part' }).click();
			await page.getByLabel('How much').fill(part);
			await page.getByRole('button', { name: 'Pay by card' }).click();
			await payOnCardPage(page);
			// The word comes, and what is left can be paid at once.
			await page.getByText(`£${part}.00 has just been received. Thank you.`).waitFor();
			await page.getByRole('heading', { name: new RegExp(`^${rest}`) }).waitFor();
			await page.getByText(`Of the ${whole} it came to:`).waitFor();
			await page.getByText(new RegExp(`£${part}.00 on .* by card, paid`)).waitFor();
			await page.getByRole('button', { name: 'Pay by card' }).click();
			await payOnCardPage(page);
			await page.getByRole('heading', { name: 'Paid. Thank you.' }).waitFor();
			expect(
				await page
					.getByRole('listitem')
					.filter({ hasText: /£.* on .* by card$/ })
					.count()
			).to.equal(2);
			await context.close();
		});

	it('says what a contractor deducts, and waits for a word only as long as one can come', async () => {
		const page = await (await browser.newContext({ locale: 'en-GB' })).newPage();
		await page.goto(app.origin + links[2]!);
		// 1,000 under the reverse charge, less 20 %.
		await page.getByRole('heading', { name: /^£800.00 to pay/ }).waitFor();
		await page.getByRole('button', { name: 'Pay by card' }).click();
		await page.getByLabel('Card number').waitFor();
		// Comes back without paying: nothing was done, so the way back to paying is there.
		await page.goto(`${app.origin}${links[2]!}?from=card`);
		await page.getByText('Waiting for the word of the card processor').waitFor();
		await page.getByRole('link', { name: /Go back to paying/ }).click();
		await page.getByRole('button', { name: 'Pay by card' }).waitFor();
		await page.context().close();
	});
});
