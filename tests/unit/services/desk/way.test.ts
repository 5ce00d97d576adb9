// The page of the way: each thing once, by what it waits for, from the first question until its bill is written.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { underway, wayPage } from '../../../../src/lib/server/services/desk/wayPage';
import { bookJob } from '../../../../src/lib/server/services/diary/placing';
import {
	addEnquiry,
	closeEnquiry,
	noteAnswered
} from '../../../../src/lib/server/services/enquiries/enquiries';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { billJob } from '../../../../src/lib/server/services/billing/toBill';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { acceptQuote } from '../../../../src/lib/server/services/quotes/accept';
import { askQuestion, declineQuote } from '../../../../src/lib/server/services/quotes/page';
import {
	beginQuote,
	loadQuote,
	saveQuote
} from '../../../../src/lib/server/services/quotes/quotes';
import { sendQuote } from '../../../../src/lib/server/services/quotes/send';
import { HOUSEHOLD, line, makeWorld, type TestWorld } from '../../../support/world';

const DAY = 86_400_000;
let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());
const later = (days: number) => world.clock.set(world.clock.now() + days * DAY);
const waiting = () => underway(world).map(({ key, waits, days }) => [key, waits, days]);

async function out(
	customerId: number,
	price: string,
	deposit = '',
	title = 'Wall'
): Promise<number> {
	const id = beginQuote(world, `q${price}`, { customerId, title });
	const { sheet, version } = loadQuote(world.db, id);
	saveQuote(world, id, version, {
		...sheet,
		rows: [line('a', 'Wall', price)],
		quote: { ...sheet.quote!, deposit }
	});
	await sendQuote(world, id, version + 1, { key: 's', byHand: true });
	return id;
}
const accept = (id: number) =>
	acceptQuote(
		world,
		id,
		{ key: 'k', n: 1, total: loadQuote(world.db, id).total, picked: '', name: 'Odile' },
		{ way: 'spot', informed: 'page', from: { address: '', agent: '' } }
	);

describe('what waits', () => {
	it('is an enquiry until it is answered, and then their reply, and nothing once it is closed', () => {
		const id = addEnquiry(world, 'e', { name: 'Odile', what: 'A wall\nand more' });
		later(3);
		expect(waiting()).to.deep.equal([[`enquiry:${id}`, 'answer', 3]]);
		expect(underway(world)[0]).to.include({ title: 'A wall', customer: 'Odile', sum: null });
		noteAnswered(world, id);
		later(2);
		expect(waiting()).to.deep.equal([[`enquiry:${id}`, 'reply', 2]]);
		closeEnquiry(world, id, { reason: 'too far' });
		expect(waiting()).to.deep.equal([]);
	});
	it('is a quote from its draft to the answer, and not after it expired', async () => {
		const customer = addCustomer(world, HOUSEHOLD);
		beginQuote(world, 'draft', { customerId: customer });
		const id = await out(customer, '120');
		expect(
			waiting()
				.map(([, waits]) => waits)
				.sort()
		).to.deep.equal(['sending', 'yes']);
		later(4);
		askQuestion(world, loadQuote(world.db, id).token, { key: 'q', question: 'When?' });
		later(1);
		expect(waiting()).to.deep.include([`quote:${id}`, 'question', 1]);
		expect(underway(world).find(({ key }) => key === `quote:${id}`)!.sum).to.equal(120_00);
		later(200);
		expect(waiting().map(([, waits]) => waits)).to.deep.equal(['sending']);
	});
	it('is a job from the yes to its bill: a deposit, a day, the visit, the work, the bill', async () => {
		const id = await out(addCustomer(world, HOUSEHOLD), '120', '25%');
		accept(id);
		const job = loadQuote(world.db, id).jobId!;
		const now = () => underway(world).map(({ waits, sum, on }) => [waits, sum, on]);
		expect(now()).to.deep.equal([['deposit', 120_00, null]]);
		world.db.$client.exec("update deposit_requests set state = 'withdrawn'");
		expect(now()).to.deep.equal([['day', 120_00, null]]);
		bookJob(world, job, { date: '2026-12-09', from: '9', to: '' });
		expect(now()).to.deep.equal([['visit', 120_00, '2026-12-09']]);
		world.db.$client.exec('update visits set done = 1');
		moveJob(world, job, 'underWay');
		expect(now()).to.deep.equal([['work', 120_00, null]]);
		moveJob(world, job, 'finished');
		later(5);
		expect(waiting()).to.deep.equal([[`job:${job}`, 'bill', 5]]);
		const draft = billJob(world, job, 'lines', 'b');
		await issueInvoice(world, draft, loadDraft(world.db, draft).version);
		expect(waiting()).to.deep.equal([]);
	});
	it('counts what was won and lost by month, and what is likely of the rest', async () => {
		const customer = addCustomer(world, HOUSEHOLD);
		accept(await out(customer, '100'));
		declineQuote(world, loadQuote(world.db, await out(customer, '300')).token, 'dear');
		await out(customer, '50');
		addJob(world, 'other', { title: 'Other', customerId: customer });
		const page = wayPage(world);
		const sums = { won: 1, lost: 1, out: 1, wonSum: 100_00, lostSum: 300_00, outSum: 50_00 };
		expect(page.all).to.deep.equal(sums);
		// A quarter of 50.
		expect(page.likely).to.equal(12_50);
		expect(page.months).to.have.length(12);
		expect(page.months.at(-1)).to.deep.equal({ name: '2026-11', ...sums });
		expect(page.kinds).to.deep.equal([{ name: '', ...sums }]);
	});
});
