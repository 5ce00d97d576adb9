// One action on many rows: the set as it was looked at, who is left out and why, once each however often and after a crash.
// Over 300 lines: one case for each action.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import type { ManyActionId } from '../../../../src/lib/core/lists/actions';
import { FieldError, NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import {
	chaseMessages,
	customers,
	documents,
	mails,
	manyRows,
	manyRuns,
	openItems,
	payments
} from '../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { readView } from '../../../../src/lib/core/lists/address';
import type { ListName } from '../../../../src/lib/core/lists/types';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { threadPress } from '../../../../src/lib/server/documents/press';
import { readList } from '../../../../src/lib/server/services/desk/lists/engine';
import { rowsOfList, SOURCES } from '../../../../src/lib/server/services/desk/lists/rows';
import { beginInvoice, loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import {
	noteHandedOver,
	prepareSending,
	sendByMail,
	sendByText
} from '../../../../src/lib/server/services/invoices/send';
import { addJob, loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import {
	beginRun,
	checkRows,
	chooseRows,
	continueMany,
	resumeRun,
	stopRun
} from '../../../../src/lib/server/services/many/runs';
import { chosenRows, leftOutOf, manyRun } from '../../../../src/lib/server/services/many/page';
import { onePdf, pdfsOf } from '../../../../src/lib/server/services/many/download';
import { pauseInvoice } from '../../../../src/lib/server/services/owed/holds';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, oneLine, payByHand } from '../../../support/money';
import { wordsOf } from '../../../support/pdf';
import { draftOf, HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const rowsOf = rowsOfList('invoices');
const choose = (key: string, ...ids: number[]) => chooseRows(world, key, 'invoices', { ids });
const check = (run: number, action: ManyActionId) => checkRows(world, run, action, rowsOf);
const reasons = async (run: number, action: ManyActionId) =>
	Object.fromEntries(
		(await check(run, action)).leftOut.flatMap(({ why, ids }) => ids.map((id) => [id, why]))
	);
async function perform(run: number, action: ManyActionId) {
	beginRun(world, run, action);
	await continueMany(world);
	return manyRun(world, run);
}
/** Late by the day things are done, and with its customer. */
async function late(customer: object = FIRM, price = '100') {
	const invoice = await issued(world, customer, oneLine(price));
	noteHandedOver(world, invoice.id, 'handedOver');
	return invoice;
}

describe('many rows', () => {
	it('are those that were chosen: what has joined since is named and not included', async () => {
		const first = await late();
		const view = 'view=unpaid';
		const run = chooseRows(world, 'k', 'invoices', { view, rows: rowsOf });
		expect(chooseRows(world, 'k', 'invoices', { view, rows: rowsOf })).to.equal(run);
		const joined = await late({ ...FIRM, name: 'Later' });
		const found = await check(run, 'markSent');
		expect(found).to.deep.include({ chosen: 1, fits: 0, joined: [joined.id] });
		expect(await reasons(run, 'markSent')).to.deep.equal({ [first.id]: 'They have it already.' });
		expect(() => choose('none')).to.throw(RefusedError);
		expect(() => manyRun(world, 99)).to.throw(NotFoundError);
	});

	it('are sent once each: not a draft, not to nobody', async () => {
		const good = await issued(world, FIRM, oneLine('10'));
		const nobody = await issued(world, { ...HOUSEHOLD, email: '' }, oneLine('10'));
		const draft = draftOf(world, FIRM, oneLine('10'));
		const run = choose('k', good.id, nobody.id, draft.id, 9_999, good.id);
		expect(await reasons(run, 'send')).to.deep.equal({
			[nobody.id]: 'There is no e-mail address.',
			[draft.id]: 'It is a draft.',
			9999: 'It is not there any more.'
		});
		expect(await perform(run, 'send')).to.include({ state: 'done', done: 1, leftOut: 3 });
		// Pressed again, from another tab, after a crash: nothing more.
		beginRun(world, run, 'send');
		world.db.update(manyRuns).set({ state: 'running' }).run();
		await continueMany(world);
		expect(world.db.select({ key: mails.key }).from(mails).all()).to.deep.equal([
			{ key: `many:${run}:${good.id}` }
		]);
		expect(leftOutOf(world, run).map((one) => one.why)).to.have.members([
			'There is no e-mail address.',
			'It is a draft.',
			'It is not there any more.'
		]);
		expect(() => beginRun(world, run, 'discard')).to.throw(RefusedError);
	});

	it('are reminded about in one message to each payer, about those that were chosen alone', async () => {
		const one = await late(FIRM, '100');
		const two = await another(world, one.customerId, '50');
		const three = await another(world, one.customerId, '30');
		for (const { id } of [two, three]) noteHandedOver(world, id, 'handedOver');
		const other = await late({ ...HOUSEHOLD, name: 'Other' }, '70');
		const disputed = await late({ ...HOUSEHOLD, name: 'Third' }, '20');
		const unsent = await issued(world, { ...HOUSEHOLD, name: 'Fourth' }, oneLine('20'));
		const paid = await late({ ...HOUSEHOLD, name: 'Fifth' }, '20');
		payByHand(world, paid.id, '24');
		pauseInvoice(world, disputed.id, { kind: 'dispute', until: '', note: 'Cracks' });
		const nobody = await late({ ...HOUSEHOLD, name: 'Sixth', email: '', address: '' }, '20');
		world.clock.set(londonMoment('2027-02-02T10:00'));
		const run = choose(
			'k',
			...[one, two, other, disputed, unsent, paid, nobody].map((invoice) => invoice.id)
		);
		expect(await reasons(run, 'remind')).to.deep.equal({
			[disputed.id]: 'It is disputed.',
			[unsent.id]: 'They have not got it yet.',
			[paid.id]: 'Nothing is open on it.',
			[nobody.id]: 'There is neither an e-mail nor a postal address.'
		});
		expect(await perform(run, 'remind')).to.include({ state: 'done', done: 3, leftOut: 4 });
		expect(
			world.db
				.select({ payerId: chaseMessages.payerId, items: chaseMessages.items })
				.from(chaseMessages)
				.all()
				.map(({ payerId, items }) => [payerId, items.map((item) => item.documentId)])
		).to.have.deep.members([
			[one.customerId, [one.id, two.id]],
			[other.customerId, [other.id]]
		]);
		// The same invoices on the same day again: they were written to.
		const again = choose('again', one.id, three.id);
		expect(new Set(Object.values(await reasons(again, 'remind')))).to.deep.equal(
			new Set(['They were written to a few days ago.'])
		);
	});

	it('that are drafts are deleted, issued ones never', async () => {
		const invoice = await issued(world, FIRM, oneLine('10'));
		const drafts = Array.from({ length: 120 }, (_, n) =>
			beginInvoice(world, `d${n}`, invoice.customerId)
		);
		const run = choose('k', invoice.id, ...drafts);
		expect(await check(run, 'discard')).to.deep.include({ chosen: 121, fits: 120 });
		expect(await perform(run, 'discard')).to.include({ done: 120, leftOut: 1 });
		const states = world.db.select({ state: documents.state }).from(documents).all();
		expect(states.filter(({ state }) => state === 'discarded')).to.have.length(120);
		expect(states.filter(({ state }) => state === 'issued')).to.have.length(1);
	});

	it('go on where a crash or a stop left them, none twice', async () => {
		const ids: number[] = [];
		const firm = addCustomer(world, FIRM);
		for (let n = 1; n <= 3; n++) ids.push((await another(world, firm, String(n))).id);
		const run = choose('k', ...ids);
		beginRun(world, run, 'markSent');
		// As it stands after a crash in between: one is done, the others wait.
		noteHandedOver(world, ids[0]!, 'handedOver');
		world.db.update(manyRows).set({ state: 'done' }).where(eq(manyRows.rowId, ids[0]!)).run();
		stopRun(world, run);
		await continueMany(world);
		expect(manyRun(world, run)).to.include({ state: 'stopped', done: 1, waiting: 2 });
		resumeRun(world, run);
		await continueMany(world);
		expect(manyRun(world, run)).to.include({ state: 'done', done: 3, waiting: 0 });
		const handed = world.db.$client
			.prepare("select document_id, count(*) from trail where what = 'handedOver' group by 1")
			.raw()
			.all();
		expect(handed).to.deep.equal(ids.map((id) => [id, 1]));
		expect(world.db.select({ reached: openItems.reached }).from(openItems).all()).to.deep.equal(
			ids.map(() => ({ reached: true }))
		);
	});

	it('are downloaded as PDFs, drafts left out', async () => {
		const invoice = await issued(world, FIRM, oneLine('10'));
		const run = choose('k', invoice.id, draftOf(world, FIRM, oneLine('10')).id);
		const chunks: Uint8Array[] = [];
		for await (const chunk of pdfsOf(world, run)) chunks.push(chunk);
		const zip = Buffer.concat(chunks).toString('latin1');
		expect(zip.slice(0, 2)).to.equal('PK');
		expect(zip.split('PK\u0001\u0002')).to.have.length(2);
		expect(zip).to.include(`${invoice.number}`);
		expect(world.db.select().from(customers).all()).to.have.length(2);
	});
});

describe('what an action asks for', () => {
	it('is a day and a way of paying: each invoice in full, once, and what was paid already left out', async () => {
		const open = await late(FIRM, '100');
		const part = await another(world, open.customerId, '50');
		payByHand(world, part.id, '20');
		const paid = await another(world, open.customerId, '10');
		payByHand(world, paid.id, '12');
		const draft = draftOf(world, FIRM, oneLine('10'));
		const run = choose('pay', open.id, part.id, paid.id, draft.id);
		expect(await reasons(run, 'pay')).to.deep.equal({
			[paid.id]: 'There is nothing left to pay on it.',
			[draft.id]: 'It is a draft.'
		});
		const asked = (options: object) => {
			try {
				beginRun(world, run, 'pay', options);
			} catch (error) {
				return (error as FieldError).fields;
			}
			return {};
		};
		expect(Object.keys(asked({ day: 'soon', way: 'gold' }))).to.deep.equal(['day', 'way']);
		beginRun(world, run, 'pay', { day: '24 Nov', way: 'cash', label: 'not asked for' });
		await continueMany(world);
		world.db.update(manyRuns).set({ state: 'running' }).run();
		await continueMany(world);
		expect(manyRun(world, run)).to.deep.include({
			done: 2,
			leftOut: 2,
			options: { day: '2026-11-24', way: 'cash' }
		});
		const cash = world.db.select().from(payments).where(eq(payments.way, 'cash')).all();
		// 100 and 50 with 20 % VAT, of which 20 were paid: 120 and 40.
		expect(cash.map(({ amount, date }) => [amount, date])).to.deep.equal([
			[120_00, '2026-11-24'],
			[40_00, '2026-11-24']
		]);
	});

	it('is a due day for drafts alone: what is issued keeps the one that is printed on it', async () => {
		const issuedOne = await late();
		const draft = draftOf(world, FIRM, oneLine('10'));
		const run = choose('due', issuedOne.id, draft.id);
		expect(await reasons(run, 'moveDue')).to.deep.equal({
			[issuedOne.id]: 'It is issued, and its due day with it.'
		});
		beginRun(world, run, 'moveDue', { day: '2026-12-24' });
		await continueMany(world);
		expect(loadDraft(world.db, draft.id).dueDate).to.equal('2026-12-24');
	});

	it('is a label: on documents, jobs and customers, taken off again, never twice', async () => {
		const one = await late();
		const two = await another(world, one.customerId, '50');
		const job = addJob(world, 'j', {
			title: 'Hall',
			customerId: one.customerId,
			labels: ['flats']
		});
		const put = async (
			list: 'invoices' | 'jobs' | 'customers',
			ids: number[],
			action: ManyActionId = 'label',
			label = ' tax ask '
		) => {
			const run = chooseRows(world, `${list} ${action} ${ids.join()} ${label}`, list, { ids });
			beginRun(world, run, action, { label });
			await continueMany(world);
			return manyRun(world, run);
		};
		const labelled = () => pagesOf('invoices', 'f=label.has.tax').map(({ id }) => id);
		expect(await put('invoices', [one.id, two.id])).to.include({ done: 2 });
		expect(labelled()).to.have.members([one.id, two.id]);
		await put('invoices', [two.id], 'unlabel');
		expect(labelled()).to.deep.equal([one.id]);
		expect(await put('jobs', [job])).to.include({ done: 1 });
		expect(loadJob(world.db, job).labels).to.deep.equal(['flats', 'tax ask']);
		await put('jobs', [job], 'unlabel', 'flats');
		expect(loadJob(world.db, job).labels).to.deep.equal(['tax ask']);
		expect(await put('customers', [one.customerId, 999])).to.include({ done: 1, leftOut: 1 });
		for (const label of ['', 'a,b', 'x'.repeat(41)])
			expect(() => beginRun(world, choose(`l${label}`, one.id), 'label', { label })).to.throw(
				FieldError
			);
	});

	it('archives whom nothing is open with, and price entries; and takes them back', async () => {
		const owing = await late();
		const idle = addCustomer(world, { ...FIRM, name: 'Idle' });
		const run = chooseRows(world, 'a', 'customers', { ids: [owing.customerId, idle] });
		beginRun(world, run, 'archive');
		await continueMany(world);
		expect(leftOutOf(world, run).map(({ why, ids }) => [why, ids])).to.deep.equal([
			['Something is still open on this account. Settle it first.', [owing.customerId]]
		]);
		const archived = () => pagesOf('customers', 'view=archived').map(({ id }) => id);
		expect(archived()).to.deep.equal([idle]);
		const back = chooseRows(world, 'b', 'customers', { ids: [owing.customerId, idle] });
		beginRun(world, back, 'bringBack');
		await continueMany(world);
		expect([archived(), manyRun(world, back).leftOut]).to.deep.equal([[], 1]);
	});

	it('sends again what did not arrive, and nothing else', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		world.mailAnswer = () => ({ state: 'refused', reason: '550' });
		const { to, subject, text } = prepareSending(world, id);
		sendByMail(world, id, { key: 'a', to, subject, text, copyToSelf: false });
		await deliverDue(world);
		sendByText(world, id, { key: 't', mobile: '07700900123', words: 'See {link}' });
		const [message, waiting] = pagesOf('messages', 'sort=as').map((row) => row.id);
		const run = chooseRows(world, 'm', 'messages', { ids: [message!, waiting!] });
		expect(await reasonsIn('messages', run, 'again')).to.deep.equal({
			[waiting!]: 'It is on its way.'
		});
		beginRun(world, run, 'again');
		await continueMany(world);
		expect(world.db.select({ state: mails.state }).from(mails).all()).to.deep.equal([
			{ state: 'queued' }
		]);
	});
});

describe('chosen documents', () => {
	it('are one PDF, in the order they were issued; drafts have none', async () => {
		world.press = threadPress();
		const first = await late(FIRM, '100');
		const second = await another(world, first.customerId, '50');
		const draft = draftOf(world, FIRM, oneLine('10'));
		const words = await wordsOf(
			Buffer.from(await onePdf(world, choose('p', second.id, draft.id, first.id)))
		);
		const numbers = words.filter(({ text }) => /^INV-\d+$/.test(text));
		expect([...new Set(numbers.map(({ page, text }) => `${page} ${text}`))]).to.deep.equal([
			'1 INV-0007',
			'2 INV-0008'
		]);
		await onePdf(world, choose('none', draft.id)).then(
			() => expect.fail('a PDF of nothing'),
			(error) => expect(error).to.be.instanceOf(RefusedError)
		);
	}).timeout(20_000);
});

const pagesOf = (list: ListName, query: string) =>
	readList(world, SOURCES[list], readView(SOURCES[list].spec, new URLSearchParams(query)), null)
		.rows;
const reasonsIn = async (list: ListName, run: number, action: ManyActionId) =>
	Object.fromEntries(
		(await checkRows(world, run, action, rowsOfList(list))).leftOut.flatMap(({ why, ids }) =>
			ids.map((id) => [id, why])
		)
	);

it('jobs that were chosen are taken to a bill run, and rows of another list are not', () => {
	const customerId = addCustomer(world, HOUSEHOLD);
	const ids = ['a', 'b'].map((key) => addJob(world, key, { title: key, customerId }));
	const run = chooseRows(world, 'jobs', 'jobs', { ids: [...ids, ids[0]!] });
	expect(chosenRows(world, run, 'jobs')).to.deep.equal(ids);
	expect(() => chosenRows(world, run, 'invoices')).to.throw(NotFoundError);
	expect(() => chosenRows(world, 999, 'jobs')).to.throw(NotFoundError);
});
