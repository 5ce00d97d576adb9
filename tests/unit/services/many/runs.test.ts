// One action on many rows: the set as it was looked at, who is left out and why, once each however often and after a crash.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import type { ManyActionId } from '../../../../src/lib/core/lists/actions';
import { NotFoundError, RefusedError } from '../../../../src/lib/core/refusals';
import {
	chaseMessages,
	customers,
	documents,
	mails,
	manyRows,
	manyRuns,
	openItems
} from '../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { rowsOfList } from '../../../../src/lib/server/services/desk/lists/rows';
import { beginInvoice } from '../../../../src/lib/server/services/invoices/drafts';
import { noteHandedOver } from '../../../../src/lib/server/services/invoices/send';
import {
	beginRun,
	checkRows,
	chooseRows,
	continueMany,
	leftOutOf,
	manyRun,
	resumeRun,
	stopRun
} from '../../../../src/lib/server/services/many/runs';
import { pdfsOf } from '../../../../src/lib/server/services/many/download';
import { pauseInvoice } from '../../../../src/lib/server/services/owed/holds';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, oneLine, payByHand } from '../../../support/money';
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
