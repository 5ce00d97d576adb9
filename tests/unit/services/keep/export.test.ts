// What leaves the house: an archive of all, one of a person, and what goes when a person is removed.
// Over 300 lines: what is in it, part by part.
import { expect } from 'chai';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PassThrough } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { after, before, describe, it } from 'mocha';
import { eq } from 'drizzle-orm';
import ICAL from 'ical.js';
import Papa from 'papaparse';
import sharp from 'sharp';
import { auditBooks } from '../../../../scripts/audit/books';
import { connect } from '../../../../src/lib/server/db/connection';
import { customers, documentFiles, savedCards } from '../../../../src/lib/server/db/schema';
import { dataFile, MIGRATIONS } from '../../../../src/lib/server/open';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { addFile } from '../../../../src/lib/server/services/files/files';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { makeBackup } from '../../../../src/lib/server/services/keep/backups';
import { exportAll } from '../../../../src/lib/server/services/keep/export';
import {
	exportPerson,
	keptUntil,
	whatIsKept
} from '../../../../src/lib/server/services/keep/person';
import { removePerson } from '../../../../src/lib/server/services/keep/removal';
import { openBackup, swapIn } from '../../../../src/lib/server/services/keep/restore';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { addEnquiry, moveEnquiry } from '../../../../src/lib/server/services/enquiries/enquiries';
import { saveVisit } from '../../../../src/lib/server/services/jobs/visits';
import { acceptQuote } from '../../../../src/lib/server/services/quotes/accept';
import { askQuestion } from '../../../../src/lib/server/services/quotes/page';
import {
	beginQuote,
	loadQuote,
	saveQuote
} from '../../../../src/lib/server/services/quotes/quotes';
import { confirmAcceptances } from '../../../../src/lib/server/services/quotes/record';
import { sendQuote } from '../../../../src/lib/server/services/quotes/send';
import { beginSheet, loadSheet } from '../../../../src/lib/server/services/signing/sheets';
import { finishSheet } from '../../../../src/lib/server/services/signing/sheetPaper';
import { recordSignatures, signSheet } from '../../../../src/lib/server/services/signing/sign';
import { proposeTelling, tellCustomer } from '../../../../src/lib/server/services/telling/telling';
import { payByHand } from '../../../support/money';
import { unzip } from '../../../support/unzip';
import { richBooks, type RichBooks } from '../../../support/richBooks';
import { HOUSEHOLD, issued, line, makeWorld, NOW, type TestWorld } from '../../../support/world';

async function archive(write: (out: PassThrough) => Promise<void>): Promise<Map<string, Buffer>> {
	const out = new PassThrough();
	const [bytes] = await Promise.all([buffer(out), write(out)]);
	return unzip(bytes);
}
const rows = (csv: Buffer) =>
	Papa.parse<Record<string, string>>(csv.toString(), { header: true, skipEmptyLines: true }).data;
const photo = () =>
	sharp({ create: { width: 40, height: 30, channels: 3, background: '#777' } })
		.jpeg()
		.toBuffer();

/** A quote that was accepted on the spot. @returns its number */
async function agreedQuote(world: TestWorld, customerId: number): Promise<string> {
	const id = await sentQuote(world, customerId, 'agreed');
	acceptQuote(
		world,
		id,
		{
			key: 'k',
			n: 1,
			total: loadQuote(world.db, id).total,
			picked: '{"options":{},"extras":{}}',
			name: 'Odile'
		},
		{ way: 'spot', informed: 'page', from: { address: '', agent: '' } }
	);
	await confirmAcceptances(world);
	return loadQuote(world.db, id).number!;
}

async function sentQuote(world: TestWorld, customerId: number, title: string): Promise<number> {
	const id = beginQuote(world, `quote of ${title.length}`, { customerId, title });
	const { sheet, version } = loadQuote(world.db, id);
	saveQuote(world, id, version, { ...sheet, rows: [line('a', 'Lime wash', '100')] });
	await sendQuote(world, id, version + 1, { key: 's', byHand: true });
	return id;
}

describe('an export of rich books', () => {
	let books: RichBooks;
	let world: TestWorld;
	let all: Map<string, Buffer>;
	let agreed: string;
	before(async function () {
		this.timeout(60_000);
		books = await richBooks();
		({ world } = books);
		const customerId = addCustomer(world, { ...HOUSEHOLD, name: '=cmd|x', address: 'A / B' });
		const job = addJob(world, 'photo', { title: 'Kitchen: ../../north', customerId });
		await addFile(world, { to: 'job', id: job }, 'wall?.jpg', await photo());
		world.db.$client
			.prepare(
				"insert into visits (job_id, date, \"from\", \"to\", person, note) values (?, '2026-11-30', '09:30', '11:00', '', 'Bring; the, ladder')"
			)
			.run(job);
		await addFile(
			world,
			{ to: 'enquiry', id: addEnquiry(world, 'e', { name: 'Odile', what: 'A wall' }) },
			'damp.jpg',
			await photo()
		);
		agreed = await agreedQuote(world, customerId);
		const sheet = beginSheet(world, job, 'sheet');
		await finishSheet(world, sheet, 1);
		signSheet(
			world,
			sheet,
			{ key: 'k', name: 'Odile', of: loadSheet(world.db, sheet).sha256 },
			{ way: 'phone', from: { address: '', agent: '' } }
		);
		await recordSignatures(world);
		all = await archive((out) => exportAll(world.db, out, NOW));
	});
	after(() => world.end());

	it('has every document as it was issued', () => {
		const issuedFiles = world.db.select().from(documentFiles).all();
		const papers = [...all].filter(([name]) => name.startsWith('documents/'));
		expect(papers).to.have.length(issuedFiles.length);
		const plain = issuedFiles.find((one) => one.documentId === books.ids.plain)!;
		const found = papers.find(([name]) => name.startsWith('documents/2026/INV-0007 '))!;
		expect(found[1].equals(plain.content)).to.equal(true);
	});

	it('has every version of a quote, what was accepted, job sheets, and what was signed', () => {
		const papers = [...all.keys()].filter((name) => /^(quotes|job sheets|signed)\//.test(name));
		expect(papers.map((name) => name.replace(/J-\d+/, 'J'))).to.deep.equal([
			`quotes/${agreed} version 1.pdf`,
			`quotes/${agreed} as accepted.pdf`,
			'job sheets/J-1.pdf',
			'signed/J-1 signed by Odile.pdf'
		]);
		expect(all.get(`quotes/${agreed} as accepted.pdf`)!.toString()).to.contain('Accepted by Odile');
		expect([...all.keys()].filter((name) => name.startsWith('files/Enquiry'))).to.have.length(1);
	});

	it('has the tables in pounds, without what opens anything, and no cell that a spreadsheet runs', () => {
		const documents = rows(all.get('tables/documents.csv')!);
		const plain = documents.find((row) => row.id === String(books.ids.plain))!;
		// Render 100.00 and sand 50.00, with VAT.
		expect(plain).to.include({ net: '150.00', vat_charged: '30.00', total: '180.00', token: '' });
		expect(plain.issued_at).to.equal('2026-11-24T09:00:00.000Z');
		const names = rows(all.get('tables/customers.csv')!).map((row) => row.name);
		expect(names).to.include("'=cmd|x");
		for (const left of ['owners', 'sessions', 'secrets', 'known_browsers'])
			expect([...all.keys()]).to.not.include(`tables/${left}.csv`);
	});

	it('has the journal in full, and it balances', () => {
		const postings = rows(all.get('journal.csv')!);
		const count = world.db.$client.prepare('select count(*) from journal_lines').pluck().get();
		expect(postings).to.have.length(count as number);
		const pence = (text: string | undefined) => Number((text || '0').replace('.', ''));
		const sum = (column: string) => postings.reduce((total, row) => total + pence(row[column]), 0);
		expect(sum('Debit')).to.equal(sum('Credit'));
		expect(sum('Debit')).to.be.greaterThan(100_000);
	});

	it('has photos by their names that no system takes amiss, and visits that a calendar reads', () => {
		const files = [...all.keys()].filter((name) => name.startsWith('files/'));
		expect(files).to.have.length(2);
		expect(files.find((name) => name.includes('wall'))).to.match(
			/^files\/[^/]+ Kitchen [^/]*north\/wall .jpg$/
		);
		const calendar = new ICAL.Component(ICAL.parse(all.get('visits.ics')!.toString()) as unknown[]);
		const visit = calendar
			.getAllSubcomponents('vevent')
			.map((one) => new ICAL.Event(one))
			.find((one) => one.summary.startsWith('Kitchen'))!;
		expect(visit.startDate.toString()).to.equal('2026-11-30T09:30:00');
		expect(visit.endDate.toString()).to.equal('2026-11-30T11:00:00');
		expect(visit.description).to.equal('Bring; the, ladder');
	});
});

describe('a person’s data', () => {
	let world: TestWorld;
	let odile: number;
	let accepted: string;
	before(async function () {
		this.timeout(60_000);
		world = makeWorld();
		const invoice = await issued(world, {
			...HOUSEHOLD,
			phone: '07700 900111',
			privateNote: 'Dog bites'
		});
		odile = invoice.customerId;
		payByHand(
			world,
			invoice.id,
			String(
				Number(world.db.$client.prepare('select outstanding from open_items').pluck().get()) / 100
			)
		);
		const job = addJob(world, 'j', { title: 'Boudoir', customerId: odile });
		await addFile(world, { to: 'job', id: job }, 'boudoir.jpg', await photo());
		world.db
			.insert(savedCards)
			.values({ customerId: odile, token: 'tok', lastDigits: 'KX42', consentAt: NOW })
			.run();
		const kept = addJob(world, 'told', { title: 'Told', customerId: odile });
		const visit = saveVisit(world, kept, null, { date: '2026-11-30', from: '9', to: '' });
		tellCustomer(world, visit, proposeTelling(world, visit, 'booked'));
		await deliverDue(world);
		const asked = addEnquiry(world, 'asked', { name: 'Odile', what: 'Peeling privy', phone: '1' });
		await addFile(world, { to: 'enquiry', id: asked }, 'privy.jpg', await photo());
		world.db.transaction((tx) => moveEnquiry(tx, world, asked, { customerId: odile }));
		askQuestion(world, loadQuote(world.db, await sentQuote(world, odile, 'Gilded cornice')).token, {
			key: 'q',
			question: 'Is it real gold?'
		});
		await deliverDue(world);
		accepted = await agreedQuote(world, odile);
		await deliverDue(world);
		await issued(world, { ...HOUSEHOLD, name: 'Somebody Else' });
	});
	after(() => world.end());
	const everything = () => readFileSync(dataFile(world.folder)).toString('latin1');

	it('is all in one archive, and nobody else’s', async () => {
		const zip = await archive((out) => exportPerson(world.db, odile, out, NOW));
		const text = [...zip.values()].map((one) => one.toString('latin1')).join();
		for (const word of ['Odile Brancaster', '07700 900111', 'Dog bites', 'Boudoir'])
			expect(text).to.include(word);
		expect(text).to.not.include('Somebody Else');
		expect([...zip.keys()].filter((name) => name.startsWith('documents/'))).to.have.length(1);
	});

	it('stays as long as the law asks: the later of five years after 31 January and six years for VAT', () => {
		// Tax year 2026-27 ends on 5 April 2027; its return is due by 31 January 2028.
		expect(keptUntil('2026-11-24', false)).to.equal('2033-01-31');
		expect(keptUntil('2027-04-05', true)).to.equal('2033-04-06');
		expect(keptUntil('2027-04-06', false)).to.equal('2034-01-31');
		expect(whatIsKept(world, odile).stays).to.include({
			documents: 1,
			payments: 1,
			until: '2033-01-31'
		});
	});

	it('is not removed while anything is open, nor of a firm', async () => {
		const open = world.db.select().from(customers).where(eq(customers.name, 'Somebody Else')).get()!
			.id;
		expect(whatIsKept(world, open).why).to.match(/1 invoice not settled/);
		const firm = addCustomer(world, { ...HOUSEHOLD, name: 'Firm', kind: 'business' });
		expect(whatIsKept(world, firm).why).to.match(/a firm/);
		expect(
			await removePerson(world, open).then(
				() => null,
				(e: unknown) => (e as Error).message
			)
		).to.match(/still something open/);
		expect(
			await removePerson(world, 999).then(
				() => null,
				(e: unknown) => (e as Error).message
			)
		).to.match(/This customer/);
	});

	it('goes where nothing asks for it, the books stay whole, and a backup does not bring it back', async function () {
		this.timeout(60_000);
		const old = join(world.folder, 'backups', (await makeBackup(world, 'hand')).name);
		let forgotten = '';
		world.card.forgetCard = async (token) => void (forgotten = token);
		await removePerson(world, odile);
		expect(forgotten).to.equal('tok');
		world.db.$client.pragma('wal_checkpoint(TRUNCATE)');
		world.db.$client.exec('vacuum');
		world.db.$client.pragma('wal_checkpoint(TRUNCATE)');
		for (const word of [
			'07700 900111',
			'Dog bites',
			'boudoir.jpg',
			'Boudoir',
			'tok,',
			'KX42',
			'privy',
			'Gilded cornice',
			'real gold'
		])
			expect(everything(), word).to.not.include(word);
		expect(auditBooks(world.db.$client)).to.deep.equal([]);
		// What was agreed is a contract, and is kept as one.
		expect(everything()).to.include(accepted);
		expect(whatIsKept(world, odile)).to.deep.include({ name: 'Odile Brancaster', household: true });
		expect(whatIsKept(world, odile).removed).to.not.equal(null);

		const into = join(world.folder, 'elsewhere');
		// What is listed apart lies beside the backups too, since the next of them.
		await makeBackup(world, 'hand');
		expect(existsSync(join(world.folder, 'backups', 'removals.jsonl'))).to.equal(true);
		await swapIn(await openBackup(old, into, '', MIGRATIONS, NOW), dataFile(into), NOW);
		const restored = connect(dataFile(into));
		expect(restored.select().from(customers).where(eq(customers.id, odile)).get()).to.include({
			phone: '',
			privateNote: ''
		});
		expect(restored.$client.prepare('select count(*) from files').pluck().get()).to.equal(0);
		restored.$client.close();
		writeFileSync(join(into, 'x'), '');
		rmSync(into, { recursive: true });
	});
});
