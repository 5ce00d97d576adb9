// Every page there is, found by its file: it can be used by everyone in both lights, and fits every width.
import { readdirSync } from 'node:fs';
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, Page } from 'playwright-core';
import Sqlite from 'better-sqlite3';
import { runApp, until, type RunningApp } from '../support/app';
import { layOutDemo } from '../support/demo';
import { oddNames } from '../support/names';
import { expectAccessible, openBrowser, ready } from '../support/browser';

/** What stands for the parameters of an address: the statement that finds one in the demo's books. */
const EXAMPLES: Record<string, string[]> = {
	'/settings/moving/[kind]': ["select 'invoices'", "select 'repeats'"],
	'/billing/[id]': [
		"select document_id from open_items where state = 'partPaid' limit 1",
		"select document_id from open_items where state = 'paid' limit 1",
		"select id from documents where state = 'draft' limit 1",
		"select id from documents where kind = 'creditNote' limit 1"
	],
	'/billing/[id]/preview': ["select id from documents where state = 'draft' limit 1"],
	'/billing/[id]/several': ["select id from documents where state = 'draft' limit 1"],
	'/billing/start/[id]': ['select id from starting_points limit 1'],
	'/billing/repeats/[id]': ['select id from repeats limit 1'],
	'/customers/[id]': ["select id from customers where kind = 'contractor' limit 1"],
	'/customers/[id]/data': [
		"select id from customers where kind = 'household' and id not in (select customer_id from open_items where outstanding <> 0) limit 1"
	],
	'/costs/[id]': ['select id from purchases where removed_at is null limit 1'],
	'/lists/[list]': [
		"select 'jobs'",
		"select 'messages'",
		"select 'quotes'",
		"select 'enquiries'",
		"select 'visits?view=coming'",
		"select 'sheets'",
		"select 'payments?view=card'"
	],
	'/many/[id]': ["select max(id) || '?do=remind' from many_runs"],
	'/money/charts/[of]': ["select 'billed?month=2026-10'"],
	'/money/look/[id]': ["select id from bank_imports where state = 'asking'"],
	'/owed/[id]': ["select payer_id from open_items where state = 'partPaid' limit 1"],
	'/owed/chasing/[payer]': ["select payer_id from open_items where state = 'partPaid' limit 1"],
	'/owed/chasing/claim/[payer]': [
		"select payer_id from open_items where state = 'partPaid' limit 1"
	],
	'/owed/chasing/plans/[id]': ['select id from chase_plans limit 1'],
	'/owed/statements/[run]': ['select id from statement_runs limit 1'],
	'/settings/letterheads/[id]': ['select id from letterheads where standard limit 1'],
	'/settings/wordings/[kind]': ["select 'invoice'", "select 'text'"],
	'/site/[job]': ['select job_id from visits where person_id = 1 limit 1'],
	'/work/[id]': [
		"select id from jobs where state = 'underWay' limit 1",
		'select job_id from stages limit 1'
	],
	'/work/[id]/edit': ["select id from jobs where state = 'underWay' limit 1"],
	'/work/[id]/stage': ['select job_id from stages limit 1'],
	'/work/quotes/[id]': [
		"select id || '?write' from quotes where state = 'sent' limit 1",
		"select id from quotes where state = 'sent' and sent > 0 order by id desc limit 1",
		"select id from quotes where state = 'accepted' limit 1",
		"select id from quotes where state = 'declined' limit 1"
	],
	'/work/quotes/[id]/preview': ['select id from quotes limit 1'],
	'/work/quotes/[id]/sign': [
		"select id from quotes where state = 'sent' and valid_until > '2026-11-24' limit 1"
	],
	'/work/sheets/[id]': [
		"select id from job_sheets where state = 'draft' limit 1",
		'select sheet_id from signatures where sheet_id is not null limit 1',
		"select id from job_sheets where state = 'finished' and id not in (select sheet_id from signatures where sheet_id is not null) limit 1"
	],
	'/work/sheets/[id]/sign': [
		"select id from job_sheets where state = 'finished' and id not in (select sheet_id from signatures where sheet_id is not null) limit 1"
	],
	'/billing/[id]/sign': ["select document_id from open_items where state = 'partPaid' limit 1"],
	'/j/[token]': [
		'select token from job_sheets join signatures on sheet_id = job_sheets.id limit 1',
		"select token from job_sheets where state = 'finished' and id not in (select sheet_id from signatures where sheet_id is not null) limit 1"
	],
	'/work/enquiries/[id]': ['select id from enquiries limit 1'],
	'/q/[token]': [
		"select token from quotes where state = 'sent' order by id desc limit 1",
		"select token from quotes where state = 'accepted' limit 1"
	],
	'/v/[token]': ['select token from told limit 1'],
	'/e/[token]': ['select token from enquiry_page limit 1'],
	'/work/prices/[id]': ['select id from price_items limit 1'],
	'/work/runs/[id]': ['select id from bill_runs limit 1'],
	'/p/[token]': [
		"select token from documents join open_items on document_id = id where open_items.state = 'partPaid' limit 1",
		"select token from documents join open_items on document_id = id where open_items.state = 'paid' limit 1"
	],
	'/r/[token]': [
		'select token from chase_messages order by json_array_length(items) desc, id desc limit 1'
	],
	'/s/[token]': ['select token from statements where token is not null limit 1']
};
/** Shown only to who is not signed in, or whose books come from a backup; the journeys look at them. */
const ELSEWHERE = [
	'/welcome',
	'/welcome/restore',
	'/sign-in',
	'/join/[token]',
	// Its link is in a mail alone.
	'/k/[token]',
	'/settings/keep/restored',
	// Its action alone is used.
	'/api/bring-back'
];
/** Pages that look otherwise by their address. */
const ALSO = [
	'/owed?as=table',
	'/money?state=accepted',
	'/billing?q=nothing+like+it',
	'/billing?view=late&f=total.least.20000&c=number&c=late&c=label',
	'/work/diary?view=month',
	'/nowhere'
];

/** Widths at which something changes. */
const FEW = [320, 768, 1024];
const STRIP = ['header'];

describe('every page', () => {
	let app: RunningApp;
	let browser: Browser;
	let places: string[];

	before(async () => {
		app = await runApp({ AXIOMETER_DEMO: '1' }, layOutDemo, ['app', 'mail', 'text']);
		browser = await openBrowser();
		const page = await signedIn('light', 1280);
		// A file whose columns must be asked for, and statements that have been sent.
		await page.goto(`${app.origin}/money`);
		await ready(page);
		await page
			.locator('input[type=file]')
			.first()
			.setInputFiles({
				name: 'odd.csv',
				mimeType: 'text/csv',
				buffer: Buffer.from('aa,bb,cc\n12/11/2026,something,12.00\n13/11/2026,else,13.00\n')
			});
		await page.waitForURL(/money\/look\/\d+/);
		await page.goto(`${app.origin}/owed/statements`);
		await ready(page);
		await page.getByRole('button', { name: /^Send/ }).first().click();
		await page.waitForURL(/statements\/\d+/);
		// Rows that are chosen, and looked through before anything is done with them.
		await page.goto(`${app.origin}/billing`);
		await ready(page);
		await page.getByRole('checkbox', { name: 'All rows of this page' }).check();
		await page.getByRole('button', { name: 'Remind', exact: true }).click();
		await page.waitForURL(/many\/\d+/);
		await page.context().close();

		const db = new Sqlite(`${app.folder}/axiometer.sqlite`, { readonly: true });
		const sent = db.prepare('select 1 from statements where token is not null');
		await until(async () => sent.get(), 60, 'the first statement');
		const routes = (readdirSync('src/routes', { recursive: true }) as string[])
			.filter((path) => path.endsWith('+page.svelte'))
			.map((path) => `/${path.replace(/\([a-z]+\)\/|\/?\+page\.svelte$/g, '')}`)
			.filter((route) => !ELSEWHERE.includes(route))
			.sort();
		places = [
			...routes.flatMap((route) =>
				route.includes('[')
					? (EXAMPLES[route] ?? []).map((sql) =>
							route.replace(/\[\w+\]/, String(db.prepare(sql).pluck().get()))
						)
					: [route]
			),
			...ALSO
		];
		db.close();
		const missing = routes.filter((route) => route.includes('[') && !EXAMPLES[route]);
		expect(missing, 'pages without an example').to.deep.equal([]);
		expect(places.filter((place) => place.includes('undefined'))).to.deep.equal([]);
	});
	after(async () => {
		await browser?.close();
		await app?.end();
	});

	async function signedIn(colorScheme: 'light' | 'dark', width: number): Promise<Page> {
		const context = await browser.newContext({
			viewport: { width, height: 844 },
			colorScheme,
			locale: 'en-GB'
		});
		const page = await context.newPage();
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByRole('button', { name: /Sign in as/ }).click();
		await page.waitForURL(`${app.origin}/`);
		return page;
	}

	/** From the smallest phone to the desk nothing scrolls sideways, and each page has one heading of its own. */
	async function overflows(
		page: Page,
		place: string,
		widths: readonly number[]
	): Promise<string[]> {
		const over: string[] = [];
		const heads = await page.locator('h1').count();
		if (place !== '/nowhere' && heads !== 1) over.push(`${place} has ${heads} main headings`);
		// Those that are drawn when they come near somewhere are few: they are looked for once, where the most are.
		await page.setViewportSize({ width: Math.min(...widths), height: 844 });
		const late = await page.evaluateHandle(() =>
			[...document.querySelectorAll<HTMLElement>('body *')].filter(
				(one) => getComputedStyle(one).contentVisibility === 'auto'
			)
		);
		for (const width of widths) {
			await page.setViewportSize({ width, height: 844 });
			const { by, who } = await late.evaluate((late) => {
				const root = document.documentElement;
				// What is drawn when it comes near must not stick out before it is drawn either.
				const later = late.filter((one) => getComputedStyle(one).contentVisibility === 'auto');
				const measure = () => root.scrollWidth - root.clientWidth;
				let by = measure();
				for (const one of later) {
					// Nor before its size is known.
					one.style.containIntrinsicSize = getComputedStyle(one).containIntrinsicSize.replaceAll(
						'auto ',
						''
					);
					one.style.contentVisibility = 'hidden';
				}
				if (later.length) by = Math.max(by, measure());
				const far = by
					? [...document.querySelectorAll('body *')].filter(
							(one) => one.getBoundingClientRect().right > root.clientWidth + 1
						)
					: [];
				for (const one of later)
					for (const set of ['content-visibility', 'contain-intrinsic-size'])
						one.style.removeProperty(set);
				return {
					by,
					who: far.map((one) => `<${one.tagName.toLowerCase()} ${one.textContent!.slice(0, 40)}>`)
				};
			});
			if (by) over.push(`${place} at ${width} by ${by}: ${who.join(' ').slice(0, 600)}`);
		}
		await late.dispose();
		return over;
	}

	async function look(
		colorScheme: 'light' | 'dark',
		width: number,
		which: (index: number) => boolean = () => true,
		widths: readonly number[] = [320, 390, 768, 1024, 1280]
	): Promise<void> {
		const page = await signedIn(colorScheme, width);
		const found: string[] = [];
		const chosen = places.filter((_, index) => which(index));
		for (const [nth, place] of chosen.entries()) {
			await page.goto(app.origin + place);
			await ready(page);
			// The strip is the same on every page: it is looked at on the first two, and in the long run everywhere.
			const strip = nth > 1 && widths === FEW ? STRIP : [];
			// In the short run every third page is looked at by rules, and all of them by measure.
			if (widths !== FEW || nth % 3 === 0)
				await expectAccessible(page, `${place}, ${colorScheme}, ${width}`, strip).catch((problem) =>
					found.push(`${problem.message.slice(0, 1500)} ${JSON.stringify(problem.actual)}`)
				);
			for (const odd of await oddNames(page)) found.push(`${place}, ${width}: ${odd}`);
			found.push(...(await overflows(page, place, widths)));
			await page.setViewportSize({ width, height: 844 });
		}
		await page.context().close();
		expect(found).to.deep.equal([]);
	}

	// Each page in one of two looks, at the widths at which something changes; the long run has every page in all four, at all.
	it('is accessible and fits every width: one half in the light on a laptop', () =>
		look('light', 1280, (index) => index % 2 === 0, FEW));
	it('is accessible and fits every width: the other half in the dark on a phone', () =>
		look('dark', 390, (index) => index % 2 === 1, FEW));
	for (const light of ['light', 'dark'] as const)
		for (const width of [1280, 390])
			it(`is accessible, every page ${light} at ${width} @long`, () => look(light, width));
});
