// The day the laptop is stolen: a backup is made and carried away, links are renewed, and on an empty machine the books come back and go on.
import { expect } from 'chai';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import { expectSoundBooks } from '../support/books';
import { runApp, until, SETUP_CODE } from '../support/app';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { connect } from '../../src/lib/server/db/connection';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { settableClock } from '../../src/lib/server/clock';
import { readConfig } from '../../src/lib/server/config';
import { openWorld } from '../../src/lib/server/open';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { BUSINESS, HOUSEHOLD, issued } from '../support/world';

const PASSWORD = 'lime-and-plaster';
const PASSPHRASE = 'seven lime kilns by the weir';

describe('keeping', () => {
	let browser: Browser;
	let page: Page;
	const stick = mkdtempSync(join(tmpdir(), 'axiometer-stick-'));
	before(async () => {
		browser = await openBrowser();
		page = await (await browser.newContext({ locale: 'en-GB' })).newPage();
	});
	after(async () => {
		await browser?.close();
		rmSync(stick, { recursive: true, force: true });
	});

	it('backs up to a stick, sealed, and the books come back on an empty machine from their first page @long', async () => {
		let id = 0;
		const links: string[] = [];
		const first = await runApp(
			{},
			async (env) => {
				const clock = settableClock(londonMoment('2026-11-20T09:00'));
				const world = openWorld(readConfig(env), { clock });
				saveBusiness(world, BUSINESS, true);
				await setPassword(world, PASSWORD);
				({ id } = await issued(world, HOUSEHOLD));
				world.db.$client.close();
			},
			['app']
		);
		try {
			await page.goto(`${first.origin}/sign-in?to=/billing/${id}`);
			await page.getByLabel('Password').fill(PASSWORD);
			await page.getByRole('button', { name: 'Sign in', exact: true }).click();
			await page.waitForURL((url) => url.pathname.startsWith('/billing'));
			await page.goto(`${first.origin}/billing/${id}?send`);
			const shown = () => page.locator('p.link').innerText();
			const before = await shown();
			await ready(page);
			await page.getByRole('button', { name: 'Renew the link' }).click();
			links.push(await until(async () => ((await shown()) === before ? null : await shown())));
			expect((await page.request.get(before)).status()).to.equal(404);
			expect((await page.request.get(links[0]!)).status()).to.equal(200);

			await page.goto(`${first.origin}/settings/keep`);
			await ready(page);
			await page.getByLabel('Folder of the second place').fill(stick);
			await page.getByText('Seal them with a passphrase').click();
			await page.getByLabel('Passphrase', { exact: true }).fill(PASSPHRASE);
			await page.getByLabel('The same again').fill('something else');
			await page.getByRole('button', { name: 'Save', exact: true }).click();
			await page.getByText('The two are not the same.').waitFor();
			await page.getByLabel('The same again').fill(PASSPHRASE);
			await page.getByRole('button', { name: 'Save', exact: true }).click();
			await page.getByText('Saved. It holds from the next backup on.').waitFor();
			await page.getByRole('button', { name: 'Back up now' }).click();
			await page.getByText('The backup is made, and was looked through.').waitFor();
			await page.getByText('and lies in the second place too').waitFor();
			await expectAccessible(page, 'the page of backups');
			const zip = await page.request.get(`${first.origin}/settings/keep/export`);
			expect((await zip.body()).subarray(0, 2).toString()).to.equal('PK');
		} finally {
			await first.end();
		}

		const second = await runApp({}, undefined, ['app', 'card', 'bank']);
		try {
			const [backup] = readdirSync(stick).filter((one) => one.endsWith('.sealed'));
			await page.goto(`${second.origin}/welcome?code=${SETUP_CODE}`);
			await page.getByRole('link', { name: 'Restore a backup' }).click();
			await ready(page);
			await page.getByLabel('The backup’s file').fill(join(stick, backup!));
			await page.getByLabel('Its passphrase, if it is sealed').fill('a wrong guess of it');
			await page.getByRole('button', { name: 'Look what is in it' }).click();
			await page.getByText('The passphrase does not fit').waitFor();
			await page.getByLabel('Its passphrase, if it is sealed').fill(PASSPHRASE);
			await page.getByRole('button', { name: 'Look what is in it' }).click();
			await page.getByText('1 issued document').waitFor();
			await expectAccessible(page, 'the first page’s restore');
			await page.getByLabel('Its passphrase once more').fill(PASSPHRASE);
			await page.getByRole('button', { name: 'Go on with these books' }).click();
			await page.waitForURL(/\/sign-in/);
			// Nobody is signed in on the books that came back; the password is theirs.
			await page.getByLabel('Password').fill(PASSWORD);
			await page.getByRole('button', { name: 'Sign in', exact: true }).click();
			await page.getByRole('heading', { name: 'These books come from a backup' }).waitFor();
			await ready(page);
			await page.getByRole('button', { name: 'Ask them' }).click();
			await page.getByText('There was nothing new.').waitFor();
			await expectAccessible(page, 'the page after a restore');
			await page.getByLabel('The next invoice').fill('1');
			await page.getByRole('button', { name: 'Go on from here' }).click();
			await page.getByText('lower numbers have been taken').waitFor();
			await page.getByLabel('The next invoice').fill('12');
			await page.getByRole('button', { name: 'Go on from here' }).click();
			await page.waitForURL(`${second.origin}/`);
			expect(await page.getByText('These books come from a backup').count()).to.equal(0);
			// The link the customer has goes on.
			expect(
				(await page.request.get(links[0]!.replace(first.origin, second.origin))).status()
			).to.equal(200);
			await second.kill('app');
			const db = connect(`${second.folder}/axiometer.sqlite`);
			expectSoundBooks(db);
			expect(
				db.$client.prepare("select next from number_series where kind = 'invoice'").pluck().get()
			).to.equal(12);
			db.$client.close();
		} finally {
			await second.end();
		}
	});
});
