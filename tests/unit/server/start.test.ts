import { expect } from 'chai';
import Sqlite from 'better-sqlite3';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { ConfigError, readConfig } from '../../../src/lib/server/config';
import { connect } from '../../../src/lib/server/db/connection';
import { MigrationError, migrateFile } from '../../../src/lib/server/db/migrate';
import { MIGRATIONS } from '../../../src/lib/server/open';

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
		it(`is refused with ${name}=${value}, by name`, () =>
			expect(() => readConfig({ [name]: value })).to.throw(ConfigError, `${name}=${value}`));
	}
});

describe('the data file', () => {
	let folder: string;
	let file: string;
	beforeEach(() => {
		folder = mkdtempSync(join(tmpdir(), 'axiometer-'));
		file = join(folder, 'axiometer.sqlite');
	});
	afterEach(() => rmSync(folder, { recursive: true, force: true }));

	it('is opened so that what was acknowledged survives', () => {
		migrateFile(file, MIGRATIONS, '1');
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
		migrateFile(file, MIGRATIONS, '1');
		const client = new Sqlite(file);
		client.exec('create table kept (id integer); insert into kept values (1)');
		client.close();
	};

	it('is copied aside before it is migrated', () => {
		fill();
		migrateFile(file, laterVersion('create table later (id integer)'), '2');
		expect(tables()).to.have.members(['kept', 'later']);
		expect(readdirSync(join(folder, 'backups'))).to.deep.equal(['before-0099_later-2.sqlite']);
	});

	it('stays as it was where a migration fails, and the message says so', () => {
		fill();
		const migrations = laterVersion(
			'create table later (id integer);\n--> statement-breakpoint\ninsert into nowhere values (1)'
		);
		expect(() => migrateFile(file, migrations, '2')).to.throw(MigrationError, 'as it was before');
		expect(tables()).to.deep.equal(['kept']);
	});

	it('of another line of versions is refused in words, and not a byte of it is touched', () => {
		fill();
		const client = new Sqlite(file);
		client.exec('update __drizzle_migrations set created_at = created_at - 1');
		client.pragma('wal_checkpoint(TRUNCATE)');
		client.close();
		const before = readFileSync(file);
		expect(() => migrateFile(file, laterVersion('create table later (id integer)'), '2')).to.throw(
			MigrationError,
			/written by another version.*Nothing was changed in it/
		);
		expect(readFileSync(file).equals(before)).to.equal(true);
		expect(readdirSync(folder)).to.not.include('backups');
	});

	it('is left alone where there is nothing to migrate', () => {
		fill();
		migrateFile(file, MIGRATIONS, '2');
		expect(readdirSync(folder)).to.not.include('backups');
	});
});
