// Merging: every place that names a customer is known, and each either follows or stays for a reason.
import { expect } from 'chai';
import { getTableConfig, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import * as schema from '../../../../src/lib/server/db/schema';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import {
	FOLLOWS,
	FOLLOWS_WHERE_FREE,
	mergeCustomers,
	SHEETS,
	STAYS
} from '../../../../src/lib/server/services/customers/merge';
import { noteCall } from '../../../../src/lib/server/services/owed/holds';
import { saveLateTerms } from '../../../../src/lib/server/services/owed/lateTerms';
import { savePayerChasing } from '../../../../src/lib/server/services/chasing/payers';
import { addRepeat, changeRepeat } from '../../../../src/lib/server/services/repeats/repeats';
import { payByHand } from '../../../support/money';
import {
	draftOf,
	HOUSEHOLD,
	issued,
	LINES,
	makeWorld,
	type TestWorld
} from '../../../support/world';
import { blankSheet } from '../../../../src/lib/core/sheet/blank';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => world.end());

const tables = (Object.values(schema) as unknown[]).filter(
	(one): one is SQLiteTable => one instanceof SQLiteTable
);

/** Columns that hold a customer, by what they refer to or by what they are called. */
function naming(): string[] {
	return tables.flatMap((table) => {
		const { name, columns, foreignKeys } = getTableConfig(table);
		const referring = foreignKeys.flatMap((key) => {
			const { columns: own, foreignTable } = key.reference();
			return getTableConfig(foreignTable as SQLiteTable).name === 'customers'
				? own.map((column) => column.name)
				: [];
		});
		const called = columns
			.map((column) => column.name)
			.filter((column) => /^(customer|payer|contractor|bill_to)_id$/.test(column));
		return [...new Set([...referring, ...called])].map((column) => `${name}.${column}`);
	});
}

describe('merging knows', () => {
	it('every column that names a customer', () => {
		const known = [...FOLLOWS, ...FOLLOWS_WHERE_FREE, ...STAYS].map((one) => one.join('.'));
		// Drafts follow with their sheets; issued documents stay.
		expect([...known, 'documents.customer_id'].sort()).to.deep.equal(naming().sort());
	});

	it('every sheet that is kept', () => {
		const sheets = tables.flatMap((table) => {
			const { name, columns } = getTableConfig(table);
			return columns.some((column) => column.name === 'sheet') ? [name] : [];
		});
		expect(SHEETS.map(([table]) => table).sort()).to.deep.equal(sheets.sort());
	});
});

describe('merging moves', () => {
	it('a repeat with its sheets and what is agreed; nobody is charged on the archived account', async () => {
		const keep = addCustomer(world, HOUSEHOLD);
		const gone = await issued(world, { ...HOUSEHOLD, name: 'Twice' });
		payByHand(world, gone.id, '2760');
		const repeat = addRepeat(world, 'r', gone.id, {
			name: 'Care',
			start: '2026-12-01',
			every: 1,
			unit: 'month',
			action: 'draft'
		});
		changeRepeat(world, repeat, '2027-01-01', {
			...blankSheet(),
			customerId: gone.customerId,
			rows: LINES
		});
		noteCall(world, gone.customerId, 'Rang', 'c');
		saveLateTerms(world, gone.customerId, {
			fee: '10',
			rate: '',
			afterDays: '5',
			terms: 'As agreed'
		});
		mergeCustomers(world, gone.customerId, keep);
		for (const [table, column] of [...FOLLOWS, ...FOLLOWS_WHERE_FREE]) {
			const own = table === 'customers' ? ` and id <> ${gone.customerId}` : '';
			const left = world.db.$client
				.prepare(`select count(*) from ${table} where ${column} = ?${own}`)
				.pluck()
				.get(gone.customerId);
			expect(left, `${table}.${column}`).to.equal(0);
		}
		for (const [table, where] of SHEETS) {
			const left = world.db.$client
				.prepare(
					`select count(*) from ${table} where json_extract(sheet, '$.customerId') = ? and ${where}`
				)
				.pluck()
				.get(gone.customerId);
			expect(left, table).to.equal(0);
		}
		expect(
			world.db.get<{ id: number }>(sql`select customer_id as id from late_terms`)!.id
		).to.equal(keep);
	});

	it('what each has one of only where the one that is kept has none', () => {
		const keep = addCustomer(world, HOUSEHOLD);
		const gone = addCustomer(world, { ...HOUSEHOLD, name: 'Twice' });
		const chased = (note: string) => ({ planId: null, never: false, onHold: true, note });
		savePayerChasing(world, keep, chased('kept'));
		savePayerChasing(world, gone, chased('gone'));
		mergeCustomers(world, gone, keep);
		const rows = world.db.all<{ note: string }>(
			sql`select note from customer_chasing where customer_id = ${keep}`
		);
		expect(rows).to.deep.equal([{ note: 'kept' }]);
	});

	it('drafts in which the other is only the bill-to', () => {
		const keep = addCustomer(world, HOUSEHOLD);
		const gone = addCustomer(world, { ...HOUSEHOLD, name: 'Agent' });
		const draft = draftOf(world, { ...HOUSEHOLD, name: 'Landlord' }, { billToId: gone });
		mergeCustomers(world, gone, keep);
		expect(
			world.db.get<{ billTo: number }>(
				sql`select json_extract(sheet, '$.billToId') as billTo from documents where id = ${draft.id}`
			)!.billTo
		).to.equal(keep);
	});
});
