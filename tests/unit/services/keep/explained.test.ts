// An export explains itself: no column without words, no words without a column; and every table is somebody's or nobody's.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { COMMON, EXPLAINED, LEFT_OUT } from '../../../../src/lib/server/services/keep/explained';
import { OF_NOBODY, OF_PERSON } from '../../../../src/lib/server/services/keep/person';
import { EXPORTED, TABLES } from '../../../../src/lib/server/services/keep/tables';
import { makeWorld } from '../../../support/world';

describe('what an export says of itself', () => {
	it('has words for every table and column, and none that are left over', () => {
		const missing = EXPORTED.flatMap(({ name, columns }) =>
			columns
				.map((column) => column.name)
				.filter((column) => !(EXPLAINED[name]?.columns[column] ?? COMMON[column]))
				.map((column) => `${name}.${column}`)
		);
		expect(missing).to.deep.equal([]);
		const over = Object.entries(EXPLAINED).flatMap(([table, { columns }]) => {
			const shape = EXPORTED.find(({ name }) => name === table);
			return Object.keys(columns)
				.filter((column) => !shape?.columns.some(({ name }) => name === column))
				.map((column) => `${table}.${column}`);
		});
		expect(over).to.deep.equal([]);
	});

	it('knows every table of the data file, or why it is left out', () => {
		const world = makeWorld();
		const inFile = world.db.$client
			.prepare(
				"select name from sqlite_master where type = 'table' and name not like 'sqlite_%' and name not like '\\_\\_%' escape '\\' and name not like '%\\_search%' escape '\\' and name <> 'price_words'"
			)
			.pluck()
			.all() as string[];
		world.end();
		expect(TABLES.map(({ name }) => name)).to.have.members(inFile);
		expect(Object.keys(LEFT_OUT).filter((name) => !inFile.includes(name))).to.deep.equal([]);
	});

	it('says of every table whose it is, with queries that fit the file', () => {
		const known = [...Object.keys(OF_PERSON), ...OF_NOBODY];
		expect(known).to.have.members(EXPORTED.map(({ name }) => name));
		const world = makeWorld();
		for (const [table, where] of Object.entries(OF_PERSON))
			world.db.$client.prepare(`select 1 from "${table}" where ${where}`);
		world.end();
	});
});
