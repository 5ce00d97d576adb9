// Chromium as a person would use it, and the check that every screen can be used by everyone.
import { existsSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import { expect } from 'chai';
import { SETUP_CODE } from './app';
import { chromium, type Browser, type Page } from 'playwright-core';

/** A busy machine may be many times slower than an idle one; a fault still ends a test. */
const PATIENCE_MS = 60_000;

/** Without the parts that draw windows it does the same in three quarters of the time; where it is not there, the whole browser does. */
const SHELL = '/usr/bin/chromium-headless-shell';

export async function openBrowser(): Promise<Browser> {
	const browser = await chromium.launch({
		executablePath: process.env.CHROMIUM ?? (existsSync(SHELL) ? SHELL : '/usr/bin/chromium'),
		args: [
			'--no-sandbox',
			'--disable-gpu',
			'--disable-quic',
			'--no-first-run',
			'--disable-background-networking',
			'--disable-component-update',
			'--disable-sync'
		]
	});
	const newContext = browser.newContext.bind(browser);
	browser.newContext = async (options) => {
		const context = await newContext(options);
		context.setDefaultTimeout(PATIENCE_MS);
		return context;
	};
	return browser;
}

/** In its small form: it is read anew by each page that is looked at. */
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/** No automatic accessibility finding on the screen as it stands, WCAG 2.2 AA and best practices. */
export async function expectAccessible(
	page: Page,
	what: string,
	/** What is the same everywhere, and was looked at before. */
	without: readonly string[] = []
): Promise<void> {
	await page.evaluate(AXE);
	const found = await page.evaluate(
		async ([values, parts]) => {
			const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(
				{ exclude: parts.map((part) => [part]) },
				{ runOnly: { type: 'tag', values }, resultTypes: ['violations'] }
			);
			return violations.map(
				(one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`
			);
		},
		[RULES, [...without]] as [string[], string[]]
	);
	expect(found, what).to.deep.equal([]);
}

/** Waits until the page answers to keys. */
export async function ready(page: Page): Promise<void> {
	await page.waitForSelector('body[data-ready]');
}

/** Waits until the sheet says that everything is saved. */
export async function saved(page: Page): Promise<void> {
	await page.waitForFunction(
		() => document.querySelector('[data-state]')?.getAttribute('data-state') === 'saved'
	);
}

/** Answers the first start; ends on Today, with nothing else known of the business. */
export async function begin(
	page: Page,
	origin: string,
	answers: { vat: boolean; cis: boolean }
): Promise<void> {
	await page.goto(`${origin}/welcome?code=${SETUP_CODE}`);
	await ready(page);
	await page.getByLabel('Your own name').fill('Tamsin Orrell');
	await page.getByLabel('Business address').fill('Kiln Cottage\nHarrowmere');
	await page.getByLabel('E-mail', { exact: true }).fill('tamsin@orrell-lime.example');
	await page.getByLabel('Password').fill('lime-and-plaster');
	for (const [question, answer] of [
		[/registered for VAT/, answers.vat],
		[/under CIS/, answers.cis]
	] as const)
		await page
			.getByRole('radiogroup', { name: question })
			.getByText(answer ? 'Yes' : 'No', { exact: true })
			.click();
	await page.getByRole('button', { name: 'Begin' }).click();
	await page.waitForURL(`${origin}/`);
}

/** Fills boxes of one part of the settings and saves it. */
export async function changeSettings(
	page: Page,
	origin: string,
	part: 'you' | 'tax' | 'bank' | 'invoices',
	boxes: Record<string, string>
): Promise<void> {
	await page.goto(`${origin}/settings?change=${part}`);
	await ready(page);
	for (const [label, text] of Object.entries(boxes)) await page.getByLabel(label).fill(text);
	await page.getByRole('button', { name: 'Save', exact: true }).click();
	await page.waitForURL(`${origin}/settings`);
}

/** A business of which everything is known, from the first start; ends on Today. */
export async function setUp(page: Page, origin: string): Promise<void> {
	await begin(page, origin, { vat: true, cis: true });
	await changeSettings(page, origin, 'you', { 'Trading name': 'Orrell Lime & Plaster' });
	await changeSettings(page, origin, 'tax', {
		'VAT number': 'GB 444 4444 54',
		UTR: '2234567890'
	});
	await changeSettings(page, origin, 'bank', {
		'Sort code': '000000',
		'Account number': '00012345'
	});
	await changeSettings(page, origin, 'invoices', { 'Next number': '231' });
	await page.goto(`${origin}/`);
	await ready(page);
}

/** Types a line by keyboard alone, from the description; ends in the description of the next line. */
export async function typeLine(
	page: Page,
	description: string,
	quantity: string,
	price: string
): Promise<void> {
	await page.keyboard.type(description);
	await page.keyboard.press('Enter');
	await page.keyboard.type(quantity);
	await page.keyboard.press('Enter');
	await page.keyboard.type(price);
	await page.keyboard.press('Enter');
}
