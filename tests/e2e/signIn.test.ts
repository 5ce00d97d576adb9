// Signing in with a passkey, with Chromium's own authenticator: added with the password, used without it, removed; and the way
// back in from the console, for whoever has lost it all.
import { execFileSync } from 'node:child_process';
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { runApp, type RunningApp } from '../support/app';
import { expectAccessible, openBrowser, ready } from '../support/browser';
import { layOut, PASSWORD } from '../support/owner';

describe('signing in', () => {
	let app: RunningApp;
	let browser: Browser;
	let context: BrowserContext;
	let page: Page;

	before(async () => {
		app = await runApp({ AXIOMETER_TEST_NAME: 'localhost' }, layOut, ['app']);
		browser = await openBrowser();
		context = await browser.newContext({
			viewport: { width: 390, height: 844 },
			locale: 'en-GB'
		});
		page = await context.newPage();
		const device = await context.newCDPSession(page);
		await device.send('WebAuthn.enable');
		await device.send('WebAuthn.addVirtualAuthenticator', {
			options: {
				protocol: 'ctap2',
				transport: 'internal',
				hasResidentKey: true,
				hasUserVerification: true,
				isUserVerified: true,
				automaticPresenceSimulation: true
			}
		});
	});
	after(async () => {
		await browser?.close();
		await app?.end();
	});

	async function withPassword(password: string): Promise<void> {
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByLabel('Password').fill(password);
		await page.getByRole('button', { name: 'Sign in', exact: true }).click();
		await page.waitForURL(`${app.origin}/`);
	}
	const out = () => context.clearCookies();

	it('a passkey takes the password to be added, and signs in without it', async () => {
		await withPassword(PASSWORD);
		await page.goto(`${app.origin}/you`);
		await ready(page);
		const own = page.locator('section', { has: page.getByRole('heading', { name: 'Passkeys' }) });
		await own.getByLabel('Name of the device').fill('My phone');
		await own.getByLabel('Your password').fill('not that one');
		await own.getByRole('button', { name: 'Add a passkey' }).click();
		await own.getByText('That is not the password.').waitFor();
		await own.getByLabel('Your password').fill(PASSWORD);
		await own.getByRole('button', { name: 'Add a passkey' }).click();
		await own.getByText('My phone').first().waitFor();
		await expectAccessible(page, 'passkeys');
		await out();
		await page.goto(`${app.origin}/sign-in?to=${encodeURIComponent('/settings')}`);
		await ready(page);
		await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
		await page.waitForURL(`${app.origin}/settings`);
		await page.goto(app.origin);
		await page.getByText('A second factor was changed').waitFor();
	});

	it('one that was removed opens nothing any more, nor does an answer sent twice', async () => {
		const posted: string[] = [];
		page.on('request', (request) => {
			const body = request.url().endsWith('/sign-in/passkey') ? request.postData() : null;
			if (body?.includes('"answer"')) posted.push(body);
		});
		await out();
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
		await page.waitForURL(`${app.origin}/`);
		const again = await fetch(`${app.origin}/sign-in/passkey`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: posted[0]!
		});
		expect([again.status, again.headers.get('set-cookie')]).to.deep.equal([410, null]);
		await page.goto(`${app.origin}/you`);
		await ready(page);
		await page.getByRole('button', { name: /^Remove ?: My phone/ }).click();
		await page.getByText('That passkey signs nobody in any more.').waitFor();
		await page.getByText('added on').waitFor({ state: 'detached' });
		await out();
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		expect(await page.getByRole('button', { name: 'Sign in with a passkey' }).count()).to.equal(0);
		await withPassword(PASSWORD);
	});

	it('from the console another password is set, while the app rests; everybody is signed out @long', async () => {
		const recover = (...what: string[]) =>
			execFileSync('npx', ['--no-install', 'tsx', 'scripts/recover.ts', ...what], {
				env: { ...app.env, AXIOMETER_NEW_PASSWORD: 'quicklime-and-horsehair' },
				encoding: 'utf8',
				stdio: ['ignore', 'pipe', 'pipe']
			});
		expect(() => recover('password')).to.throw();
		await app.kill('app');
		expect(recover()).to.contain('owner');
		expect(recover('factor')).to.contain('signs in with the password alone');
		expect(recover('password')).to.contain('signs in with the new password');
		expect(() => recover('password', 'Nobody')).to.throw('“Nobody”');
		await app.start('app');
		await page.goto(`${app.origin}/you`);
		expect(new URL(page.url()).pathname).to.equal('/sign-in');
		await withPassword('quicklime-and-horsehair');
		await page.getByText('Your password was changed').waitFor();
	});
});
