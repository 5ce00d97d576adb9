// Backup and restore, on real files: figures bit by bit, seals, what is missing or broken, and books that rest until the owner has looked.
// Over 300 lines: one backup, followed to its end.
import { expect } from 'chai';
import {
	appendFileSync,
	chmodSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	truncateSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, afterEach, before, describe, it } from 'mocha';
import Sqlite from 'better-sqlite3';
import sharp from 'sharp';
import { deliverDue } from '../../../../src/lib/server/clockwork/delivery';
import { connect } from '../../../../src/lib/server/db/connection';
import { moveFilesOut, placeOf } from '../../../../src/lib/server/db/fileStore';
import {
	keepSecret,
	LockedError,
	sealKeyFile,
	secretOf,
	unlockKey
} from '../../../../src/lib/server/db/secrets';
import { dataFile, MIGRATIONS } from '../../../../src/lib/server/open';
import { addFile, filesOf, loadFile } from '../../../../src/lib/server/services/files/files';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { sendByMail, prepareSending } from '../../../../src/lib/server/services/invoices/send';
import {
	backupTrouble,
	makeBackup,
	runNightlyBackup,
	saveBackupSetting
} from '../../../../src/lib/server/services/keep/backups';
import { copyWhole } from '../../../../src/lib/server/services/keep/place';
import { auditBooks } from '../../../../scripts/audit/books';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { afterRestore, askSince, goOn } from '../../../../src/lib/server/services/keep/goingOn';
import { keepMoves } from '../../../../src/lib/server/services/keep/moves';
import { openBackup, RestoreError, swapIn } from '../../../../src/lib/server/services/keep/restore';
import { keysOf, sealing, sealKey, unseal } from '../../../../src/lib/server/services/keep/seal';
import { documents, mails } from '../../../../src/lib/server/db/schema';
import { richBooks, type RichBooks } from '../../../support/richBooks';
import {
	draftOf,
	HOUSEHOLD,
	issued,
	makeWorld,
	NOW,
	settledEvent,
	type TestWorld
} from '../../../support/world';
import { eq } from 'drizzle-orm';

const PHRASE = 'seven lime kilns by the weir';
const DAY = 86_400_000;
const folders: string[] = [];
const folder = () => {
	const made = mkdtempSync(join(tmpdir(), 'axiometer-keep-'));
	folders.push(made);
	return made;
};
after(() => folders.forEach((one) => rmSync(one, { recursive: true, force: true })));

const photo = (grey: number) =>
	sharp({
		create: { width: 40, height: 30, channels: 3, background: { r: grey, g: grey, b: grey } }
	})
		.jpeg()
		.toBuffer();
const later = (world: TestWorld, by: number) => world.clock.set(world.clock.now() + by);
const place = (world: TestWorld) => join(world.folder, 'backups');
const restore = async (file: string, into: string, phrase = '') => {
	const ready = await openBackup(file, into, phrase, MIGRATIONS, NOW);
	await swapIn(ready, dataFile(into), NOW);
	return ready;
};
/** Every row of every table that holds figures, as it stands. */
const contents = (file: string) => {
	const db = new Sqlite(file, { readonly: true });
	const names = db
		.prepare(
			"select name from sqlite_master where type = 'table' and name not in ('sessions', 'known_browsers', 'sign_in_failures', 'backups', 'restores', 'sqlite_sequence') and name not like '%\\_search\\_%' escape '\\' and name <> 'price_words' order by 1"
		)
		.pluck()
		.all() as string[];
	const all = names.map((name) => [name, db.prepare(`select * from "${name}"`).raw().all()]);
	db.close();
	return JSON.stringify(all);
};

describe('a backup of rich books', () => {
	let books: RichBooks;
	let world: TestWorld;
	let name: string;
	before(async function () {
		this.timeout(60_000);
		books = await richBooks();
		({ world } = books);
		const job = world.db.$client.prepare('select id from jobs limit 1').pluck().get() as number;
		await addFile(world, { to: 'job', id: job }, 'kitchen.jpg', await photo(90));
		const row = await makeBackup(world, 'hand');
		expect(row).to.include({ problem: '', found: 0, files: 1 });
		({ name } = row);
	});
	after(() => world.end());

	it('comes back bit by bit, with its photo, rests, and knows who is signed in no more', async () => {
		const into = folder();
		const look = await restore(join(place(world), name), into);
		expect(look).to.deep.include({
			found: 0,
			files: 1,
			missing: [],
			business: 'Orrell Lime & Plaster'
		});
		expect(contents(dataFile(into))).to.equal(contents(dataFile(world.folder)));
		const db = connect(dataFile(into));
		const stored = db.$client.prepare('select stored from files').pluck().get() as string;
		expect(
			readFileSync(placeOf(into, stored)).equals(readFileSync(placeOf(world.folder, stored)))
		).to.equal(true);
		expect(db.$client.prepare('select started_at, made_at from restores').get()).to.deep.equal({
			started_at: null,
			made_at: Math.floor(world.clock.now() / 1000) * 1000
		});
		db.$client.close();
		expect(existsSync(join(into, 'books-are-here'))).to.equal(true);
		expect(readdirSync(into)).to.not.include('restoring.sqlite');
	});

	it('keeps what was there as a backup of its own', async () => {
		const other = makeWorld();
		await issued(other, HOUSEHOLD);
		const before = contents(dataFile(other.folder));
		other.db.$client.close();
		await restore(join(place(world), name), other.folder);
		const [kept] = readdirSync(place(other)).filter((one) => one.endsWith('-hand.sqlite'));
		expect(contents(join(place(other), kept!))).to.equal(before);
		rmSync(other.folder, { recursive: true, force: true });
	});

	it('says which files are nowhere', async () => {
		const into = folder();
		const alone = join(folder(), name);
		writeFileSync(alone, readFileSync(join(place(world), name)));
		const ready = await openBackup(alone, into, '', MIGRATIONS, NOW);
		expect(ready.missing).to.have.length(1);
		expect(ready.found).to.equal(0);
	});

	const broken: [string, (file: string) => void, RegExp][] = [
		['cut short', (file) => truncateSync(file, 200_000), /damaged/],
		[
			'overwritten in the middle',
			(file) => {
				const bytes = readFileSync(file);
				bytes.fill(0x5a, 8192, 40_960);
				writeFileSync(file, bytes);
			},
			/damaged/
		],
		[
			'something else',
			(file) => writeFileSync(file, 'Dear all, these are not books at all.'),
			/no backup of Axiometer/
		],
		[
			'another program’s data file',
			(file) => {
				rmSync(file);
				const db = new Sqlite(file);
				db.exec('create table recipes (name text)');
				db.close();
			},
			/no backup of Axiometer/
		],
		[
			'of a later version',
			(file) => {
				const db = new Sqlite(file);
				db.exec(
					"insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)"
				);
				db.close();
			},
			/another version/
		]
	];
	for (const [what, change, words] of broken)
		it(`${what} is refused in words, and nothing is touched`, async () => {
			const into = folder();
			const file = join(folder(), name);
			writeFileSync(file, readFileSync(join(place(world), name)));
			change(file);
			const error = await openBackup(file, into, '', MIGRATIONS, NOW).then(
				() => null,
				(e: unknown) => e as Error
			);
			expect(error?.message).to.match(words);
			expect(readdirSync(into)).to.deep.equal([]);
		});

	it('is sealed with a passphrase, files and all, and opens with no other', async function () {
		this.timeout(60_000);
		await saveBackupSetting(world, { folder: '', sealed: true, passphrase: PHRASE, again: PHRASE });
		later(world, 1000);
		const row = await makeBackup(world, 'hand');
		expect(row.name).to.match(/\.sealed$/);
		const file = join(place(world), row.name);
		expect(readFileSync(file).includes(Buffer.from('Orrell'))).to.equal(false);
		const into = folder();
		const refused = await openBackup(file, into, 'another phrase', MIGRATIONS, NOW).then(
			() => null,
			(e: unknown) => e as Error
		);
		expect(refused).to.be.instanceOf(RestoreError);
		expect(refused!.message).to.match(/passphrase does not fit/);
		expect(
			(await openBackup(file, into, '', MIGRATIONS, NOW).then(
				() => null,
				(e: unknown) => e as Error
			))!.message
		).to.match(/takes its passphrase/);
		// Only the sealed photo is there.
		for (const shelf of readdirSync(join(place(world), 'files')))
			for (const one of readdirSync(join(place(world), 'files', shelf)))
				if (!one.endsWith('.sealed')) rmSync(join(place(world), 'files', shelf, one));
		const look = await restore(file, into, PHRASE);
		expect(look.missing).to.deep.equal([]);
		const db = connect(dataFile(into));
		const stored = db.$client.prepare('select stored from files').pluck().get() as string;
		expect(
			readFileSync(placeOf(into, stored)).equals(readFileSync(placeOf(world.folder, stored)))
		).to.equal(true);
		// The key with which backups are sealed did not come along.
		expect(secretOf(db, 'backup key')).to.equal(null);
		db.$client.close();
	});
});

describe('backups by themselves', () => {
	let world: TestWorld;
	afterEach(() => {
		chmodSync(world.folder, 0o700);
		world.end();
	});
	const names = () => readdirSync(place(world)).filter((one) => one.endsWith('.sqlite'));

	it('are made by night once, by day only where the last is old, and never of books without a past', async function () {
		this.timeout(60_000);
		world = makeWorld();
		await runNightlyBackup(world);
		expect(existsSync(place(world))).to.equal(false);
		world.clock.set(NOW + 18 * 3_600_000); // three in the morning
		await runNightlyBackup(world);
		await runNightlyBackup(world);
		expect(names()).to.have.length(1);
		later(world, 28 * 3_600_000);
		await runNightlyBackup(world);
		expect(names()).to.have.length(1);
		later(world, 3 * 3_600_000);
		await runNightlyBackup(world);
		expect(names()).to.have.length(2);
		expect(keepMoves(world)).to.deep.equal([]);
		later(world, 2 * DAY + 1000);
		expect(keepMoves(world)[0]).to.include({
			id: 'backup',
			title: 'The last backup is 2 days old'
		});
	});

	it('reach a second place, and say where it is not there', async function () {
		this.timeout(60_000);
		world = makeWorld();
		const stick = folder();
		const setting = { folder: stick, sealed: false, passphrase: '', again: '' };
		await saveBackupSetting(world, setting);
		const first = await makeBackup(world, 'hand');
		expect(readdirSync(stick)).to.include.members([first.name, `${first.name}.files`]);
		rmSync(stick, { recursive: true });
		later(world, 1000);
		const second = await makeBackup(world, 'hand');
		expect(second).to.include({
			problem: '',
			secondAt: null,
			secondProblem: `${stick} is not there`
		});
		expect(existsSync(stick)).to.equal(false);
		expect(backupTrouble(world)).to.match(/not in the second place/);
		expect(keepMoves(world)).to.deep.equal([]);
		later(world, 8 * DAY);
		await makeBackup(world, 'hand');
		expect(keepMoves(world)[0]).to.include({ id: 'backup-second' });
	});

	it('take no place within the data, none that is not there, and no weak passphrase', async () => {
		world = makeWorld();
		const problem = (given: object) =>
			saveBackupSetting(world, {
				folder: '',
				sealed: false,
				passphrase: '',
				again: '',
				...given
			}).then(
				() => ({}),
				(error: { fields: Record<string, string> }) => error.fields
			);
		expect(await problem({ folder: join(world.folder, '.') })).to.have.property('folder');
		expect(await problem({ folder: '/nowhere/at/all' })).to.have.property('folder');
		expect(await problem({ folder: 'stick' })).to.have.property('folder');
		expect(await problem({ sealed: true })).to.have.property('passphrase');
		expect(
			await problem({ sealed: true, passphrase: 'password1234', again: 'password1234' })
		).to.have.property('passphrase');
		expect(await problem({ sealed: true, passphrase: PHRASE, again: 'x' })).to.have.property(
			'again'
		);
	});

	it('that fail say why, leave no half of one behind, and are not tried again at once', async function () {
		this.timeout(60_000);
		world = makeWorld();
		world.clock.set(NOW + 18 * 3_600_000);
		await saveBackupSetting(world, { folder: '', sealed: true, passphrase: PHRASE, again: PHRASE });
		rmSync(join(world.folder, 'key'));
		mkdirSync(place(world));
		await runNightlyBackup(world);
		expect(backupTrouble(world)).to.match(/enter it again/);
		expect(
			readdirSync(place(world)).filter((one) => one.includes('making') || one.includes('.part'))
		).to.deep.equal([]);
		await runNightlyBackup(world);
		const tries = () => world.db.$client.prepare('select count(*) from backups').pluck().get();
		expect(tries()).to.equal(1);
		later(world, 3_600_001);
		await runNightlyBackup(world);
		expect(tries()).to.equal(2);
		expect(keepMoves(world)[0]).to.include({ id: 'backup', title: 'There is no backup yet' });
	});
});

describe('books of two days ago', () => {
	let old: TestWorld;
	let world: TestWorld;
	let known: number;
	let file: string;
	before(async function () {
		this.timeout(60_000);
		old = makeWorld();
		const invoice = await issued(old, HOUSEHOLD);
		known = invoice.id;
		const token = old.db.select().from(documents).where(eq(documents.id, known)).get()!.token!;
		await openCheckout(old, token, 'k1');
		sendByMail(old, known, {
			...prepareSending(old, known),
			key: 'send',
			to: HOUSEHOLD.email,
			copyToSelf: false
		});
		file = join(place(old), (await makeBackup(old, 'hand')).name);
		// Two days go by: the mail goes, the customer pays, another invoice is issued and paid online.
		later(old, 2 * DAY);
		await deliverDue(old);
		const lost = await issued(old, { ...HOUSEHOLD, name: 'Lost' });
		expect(lost.number).to.equal('INV-0008');
	});
	after(() => {
		old.end();
		world.end();
	});

	it('rest: nothing goes out, nothing is issued, and Today says so first', async function () {
		this.timeout(60_000);
		world = makeWorld();
		world.db.$client.close();
		await restore(file, world.folder);
		world.db = connect(dataFile(world.folder));
		world.clock.set(NOW + 2 * DAY);
		await deliverDue(world);
		expect(world.sent).to.deep.equal([]);
		const draft = draftOf(world, { ...HOUSEHOLD, name: 'New' });
		const refused = await issueInvoice(world, draft.id, draft.version).then(
			() => null,
			(e: unknown) => e as Error
		);
		expect(refused?.message).to.match(/come from a backup/);
		expect(keepMoves(world).map(({ id }) => id)).to.deep.equal(['restored']);
		const about = afterRestore(world);
		expect(about.series.map(({ kind, next }) => [kind, next])).to.deep.equal([
			['invoice', 8],
			['creditNote', 1]
		]);
		expect(about.waiting).to.equal(1);
	});

	it('learn from card and bank what came in meanwhile, once, and ask about what they cannot know', async () => {
		const total = world.db.select().from(documents).where(eq(documents.id, known)).get()!.total;
		world.cardNews = [
			settledEvent('chk-1', total, 'e1'),
			settledEvent('chk-of-lost', 99_00, 'e2'),
			{ ...settledEvent('chk-x', 1, 'e3'), type: 'payment.declined' }
		];
		world.cardDown = true;
		expect(await askSince(world)).to.deep.equal({
			taken: 0,
			known: 0,
			aside: 0,
			silent: ['the card processor']
		});
		world.cardDown = false;
		expect(await askSince(world)).to.deep.equal({ taken: 1, known: 1, aside: 1, silent: [] });
		expect(await askSince(world)).to.include({ taken: 0, known: 2, aside: 1 });
		const paid = world.db.$client
			.prepare('select outstanding from open_items where document_id = ?')
			.pluck()
			.get(known);
		expect(paid).to.equal(0);
		expect(
			world.db.$client.prepare('select count(*), max(why) from odd_news').raw().get()
		).to.deep.equal([
			1,
			'It is of a payment that was begun after the backup: £99.00. Record it by hand, with the invoice it is for.'
		]);
	});

	it('go on from where the owner says, and what waited is asked about instead of sent again', async () => {
		expect(() => goOn(world, { next: { invoice: 7, creditNote: 1 }, waiting: 'gone' }))
			.to.throw()
			.with.property('fields')
			.that.has.property('invoice');
		goOn(world, { next: { invoice: 9, creditNote: 1 }, waiting: 'gone' });
		await deliverDue(world);
		// The receipt of what the card processor told was written after the backup: it goes.
		expect(world.sent.map(({ subject }) => subject).join()).to.not.match(/^Invoice INV-0007/);
		expect(world.db.select().from(mails).where(eq(mails.kind, 'invoice')).get()!.state).to.be.oneOf(
			['unsure']
		);
		expect((await issued(world, { ...HOUSEHOLD, name: 'Next' })).number).to.equal('INV-0009');
		expect(() => afterRestore(world)).to.throw('This page');
	});
});

describe('secrets and seals', () => {
	it('are read with the key of the folder alone, under their own name', () => {
		const world = makeWorld();
		keepSecret(world.db, 'a', Buffer.from('lime'));
		expect(secretOf(world.db, 'a')!.toString()).to.equal('lime');
		const row = world.db.$client.prepare('select sealed from secrets').pluck().get() as Buffer;
		expect(row.includes(Buffer.from('lime'))).to.equal(false);
		world.db.$client.exec("update secrets set name = 'b'");
		expect(secretOf(world.db, 'b')).to.equal(null);
		world.end();
	});

	it('may take a passphrase at each start: without it nothing begins, with it all is as before', () => {
		const world = makeWorld();
		keepSecret(world.db, 'a', Buffer.from('lime'));
		const key = readFileSync(join(world.folder, 'key'), 'utf8').trim();
		sealKeyFile(world.folder, PHRASE);
		expect(readFileSync(join(world.folder, 'key'), 'utf8')).to.not.include(key);
		const start = (passphrase?: string) => unlockKey(world.folder, passphrase);
		expect(() => start()).to.throw(LockedError, 'AXIOMETER_PASSPHRASE');
		expect(() => start('seven lime kilns')).to.throw(LockedError, 'not the passphrase');
		start(PHRASE);
		expect(secretOf(world.db, 'a')!.toString()).to.equal('lime');
		sealKeyFile(world.folder, null);
		start();
		expect(readFileSync(join(world.folder, 'key'), 'utf8').trim()).to.equal(key);
		world.end();
	});

	it('open no file that was altered anywhere, cut or added to', async function () {
		this.timeout(60_000);
		const at = folder();
		const [plain, sealed, opened] = ['plain', 'sealed', 'opened'].map((one) => join(at, one)) as [
			string,
			string,
			string
		];
		writeFileSync(plain, Buffer.alloc(200_000, 'Orrell '));
		const keys = keysOf(PHRASE);
		await copyWhole(plain, sealed, sealing(await sealKey(PHRASE)));
		await unseal(sealed, opened, keys);
		expect(readFileSync(opened).equals(readFileSync(plain))).to.equal(true);
		const whole = readFileSync(sealed);
		for (const where of [30, 40, 1000, whole.length - 1]) {
			const bytes = Buffer.from(whole);
			bytes[where]! ^= 1;
			writeFileSync(sealed, bytes);
			rmSync(opened, { force: true });
			expect(
				(
					await unseal(sealed, opened, keys).then(
						() => null,
						(e: unknown) => e as Error
					)
				)?.message
			).to.match(/not fit/);
			expect(existsSync(opened)).to.equal(false);
		}
		writeFileSync(sealed, whole);
		appendFileSync(sealed, 'x');
		expect(
			(
				await unseal(sealed, opened, keys).then(
					() => null,
					(e: unknown) => e as Error
				)
			)?.message
		).to.match(/not fit/);
	});
});

describe('files beside the data', () => {
	it('come out of the data file of earlier versions, once, and are the same', async () => {
		const world = makeWorld();
		const customerId = addCustomer(world, HOUSEHOLD);
		const job = addJob(world, 'job', { title: 'Kitchen', customerId });
		const bytes = await photo(120);
		await addFile(world, { to: 'job', id: job }, 'kitchen.jpg', bytes);
		const { id } = filesOf(world.db, { to: 'job', id: job })[0]!;
		const { content } = loadFile(world, id, false, { to: 'job', id: job });
		world.db.$client.prepare('update files set content = ?, stored = null').run(content);
		rmSync(join(world.folder, 'files'), { recursive: true });
		moveFilesOut(world.db);
		moveFilesOut(world.db);
		expect(world.db.$client.prepare('select content from files').pluck().get()).to.equal(null);
		expect(loadFile(world, id, false, { to: 'job', id: job }).content.equals(content)).to.equal(
			true
		);
		world.end();
	});

	it('are missed by the audit where they are gone or are something else', async () => {
		const world = makeWorld();
		const customerId = addCustomer(world, HOUSEHOLD);
		const id = addJob(world, 'job', { title: 'Kitchen', customerId });
		await addFile(world, { to: 'job', id }, 'a.jpg', await photo(50));
		expect(auditBooks(world.db.$client)).to.deep.equal([]);
		const stored = world.db.$client.prepare('select stored from files').pluck().get() as string;
		writeFileSync(placeOf(world.folder, stored), 'other');
		expect(auditBooks(world.db.$client).join()).to.match(
			/“a.jpg” of the job “Kitchen” is not what was put there/
		);
		rmSync(placeOf(world.folder, stored));
		expect(auditBooks(world.db.$client).join()).to.match(/“a.jpg” of the job “Kitchen” is missing/);
		world.end();
	});
});
