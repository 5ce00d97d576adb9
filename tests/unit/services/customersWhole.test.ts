import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { readCards, writeCard } from '../../../src/lib/core/formats/vcard';
import { usualDays } from '../../../src/lib/core/settlement/account';
import { customers, documents } from '../../../src/lib/server/db/schema';
import { customerAccount, daysToPay } from '../../../src/lib/server/services/owed/customerAccount';
import { expectSoundBooks } from '../../support/books';
import {
	exportCards,
	exportCustomers,
	importCustomers,
	previewCustomers
} from '../../../src/lib/server/services/customers/file';
import { mergeCustomers } from '../../../src/lib/server/services/customers/merge';
import {
	addCustomer,
	customerDetail,
	searchCustomers
} from '../../../src/lib/server/services/customers/customers';
import { loadDraft } from '../../../src/lib/server/services/invoices/drafts';
import { ConflictError, FieldError, NotFoundError } from '../../../src/lib/core/refusals';
import { addJob } from '../../../src/lib/server/services/jobs/jobs';
import { listJobs } from '../../../src/lib/server/services/jobs/list';
import { recordPayment } from '../../../src/lib/server/services/money/payments';
import {
	beginFrom,
	copyToCustomers,
	keepStartingPoint,
	loadStartingPoint,
	removeStartingPoint,
	saveStartingPoint,
	listStartingPoints
} from '../../../src/lib/server/services/invoices/startingPoints';
import {
	CONTRACTOR,
	draftOf,
	HOUSEHOLD,
	issued,
	makeWorld,
	type TestWorld,
	line
} from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const bytes = (text: string) => new TextEncoder().encode(text);

describe('customers as files', () => {
	const CSV =
		'Name,Email,Address,Town,Postcode,Tags\nOdile Brancaster,odile@post.example,Lantern House,Harrowmere,WM4,heritage; flats\n,nobody@post.example,,,,\nBad Mail,not a mail,,,,\n';

	it('come in once, with a report line by line', () => {
		expect(previewCustomers(world, bytes(CSV)).map((row) => row.outcome)).to.deep.equal([
			'new',
			'wrong',
			'wrong'
		]);
		expect(searchCustomers(world, '')).to.have.length(0);
		importCustomers(world, bytes(CSV));
		expect(importCustomers(world, bytes(CSV))[0]!.outcome).to.equal('same');
		const [one] = searchCustomers(world, 'heritage');
		expect(one).to.include({ name: 'Odile Brancaster', address: 'Lantern House\nHarrowmere\nWM4' });
		expect([...exportCustomers(world)].join('')).to.include('heritage; flats');
	});

	it('vCards of phones and firms come in, and go out so that they come in again', () => {
		const { people } = readCards(
			'BEGIN:VCARD\r\nVERSION:3.0\r\nN:Penhallow;Ada;;;\r\nFN:Ada Penhallow\r\nTEL;TYPE=CELL:07700 900123\r\nADR;TYPE=HOME:;;14 Sluice Lane;Harrowmere;;WM4;\r\nEND:VCARD\r\nBEGIN:VCARD\r\nVERSION:4.0\r\nORG:Corvane Dairy Ltd\r\nFN:Wilf Corvane\r\nEMAIL:office@corvane.example\r\nEND:VCARD\r\nnot a card'
		);
		expect(people.map((one) => [one.name, one.organisation, one.phones])).to.deep.equal([
			['Ada Penhallow', '', ['07700 900123']],
			['Wilf Corvane', 'Corvane Dairy Ltd', []]
		]);
		expect(people[0]!.address).to.equal('14 Sluice Lane\nHarrowmere\nWM4');
		const text = people
			.map(({ name, organisation, emails, phones, address }) =>
				writeCard({
					name: organisation || name,
					firm: organisation !== '',
					email: emails[0] ?? '',
					phone: phones[0] ?? '',
					address,
					contact: organisation ? name : ''
				})
			)
			.join('');
		expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).to.equal(true);
		importCustomers(world, bytes(text));
		expect([...exportCards(world)].join('')).to.include('ORG:Corvane Dairy Ltd');
		expect(
			importCustomers(world, bytes([...exportCards(world)].join(''))).map((row) => row.outcome)
		).to.deep.equal(['same', 'same']);
	});

	it('a file without anybody, or without a name column, is refused in words', () => {
		expect(() => previewCustomers(world, bytes('BEGIN:VCARD\nrubbish'))).to.throw(
			FieldError,
			/nobody/
		);
		expect(() => previewCustomers(world, bytes('x,y\n1,2\n'))).to.throw(
			FieldError,
			/looks like a name/
		);
	});
});

describe('a customer’s account', () => {
	it('runs from document to payment, and says how long they take', async () => {
		const { id, customerId, number } = await issued(world, HOUSEHOLD);
		world.clock.set(world.clock.now() + 9 * 86_400_000);
		recordPayment(world, id, {
			key: 'p',
			date: world.clock.today(),
			amount: '2760.00',
			withheld: '',
			way: 'bank',
			reference: '',
			allowOverpaid: false
		});
		expect(
			customerAccount(world, customerId).map((row) => [row.what, row.amount, row.balance])
		).to.deep.equal([
			[`Invoice ${number}`, 2760_00n, 2760_00n],
			[`Payment ${number}`, -2760_00n, 0n]
		]);
		expect(daysToPay(world, customerId)).to.deep.equal({ days: 9, of: 1 });
		expect([usualDays([]), usualDays([5]), usualDays([30, 5, 7, 9])]).to.deep.equal([null, 5, 7]);
	});
});

describe('two customers that are one', () => {
	it('are merged: what lives moves, what is issued stays, the other is archived', async () => {
		const keep = addCustomer(world, { ...HOUSEHOLD, labels: ['a'] });
		const draft = draftOf(world, {
			...HOUSEHOLD,
			name: 'O. Brancaster',
			labels: ['b'],
			sites: [{ name: 'Attic' }]
		});
		const job = addJob(world, 'j', { title: 'Attic', customerId: draft.customerId });
		mergeCustomers(world, draft.customerId, keep);
		expect(customerDetail(world, keep)).to.deep.include({ labels: ['a', 'b'] });
		expect(customerDetail(world, keep).sites.map((site) => site.name)).to.deep.equal(['Attic']);
		expect(listJobs(world, { customerId: keep }).rows.map((row) => row.id)).to.deep.equal([job]);
		expect(loadDraft(world.db, draft.id).sheet.customerId).to.equal(keep);
		expect(customerDetail(world, draft.customerId).archivedAt).not.to.equal(null);
	});
	it('are not merged while something is open on the one that goes', async () => {
		const open = await issued(world, HOUSEHOLD);
		expect(() => mergeCustomers(world, open.customerId, addCustomer(world, CONTRACTOR))).to.throw(
			FieldError,
			/still open/
		);
		expect(() => mergeCustomers(world, open.customerId, open.customerId)).to.throw(
			FieldError,
			/same customer/
		);
	});
});

describe('used again', () => {
	it('a starting point begins drafts and never changes', async () => {
		const { id } = await issued(world, CONTRACTOR);
		keepStartingPoint(world, id, 'Render');
		keepStartingPoint(world, id, 'Render');
		const [point, ...more] = listStartingPoints(world);
		expect(more).to.deep.equal([]);
		const draft = beginFrom(world, point!.id, 'press');
		expect(beginFrom(world, point!.id, 'press')).to.equal(draft);
		const { sheet } = loadDraft(world.db, draft);
		expect([sheet.customerId, sheet.issueDate, sheet.rows.length]).to.deep.equal([null, '', 2]);
		expect(() => keepStartingPoint(world, id, ' ')).to.throw(FieldError);
	});
	it('a starting point is changed by its name and lines, and what was begun from it is not', async () => {
		const { id } = await issued(world, CONTRACTOR);
		keepStartingPoint(world, id, 'Render');
		keepStartingPoint(world, id, 'Skim');
		const { id: point, updatedAt } = loadStartingPoint(
			world.db,
			listStartingPoints(world).find(({ name }) => name === 'Render')!.id
		);
		const begun = beginFrom(world, point, 'press');
		const { sheet } = loadStartingPoint(world.db, point);
		const changed = {
			...sheet,
			customerId: 1,
			dueDate: '2026-12-24',
			rows: [line('n', 'Float', '9')]
		};
		const save = (version: number, name: string, typed: unknown = changed) =>
			saveStartingPoint(world, point, version, name, typed);
		expect(() => save(updatedAt, ' ')).to.throw(FieldError, /name/);
		expect(() => save(updatedAt, 'Skim')).to.throw(FieldError, /Another/);
		expect(() => save(updatedAt, 'Float', { rows: 'none' })).to.throw(FieldError);
		const version = save(updatedAt, ' Float ');
		expect(version).to.be.greaterThan(updatedAt);
		expect(() => save(updatedAt, 'Late')).to.throw(ConflictError);
		const kept = loadStartingPoint(world.db, point);
		expect([kept.name, kept.sheet.rows, kept.sheet.customerId, kept.sheet.dueDate]).to.deep.equal([
			'Float',
			changed.rows,
			null,
			''
		]);
		expect(loadDraft(world.db, begun).sheet.rows).to.have.length(2);
		removeStartingPoint(world, point);
		expect(() => save(version, 'Float')).to.throw(NotFoundError);
	});
	it('the same invoice goes to several customers, each with its own terms and tax', async () => {
		const { id } = await issued(world, CONTRACTOR);
		const household = addCustomer(world, HOUSEHOLD);
		const other = addCustomer(world, { ...CONTRACTOR, name: 'Other Builders' });
		const drafts = copyToCustomers(world, id, [household, other, household], 'press');
		expect(copyToCustomers(world, id, [household, other], 'press')).to.deep.equal(drafts);
		const sheets = drafts.map((draft) => loadDraft(world.db, draft).sheet);
		expect(
			sheets.map((sheet) => [sheet.customerId, sheet.contract, sheet.pricesIncludeVat])
		).to.deep.equal([
			[household, null, true],
			[other, 'construction', false]
		]);
		expect(() => copyToCustomers(world, id, [], 'x')).to.throw(FieldError);
		expect(
			world.db.select().from(documents).where(eq(documents.state, 'draft')).all()
		).to.have.length(2);
		expect(world.db.select().from(customers).all()).to.have.length(3);
	});
});
