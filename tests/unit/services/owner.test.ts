// Over 300 lines: one case for each way in, and out.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import {
	businessSettings,
	giveMissing,
	saveBusiness,
	savePart
} from '../../../src/lib/server/services/business/settings';
import {
	addCustomer,
	archiveCustomer,
	customerDetail,
	saveCustomer,
	searchCustomers
} from '../../../src/lib/server/services/customers/customers';
import { mailAddresses } from '../../../src/lib/server/services/customers/parts';
import {
	copyAsDraft,
	beginInvoice,
	discardDraft,
	loadDraft,
	saveDraft
} from '../../../src/lib/server/services/invoices/drafts';
import { listDocuments, type ListQuery } from '../../../src/lib/server/services/desk/documentList';
import {
	ConflictError,
	FieldError,
	NotFoundError,
	RefusedError
} from '../../../src/lib/core/refusals';
import { find } from '../../../src/lib/server/services/desk/find';
import { sha256 } from '../../../src/lib/server/services/business/keys';
import { nextMoves } from '../../../src/lib/server/services/desk/moves';
import {
	changePassword,
	setPassword,
	signIn
} from '../../../src/lib/server/services/business/signIn';
import {
	endSession,
	isSignedIn,
	openSessions,
	signOut
} from '../../../src/lib/server/services/business/sessions';
import { blankSheet } from '../../../src/lib/core/sheet/blank';
import {
	BUSINESS,
	CONTRACTOR,
	draftOf,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld
} from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

function fieldsOf(work: () => unknown): string[] {
	try {
		work();
	} catch (error) {
		if (error instanceof FieldError) return Object.keys(error.fields);
		throw error;
	}
	return [];
}

describe('signing in', () => {
	beforeEach(() => setPassword(world, 'lime-and-plaster'));

	const from = (source: string, browser?: string) => ({
		source,
		browser,
		device: 'Firefox on Linux'
	});
	const enter = async (source = 'here', browser?: string) =>
		(await signIn(world, 'lime-and-plaster', from(source, browser))).session;
	const wrong = (n: number, source: string, browser?: string) =>
		signIn(world, `guess ${n}`, from(source, browser)).catch((error) => error);
	const DAY = 86_400_000;

	it('takes the password, opens a session, and ends it', async () => {
		const token = await enter();
		expect(isSignedIn(world, token)).to.equal(true);
		expect(isSignedIn(world, `${token}x`)).to.equal(false);
		signOut(world, token);
		expect(isSignedIn(world, token)).to.equal(false);
	});

	it('ends a session that rests for a week, and every one after thirty days', async () => {
		const resting = await enter();
		const used = await enter();
		const begun = world.clock.now();
		for (let day = 1; day < 30; day++) {
			world.clock.set(begun + day * DAY);
			expect(isSignedIn(world, used), `day ${day}`).to.equal(true);
			if (day === 7) expect(isSignedIn(world, resting)).to.equal(false);
		}
		world.clock.set(begun + 30 * DAY);
		expect(isSignedIn(world, used)).to.equal(false);
	});

	it('lists sessions, ends one or all others', async () => {
		const [one, two, three] = [await enter(), await enter(), await enter()];
		const list = openSessions(world, two);
		expect(list.map(({ current, device }) => [current, device])).to.have.deep.members([
			[true, 'Firefox on Linux'],
			[false, 'Firefox on Linux'],
			[false, 'Firefox on Linux']
		]);
		endSession(world, { name: '%' });
		expect(openSessions(world, two)).to.have.length(3);
		const first = sha256(one).slice(0, 16);
		endSession(world, { name: first });
		expect([one, two, three].map((token) => isSignedIn(world, token))).to.deep.equal([
			false,
			true,
			true
		]);
		endSession(world, { others: two });
		expect([two, three].map((token) => isSignedIn(world, token))).to.deep.equal([true, false]);
	});

	it('slows guesses down, from one place and from all together, and forgets it after a while', async () => {
		for (let guess = 0; guess < 5; guess++) await wrong(guess, 'there');
		const error = await signIn(world, 'lime-and-plaster', from('there')).catch((one) => one);
		expect(error).to.be.instanceOf(RefusedError);
		expect(await enter('elsewhere')).to.be.a('string');
		world.clock.set(world.clock.now() + 16 * 60_000);
		expect(await enter('there')).to.be.a('string');
	});

	it('takes no more guesses beside one another than one after the other', async () => {
		const answers = await Promise.all(Array.from({ length: 60 }, (_, n) => wrong(n, 'there')));
		expect(answers.filter((error) => error instanceof FieldError)).to.have.length(5);
	});

	it('counts the many addresses of one line as one', async () => {
		for (let guess = 0; guess < 5; guess++) await wrong(guess, `2001:db8:1:2:${guess}::1`);
		expect(await wrong(6, '2001:db8:1:2:ffff::9')).to.be.instanceOf(RefusedError);
		expect(await wrong(7, '2001:db8:1:3::1')).to.be.instanceOf(FieldError);
	});

	it('lets the owner in with a browser that is known, however many strangers guess', async () => {
		const { browser } = await signIn(world, 'lime-and-plaster', from('home'));
		for (let guess = 0; guess < 50; guess++) await wrong(guess, `10.0.0.${guess}`);
		expect(await wrong(51, '10.0.1.1')).to.be.instanceOf(RefusedError);
		expect(await enter('home', browser)).to.be.a('string');
		// It has five guesses of its own, and a browser that only says it is known has none.
		expect(await wrong(52, 'home', `${browser}x`)).to.be.instanceOf(RefusedError);
		for (let guess = 0; guess < 5; guess++)
			expect(await wrong(guess, `far ${guess}`, browser)).to.be.instanceOf(FieldError);
		expect(await wrong(6, 'far away', browser)).to.be.instanceOf(RefusedError);
	});

	it('slows guesses at the password that is to be changed', async () => {
		const change = (current: string) =>
			changePassword(world, current, 'scratch-coat-first', from('here')).catch((error) => error);
		for (let guess = 0; guess < 5; guess++)
			expect(await change(`guess ${guess}`)).to.be.instanceOf(FieldError);
		expect(await change('lime-and-plaster')).to.be.instanceOf(RefusedError);
	});

	it('refuses a password that is easy to guess; a change signs everyone out', async () => {
		for (const weak of [
			'short',
			'aaaaaaaaaaaa',
			'password123',
			'P@ssw0rd1234',
			'qwertyuiop',
			'x'.repeat(201)
		]) {
			expect(await setPassword(world, weak).catch((error) => error), weak).to.be.instanceOf(
				FieldError
			);
		}
		const token = await enter();
		await changePassword(world, 'lime-and-plaster', 'scratch-coat-first', from('here'));
		expect(isSignedIn(world, token)).to.equal(false);
	});
});

describe('the business', () => {
	it('is refused without what the law needs, each message at its field', () => {
		expect(
			fieldsOf(() =>
				saveBusiness(world, {
					...BUSINESS,
					ownerName: ' ',
					address: '',
					vatNumber: '123',
					utr: '1'
				})
			)
		).to.include.members(['ownerName', 'address']);
		expect(
			fieldsOf(() => saveBusiness(world, { ...BUSINESS, vatNumber: '444444455' }))
		).to.deep.equal(['vatNumber']);
	});
	it('takes what a document is the first to need, and nothing else with it', () => {
		saveBusiness(world, { ...BUSINESS, vatNumber: '', utr: '', bankSortCode: '' });
		const asked = (asks: string, given: Record<string, unknown>) =>
			fieldsOf(() => void giveMissing(world, asks, given));
		expect(asked('vatNumber', { vatNumber: ' ' })).to.deep.equal(['vatNumber']);
		expect(asked('vatNumber', { vatNumber: '444444455' })).to.deep.equal(['vatNumber']);
		expect(asked('bank', { bankSortCode: '123456' })).to.deep.equal(['bankAccountNumber']);
		expect(asked('constructor', {})).to.deep.equal(['']);
		giveMissing(world, 'vatNumber', { vatNumber: 'GB 444 4444 54', ownerName: 'Somebody Else' });
		giveMissing(world, 'utr', { utr: '22345 67890' });
		giveMissing(world, 'bank', { bankSortCode: '123456', bankAccountNumber: '00012345' });
		const seller = giveMissing(world, 'series', { invoicePattern: 'A-{nnn}', invoiceNext: '40' });
		expect(seller).to.deep.include({
			ownerName: 'Tamsin Orrell',
			tradingName: 'Orrell Lime & Plaster',
			utr: '2234567890',
			bank: {
				accountName: 'Orrell Lime & Plaster',
				sortCode: '12-34-56',
				accountNumber: '00012345'
			},
			vatStatuses: [{ from: '0001-01-01', registered: true, number: '444444454' }]
		});
		expect(businessSettings(world)).to.include({ invoicePattern: 'A-{nnn}', invoiceNext: 40 });
	});
	it('saves one part, and leaves what another window has saved meanwhile', () => {
		savePart(world, 'bank', { bankSortCode: '123456', bankAccountNumber: '00012345', utr: '1' });
		savePart(world, 'invoices', { invoicePattern: 'A-{nnn}', invoiceNext: '40', termsDays: '7' });
		expect(businessSettings(world)).to.include({
			bankSortCode: '12-34-56',
			bankAccountName: '',
			utr: BUSINESS.utr,
			tradingName: BUSINESS.tradingName,
			termsDays: 7,
			// A box that was not ticked.
			copyToSelf: false
		});
		expect(fieldsOf(() => savePart(world, 'toString', {}))).to.deep.equal(['']);
		expect(fieldsOf(() => savePart(world, 'you', { ownerName: 'A' }))).to.deep.equal(['address']);
	});
	it('asks from which day a change of VAT registration holds', () => {
		expect(
			fieldsOf(() => saveBusiness(world, { ...BUSINESS, vatRegistered: undefined }))
		).to.deep.equal(['vatFrom']);
		saveBusiness(world, { ...BUSINESS, vatRegistered: undefined, vatFrom: '2026-12-01' });
	});
	it('never gives a number twice', async () => {
		await issued(world, HOUSEHOLD);
		expect(fieldsOf(() => saveBusiness(world, { ...BUSINESS, invoiceNext: 7 }))).to.deep.equal([
			'invoiceNext'
		]);
	});
});

describe('customers', () => {
	it('can be added with only a name', () => {
		const id = addCustomer(world, { name: 'Someone New' });
		expect(customerDetail(world, id)).to.include({
			kind: 'household',
			address: '',
			outstanding: 0
		});
	});

	const wrong: [string, object, string][] = [
		['no name', { name: '  ' }, 'name'],
		['an e-mail address that is none', { name: 'A', email: 'nobody' }, 'email'],
		[
			'a rate for a household',
			{ name: 'A', standing: { from: '', cisRate: '20' } },
			'standing.cisRate'
		],
		[
			'20 % with a number that says not matched',
			{ ...CONTRACTOR, standing: { ...CONTRACTOR.standing, verificationNumber: 'V1234567890A' } },
			'standing.cisRate'
		],
		['a bill-to that is not there', { name: 'A', billToId: 999 }, 'billToId'],
		['a name of 10,000 characters', { name: 'x'.repeat(10_000) }, 'name']
	];
	it('keeps a VAT number with a wrong digit: that is said, and stands in nobody’s way', () => {
		const standing = { ...CONTRACTOR.standing, vatNumber: '123456783' };
		expect(fieldsOf(() => addCustomer(world, { ...CONTRACTOR, standing }))).to.deep.equal([]);
	});

	for (const [name, form, field] of wrong)
		it(`refuses ${name}, at its field`, () =>
			expect(fieldsOf(() => addCustomer(world, form))).to.include(field));

	it('a bill-to cannot go round in a circle', () => {
		const a = addCustomer(world, { name: 'A' });
		const b = addCustomer(world, { name: 'B', billToId: a });
		expect(fieldsOf(() => saveCustomer(world, a, 1, { name: 'A', billToId: b }))).to.deep.equal([
			'billToId'
		]);
	});

	it('a second tab does not overwrite the first', () => {
		const id = addCustomer(world, { name: 'A' });
		saveCustomer(world, id, 1, { name: 'A from one tab' });
		expect(() => saveCustomer(world, id, 1, { name: 'A from the other' })).to.throw(ConflictError);
		expect(customerDetail(world, id).name).to.equal('A from one tab');
	});

	it('the bill goes to the bill-to, its accounts contact first', () => {
		const agent = addCustomer(world, {
			name: 'Agent',
			email: 'office@agent.example',
			contacts: [{ name: 'Ottoline', role: 'accounts', email: 'accounts@agent.example' }]
		});
		const landlord = addCustomer(world, {
			name: 'Landlord',
			email: 'landlord@post.example',
			billToId: agent
		});
		expect(mailAddresses(world.db, landlord)).to.deep.equal([
			'accounts@agent.example',
			'office@agent.example',
			'landlord@post.example'
		]);
	});

	it('is archived only when nothing is open, and found by any words in any order', async () => {
		const { customerId } = await issued(world, HOUSEHOLD);
		expect(() => archiveCustomer(world, customerId, true)).to.throw(RefusedError);
		expect(searchCustomers(world, 'harrow odile').map((one) => one.owed)).to.deep.equal([276000]);
		expect(searchCustomers(world, '100%_')).to.deep.equal([]);
	});
});

describe('drafts', () => {
	it('the same press begins one; an untouched one is used again', () => {
		expect(beginInvoice(world, 'k')).to.equal(beginInvoice(world, 'k'));
		expect(beginInvoice(world, 'another press')).to.equal(beginInvoice(world, 'k'));
	});
	it('keep what is typed exactly, wrong as it may be', () => {
		const { id, version } = draftOf(world, HOUSEHOLD);
		const sheet = { ...blankSheet(), rows: [line('a', '<b>bold</b>', ' £ 1,2x')], note: 'ü\n\t"' };
		saveDraft(world, id, version, sheet);
		expect(loadDraft(world.db, id).sheet).to.deep.equal(sheet);
	});
	it('are thrown away and brought back; copied without dates and order number', async () => {
		const { id } = draftOf(world, HOUSEHOLD);
		discardDraft(world, id, true);
		expect(() => loadDraft(world.db, id)).to.throw(NotFoundError);
		discardDraft(world, id, false);
		const done = await issued(world, CONTRACTOR, { orderNumber: 'BL-1', issueDate: '2026-11-20' });
		const copy = loadDraft(world.db, copyAsDraft(world, done.id, 'c')).sheet;
		expect([copy.orderNumber, copy.issueDate, copy.rows.length]).to.deep.equal(['', '', 2]);
		expect(() => discardDraft(world, done.id, true)).to.throw(RefusedError);
	});
});

describe('lists and next moves', () => {
	const query: ListQuery = { state: 'all', age: 'any', search: '', customerId: null, cursor: null };
	const numbers = (change: Partial<ListQuery>) =>
		listDocuments(world, { ...query, ...change }).rows.map((row) => row.number);

	it('are found by name, number, amount and words, by state and by age', async () => {
		await issued(world, CONTRACTOR);
		world.clock.set(world.clock.now() + 50 * 86_400_000);
		await issued(world, HOUSEHOLD);
		draftOf(world, { name: 'Gethin' });
		expect(numbers({ search: 'mesh' })).to.have.length(3);
		expect(numbers({ search: 'beacon 0007' })).to.deep.equal(['INV-0007']);
		expect(numbers({ search: '2,760.00' })).to.include('INV-0008');
		expect(numbers({ search: '" OR * (' })).to.deep.equal([]);
		expect(numbers({ state: 'late' })).to.deep.equal(['INV-0007']);
		expect(numbers({ age: '1-30' })).to.deep.equal(['INV-0007']);
		expect(numbers({ age: '31-60' })).to.deep.equal([]);
		expect(numbers({ state: 'draft' })).to.deep.equal([null]);
		expect(find(world, 'brancaster').map((one) => one.kind)).to.deep.equal([
			'customer',
			'document'
		]);
	});

	it('put the most money first, and say when there is nothing to do', async () => {
		expect(nextMoves(world)).to.deep.equal([]);
		await issued(world, HOUSEHOLD);
		await issued(world, { ...HOUSEHOLD, name: 'Larger' }, { rows: [line('a', 'Large', '9000')] });
		world.clock.set(world.clock.now() + 20 * 86_400_000);
		const moves = nextMoves(world);
		expect(moves.map((move) => move.amount)).to.deep.equal([
			10800_00n,
			10800_00n,
			2760_00n,
			2760_00n
		]);
		expect(moves.map((move) => move.title)).to.include.members([
			'Larger is 6 days late',
			'Send INV-0007 to Odile Brancaster'
		]);
	});
});
