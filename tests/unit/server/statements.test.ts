// What is prepared once and used again: never another's shape of rows, never what stood before a change, and not without end.
import Sqlite from 'better-sqlite3';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { keptStatements } from '../../../src/lib/server/db/statements';

const tools = sqliteTable('tools', {
	id: integer('id').primaryKey(),
	name: text('name').notNull()
});

describe('kept statements', () => {
	let client: Sqlite.Database;
	let prepared: string[];
	beforeEach(() => {
		client = new Sqlite(':memory:');
		client.exec(
			"create table tools (id integer primary key, name text); insert into tools values (1, 'float'), (2, 'hawk')"
		);
		prepared = [];
		const prepare = client.prepare.bind(client);
		client.prepare = ((words: string) => (
			prepared.push(words),
			prepare(words)
		)) as typeof client.prepare;
	});
	afterEach(() => client.close());

	it('are prepared once, whatever they are given', () => {
		const kept = keptStatements(client);
		const name = (id: number) => kept.prepare('select name from tools where id = ?').get(id);
		expect([name(1), name(2), name(3), name(1)]).to.deep.equal([
			{ name: 'float' },
			{ name: 'hawk' },
			undefined,
			{ name: 'float' }
		]);
		expect(prepared).to.have.length(1);
	});

	it('give each the rows it asks for, records or bare values, in any order', () => {
		const one = keptStatements(client).prepare('select id, name from tools order by id');
		const record = { id: 1, name: 'float' };
		expect(one.get()).to.deep.equal(record);
		expect(one.raw().get()).to.deep.equal([1, 'float']);
		expect(one.all()).to.deep.equal([record, { id: 2, name: 'hawk' }]);
		const bare = one.raw();
		expect(one.get()).to.deep.equal(record);
		expect(bare.all()).to.deep.equal([
			[1, 'float'],
			[2, 'hawk']
		]);
		expect(prepared).to.have.length(1);
	});

	it('serve the query builder: reading, writing, what a write gives back, and a transaction undone', () => {
		const db = drizzle(keptStatements(client));
		const add = (name: string) => db.insert(tools).values({ name }).returning().get();
		expect([add('darby'), add('darby')]).to.deep.equal([
			{ id: 3, name: 'darby' },
			{ id: 4, name: 'darby' }
		]);
		expect(db.all(sql`select name from tools where id = ${4}`)).to.deep.equal([{ name: 'darby' }]);
		expect(db.update(tools).set({ name: 'trowel' }).run().changes).to.equal(4);
		expect(() =>
			db.transaction((tx) => {
				tx.delete(tools).run();
				expect(tx.select().from(tools).all()).to.deep.equal([]);
				throw new Error('undone');
			})
		).to.throw('undone');
		expect(db.select({ name: tools.name }).from(tools).all()).to.have.length(4);
		expect(new Set(prepared).size).to.equal(prepared.length);
	});

	it('see a table that was changed after they were prepared', () => {
		const one = keptStatements(client).prepare('select * from tools where id = 1');
		expect(one.get()).to.deep.equal({ id: 1, name: 'float' });
		client.exec("alter table tools add column made text default 'here'");
		expect(one.get()).to.deep.equal({ id: 1, name: 'float', made: 'here' });
		expect(one.raw().get()).to.deep.equal([1, 'float', 'here']);
	});

	it('answer as before after they have failed', () => {
		const one = keptStatements(client).prepare('insert into tools values (?, ?)');
		expect(() => one.run(1, 'twice')).to.throw(/UNIQUE/);
		expect(one.run(9, 'once').changes).to.equal(1);
	});

	it('are not kept without end: the one used longest ago is prepared anew', () => {
		const kept = keptStatements(client, 2);
		const ask = (n: number) => kept.prepare(`select ${n}`).raw().get();
		for (const n of [1, 2, 1, 3, 1, 2]) expect(ask(n)).to.deep.equal([n]);
		expect(prepared).to.deep.equal(['select 1', 'select 2', 'select 3', 'select 2']);
	});
});
