// Corrections in the real interface: a wrong invoice to a contractor put right in one step, half an invoice credited and
// given back by card, and the process killed in the middle of each press.
// Over 300 lines: everything is prepared once, and killed in the middle.
import { expect } from 'chai';
import { after, before, describe, it } from 'mocha';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { connect, type Database } from '../../src/lib/server/db/connection';
import { readConfig } from '../../src/lib/server/config';
import { settableClock } from '../../src/lib/server/clock';
import { londonMoment } from '../../src/lib/core/calendar/conversion';
import { openWorld } from '../../src/lib/server/open';
import { releaseRetention } from '../../src/lib/server/services/billing/retentions';
import { billStage } from '../../src/lib/server/services/billing/stages';
import { saveBusiness } from '../../src/lib/server/services/business/settings';
import { setPassword } from '../../src/lib/server/services/business/signIn';
import { correctAsDraft } from '../../src/lib/server/services/invoices/corrections';
import { loadDraft, saveDraft } from '../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../src/lib/server/services/invoices/issue';
import { addJob } from '../../src/lib/server/services/jobs/jobs';
import { acceptSure } from '../../src/lib/server/services/money/bank/accept';
import { bringIn } from '../support/bank';
import { matchLines } from '../../src/lib/server/services/money/bank/matching';
import type { World } from '../../src/lib/server/world';
import { expectSoundBooks } from '../support/books';
import { runApp, until, type RunningApp } from '../support/app';
import { expectAccessible, openBrowser, ready, saved } from '../support/browser';
import { payByHand } from '../support/money';
import { BUSINESS, CONTRACTOR, HOUSEHOLD, issued, line } from '../support/world';

const WRONG = { ...CONTRACTOR, name: 'Thrupp Brothers', email: 'office@thrupp.example' };

/** How often the process is killed, with presses of its own each time. */
const KILLED = 2;

describe('corrections', () => {
	let app: RunningApp;
	let browser: Browser;
	let desk: BrowserContext;
	let page: Page;
	const errors: string[] = [];
	const made: Record<string, number> = {};
	/** A press for each thing that can be killed in the middle, as forms are posted. */
	const presses: { path: string; form: Record<string, string> }[] = [];

	async function prepare(env: NodeJS.ProcessEnv): Promise<void> {
		const clock = settableClock(londonMoment('2026-11-10T09:00'));
		const world = openWorld(readConfig(env), { clock });
		await setPassword(world, 'lime-and-plaster');
		saveBusiness(world, BUSINESS, true);
		const rows = (price: string) => ({
			rows: [line('a', 'Render', price, { quantity: '10', unit: 'hour' })]
		});
		const wrong = await issued(world, WRONG, rows('100'));
		made.wrong = wrong.id;
		const csv = `Date,Description,Amount\n20/11/2026,${wrong.number} Thrupp,800.00`;
		clock.set(londonMoment('2026-11-20T09:00'));
		bringIn(world, 'bank.csv', new TextEncoder().encode(csv));
		await matchLines(world);
		await acceptSure(world);
		made.half = (
			await issued(
				world,
				{ ...HOUSEHOLD, name: 'Sorrel Quint', email: 'sorrel@post.example' },
				rows('50')
			)
		).id;
		await prepareToKill(world);
		world.db.$client.close();
	}

	async function prepareToKill(world: World): Promise<void> {
		const rows = { rows: [line('a', 'Render', '100', { quantity: '10' })] };
		for (let n = 0; n < KILLED; n++) {
			const paid = await issued(world, { ...CONTRACTOR, name: `Paid ${n}` }, rows);
			payByHand(world, paid.id, '800.00', { date: '2026-11-20' });
			const key = `kill-${n}`;
			const credit = {
				key,
				reason: 'Less was done',
				way: 'lines',
				'take.0': 'on',
				'quantity.0': '4',
				again: 'on'
			};
			presses.push({ path: `/billing/${paid.id}?/credit`, form: credit });
			const all = await issued(world, { ...HOUSEHOLD, name: `All ${n}` }, rows);
			presses.push({
				path: `/billing/${all.id}?/credit`,
				form: { ...credit, key: `${key}-all`, way: 'all' }
			});
			const job = addJob(world, key, {
				title: key,
				customerId: paid.customerId,
				contract: 'construction',
				retention: '5',
				lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '1000' }]
			});
			const stage = billStage(world, job, `s-${n}`, {
				kind: 'stage',
				by: 'rest',
				percent: '',
				amount: '',
				done: {}
			});
			await issueInvoice(world, stage, loadDraft(world.db, stage).version);
			const release = releaseRetention(world, job, `r-${n}`);
			made[`release${n}`] = release;
			presses.push({
				path: `/billing/${stage}?/credit`,
				form: { ...credit, key: `${key}-stage`, way: 'all' }
			});
			const replaced = await issued(world, { ...CONTRACTOR, name: `Replaced ${n}` }, rows);
			payByHand(world, replaced.id, '800.00', { date: '2026-11-20' });
			const draft = correctAsDraft(world, replaced.id, `c-${n}`);
			const { sheet, version } = loadDraft(world.db, draft);
			saveDraft(world, draft, version, { ...sheet, about: { ...sheet.about!, reason: 'A slip' } });
			made[`replacement${n}`] = draft;
			const given = await issued(world, { ...CONTRACTOR, name: `Given ${n}` }, rows);
			const payment = payByHand(world, given.id, '900.00', { date: '2026-11-20' });
			const money = { date: '2026-11-20', amount: '100.00', way: 'bank', reference: '' };
			presses.push({ path: `/billing/${given.id}?/giveBack`, form: { key, ...money } });
			const undone = await issued(world, { ...CONTRACTOR, name: `Undone ${n}` }, rows);
			const wrongOne = payByHand(world, undone.id, '800.00', { date: '2026-11-20' });
			expect(wrongOne).to.be.above(payment);
			presses.push({
				path: `/billing/${undone.id}?/undo`,
				form: { payment: String(wrongOne), reason: 'Not ours' }
			});
		}
	}

	const look = <T>(work: (db: Database) => T): T => {
		const db = connect(`${app.folder}/axiometer.sqlite`);
		try {
			return work(db);
		} finally {
			db.$client.close();
		}
	};
	const row = (id: number) =>
		look(
			(db) =>
				db.$client
					.prepare(
						'select state, cash, withheld, credited, outstanding, in_hand as inHand from open_items where document_id = ?'
					)
					.get(id) as Record<string, number | string>
		);
	/** Every click is counted. */
	let clicks = 0;
	const click = async (
		name: string | RegExp,
		role: 'button' | 'checkbox' | 'link' | 'menuitem' = 'button'
	) => {
		clicks++;
		await page.getByRole(role, { name }).first().click();
	};
	const open = async (id: number) => {
		await page.goto(`${app.origin}/billing/${id}`);
		await ready(page);
	};

	before(async () => {
		app = await runApp({}, prepare);
		browser = await openBrowser();
		desk = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
		page = await desk.newPage();
		page.on('pageerror', (error) => errors.push(error.message));
		await page.goto(`${app.origin}/sign-in`);
		await ready(page);
		await page.getByLabel('Password').fill('lime-and-plaster');
		await page.getByRole('button', { name: 'Sign in' }).click();
		await page.waitForURL(`${app.origin}/`);
	});
	after(async () => {
		await browser?.close();
		if (app) look((db) => expectSoundBooks(db));
		await app?.end();
		expect(errors).to.deep.equal([]);
	});

	it('a wrong invoice to a contractor, paid, is put right in one step', async () => {
		await open(made.wrong!);
		clicks = 0;
		await click('More');
		await click('Correct it', 'menuitem');
		await page.waitForURL((url) => !url.pathname.endsWith(`/${made.wrong}`));
		await ready(page);
		await page.getByLabel('Quantity').first().fill('9');
		await page.getByLabel('Why', { exact: true }).fill('Nine hours, not ten');
		await page.getByRole('row', { name: /^Total £1,000\.00 £900\.00/ }).waitFor();
		await expectAccessible(page, 'a correction');
		await saved(page);
		await click('Issue…');
		await click('Issue and send');
		await page.getByRole('heading', { name: 'Paid in full, £180.00 of it withheld' }).waitFor();
		expect(clicks).to.equal(4);
		const right = Number(new URL(page.url()).pathname.split('/').at(-1));
		expect(row(made.wrong!)).to.include({
			state: 'credited',
			cash: 80_00,
			withheld: 20_00,
			inHand: 80_00
		});
		expect(row(right)).to.include({ state: 'paid', cash: 720_00, withheld: 180_00 });
		// The tax page: all of it still belongs to the day on which they paid.
		await page.goto(`${app.origin}/tax`);
		await page.getByRole('row', { name: /Thrupp Brothers.*200\.00/ }).waitFor();
		// What they have too much stands on their page, the bank line is still the payment it was.
		const payer = look((db) =>
			db.$client.prepare('select payer_id from open_items where document_id = ?').pluck().get(right)
		);
		await page.goto(`${app.origin}/owed/${payer}`);
		await page.getByText('£80.00 in hand').waitFor();
		await page.goto(`${app.origin}/money?state=accepted`);
		await page.getByText('Thrupp').first().waitFor();
		const mail = await until(
			async () =>
				(await app.inbox()).find(
					(one) => one.recipients.includes('office@thrupp.example') && one.attachments.length === 2
				),
			60,
			'the message with both papers'
		);
		expect(mail.text).to.include('Nine hours, not ten');
	});

	it('half an invoice is credited in four clicks, and given back by card', async () => {
		const token = look(
			(db) =>
				db.$client
					.prepare('select token from documents where id = ?')
					.pluck()
					.get(made.half) as string
		);
		const customer = await (await browser.newContext({ locale: 'en-GB' })).newPage();
		await customer.goto(`${app.origin}/p/${token}`);
		await customer.getByRole('button', { name: 'Pay by card' }).click();
		await customer.getByLabel('Card number').fill('9000000000000001');
		await customer.getByRole('button', { name: /^Pay/ }).click();
		await customer.getByRole('heading', { name: 'Paid. Thank you.' }).waitFor();
		await until(async () => row(made.half!).state === 'paid', 60, 'the payment');
		await open(made.half!);
		clicks = 0;
		await click('Credit it', 'link');
		await page.getByLabel('Why, printed on it').fill('Half of it was done');
		clicks++;
		await page.getByText('Some lines').click();
		await click(/^Render/, 'checkbox');
		await page.getByLabel('How many').fill('5');
		await expectAccessible(page, 'a credit note for a part');
		await click('Issue a credit note for £300.00');
		expect(clicks).to.be.at.most(4);
		await page.getByText('has paid £300.00 too much').waitFor();
		await page.getByRole('button', { name: 'Give money back' }).click();
		await page.getByRole('button', { name: 'Give it back' }).click();
		await until(async () => row(made.half!).inHand === 0, 60, 'the refund');
		expect(row(made.half!)).to.include({
			state: 'paid',
			cash: 300_00,
			credited: 300_00,
			outstanding: 0
		});
	});

	it('more than is left is said at its box, and nothing typed is lost', async () => {
		await open(made.half!);
		await click('Credit it', 'link');
		await page.getByLabel('Why, printed on it').fill('More');
		await page.getByText('An amount').click();
		await page.getByLabel('How much, without VAT, £').fill('250.01');
		await page.getByRole('button', { name: 'Issue the credit note' }).click();
		await page.getByText('At most £250.00 is left.').waitFor();
		expect(await page.getByLabel('Why, printed on it').inputValue()).to.equal('More');
		expect(await page.getByLabel('How much, without VAT, £').inputValue()).to.equal('250.01');
	});

	it('killed in the middle of each press: the books are sound, and a second press does it once @long', async () => {
		const post = ({ path, form }: (typeof presses)[number]) =>
			desk.request
				.post(app.origin + path, { form, headers: { origin: app.origin }, failOnStatusCode: false })
				.catch(() => null);
		const issue = (id: number) => {
			const version = look(
				(db) =>
					db.$client.prepare('select version from documents where id = ?').pluck().get(id) as number
			);
			const data = { action: 'issue', version, sendTo: null, copyToSelf: false };
			return desk.request
				.post(`${app.origin}/billing/${id}/api`, { data, failOnStatusCode: false })
				.catch(() => null);
		};
		const each = presses.length / KILLED;
		for (let round = 0; round < KILLED; round++) {
			const of = presses.slice(round * each, (round + 1) * each);
			const [replacement, release] = [made[`replacement${round}`]!, made[`release${round}`]!];
			const all = () => [...of.map(post), issue(replacement), issue(release)];
			const running = all();
			await new Promise((resolve) => setTimeout(resolve, 40 + round * 90));
			await app.kill('app');
			await Promise.all(running);
			look((db) => expectSoundBooks(db));
			await app.start('app');
			await Promise.all(all());
			look((db) => expectSoundBooks(db));
		}
		// Each press did what it says, once; a stage whose release was quicker is not credited.
		const count = (where: string) =>
			look((db) =>
				db.$client
					.prepare(`select count(*) from documents where state = 'issued' and ${where}`)
					.pluck()
					.get()
			);
		expect(count("kind = 'creditNote' and key like 'credit:kill-%'")).to.be.within(
			2 * KILLED,
			3 * KILLED
		);
		expect(count("origin = 'replacement'")).to.equal(KILLED + 1);
		expect(
			look((db) =>
				db.$client
					.prepare("select count(*) from refunds where key like 'hand-refund:kill-%'")
					.pluck()
					.get()
			)
		).to.equal(KILLED);
	});
});
