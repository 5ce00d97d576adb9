import { expect } from 'chai';
import Sqlite from 'better-sqlite3';
import {
	cpSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	statSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { ConfigError, readConfig } from '../../../src/lib/server/config';
import { connect } from '../../../src/lib/server/db/connection';
import { HeldError, holdFolder } from '../../../src/lib/server/db/hold';
import { MigrationError, migrateFile } from '../../../src/lib/server/db/migrate';
import { DamagedError, MIGRATIONS, openWorld } from '../../../src/lib/server/open';
import { LostBooksError } from '../../../src/lib/server/services/business/claim';
import { setPassword } from '../../../src/lib/server/services/business/signIn';

describe('the environment', () => {
	it('may be silent', () =>
		expect(readConfig({})).to.include({
			port: 4400,
			clock: 'system',
			origin: 'http://127.0.0.1:4400'
		}));
	const wrong: [string, string][] = [
		['AXIOMETER_PORT', 'eighty'],
		['AXIOMETER_PORT', '70000'],
		['AXIOMETER_CLOCK', 'yesterday'],
		['AXIOMETER_CLOCK', '2026-13-01T09:00'],
		['AXIOMETER_DEMO', 'yes'],
		['AXIOMETER_SMTP_URL', 'mail server'],
		['AXIOMETER_CARD_SECRET', 'short']
	];
	for (const [name, value] of wrong) {
		it(`is refused with ${name}=${value}, by name`, () => {
			// What is secret is not repeated.
			const said = name.endsWith('SECRET') ? '…' : value;
			expect(() => readConfig({ [name]: value })).to.throw(ConfigError, `${name}=${said}`);
		});
	}

	const OWN = {
		AXIOMETER_STAND_INS: '0',
		AXIOMETER_CARD_SECRET: 'of the card service',
		AXIOMETER_TEXT_SECRET: 'of the text service',
		AXIOMETER_BANK_SECRET: 'of the bank service'
	};
	it('needs secrets of one’s own without stand-ins: none at all, or one that is published, will not do', () => {
		expect(readConfig(OWN)).to.include({ cardSecret: 'of the card service' });
		for (const [name, value] of [
			['AXIOMETER_CARD_SECRET', undefined],
			['AXIOMETER_TEXT_SECRET', ''],
			['AXIOMETER_BANK_SECRET', 'stand-in-card-secret']
		] as const)
			expect(() => readConfig({ ...OWN, [name]: value }), name).to.throw(ConfigError, name);
	});
	it('knows where the browser may go to pay', () => {
		expect(readConfig({}).payPages).to.deep.equal([
			'http://127.0.0.1:4427',
			'http://127.0.0.1:4429'
		]);
		expect(
			readConfig({ AXIOMETER_PAY_PAGES: 'https://pay.example/x https://bank.example' }).payPages
		).to.deep.equal(['https://pay.example', 'https://bank.example']);
		expect(() => readConfig({ AXIOMETER_PAY_PAGES: 'pay' })).to.throw(ConfigError);
	});
});

describe('the data file', () => {
	let folder: string;
	let file: string;
	beforeEach(() => {
		folder = mkdtempSync(join(tmpdir(), 'axiometer-'));
		file = join(folder, 'axiometer.sqlite');
	});
	afterEach(() => rmSync(folder, { recursive: true, force: true }));

	it('that is gone or empty is no fresh start: nothing is begun where books have been', async () => {
		const config = readConfig({ AXIOMETER_DATA: folder });
		const open = () => openWorld(config);
		const first = open();
		await setPassword(first, 'lime-and-plaster');
		first.db.$client.close();
		open().db.$client.close();
		const modes = readdirSync(folder).map((name) => statSync(join(folder, name)).mode & 0o777);
		expect([...new Set([...modes, statSync(folder).mode & 0o077])]).to.deep.equal([0o600, 0]);
		for (const name of readdirSync(folder)) if (/sqlite/.test(name)) rmSync(join(folder, name));
		expect(open).to.throw(LostBooksError, 'missing or empty');
		rmSync(join(folder, 'books-are-here'));
		for (const name of readdirSync(folder)) if (/sqlite/.test(name)) rmSync(join(folder, name));
		open().db.$client.close();
	});

	for (const [what, change, words] of [
		[
			'is something else',
			() => writeFileSync(file, 'Dear all, these are not books at all. '.repeat(40)),
			/damaged/
		],
		[
			'was overwritten',
			() => {
				const bytes = readFileSync(file);
				bytes.fill(0x5a, 100, 4096);
				writeFileSync(file, bytes);
			},
			/damaged/
		]
	] as const)
		it(`that ${what} is told in a line, and left as it is`, () => {
			const config = readConfig({ AXIOMETER_DATA: folder });
			openWorld(config).db.$client.close();
			change();
			const held = () => (statSync(file).isFile() ? readFileSync(file).toString('base64') : '');
			const before = held();
			expect(() => openWorld(config)).to.throw(DamagedError, words);
			expect(held()).to.equal(before);
		});

	it('is opened so that what was acknowledged survives', () => {
		migrateFile(file, MIGRATIONS, 1);
		const { $client: client } = connect(file);
		const pragma = (name: string) => client.pragma(name, { simple: true });
		expect(
			['journal_mode', 'synchronous', 'foreign_keys', 'busy_timeout'].map(pragma)
		).to.deep.equal(['wal', 2, 1, 5000]);
		client.close();
	});

	/** The migrations of a later version, of which the last one does `statement`. */
	function laterVersion(statement: string): string {
		const migrations = join(folder, 'migrations');
		cpSync(MIGRATIONS, migrations, { recursive: true });
		const journal = JSON.parse(readFileSync(join(migrations, 'meta/_journal.json'), 'utf8'));
		journal.entries.push({
			idx: 99,
			version: '6',
			when: 9_999_999_999_999,
			tag: '0099_later',
			breakpoints: true
		});
		writeFileSync(join(migrations, 'meta/_journal.json'), JSON.stringify(journal));
		writeFileSync(join(migrations, '0099_later.sql'), statement);
		return migrations;
	}
	const tables = () => {
		const client = new Sqlite(file);
		const names = client
			.prepare("select name from sqlite_master where name in ('later', 'kept')")
			.pluck()
			.all();
		client.close();
		return names;
	};
	const fill = () => {
		migrateFile(file, MIGRATIONS, 1);
		const client = new Sqlite(file);
		client.exec('create table kept (id integer); insert into kept values (1)');
		client.close();
	};

	it('is copied aside before it is migrated', () => {
		fill();
		migrateFile(file, laterVersion('create table later (id integer)'), 2);
		expect(tables()).to.have.members(['kept', 'later']);
		expect(readdirSync(join(folder, 'backups'))).to.have.members([
			'axiometer-19700101T000000Z-update.sqlite',
			'axiometer-19700101T000000Z-update.sqlite.files'
		]);
	});

	it('stays as it was where a migration fails, and the message says so', () => {
		fill();
		const migrations = laterVersion(
			'create table later (id integer);\n--> statement-breakpoint\ninsert into nowhere values (1)'
		);
		const before = readFileSync(file);
		expect(() => migrateFile(file, migrations, 2)).to.throw(MigrationError, 'It was not touched');
		expect(readFileSync(file).equals(before)).to.equal(true);
		expect(tables()).to.deep.equal(['kept']);
		expect(readdirSync(folder)).to.not.include('axiometer.sqlite.new');
	});

	it('is held by one server: a second one is told, and the next may come when it has gone', () => {
		const letGo = holdFolder(folder);
		const other = new Sqlite(join(folder, 'in-use'), { timeout: 0 });
		expect(() => other.exec('begin exclusive')).to.throw('locked');
		letGo();
		other.exec('begin exclusive');
		expect(() => holdFolder(folder)).to.throw(HeldError, 'send everything twice');
		other.close();
		holdFolder(folder)();
	});

	it('what was cut off in the middle of a migration is begun anew', () => {
		fill();
		writeFileSync(`${file}.new`, 'half of it');
		migrateFile(file, laterVersion('create table later (id integer)'), 2);
		expect(tables()).to.have.members(['kept', 'later']);
	});

	it('of another line of versions is refused in words, and not a byte of it is touched', () => {
		fill();
		const client = new Sqlite(file);
		client.exec('update __drizzle_migrations set created_at = created_at - 1');
		client.pragma('wal_checkpoint(TRUNCATE)');
		client.close();
		const before = readFileSync(file);
		expect(() => migrateFile(file, laterVersion('create table later (id integer)'), 2)).to.throw(
			MigrationError,
			/written by another version.*Nothing was changed in it/
		);
		expect(readFileSync(file).equals(before)).to.equal(true);
		expect(readdirSync(folder)).to.not.include('backups');
	});

	it('is left alone where there is nothing to migrate', () => {
		fill();
		migrateFile(file, MIGRATIONS, 2);
		expect(readdirSync(folder)).to.not.include('backups');
	});
});
