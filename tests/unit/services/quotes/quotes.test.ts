// A quote from the first line to the job: sent, chosen, accepted once, its deposit paid and invoiced, cancelled in time or too late.
// Over 300 lines: a quote from its first line to the end of its contract.
import { spawnSync } from 'node:child_process';
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { ConflictError, FieldError, RefusedError } from '../../../../src/lib/core/refusals';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { jobWork } from '../../../../src/lib/server/services/jobs/work';
import { addJob, loadJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { receiveCardEvent } from '../../../../src/lib/server/services/money/cardEvents';
import {
	invoiceDeposits,
	openDepositCheckout
} from '../../../../src/lib/server/services/money/depositRequests';
import {
	acceptanceOf,
	acceptByHand,
	acceptQuote,
	readOrder
} from '../../../../src/lib/server/services/quotes/accept';
import {
	cancelByCustomer,
	cancelLimit,
	cancelShare,
	noteCancelled,
	noteReceived
} from '../../../../src/lib/server/services/quotes/cancel';
import {
	answerQuestion,
	askQuestion,
	declineQuote,
	noteQuoteOpened,
	quoteByToken,
	quoteFile,
	quotePage
} from '../../../../src/lib/server/services/quotes/page';
import {
	beginQuote,
	copyQuote,
	discardQuote,
	loadQuote,
	saveQuote
} from '../../../../src/lib/server/services/quotes/quotes';
import {
	prolongQuote,
	quietQuote,
	withdrawQuote
} from '../../../../src/lib/server/services/quotes/answers';
import { confirmAcceptances } from '../../../../src/lib/server/services/quotes/record';
import { saveChaseSettings } from '../../../../src/lib/server/services/chasing/settings';
import { dueStep } from '../../../../src/lib/core/quotes/plan';
import { loadQuotePlan, saveQuotePlan } from '../../../../src/lib/server/services/quotes/plan';
import { remindOfQuotes } from '../../../../src/lib/server/services/quotes/remind';
import { NotReadyError } from '../../../../src/lib/server/services/invoices/freeze';
import { filesOf } from '../../../../src/lib/server/services/files/files';
import { tryQuote } from '../../../../src/lib/server/services/quotes/trial';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { prepareQuote, sendQuote } from '../../../../src/lib/server/services/quotes/send';
import { mails } from '../../../../src/lib/server/db/schema';
import { auditBooks } from '../../../../scripts/audit/books';
import {
	ceiling,
	FROM,
	NONE,
	quoteAccepted,
	type QuoteGiven,
	quoteSent,
	quoteWritten,
	ROWS
} from '../../../support/quotes';
import {
	BUSINESS,
	CONTRACTOR,
	HOUSEHOLD,
	line,
	makeWorld,
	settledEvent,
	wordsOf,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const written = (...given: QuoteGiven) => quoteWritten(world, ...given);
const sent = (...given: QuoteGiven) => quoteSent(world, ...given);
const accept = (id: number, more: Record<string, unknown> = {}, way: 'page' | 'spot' = 'page') =>
	quoteAccepted(world, id, more, way);
const quotePaperOf = async (id: number) =>
	world.db.$client
		.prepare('select content from quote_versions where quote_id = ?')
		.pluck()
		.get(id)!
		.toString();
const token = (id: number) => loadQuote(world.db, id).token;
const mailsTo = (to: string) =>
	world.db
		.select()
		.from(mails)
		.all()
		.filter((mail) => mail.to === to);

describe('a quote that goes out', () => {
	it('has a number of its own series, its range, and is frozen as a version; again without a change it is the same one', async () => {
		const id = await sent();
		const row = loadQuote(world.db, id);
		expect(row).to.include({ number: 'Q-0001', state: 'sent', sent: 1, validUntil: '2026-12-22' });
		// Including VAT: boards 480 + 1200; with laths, the rose and one socket 480 + 1840 + 240.
		expect([row.total, row.lowest, row.highest]).to.deep.equal([1680_00, 1680_00, 2560_00]);
		const [mail] = mailsTo(HOUSEHOLD.email);
		expect(mail!.text).to.contain('£1,680.00 to £2,560.00').and.contain(`/q/${row.token}`);
		await sendQuote(world, id, row.version, { key: 'b', ...prepareQuote(world, id) });
		expect(loadQuote(world.db, id).sent).to.equal(1);
		expect(() => world.db.$client.exec('update quote_versions set total = 0')).to.throw(
			/never changes/
		);
		expect(() => discardQuote(world, id, true)).to.throw(RefusedError);
	});

	it('says what is missing before it takes a number', async () => {
		const id = written({ title: '' }, { rows: [ceiling('a', 'one', '10')] });
		expect(prepareQuote(world, id).problems.map(({ path }) => path)).to.have.members([
			'quote.title',
			'rows.a.choice'
		]);
		const none = { key: 'a', to: 'a@b.example', subject: 's', text: 't' };
		const refused = await sendQuote(world, id, 2, none).catch((error: Error) => error.name);
		expect(refused).to.equal('NotReadyError');
		expect(loadQuote(world.db, id).number).to.equal(null);
	});

	it('is changed as a new version: the page says what differs, and an old one is accepted no more', async () => {
		const id = await sent();
		noteQuoteOpened(world, token(id));
		expect(loadQuote(world.db, id).openedAt).to.be.a('number');
		const rows = ROWS.map((row) => (row.id === 'rose' ? { ...row, unitPrice: '230' } : row));
		const { sheet, version } = loadQuote(world.db, id);
		saveQuote(world, id, version, { ...sheet, rows: [...rows, line('new', 'Limewash', '90')] });
		// Before it goes out the customer sees the old one.
		expect(quotePage(world, token(id)).version).to.equal(1);
		await sendQuote(world, id, version + 1, { key: 'c', ...prepareQuote(world, id) });
		const page = quotePage(world, token(id));
		expect(page.version).to.equal(2);
		expect(page.differs).to.deep.equal([
			'Repair the rose: £230.00 instead of £200.00',
			'New: Limewash, £90.00',
			'It comes to £1,770.00 instead of £1,680.00'
		]);
		expect(() => accept(id, { n: 1 })).to.throw(ConflictError, /changed/);
	});

	it('tells the customer nothing of what it costs, and knows no link but its own', async () => {
		const id = await sent();
		const shown = wordsOf(quotePage(world, token(id)));
		expect(shown).to.not.contain('700');
		expect(shown).to.not.match(/"cost":"/);
		expect(() => quotePage(world, 'x'.repeat(token(id).length))).to.throw(/not here/);
		const draft = written();
		expect(() => quotePage(world, token(draft))).to.throw(/not here/);
	});
});

describe('accepting', () => {
	it('once, whatever is pressed twice: a job with the chosen lines, its plan, and both are told', async () => {
		const id = await sent({
			stages: [
				{ title: 'Laths up', percent: '40' },
				{ title: 'Done', percent: '' }
			]
		});
		const first = accept(id);
		expect(accept(id).id).to.equal(first.id);
		expect(() => accept(id, { key: 'k2' })).to.throw(RefusedError, /already/);
		const row = loadQuote(world.db, id);
		expect(row.state).to.equal('accepted');
		const job = loadJob(world.db, row.jobId!);
		expect(job).to.include({
			title: 'Front room ceiling',
			pricesIncludeVat: true,
			state: 'booked'
		});
		expect(
			jobWork(world.db, job.id).lines.map(({ description, unitPrice }) => [description, unitPrice])
		).to.deep.equal([
			['Take the old ceiling down', '480'],
			['Ceiling in laths and lime', '1840']
		]);
		await confirmAcceptances(world);
		await confirmAcceptances(world);
		const told = mailsTo(HOUSEHOLD.email).map(({ subject }) => subject);
		expect(told.slice(1)).to.deep.equal([
			'Agreed: Front room ceiling, £2,320.00',
			'Deposit for Front room ceiling: £580.00'
		]);
		const acceptance = acceptanceOf(world.db, id)!;
		const record = acceptance.record!.toString();
		expect(record).to.contain('Accepted by Odile Brancaster').and.not.contain('in boards');
		expect(() => world.db.$client.exec("update acceptances set record = x'00'")).to.throw(
			/never changes/
		);
		expect(() => world.db.$client.exec('update acceptances set total = 1')).to.throw(
			/never changes/
		);
		expect(auditBooks(world.db.$client)).to.deep.equal([]);
	});

	it('takes no wrong total, no choice that is none, no quantity beyond, no drawing that is none', async () => {
		const id = await sent();
		expect(() => accept(id, { total: 1 })).to.throw(ConflictError, /£2,320.00/);
		const picked = (value: object) => ({ picked: JSON.stringify({ ...NONE, ...value }) });
		for (const wrong of [
			picked({ options: { Ceiling: 'gold' } }),
			picked({ options: { __proto__: 'x', Floor: 'a' } }),
			picked({ extras: { base: '1' } }),
			picked({ extras: { sockets: '7' } }),
			picked({ extras: { sockets: '-1' } }),
			{ picked: '{' },
			{ signature: 'data:image/png;base64,AAAA' },
			{ signature: `data:image/png;base64,${'A'.repeat(5_000_000)}` },
			{ signature: 'data:image/svg+xml;base64,AAAA' },
			{ name: ' ' }
		])
			expect(() => accept(id, wrong), JSON.stringify(wrong).slice(0, 60)).to.throw(FieldError);
		expect(loadQuote(world.db, id).state).to.equal('sent');
		accept(id, { total: 1680_00 + 3 * 40_00, ...picked({ extras: { sockets: '3' } }) });
		const { lines } = jobWork(world.db, loadQuote(world.db, id).jobId!);
		expect(lines.map(({ description, quantity }) => [description, quantity])).to.deep.include([
			'A socket moved',
			'3'
		]);
	});

	it('not after it expired, unless its owner prolongs it or writes down what was said in time', async () => {
		const id = await sent();
		world.clock.set(londonMoment('2026-12-23T00:01'));
		expect(quotePage(world, token(id)).state).to.equal('expired');
		expect(() => accept(id)).to.throw(RefusedError, /expired/);
		prolongQuote(world, id, '10');
		expect(loadQuote(world.db, id).validUntil).to.equal('2027-01-02');
		accept(id);
		const other = await sent();
		world.clock.set(londonMoment('2027-03-01T09:00'));
		const byHand = { key: 'h', n: 1, total: 1680_00, picked: '', name: 'Said on the phone' };
		// Nothing is recorded without proof that they were told of their right.
		expect(() => acceptByHand(world, other, byHand))
			.to.throw(FieldError)
			.with.nested.property('fields.informed');
		acceptByHand(world, other, { ...byHand, informed: 'mail', agreedOn: '2026-12-20' });
		expect(acceptanceOf(world.db, other)).to.include({ way: 'byHand', agreedOn: '2026-12-20' });
	});

	it('of extra work puts it onto its job, and only then', async () => {
		const customerId = addCustomer(world, HOUSEHOLD);
		const jobId = addJob(world, 'j', { title: 'Wall', customerId, lines: [] });
		const id = beginQuote(world, 'x', { forJobId: jobId });
		const { sheet, version } = loadQuote(world.db, id);
		saveQuote(world, id, version, { ...sheet, rows: [line('a', 'Rotten lintel', '300')] });
		await sendQuote(world, id, version + 1, { key: 'a', ...prepareQuote(world, id) });
		expect(jobWork(world.db, jobId).lines).to.deep.equal([]);
		accept(id, { total: 300_00, picked: JSON.stringify(NONE) }, 'spot');
		expect(jobWork(world.db, jobId).lines[0]).to.include({
			description: 'Rotten lintel',
			extra: true
		});
		expect(loadQuote(world.db, id).jobId).to.equal(jobId);
	});
});

describe('the order of a firm', () => {
	it('goes to the quote and its job, private, with the yes; what is no paper is refused before anything is agreed', async () => {
		const id = await sent(
			{},
			{ pricesIncludeVat: false, contract: 'construction', rows: [line('a', 'Render', '800')] },
			CONTRACTOR
		);
		const wrong = async (bytes: Buffer) =>
			readOrder(world, { name: 'order', bytes }).then(
				() => expect.fail('it was taken'),
				(error: FieldError) => expect(error.fields).to.have.keys('order')
			);
		await wrong(Buffer.from('MZ, a program'));
		await wrong(Buffer.alloc(5 * 1024 * 1024 + 1));
		expect(await readOrder(world, null)).to.equal(null);
		const order = await readOrder(world, {
			name: 'PO 114.pdf',
			bytes: Buffer.from('%PDF-1.4\n1 0 obj\n<<>>\nendobj\n%%EOF')
		});
		acceptQuote(
			world,
			id,
			{ key: 'k', n: 1, total: 800_00, picked: JSON.stringify(NONE), name: 'A. Beacon' },
			{ way: 'page', informed: '', from: FROM, order }
		);
		const { jobId } = loadQuote(world.db, id);
		for (const [to, of] of [
			['quote', id],
			['job', jobId!]
		] as const)
			expect(
				filesOf(world.db, { to, id: of }).map(({ name, goesOut }) => [name, goesOut]),
				to
			).to.deep.equal([['PO 114.pdf', false]]);
	});
});

describe('a test of a quote', () => {
	it('goes to its owner with page and PDF, takes no number, and nothing on it counts', async () => {
		const id = written();
		const { to } = await tryQuote(world, id, 'k');
		expect(to).to.equal(BUSINESS.email);
		const [mail] = mailsTo(BUSINESS.email);
		expect(mail!.subject).to.match(/^Test · /);
		const trial = /\/q\/([\w-]+)/.exec(mail!.text)![1]!;
		const page = quotePage(world, trial);
		expect(page).to.include({ trial: true, number: 'to come', state: 'open' });
		expect(quoteFile(world.db, trial).content.toString()).to.contain('nothing is agreed');
		for (const act of [
			() => declineQuote(world, trial, ''),
			() => askQuestion(world, trial, { key: 'q', question: 'When?' }),
			() => quoteByToken(world.db, trial)
		])
			expect(act).to.throw(RefusedError, /test/);
		expect(loadQuote(world.db, id)).to.include({ number: null, sent: 0, state: 'draft' });
		await deliverDue(world);
		expect(world.sent.at(-1)!.attachments!.map(({ filename }) => filename)).to.deep.equal([
			'Test.pdf'
		]);
		expect(auditBooks(world.db.$client)).to.deep.equal([]);
	});

	it('says what is missing as sending it would', async () => {
		const id = written({}, { rows: [] });
		await tryQuote(world, id, 'k').then(
			() => expect.fail('nothing is on it'),
			(error: Error) => expect(error).to.be.instanceOf(NotReadyError)
		);
		expect(mailsTo(BUSINESS.email)).to.deep.equal([]);
	});
});

describe('cancelling', () => {
	const begun = async (more: Record<string, unknown> = {}) => {
		const id = await sent({}, { rows: [line('a', 'Labour', '1000'), line('b', 'More', '1000')] });
		accept(id, { total: 2000_00, picked: JSON.stringify(NONE), ...more });
		return id;
	};

	it('works to the last minute of the fourteenth day, London time, and not one after', async () => {
		const id = await begun();
		expect(cancelLimit(world.db, acceptanceOf(world.db, id)!)).to.deep.equal({
			until: '2026-12-08'
		});
		world.clock.set(londonMoment('2026-12-09T00:00'));
		expect(() => cancelByCustomer(world, id)).to.throw(RefusedError, /passed/);
		world.clock.set(londonMoment('2026-12-08T23:59'));
		cancelByCustomer(world, id);
		cancelByCustomer(world, id);
		const row = loadQuote(world.db, id);
		expect(row.state).to.equal('cancelled');
		expect(loadJob(world.db, row.jobId!).state).to.equal('dropped');
		expect(
			mailsTo(HOUSEHOLD.email).filter(({ subject }) => /^Cancelled/.test(subject))
		).to.have.length(1);
		expect(quotePage(world, token(id)).deposit!.state).to.equal('withdrawn');
	});

	it('counts on the day the notice was sent, whenever it is written down', async () => {
		const id = await begun();
		world.clock.set(londonMoment('2026-12-15T09:00'));
		expect(() => noteCancelled(world, id, { sentOn: '2026-12-09', how: 'letter' })).to.throw(
			FieldError
		);
		noteCancelled(world, id, { sentOn: '2026-12-08', how: 'letter' });
		expect(acceptanceOf(world.db, id)).to.include({
			cancelledOn: '2026-12-08',
			cancelledHow: 'letter'
		});
	});

	it('over the change of clock ends at midnight in London', async () => {
		world.clock.set(londonMoment('2027-03-20T12:00'));
		const id = await begun();
		world.clock.set(londonMoment('2027-04-03T23:59'));
		expect(quotePage(world, token(id)).accepted!.mayCancel).to.equal(true);
		world.clock.set(londonMoment('2027-04-04T00:00'));
		expect(quotePage(world, token(id)).accepted!.mayCancel).to.equal(false);
	});

	it('with materials runs from the day the last of them came', async () => {
		const id = await sent();
		accept(id, { total: 1680_00, picked: JSON.stringify(NONE) });
		expect(quotePage(world, token(id)).accepted!.cancelUntil).to.equal('open');
		world.clock.set(londonMoment('2026-12-20T16:00'));
		moveJob(world, loadQuote(world.db, id).jobId!, 'finished', '2026-12-20');
		expect(quotePage(world, token(id)).accepted!.cancelUntil).to.equal('2027-01-03');
		// The owner knows better when they came.
		const { jobId } = loadQuote(world.db, id);
		noteReceived(world, jobId!, { receivedOn: '2026-12-10' });
		expect(quotePage(world, token(id)).accepted!.cancelUntil).to.equal('2026-12-24');
		for (const wrong of ['2026-12-21', '2026-11-23'])
			expect(() => noteReceived(world, jobId!, { receivedOn: wrong }), wrong).to.throw(FieldError);
		noteReceived(world, jobId!, { receivedOn: '' });
		expect(quotePage(world, token(id)).accepted!.cancelUntil).to.equal('2027-01-03');
	});

	it('costs the share of what was done only where work began on the customer’s request in writing', async () => {
		const asked = await begun({ begin: true, acknowledged: true });
		const of = (id: number, done: number) => {
			const { lines } = jobWork(world.db, loadQuote(world.db, id).jobId!);
			return cancelShare(world.db, acceptanceOf(world.db, id)!, { [lines[0]!.id]: done });
		};
		expect(of(asked, 50).share).to.equal(500_00n);
		const unasked = await begun();
		expect(of(unasked, 50).share).to.equal(0n);
		const half = await sent({}, { rows: [line('a', 'Labour', '1000')] });
		expect(() => accept(half, { total: 1000_00, picked: JSON.stringify(NONE), begin: true }))
			.to.throw(FieldError)
			.with.nested.property('fields.acknowledged');
	});

	it('is no right of a landlord who lets, who is asked for no proof and needs none', async () => {
		const id = await sent({}, {}, { ...HOUSEHOLD, name: 'A landlord', inTrade: true });
		const { quote } = quotePage(world, token(id));
		expect([quote.right.may, quote.right.why]).to.deep.equal([
			false,
			'It is agreed in the way of trade.'
		]);
		acceptByHand(world, id, {
			key: 'k',
			n: 1,
			total: 1680_00,
			picked: '',
			name: 'A landlord',
			agreedOn: '2026-11-24',
			informed: ''
		});
		expect(() => cancelByCustomer(world, id)).to.throw(RefusedError);
		const paper = await quotePaperOf(id);
		expect(paper).not.to.match(/right to cancel/i);
	});

	it('is no right of a firm, nor after an urgent call', async () => {
		const firm = await sent(
			{},
			{ pricesIncludeVat: false },
			{ ...HOUSEHOLD, kind: 'business', name: 'Corvane' }
		);
		accept(firm, { total: 2784_00 });
		expect(() => noteCancelled(world, firm, { sentOn: '2026-11-24' })).to.throw(
			RefusedError,
			/trade/
		);
		const urgent = await sent({ urgent: true });
		accept(urgent);
		expect(quotePage(world, token(urgent)).accepted!.cancelUntil).to.equal('');
	});
});

describe('other answers', () => {
	it('a question reaches the owner, and its answer the customer; a no keeps its reason', async () => {
		const id = await sent();
		const ask = () => askQuestion(world, token(id), { key: 'x', question: 'Is {link} dusty?' });
		ask();
		ask();
		const { questions } = quotePage(world, token(id));
		expect(questions).to.have.length(1);
		answerQuestion(world, id, { question: 1, answer: 'A little.' });
		expect(mailsTo(HOUSEHOLD.email).at(-1)!.text).to.contain('A little.').and.contain('(link)');
		declineQuote(world, token(id), 'Too dear');
		expect(loadQuote(world.db, id)).to.include({ state: 'declined', reason: 'Too dear' });
		expect(() => accept(id)).to.throw(RefusedError);
		expect(() => withdrawQuote(world, id, {})).to.throw(RefusedError);
	});

	it('is reminded of a week after it went out and before it expires, once each, not while a question is open', async () => {
		saveChaseSettings(world, { on: true, from: '09:00', to: '17:00', quietHours: 24, gapDays: 4 });
		const id = await sent();
		const reminders = () => {
			remindOfQuotes(world);
			remindOfQuotes(world);
			return mailsTo(HOUSEHOLD.email).filter(({ key }) => key.startsWith('quoteReminder')).length;
		};
		world.clock.set(londonMoment('2026-11-30T10:00'));
		expect(reminders()).to.equal(0);
		askQuestion(world, token(id), { key: 'x', question: 'Dusty?' });
		world.clock.set(londonMoment('2026-12-01T10:00'));
		expect(reminders()).to.equal(0);
		answerQuestion(world, id, { question: 1, answer: 'A little.' });
		world.clock.set(londonMoment('2026-12-01T23:00'));
		expect(reminders()).to.equal(0);
		world.clock.set(londonMoment('2026-12-02T10:00'));
		expect(reminders()).to.equal(1);
		world.clock.set(londonMoment('2026-12-18T10:00'));
		expect(reminders()).to.equal(1);
		world.clock.set(londonMoment('2026-12-21T10:00'));
		expect(reminders()).to.equal(2);
		accept(id);
		expect(reminders()).to.equal(2);
	});

	it('is reminded of by the owner’s own plan, not two on each other, and not where it is to be left in peace', async () => {
		saveChaseSettings(world, { on: true, from: '00:00', to: '23:59', quietHours: 0, gapDays: 4 });
		for (const typed of ['0', '3,x', '1.5', '121', '1,2,3,4,5'])
			expect(() => saveQuotePlan(world, { after: typed, before: '' }), typed).to.throw(FieldError);
		saveQuotePlan(world, { after: '14, 5', before: '2' });
		expect(loadQuotePlan(world.db)).to.deep.equal({ after: [5, 14], before: [2] });
		const id = await sent({ validDays: '17' });
		expect(loadQuote(world.db, id).validUntil).to.equal('2026-12-11');
		const subjects = (day: string) => {
			world.clock.set(londonMoment(`${day}T10:00`));
			remindOfQuotes(world);
			remindOfQuotes(world);
			return mailsTo(HOUSEHOLD.email)
				.filter(({ key }) => key.startsWith('quoteReminder'))
				.map(({ key }) => key.split(':').slice(3).join(' '));
		};
		expect(subjects('2026-11-28')).to.deep.equal([]);
		expect(subjects('2026-11-29')).to.deep.equal(['after 5']);
		expect(subjects('2026-12-08')).to.deep.equal(['after 5', 'after 14']);
		// Two days before it expires, but only one after the last reminder.
		expect(subjects('2026-12-09')).to.have.length(2);
		quietQuote(world, id, true);
		world.db.$client.exec('delete from quote_trail');
		expect(subjects('2026-12-10')).to.have.length(2);
		quietQuote(world, id, false);
		expect(subjects('2026-12-10')).to.deep.equal(['after 5', 'after 14', 'before 2']);
		expect(mailsTo(HOUSEHOLD.email).at(-1)!.subject).to.match(/^Until 11 Dec 2026/);
		saveQuotePlan(world, { after: '', before: '' });
		expect(subjects('2026-12-11')).to.have.length(3);
	});

	it('makes up for nothing at once: of several reminders that are due the latest goes, and none for what went out just now', () => {
		const plan = { after: [3, 7, 14], before: [5] };
		const due = (sentOn: string, until: string, today: string) => {
			const step = dueStep(plan, sentOn, until, today);
			return step && `${step.when} ${step.days}`;
		};
		expect(due('2026-11-01', '2026-12-31', '2026-11-03')).to.equal(null);
		expect(due('2026-11-01', '2026-12-31', '2026-11-04')).to.equal('after 3');
		expect(due('2026-11-01', '2026-12-31', '2026-11-20')).to.equal('after 14');
		expect(due('2026-11-01', '2026-12-31', '2026-12-26')).to.equal('before 5');
		expect(due('2026-11-24', '2026-11-27', '2026-11-26')).to.equal(null);
		expect(due('2026-11-24', '2026-11-28', '2026-11-27')).to.equal('after 3');
		expect(due('2026-11-01', '2026-11-20', '2026-11-21')).to.equal(null);
	});

	it('a copy begins anew, and two tabs do not overwrite each other', async () => {
		const id = await sent();
		const copy = copyQuote(world, id, 'c');
		expect(copyQuote(world, id, 'c')).to.equal(copy);
		const { sheet, version } = loadQuote(world.db, copy);
		expect(sheet.rows).to.have.length(5);
		saveQuote(world, copy, version, sheet);
		expect(() => saveQuote(world, copy, version, sheet)).to.throw(ConflictError);
	});
});

describe('a process that is killed between the yes and its job', () => {
	it('leaves neither behind, and the same press makes both once', async () => {
		const id = await sent({ deposit: '25%' });
		world.db.$client.pragma('wal_checkpoint(TRUNCATE)');
		const { signal } = spawnSync(
			process.execPath,
			['--import', 'tsx', 'tests/support/dyingYes.ts', world.folder, String(world.clock.now())],
			{ timeout: 60_000, killSignal: 'SIGTERM' }
		);
		expect(signal).to.equal('SIGKILL');
		const count = (table: string) =>
			world.db.$client.prepare(`select count(*) from ${table}`).pluck().get();
		const TABLES = ['acceptances', 'jobs', 'stage_plans', 'deposit_requests', 'mails'];
		expect(TABLES.map(count)).to.deep.equal([0, 0, 0, 0, 1]);
		expect(loadQuote(world.db, id).state).to.equal('sent');
		expect(world.db.$client.pragma('integrity_check', { simple: true })).to.equal('ok');
		const again = () =>
			acceptQuote(
				world,
				id,
				{ key: 'k', n: 1, total: loadQuote(world.db, id).total, picked: '', name: 'Odile' },
				{ way: 'page', informed: 'page', from: FROM }
			);
		again();
		again();
		// The plan has the deposit, and the rest at the end.
		expect(TABLES.slice(0, 4).map(count)).to.deep.equal([1, 1, 2, 1]);
		expect(auditBooks(world.db.$client)).to.deep.equal([]);
	});
});

describe('the audit of quotes', () => {
	it('finds each error put in alone, and says where', async () => {
		const id = await sent({ deposit: '25%' });
		accept(id);
		await confirmAcceptances(world);
		await openDepositCheckout(world, token(id), 'card:1', 'card');
		receiveCardEvent(world, settledEvent('chk-1', 580_00, 'e1'), '{}');
		await invoiceDeposits(world);
		const { $client: client } = world.db;
		for (const trigger of client
			.prepare(
				"select name from sqlite_master where type = 'trigger' and tbl_name in ('quote_versions', 'acceptances')"
			)
			.pluck()
			.all() as string[])
			client.exec(`drop trigger ${trigger}`);
		expect(auditBooks(client)).to.deep.equal([]);
		for (const change of [
			"update quote_versions set content = x'00'",
			"update acceptances set record = x'00'",
			"update quotes set state = 'declined'",
			'update quotes set job_id = null',
			'update quotes set sent = 2',
			"update number_series set next = next + 1 where kind = 'quote'",
			'update deposit_requests set amount = amount + 1',
			'update deposit_requests set document_id = null'
		]) {
			client.exec('savepoint one');
			client.exec(change);
			const said = auditBooks(client).join('\n');
			client.exec('rollback to one; release one');
			expect(said, change).to.match(/Q-0001|quote numbers/);
		}
	});
});
