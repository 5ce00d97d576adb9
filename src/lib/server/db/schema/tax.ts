// Evidence for the tax return: the payment and deduction statements contractors gave.
import { integer, sqliteTable, text, unique } from 'drizzle-orm/sqlite-core';
import { customers } from './customers';

export const deductionStatements = sqliteTable(
	'deduction_statements',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		contractorId: integer('contractor_id')
			.notNull()
			.references(() => customers.id),
		/** The 5th on which its tax month ends. */
		monthEnd: text('month_end').notNull(),
		/** Pence, as it stands on the statement. */
		gross: integer('gross').notNull(),
		materials: integer('materials').notNull().default(0),
		deduction: integer('deduction').notNull(),
		reference: text('reference').notNull().default(''),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [unique('deduction_statements_once').on(table.contractorId, table.monthEnd)]
);
