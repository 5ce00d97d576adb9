import { expect } from 'chai';
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { documents } from '../../../src/lib/server/db/schema';
import { expectSoundBooks } from '../../support/books';
import { creditInvoice } from '../../../src/lib/server/services/invoices/creditNote';
import { removeCustomer, saveCustomer } from '../../../src/lib/server/services/customers/customers';
import { documentDetail, storedPdf } from '../../../src/lib/server/services/desk/documents';
import { beginInvoice, saveDraft } from '../../../src/lib/server/services/invoices/drafts';
import { ConflictError, FieldError, RefusedError } from '../../../src/lib/core/refusals';
import { NotReadyError } from '../../../src/lib/server/services/invoices/freeze';
import { issueInvoice } from '../../../src/lib/server/services/invoices/issue';
import { recordPayment } from '../../../src/lib/server/services/money/payments';
import { tryOut } from '../../../src/lib/server/services/invoices/trial';
import { blankSheet } from '../../../src/lib/core/sheet/blank';
import {
	CONTRACTOR,
	draftOf,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	type TestWorld,
	wordsOf
} from '../../support/world';

describe('issuing an invoice', () => {
	let world: TestWorld;
	beforeEach(() => (world = makeWorld()));
	afterEach(() => {
		expectSoundBooks(world.db);
		world.end();
	});

	const count = (query: string) =>
		world.db.get<{ n: number }>(sql.raw(`select count(*) as n from ${query}`)).n;

	it('takes the next number, freezes, posts, and stores the PDF', async () => {
		const { id, number } = await issued(world, CONTRACTOR);
		expect(number).to.equal('INV-0007');
		const detail = documentDetail(world, id);
		expect([detail.total, detail.item?.deduction, detail.toPay]).to.deep.equal([
			230000n,
			31600n,
			198400n
		]);
		expect(detail.view.statements.join()).to.contain(
			'Reverse charge: customer to account for VAT to HMRC (VATA 1994 s.55A)'
		);
		expect(storedPdf(world, id)?.content.subarray(0, 5).toString()).to.equal('%PDF-');
	});

	it('asked twice at once makes one invoice and takes one number', async () => {
		const draft = draftOf(world, CONTRACTOR);
		const both = await Promise.all([
			issueInvoice(world, draft.id, draft.version),
			issueInvoice(world, draft.id, draft.version)
		]);
		expect(both[0]).to.deep.equal(both[1]);
		expect(count("documents where state = 'issued'")).to.equal(1);
		expect((await issued(world, HOUSEHOLD)).number).to.equal('INV-0008');
	});

	it('many at once get numbers without gap or double', async () => {
		const drafts = Array.from({ length: 6 }, () => draftOf(world, HOUSEHOLD));
		const numbers = (
			await Promise.all(drafts.map((draft) => issueInvoice(world, draft.id, draft.version)))
		).map((one) => one.number);
		expect(numbers.sort()).to.deep.equal(
			['07', '08', '09', '10', '11', '12'].map((end) => `INV-00${end}`)
		);
	});

	it('is refused on a version that another tab has changed', async () => {
		const draft = draftOf(world, HOUSEHOLD);
		saveDraft(world, draft.id, draft.version, {
			...blankSheet(),
			customerId: draft.customerId,
			rows: [line('a', 'Other', '1')]
		});
		await issueInvoice(world, draft.id, draft.version).then(
			() => expect.fail(),
			(error) => expect(error).to.be.instanceOf(ConflictError)
		);
	});

	it('names everything that is missing, and takes no number', async () => {
		const id = beginInvoice(world, 'empty');
		const problems = await issueInvoice(world, id, 1).catch((error: NotReadyError) =>
			error.problems.map((problem) => problem.path)
		);
		expect(problems).to.include.members(['customer', 'rows']);
		expect((await issued(world, HOUSEHOLD)).number).to.equal('INV-0007');
	});

	it('asks for the address only where the law needs it', async () => {
		const { address: _, ...nowhere } = HOUSEHOLD;
		const small = await issued(world, nowhere, { rows: [line('a', 'Small repair', '200.00')] });
		expect(small.number).to.equal('INV-0007');
		const large = draftOf(world, { ...nowhere, name: 'Gethin' });
		const problems = await issueInvoice(world, large.id, large.version).catch(
			(error: NotReadyError) => error.problems.map((problem) => problem.path)
		);
		expect(problems).to.deep.equal(['customer.address']);
	});

	it('keeps what it was issued with when the customer changes', async () => {
		const { id, customerId } = await issued(world, CONTRACTOR);
		saveCustomer(world, customerId, 1, {
			...CONTRACTOR,
			name: 'Renamed Ltd',
			standing: {
				...CONTRACTOR.standing,
				endUser: true,
				endUserStatement: 'We use it',
				endUserDate: '2026-01-01',
				cisRate: '30'
			}
		});
		const detail = documentDetail(world, id);
		expect([
			detail.customerName,
			detail.figures.cis?.rate,
			detail.figures.decisions.reverseCharge.answer
		]).to.deep.equal([CONTRACTOR.name, '20', true]);
	});

	it('what is issued, posted or recorded cannot be changed or deleted, not even by hand', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		recordPayment(world, id, {
			key: 'p',
			date: '2026-11-24',
			amount: '10',
			withheld: '',
			way: 'cash',
			reference: '',
			allowOverpaid: false
		});
		const forbidden = [
			'update documents set total = 1',
			'delete from documents',
			'update document_lines set net = 1',
			'delete from document_lines',
			'update document_files set name = 1',
			'delete from document_files',
			'update journal_entries set date = 1',
			'delete from journal_entries',
			'update journal_lines set amount = 1',
			'delete from journal_lines',
			'update payments set amount = 1',
			'delete from payments',
			"update trail set what = ''"
		];
		for (const statement of forbidden)
			expect(() => world.db.run(sql.raw(statement)), statement).to.throw();
	});

	it('a removed customer stays on what was issued, and a draft says that it has gone', async () => {
		const { customerId } = await issued(world, HOUSEHOLD);
		expect(() => removeCustomer(world, customerId)).to.throw(RefusedError);
		const draft = draftOf(world, { ...HOUSEHOLD, name: 'Gone Soon' });
		removeCustomer(world, draft.customerId);
		const problems = await issueInvoice(world, draft.id, draft.version).catch(
			(error: Error) => error
		);
		expect(problems).to.be.instanceOf(Error);
		const { version } = saveDraft(world, draft.id, draft.version, {
			...blankSheet(),
			customerId: draft.customerId,
			rows: [line('a', 'Kept', '5')]
		});
		const again = await issueInvoice(world, draft.id, version).catch(
			(error: NotReadyError) => error.problems[0]?.message
		);
		expect(again).to.contain('has been removed');
	});

	it('holds 500 lines and texts of 10,000 characters, and says where a text is longer', async () => {
		const rows = Array.from({ length: 500 }, (_, index) =>
			line(`l${index}`, index ? `Line ${index}` : 'x'.repeat(10_000), '1.00')
		);
		const { id } = await issued(world, HOUSEHOLD, { rows });
		expect(documentDetail(world, id).total).to.equal(60000n);
		const draft = draftOf(
			world,
			{ ...HOUSEHOLD, name: 'Long' },
			{ rows: [line('a', 'x'.repeat(10_001), '1.00')] }
		);
		const problems = await issueInvoice(world, draft.id, draft.version).catch(
			(error: NotReadyError) => error.problems.map((problem) => problem.path)
		);
		expect(problems).to.include('rows.a.description');
	});

	it('a trial leaves no number, no journal and no trace in the figures', async () => {
		const draft = draftOf(world, HOUSEHOLD);
		const { link } = await tryOut(world, draft.id, 'r1');
		expect(link).to.match(/\/p\/[\w-]{32}$/);
		expect([
			count('journal_entries'),
			count('open_items'),
			count("documents where state = 'issued'")
		]).to.deep.equal([0, 0, 0]);
		expect((await issueInvoice(world, draft.id, draft.version)).number).to.equal('INV-0007');
	});

	it('a seller that is not registered issues an invoice without a word of VAT', async () => {
		const other = makeWorld({ vatRegistered: false, vatNumber: '' });
		const { id } = await issued(other, HOUSEHOLD);
		const { view } = documentDetail(other, id);
		const vat = view.columns.some(({ id: column }) => column === 'vat');
		expect([view.title, vat, view.vatTable.length]).to.deep.equal(['Invoice', false, 0]);
		expect(wordsOf(view)).to.not.contain('VAT');
		expectSoundBooks(other.db);
		other.end();
	});
});

describe('a credit note for a whole invoice', () => {
	let world: TestWorld;
	beforeEach(() => (world = makeWorld()));
	afterEach(() => {
		expectSoundBooks(world.db);
		world.end();
	});

	it('copies tax point and reverse charge, gets a number of its own, and settles the invoice', async () => {
		const { id, customerId } = await issued(world, CONTRACTOR);
		saveCustomer(world, customerId, 1, {
			...CONTRACTOR,
			standing: { ...CONTRACTOR.standing, endUser: true }
		});
		world.clock.set(world.clock.now() + 10 * 86_400_000);
		const note = await creditInvoice(world, id, 'Work not done', 'c1');
		expect(note.number).to.equal('CN-0001');
		const credit = documentDetail(world, note.id);
		expect([
			credit.frozen.taxPoint,
			credit.issueDate,
			credit.figures.decisions.reverseCharge.answer
		]).to.deep.equal(['2026-11-24', '2026-12-04', true]);
		expect(credit.view.statements.join()).to.contain('Reverse charge');
		const detail = documentDetail(world, id);
		expect([detail.item?.state, detail.item?.outstanding, detail.toPay]).to.deep.equal([
			'credited',
			0n,
			0n
		]);
		const balance = world.db.get<{ n: number }>(
			sql`select coalesce(sum(amount), 0) as n from journal_lines where account in ('receivable', 'sales', 'vatOutput')`
		);
		expect(balance.n).to.equal(0);
	});

	it('pressed twice it is one note; asked again it is refused; without a reason it is refused', async () => {
		const { id } = await issued(world, HOUSEHOLD);
		const first = await creditInvoice(world, id, 'Wrong house', 'c1');
		expect(await creditInvoice(world, id, 'Wrong house', 'c1')).to.deep.equal(first);
		const errors = await Promise.all([
			creditInvoice(world, id, 'Again', 'c2').catch((error) => error),
			creditInvoice(world, id, ' ', 'c3').catch((error) => error)
		]);
		expect(errors[0]).to.be.instanceOf(RefusedError);
		expect(errors[1]).to.be.instanceOf(FieldError);
		expect(
			world.db
				.select()
				.from(documents)
				.all()
				.filter((row) => row.kind === 'creditNote')
		).to.have.length(1);
	});

	it('on an invoice paid net, what was withheld goes back with it', async () => {
		const { id } = await issued(world, CONTRACTOR);
		recordPayment(world, id, {
			key: 'p',
			date: '2026-11-24',
			amount: '1984.00',
			withheld: '',
			way: 'bank',
			reference: '',
			allowOverpaid: false
		});
		await creditInvoice(world, id, 'All of it', 'c1');
		expect(documentDetail(world, id).item?.overpaid).to.equal(230000n);
	});
});
